"""Cells: what lies between a corner and the side that takes its place.

Nothing else of the outline may be in there, or the two would cross. Where that side is bent
inward, as round a hollow corner, it may also cross that of another corner.
"""

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from dotstack.core.arrangement import meetings, pairs
from dotstack.core.geometry import Contour, Outline, Segments, measure
from dotstack.core.geometry.arrays import Bools, Ints, Points, run_starts
from dotstack.core.geometry.segments import LINE
from dotstack.core.refine.reach import Cuts, crowded, exchanged, is_room, normal, sized

# How near the largest size is found for which a cell is clear, in parts of what was asked.
_HALVINGS = 20
# As a parameter: two corners that meet on a side overlap by no more.
_NOTHING = 1e-9
# The stretches of a side beyond a cut, each as long as all before it, but for the first.
_ONWARD = 0.5 ** np.arange(6, 0, -1)
# What lies this close to an end of the cell, in parts of its size, only touches it.
_TOUCHING = 1e-6


def between_sides(rows: Segments, cuts: Cuts, hollow: Bools) -> Segments:
    """The segment of each cut, from where its first side is left to where the second begins."""
    begin, end = rows.at(cuts.one, cuts.t), rows.at(cuts.two, cuts.u)
    r = cuts.sign * cuts.size
    first, second = rows.velocity(cuts.one, cuts.t), rows.velocity(cuts.two, cuts.u)
    middle = (begin + r * normal(first) + end + r * normal(second)) / 2
    centre = np.where(cuts.round, middle, cuts.node)
    # An arc that touches turns as its corner does; a hollow one the other way.
    way = np.where(cuts.round, cuts.sign, -cuts.sign)
    turn = np.angle((end - centre) * (begin - centre).conj())
    sweep = way * np.mod(way * turn, 2 * np.pi)
    radii = cuts.size.astype(np.complex128) * (1 + 1j)
    arcs = Segments.arcs(centre, radii, np.zeros(len(r)), np.angle(begin - centre), sweep)
    arcs, lines = arcs.with_ends(begin, end), Segments.lines(begin, end)
    bent = cuts.round | hollow
    return Segments(*(np.where(bent, arc, line) for arc, line in zip(arcs.columns, lines.columns)))


def clear(outline: Outline, cuts: Cuts, hollow: Bools) -> Cuts:
    """The cuts, smaller where something else of the outline would lie in their cells.

    Or where a hollow one would come upon another one; both then give way in the same proportion.
    """
    rows = outline.segments
    # Where a side stands still at its end, how two share it is not found by their reach.
    for pair in np.column_stack(crowded(rows, cuts, _NOTHING)):
        at = pair[: len(set(pair))]
        cuts = _fitting(rows, cuts, at, lambda trial, _: trial.u[0] <= trial.t[-1])
    cells = _cells(rows, cuts, hollow)
    near = _near(rows, cuts, cells)
    for i in _coming_back(rows, cuts, cells):
        near.setdefault(i, np.empty(0, np.intp))
    for i, sides in near.items():

        def is_clear(trial: Cuts, at: Ints, sides: Ints = sides) -> bool:
            return not _is_intruded(outline, trial, hollow[at], sides)

        cuts = _fitting(rows, cuts, np.array([i]), is_clear)
    for pair in _beside(rows, cuts, hollow):
        cuts = _fitting(rows, cuts, pair, lambda trial, at: not _meet(rows, trial, hollow[at]))
    return cuts


def _fitting(rows: Segments, cuts: Cuts, at: Ints, fits: Callable[[Cuts, Ints], bool]) -> Cuts:
    """The cuts with those at some places so small that they fit there, all in one proportion."""
    whole = cuts.take(at)
    if fits(whole, at):
        return cuts
    nothing = np.zeros(len(at))
    low, high, best = 0.0, 1.0, replace(whole, size=nothing, t=nothing + 1, u=nothing)
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        trial = sized(rows, replace(whole, size=whole.size * middle))
        if is_room(trial).all() and fits(trial, at):
            low, best = middle, trial
        else:
            high = middle
    return exchanged(cuts, at, best)


def _beside(rows: Segments, cuts: Cuts, hollow: Bools) -> list[Ints]:
    """Pairs of cuts, one of them hollow, that may meet, by the boxes of what they leave."""
    there = cuts.size > 0
    one, two = pairs.overlapping(
        pairs.Strips(measure.boxes(between_sides(rows, cuts, hollow)), 0.0)
    )
    chosen = (hollow[one] | hollow[two]) & there[one] & there[two]
    return list(np.stack([one[chosen], two[chosen]], axis=1))


