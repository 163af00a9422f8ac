"""Arcs by their ends, as SVG has them, and by their centres (SVG 1.1, appendix F.6)."""

import cmath
import math
from collections.abc import Iterator
from dataclasses import dataclass

# Float64 knows no better than this, as a share, where the ends of a half turn are.
_HALF_TURN = 1e-15
_QUARTER = math.pi / 2


@dataclass(frozen=True, slots=True)
class Arc:
    """One elliptical arc; fields as in ``Segments``, angles in radians."""

    start: complex
    end: complex
    centre: complex
    radii: complex
    rotation: float
    angle: float
    sweep: float

    def at(self, t: float) -> complex:
        """The point at t from 0 to 1, by the ellipse."""
        theta = self.angle + t * self.sweep
        local = complex(self.radii.real * math.cos(theta), self.radii.imag * math.sin(theta))
        return self.centre + cmath.rect(1.0, self.rotation) * local

    def points(self, count: int) -> Iterator[complex]:
        """The inner points that part it evenly into ``count``, and the ends of axes between."""
        yield from (self.at(i / count) for i in range(1, count))
        low, high = sorted((self.angle, self.angle + self.sweep))
        for quarter in range(math.floor(low / _QUARTER) + 1, math.ceil(high / _QUARTER)):
            yield self.at((quarter * _QUARTER - self.angle) / self.sweep)

    def halves(self) -> tuple["Arc", "Arc"]:
        """Its two halves."""
        middle, sweep = self.at(0.5), self.sweep / 2
        shape = self.centre, self.radii, self.rotation
        return (
            Arc(self.start, middle, *shape, self.angle, sweep),
            Arc(middle, self.end, *shape, self.angle + sweep, sweep),
        )

    def distance(self, point: complex) -> float:
        """About how far a point near it lies from it.

        To first order in the ellipse's equation, but at least as far as from its box: at the
        tips of a thin one the first order tells little.
        """
        local = (point - self.centre) * cmath.rect(1.0, -self.rotation)
        rx, ry = self.radii.real, self.radii.imag
        theta = math.atan2(local.imag / ry, local.real / rx)
        if math.copysign(1.0, self.sweep) * (theta - self.angle) % math.tau > abs(self.sweep):
            return min(abs(point - self.start), abs(point - self.end))
        reach = math.hypot(local.real / rx, local.imag / ry)
        slope = math.hypot(local.real / rx**2, local.imag / ry**2)
        beside = max(abs(local.real) - rx, abs(local.imag) - ry)
        return max(abs(reach - 1.0) * reach / slope, beside) if slope else max(rx, ry)


def stretch(start: complex, end: complex, radii: complex, rotation: float) -> float:
    """Half the distance of the ends in the frame in which the ellipse is the unit circle."""
    half = (start - end) / 2 * cmath.rect(1.0, -rotation)
    return math.hypot(half.real / radii.real, half.imag / radii.imag)


def centre_form(
    start: complex, radii: complex, degrees: float, *, large: bool, positive: bool, end: complex
) -> Arc:
    """The arc between two different ends with radii above 0 (F.6.5 and F.6.6).

    Radii that are too small are made to fit.
    """
    rx, ry = radii.real, radii.imag
    rotation = 0.0 if rx == ry else math.radians(degrees % 180.0)
    turn = cmath.rect(1.0, rotation)
    half = (start - end) / 2 * turn.conjugate()
    x, y = half.real / rx, half.imag / ry
    reach = math.hypot(x, y)
    if reach > 1.0:
        rx, ry = rx * reach, ry * reach
    # On the unit circle the centre lies across the chord's middle.
    offset = 0.0
    if reach < 1.0 - _HALF_TURN:
        offset = math.sqrt((1.0 - reach) * (1.0 + reach)) / reach
    else:
        x, y = x / reach, y / reach
    if large == positive:
        offset = -offset
    cx, cy = offset * y, -offset * x
    centre = turn * complex(rx * cx, ry * cy) + (start + end) / 2
    first = math.atan2(y - cy, x - cx)
    sweep = math.atan2(-y - cy, -x - cx) - first
    if positive and sweep <= 0:
        sweep += 2 * math.pi
    if not positive and sweep >= 0:
        sweep -= 2 * math.pi
    return Arc(start, end, centre, complex(rx, ry), rotation, first, sweep)
