"""Segments gathered once to be evaluated many times, as in Newton's method."""

from dataclasses import dataclass

import numpy as np

from dotstack.core.geometry.arrays import Bools, Floats, Ints, Points
from dotstack.core.geometry.segments import ARC, CUBIC, Segments
from dotstack.core.geometry.table import Table


@dataclass(frozen=True, eq=False, slots=True)
class Rows(Table):
    """n curves t ↦ c0 + c1·t + c2·t² + c3·t³, or c0 + c1·cos θ + c2·sin θ with θ = a + s·t.

    Attributes:
        c0, c1, c2, c3: shape (n,).
        arc: shape (n,); which rows are of the second form; None if none is.
        angle, sweep: a and s of those.

    """

    c0: Points
    c1: Points
    c2: Points
    c3: Points
    arc: Bools | None
    angle: Floats
    sweep: Floats

    @classmethod
    def of(cls, segments: Segments, index: Ints) -> "Rows":
        """The segments at ``index``, each with its own parameter from 0 to 1."""
        s = segments.take(index)
        c0, c1 = s.start.copy(), s.end - s.start
        c2, c3 = np.zeros_like(c0), np.zeros_like(c0)
        cubic, arc = s.kind == CUBIC, s.kind == ARC
        if cubic.any():
            a, p, q, d = s.start[cubic], s.p[cubic], s.q[cubic], s.end[cubic]
            c1[cubic] = 3.0 * (p - a)
            c2[cubic] = 3.0 * (a - 2.0 * p + q)
            c3[cubic] = d - a + 3.0 * (p - q)
        if not arc.any():
            return cls(c0, c1, c2, c3, None, s.angle, s.sweep)
        turn = np.exp(1j * s.rotation[arc])
        c0[arc] = s.p[arc]
        c1[arc], c2[arc] = turn * s.q[arc].real, 1j * turn * s.q[arc].imag
        return cls(c0, c1, c2, c3, arc, s.angle, s.sweep)

    def at(self, t: Floats) -> tuple[Points, Points]:
        """Points and first derivatives at ``t``, of shape (n,) or (n, k)."""
        c0, c1, c2, c3 = self.c0, self.c1, self.c2, self.c3
        arc, angle, sweep = self.arc, self.angle, self.sweep
        if t.ndim > 1:
            c0, c1, c2, c3 = c0[:, None], c1[:, None], c2[:, None], c3[:, None]
            angle, sweep = angle[:, None], sweep[:, None]
        if arc is None:
            point = ((c3 * t + c2) * t + c1) * t + c0
            speed = (3.0 * c3 * t + 2.0 * c2) * t + c1
            return point, speed
        theta = angle + sweep * t
        cos, sin = np.cos(theta), np.sin(theta)
        round_point = c0 + c1 * cos + c2 * sin
        round_speed = sweep * (c2 * cos - c1 * sin)
        if arc.all():
            return round_point, round_speed
        if t.ndim > 1:
            arc = arc[:, None]
        point = np.where(arc, round_point, ((c3 * t + c2) * t + c1) * t + c0)
        return point, np.where(arc, round_speed, (3.0 * c3 * t + 2.0 * c2) * t + c1)
