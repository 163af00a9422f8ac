"""What letters stand on: a straight line, a circle, a path. Each bends the lines of words.

A letter is never bent itself: it is turned and moved so that the middle of its base stands where
that falls on the line. A course answers, for a place along its lines, the map from axes with their
origin at that place, x along the line and y down, to those of the words.
"""

from cmath import rect
from dataclasses import dataclass
from math import radians
from typing import Protocol

from dotstack.core.errors import GeometryError
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.walk import Walk
from dotstack.core.letters.setting import BEFORE, Alignment


class Course(Protocol):
    """What letters stand on; lengths and places are in the axes of the words."""

    def at(self, along: float, below: float) -> Affine:
        """Where a place ``along`` the line, and so far ``below`` the first, comes to stand."""


@dataclass(frozen=True, slots=True)
class Straight:
    """The x axis."""

    def at(self, along: float, below: float) -> Affine:
        return Affine.translation(along, below)


@dataclass(frozen=True, slots=True)
class Round:
    """A circle round the origin.

    Outside, letters have their heads away from it and run clockwise; inside, their heads are
    towards the centre and they run the other way, so that they stand upright at the foot.
    ``start_deg`` is where lines are set from, clockwise from +x.
    """

    radius: float
    start_deg: float
    inside: bool

    def at(self, along: float, below: float) -> Affine:
        way = -1.0 if self.inside else 1.0
        radius = self.radius - way * below
        if radius <= 0:
            raise GeometryError("the circle is too small for so many lines of words")
        turn = rect(1.0, radians(self.start_deg) + way * along / radius)
        return Affine.standing(radius * turn, way * 1j * turn)


class Along:
    """The first contour of an outline, from a distance along it on.

    Letters have their heads to its left, which is outside where it runs clockwise; on the other
    side they run the other way. Beyond the ends of an open one they go straight on.
    """

    def __init__(self, outline: Outline, start: float, *, other_side: bool) -> None:
        if outline.is_empty:
            raise GeometryError("the line that the words stand on has nothing left")
        contour = outline.contours[0]
        self._walk = Walk(contour.backwards if other_side else contour)
        self._start = self._walk.length - start if other_side else start

    def at(self, along: float, below: float) -> Affine:
        point, way = self._walk.at(self._start + along)
        return Affine.standing(point + below * 1j * way, way)


def usual_start(outline: Outline, alignment: Alignment) -> float:
    """How far along an outline words are set from at first.

    Of an open one so that the words lie on it; at the start of a closed one.
    """
    if outline.is_empty or outline.closed[0]:
        return 0.0
    return BEFORE[alignment] * Walk(outline.contours[0]).length
