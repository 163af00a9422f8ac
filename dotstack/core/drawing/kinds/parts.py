"""Shapes that another one cuts."""

from collections import Counter
from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, Annotated, Literal, Self

import numpy as np
import scipy
from pydantic import Field

from dotstack.core.combine import Paint, Part, PartedOutcome, acting, outcomes
from dotstack.core.drawing.kinds.group import GroupNode
from dotstack.core.drawing.kinds.node import Evaluation, of_each, paint_of
from dotstack.core.drawing.kinds.picking import PickedRegion, looked_for, renamed
from dotstack.core.drawing.kinds.pieces import InPieces, PieceNode
from dotstack.core.drawing.looks import look_of
from dotstack.core.geometry import Outline
from dotstack.core.values import MAX_HELD

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node


class PartsNode(InPieces):
    """Shapes that another one, the ``cutter``, cuts: each by itself and in its own paint.

    The cutter lies on them and is not painted. What lies under it goes from each, which is a
    *gap*, or stays as pieces of their own, which is a *slice*. Parts that lose their cutter,
    or get several, are a group.

    Attributes:
        picks: the pieces of a slice, each by a point in it, by which it is known again: its key
            is the place of its pick. That of any other names its shape.

    """

    kind: Literal["parts"] = "parts"
    outcome: PartedOutcome
    cutter: "Node"
    nodes: tuple["Node", ...] = ()
    picks: Annotated[tuple[PickedRegion, ...], Field(max_length=MAX_HELD)] = ()

    @property
    def children(self) -> "tuple[Node, ...]":
        return (*self.nodes, self.cutter)

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return self.nodes

    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> "Self | GroupNode":
        nodes = tuple(node for each in fresh for node in each)
        if len(fresh[-1]) != 1:
            return GroupNode(**self.common, nodes=nodes)
        return self.model_copy(update={"nodes": nodes[:-1], "cutter": nodes[-1]})

    def with_stack(self, nodes: "Sequence[Node]") -> Self:
        # A cutter lies on what it cuts, wherever it was ordered to.
        inner = tuple(node for node in nodes if node.id != self.cutter.id)
        return self.model_copy(update={"nodes": inner})

    def parts(self, evaluation: Evaluation) -> tuple[Part, ...]:
        """What the cutter leaves of each of its active shapes, in its own axes.

        A part's ``paint`` is the place of its shape among these. Raises ArrangementError.
        """

        def made() -> tuple[Part, ...]:
            active = [child for child in self.nodes if child.is_active]
            outlines = [evaluation.outline(child) for child in active]
            if not self.cutter.is_active:
                return tuple(map(Part, outlines, range(len(outlines))))
            outlines.append(evaluation.outline(self.cutter))
            paints = paints_of([*active, self.cutter])
            arrangement = evaluation.arranged(acting(self.outcome, outlines, paints))
            (result,) = outcomes(arrangement, paints, [self.outcome])
            return result.parts

        return evaluation.remembered("parts", made, self.outcome, self.cutter, self.nodes)

    def come(self, evaluation: Evaluation) -> list[PieceNode]:
        active = [child for child in self.nodes if child.is_active]
        parts = self.parts(evaluation)
        known = self._known_again(active, parts)
        serial: Counter[str] = Counter()
        found = []
        for place, part in enumerate(parts):
            source = active[part.paint]
            key = known.get(place)
            if key is None:
                key = f"of-{source.id}"
                serial[key] += 1
                if serial[key] > 1:
                    key += f".{serial[key]}"
            look = look_of(part.outline, paint_of(source).look, part.ink)
            found.append(self.piece(key, source.name, look, part.outline))
        return found

    def seen(self, evaluation: Evaluation) -> "tuple[Node, ...]":
        return evaluation.pieces(self)

    def painted(self, changes: Mapping[str, object]) -> Self:
        """What is cut in another paint, and the pieces that were painted by hand."""
        each = of_each(changes)
        nodes = tuple(child.painted(each) for child in self.nodes)
        held = tuple(piece.painted(each) for piece in self.held)
        return self.model_copy(update={"nodes": nodes, "held": held}).with_whole(changes)

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        picks = renamed(self.picks, new_ids)
        return super().renamed(new_ids).model_copy(update={"picks": picks})

    def _known_again(self, active: "Sequence[Node]", parts: Sequence[Part]) -> dict[int, str]:
        """The keys of parts that were picked, by their places: of each shape's, by its point.

        Of each shape it is the assignment that costs least, as of picked regions.
        """
        spots = looked_for(self.picks, [*active, self.cutter])
        found: dict[int, str] = {}
        for number, shape in enumerate(active):
            picks = [i for i, pick in enumerate(self.picks) if pick.cover[:1] == (shape.id,)]
            mine = [place for place, part in enumerate(parts) if part.paint == number]
            if picks and mine:
                cost = np.array(
                    [[_distance(parts[place].outline, spots[i]) for place in mine] for i in picks]
                )
                for row, column in zip(*scipy.optimize.linear_sum_assignment(cost), strict=True):
                    found[mine[column]] = str(picks[row])
        return found


def paints_of(nodes: "Sequence[Node]") -> list[Paint]:
    """What of the nodes' paint decides what can be seen of them, as operands of outcomes."""
    looks = (paint_of(node).look for node in nodes)
    return [Paint(look.fill, lined=bool(look.lines)) for look in looks]


def _distance(outline: Outline, point: tuple[float, float]) -> float:
    """How far a point lies outside an area, or beside a line."""
    if outline.closed.any() and outline.contains(*point):
        return 0.0
    return outline.nearest(*point)[0]
