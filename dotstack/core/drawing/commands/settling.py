"""Commands that settle what is live, and take bundled paths apart."""

from typing import Annotated, Literal, assert_never

from pydantic import Field

from dotstack.core.combine import intersection, line_within
from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids, Seed
from dotstack.core.drawing.copies import freed, with_hidden_copies
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.frame import unit_box
from dotstack.core.drawing.kinds import (
    ClipNode,
    CompoundNode,
    GroupNode,
    InPieces,
    LeafNode,
    Node,
    NodeBase,
    PathNode,
    RepeatNode,
    TextNode,
    TwinNode,
    UnderlayNode,
    revised,
)
from dotstack.core.drawing.looks import look_of
from dotstack.core.drawing.naming import numbered
from dotstack.core.drawing.paths import PRECISION, as_path, path_of
from dotstack.core.drawing.places import exchanged, place_of, places_of, replaced
from dotstack.core.drawing.sound import MAX_PIECES, check_fresh
from dotstack.core.drawing.stacks import moved_within
from dotstack.core.drawing.tree import with_children
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.geometry import Outline, bundle, unbundle
from dotstack.core.paint import Fill, Gradient
from dotstack.core.values import Id, Placement


class Settle(Command):
    """Makes plain paths of what is live; they look the same.

    A region build and what is cut become a group of their pieces. A clip becomes a group of its
    holder and of what shows within it: a shape with a fill and a line becomes a path of each.
    With ``keep`` hidden copies of what is live stay beneath, under ids made from it.
    """

    kind: Literal["settle"] = "settle"
    ids: Ids
    keep: Seed | None = None

    @property
    def label(self) -> str:
        return "Settle"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        done = exchanged(drawing, set(self.ids), lambda node: (settled(node, evaluator),))
        if self.keep is None:
            return done
        new_id = numbered(f"{self.keep}-kept")
        for before in places_of(drawing, self.ids):
            if place_of(done, before.node.id).node is not before.node:
                done = with_hidden_copies(done, before.node.id, (before.node,), new_id)
        return done


class Unbundle(Command):
    """Makes a group of as many paths of one with several contours; of a bundle of its shapes."""

    kind: Literal["unbundle"] = "unbundle"
    id: Id

    @property
    def label(self) -> str:
        return "Unbundle"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = place_of(drawing, self.id).node
        if isinstance(node, CompoundNode) and node.bundled:
            if node.refinements:
                raise CommandError(
                    f"{node.name} is refined as a whole; remove that, or settle it, "
                    "then unbundle it."
                )
            group = GroupNode(**node.common, nodes=node.children)
            return replaced(drawing, node.id, lambda _: group)
        contours = unbundle(evaluator.own_outline(node))
        if isinstance(node, GroupNode | TwinNode | ClipNode | InPieces) or len(contours) < 2:
            raise CommandError(f"{node.name} is one contour; there is nothing to unbundle.")
        if len(contours) > MAX_PIECES:
            raise LimitError("contours of one path", len(contours), MAX_PIECES)
        pieces = tuple(
            path_of(contour, f"{self.id[:30]}-{i}", node.name, look_of(contour, node.look))
            for i, contour in enumerate(contours)
        )
        group = GroupNode(id=node.id, name=node.name, transform=node.transform, nodes=pieces)
        check_fresh(exchanged(drawing, {node.id}, lambda _: ()), (group,))
        return replaced(drawing, node.id, lambda _: group)


class LiftOut(Command):
    """Takes one contour, by its place in a path, into a path of its own on top of the rest."""

    kind: Literal["lift-out"] = "lift-out"
    id: Id
    contour: Annotated[int, Field(ge=0)]
    new_id: Id

    @property
    def label(self) -> str:
        return "Lift out"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = place_of(drawing, self.id).node
        if not isinstance(node, PathNode):
            raise CommandError(f"{node.name} is live; settle it, then lift a contour out.")
        contours = unbundle(evaluator.own_outline(node))
        if len(contours) < 2:
            raise CommandError(f"{node.name} is one contour; there is nothing to lift out of it.")
        if self.contour >= len(contours):
            raise CommandError(f"{node.name} has {len(contours)} contours, not so many.")
        lifted = contours.pop(self.contour)
        rest = bundle(contours, node.fill_rule)
        path = path_of(lifted, self.new_id, node.name, look_of(lifted, node.look))
        path = path.model_copy(update={"transform": node.transform})
        check_fresh(drawing, (path,))
        left = revised(node, {"data": rest.to_path_data(PRECISION), "refinements": ()})
        return exchanged(drawing, {node.id}, lambda _: (left, path))


