"""Commands that make twins, and say what one of them has of its own."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.painting import Paint
from dotstack.core.drawing.commands.shapes import Ids, Seed, SetState
from dotstack.core.drawing.commands.stacking import copied
from dotstack.core.drawing.copies import freed
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import GroupNode, Node, Source, TwinNode
from dotstack.core.drawing.naming import free_name, numbered
from dotstack.core.drawing.places import exchanged, place_of, places_of
from dotstack.core.drawing.stacks import gathered_into, one_stack
from dotstack.core.errors import CommandError
from dotstack.core.paint import Look
from dotstack.core.values import Id, Name, Placement


class MakeTwin(Command):
    """Makes a source of shapes, whose first twin they become, and puts a second one beside it.

    Twins get another one each. ``id`` is that of the first twin, ``source`` that of the source;
    the ids of the fresh twins are made from ``seed`` as those of ``Duplicate``, and ``by`` maps
    them. Shapes of one stack become one twin, of that ``name``, a group what is in it.
    """

    kind: Literal["make-twin"] = "make-twin"
    ids: Ids
    id: Id
    source: Id
    seed: Seed
    by: Placement = Placement()
    name: Name = "Twin"

    @property
    def label(self) -> str:
        return "Make twin"

    @property
    def named(self) -> tuple[str, ...]:
        return self.ids

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        ids = self.ids
        if not all(isinstance(place.node, TwinNode) for place in places_of(drawing, ids)):
            drawing, ids = self._first(drawing), (self.id,)
        done, _ = copied(drawing, ids, self.seed, self.by.affine)
        return done

    def _first(self, drawing: Drawing) -> Drawing:
        chosen = one_stack(drawing, self.ids)
        nodes, transform = tuple(chosen), Placement()
        name = chosen[0].name if len(chosen) == 1 else self.name
        match chosen:
            case [GroupNode() as group] if not group.look.acts_on_whole:
                nodes, transform = group.nodes, group.transform
        if any(source.id == self.source for source in drawing.sources):
            raise CommandError(f"The id {self.source!r} is taken already.")
        taken = {source.name for source in drawing.sources}
        known = free_name(name, taken) if name in taken else name
        source = Source(id=self.source, name=known, nodes=nodes)
        twin = TwinNode(id=self.id, name=name, transform=transform, source=self.source)
        done = gathered_into(drawing, chosen, twin.tied(source))
        return done.model_copy(update={"sources": (*drawing.sources, source)})


class FreeTwins(Command):
    """Makes plain shapes of twins, which follow their source no more; they look the same.

    The ids of what is in them are made from ``seed``.
    """

    kind: Literal["free-twins"] = "free-twins"
    ids: Ids
    seed: Seed

    @property
    def label(self) -> str:
        return "Free it"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        new_id = numbered(self.seed)

        def free(node: Node) -> tuple[Node, ...]:
            return (freed(_twin(node), new_id),)

        return exchanged(drawing, set(self.ids), free)


class RenameSource(Command):
    """Gives a source another name."""

    kind: Literal["rename-source"] = "rename-source"
    source: Id
    name: Name

    @property
    def label(self) -> str:
        return "Rename source"

    @property
    def named(self) -> tuple[str, ...]:
        return ()

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        if all(source.id != self.source for source in drawing.sources):
            raise CommandError("That source is not there any more.")
        sources = tuple(
            source.model_copy(update={"name": self.name}) if source.id == self.source else source
            for source in drawing.sources
        )
        return drawing.model_copy(update={"sources": sources})


class OnlyHere(Command):
    """Paints or hides shapes inside twins in these twins alone: it is their own then."""

    kind: Literal["only-here"] = "only-here"
    command: Annotated[Paint | SetState, Field(discriminator="kind")]

    @property
    def label(self) -> str:
        return f"{self.command.label} in this twin"

    @property
    def named(self) -> tuple[str, ...]:
        return self.command.named

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        twins = set()
        for node_id in self.command.ids:
            twin, inner = _twin_round(drawing, node_id)
            if not inner:
                raise CommandError("Only shapes inside a twin can be other in this one alone.")
            twins.add(twin)
        done = self.command.applied_to(drawing, evaluator)
        after = {place.node.id: place.node for place in places_of(done, twins)}
        return exchanged(
            drawing, twins, lambda node: (_twin(node).kept_to_itself(after[node.id].children),)
        )


class FollowAgain(Command):
    """Takes back what twins have of their own: all of it, or that of single shapes in them."""

    kind: Literal["follow-again"] = "follow-again"
    ids: Ids

    @property
    def label(self) -> str:
        return "Follow again"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        for node_id in self.ids:
            place_of(drawing, node_id)
            twin, inner = _twin_round(drawing, node_id)

            def followed(node: Node, inner: str = inner) -> tuple[Node, ...]:
                own = _twin(node).own_paint
                kept = [each for each in own if inner and each.node != inner]
                fresh = _twin(node).with_own(kept)
                return (fresh if inner else fresh.model_copy(update={"look": Look()}),)

            drawing = exchanged(drawing, {twin}, followed)
        return drawing


def _twin(node: Node) -> TwinNode:
    if not isinstance(node, TwinNode):
        raise CommandError(f"{node.name} is no twin.")
    return node


def _twin_round(drawing: Drawing, node_id: str) -> tuple[str, str]:
    """The id of the outermost twin that a shape is or lies in, and the shape's id in there.

    Copies of a repeat are twins too. Raises CommandError where there is none.
    """
    parts = node_id.split(":")
    for count in range(1, len(parts) + 1):
        outer = ":".join(parts[:count])
        if isinstance(place_of(drawing, outer).node, TwinNode):
            return outer, ":".join(parts[count:])
    raise CommandError(f"{place_of(drawing, node_id).node.name} is no twin, and lies in none.")
