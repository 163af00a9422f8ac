"""What writers are given: painted outlines in a box. They know no document."""

import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import TypeAlias

from dotstack.core.geometry import Affine, Outline
from dotstack.core.paint import Blend, Gradient, Shadow, Stroke


@dataclass(frozen=True, slots=True)
class Shading:
    """A gradient where it is painted: ``affine`` maps its own axes to the picture's."""

    gradient: Gradient
    affine: Affine


Ink: TypeAlias = str | Shading
# x0, y0, x1, y1.
Box: TypeAlias = tuple[float, float, float, float]


def ink_colour(ink: Ink) -> str:
    """A colour, or the mean of a gradient's, for formats that know no gradients."""
    return ink.gradient.mean if isinstance(ink, Shading) else ink


@dataclass(frozen=True, slots=True)
class Pen:
    """A line centred on an outline, which any format can draw: its ``stroke`` is plain."""

    ink: Ink
    stroke: Stroke

    @property
    def colour(self) -> str:
        """Its ink as one colour."""
        return ink_colour(self.ink)


@dataclass(frozen=True, eq=False, slots=True)
class Painted:
    """An outline with its paint, in the picture's axes.

    Attributes:
        fill: None for no fill.
        opacity, blend: of fill and line together, on what lies beneath.
        clip: the outline that it shows within, or None.

    """

    outline: Outline
    fill: Ink | None
    line: Pen | None = None
    opacity: float = 1.0
    clip: Outline | None = None
    blend: Blend = "normal"

    @property
    def colour(self) -> str | None:
        """The fill as one colour."""
        return None if self.fill is None else ink_colour(self.fill)

    @property
    def inks(self) -> tuple[Ink, ...]:
        """What it is painted with."""
        line = (self.line.ink,) if self.line else ()
        return (self.fill, *line) if self.fill else line


@dataclass(frozen=True, eq=False, slots=True)
class Layer:
    """What is painted by itself, the lowest first, and then laid on what lies beneath as one.

    Attributes:
        shadows: that it casts, the first one topmost; each is on.
        clip: the outline that all of it shows within, its shadows too, or None.

    """

    items: "tuple[Item, ...]"
    opacity: float = 1.0
    blend: Blend = "normal"
    shadows: tuple[Shadow, ...] = ()
    clip: Outline | None = None


Item: TypeAlias = Painted | Layer


def all_painted(items: Iterable[Item]) -> Iterator[Painted]:
    """All that is painted in items, the lowest first, whatever is done with it together."""
    for item in items:
        if isinstance(item, Painted):
            yield item
        else:
            yield from all_painted(item.items)


def extent(item: Item, tips: bool = False) -> Box:
    """The box that all of an item lies in, shadows too: x0, y0, x1, y1.

    Only with ``tips`` it holds the points of all sharp joins and what casts inner shadows too,
    and may be far larger then.
    """
    box = _extent(item, tips)
    if not item.clip:
        return box
    window = item.clip.bounds
    x0, y0 = (max(one, two) for one, two in zip(box[:2], window[:2], strict=True))
    x1, y1 = (min(one, two) for one, two in zip(box[2:], window[2:], strict=True))
    return x0, y0, max(x0, x1), max(y0, y1)


def _extent(item: Item, tips: bool) -> Box:
    """The same, were it not clipped."""
    if isinstance(item, Painted):
        x0, y0, x1, y1 = item.outline.bounds
        grow = 0.0
        if item.line:
            stroke = item.line.stroke
            grow = stroke.width / 2 * (max(stroke.limit, 1.5) if tips else 1.0)
        return x0 - grow, y0 - grow, x1 + grow, y1 + grow
    box = _round([extent(inner, tips) for inner in item.items])
    # A shadow that falls in is seen inside, but what casts it lies around.
    cast = [shadow for shadow in item.shadows if tips or not shadow.inside]
    return _round([box, *(_cast(box, shadow) for shadow in cast)])


def _cast(box: Box, shadow: Shadow) -> Box:
    """Where the shadow of what lies in a box is seen: to three standard deviations."""
    x0, y0, x1, y1 = box
    soft = 1.5 * shadow.blur
    return (
        x0 + shadow.dx - soft,
        y0 + shadow.dy - soft,
        x1 + shadow.dx + soft,
        y1 + shadow.dy + soft,
    )


def _round(boxes: Sequence[Box]) -> Box:
    return (
        min(box[0] for box in boxes),
        min(box[1] for box in boxes),
        max(box[2] for box in boxes),
        max(box[3] for box in boxes),
    )


def changed(items: Iterable[Item], change: Callable[[Painted], Iterable[Item]]) -> tuple[Item, ...]:
    """Items with all that is painted in them replaced; layers of nothing go."""
    found: list[Item] = []
    for item in items:
        if isinstance(item, Painted):
            found += change(item)
        elif inner := changed(item.items, change):
            found.append(replace(item, items=inner))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Part:
    """What is painted of one shape, the lowest first."""

    name: str
    items: tuple[Item, ...]


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
            yield from all_painted(part.items)


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
