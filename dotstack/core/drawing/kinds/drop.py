"""The drop."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core import primitives
from dotstack.core.drawing.kinds.node import RadialNode, remembered
from dotstack.core.geometry import Outline

_drop = remembered(primitives.drop)


class DropNode(RadialNode):
    """A drop: an ellipse, and a tip at ``tip`` times ry above its centre."""

    kind: Literal["drop"] = "drop"
    tip: Annotated[float, Field(ge=1, le=1000)] = 2.0

    def drawn(self) -> Outline:
        return _drop(self.rx, self.ry, self.tip)
