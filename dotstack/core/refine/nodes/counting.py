"""Nodes added where they change nothing, and removed with the sides between refitted."""

from collections.abc import Callable

import numpy as np

from dotstack.core.errors import GeometryError
from dotstack.core.geometry import ARC, CUBIC, LINE, Contour, Outline, Segments, arc_length
from dotstack.core.geometry.arrays import Floats, Ints, Points, cross, dot
from dotstack.core.geometry.directions import at_ends
from dotstack.core.refine.fit import one_for_each
from dotstack.core.refine.nodes.table import nodes_of

# Nearer to a node, as a parameter, a new one would be the same.
_SAME = 1e-9
# Of their size: how alike the ellipses of arcs that are pieces of one are.
_ALIKE = 1e-9


def added(outline: Outline, sides: Ints, t: Floats) -> Outline:
    """The outline with nodes on its sides at these parameters; it looks the same."""
    inside = (t > _SAME) & (t < 1 - _SAME)
    n = len(outline.segments)
    row = np.concatenate([np.arange(n), sides[inside]])
    begin = np.concatenate([np.zeros(n), t[inside]])
    order = np.lexsort((begin, row))
    row, begin = row[order], begin[order]
    fresh = np.ones(len(row), np.bool_)
    fresh[1:] = (np.diff(row) > 0) | (np.diff(begin) > _SAME)
    row, begin = row[fresh], begin[fresh]
    end = np.append(np.where(np.diff(row) > 0, 1.0, begin[1:]), 1.0)
    made = outline.segments.pieces(row, begin, end)
    offsets = np.searchsorted(row, outline.offsets)
    return Outline(made, offsets, outline.closed, outline.fill_rule)


def halfway(rows: Segments, sides: Ints) -> Floats:
    """The parameter at which each of these sides has half its length behind it."""
    wholes = arc_length.lengths(rows.take(sides))
    return arc_length.parameters(rows, sides, wholes / 2, wholes)


def loops(rows: Segments) -> tuple[Ints, Floats]:
    """Where cubics cross themselves: which, and one after the other both their parameters.

    With B(t) = a·t³ + b·t² + c·t + d, B(t) = B(u) says a·(s² − p) + b·s + c = 0 of the sum s
    and the product p of both, in two coordinates.
    """
    cubic = np.flatnonzero(rows.kind == CUBIC)
    start, first, second, end = (column[cubic] for column in (rows.start, rows.p, rows.q, rows.end))
    a, b, c = end - 3 * second + 3 * first - start, 3 * (second - 2 * first + start), first - start
    with np.errstate(invalid="ignore", divide="ignore"):
        sum_ = -cross(a, 3 * c) / cross(a, b)
        product = sum_**2 + dot(a, b * sum_ + 3 * c) / np.abs(a) ** 2
        apart = np.sqrt(sum_**2 / 4 - product)
        both = np.stack([sum_ / 2 - apart, sum_ / 2 + apart], axis=1)
        crossed = (apart > 0) & (both > 0).all(axis=1) & (both < 1).all(axis=1)
    return np.repeat(cubic[crossed], 2), both[crossed].ravel()


def removed(outline: Outline, nodes: Ints, *, straight: bool = False) -> Outline:
    """The outline without these nodes: one side takes the place of those between the others.

    Straight if asked for or if all of them are; what is left of one arc is that arc; else
    one curve that keeps their directions at its ends and strays from them as little as it
    can. A contour that is left with less than two nodes goes. Raises GeometryError if
    nothing would be left.
    """
    table = nodes_of(outline)
    gone = np.zeros(len(table.at), np.bool_)
    gone[nodes] = True
    made: list[Contour] = []
    for number, contour in enumerate(outline.contours):
        lost = gone[table.contour == number]
        if not lost.any():
            made.append(contour)
        elif (~lost).sum() >= 2:
            made.append(_without(contour, lost, straight))
    if not made:
        raise GeometryError(
            "Nothing would be left: an outline needs two nodes at least. Remove the shape itself."
        )
    return Outline.from_contours(made, outline.fill_rule)


def _without(contour: Contour, lost: np.ndarray, straight: bool) -> Contour:
    rows, kept = contour.segments, np.flatnonzero(~lost)
    n = len(rows)
    ends = np.append(kept[1:], kept[0] + n) if contour.closed else kept[1:]
    sides = []
    for first, last in zip(kept.tolist(), ends.tolist()):
        run = rows.take(np.arange(first, last) % n)
        sides.append(run if last - first == 1 else _one_side(run, straight))
    return Contour(Segments.concatenate(sides), contour.closed)


def _one_side(run: Segments, straight: bool) -> Segments:
    start, end = run.start[:1], run.end[-1:]
    if straight or (run.kind == LINE).all():
        return Segments.lines(start, end)
    if (arc := _one_arc(run)) is not None:
        return arc.with_ends(start, end)
    return one_for_each(_along(run), np.zeros(1, np.intp), np.zeros(1), np.full(1, float(len(run))))


def _one_arc(run: Segments) -> Segments | None:
    """The arc that all of these are pieces of, or None."""
    if (run.kind != ARC).any() or (np.sign(run.sweep) != np.sign(run.sweep[0])).any():
        return None
    size = _ALIKE * np.abs(run.q[0])
    if (np.abs(run.p - run.p[0]) > size).any() or (np.abs(run.q - run.q[0]) > size).any():
        return None
    round_ = run.q[0].real == run.q[0].imag
    whole = float(run.sweep.sum())
    if (not round_ and (np.abs(run.rotation - run.rotation[0]) > _ALIKE).any()) or (
        abs(whole) >= 2 * np.pi - _ALIKE
    ):
        return None
    first = run.take(slice(0, 1))
    return Segments(
        first.kind, first.start, first.end, first.p, first.q, first.rotation, first.angle,
        np.array([whole]),
    )  # fmt: skip


def _along(run: Segments) -> Callable[[Ints, Floats], tuple[Points, Points]]:
    """Sides that follow each other as one curve, a unit of its parameter each."""
    begins, arrives = at_ends(run)

    def at(_: Ints, t: Floats) -> tuple[Points, Points]:
        side = np.minimum(t.astype(np.intp), len(run) - 1)
        share = t - side
        speed = run.velocity(side, share)
        size = np.abs(speed)
        way = speed / np.where(size > 0, size, 1.0)
        way = np.where(share <= 0, begins[side], np.where(share >= 1, arrives[side], way))
        return run.at(side, share), way

    return at
