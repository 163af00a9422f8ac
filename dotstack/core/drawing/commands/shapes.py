"""Commands that add, remove, name and paint shapes, and change what they do and are."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.combine import Role
from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.frame import revised
from dotstack.core.drawing.nodes import (
    Colour,
    CompoundNode,
    Drawing,
    Id,
    Member,
    Name,
    Node,
    walk,
)
from dotstack.core.drawing.places import (
    all_ids,
    place_of,
    plate_of,
    replaced,
    with_nodes,
    with_plate,
)
from dotstack.core.errors import CommandError, LimitError

MAX_NODES = 5000
MAX_NESTING = 24

Ids = Annotated[tuple[Id, ...], Field(min_length=1, max_length=MAX_NODES)]


class AddShape(Command):
    """Puts a shape on top of a plate's stack."""

    kind: Literal["add-shape"] = "add-shape"
    plate: Id
    node: Node

    @property
    def label(self) -> str:
        return f"Add {self.node.name}"

    def applied_to(self, drawing: Drawing) -> Drawing:
        plate = plate_of(drawing, self.plate)
        taken = all_ids(drawing)
        fresh = [node.id for node in walk(self.node)]
        if len(set(fresh)) < len(fresh) or not taken.isdisjoint(fresh):
            raise CommandError("A shape needs ids that nothing else in the drawing has.")
        if len(taken) + len(fresh) > MAX_NODES:
            raise LimitError("shapes in one drawing", len(taken) + len(fresh), MAX_NODES)
        if depth(self.node) > MAX_NESTING:
            raise LimitError("compounds inside each other", depth(self.node), MAX_NESTING)
        return with_plate(drawing, with_nodes(plate, (*plate.nodes, self.node)))


class Remove(Command):
    """Takes shapes away; a compound that loses its last member goes too."""

    kind: Literal["remove"] = "remove"
    ids: Ids

    @property
    def label(self) -> str:
        return "Remove"

    def applied_to(self, drawing: Drawing) -> Drawing:
        for node_id in self.ids:
            plate = place_of(drawing, node_id).plate
            kept = tuple(
                left for node in plate.nodes if (left := _without(node, node_id)) is not None
            )
            drawing = with_plate(drawing, with_nodes(plate, kept))
        return drawing


class Rename(Command):
    """Gives a shape another name."""

    kind: Literal["rename"] = "rename"
    id: Id
    name: Name

    @property
    def label(self) -> str:
        return "Rename"

    def applied_to(self, drawing: Drawing) -> Drawing:
        return replaced(drawing, self.id, lambda node: revised(node, {"name": self.name}))


class Paint(Command):
    """Fills shapes with a colour, or with none."""

    kind: Literal["paint"] = "paint"
    ids: Ids
    fill: Colour | None

    @property
    def label(self) -> str:
        return "Paint"

    def applied_to(self, drawing: Drawing) -> Drawing:
        for node_id in self.ids:
            drawing = replaced(drawing, node_id, lambda n: revised(n, {"fill": self.fill}))
        return drawing


class SetParameters(Command):
    """Changes a primitive's own parameters, by their names; its centre stays."""

    kind: Literal["set-parameters"] = "set-parameters"
    id: Id
    parameters: Annotated[
        dict[Literal["rx", "ry", "width", "height", "radius", "sides", "points", "ratio"], float],
        Field(min_length=1),
    ]

    @property
    def label(self) -> str:
        return "Change " + ", ".join(sorted(self.parameters))

    def applied_to(self, drawing: Drawing) -> Drawing:
        changes: dict[str, object] = {str(name): value for name, value in self.parameters.items()}
        return replaced(drawing, self.id, lambda node: revised(node, changes))


class SetRole(Command):
    """Gives a member of a compound another role."""

    kind: Literal["set-role"] = "set-role"
    compound: Id
    member: Id
    role: Role

    @property
    def label(self) -> str:
        return f"Role: {self.role}"

    def applied_to(self, drawing: Drawing) -> Drawing:
        return replaced(drawing, self.compound, self._with_role)

    def _with_role(self, node: Node) -> Node:
        if not isinstance(node, CompoundNode) or all(
            member.node.id != self.member for member in node.members
        ):
            raise CommandError(f"{node.name} has no member with the id {self.member!r}.")
        members = tuple(
            Member(role=self.role, node=member.node) if member.node.id == self.member else member
            for member in node.members
        )
        return node.model_copy(update={"members": members})


def depth(node: Node) -> int:
    """How many compounds lie inside each other, the node itself counted."""
    if not isinstance(node, CompoundNode):
        return 0
    return 1 + max(depth(member.node) for member in node.members)


def _without(node: Node, node_id: str) -> Node | None:
    if node.id == node_id:
        return None
    if not isinstance(node, CompoundNode) or all(n.id != node_id for n in walk(node)):
        return node
    members = tuple(
        member.model_copy(update={"node": left})
        for member in node.members
        if (left := _without(member.node, node_id)) is not None
    )
    return node.model_copy(update={"members": members}) if members else None
