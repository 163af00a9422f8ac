"""Cells: what lies between a corner and the side that takes its place.

Nothing else of the outline may be in there, or the two would cross.
"""

from dataclasses import replace

import numpy as np

from dotstack.core.arrangement import meetings, pairs
from dotstack.core.geometry import Contour, Outline, Segments, measure
from dotstack.core.geometry.arrays import Bools, Ints, run_starts
from dotstack.core.refine.reach import Cuts, is_room, normal, sized

# How near the largest size is found for which a cell is clear, in parts of what was asked.
_HALVINGS = 20
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
    """The cuts, smaller where something else of the outline would lie in their cells."""
    rows = outline.segments
    near = _near(rows, cuts, hollow)
    order, smaller = np.arange(len(hollow)), [cuts]
    for i, sides in near.items():
        one, bent = cuts.take(slice(i, i + 1)), hollow[i : i + 1]
        if not _is_intruded(outline, one, bent, sides):
            continue
        low, high, best = 0.0, 1.0, replace(one, size=np.zeros(1), t=np.ones(1), u=np.zeros(1))
        for _ in range(_HALVINGS):
            middle = (low + high) / 2
            trial = sized(rows, replace(one, size=one.size * middle))
            if not is_room(trial).all() or _is_intruded(outline, trial, bent, sides):
                high = middle
            else:
                low, best = middle, trial
        order[i] = len(hollow) + len(smaller) - 1
        smaller.append(best)
    return Cuts.stacked(smaller).take(order)


def _near(rows: Segments, cuts: Cuts, hollow: Bools) -> dict[int, Ints]:
    """By the places of cuts the sides near their cells, by boxes, other than their own."""
    x0, y0, x1, y1 = measure.boxes(between_sides(rows, cuts, hollow))
    x, y = cuts.node.real, cuts.node.imag
    cells = np.minimum(x0, x), np.minimum(y0, y), np.maximum(x1, x), np.maximum(y1, y)
    cell, side = pairs.between(cells, measure.boxes(rows), 0.0)
    other = (side != cuts.one[cell]) & (side != cuts.two[cell]) & (cuts.size[cell] > 0)
    order = np.lexsort((side[other], cell[other]))
    cell, side = cell[other][order], side[other][order]
    starts = run_starts(cell)
    return dict(zip(cell[starts].tolist(), np.split(side, starts)[1:], strict=True))


def _is_intruded(outline: Outline, cut: Cuts, hollow: Bools, near: Ints) -> bool:
    """Whether any of the sides near the cell of one cut lies in there."""
    rows = outline.segments
    across = between_sides(rows, cut, hollow)
    sides = [
        rows.pieces(cut.one, cut.t, np.ones(1)),
        rows.pieces(cut.two, np.zeros(1), cut.u),
        across.reversed(),
    ]
    cell = Outline.from_contours([Contour(Segments.concatenate(sides), closed=True)])
    others = [Contour(rows.take(slice(j, j + 1)), closed=False) for j in near.tolist()]
    _, _, points = meetings([cell, Outline.from_contours(others)])
    ends = np.array([complex(cut.node[0]), complex(across.start[0]), complex(across.end[0])])
    apart = np.abs(points[:, None] - ends[None, :]).min(axis=1, initial=np.inf)
    if (apart > _TOUCHING * cut.size[0]).any():
        return True
    # Whole contours lie in it, or none does.
    contour = np.searchsorted(outline.offsets, [*cut.one, *near], side="right") - 1
    inner = np.unique(contour[1:][contour[1:] != contour[0]])
    starts = rows.start[outline.offsets[inner]]
    return any(cell.contains(at.real, at.imag) for at in starts.tolist())
