"""Commands that order the stack: groups, places in it, and other plates."""

from collections.abc import Callable
from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids, Seed
from dotstack.core.drawing.copies import with_new_ids
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import GroupNode, HolderNode, Node, revised
from dotstack.core.drawing.naming import free_name, numbered
from dotstack.core.drawing.places import (
    Place,
    all_ids,
    exchanged,
    place_of,
    places_of,
    plate_of,
    replaced,
    topmost_first,
    with_nodes,
    with_plate,
)
from dotstack.core.drawing.sound import check_depth, check_fresh
from dotstack.core.drawing.stacks import brought, gathered_into, moved_within, one_stack, with_added
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.values import AnyId, Id, Name, Placement


class Group(Command):
    """Makes shapes of one stack a group, in the place of the topmost of them."""

    kind: Literal["group"] = "group"
    ids: Ids
    id: Id
    name: Name

    @property
    def label(self) -> str:
        return "Group"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        chosen = one_stack(drawing, self.ids)
        group = GroupNode(id=self.id, name=self.name, nodes=tuple(chosen))
        check_depth((group,))
        return gathered_into(drawing, chosen, group)


class Ungroup(Command):
    """Puts what groups hold in the groups' places; their own moves go on to each."""

    kind: Literal["ungroup"] = "ungroup"
    ids: Ids

    @property
    def label(self) -> str:
        return "Ungroup"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return exchanged(drawing, set(self.ids), self._freed)

    def _freed(self, node: Node) -> tuple[Node, ...]:
        if not isinstance(node, GroupNode):
            raise CommandError(f"{node.name} is no group.")
        return tuple(moved_within(child, node.transform.affine) for child in node.nodes)


class Arrange(Command):
    """Moves shapes up or down among those beside them, by one or all the way."""

    kind: Literal["arrange"] = "arrange"
    ids: Ids
    to: Literal["raise", "lower", "top", "bottom"]

    @property
    def label(self) -> str:
        return {"raise": "Raise", "lower": "Lower", "top": "To top", "bottom": "To bottom"}[self.to]

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        chosen = set(self.ids)
        for parent in {_parent_id(drawing, node_id) for node_id in self.ids}:
            drawing = _reordered(drawing, parent, lambda stack: self._order(stack, chosen))
        return drawing

    def _order(self, stack: list[str], chosen: set[str]) -> list[str]:
        if self.to in ("top", "bottom"):
            others = [key for key in stack if key not in chosen]
            mine = [key for key in stack if key in chosen]
            return others + mine if self.to == "top" else mine + others
        order = stack if self.to == "lower" else stack[::-1]
        # From the far end on, each changes places with the next one that is not chosen.
        for i in range(1, len(order)):
            if order[i] in chosen and order[i - 1] not in chosen:
                order[i - 1], order[i] = order[i], order[i - 1]
        return order if self.to == "lower" else order[::-1]


class MoveInStack(Command):
    """Moves shapes to another place: into a plate or what holds others, above ``above``.

    They stay where they are on the plate. ``parent`` is a plate, or anything that holds
    shapes; ``above`` one of the shapes in it, or None for the bottom. In a compound they add,
    unless they come from the same one.
    """

    kind: Literal["move-in-stack"] = "move-in-stack"
    ids: Ids
    parent: Id
    above: AnyId | None = None

    @property
    def label(self) -> str:
        return "Move in stack"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        order = topmost_first(drawing, set(self.ids))[::-1]
        places = places_of(drawing, order)
        if any(inner.id == self.parent for place in places for inner in walk(place.node)):
            raise CommandError("A shape cannot be moved into itself.")
        if self.above in order:
            raise CommandError("A shape cannot be moved above itself.")
        plates = {plate.id: plate for plate in drawing.plates}
        into = Affine() if self.parent in plates else place_of(drawing, self.parent).affine
        moved = brought(places, into)
        # What is in there already is only put elsewhere in it, so that it keeps what it does.
        elsewhere = {place.node.id for place in places if _stack_id(place) != self.parent}
        left = exchanged(drawing, elsewhere, lambda _: ()) if elsewhere else drawing
        if self.parent in plates:
            plate = plate_of(left, self.parent)
            return with_plate(left, with_nodes(plate, tuple(self._inserted(plate.nodes, moved))))

        def filled(node: Node) -> Node:
            if not isinstance(node, HolderNode):
                raise CommandError(f"{node.name} holds no other shapes.")
            return node.with_stack(self._inserted(node.children, moved))

        # A parent that only held what holds what is moved goes with it.
        if self.parent not in all_ids(left):
            raise CommandError("That place holds nothing but these shapes already.")
        done = replaced(left, self.parent, filled)
        for plate in done.plates:
            check_depth(plate.nodes)
        return done

    def _inserted(self, stack: tuple[Node, ...], moved: list[Node]) -> list[Node]:
        fresh = {node.id for node in moved}
        rest = [node for node in stack if node.id not in fresh]
        if self.above is None:
            return [*moved, *rest]
        for i, each in enumerate(rest):
            if each.id == self.above:
                return [*rest[: i + 1], *moved, *rest[i + 1 :]]
        raise CommandError("The place to move to is not there any more.")


