"""Commands that take an outcome of several shapes."""

from collections.abc import Sequence
from typing import Annotated, Literal, TypeAlias

from pydantic import Field

from dotstack.core.combine import (
    LiveOutcome,
    Outcome,
    PartedOutcome,
    Role,
    acting,
    members,
    outcomes,
)
from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids, Seed
from dotstack.core.drawing.copies import with_hidden_copies
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.inked import inked
from dotstack.core.drawing.kinds import (
    CompoundNode,
    GroupNode,
    Member,
    Node,
    PartsNode,
    paint_of,
    paints_of,
)
from dotstack.core.drawing.kinds.picking import picked_part
from dotstack.core.drawing.looks import look_of
from dotstack.core.drawing.naming import numbered
from dotstack.core.drawing.paths import path_of
from dotstack.core.drawing.sound import check_depth, check_pieces
from dotstack.core.drawing.stacks import active_in_order, gathered_into
from dotstack.core.errors import CommandError
from dotstack.core.values import Name

_LABELS = {
    Outcome.JOIN: "Join",
    Outcome.CUT: "Cut",
    Outcome.CUT_OTHER_WAY: "Cut the other way",
    Outcome.OVERLAP: "Overlap",
    Outcome.ALTERNATE: "Alternate",
    Outcome.SPLIT: "Split",
    Outcome.GAP: "Gap",
    Outcome.WINDOW: "Window",
    Outcome.SLICE: "Slice",
    Outcome.VISIBLE: "Visible",
    Outcome.VISIBLE_BY_COLOUR: "Visible by colour",
    Outcome.SEAMS: "Seams",
    Outcome.BUNDLE: "Bundle",
}

PaintChoice = Literal["lowest", "topmost", "first"]
# Those that stay live as one outline.
OneOutline: TypeAlias = LiveOutcome | Literal[Outcome.BUNDLE]


class _Combining(Command):
    """What all ways to take an outcome have.

    Attributes:
        paint: whose paint a result of one part takes: that of the lowest shape, the topmost,
            or the one named first; None for the one that the others act on.
        keep: whether hidden copies of the shapes stay beneath, under ids made from ``id``.
        lines_as_areas: whether lines count as what they ink.

    """

    ids: Annotated[Ids, Field(min_length=2)]
    id: Seed
    name: Name
    paint: PaintChoice | None = None
    keep: bool = False
    lines_as_areas: bool = False

    def _counted(self, drawing: Drawing, chosen: list[Node]) -> list[Node]:
        """The shapes as they count."""
        return inked(drawing, chosen) if self.lines_as_areas else chosen

    def _painted(self, chosen: list[Node]) -> int | None:
        return painted_place(self.paint, [node.id for node in chosen], self.ids)

    def _nothing_left(self, chosen: list[Node]) -> CommandError:
        return CommandError(
            f"{self.label} of these {len(chosen)} shapes leaves nothing; they stay as they are."
        )

    def _taken(self, drawing: Drawing, chosen: list[Node], whole: Node) -> Drawing:
        return taken(drawing, chosen, whole, self.id if self.keep else None)


class Combine(_Combining):
    """Makes shapes of one stack a live compound, or live parts that the topmost cuts.

    An outcome that leaves nothing is refused.
    """

    kind: Literal["combine"] = "combine"
    outcome: OneOutline | PartedOutcome

    @property
    def label(self) -> str:
        return _LABELS[self.outcome]

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        chosen = active_in_order(drawing, self.ids)
        whole = self._whole(self._counted(drawing, chosen), evaluator)
        check_depth((whole,))
        if evaluator.own_outline(whole).is_empty:
            raise self._nothing_left(chosen)
        return self._taken(drawing, chosen, whole)

    def _whole(self, chosen: list[Node], evaluator: Evaluator) -> Node:
        common: dict[str, object] = {"id": self.id, "name": self.name}
        if self.outcome is not Outcome.GAP and self.outcome is not Outcome.SLICE:
            place = self._painted(chosen)
            if place is None:
                place = roles_in(self.outcome, len(chosen))[0][0]
            common["look"] = paint_of(chosen[place]).look
        return live(self.outcome, chosen, common, evaluator)


