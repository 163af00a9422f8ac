"""Outcomes: every way to combine a selection, from one arrangement."""

from collections.abc import Hashable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from typing import Literal, TypeAlias

import numpy as np

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import chain, parts
from dotstack.core.combine.parts import Part
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


def outcomes(
    operands: Sequence[Outline] | Arrangement,
    paints: Sequence[Hashable] | None = None,
    which: Sequence[Outcome] = tuple(Outcome),
    painted: int | None = None,
) -> Iterator[OutcomeResult]:
    """The outcomes of the operands, given in stack order, or of their arrangement.

    ``paints`` are what *visible by colour* compares; without them all are different.
    ``painted`` names the operand whose paint a result of one part takes, as the topmost or
    the one picked first; without it, it is the one that the others act on. The arrangement
    is made once, before the first result. Raises ArrangementError.
    """
    arrangement = operands if isinstance(operands, Arrangement) else Arrangement.of(operands)
    paints = range(len(arrangement.operands)) if paints is None else paints
    return (_result(outcome, arrangement, paints, painted) for outcome in which)


def pieces(outline: Outline) -> int:
    """How many parts a combined outline has: its contours that run positive."""
    if outline.is_empty:
        return 0
    swept = measure.swept_areas(outline.segments)
    areas = np.add.reduceat(swept, outline.offsets[:-1])
    return int((areas[outline.closed] > 0).sum())


def _result(
    outcome: Outcome, arrangement: Arrangement, paints: Sequence[Hashable], painted: int | None
) -> OutcomeResult:
    operands = arrangement.operands
    if not operands:
        return OutcomeResult(outcome, 0, ())
    idle = tuple(i for i, operand in enumerate(operands) if not operand.closed.any())
    if outcome in LIVE:
        return _live(outcome, arrangement, idle, painted)
    first = painted or 0
    if outcome is Outcome.SPLIT:
        found, idle = parts.split(arrangement), ()
    elif outcome is Outcome.WINDOW:
        found, idle = parts.window(arrangement), ()
    elif outcome is Outcome.SLICE:
        found, idle = parts.slice_(arrangement), ()
    elif outcome is Outcome.VISIBLE:
        found = parts.visible(arrangement)
    elif outcome is Outcome.VISIBLE_BY_COLOUR:
        found = parts.visible_by_colour(arrangement, paints)
    elif outcome is Outcome.SEAMS:
        found, idle = parts.seams(arrangement), ()
    else:
        found, idle = [Part(bundle(operands, "evenodd"), first)], ()
    has_lines = any(part.is_line for part in found)
    return OutcomeResult(outcome, first, tuple(found), idle, has_lines)


def _live(
    outcome: LiveOutcome, arrangement: Arrangement, idle: tuple[int, ...], painted: int | None
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
        lines = chain.chained([open_part(operand) for operand in arrangement.operands])
        found += [Part(line, paint) for line in lines]
        idle = ()
    elif outcome is not Outcome.ALTERNATE and first in idle and len(acting) > 1:
        others = covers[:, [place for place, _ in acting[1:]]]
        kept: Bools = np.all(others, axis=1)
        if outcome is not Outcome.OVERLAP:
            kept = ~np.any(others, axis=1)
        for line in idle:
            found += parts.lines_within(arrangement, line, kept)
        idle = ()
    return OutcomeResult(outcome, paint, tuple(found), idle, len(found) > len(areas))
