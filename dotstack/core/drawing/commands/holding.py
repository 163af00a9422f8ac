"""Pieces of what is live as shapes: commands act on them, and their wholes remember it."""

from collections.abc import Callable, Iterable
from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Held, InPieces, Node, PieceNode, revised
from dotstack.core.drawing.kinds.node import FollowerNode
from dotstack.core.drawing.kinds.pieces import held_of, piece_id, whole_and_key
from dotstack.core.drawing.paths import as_path
from dotstack.core.drawing.places import (
    all_ids,
    exchanged,
    place_of,
    places_of,
    replaced,
    with_each,
)
from dotstack.core.drawing.stacks import moved_within, whole_of, with_pieces
from dotstack.core.drawing.tree import with_children
from dotstack.core.errors import CommandError
from dotstack.core.values import Id, Placement


class AllHome(Command):
    """Puts all pieces of what is live back to where they come to be, those that went too."""

    kind: Literal["all-home"] = "all-home"
    id: Id

    @property
    def label(self) -> str:
        return "All pieces home"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = place_of(drawing, self.id).node
        if not isinstance(node, InPieces):
            raise CommandError(f"{node.name} does not come in pieces.")
        home = {"transform": Placement(), "dropped": False}
        held = (each.model_copy(update=home) for each in node.held)
        left = tuple(each for each in held if each != Held(piece=each.piece))
        return replaced(drawing, node.id, lambda _: node.model_copy(update={"held": left}))


def acted_on(
    drawing: Drawing,
    ids: Iterable[str],
    act: Callable[[Drawing, Evaluator], Drawing],
    evaluator: Evaluator,
) -> Drawing:
    """The drawing after something that names these shapes, of which some may be pieces.

    What became of pieces is kept by their wholes; a piece that is gone is dropped. What was
    made of pieces lies on their whole, and those that are part of it are plain paths there.
    """
    wholes = {whole for node_id in ids if (whole := whole_of(node_id))}
    if not wholes:
        return act(drawing, evaluator)
    before = {place.node.id: place.node for place in places_of(drawing, wholes)}
    done = act(with_pieces(drawing, ids, evaluator), evaluator)
    if left := wholes & all_ids(done):
        done = exchanged(done, left, lambda node: _closed(before[node.id], node, evaluator))
    return _without_pieces(done)


def _closed(whole: Node, group: Node, evaluator: Evaluator) -> tuple[Node, ...]:
    """A whole that remembers what became of its pieces, and what lies on it now."""
    assert isinstance(whole, InPieces), "only such come in pieces"
    came = {piece.id: piece for piece in evaluator.pieces_as_they_come(whole)}
    stack = group.children
    left = {node.id: node for node in stack if isinstance(node, PieceNode) and node.id in came}
    fresh = tuple(
        moved_within(node, group.transform.affine) for node in stack if node.id not in left
    )
    if not left:
        return fresh
    held = [each for each in whole.held if piece_id(whole.id, each.piece) not in came]
    held += [each for key, piece in came.items() if (each := held_of(piece, left.get(key)))]
    by_itself = [key for key in came if key in left]
    order = tuple(whole_and_key(key)[1] for key in left)
    changes: dict[str, object] = {
        name: value for name, value in group.common.items() if value != getattr(whole, name)
    }
    changes |= {"held": tuple(held), "order": () if by_itself == list(left) else order}
    return (revised(whole, changes), *fresh)


def _without_pieces(drawing: Drawing) -> Drawing:
    """The drawing with pieces that are shapes by themselves now as plain paths."""
    taken = all_ids(drawing)

    def free_id(node_id: str) -> str:
        whole, key = whole_and_key(node_id)
        stem = f"{whole[:20]}-{key.replace('.', '-')[:12]}" if key else whole
        fresh, serial = stem, 1
        while key and fresh in taken:
            fresh, serial = f"{stem}-{serial}", serial + 1
        taken.add(fresh)
        return fresh

    def freed(node: Node) -> Node:
        if isinstance(node, PieceNode):
            return as_path(node, node.area, free_id(node.id))
        if isinstance(node, FollowerNode):
            return node.with_stored(tuple(map(freed, node.stored)))
        if not node.children:
            return node
        return with_children(node, lambda child: (freed(child),)) or node

    return with_each(drawing, freed)
