"""Copies that follow their source."""

from abc import abstractmethod
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, Literal, Self

from pydantic import Field, FieldSerializationInfo, InstanceOf, field_serializer, model_validator
from pydantic.json_schema import SkipJsonSchema

from dotstack.core.combine import union
from dotstack.core.drawing.kinds.node import (
    Evaluation,
    FollowerNode,
    HolderNode,
    N,
    NodeBase,
    of_each,
    recast,
)
from dotstack.core.drawing.kinds.own import LOOK_FIELDS, Own, made_own, wearing
from dotstack.core.drawing.kinds.refinements import Refinements
from dotstack.core.geometry import Outline
from dotstack.core.paint import Look, Tint
from dotstack.core.values import Id, Name, Value

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node

MAX_OWN = 5000
# The context of JSON in which twins say the shapes inside them.
WITH_INSIDES = "with insides"


class Source(Value):
    """What twins are copies of; kept once, beside the plates."""

    id: Id
    name: Name
    nodes: Annotated[tuple["Node", ...], Field(min_length=1)]


@dataclass(frozen=True, slots=True, eq=False)
class Link:
    """A twin's tie to its source.

    ``made_for`` says for which id, own paint, tint and growth it has its shapes. Where the twin
    was ``edited`` the source is what its shapes made of it, and others do not follow yet.
    """

    source: Source
    made_for: tuple[str, tuple[Own, ...], Tint | None, float]
    edited: bool = False


class CopyingNode(FollowerNode):
    """A node whose shapes are copies, of which some may have something of their own."""

    @abstractmethod
    def with_more_own(self, own: Iterable[Own]) -> Self:
        """The node with more that is its own, by its shapes' ids after its own and a colon."""