class TakeOutcome(_Combining):
    """Puts plain paths in the place of shapes: one, or a group of separate pieces.

    The group has the ``id``, and its pieces ids made from it, the lowest first. In *cut* and
    *overlap* shapes with a line and no fill count as what they enclose, unless ``as_lines``.
    """

    kind: Literal["take-outcome"] = "take-outcome"
    outcome: Outcome
    as_lines: bool = False

    @property
    def label(self) -> str:
        return _LABELS[self.outcome]

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        chosen = active_in_order(drawing, self.ids)
        counted = self._counted(drawing, chosen)
        outlines, paints = [evaluator.outline(node) for node in counted], paints_of(counted)
        acts = acting(self.outcome, outlines, paints, as_lines=self.as_lines)
        (result,) = outcomes(
            evaluator.arranged(acts),
            paints,
            (self.outcome,),
            self._painted(chosen),
            as_lines=self.as_lines,
        )
        if not result.parts:
            raise self._nothing_left(chosen)
        check_pieces(len(result.parts))
        single = len(result.parts) == 1
        nodes = tuple(
            path_of(
                part.outline,
                self.id if single else f"{self.id}-{i}",
                self.name if single else chosen[part.paint].name,
                look_of(part.outline, paint_of(counted[part.paint]).look, part.ink),
            )
            for i, part in enumerate(result.parts)
        )
        whole = nodes[0] if single else GroupNode(id=self.id, name=self.name, nodes=nodes)
        return self._taken(drawing, chosen, whole)


def roles_in(outcome: OneOutline, count: int) -> list[tuple[int, Role]]:
    """As ``members``; those of a bundle have the roles of what comes nearest to it."""
    return members(Outcome.ALTERNATE if outcome is Outcome.BUNDLE else outcome, count)


def live(
    outcome: OneOutline | PartedOutcome,
    shapes: Sequence[Node],
    common: dict[str, object],
    evaluator: Evaluator,
) -> CompoundNode | PartsNode:
    """What stays live of an outcome of shapes, the lowest first, with the fields in common."""
    if outcome is Outcome.GAP or outcome is Outcome.SLICE:
        *nodes, cutter = shapes
        parts = PartsNode(**common, outcome=outcome, cutter=cutter, nodes=tuple(nodes))
        return parts if outcome is Outcome.GAP else _with_picks(parts, evaluator)
    roles = tuple(Member(role=role, node=shapes[at]) for at, role in roles_in(outcome, len(shapes)))
    return CompoundNode(**common, members=roles, bundled=outcome is Outcome.BUNDLE)


def _with_picks(parts: PartsNode, evaluator: Evaluator) -> PartsNode:
    """A slice whose pieces are known again as its shapes move."""
    active = [child for child in parts.nodes if child.is_active]
    found = parts.parts(evaluator)
    check_pieces(len(found))
    edge = evaluator.outline(parts.cutter)
    picks = (picked_part(part.outline, active[part.paint], parts.cutter, edge) for part in found)
    return parts.model_copy(update={"picks": tuple(picks)})


def taken(
    drawing: Drawing, chosen: list[Node], whole: Node, kept_seed: str | None = None
) -> Drawing:
    """The drawing with a result in the place of the topmost of the shapes.

    With a ``kept_seed`` hidden copies of the shapes stay beneath, under ids made from it.
    """
    check_depth((whole,))
    done = gathered_into(drawing, chosen, whole)
    if kept_seed is None:
        return done
    return with_hidden_copies(done, whole.id, chosen, numbered(f"{kept_seed}-kept"))


def painted_place(
    choice: PaintChoice | None, order: list[str], named: tuple[str, ...]
) -> int | None:
    """The place in the stack of the shape whose paint is chosen."""
    if choice is None:
        return None
    if choice == "first":
        return next((order.index(key) for key in named if key in order), 0)
    return 0 if choice == "lowest" else len(order) - 1