class Close(Command):
    """Closes the open contours of a path, by a straight side where their ends lie apart."""

    kind: Literal["close"] = "close"
    id: Id

    @property
    def label(self) -> str:
        return "Close path"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = place_of(drawing, self.id).node
        outline = evaluator.own_outline(node)
        if not isinstance(node, PathNode) or outline.closed.all():
            raise CommandError(f"{node.name} has no open ends to close.")
        closed = outline.with_ends_joined()
        changes = {"data": closed.to_path_data(PRECISION), "refinements": ()}
        return replaced(drawing, node.id, lambda _: revised(node, changes))


def settled(node: Node, evaluator: Evaluator) -> Node:
    """The node as a plain path, or a group of such."""
    match node:
        case UnderlayNode():
            return node
        case PathNode() if not node.refinements:
            return node
        case GroupNode():
            return with_children(node, lambda child: (settled(child, evaluator),)) or node
        case TwinNode():
            return settled(freed(node, numbered(f"{node.id[:30]}-free")), evaluator)
        case InPieces():
            return _pieces(node, evaluator)
        case ClipNode():
            return _clipped(node, evaluator)
        case RepeatNode() if node.takes == "each":
            line = () if node.line is None else (settled(node.line, evaluator),)
            copies = tuple(settled(_plainly(copy), evaluator) for copy in node.copies)
            return GroupNode(**node.common, nodes=(*line, *copies))
        case CompoundNode() | TextNode() | LeafNode() | RepeatNode():
            outline = evaluator.own_outline(node)
            if outline.is_empty:
                raise _nothing_left(node)
            return as_path(node, outline, node.id)
        case _:
            assert_never(node)


def _plainly(copy: TwinNode) -> Node:
    """A copy of a repeat as a shape by itself, under an id of its own."""
    free_id = copy.id.replace(":", "-")[-40:]
    return freed(copy.model_copy(update={"id": free_id}), numbered(f"{free_id[:30]}-of"))


def _pieces(node: InPieces, evaluator: Evaluator) -> Node:
    """The pieces of a region build or of shapes that are cut, each by itself."""
    pieces = evaluator.pieces(node)
    if not pieces:
        raise _nothing_left(node)
    if len(pieces) == 1:
        (piece,) = pieces
        path = moved_within(
            as_path(piece, evaluator.own_outline(piece), node.id), node.transform.affine
        )
        return path.model_copy(update={"name": node.name})
    paths = tuple(
        as_path(piece, evaluator.own_outline(piece), f"{node.id[:30]}-{i}")
        for i, piece in enumerate(pieces)
    )
    return GroupNode(**node.common, nodes=paths)


def _clipped(node: ClipNode, evaluator: Evaluator) -> Node:
    """A clip's holder, and what shows within it."""
    window = evaluator.outline(node.holder)
    shown = [
        part
        for child in node.nodes
        if child.is_active
        for part in _within(window, settled(child, evaluator), evaluator)
    ]
    return GroupNode(**node.common, nodes=(settled(node.holder, evaluator), *shown))


def _within(window: Outline, node: Node, evaluator: Evaluator) -> tuple[Node, ...]:
    """What of a path, or of the paths in a group, lies within an outline; none if nothing."""
    if isinstance(node, GroupNode):
        own = window.transformed(node.transform.affine.inverse)
        inner = with_children(node, lambda child: _within(own, child, evaluator))
        return (inner,) if inner else ()
    outline, found = evaluator.outline(node), []
    look, ink = node.look, node.look.model_copy(update={"shadows": (), "depth": None})
    if look.fill:
        area = intersection([outline, window])
        fill = kept_in_place(node, look.fill, area, evaluator)
        found.append((area, look.model_copy(update={"fill": fill, "lines": ()})))
    if look.lines:
        lined = (ink if look.fill else look).model_copy(update={"fill": None})
        found.append((line_within(outline, window), lined))
    return tuple(
        path_of(part, f"{node.id[:36]}-{i}" if i else node.id, node.name, look)
        for i, (part, look) in enumerate(found)
        if not part.is_empty
    )


def kept_in_place(node: Node, fill: Fill, part: Outline, evaluator: Evaluator) -> Fill:
    """The node's fill, a gradient where it is, but told by the box of a part of the node."""
    if not isinstance(fill, Gradient) or part.is_empty:
        return fill
    there = node.transform.affine @ unit_box(evaluator.own_bounds(node))
    place = unit_box(part.bounds).inverse @ there @ fill.place.affine
    return fill.model_copy(update={"place": Placement.of(place)})


def _nothing_left(node: NodeBase) -> CommandError:
    return CommandError(f"{node.name} has nothing left to settle.")
