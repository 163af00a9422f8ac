"""Pieces made by picking regions."""

from collections.abc import Callable, Mapping, Sequence
from typing import TYPE_CHECKING, Annotated, Literal, Self

from pydantic import Field

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import Build, Pick, build
from dotstack.core.drawing.kinds.node import Evaluation, of_each, paint_of
from dotstack.core.drawing.kinds.picking import PickedRegion, bounding, picked, renamed
from dotstack.core.drawing.kinds.pieces import InPieces, PieceNode
from dotstack.core.drawing.looks import look_of
from dotstack.core.geometry import Outline
from dotstack.core.paint import Look
from dotstack.core.values import Colour, Value

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node


_NO_CAST = {"shadows": (), "depth": None}


class RegionPick(Value):
    """One stroke of a brush in a region build.

    Attributes:
        regions: one that is kept, several that are fused, or some that go.
        dropped: whether they go.
        fill: the colour chosen for the piece; None for that of the build's ``paint``.

    """

    regions: Annotated[tuple[PickedRegion, ...], Field(min_length=1)]
    dropped: bool = False
    fill: Colour | None = None


class RegionNode(InPieces):
    """Pieces made by picking regions of its members, the lowest member first.

    The key of a piece is the place of its pick; that of a rest names its member, or a copy in it.

    Attributes:
        keep_rest: whether what was not picked stays, in its own shapes.
        paint: whose paint a piece takes: that of the topmost or the lowest member that
            covers some of it, or the node's own, which is *new*.

    """

    kind: Literal["regions"] = "regions"
    members: Annotated[tuple["Node", ...], Field(min_length=1)]
    picks: tuple[RegionPick, ...] = ()
    keep_rest: bool = True
    paint: Literal["topmost", "lowest", "new"] = "topmost"

    @property
    def children(self) -> "tuple[Node, ...]":
        return self.members

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return ()

    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> Self:
        return self.with_stack([node for nodes in fresh for node in nodes])

    def with_stack(self, nodes: "Sequence[Node]") -> Self:
        return self.model_copy(update={"members": tuple(nodes)})

    def bounding(self, evaluation: Evaluation) -> "list[Node]":
        """The shapes whose regions are picked, the lowest first, in its own axes."""
        return bounding(self.members, evaluation)

    def arrangement(self, evaluation: Evaluation) -> Arrangement:
        return evaluation.arranged([evaluation.outline(each) for each in self.bounding(evaluation)])

    def build(self, evaluation: Evaluation) -> Build:
        """What its picks come to, in its own axes; raises ArrangementError."""

        def made() -> Build:
            shapes = self.bounding(evaluation)
            picks = [Pick(tuple(picked(pick.regions, shapes)), pick.dropped) for pick in self.picks]
            return build(self.arrangement(evaluation), picks, keep_rest=self.keep_rest)

        return evaluation.remembered("build", made, self.members, self.picks, self.keep_rest)

    def come(self, evaluation: Evaluation) -> list[PieceNode]:
        shapes, found = self.bounding(evaluation), []
        for piece in self.build(evaluation).pieces:
            pick = None if piece.pick is None else self.picks[piece.pick]
            by = piece.lowest if self.paint == "lowest" else piece.topmost
            source = shapes[by] if by >= 0 else self
            own = pick is not None and self.paint == "new"
            paint = self if own or source is self else paint_of(source)
            # What is cast is cast by all pieces together.
            own_paint = paint.look.bare if paint is self else paint.look.model_copy(update=_NO_CAST)
            look = look_of(piece.outline, own_paint)
            if pick and pick.fill:
                look = look.model_copy(update={"fill": pick.fill})
            key = f"of-{source.id}" if piece.pick is None else str(piece.pick)
            found.append(self.piece(key, source.name, look, piece.outline))
        return found

    def outline(self, evaluation: Evaluation) -> Outline:
        if self.held or self.refinements:
            return super().outline(evaluation)
        return self.build(evaluation).outline

    def painted(self, changes: Mapping[str, object]) -> Self:
        """Its pieces and the rest in another paint, and the shapes that they are of."""
        node, each = super().painted(changes), of_each(changes)
        if "fill" in changes:
            picks = tuple(pick.model_copy(update={"fill": None}) for pick in self.picks)
            node = node.model_copy(update={"picks": picks})
        return node.with_stack([member.painted(each) for member in node.members])

    def with_looks(self, change: Callable[[Look], Look]) -> Self:
        picks = tuple(
            pick.model_copy(update={"fill": change(Look(fill=pick.fill)).fill})
            for pick in self.picks
        )
        return super().with_looks(change).model_copy(update={"picks": picks})

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        picks = tuple(
            pick.model_copy(update={"regions": renamed(pick.regions, new_ids)})
            for pick in self.picks
        )
        return super().renamed(new_ids).model_copy(update={"picks": picks})

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        lost = sum(found.count(None) for found in self.build(evaluation).found)
        return {**super().told(evaluation), "lost": lost}
