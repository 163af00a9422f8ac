"""What outlines depend on beside their shapes: what evaluation asks for by name."""

from collections.abc import Callable
from dataclasses import dataclass

from dotstack.core.letters import Font


def _no_font(digest: str) -> Font | None:
    return None


@dataclass(frozen=True, slots=True)
class Surroundings:
    """Where an evaluator finds what no drawing holds.

    Whatever an evaluator remembers was made in its surroundings: where these change, as when a
    font comes in that was missing, a new evaluator takes its place.

    Attributes:
        font: the font with a digest, or None where it is missing.

    """

    font: Callable[[str], Font | None] = _no_font


NOWHERE = Surroundings()
