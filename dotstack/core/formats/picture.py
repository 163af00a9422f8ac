"""What writers are given: painted paths in a box. They know no document."""

import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from dotstack.core.geometry import FillRule


@dataclass(frozen=True, slots=True)
class Stop:
    """A colour of a gradient, at a part of its way from 0 to 1."""

    at: float
    colour: str
    opacity: float = 1.0


@dataclass(frozen=True, slots=True)
class Shading:
    """A gradient where it is painted.

    Attributes:
        shape: a linear one runs from 0 to 1 along the first of its own axes, a radial one
            from their origin out to 1.
        stops: two or more, in order.
        matrix: a to f of the map from its own axes to the path's.

    """

    shape: Literal["linear", "radial"]
    stops: tuple[Stop, ...]
    matrix: tuple[float, float, float, float, float, float]


@dataclass(frozen=True, slots=True)
class PaintedPath:
    """A path with its paint: None for no fill, no stroke.

    ``clip`` is the path data of what it shows within. With a ``shading`` the fill is its
    mean colour, for formats that know no gradients.
    """

    path: str
    fill: str | None
    fill_rule: FillRule = "nonzero"
    stroke: str | None = None
    stroke_width: float | None = None
    opacity: float = 1.0
    clip: str | None = None
    shading: Shading | None = None


@dataclass(frozen=True, slots=True)
class Part:
    """The painted paths of one shape, the lowest first."""

    name: str
    paths: tuple[PaintedPath, ...]


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
    def paths(self) -> Iterator[PaintedPath]:
        """All painted paths, the lowest first."""
        for part in self.parts:
            yield from part.paths


def mean_colour(colours: Sequence[str]) -> str:
    """The mean of colours, all as six hex digits."""
    channels = (
        round(sum(int(colour[i : i + 2], 16) for colour in colours) / len(colours))
        for i in (1, 3, 5)
    )
    return "#" + "".join(f"{part:02X}" for part in channels)


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
