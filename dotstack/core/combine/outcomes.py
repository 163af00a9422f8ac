"""Outcomes: every way to combine a selection, from one arrangement."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine.roles import Role, covered
from dotstack.core.geometry import Outline


class Outcome(StrEnum):
    """One way to combine the selected shapes."""

    JOIN = "join"
    CUT = "cut"
    CUT_OTHER_WAY = "cut-other-way"
    OVERLAP = "overlap"
    ALTERNATE = "alternate"


@dataclass(frozen=True, eq=False, slots=True)
class OutcomeResult:
    """What an outcome leaves.

    Attributes:
        first: the operand whose paint the result takes.
        pieces: how many parts it has that do not touch; holes are no parts.

    """

    outcome: Outcome
    first: int
    outline: Outline
    pieces: int


def members(outcome: Outcome, count: int) -> list[tuple[int, Role]]:
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


def outcomes(operands: Sequence[Outline]) -> Iterator[OutcomeResult]:
    """Every outcome of the operands, given in stack order, most useful first.

    The arrangement is made once, before the first result. Raises ArrangementError.
    """
    arrangement = Arrangement.of(operands)
    for outcome in Outcome:
        order = members(outcome, len(operands))
        covers = arrangement.covers[:, [place for place, _ in order]]
        outline = arrangement.outline(covered(covers, [role for _, role in order]))
        yield OutcomeResult(outcome, order[0][0], outline, pieces(outline))


def pieces(outline: Outline) -> int:
    """How many parts a combined outline has: its contours that run positive."""
    return sum(Outline.from_contours([contour]).area > 0 for contour in outline.contours)
