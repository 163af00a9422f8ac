"""Words as shapes: letters where they stand on their course, and the outline of all."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from dotstack.core.combine import union
from dotstack.core.geometry import CUBIC, Affine, Outline, bundle
from dotstack.core.geometry.arrays import Points
from dotstack.core.letters.courses import Course
from dotstack.core.letters.drawn import Drawn, Glyphs
from dotstack.core.letters.font import Font
from dotstack.core.letters.setting import SetLetter, Setting, SetWords, set_words

Bounds = tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class StandingLetter:
    """A letter where it stands.

    Attributes:
        place: the letter in its line.
        affine: from axes in the font's units, the origin at the left end of its base and y
            down, to those of the words.
        drawn: its outline in the font's units.

    """

    place: SetLetter
    affine: Affine
    drawn: Outline

    @property
    def is_inked(self) -> bool:
        """Whether it shows anything: a space does not."""
        return not self.drawn.is_empty

    @property
    def outline(self) -> Outline:
        """Its outline in the axes of the words."""
        return self.drawn.transformed(self.affine)


def standing(
    words: SetWords, drawn: Drawn, unit: float, course: Course
) -> tuple[StandingLetter, ...]:
    """All letters where they stand; ``unit`` is the size of a unit of the font."""
    found = []
    for place in words.letters:
        base = course.at(unit * place.middle, unit * words.leading * place.line)
        half = place.letter.advance / 2
        affine = base @ Affine.scaling(unit, unit) @ Affine.translation(-half, 0)
        found.append(StandingLetter(place, affine, drawn.letter(place.letter.glyphs)))
    return tuple(found)


def outline_of(letters: Sequence[StandingLetter], drawn: Drawn) -> Outline:
    """The outline of all letters; those that touch each other are one."""
    inked = [letter for letter in letters if letter.is_inked]
    groups = {number: [number] for number in range(len(inked))}
    for one, two in _overlapping([_box(letter) for letter in inked]):
        if groups[one] is not groups[two] and drawn.touch(*_side_by_side(inked[one], inked[two])):
            groups[one] += groups[two]
            for number in groups[two]:
                groups[number] = groups[one]
    joined = [
        union([inked[each].outline for each in sorted(group)])
        for number, group in groups.items()
        if len(group) > 1 and number == min(group)
    ]
    alone = [inked[number] for number, group in groups.items() if len(group) == 1]
    return bundle([_all_at_once(alone), *joined])


def gap_between(one: StandingLetter, two: StandingLetter, drawn: Drawn) -> float:
    """The clear gap between two letters, in the font's units; 0 where they touch."""
    return drawn.gap(*_side_by_side(one, two))


def sample(font: Font) -> Outline:
    """A font's family, written in itself: capitals 1 high, its base at 0; to be looked at only."""
    instance = font.at({})
    setting = Setting(0.0, 0.0, 1.0, "start", {}, {})
    unit = 1 / instance.cap_height
    letters = set_words(instance, font.family, setting).letters
    return bundle(
        [
            instance.drawn.as_it_comes(glyph.id).transformed(
                Affine.scaling(unit, unit) @ Affine.translation(each.x + glyph.x, glyph.y)
            )
            for each in letters
            for glyph in each.letter.glyphs
        ]
    )


def _all_at_once(letters: Sequence[StandingLetter]) -> Outline:
    """The outlines of letters that do not touch: mapped together, for there may be thousands."""
    if not letters:
        return Outline.empty()
    whole = bundle([letter.drawn for letter in letters])
    counts = [len(letter.drawn.segments) for letter in letters]
    maps = [(m.a, m.b, m.c, m.d, m.e, m.f) for m in (letter.affine for letter in letters)]
    a, b, c, d, e, f = np.repeat(np.array(maps), counts, axis=0).T
    rows = whole.segments

    def there(points: Points) -> Points:
        x, y = points.real, points.imag
        mapped: Points = a * x + c * y + e + 1j * (b * x + d * y + f)
        return mapped

    curved = rows.kind == CUBIC
    mapped = replace(
        rows,
        start=there(rows.start),
        end=there(rows.end),
        p=np.where(curved, there(rows.p), 0),
        q=np.where(curved, there(rows.q), 0),
    )
    return replace(whole, segments=mapped)


def _side_by_side(one: StandingLetter, two: StandingLetter) -> tuple[Glyphs, Glyphs, Affine]:
    """Two letters, and how the second stands to the first."""
    there = one.affine.inverse @ two.affine
    return one.place.letter.glyphs, two.place.letter.glyphs, there


def _box(letter: StandingLetter) -> Bounds:
    """A box that holds a letter, from that of the letter before it was turned."""
    x0, y0, x1, y1 = letter.drawn.bounds
    corners = [letter.affine.apply_to(x, y) for x in (x0, x1) for y in (y0, y1)]
    across, down = zip(*corners)
    return min(across), min(down), max(across), max(down)


def _overlapping(boxes: Sequence[Bounds]) -> Iterator[tuple[int, int]]:
    """The pairs of boxes that overlap, by a sweep along x."""
    open_: list[int] = []
    for number in sorted(range(len(boxes)), key=lambda number: boxes[number][0]):
        x0, y0, _, y1 = boxes[number]
        open_ = [other for other in open_ if boxes[other][2] >= x0]
        for other in open_:
            if boxes[other][1] <= y1 and boxes[other][3] >= y0:
                yield other, number
        open_.append(number)
