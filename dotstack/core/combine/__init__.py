"""What comes of several outlines together: which regions does each choice keep?"""

from dotstack.core.combine.booleans import combined, difference, exclusion, intersection, union
from dotstack.core.combine.chain import chained
from dotstack.core.combine.outcomes import (
    LIVE,
    PARTED,
    LiveOutcome,
    Outcome,
    OutcomeResult,
    PartedOutcome,
    acting,
    members,
    outcomes,
    pieces,
)
from dotstack.core.combine.parts import Ink, Paint, Part, line_within
from dotstack.core.combine.region_build import Build, Pick, Picked, Piece, build, regions_found
from dotstack.core.combine.roles import Role, covered

__all__ = [
    "LIVE",
    "PARTED",
    "Build",
    "Ink",
    "LiveOutcome",
    "Outcome",
    "OutcomeResult",
    "Paint",
    "Part",
    "PartedOutcome",
    "Pick",
    "Picked",
    "Piece",
    "Role",
    "acting",
    "build",
    "chained",
    "combined",
    "covered",
    "difference",
    "exclusion",
    "intersection",
    "line_within",
    "members",
    "outcomes",
    "pieces",
    "regions_found",
    "union",
]
