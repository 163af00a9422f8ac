"""Commands that refine outlines: live changes after they are made."""

from collections.abc import Callable
from typing import Annotated, Literal, assert_never

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.corner_map import corners_at, last_corners
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node, PieceNode, UnderlayNode
from dotstack.core.drawing.kinds.refinements import (
    MAX_REFINEMENTS,
    Band,
    Corners,
    LineArea,
    Offset,
    Refinement,
    Refinements,
)
from dotstack.core.drawing.places import exchanged, replaced
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.refine import CornerShape
from dotstack.core.values import AnyId, Coordinate, Radius

Spots = Annotated[tuple[tuple[Coordinate, Coordinate], ...], Field(min_length=1, max_length=2000)]


class Refine(Command):
    """Refines shapes once more, after what refines them already; of groups all shapes in them."""

    kind: Literal["refine"] = "refine"
    ids: Ids
    refinement: Refinement

    @property
    def label(self) -> str:
        return word_of(self.refinement)

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        def more(known: Refinements) -> Refinements:
            return (*known, self.refinement)

        return exchanged(drawing, set(self.ids), lambda node: (_refined(node, more, evaluator),))


class SetRefinements(Command):
    """Gives a shape other refinements: changed, removed, switched off or in another order."""

    kind: Literal["set-refinements"] = "set-refinements"
    id: AnyId
    refinements: Refinements

    @property
    def label(self) -> str:
        return word_of(self.refinements[0]) if len(self.refinements) == 1 else "Refinements"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        def others(known: Refinements) -> Refinements:
            # What stays keeps its identity, by which results are remembered.
            same = {each: each for each in known}
            return tuple(same.get(each, each) for each in self.refinements)

        return replaced(drawing, self.id, lambda node: _refined(node, others, evaluator))


class SetCorners(Command):
    """Gives corners of a shape a size and shape of their own, by points in its own axes.

    They are those of the outline as the last refinement of corners gets it, which is added if
    there is none.
    """

    kind: Literal["set-corners"] = "set-corners"
    id: AnyId
    corners: Spots
    size: Radius
    shape: CornerShape = CornerShape.ROUND

    @property
    def label(self) -> str:
        return _CORNERS[self.shape]

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        def changed(node: Node) -> Node:
            place, corners = last_corners(node)
            own = {"size": self.size, "shape": self.shape}
            picked = list(corners.picked)
            for known, pick in corners_at(node, self.corners, evaluator):
                if known is None:
                    picked.append(pick.model_copy(update=own))
                else:
                    picked[known] = picked[known].model_copy(update=own)
            mine = Corners(**{**dict(corners), "picked": tuple(picked)})
            return _refined(
                node, lambda known: (*known[:place], mine, *known[place + 1 :]), evaluator
            )

        return replaced(drawing, self.id, changed)


def _refined(
    node: Node, change: Callable[[Refinements], Refinements], evaluator: Evaluator
) -> Node:
    """The node with other refinements; raises CommandError if nothing would be left of it."""
    if isinstance(node, PieceNode):
        raise CommandError(
            f"{node.name} is a piece of what is live; refine the whole, or settle it first."
        )
    if isinstance(node, UnderlayNode):
        raise CommandError(f"{node.name} is a picture; it has no outline to refine.")
    made = node.refined(change)
    if len(made.refinements) > MAX_REFINEMENTS:
        raise LimitError("refinements of one shape", len(made.refinements), MAX_REFINEMENTS)
    for before, after in zip(walk(node), walk(made), strict=True):
        if after.refinements is not before.refinements and any(
            note.empty for note in evaluator.notes(after)
        ):
            raise CommandError(
                f"That would leave nothing of {after.name}; a smaller size or distance may. "
                "Nothing was changed."
            )
    return made


_CORNERS = {
    CornerShape.ROUND: "Round corners",
    CornerShape.STRAIGHT: "Cut corners off",
    CornerShape.HOLLOW: "Hollow corners",
}


def word_of(refinement: Refinement) -> str:
    """What a refinement does, as a step's name."""
    match refinement:
        case Corners():
            return _CORNERS[refinement.shape]
        case Offset():
            return "Grow" if refinement.distance >= 0 else "Shrink"
        case Band():
            return "Band"
        case LineArea():
            return "Line as area"
        case _:
            assert_never(refinement)
