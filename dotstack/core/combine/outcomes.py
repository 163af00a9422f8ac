"""Outcomes: every way to combine a selection, from one arrangement."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from typing import Literal, TypeAlias

import numpy as np

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import chain, parts
from dotstack.core.combine.parts import Ink, Paint, Part
from dotstack.core.combine.roles import Role, covered
from dotstack.core.geometry import Outline, bundle, measure, open_part
from dotstack.core.geometry.arrays import Bools


class Outcome(StrEnum):
    """One way to combine the selected shapes, most useful first."""

    JOIN = "join"
    CUT = "cut"
    CUT_OTHER_WAY = "cut-other-way"
    OVERLAP = "overlap"
    ALTERNATE = "alternate"
    SPLIT = "split"
    GAP = "gap"
    WINDOW = "window"
    SLICE = "slice"
    VISIBLE = "visible"
    VISIBLE_BY_COLOUR = "visible-by-colour"
    SEAMS = "seams"
    BUNDLE = "bundle"


LiveOutcome: TypeAlias = Literal[
    Outcome.JOIN, Outcome.CUT, Outcome.CUT_OTHER_WAY, Outcome.OVERLAP, Outcome.ALTERNATE
]
LIVE: tuple[LiveOutcome, ...] = (
    Outcome.JOIN,
    Outcome.CUT,
    Outcome.CUT_OTHER_WAY,
    Outcome.OVERLAP,
    Outcome.ALTERNATE,
)
# Of each shape under the topmost, parts of its own, live too.
PartedOutcome: TypeAlias = Literal[Outcome.GAP, Outcome.SLICE]
PARTED: tuple[PartedOutcome, ...] = (Outcome.GAP, Outcome.SLICE)

# What can be taken of lines where that is asked for: the shape that cuts, by its place.
_OF_LINES = {Outcome.CUT: -1, Outcome.OVERLAP: -1, Outcome.CUT_OTHER_WAY: 0}
_IN_PARTS: dict[Outcome, Callable[[Arrangement, Sequence[Paint]], list[Part]]] = {
    Outcome.SPLIT: lambda arrangement, _: parts.split(arrangement),
    Outcome.GAP: parts.gap,
    Outcome.WINDOW: parts.window,
    Outcome.SLICE: lambda arrangement, _: parts.slice_(arrangement),
    Outcome.VISIBLE: parts.visible,
    Outcome.VISIBLE_BY_COLOUR: parts.visible_by_colour,
    Outcome.SEAMS: parts.seams,
}


@dataclass(frozen=True, eq=False)
class OutcomeResult:
    """What an outcome leaves.

    Attributes:
        first: the operand whose paint a result of one part takes.
        parts: in stack order; none if nothing is left.
        idle: operands that take no part, as lines do in an outcome of areas.
        has_lines: whether lines have become part of it.

    """

    outcome: Outcome
    first: int
    parts: tuple[Part, ...]
    idle: tuple[int, ...] = ()
    has_lines: bool = False

    @cached_property
    def outline(self) -> Outline:
        """All parts together."""
        if len(self.parts) == 1:
            return self.parts[0].outline
        return bundle([part.outline for part in self.parts])

    @cached_property
    def pieces(self) -> int:
        """How many pieces do not hang together; holes are no pieces."""
        # A line that was closed may run either way round.
        return sum(1 if part.is_line else max(1, pieces(part.outline)) for part in self.parts)


def members(outcome: LiveOutcome, count: int) -> list[tuple[int, Role]]:
    """The operands, by their place in the stack, in the order and roles that make the outcome.

    Only *cut the other way* changes the order: the topmost comes to lie under those that
    cut it.
    """
    places = range(count)
    if outcome is Outcome.CUT_OTHER_WAY:
        return [(count - 1, Role.ADDS), *((place, Role.CUTS) for place in places[:-1])]
    above = {
        Outcome.JOIN: Role.ADDS,
        Outcome.CUT: Role.CUTS,
        Outcome.OVERLAP: Role.LIMITS,
        Outcome.ALTERNATE: Role.ALTERNATES,
    }[outcome]
    return [(place, above if place else Role.ADDS) for place in places]


def acting(
    outcome: Outcome,
    operands: Sequence[Outline],
    paints: Sequence[Paint],
    *,
    as_lines: bool = False,
) -> list[Outline]:
    """The operands as they act in an outcome: bare ones as areas, or as lines.

    As lines under the topmost, which cuts or crops as an area; in *cut* and *overlap* only
    if ``as_lines`` says so.
    """
    if outcome in (Outcome.GAP, Outcome.WINDOW, Outcome.SLICE):
        cutter = -1
    elif as_lines and outcome in _OF_LINES:
        cutter = _OF_LINES[outcome]
    else:
        return list(operands)
    found = [
        operand.as_lines if paint.is_bare else operand
        for operand, paint in zip(operands, paints, strict=True)
    ]
    if found:
        found[cutter] = operands[cutter]
    return found


def outcomes(
    operands: Sequence[Outline] | Arrangement,
    paints: Sequence[Paint] | None = None,
    which: Sequence[Outcome] = tuple(Outcome),
    painted: int | None = None,
    *,
    as_lines: bool = False,
) -> Iterator[OutcomeResult]:
    """The outcomes of the operands, given in stack order, or of their arrangement.

    The operands are taken as they are, see ``acting``; ``as_lines`` says how they were made
    to act. Without ``paints`` all have different fills, and none a line. ``painted`` names the
    operand whose paint a result of one part takes, as the topmost or the one picked first;
    without it, it is the one that the others act on. The arrangement is made once, before the
    first result. Raises ArrangementError.
    """
    arrangement = operands if isinstance(operands, Arrangement) else Arrangement.of(operands)
    if paints is None:
        paints = [Paint(operand) for operand in range(len(arrangement.operands))]
    return (_result(outcome, arrangement, paints, painted, as_lines) for outcome in which)


def pieces(outline: Outline) -> int:
    """How many parts a combined outline has: its contours that run positive."""
    if outline.is_empty:
        return 0
    swept = measure.swept_areas(outline.segments)
    areas = np.add.reduceat(swept, outline.offsets[:-1])
    return int((areas[outline.closed] > 0).sum())


def _result(
    outcome: Outcome,
    arrangement: Arrangement,
    paints: Sequence[Paint],
    painted: int | None,
    as_lines: bool,
) -> OutcomeResult:
    operands = arrangement.operands
    if not operands:
        return OutcomeResult(outcome, 0, ())
    without_area = tuple(i for i, operand in enumerate(operands) if not operand.closed.any())
    if outcome in LIVE:
        return _live(outcome, arrangement, without_area, painted, as_lines)
    first = painted or 0
    if outcome is Outcome.BUNDLE:
        return OutcomeResult(outcome, first, (Part(bundle(operands, "evenodd"), first),))
    idle: tuple[int, ...] = ()
    if outcome in (Outcome.VISIBLE, Outcome.VISIBLE_BY_COLOUR):
        unfilled = (i for i, paint in enumerate(paints) if paint.fill is None)
        idle = tuple(sorted({*without_area, *unfilled}))
    found = tuple(_IN_PARTS[outcome](arrangement, paints))
    return OutcomeResult(outcome, first, found, idle, any(part.is_line for part in found))


def _live(
    outcome: LiveOutcome,
    arrangement: Arrangement,
    idle: tuple[int, ...],
    painted: int | None,
    as_lines: bool,
) -> OutcomeResult:
    order = members(outcome, len(arrangement.operands))
    covers, first = arrangement.covers, order[0][0]
    paint = first if painted is None else painted
    # What has no area neither cuts nor limits.
    acting = [(place, role) for place, role in order if place == first or place not in idle]
    area = arrangement.outline(
        covered(covers[:, [place for place, _ in acting]], [role for _, role in acting])
    )
    areas = [] if area.is_empty else [Part(area, paint)]
    found = list(areas)
    if outcome is Outcome.JOIN:
        for joined in chain.chained([open_part(operand) for operand in arrangement.operands]):
            found.append(Part(joined, paint, Ink.FILLED if joined.closed.any() else Ink.ALL))
        idle = ()
    elif outcome is not Outcome.ALTERNATE and (as_lines or first in idle):
        limits = outcome is Outcome.OVERLAP and first not in idle
        others = [place for place, _ in acting if limits or place != first]
        if others:
            kept: Bools = np.all(covers[:, others], axis=1)
            if outcome is not Outcome.OVERLAP:
                kept = ~np.any(covers[:, others], axis=1)
            for line in idle:
                found += parts.lines_within(arrangement, line, kept)
            idle = ()
    return OutcomeResult(outcome, paint, tuple(found), idle, len(found) > len(areas))
