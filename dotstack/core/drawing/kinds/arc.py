"""The arc."""

from functools import lru_cache
from typing import Annotated, Literal, Self

import numpy as np
from pydantic import Field

from dotstack.core import primitives
from dotstack.core.drawing.kinds.node import Evaluation, PrimitiveNode, revised
from dotstack.core.geometry import Outline
from dotstack.core.values import REMEMBERED, Length

_arc = lru_cache(REMEMBERED)(primitives.arc)


class ArcNode(PrimitiveNode):
    """An open line along a circle or ellipse, from ``start_deg`` on as far as ``sweep_deg``."""

    kind: Literal["arc"] = "arc"
    rx: Length
    ry: Length
    start_deg: Annotated[float, Field(ge=-360, le=360)] = 180.0
    sweep_deg: Annotated[float, Field(gt=0, le=360)] = 180.0

    def drawn(self) -> Outline:
        return _arc(self.rx, self.ry, self.start_deg, self.sweep_deg)

    def scaled(self, across: float, down: float) -> Self:
        return revised(self, {"rx": self.rx * across, "ry": self.ry * down})

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        turns = np.radians(self.start_deg + self.sweep_deg * np.array([0.0, 0.5, 1.0]))
        grips = np.column_stack([self.rx * np.cos(turns), self.ry * np.sin(turns)])
        return {**super().told(evaluation), "grips": tuple(map(tuple, grips.tolist()))}
