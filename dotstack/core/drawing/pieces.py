"""The pieces of what is live: made of what came of it, and of what was done to them by hand."""

from collections import Counter
from collections.abc import Iterable, Sequence

import numpy as np
from scipy.optimize import linear_sum_assignment

from dotstack.core.combine import Build, Part
from dotstack.core.drawing.looks import Look, look_of
from dotstack.core.drawing.nodes import (
    Held,
    InPieces,
    Node,
    OwnPaint,
    PartsNode,
    PieceNode,
    Placement,
    RegionNode,
)
from dotstack.core.drawing.operands import paint_of
from dotstack.core.drawing.picking import looked_for
from dotstack.core.geometry import Affine, Outline

_PAINT = tuple(OwnPaint.model_fields)
_STATES = ("visible", "locked", "guide")


def piece_id(whole: str, key: str) -> str:
    """The id of a piece."""
    return f"{whole}.{key}"


def whole_and_key(node_id: str) -> tuple[str, str]:
    """The id of what a piece is of, and its key there; the key is empty if it is no piece.

    >>> whole_and_key("rope.of-ring")
    ('rope', 'of-ring')
    """
    whole, _, key = node_id.partition(".")
    return whole, key


def pieces_of_build(node: RegionNode, build: Build) -> list[PieceNode]:
    """All pieces of a region build and the rest that stays, as they come, the lowest first."""
    active = [member for member in node.members if member.is_active]
    found = []
    for piece in build.pieces:
        pick = None if piece.pick is None else node.picks[piece.pick]
        by = piece.lowest if node.paint == "lowest" else piece.topmost
        source = active[by] if by >= 0 else node
        own = pick is not None and node.paint == "new"
        look = look_of(piece.outline, node if own else paint_of(source))
        if pick and pick.fill:
            look = look._replace(fill=pick.fill, gradient=None)
        key = f"of-{source.id}" if piece.pick is None else str(piece.pick)
        found.append(_piece(node, key, source.name, look, piece.outline))
    return found


def pieces_of_parts(node: PartsNode, parts: Sequence[Part]) -> list[PieceNode]:
    """All pieces of shapes that are cut, as they come, the lowest first."""
    active = [child for child in node.nodes if child.is_active]
    known = _known_again(node, active, parts)
    serial: Counter[str] = Counter()
    found = []
    for place, part in enumerate(parts):
        source = active[part.paint]
        key = known.get(place)
        if key is None:
            key = f"of-{source.id}"
            serial[key] += 1
            if serial[key] > 1:
                key += f".{serial[key]}"
        look = look_of(part.outline, paint_of(source), part.ink)
        found.append(_piece(node, key, source.name, look, part.outline))
    return found


def as_held(node: InPieces, pieces: Iterable[PieceNode]) -> tuple[PieceNode, ...]:
    """The pieces as they were put, painted and ordered by hand, without those that go."""
    held = {each.piece: each for each in node.held}
    left = [_changed(piece, held.get(whole_and_key(piece.id)[1])) for piece in pieces]
    found = [piece for piece in left if piece is not None]
    if node.order:
        rank = {piece_id(node.id, key): place for place, key in enumerate(node.order)}
        found.sort(key=lambda piece: rank.get(piece.id, len(rank)))
    return tuple(found)


def _changed(piece: PieceNode, held: Held | None) -> PieceNode | None:
    if held is None:
        return piece
    if held.dropped:
        return None
    changes: dict[str, object] = {name: getattr(held, name) for name in _STATES}
    if held.transform != Placement():
        there = _middle(piece)
        changes["transform"] = Placement.of(there @ held.transform.affine @ there.inverse)
    if held.name is not None:
        changes["name"] = held.name
    if held.opacity is not None:
        changes["opacity"] = held.opacity
    if held.paint is not None:
        changes |= {name: getattr(held.paint, name) for name in _PAINT}
    return piece.model_copy(update=changes)


def held_of(came: PieceNode, now: PieceNode | None) -> Held | None:
    """What is other of a piece than as it comes, or that it goes; None if nothing is.

    The opposite of ``as_held``.
    """
    key = whole_and_key(came.id)[1]
    if now is None:
        return Held(piece=key, dropped=True)
    changes: dict[str, object] = {name: getattr(now, name) for name in _STATES}
    changes["transform"] = _put_by(now)
    if any(getattr(now, name) != getattr(came, name) for name in _PAINT):
        changes["paint"] = OwnPaint(**{name: getattr(now, name) for name in _PAINT})
    changes |= {
        name: getattr(now, name)
        for name in ("name", "opacity")
        if getattr(now, name) != getattr(came, name)
    }
    held = Held(piece=key, **changes)
    return None if held == Held(piece=key) else held


def _put_by(piece: PieceNode) -> Placement:
    """What a piece was put by, as ``Held`` says it."""
    if piece.transform == Placement():
        return piece.transform
    there = _middle(piece)
    return Placement.of(there.inverse @ piece.transform.affine @ there)


def _middle(piece: PieceNode) -> Affine:
    """The map from axes round the middle of a piece, as it comes, to those of its whole."""
    x0, y0, x1, y1 = piece.outline.bounds
    return Affine.translation((x0 + x1) / 2, (y0 + y1) / 2)


def _piece(node: Node, key: str, name: str, look: Look, outline: Outline) -> PieceNode:
    # All of it has been checked where it comes from.
    return PieceNode.model_construct(
        kind="piece",
        id=piece_id(node.id, key),
        name=name,
        outline=outline,
        **look._asdict(),
    )


def _known_again(node: PartsNode, active: Sequence[Node], parts: Sequence[Part]) -> dict[int, str]:
    """The keys of parts that were picked, by their places: each of its shape's, by its point.

    Of each shape it is the assignment that costs least, as of picked regions.
    """
    spots = looked_for(node.picks, [*active, node.cutter])
    found: dict[int, str] = {}
    for number, shape in enumerate(active):
        picks = [i for i, pick in enumerate(node.picks) if pick.cover[:1] == (shape.id,)]
        mine = [place for place, part in enumerate(parts) if part.paint == number]
        if picks and mine:
            cost = np.array(
                [[_distance(parts[place].outline, spots[i]) for place in mine] for i in picks]
            )
            for row, column in zip(*linear_sum_assignment(cost), strict=True):
                found[mine[column]] = str(picks[row])
    return found


def _distance(outline: Outline, point: tuple[float, float]) -> float:
    """How far a point lies outside an area, or beside a line."""
    if outline.closed.any() and outline.contains(*point):
        return 0.0
    return outline.nearest(*point)[0]
