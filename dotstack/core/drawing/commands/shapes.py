"""Commands that add, remove and name shapes, and change what they are and do."""

from collections.abc import Mapping
from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.copies import with_new_ids
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node, RectangleNode, RepeatNode, revised
from dotstack.core.drawing.kinds.parameters import parametric, ranges_of
from dotstack.core.drawing.members import DOES, Into, taken_in
from dotstack.core.drawing.naming import free_name, numbered
from dotstack.core.drawing.places import exchanged, plate_of, replaced
from dotstack.core.drawing.sound import MAX_NODES, check_fresh
from dotstack.core.drawing.stacks import moved_within, with_added
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.values import AnyId, Id, Name, Placement, Value

Seed = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{1,30}$")]
Ids = Annotated[tuple[AnyId, ...], Field(min_length=1, max_length=MAX_NODES)]


class AddShape(Command):
    """Puts a shape on top of a plate's stack; a name that is taken there gets a number.

    With ``into`` it becomes a member of another shape, or of the compound that this becomes.
    """

    kind: Literal["add-shape"] = "add-shape"
    plate: Id
    node: Node
    into: Into | None = None

    @property
    def label(self) -> str:
        return f"{DOES[self.into.role] if self.into else 'Add'} {self.node.name}"

    @property
    def named(self) -> tuple[str, ...]:
        return (self.into.id,) if self.into else ()

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        plate = plate_of(drawing, self.plate)
        taken = {inner.name for node in plate.nodes for inner in walk(node)}
        node = self.node
        if node.name in taken:
            node = revised(node, {"name": free_name(node.name, taken)})
        if not self.into:
            return with_added(drawing, self.plate, (node,))
        check_fresh(drawing, (node,))
        return taken_in(drawing, self.into, (node,), evaluator)


class Paste(Command):
    """Puts copies of several shapes on top of a plate's stack, the lowest first, and maps them.

    Their ids are made from ``seed`` as those of ``Duplicate``.
    """

    kind: Literal["paste"] = "paste"
    plate: Id
    nodes: Annotated[tuple[Node, ...], Field(min_length=1, max_length=MAX_NODES)]
    seed: Seed
    by: Placement = Placement()

    @property
    def label(self) -> str:
        return "Paste"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        new_id = numbered(self.seed)
        nodes = (moved_within(with_new_ids(node, new_id), self.by.affine) for node in self.nodes)
        return with_added(drawing, self.plate, tuple(nodes))


class Remove(Command):
    """Takes shapes away; a compound or group that loses its last one goes too."""

    kind: Literal["remove"] = "remove"
    ids: Ids

    @property
    def label(self) -> str:
        return "Remove"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return exchanged(drawing, set(self.ids), lambda _: ())


class Rename(Command):
    """Gives a shape another name."""

    kind: Literal["rename"] = "rename"
    id: AnyId
    name: Name

    @property
    def label(self) -> str:
        return "Rename"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return replaced(drawing, self.id, lambda node: revised(node, {"name": self.name}))


class SetParameters(Command):
    """Changes the parameters of primitives and repeats, by their names; their centres stay.

    One ``radius`` for all corners of a box takes the place of those of each; ``radii``
    says each.
    """

    kind: Literal["set-parameters"] = "set-parameters"
    ids: Ids
    parameters: dict[str, float] = Field(default_factory=dict)
    radii: tuple[float, float, float, float] | None = None

    @property
    def label(self) -> str:
        names = [*self.parameters, *(["radii"] if self.radii else [])]
        return "Change " + ", ".join(sorted(names)).replace("_deg", "").replace("_", " ")

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return exchanged(drawing, set(self.ids), lambda node: (self._changed(node),))

    def _changed(self, node: Node) -> Node:
        if isinstance(node, RepeatNode):
            return with_parameters(node, self.parameters)
        _require_known(self.parameters, node, node.name)
        changes: dict[str, object] = dict(self.parameters)
        if isinstance(node, RectangleNode) and "radius" in changes:
            changes["radii"] = None
        if self.radii:
            if not isinstance(node, RectangleNode):
                raise CommandError(f"{node.name} has no four corners.")
            changes["radii"] = self.radii
        return revised(node, changes)


def with_parameters(repeat: RepeatNode, parameters: Mapping[str, float]) -> RepeatNode:
    """The repeat with other parameters of its layout; raises CommandError or ValidationError."""
    _require_known(parameters, repeat.layout, repeat.name)
    return revised(repeat, {"layout": {**repeat.layout.model_dump(), **parameters}})


def _require_known(parameters: Mapping[str, float], of: Value, name: str) -> None:
    known = ranges_of(type(of)) if type(of) in parametric().values() else ()
    if unknown := [each for each in parameters if each not in known]:
        raise CommandError(f"{name} has no {unknown[0].replace('_', ' ')}.")


class SetState(Command):
    """Hides or shows shapes, locks or frees them, makes guides of them or not."""

    kind: Literal["set-state"] = "set-state"
    ids: Ids
    visible: bool | None = None
    locked: bool | None = None
    guide: bool | None = None

    @property
    def label(self) -> str:
        words = {
            (True, None, None): "Show", (False, None, None): "Hide",
            (None, True, None): "Lock", (None, False, None): "Unlock",
            (None, None, True): "Make guide", (None, None, False): "Guide no more",
        }  # fmt: skip
        return words.get((self.visible, self.locked, self.guide), "Change state")

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        changes: dict[str, object] = {
            name: value
            for name in ("visible", "locked", "guide")
            if (value := getattr(self, name)) is not None
        }
        return exchanged(drawing, set(self.ids), lambda node: (revised(node, changes),))
