"""Contours and outlines: what a shape's edge is."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate
from typing import Literal, Self

import numpy as np

from dotstack.core.errors import GeometryError
from dotstack.core.geometry import (
    arc_length,
    locate,
    measure,
    path_writer,
    pathdata,
    quick_writer,
    rounds,
)
from dotstack.core.geometry.affine import Affine
from dotstack.core.geometry.arrays import Bools, Ints, Points
from dotstack.core.geometry.segments import Segments

FillRule = Literal["nonzero", "evenodd"]

_ABSURD = 1e12
# What an outline takes by itself, and a segment in its columns, its contours and its identity.
_LEAST_BYTES, _BYTES = 2000, 270


@dataclass(frozen=True, eq=False)
class Contour:
    """Segments that each start where the one before ends; closed ones end at their start."""

    segments: Segments
    closed: bool

    @property
    def node_count(self) -> int:
        """How many nodes a person sees on it."""
        return len(self.segments) + (not self.closed)

    @classmethod
    def ring(cls, segments: Segments) -> Self:
        """The closed contour of segments, each of which is made to end where the next starts."""
        start = segments.start
        return cls(segments.with_ends(start, np.concatenate([start[1:], start[:1]])), closed=True)

    @property
    def backwards(self) -> "Contour":
        """The same run the other way."""
        return Contour(self.segments.backwards, self.closed)


@dataclass(frozen=True, eq=False)
class Outline:
    """Contours with the rule that says what lies inside them; an immutable value.

    ``==`` is exact: the same numbers in the same order. An outline without contours is
    a value like any other: it has no area and nothing lies in it.

    Attributes:
        segments: those of all contours, one contour after the other.
        offsets: shape (contours + 1,); contour i has segments offsets[i] to offsets[i + 1].
        closed: shape (contours,). Open contours bound nothing.
        fill_rule: as in SVG.

    """

    segments: Segments
    offsets: Ints
    closed: Bools
    fill_rule: FillRule = "nonzero"

    def __post_init__(self) -> None:
        if not measure.are_within(self.segments, _ABSURD):
            # Of what is no number NumPy says so; Python's own would pass it over.
            largest = np.max([np.abs(column).max() for column in self.segments.columns])
            raise GeometryError(
                f"An outline needs finite numbers up to {_ABSURD:g} (got {largest:g})."
            )

    @classmethod
    def empty(cls, fill_rule: FillRule = "nonzero") -> Self:
        """The outline of nothing."""
        return cls(Segments.empty(), np.zeros(1, np.intp), np.empty(0, np.bool_), fill_rule)

    @classmethod
    def from_contours(cls, contours: Iterable[Contour], fill_rule: FillRule = "nonzero") -> Self:
        """The outline of these contours, in this order."""
        contours = list(contours)
        counts = (len(contour.segments) for contour in contours)
        return cls(
            Segments.concatenate(contour.segments for contour in contours),
            np.array(list(accumulate(counts, initial=0)), np.intp),
            np.array([contour.closed for contour in contours], np.bool_),
            fill_rule,
        )

    @classmethod
    def of_line(cls, segments: Segments) -> Self:
        """The outline of one open contour."""
        return cls.from_contours([Contour(segments, closed=False)])

    @classmethod
    def from_path_data(cls, data: str, fill_rule: FillRule = "nonzero") -> Self:
        """Reads SVG path data: every command, absolute and relative.

        Quadratics become the same curve as cubics. A contour without ``Z`` stays open,
        also where a renderer would fill it. Raises PathDataError with the character.

        >>> Outline.from_path_data("M0 0H2V2H0Z").area
        4.0
        >>> Outline.from_path_data("").area
        0.0
        """
        return cls.from_contours(
            (Contour(segments, closed) for segments, closed in pathdata.read(data)), fill_rule
        )

    def to_path_data(self, precision: int = 6) -> str:
        """SVG path data, with arcs as ``A``, rounded to ``precision`` decimals."""
        return path_writer.write(self.segments, self.offsets, self.closed, precision)

    def to_quick_data(self, precision: int) -> str:
        """SVG path data that is only drawn: as ``to_path_data``, longer and sooner there."""
        return quick_writer.write_quickly(self.segments, self.offsets, self.closed, precision)

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, Outline):
            return NotImplemented
        return self._identity == other._identity

    def __hash__(self) -> int:
        return hash(self._identity)

    @cached_property
    def _identity(self) -> tuple[object, ...]:
        arrays = (*self.segments.columns, self.offsets, self.closed)
        return (self.fill_rule, *(array.tobytes() for array in arrays))

    @cached_property
    def as_lines(self) -> "Outline":
        """Its contours as lines: each ends where it starts, and bounds nothing."""
        return Outline(self.segments, self.offsets, np.zeros_like(self.closed), self.fill_rule)

    @property
    def backwards(self) -> "Outline":
        """The same with each contour run the other way."""
        return Outline.from_contours((each.backwards for each in self.contours), self.fill_rule)

    def with_ends_joined(self) -> "Outline":
        """The same with all contours closed, by a straight side where the ends lie apart."""

        def joined(contour: Contour) -> Contour:
            rows = contour.segments
            start, end = rows.start[:1], rows.end[-1:]
            if contour.closed or start[0] == end[0]:
                return Contour(rows, closed=True)
            return Contour(Segments.concatenate([rows, Segments.lines(end, start)]), closed=True)

        return Outline.from_contours(map(joined, self.contours), self.fill_rule)

    @cached_property
    def contours(self) -> tuple[Contour, ...]:
        """The contours, in order."""
        return tuple(
            Contour(self.segments.take(slice(first, last)), bool(closed))
            for first, last, closed in zip(self.offsets, self.offsets[1:], self.closed)
        )

    @property
    def is_empty(self) -> bool:
        """Whether it has no contour at all."""
        return len(self.closed) == 0

    @property
    def node_count(self) -> int:
        """How many nodes a person sees: one a segment, and the far end of each open contour."""
        return len(self.segments) + int((~self.closed).sum())

    @property
    def weight(self) -> int:
        """About how many bytes it takes, with what is found out about it."""
        return _LEAST_BYTES + _BYTES * len(self.segments)

    @cached_property
    def area(self) -> float:
        """What its closed contours enclose, each counted by its direction.

        Positive if they run from +x towards +y. Contours that cross or repeat count as
        often as they go round; combine's ``union`` of this alone gives the area filled.
        """
        if not len(self.segments):
            return 0.0
        swept = measure.swept_areas(self.segments, self._middle)
        return float(swept[np.repeat(self.closed, np.diff(self.offsets))].sum())

    def nearest(self, x: float, y: float) -> tuple[float, tuple[float, float]]:
        """The distance from a point to the outline itself, and its nearest point there.

        Raises GeometryError for an empty outline. To 1e-12, see ``locate.nearest_of_all``.
        """
        if not len(self.segments):
            raise GeometryError("An empty outline has no nearest point.")
        segment, t, distance = locate.nearest_of_all(self.segments, complex(x, y))
        spot = complex(self.segments.at(np.array([segment]), np.array([t]))[0])
        return distance, (spot.real, spot.imag)

    @cached_property
    def length(self) -> float:
        """The length of all contours together."""
        return float(arc_length.lengths(self.segments).sum())

    @cached_property
    def bounds(self) -> tuple[float, float, float, float]:
        """Tight bounds x0, y0, x1, y1; those of an empty outline are four zeros."""
        if not len(self.segments):
            return (0.0, 0.0, 0.0, 0.0)
        x0, y0, x1, y1 = measure.boxes(self.segments)
        return (float(x0.min()), float(y0.min()), float(x1.max()), float(y1.max()))

    def transformed(self, by: Affine) -> "Outline":
        """The image under an affine map: lines, arcs and cubics stay what they are."""
        return Outline(self.segments.transformed(by), self.offsets, self.closed, self.fill_rule)

    def contains(self, x: float, y: float) -> bool:
        """Whether the point lies inside by the fill rule; on the edge either may come out."""
        return bool(self.contains_each(np.array([complex(x, y)]))[0])

    def contains_each(self, points: Points) -> Bools:
        """Shape of ``points``, (n,): which of them lie inside; see ``contains``."""
        closed = np.repeat(self.closed, np.diff(self.offsets))
        winding = rounds.windings(self.segments.take(closed), points)
        inside: Bools = winding != 0 if self.fill_rule == "nonzero" else winding % 2 == 1
        return inside

    @property
    def _middle(self) -> complex:
        return complex(self.segments.start.mean())


def bundle(outlines: Sequence[Outline], fill_rule: FillRule = "nonzero") -> Outline:
    """One outline with all contours of several, nothing computed."""
    if len(outlines) == 1 and outlines[0].fill_rule == fill_rule:
        return outlines[0]
    ends = accumulate((len(outline.segments) for outline in outlines), initial=0)
    offsets = [outline.offsets[1:] + begin for outline, begin in zip(outlines, ends)]
    return Outline(
        Segments.concatenate(outline.segments for outline in outlines),
        np.concatenate([np.zeros(1, np.intp), *offsets]),
        np.concatenate([np.empty(0, np.bool_), *(outline.closed for outline in outlines)]),
        fill_rule,
    )


def closed_part(outline: Outline) -> Outline:
    """The closed contours alone."""
    return _chosen(outline, outline.closed)


def open_part(outline: Outline) -> Outline:
    """The open contours alone."""
    return _chosen(outline, ~outline.closed)


def _chosen(outline: Outline, chosen: Bools) -> Outline:
    if chosen.all():
        return outline
    contours = (each for each, wanted in zip(outline.contours, chosen, strict=True) if wanted)
    return Outline.from_contours(contours, outline.fill_rule)


def unbundle(outline: Outline) -> list[Outline]:
    """Each contour by itself, in order."""
    return [Outline.from_contours([contour], outline.fill_rule) for contour in outline.contours]
