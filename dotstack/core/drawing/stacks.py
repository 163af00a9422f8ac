"""Shapes side by side: chosen, brought elsewhere, gathered into one."""

from collections.abc import Iterable

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import GroupNode, InPieces, Node, revised
from dotstack.core.drawing.kinds.pieces import whole_and_key
from dotstack.core.drawing.places import (
    Place,
    all_ids,
    exchanged,
    place_of,
    plate_of,
    siblings,
    with_nodes,
    with_plate,
)
from dotstack.core.drawing.sound import check_combined, check_fresh
from dotstack.core.errors import CommandError, UnknownNodeError
from dotstack.core.geometry import Affine
from dotstack.core.values import Placement


def moved_within(node: Node, by: Affine) -> Node:
    """The node mapped by a map of the axes that contain it."""
    return revised(node, {"transform": Placement.of(by @ node.transform.affine)})


def with_added(drawing: Drawing, plate_id: str, nodes: tuple[Node, ...]) -> Drawing:
    """The drawing with nodes on top of a plate's stack; raises CommandError or LimitError."""
    plate = plate_of(drawing, plate_id)
    check_fresh(drawing, nodes)
    return with_plate(drawing, with_nodes(plate, (*plate.nodes, *nodes)))


def one_stack(drawing: Drawing, ids: tuple[str, ...]) -> list[Node]:
    """The nodes with these ids, the lowest first; raises CommandError unless side by side."""
    wanted = set(ids)
    beside = siblings(drawing, place_of(drawing, ids[0]))
    chosen = [node for node in beside if node.id in wanted]
    if len(chosen) < len(wanted):
        raise CommandError(
            "Choose shapes that lie side by side in one stack, "
            "not some inside a compound or group and some outside."
        )
    return chosen


def gathered_into(drawing: Drawing, chosen: list[Node], whole: Node) -> Drawing:
    """The drawing with ``whole``, made of the chosen nodes of one stack, in the topmost's place."""
    if whole.id in all_ids(drawing):
        raise CommandError(f"The id {whole.id!r} is taken already.")
    top = chosen[-1]
    return exchanged(
        drawing,
        {node.id for node in chosen},
        lambda node: (whole,) if node is top else (),
    )


def brought(places: list[Place], outer: Affine) -> list[Node]:
    """The nodes as they stand in other axes, which ``outer`` maps to the plate's."""
    return [
        place.node
        if place.outer == outer
        else moved_within(place.node, outer.inverse @ place.outer)
        for place in places
    ]


def active_in_order(drawing: Drawing, ids: tuple[str, ...]) -> list[Node]:
    """Those of the nodes, of one stack, that take part in outcomes, the lowest first.

    Raises CommandError unless they lie side by side and are two or more, LimitError if they
    are too many.
    """
    chosen = [node for node in one_stack(drawing, ids) if node.is_active and not node.locked]
    if len(chosen) < 2:
        raise CommandError(
            "Two or more shapes can be combined; hidden, locked and guide shapes take no part."
        )
    check_combined(len(chosen))
    return chosen


def pickable_in_order(drawing: Drawing, ids: tuple[str, ...]) -> list[Node]:
    """Those of the nodes, of one stack, whose regions can be picked, the lowest first.

    Raises CommandError if there are none, LimitError if they are too many.
    """
    chosen = [node for node in one_stack(drawing, ids) if node.is_active and not node.locked]
    if not chosen:
        raise CommandError("Hidden, locked and guide shapes have no regions to pick; show one.")
    check_combined(len(chosen))
    return chosen


def with_pieces(drawing: Drawing, ids: Iterable[str], evaluator: Evaluator) -> Drawing:
    """The drawing with the wholes of all pieces among the ids as groups of their pieces.

    The pieces are shapes in it like others. Raises UnknownNodeError or ArrangementError.
    """
    wanted = {node_id for node_id in ids if whole_of(node_id)}
    if not wanted:
        return drawing

    def as_group(node: Node) -> tuple[Node, ...]:
        pieces = evaluator.pieces(node) if isinstance(node, InPieces) else ()
        wanted.difference_update(piece.id for piece in pieces)
        return (GroupNode(**node.common, nodes=pieces),) if pieces else (node,)

    opened = exchanged(drawing, {whole_and_key(node_id)[0] for node_id in wanted}, as_group)
    if wanted:
        raise UnknownNodeError("shape", wanted.pop())
    return opened


def whole_of(node_id: str) -> str | None:
    """The id of what a piece is of; None if it is no piece."""
    whole, key = whole_and_key(node_id)
    return whole if key else None
