"""Batches of exact segments: lines, elliptical arcs and cubic Béziers in one table.

Glossary. A *segment* is a row. Its parameter t runs from 0 at its start to 1 at its end.
A *piece* of a segment is the stretch between two parameters; run backwards it is turned
round. Angles of an arc are eccentric angles: the point at θ is
c + e^{i·rotation}·(rx·cos θ + i·ry·sin θ).
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Self

import numpy as np
from numpy.typing import NDArray

from dotstack.core.geometry import one_by_one
from dotstack.core.geometry.affine import Affine
from dotstack.core.geometry.arrays import Floats, Ints, Points
from dotstack.core.geometry.table import Table

LINE, ARC, CUBIC = one_by_one.LINE, one_by_one.ARC, one_by_one.CUBIC


@dataclass(frozen=True, eq=False, slots=True)
class Segments(Table):
    """n segments; every field has shape (n,). Fields that a kind does not use are zero.

    Attributes:
        kind: LINE, ARC or CUBIC.
        start, end: the end points; they are copied, never recomputed.
        p: centre of an arc, first handle of a cubic.
        q: radii of an arc as rx + ry·i, second handle of a cubic.
        rotation: of an arc's first axis, radians from +x towards +y.
        angle: eccentric angle at an arc's start.
        sweep: by how much an arc's eccentric angle grows from start to end.

    """

    kind: NDArray[np.int8]
    start: Points
    end: Points
    p: Points
    q: Points
    rotation: Floats
    angle: Floats
    sweep: Floats

    def __len__(self) -> int:
        return len(self.kind)

    @classmethod
    def empty(cls) -> Self:
        """No segments."""
        none, real = np.empty(0, complex), np.empty(0)
        return cls(np.empty(0, np.int8), none, none, none, none, real, real, real)

    @classmethod
    def lines(cls, start: Points, end: Points) -> Self:
        """Straight segments."""
        n = len(start)
        zero, real = np.zeros(n, complex), np.zeros(n)
        return cls(np.full(n, LINE, np.int8), start, end, zero, zero, real, real, real)

    @classmethod
    def polyline(cls, *nodes: complex) -> Self:
        """Straight segments from each node to the next one."""
        ends = np.array(nodes, np.complex128)
        return cls.lines(ends[:-1], ends[1:])

    @classmethod
    def cubics(cls, start: Points, first: Points, second: Points, end: Points) -> Self:
        """Cubic Béziers by their four control points."""
        n = len(start)
        real = np.zeros(n)
        return cls(np.full(n, CUBIC, np.int8), start, end, first, second, real, real, real)

    @classmethod
    def arcs(
        cls, centre: Points, radii: Points, rotation: Floats, angle: Floats, sweep: Floats
    ) -> Self:
        """Elliptical arcs; the end points follow from the rest."""
        ends = (_on_ellipse(centre, radii, rotation, angle + turn) for turn in (0.0, sweep))
        start, end = ends
        kind = np.full(len(centre), ARC, np.int8)
        return cls(kind, start, end, centre, radii, rotation, angle, sweep)

    @classmethod
    def concatenate(cls, batches: Iterable[Self]) -> Self:
        """All the segments of several batches, in order."""
        batches = list(batches)
        return cls.stacked(batches) if batches else cls.empty()

    def with_ends(self, start: Points, end: Points) -> "Segments":
        """The same segments with other end points, for ends snapped to a vertex."""
        return Segments(
            self.kind, start, end, self.p, self.q, self.rotation, self.angle, self.sweep
        )

    def with_handles(self, p: Points, q: Points) -> "Segments":
        """The same segments with other handles; of arcs these are centres and radii."""
        return Segments(
            self.kind, self.start, self.end, p, q, self.rotation, self.angle, self.sweep
        )

    def at(self, index: Ints, t: Floats) -> Points:
        """Points of segments ``index`` at ``t``; the two broadcast against each other.

        At exactly 0 and 1 these are the stored end points.
        """
        return self._evaluated(index, t, 0)

    def velocity(self, index: Ints, t: Floats) -> Points:
        """First derivatives by t of segments ``index`` at ``t``, broadcast like ``at``."""
        return self._evaluated(index, t, 1)

    def acceleration(self, index: Ints, t: Floats) -> Points:
        """Second derivatives by t of segments ``index`` at ``t``, broadcast like ``at``.

        Those of a cubic change evenly along it, those of an arc keep within the sweep's
        square times the larger radius.
        """
        return self._evaluated(index, t, 2)

    def _evaluated(self, index: Ints, t: Floats, order: int) -> Points:
        index, t = np.asarray(index), np.asarray(t)
        # NumPy's way to find out what is of one shape already is slow.
        shape = index.shape
        if shape != t.shape:
            shape = np.broadcast_shapes(shape, t.shape)
            index, t = np.array(np.broadcast_to(index, shape)), np.array(np.broadcast_to(t, shape))
        return one_by_one.evaluated(self, index.ravel(), t.ravel(), order).reshape(shape)

    def pieces(self, index: Ints, t0: Floats, t1: Floats) -> "Segments":
        """The stretches from t0 to t1 of segments ``index``; t0 > t1 turns them round.

        The whole segment comes back unchanged. A handle that lies on its node stays there.
        """
        return Segments(*one_by_one.pieces(self, index, t0, t1))

    def reversed(self) -> "Segments":
        """Each segment run the other way, in the same order of rows."""
        cubic = self.kind == CUBIC
        return Segments(
            self.kind,
            self.end,
            self.start,
            np.where(cubic, self.q, self.p),
            np.where(cubic, self.p, self.q),
            self.rotation,
            self.angle + self.sweep,
            -self.sweep,
        )

    @property
    def backwards(self) -> "Segments":
        """A walk along all of them run the other way: the last one first."""
        return self.reversed().take(np.arange(len(self))[::-1])

    def translated(self, by: complex) -> "Segments":
        """All segments moved by a vector."""
        start, end, p, q = one_by_one.translated(self, by)
        return Segments(self.kind, start, end, p, q, self.rotation, self.angle, self.sweep)

    def turned(self, by_rad: float) -> "Segments":
        """All segments turned about the origin; of circles the angles, of others the axes."""
        return Segments(*one_by_one.turned(self, by_rad))

    def transformed(self, by: Affine) -> "Segments":
        """All segments under an affine map; each keeps its kind."""
        if by.is_translation:
            return self.translated(complex(by.e, by.f))
        return Segments(*one_by_one.transformed(self, by))


def _on_ellipse(centre: Points, radii: Points, rotation: Floats, theta: Floats) -> Points:
    local = radii.real * np.cos(theta) + 1j * radii.imag * np.sin(theta)
    if not rotation.any():
        unturned: Points = centre + local
        return unturned
    turn = np.cos(rotation) + 1j * np.sin(rotation)
    point: Points = centre + turn * local
    return point


def elevated(start: complex, handle: complex, end: complex) -> tuple[complex, complex]:
    """The handles of the cubic that is the same curve as a quadratic."""
    return start + (handle - start) * 2 / 3, end + (handle - end) * 2 / 3
