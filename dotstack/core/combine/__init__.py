"""What comes of combining shapes: which regions does each choice keep?"""

from dotstack.core.combine.booleans import combined, difference, exclusion, intersection, union
from dotstack.core.combine.outcomes import Outcome, OutcomeResult, members, outcomes, pieces
from dotstack.core.combine.roles import Role, covered

__all__ = [
    "Outcome",
    "OutcomeResult",
    "Role",
    "combined",
    "covered",
    "difference",
    "exclusion",
    "intersection",
    "members",
    "outcomes",
    "pieces",
    "union",
]
