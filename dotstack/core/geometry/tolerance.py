"""How close is the same: one value, derived from the input, for one whole computation."""

from dataclasses import dataclass
from typing import Self

_SNAP = 2e-10
_NOISE = 1e-3
_COURSE = 4.0
_BLUR = 1000.0
_THIN = 16.0
_TURN_RAD = 1e-5
_PARALLEL_RAD = 1e-12


@dataclass(frozen=True, slots=True)
class Tolerance:
    """Lengths are in drawing units, scaled to the extent of the input; angles in radians.

    Attributes:
        snap: two points this close are one vertex; a point this close to a curve is on it.
        course: two edges between the same vertices that stay this close are one edge.
        noise: two curves that differ by no more than this along a stretch coincide there;
            what lies below it is rounding of float64.
        blur: what a curve does this close to a vertex tells nothing, for the vertex is known
            to *snap* only.
        thin: an ellipse whose smaller radius is below this is a line there and back.
        parallel_rad: two lines at a smaller angle do not cross anywhere in the input.
        turn_rad: two edges leaving a vertex at a smaller angle are told apart further out.

    """

    snap: float
    course: float
    noise: float
    blur: float
    thin: float
    parallel_rad: float = _PARALLEL_RAD
    turn_rad: float = _TURN_RAD

    @classmethod
    def of_extent(cls, diagonal: float, reach: float) -> Self:
        """The tolerance for input of this diagonal, at most ``reach`` from the origin.

        Far from the origin float64 itself is coarser than the diagonal asks for, and the
        tolerance follows it: at 1e6 diagonals away, points are 1e-10 diagonals apart.
        """
        snap = max(_SNAP * diagonal, 64 * 2.3e-16 * reach)
        return cls(snap, _COURSE * snap, _NOISE * snap, _BLUR * snap, _THIN * snap)

    def coarser(self, factor: float) -> "Tolerance":
        """The same with every length multiplied by ``factor``."""
        lengths = (self.snap, self.course, self.noise, self.blur, self.thin)
        return Tolerance(*(factor * length for length in lengths))
