"""What is live and comes in pieces: each can be held, and its whole remembers what was done."""

from abc import abstractmethod
from collections.abc import Callable, Iterable, Mapping
from typing import Annotated, Literal, Self

from pydantic import Field, InstanceOf
from pydantic.json_schema import SkipJsonSchema

from dotstack.core.combine import union
from dotstack.core.drawing.kinds.node import Evaluation, HolderNode, LeafNode, of_each
from dotstack.core.geometry import Affine, Outline, bundle, open_part
from dotstack.core.paint import Blend, Depth, Fill, Lines, Look, Shadows
from dotstack.core.values import MAX_HELD, AnyId, Name, Opacity, PieceKey, Placement, Value


class OwnPaint(Value):
    """The look that was given to a piece by hand; of its opacity it says nothing."""

    fill: Fill | None = None
    lines: Lines = ()
    blend: Blend = "normal"
    shadows: Shadows = ()
    depth: Depth | None = None
    grows: bool = False

    @classmethod
    def of(cls, look: Look) -> "OwnPaint":
        """What it says of a look."""
        return cls.model_construct(**{name: getattr(look, name) for name in cls.model_fields})

    @property
    def look(self) -> Look:
        """The same as a look."""
        return Look.model_construct(**{name: getattr(self, name) for name in _PAINT})


_PAINT = tuple(OwnPaint.model_fields)
_STATES = ("visible", "locked", "guide")


class Held(Value):
    """What was done by hand to a piece of what is live; where it says None, it is as it comes.

    Attributes:
        piece: which one, by its key.
        transform: from where it comes to be to where it was put, about the middle of its box:
            a piece that was turned still follows its shapes in their own direction.
        dropped: whether it goes.

    """

    piece: PieceKey
    transform: Placement = Placement()
    name: Name | None = None
    paint: OwnPaint | None = None
    opacity: Opacity | None = None
    visible: bool = True
    locked: bool = False
    guide: bool = False
    dropped: bool = False

    def painted(self, changes: Mapping[str, object]) -> Self:
        """The same with another paint, if it was painted by hand."""
        given = {name: value for name, value in changes.items() if name in _PAINT}
        paint = self.paint and self.paint.model_copy(update=given)
        opacity = None if "opacity" in changes else self.opacity
        return self.model_copy(update={"paint": paint, "opacity": opacity})

    def with_looks(self, change: Callable[[Look], Look]) -> Self:
        """The same with its look changed, if it was painted by hand."""
        if self.paint is None:
            return self
        return self.model_copy(update={"paint": OwnPaint.of(change(self.paint.look))})


class PieceNode(LeafNode):
    """A piece of what is live, as it stands in it: a shape to whoever takes hold of it.

    It is never part of a document: its whole makes it anew, and remembers what was ``Held``.
    Its id is the whole's, a dot, and its key. ``area`` is its outline, in its own axes.
    """

    kind: Literal["piece"] = "piece"
    id: AnyId
    area: SkipJsonSchema[InstanceOf[Outline]] = Field(exclude=True)

    def drawn(self) -> Outline:
        return self.area

    @property
    def weight(self) -> int:
        """About how many bytes its outline takes."""
        return self.area.weight

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        return {"piece": self}


class InPieces(HolderNode):
    """What comes in pieces that can be held.

    Attributes:
        held: what was done to pieces by hand.
        order: the keys of pieces as they were ordered by hand, the lowest first.

    """

    held: Annotated[tuple[Held, ...], Field(max_length=MAX_HELD)] = ()
    order: Annotated[tuple[PieceKey, ...], Field(max_length=MAX_HELD)] = ()

    @abstractmethod
    def come(self, evaluation: Evaluation) -> list[PieceNode]:
        """All its pieces as they come, the lowest first; raises ArrangementError."""

    def outline(self, evaluation: Evaluation) -> Outline:
        """All that its pieces cover, and all their lines."""
        found = [evaluation.outline(each) for each in evaluation.pieces(self) if each.is_active]
        return bundle([union(found), *map(open_part, found)])

    def painted(self, changes: Mapping[str, object]) -> Self:
        held = tuple(piece.painted(of_each(changes)) for piece in self.held)
        look = self.look.model_copy(update=changes)
        return self.model_copy(update={"look": look, "held": held})

    def with_looks(self, change: Callable[[Look], Look]) -> Self:
        held = tuple(each.with_looks(change) for each in self.held)
        return super().with_looks(change).model_copy(update={"held": held})

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        def key_of(key: str) -> str:
            if not key.startswith("of-"):
                return key
            member, *serial = key.removeprefix("of-").split(".")
            return ".".join([f"of-{new_ids.get(member, member)}", *serial])

        held = tuple(each.model_copy(update={"piece": key_of(each.piece)}) for each in self.held)
        return self.model_copy(update={"held": held, "order": tuple(map(key_of, self.order))})

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        return {"piece_ids": tuple(piece.id for piece in evaluation.pieces(self))}

    def piece(self, key: str, name: str, look: Look, outline: Outline) -> PieceNode:
        """A piece of it, as it comes."""
        # All of it has been checked where it comes from.
        return PieceNode.model_construct(
            kind="piece", id=piece_id(self.id, key), name=name, area=outline, look=look
        )


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
    look: dict[str, object] = {} if held.opacity is None else {"opacity": held.opacity}
    if held.paint is not None:
        look |= {name: getattr(held.paint, name) for name in _PAINT}
    if look:
        changes["look"] = piece.look.model_copy(update=look)
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
    if OwnPaint.of(now.look) != OwnPaint.of(came.look):
        changes["paint"] = OwnPaint.of(now.look)
    if now.look.opacity != came.look.opacity:
        changes["opacity"] = now.look.opacity
    if now.name != came.name:
        changes["name"] = now.name
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
    x0, y0, x1, y1 = piece.area.bounds
    return Affine.translation((x0 + x1) / 2, (y0 + y1) / 2)
