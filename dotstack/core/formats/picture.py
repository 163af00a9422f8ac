"""What writers are given: painted outlines in a box. They know no document."""

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from dotstack.core.geometry import Affine, Outline
from dotstack.core.paint import Gradient, Line


@dataclass(frozen=True, slots=True)
class Shading:
    """A gradient where it is painted: ``affine`` maps its own axes to the picture's."""

    gradient: Gradient
    affine: Affine


@dataclass(frozen=True, eq=False, slots=True)
class Painted:
    """An outline with its paint, in the picture's axes.

    Attributes:
        fill: None for no fill.
        clip: the outline that it shows within, or None.

    """

    outline: Outline
    fill: str | Shading | None
    line: Line | None = None
    opacity: float = 1.0
    clip: Outline | None = None

    @property
    def colour(self) -> str | None:
        """The fill as one colour, for formats that know no gradients."""
        return self.fill.gradient.mean if isinstance(self.fill, Shading) else self.fill

    @property
    def shading(self) -> Shading | None:
        """The fill, if it is a gradient."""
        return self.fill if isinstance(self.fill, Shading) else None


@dataclass(frozen=True, slots=True)
class Part:
    """What is painted of one shape, the lowest first."""

    name: str
    painted: tuple[Painted, ...]


@dataclass(frozen=True, slots=True)
class Picture:
    """Parts in a box, the lowest first.

    Attributes:
        name: of what is shown.
        box: x, y, width, height.
        ground: the colour behind all, or None.
        description: in words, for those who do not see it.

    """

    name: str
    box: tuple[float, float, float, float]
    parts: tuple[Part, ...]
    ground: str | None = None
    description: str = ""

    @property
    def painted(self) -> Iterator[Painted]:
        """All that is painted, the lowest first."""
        for part in self.parts:
            yield from part.painted


def slug(name: str) -> str:
    """The name as an identifier: small letters, digits and hyphens, a letter first."""
    word = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")
    return word if word[:1].isalpha() else f"mark-{word}".rstrip("-")


def unique(names: Iterable[str]) -> list[str]:
    """The names in order, those that were there before with a number behind."""
    taken: set[str] = set()
    found = []
    for name in names:
        fresh, number = name, 2
        while fresh.lower() in taken:
            fresh, number = f"{name}-{number}", number + 1
        taken.add(fresh.lower())
        found.append(fresh)
    return found
