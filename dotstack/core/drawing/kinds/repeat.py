"""Shapes that are repeated live."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, Literal, Self, TypeAlias

from pydantic import Field, FieldSerializationInfo, InstanceOf, field_serializer
from pydantic.json_schema import SkipJsonSchema

from dotstack.core.combine import Role, covered, union
from dotstack.core.drawing.kinds.layouts import Layout
from dotstack.core.drawing.kinds.node import Evaluation, of_each
from dotstack.core.drawing.kinds.own import Own
from dotstack.core.drawing.kinds.refinements import Refinements
from dotstack.core.drawing.kinds.twin import (
    WITH_INSIDES,
    CopyingNode,
    Source,
    TwinNode,
    ids_in,
)
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Outline, bundle
from dotstack.core.paint import Look, colour_of
from dotstack.core.refine import nodes as hand
from dotstack.core.values import Placement, Value

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node

Takes: TypeAlias = Literal["each", "join", "alternate", "overlap"]
_ROLES: dict[Takes, Role] = {
    "join": Role.ADDS,
    "alternate": Role.ALTERNATES,
    "overlap": Role.LIMITS,
}
_WHOLE = Look()
# What copies depend on, beside what is repeated.
_MADE_OF = ("id", "name", "layout", "left_out", "own_copies", "growth", "tint")
# Ends of mirrored halves that are no further apart are on their axis.
_MEETS = 1e-6


class OwnCopy(Value):
    """What one copy has of its own.

    Attributes:
        number: which one, the first being 0.
        own_paint: as a twin has it.
        look: that of its whole.

    """

    number: Annotated[int, Field(ge=0)]
    own_paint: tuple[Own, ...] = ()
    look: Look = _WHOLE


@dataclass(frozen=True, slots=True, eq=False)
class _Made:
    """What the copies of a repeat were made of."""

    source: Source
    of: tuple[object, ...]


class RepeatNode(CopyingNode):
    """Shapes repeated round a centre, in rows, along a line, or across axes.

    Each copy follows them as a twin.

    Attributes:
        layout: where the copies stand.
        nodes: what is repeated, the lowest first.
        line: what they stand along, which is to be seen under them as it is.
        takes: what the copies come to: each by itself, or one result in the repeat's own paint.
        left_out: the numbers of copies that are not there, the first being 0.
        own_copies: what single copies have of their own.
        copies: the copies, the lowest first; empty in documents.
        made: what these were made of.

    """

    kind: Literal["repeat"] = "repeat"
    layout: Layout
    nodes: Annotated[tuple["Node", ...], Field(min_length=1)]
    line: "Node | None" = None
    takes: Takes = "each"
    left_out: tuple[Annotated[int, Field(ge=0)], ...] = ()
    own_copies: tuple[OwnCopy, ...] = ()
    copies: tuple[TwinNode, ...] = ()
    made: SkipJsonSchema[InstanceOf[_Made] | None] = Field(default=None, exclude=True, repr=False)

    @property
    def children(self) -> "tuple[Node, ...]":
        return (*self._lines, *self.copies)

    @property
    def _lines(self) -> "tuple[Node, ...]":
        return (self.line,) if self.line else ()

    @property
    def stored(self) -> "tuple[Node, ...]":
        return (*self._lines, *self.nodes)

    def with_stored(self, nodes: "Sequence[Node]") -> Self:
        line, rest = self._parted(nodes)
        fresh = self if line is self.line else self.model_copy(update={"line": line})
        return fresh.tied(rest)

    def with_shown(self, nodes: "Sequence[Node]") -> Self:
        line, copies = self._parted(nodes)
        return self.model_copy(update={"line": line, "copies": tuple(copies)})

    def _parted(self, nodes: "Sequence[Node]") -> "tuple[Node | None, Sequence[Node]]":
        """What became of the line, if it has one, and of all else."""
        return (nodes[0], nodes[1:]) if self.line else (None, nodes)

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return self.copies if self.takes == "each" else ()

    @property
    def is_centred(self) -> bool:
        """A row has no centre of its own, nor has a line."""
        return self.layout.kind not in ("row", "along")

    def tied(self, nodes: "Sequence[Node] | None" = None) -> Self:
        """The repeat with its copies made anew, of these shapes, where anything is another."""
        if nodes is None or tuple(nodes) == self.nodes:
            nodes = self.nodes
        own = tuple(getattr(self, name) for name in _MADE_OF)
        made = self.made
        if made and made.source.nodes is nodes and made.source.id == self.id:
            if made.of == own:
                return self
            source = made.source
        else:
            source = Source(id=self.id, name=self.name, nodes=tuple(nodes))
        # What a document says of copies does not count.
        known = {copy.id: copy for copy in self.copies} if made else {}
        owns = {each.number: each for each in self.own_copies}
        copies = tuple(
            self._copy(number, Placement.of(place), owns.get(number), known).tied(source)
            for number, place in enumerate(self.layout.places)
            if number not in self.left_out
        )
        # The very nodes that the source has: by them it is seen that nothing is another.
        changes = {"nodes": source.nodes, "copies": copies, "made": _Made(source, own)}
        return self.model_copy(update=changes)

    def with_more_own(self, own: Iterable[Own]) -> Self:
        known, out = {each.number: each for each in self.own_copies}, set(self.left_out)
        for each in own:
            key, _, inner = each.node.partition(":")
            number = int(key)
            copy = known.get(number) or OwnCopy(number=number)
            if inner:
                mine = (*copy.own_paint, each.model_copy(update={"node": inner}))
                known[number] = copy.model_copy(update={"own_paint": mine})
            else:
                known[number] = copy.model_copy(update={"look": each.worn(copy.look)})
                out |= {number} if each.hidden else set()
        changes = {"own_copies": tuple(known.values()), "left_out": tuple(sorted(out))}
        return self.model_copy(update=changes).tied()

    def _copy(
        self, number: int, place: Placement, own: OwnCopy | None, known: Mapping[str, TwinNode]
    ) -> TwinNode:
        copy_id = f"{self.id}:{number}"
        own = own or OwnCopy(number=number)
        look = own.look
        if self.layout.opacity:
            faint = look.opacity * self.layout.opacity_of(number)
            look = look.model_copy(update={"opacity": faint})
        fields: dict[str, object] = {
            "name": f"{self.name[:110]} {number + 1}",
            "transform": place,
            "look": look,
            "own_paint": own.own_paint,
            "tint": self.layout.tint_of(number) or self.tint,
            "growth": self.growth * self.layout.size_of(number),
        }
        copy = known.get(copy_id) or TwinNode(id=copy_id, name=self.name, source=self.id)
        return copy.model_copy(update=fields)

    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> Self:
        """The repeat after its line and copies became these: all follow what was changed in one.

        Without its line they stay where that was. Copies that are gone are left out; what was
        painted of one stays its own. Raises CommandError for what no copy can become.
        """
        own = {each.number: each for each in self.own_copies}
        out, edited = set(self.left_out), list[Source]()
        line = fresh[0] if self.line else ()
        if len(line) > 1:
            raise CommandError(f"{self.name} stands along one line, not along several.")
        for old, left in zip(self.copies, fresh[len(self._lines) :], strict=True):
            number = int(old.id.rpartition(":")[2])
            if not left or not left[0].visible:
                out.add(number)
                continue
            new = left[0]
            if len(left) > 1 or not isinstance(new, TwinNode) or new.id != old.id:
                raise CommandError(
                    f"The copies of {self.name} are what is repeated, and nothing lies between "
                    "them; change one inside, or settle it first."
                )
            if new.transform != old.transform:
                raise CommandError(
                    f"The copies of {self.name} stand where it puts them; change what is inside "
                    "one, or leave it out, or settle it first."
                )
            if new.link and new.link.edited:
                edited.append(new.link.source)
            known = own.pop(number, OwnCopy(number=number))
            look = self._own_look(number, known.look, old.look, new.look)
            mine = OwnCopy(number=number, own_paint=new.own_paint, look=look)
            if mine != OwnCopy(number=number):
                own[number] = mine
        if len({source.model_dump_json() for source in edited}) > 1:
            raise CommandError(
                f"Two copies of {self.name} would be changed in two ways; change one of them."
            )
        if edited and not edited[0].nodes:
            raise CommandError(f"{self.name} repeats nothing else; remove it as a whole.")
        changes = {
            "left_out": tuple(sorted(out)),
            "own_copies": tuple(own.values()),
            "line": line[0] if line else None,
        }
        return self.model_copy(update=changes).tied(edited[0].nodes if edited else None)

    def _own_look(self, number: int, own: Look, old: Look, new: Look) -> Look:
        """What is a copy's own of its look: of its opacity what the layout does not say."""
        opacity = own.opacity
        if new.opacity != old.opacity:
            opacity = min(new.opacity / (self.layout.opacity_of(number) or 1.0), 1.0)
        return new.model_copy(update={"opacity": opacity})

    def with_stack(self, nodes: "Sequence[Node]") -> Self:
        raise CommandError(
            f"The copies of {self.name} lie in their order, and nothing between them; put it "
            "into one of them."
        )

    def recast_in(self, cast: "Callable[[Node], Node]", new_ids: dict[str, str]) -> Self:
        """The repeat under its new id: what it repeats keeps its ids."""
        fresh = self.model_copy(update={"line": cast(self.line)}) if self.line else self
        if self.made is None:
            return fresh
        # The copies at hand are those of the old id; of another layout there may be more or fewer.
        old = self.copies[0].id.rpartition(":")[0] if self.copies else self.id
        new_ids.update((each, self.id + each.removeprefix(old)) for each in ids_in(self.copies))
        return fresh.tied()

    def outline(self, evaluation: Evaluation) -> Outline:
        outlines = [evaluation.outline(copy) for copy in self.copies if copy.is_active]
        if not outlines:
            return Outline.empty()

        def come() -> Outline:
            if self.takes == "each":
                return union(outlines)
            if not all(outline.closed.all() for outline in outlines):
                return _with_ends_met(bundle(outlines))
            arrangement = evaluation.arranged(outlines)
            others = [_ROLES[self.takes]] * (len(outlines) - 1)
            return arrangement.outline(covered(arrangement.covers, [Role.ADDS, *others]))

        return evaluation.remembered(f"repeat {self.takes}", come, *outlines)

    def seen(self, evaluation: Evaluation) -> "tuple[Node, ...] | None":
        return self.children if self.takes == "each" else None

    def refined(self, change: Callable[[Refinements], Refinements]) -> Self:
        if self.takes == "each":
            return self.tied([node.refined(change) for node in self.nodes])
        return super().refined(change)

    def painted(self, changes: Mapping[str, object]) -> Self:
        if self.takes != "each":
            return self.model_copy(update={"look": self.look.model_copy(update=changes)})
        nodes, each = self.nodes, of_each(changes)
        if each:
            nodes = tuple(node.painted(each) for node in nodes)
        return self.tied(nodes).with_whole(changes)

    def with_looks(self, change: Callable[[Look], Look]) -> Self:
        def changed(each: OwnCopy) -> OwnCopy:
            own = (
                paint.model_copy(update={"look": change(paint.look)}) for paint in each.own_paint
            )
            return each.model_copy(update={"own_paint": tuple(own), "look": change(each.look)})

        own = tuple(map(changed, self.own_copies))
        layout = self.layout
        if layout.last_fill:
            last = change(Look(fill=layout.last_fill)).fill
            layout = layout.model_copy(update={"last_fill": last and colour_of(last)})
        return super().with_looks(change).model_copy(update={"own_copies": own, "layout": layout})

    def grown(self, scale: float) -> Self:
        look = self.look.times(scale) if self.look.grows else self.look
        return self.model_copy(update={"growth": self.growth * scale, "look": look}).tied()

    @field_serializer("copies")
    def _said(
        self, copies: tuple[TwinNode, ...], info: FieldSerializationInfo
    ) -> tuple[TwinNode, ...]:
        return copies if info.context == WITH_INSIDES else ()


def _with_ends_met(outline: Outline) -> Outline:
    """Open halves that end on their axis, as closed contours; what has other ends stays open."""
    pairs = hand.pairs_within(outline, _MEETS)
    made = hand.joined(outline, pairs, "first") if pairs else outline
    return union([made]) if made.closed.all() else made