def _meet(rows: Segments, cuts: Cuts, hollow: Bools) -> bool:
    """Whether what two cuts leave between their sides crosses, beyond a side that they share."""
    across = between_sides(rows, cuts, hollow)
    _, _, points = meetings([Outline.of_line(across.take(np.array([i]))) for i in (0, 1)])
    ends = np.concatenate([across.start, across.end])
    return _is_any_apart(points, ends, float(cuts.size.min()))


def _cells(rows: Segments, cuts: Cuts, hollow: Bools) -> pairs.Boxes:
    """The boxes of the cells."""
    x0, y0, x1, y1 = measure.boxes(between_sides(rows, cuts, hollow))
    x, y = cuts.node.real, cuts.node.imag
    return np.minimum(x0, x), np.minimum(y0, y), np.maximum(x1, x), np.maximum(y1, y)


def _coming_back(rows: Segments, cuts: Cuts, cells: pairs.Boxes) -> list[int]:
    """The places of cuts to whose cells a side of their own may come back, by boxes."""
    far = np.where(cuts.one == cuts.two, cuts.t, 1.0)
    index, low, high = [], [], []
    for share in _ONWARD:
        index += [cuts.one, cuts.two]
        low += [cuts.t * (1 - share), cuts.u + (far - cuts.u) * share]
        high += [cuts.t * (1 - 2 * share), cuts.u + (far - cuts.u) * 2 * share]
    stretches = rows.pieces(*map(np.concatenate, (index, low, high)))
    x0, y0, x1, y1 = cells
    x2, y2, x3, y3 = (each.reshape(2 * len(_ONWARD), -1) for each in measure.boxes(stretches))
    back = (x2 <= x1) & (x3 >= x0) & (y2 <= y1) & (y3 >= y0)
    back &= (stretches.kind != LINE).reshape(back.shape)
    return np.flatnonzero(back.any(axis=0) & (cuts.size > 0)).tolist()


def _near(rows: Segments, cuts: Cuts, cells: pairs.Boxes) -> dict[int, Ints]:
    """By the places of cuts the sides near their cells, by boxes, other than their own."""
    cell, side = pairs.between(cells, measure.boxes(rows), 0.0)
    other = (side != cuts.one[cell]) & (side != cuts.two[cell]) & (cuts.size[cell] > 0)
    order = np.lexsort((side[other], cell[other]))
    cell, side = cell[other][order], side[other][order]
    starts = run_starts(cell)
    return dict(zip(cell[starts].tolist(), np.split(side, starts)[1:], strict=True))


def _is_intruded(outline: Outline, cut: Cuts, hollow: Bools, near: Ints) -> bool:
    """Whether a side near the cell of one cut lies in there, or what is left of its own."""
    rows = outline.segments
    across = between_sides(rows, cut, hollow)
    sides = [
        rows.pieces(cut.one, cut.t, np.ones(1)),
        rows.pieces(cut.two, np.zeros(1), cut.u),
        across.reversed(),
    ]
    cell = Outline.from_contours([Contour(Segments.concatenate(sides), closed=True)])
    rest = [rows.pieces(cut.one, cut.u, cut.t)]
    if cut.one != cut.two:
        rest = [
            rows.pieces(cut.one, np.zeros(1), cut.t),
            rows.pieces(cut.two, cut.u, np.ones(1)),
        ]
    others = [
        Contour(each, closed=False) for each in [*rest, *(rows.take(np.array([j])) for j in near)]
    ]
    _, _, points = meetings([cell, Outline.from_contours(others)])
    ends = np.array([complex(cut.node[0]), complex(across.start[0]), complex(across.end[0])])
    if _is_any_apart(points, ends, float(cut.size[0])):
        return True
    # Whole contours lie in it, or none does.
    contour = np.searchsorted(outline.offsets, [*cut.one, *near], side="right") - 1
    inner = np.unique(contour[1:][contour[1:] != contour[0]])
    starts = rows.start[outline.offsets[inner]]
    return any(cell.contains(at.real, at.imag) for at in starts.tolist())


def _is_any_apart(points: Points, ends: Points, size: float) -> bool:
    """Whether any point lies further from all ends than one that touches there."""
    apart = np.abs(points[:, None] - ends[None, :]).min(axis=1, initial=np.inf)
    return bool((apart > _TOUCHING * size).any())
