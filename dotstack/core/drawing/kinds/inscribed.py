"""Shapes with all their corners on an ellipse: polygons and stars."""

from typing import Annotated, Literal, Self

from pydantic import Field

from dotstack.core import primitives
from dotstack.core.drawing.kinds.node import RadialNode, remembered, share
from dotstack.core.geometry import Outline
from dotstack.core.values import Radius

MAX_CORNERS = 360
_SIZINGS = 80
_SAME = 1e-12

_polygon = remembered(primitives.polygon)
_star = remembered(primitives.star)


class _InscribedNode(RadialNode):
    """A shape of corners on the ellipse, all of which can be rounded."""

    def sized(self, width: float, height: float) -> Self:
        # Rounded corners keep their radius, so that the box grows a little unlike the radii.
        shape = self
        for _ in range(_SIZINGS):
            x0, y0, x1, y1 = shape.drawn().bounds
            across, down = share(width, x1 - x0), share(height, y1 - y0)
            if max(abs(across - 1.0), abs(down - 1.0)) <= _SAME:
                break
            shape = shape.scaled(across, down)
        return shape


class PolygonNode(_InscribedNode):
    """A polygon inscribed in an ellipse, its corners rounded by ``radius`` as far as it fits."""

    kind: Literal["polygon"] = "polygon"
    sides: Annotated[int, Field(ge=3, le=MAX_CORNERS)] = 6
    radius: Radius = 0.0

    def drawn(self) -> Outline:
        return _polygon(self.sides, self.rx, self.ry, self.radius)

    def fitting(self) -> dict[str, tuple[float, float]]:
        fits = primitives.fitting_polygon_radius(self.sides, self.rx, self.ry, self.radius)
        return {"radius": (self.radius, fits)}


class StarNode(_InscribedNode):
    """A star inscribed in an ellipse; its notches lie at ``ratio`` of the tips' radius."""

    kind: Literal["star"] = "star"
    points: Annotated[int, Field(ge=3, le=MAX_CORNERS)] = 5
    ratio: Annotated[float, Field(gt=0, le=1)] = 0.5
    tip_radius: Radius = 0.0
    notch_radius: Radius = 0.0

    def drawn(self) -> Outline:
        return _star(self.points, self.rx, self.ry, self.ratio, self.tip_radius, self.notch_radius)

    def fitting(self) -> dict[str, tuple[float, float]]:
        tip, notch = primitives.fitting_star_radii(
            self.points, self.rx, self.ry, self.ratio, self.tip_radius, self.notch_radius
        )
        return {
            "tip_radius": (self.tip_radius, tip),
            "notch_radius": (self.notch_radius, notch),
        }