class Duplicate(Command):
    """Copies shapes, each stack's on top of the topmost of them, and maps the copies.

    Their ids are made from ``seed``: seed-0, seed-1, … in the order of ``walk``, of the
    topmost shape first. With a ``plate`` the copies go on top of that plate's stack.
    """

    kind: Literal["duplicate"] = "duplicate"
    ids: Ids
    seed: Seed
    by: Placement = Placement()
    plate: Id | None = None

    @property
    def label(self) -> str:
        return "Duplicate"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        done, _ = copied(drawing, self.ids, self.seed, self.by.affine, self.plate)
        return done


def copied(
    drawing: Drawing, ids: tuple[str, ...], seed: str, by: Affine, plate: str | None = None
) -> tuple[Drawing, tuple[str, ...]]:
    """The drawing with copies as ``Duplicate`` makes them, and the copies' ids."""
    order = topmost_first(drawing, set(ids))
    new_id = numbered(seed)
    names = {node.name for plate in drawing.plates for n in plate.nodes for node in walk(n)}
    copies: dict[str, Node] = {}
    top_of: dict[str, str] = {}
    for node_id in order:
        place = place_of(drawing, node_id)
        copy = with_new_ids(place.node, new_id)
        to = by @ place.affine if plate else place.outer.inverse @ by @ place.affine
        name = free_name(place.node.name, names)
        names.add(name)
        copies[node_id] = revised(copy, {"name": name, "transform": Placement.of(to)})
        top_of.setdefault(_parent_id(drawing, node_id), node_id)
    check_fresh(drawing, tuple(copies.values()))
    fresh = tuple(copy.id for copy in copies.values())
    if plate:
        return with_added(drawing, plate, tuple(reversed(copies.values()))), fresh
    above: dict[str, tuple[Node, ...]] = {}
    for node_id in order:
        top = top_of[_parent_id(drawing, node_id)]
        above[top] = (copies[node_id], *above.get(top, ()))
    return exchanged(drawing, set(above), lambda node: (node, *above[node.id])), fresh


def _parent_id(drawing: Drawing, node_id: str) -> str:
    return _stack_id(place_of(drawing, node_id))


def _stack_id(place: Place) -> str:
    """The id of what a node lies in: a plate, or another node."""
    return place.parent.id if place.parent else place.plate.id


def _reordered(drawing: Drawing, parent: str, order: Callable[[list[str]], list[str]]) -> Drawing:
    """The drawing with the stack of a plate, or of what holds others, in another order."""

    def ordered(nodes: tuple[Node, ...]) -> tuple[Node, ...]:
        by_id = {node.id: node for node in nodes}
        return tuple(by_id[key] for key in order(list(by_id)))

    for plate in drawing.plates:
        if plate.id == parent:
            return with_plate(drawing, with_nodes(plate, ordered(plate.nodes)))

    def changed(node: Node) -> Node:
        assert isinstance(node, HolderNode), "only what holds others has a stack"
        return node.with_stack(ordered(node.children))

    return replaced(drawing, parent, changed)
