"""The four boolean operations, each a predicate on the covers of one arrangement."""

from collections.abc import Sequence

from dotstack.core.arrangement import Arrangement
from dotstack.core.combine.roles import Role, covered
from dotstack.core.geometry import Outline


def union(operands: Sequence[Outline]) -> Outline:
    """What lies in any of the operands; of one operand alone, its filled area."""
    return combined(operands, [Role.ADDS] * len(operands))


def intersection(operands: Sequence[Outline]) -> Outline:
    """What lies in all of the operands; nothing if there are none."""
    return combined(operands, [Role.ADDS, *[Role.LIMITS] * (len(operands) - 1)])


def exclusion(operands: Sequence[Outline]) -> Outline:
    """What lies in an odd number of the operands."""
    return combined(operands, [Role.ALTERNATES] * len(operands))


def difference(outline: Outline, cutters: Sequence[Outline]) -> Outline:
    """What lies in ``outline`` and in none of the cutters."""
    return combined([outline, *cutters], [Role.ADDS, *[Role.CUTS] * len(cutters)])


def combined(operands: Sequence[Outline], roles: Sequence[Role]) -> Outline:
    """What is left when the operands act by their roles, bottom to top."""
    arrangement = Arrangement.of(operands)
    return arrangement.outline(covered(arrangement.covers, roles[: len(operands)]))