class TwinNode(CopyingNode):
    """A copy of a source, which follows whatever is changed in it, or in another of its twins.

    It has a place, turn, size and mirror of its own, and the look of its whole. Its shapes are
    the source's, under ids that begin with its own and a colon: whoever changes one of them
    changes the source.

    Attributes:
        source: the id of what it is a copy of.
        own_paint: what it has of its own in its shapes.
        carried: its source, where it is on its way to another drawing.
        inside: the source's shapes as they are in it, the lowest first; empty in documents.
        link: what it is tied to.

    """

    kind: Literal["twin"] = "twin"
    source: Id
    own_paint: Annotated[tuple[Own, ...], Field(max_length=MAX_OWN)] = ()
    carried: Source | None = None
    inside: tuple["Node", ...] = ()
    link: SkipJsonSchema[InstanceOf[Link] | None] = Field(default=None, exclude=True, repr=False)

    @model_validator(mode="after")
    def _carries_what_it_follows(self) -> Self:
        # A document would be written that nobody could read.
        if self.carried and self.carried.id != self.source:
            raise ValueError(f"{self.name} carries a source that it does not follow")
        return self

    @property
    def children(self) -> "tuple[Node, ...]":
        return self.inside

    @property
    def stored(self) -> "tuple[Node, ...]":
        return ()

    def with_stored(self, nodes: "Sequence[Node]") -> Self:
        return self

    def with_shown(self, nodes: "Sequence[Node]") -> Self:
        return self.model_copy(update={"inside": tuple(nodes)})

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return self.inside

    @property
    def stays_alone(self) -> bool:
        """Where nothing is left in its source it still says so: all twins of that go then."""
        return True

    def models(self) -> "Iterator[tuple[Node, Node]]":
        """Its shapes beside those of its source, where the outlines of all of them are the same."""
        if self.link and self._has_all:
            yield from _pairs(self.inside, self.link.source.nodes)

    @property
    def _has_all(self) -> bool:
        """Whether it hides nothing that others show."""
        return not any(own.hidden for own in self.own_paint)

    def tied(self, source: Source) -> Self:
        """The twin tied to its source as that is now."""
        link = self.link
        if link and link.source is source and link.made_for == self._as_made and not link.edited:
            return self
        return self._linked(source)

    def _linked(self, source: Source, *, edited: bool = False) -> Self:
        link = Link(source, self._as_made, edited)
        return self.model_copy(update={"link": link, "inside": self._shown(source)})

    @property
    def _as_made(self) -> tuple[str, tuple[Own, ...], Tint | None, float]:
        """What its shapes depend on, beside their source."""
        return self.id, self.own_paint, self.tint, self.growth

    def with_own(self, own: Iterable[Own]) -> Self:
        """The twin with other paint of its own."""
        return self.model_copy(update={"own_paint": tuple(own)})._linked_again()

    def with_more_own(self, own: Iterable[Own]) -> Self:
        return self.with_own([*self.own_paint, *own])

    def _linked_again(self) -> Self:
        """The twin whose id, own paint or growth is another, so that its shapes are others."""
        link = self.link
        return self._linked(link.source, edited=link.edited) if link else self

    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> Self:
        return self.with_stack([node for nodes in fresh for node in nodes])

    def with_stack(self, nodes: "Sequence[Node]") -> Self:
        """The twin whose source has become what makes these its shapes.

        What is changed of its own paint stays its own.
        """
        assert self.link, "only a twin that is tied has shapes"
        back = _Back(self, self.link.source)
        plain = tuple(map(back, nodes))
        source = self.link.source.model_copy(update={"nodes": plain})
        fresh = self.model_copy(update={"own_paint": back.own})
        return fresh._linked(source, edited=True)

    def recast_in(self, cast: "Callable[[Node], Node]", new_ids: dict[str, str]) -> "Self":
        """The twin under its new id: its shapes are the source's, whose ids stay."""
        fresh = self._linked_again()
        new_ids.update(zip(ids_in(self.inside), ids_in(fresh.children), strict=True))
        return fresh

    def outline(self, evaluation: Evaluation) -> Outline:
        shown: Sequence[Node] = self.inside
        if self.link and self._has_all:
            # The very shapes that all twins are made of: what is made of them is made once.
            shown = self.link.source.nodes
        outlines = [evaluation.outline(node) for node in shown if node.is_active]
        if len(outlines) == 1:
            return outlines[0]
        return evaluation.remembered("union", lambda: union(outlines), *outlines)

    def seen(self, evaluation: Evaluation) -> "tuple[Node, ...]":
        return self.inside

    def refined(self, change: Callable[[Refinements], Refinements]) -> Self:
        return self.with_stack([child.refined(change) for child in self.inside])

    def painted(self, changes: Mapping[str, object]) -> Self:
        """The twin in a paint of its own."""
        each = of_each(changes)
        fresh = [child.painted(each) for child in self.inside] if each else self.inside
        return self.kept_to_itself(fresh).with_whole(changes)

    def kept_to_itself(self, shown: "Sequence[Node]") -> Self:
        """The twin with what is other of the paint of its shapes, and which are hidden, its own."""
        found = {own.node: own for own in self.own_paint}
        now = {node.id: node for node in _all(shown)}
        for before in _all(self.inside):
            key = before.id.removeprefix(f"{self.id}:")
            after = now.get(before.id)
            if after is None:
                if not isinstance(before, TwinNode):
                    continue
                # A copy of a repeat that is left out, which is here hidden.
                after = before.model_copy(update={"visible": False})
            if fresh := made_own(found.get(key) or Own(node=key), before, after):
                found[key] = fresh
        return self.with_own(found.values())

    def with_looks(self, change: Callable[[Look], Look]) -> Self:
        own = [each.model_copy(update={"look": change(each.look)}) for each in self.own_paint]
        fresh = super().with_looks(change)
        return fresh.with_own(own) if own else fresh

    def with_own_handed_on(self) -> Self:
        """The twin in which twins themselves have what it has of its own in their shapes."""

        def wearing(node: "Node") -> "Node":
            if not isinstance(node, CopyingNode):
                return node
            within = f"{node.id.removeprefix(f'{self.id}:')}:"
            mine = (own for own in self.own_paint if own.node.startswith(within))
            return node.with_more_own(
                own.model_copy(update={"node": own.node.removeprefix(within)}) for own in mine
            )

        return self.model_copy(update={"inside": tuple(recast(n, wearing) for n in self.inside)})

    def grown(self, scale: float) -> Self:
        own = [
            each.model_copy(update={"look": each.look.times(scale)}) if self._grows(each) else each
            for each in self.own_paint
        ]
        look = self.look.times(scale) if self.look.grows else self.look
        changes = {"growth": self.growth * scale, "look": look}
        return self.model_copy(update=changes).with_own(own)

    @field_serializer("inside")
    def _said(self, inside: "tuple[Node, ...]", info: FieldSerializationInfo) -> "tuple[Node, ...]":
        return inside if info.context == WITH_INSIDES else ()

    def _grows(self, own: Own) -> bool:
        shown = {node.id: node for node in _all(self.inside)}.get(f"{self.id}:{own.node}")
        return own.look.grows if "grows" in own.fields else bool(shown and shown.look.grows)

    def _shown(self, source: Source) -> "tuple[Node, ...]":
        """The source's shapes as they are in the twin."""

        def named(node: N) -> N:
            changes: dict[str, object] = {"id": f"{self.id}:{node.id}", "look": self._seen(node)}
            if isinstance(node, FollowerNode):
                changes["growth"] = node.growth * self.growth
                changes["tint"] = self.tint or node.tint
            return node.model_copy(update=changes)

        shown = tuple(recast(node, named) for node in source.nodes)
        own = {f"{self.id}:{each.node}": each for each in self.own_paint}
        return tuple(wearing(node, own) for node in shown) if own else shown

    def _seen(self, node: NodeBase) -> Look:
        """The look in it of a shape of its source."""
        look = node.look
        if self.tint and not isinstance(node, FollowerNode):
            look = look.tinted(self.tint)
        return look.times(self.growth) if look.grows and self.growth != 1.0 else look


