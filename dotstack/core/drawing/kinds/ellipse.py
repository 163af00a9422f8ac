"""The ellipse, and what is cut from it."""

from typing import Annotated, Literal, Self

from pydantic import Field

from dotstack.core import primitives
from dotstack.core.drawing.kinds.node import RadialNode, remembered, revised
from dotstack.core.geometry import Outline

_ellipse = remembered(primitives.ellipse)


class EllipseNode(RadialNode):
    """A circle or ellipse; with a sweep or an inner ratio a pie, a ring, or a band."""

    kind: Literal["ellipse"] = "ellipse"
    start_deg: Annotated[float, Field(ge=-360, le=360)] = 0.0
    sweep_deg: Annotated[float, Field(gt=0, le=360)] = 360.0
    inner: Annotated[float, Field(ge=0, le=0.9999)] = 0.0

    def drawn(self) -> Outline:
        return _ellipse(self.rx, self.ry, self.start_deg, self.sweep_deg, self.inner)

    def sized(self, width: float, height: float) -> Self:
        if self.sweep_deg < 360.0:
            return super().sized(width, height)
        return revised(self, {"rx": width / 2, "ry": height / 2})
