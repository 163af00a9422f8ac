"""The arc."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core import primitives
from dotstack.core.drawing.kinds.node import Evaluation, RadialNode, remembered
from dotstack.core.geometry import Outline

_arc = remembered(primitives.arc)


class ArcNode(RadialNode):
    """An open line along a circle or ellipse, from ``start_deg`` on as far as ``sweep_deg``."""

    kind: Literal["arc"] = "arc"
    start_deg: Annotated[float, Field(ge=-360, le=360)] = 180.0
    sweep_deg: Annotated[float, Field(gt=0, le=360)] = 180.0

    def drawn(self) -> Outline:
        return _arc(self.rx, self.ry, self.start_deg, self.sweep_deg)

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        turns = (self.start_deg + self.sweep_deg * part for part in (0.0, 0.5, 1.0))
        points = (primitives.on_ellipse(self.rx, self.ry, turn) for turn in turns)
        grips = tuple((point.real, point.imag) for point in points)
        return {**super().told(evaluation), "grips": grips}