class _Back:
    """From shapes as they are in a twin, of which some were changed, to those of its source."""

    def __init__(self, twin: TwinNode, source: Source) -> None:
        self._twin = twin
        self._own = {own.node: own for own in twin.own_paint}
        pairs = list(_pairs(twin.inside, source.nodes))
        self._known = {id(shown): plain for shown, plain in pairs}
        self._by_id = {shown.id: (shown, plain) for shown, plain in pairs}

    @property
    def own(self) -> tuple[Own, ...]:
        """The paint that is the twin's own by now."""
        return tuple(self._own.values())

    def __call__(self, node: "Node") -> "Node":
        new_ids = {inner.id: self._plain_id(inner.id) for inner in _all([node])}
        return self._back(node, new_ids)

    def _back(self, node: "Node", new_ids: dict[str, str]) -> "Node":
        if id(node) in self._known:
            return self._known[id(node)]
        fresh = node.model_copy(update={"id": new_ids[node.id], **self._followed(node)})
        if isinstance(fresh, HolderNode) and not isinstance(fresh, TwinNode):
            fresh = fresh.recast_in(lambda child: self._back(child, new_ids), dict(new_ids))
        refinements = tuple(each.renamed(new_ids) for each in fresh.refinements)
        return fresh.model_copy(update={"refinements": refinements})

    def _plain_id(self, node_id: str) -> str:
        return node_id.removeprefix(f"{self._twin.id}:")

    def _followed(self, node: "Node") -> dict[str, object]:
        """What of a shape is as in the source where only this twin has it otherwise."""
        if node.id not in self._by_id:
            return {}
        shown, plain = self._by_id[node.id]
        changes: dict[str, object] = {"look": self._look(node, shown, plain)}
        own = self._own.get(plain.id)
        if own and own.hidden:
            changes["visible"] = plain.visible
            if node.visible:
                self._own[plain.id] = own.model_copy(update={"hidden": False})
        if isinstance(node, FollowerNode) and isinstance(plain, FollowerNode):
            same = node.growth == plain.growth * self._twin.growth
            changes["growth"] = plain.growth if same else node.growth / self._twin.growth
            changes["tint"] = plain.tint
        return changes

    def _look(self, node: "Node", shown: "Node", plain: "Node") -> Look:
        if node.look == shown.look:
            return plain.look
        own = self._own.get(plain.id)
        kept = own.fields if own else ()
        look = node.look.times(1 / self._twin.growth) if node.look.grows else node.look
        changed = {
            name for name in LOOK_FIELDS if getattr(node.look, name) != getattr(shown.look, name)
        }
        if own and changed.intersection(kept):
            self._own[plain.id] = own.model_copy(update={"look": node.look})
        follows: dict[str, object] = {
            name: getattr(look, name) for name in changed.difference(kept)
        }
        return plain.look.model_copy(update=follows)


def _all(nodes: "Iterable[Node]") -> "Iterator[Node]":
    for node in nodes:
        yield node
        yield from _all(node.children)


def ids_in(nodes: "Iterable[Node]") -> list[str]:
    """The ids of nodes and of all that lie in them."""
    return [node.id for node in _all(nodes)]


def _pairs(shown: "Sequence[Node]", plain: "Sequence[Node]") -> "Iterator[tuple[Node, Node]]":
    """Shapes of a twin beside those of its source; what lies in other twins is of other sources."""
    for one, other in zip(shown, plain, strict=True):
        yield one, other
        if not isinstance(one, TwinNode):
            yield from _pairs(one.children, other.children)
