"""The line."""

from typing import Literal, Self

from dotstack.core import primitives
from dotstack.core.drawing.kinds.node import Evaluation, PrimitiveNode, remembered, revised
from dotstack.core.geometry import Outline
from dotstack.core.values import Length

_line = remembered(primitives.line)


class LineNode(PrimitiveNode):
    """A straight line of two ends, its middle at its own origin."""

    kind: Literal["line"] = "line"
    length: Length

    def drawn(self) -> Outline:
        return _line(self.length)

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        half = self.length / 2
        return {**super().told(evaluation), "grips": ((-half, 0.0), (half, 0.0))}

    def scaled(self, across: float, down: float) -> Self:
        return self.sized(self.length * across, 0.0)

    def sized(self, width: float, height: float) -> Self:
        return revised(self, {"length": width})
