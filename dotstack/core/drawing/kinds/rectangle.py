"""The box."""

from typing import Literal, Self

from dotstack.core import primitives
from dotstack.core.drawing.kinds.node import PrimitiveNode, remembered, revised
from dotstack.core.geometry import Outline
from dotstack.core.values import Length, Radius

rectangle = remembered(primitives.rectangle)


class RectangleNode(PrimitiveNode):
    """A box; corners are drawn with the largest radii that fit.

    Attributes:
        radius: of all corners.
        radii: of each, where they differ: from the top left on clockwise.

    """

    kind: Literal["rectangle"] = "rectangle"
    width: Length
    height: Length
    radius: Radius = 0.0
    radii: tuple[Radius, Radius, Radius, Radius] | None = None

    def drawn(self) -> Outline:
        return rectangle(self.width, self.height, self.radii or self.radius)

    def scaled(self, across: float, down: float) -> Self:
        return self.sized(self.width * across, self.height * down)

    def sized(self, width: float, height: float) -> Self:
        return revised(self, {"width": width, "height": height})

    def fitting(self) -> dict[str, tuple[float, float]]:
        fits = primitives.fitting_box_radii(self.width, self.height, self.radii or self.radius)
        if not self.radii:
            return {"radius": (self.radius, min(fits))}
        pairs = zip(self.radii, fits, strict=True)
        return {f"radii.{i}": pair for i, pair in enumerate(pairs)}

    def rounder(self, scale: float) -> dict[str, object]:
        radii = self.radii and tuple(radius * scale for radius in self.radii)
        return {"radius": self.radius * scale, "radii": radii}
