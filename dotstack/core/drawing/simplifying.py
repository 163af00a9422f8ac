"""Which nodes can go: paths of a drawing again with fewer, before it is decided."""

from collections.abc import Collection

import numpy as np

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import PathNode
from dotstack.core.drawing.places import Place, places_of
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.geometry import ARC, Outline
from dotstack.core.refine import Simplified, simplified
from dotstack.core.values import Value


class Fewer(Value):
    """What simplifying would come to.

    Attributes:
        before, after: how many nodes there are and would be.
        strays: how far outlines would stray from what they are, at most, on the plate.
        circles: the radii of circles, as they are on the plate, that curves turn out to be.

    """

    before: int
    after: int
    strays: float
    circles: tuple[float, ...]


def fewer_nodes(
    drawing: Drawing, ids: Collection[str], bound: float, evaluator: Evaluator
) -> dict[str, tuple[Outline, Simplified]]:
    """The paths among shapes and inside them: each on the plate, and with fewer nodes.

    Raises CommandError if there is none: all else has no more nodes than it needs.
    """
    inside = [
        inner.id
        for place in places_of(drawing, list(ids))
        for inner in walk(place.node)
        if isinstance(inner, PathNode)
    ]
    if not inside:
        raise CommandError(
            "There is no path among these shapes; all others have no more nodes than they need."
        )
    places = {place.node.id: place for place in places_of(drawing, list(dict.fromkeys(inside)))}
    return {key: _fewer(place, bound, evaluator) for key, place in places.items()}


def told(found: Collection[tuple[Outline, Simplified]]) -> Fewer:
    """What it comes to in all."""
    return Fewer(
        before=sum(outline.node_count for outline, _ in found),
        after=sum(made.outline.node_count for _, made in found),
        strays=max((made.strays for _, made in found), default=0.0),
        circles=tuple(
            radius for pair in found if pair[0] is not pair[1].outline for radius in _circles(*pair)
        ),
    )


def _fewer(place: Place, bound: float, evaluator: Evaluator) -> tuple[Outline, Simplified]:
    base, there = evaluator.base_outline(place.node), place.affine

    def both() -> tuple[Outline, Simplified]:
        outline = base.transformed(there)
        return outline, simplified(outline, bound)

    return evaluator.remembered("fewer", both, base, there, bound)


def _circles(before: Outline, made: Simplified) -> list[float]:
    """The radii of contours that are circles now and had been of other sides."""
    pairs = zip(before.contours, made.outline.contours, strict=True)
    found = []
    for old, new in pairs:
        rows = new.segments
        if len(rows) == 2 and (rows.kind == ARC).all() and len(old.segments) > 2:
            radii = np.array([rows.q.real, rows.q.imag])
            if np.ptp(radii) <= 1e-9 * radii.max():
                found.append(float(radii.mean()))
    return found
