"""The drop."""

from functools import lru_cache
from typing import Annotated, Literal, Self

from pydantic import Field

from dotstack.core import primitives
from dotstack.core.drawing.kinds.node import PrimitiveNode, revised
from dotstack.core.geometry import Outline
from dotstack.core.values import REMEMBERED, Length

_drop = lru_cache(REMEMBERED)(primitives.drop)


class DropNode(PrimitiveNode):
    """A drop: an ellipse, and a tip at ``tip`` times ry above its centre."""

    kind: Literal["drop"] = "drop"
    rx: Length
    ry: Length
    tip: Annotated[float, Field(ge=1, le=1000)] = 2.0

    def drawn(self) -> Outline:
        return _drop(self.rx, self.ry, self.tip)

    def scaled(self, across: float, down: float) -> Self:
        return revised(self, {"rx": self.rx * across, "ry": self.ry * down})
