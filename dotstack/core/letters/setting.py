"""Words set in lines: which letter stands where along its line, before the line is bent."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from dotstack.core.letters.font import Instance
from dotstack.core.letters.letter import Letter
from dotstack.core.letters.shaping import shaped

Alignment = Literal["start", "middle", "end"]
Measure = Literal["body", "cap-height", "x-height"]

# Lengths of spacing are thousandths of the body size.
_THOUSANDTH = 1e-3
_SPACES = {" ", "\u00a0"}
# How much of a line lies before the place that it is set from.
BEFORE: Mapping[Alignment, float] = {"start": 0.0, "middle": 0.5, "end": 1.0}
# Optional ligatures, which would look tight among letters set wider or closer.
_LIGATURES = ("liga", "clig")


@dataclass(frozen=True, slots=True)
class Setting:
    """How words are set.

    Attributes:
        tracking, word_space: added to each letter and to each space, in thousandths of the
            body size.
        leading: from line to line, in body sizes.
        features: OpenType features by their tags, on (1), off (0) or which alternate.
        pairs: added before single characters, by their places in the words, in thousandths.

    """

    tracking: float
    word_space: float
    leading: float
    alignment: Alignment
    features: Mapping[str, int]
    pairs: Mapping[int, float]


@dataclass(frozen=True, slots=True)
class SetLetter:
    """A letter in its line.

    Attributes:
        letter: it; ``start`` and ``end`` are places in all the words.
        x: from where its line is set from to its left edge, in units.
        line: which one, from 0.

    """

    letter: Letter
    start: int
    end: int
    x: float
    line: int

    @property
    def middle(self) -> float:
        """Where the middle of its base is along the line."""
        return self.x + self.letter.advance / 2


@dataclass(frozen=True, slots=True)
class SetWords:
    """Words in lines.

    Attributes:
        letters: all, line by line, each from left to right.
        starts: of each line: its first character.
        edges: of each line: where it begins and ends.
        leading: from line to line, in units.

    """

    instance: Instance
    letters: tuple[SetLetter, ...]
    starts: tuple[int, ...]
    edges: tuple[tuple[float, float], ...]
    leading: float


def unit_size(instance: Instance, size: float, measure: Measure) -> float:
    """How large a unit of the font is where its body, capitals or small letters have a size."""
    heights = {
        "body": float(instance.units),
        "cap-height": instance.cap_height,
        "x-height": instance.x_height,
    }
    return size / heights[measure]


def set_words(instance: Instance, words: str, setting: Setting) -> SetWords:
    """Words in lines, one from each line break to the next; raises LimitError."""
    features = dict(setting.features)
    if setting.tracking:
        features = {**dict.fromkeys(_LIGATURES, 0), **features}
    letters: list[SetLetter] = []
    starts, edges = [], []
    start = 0
    for number, line in enumerate(words.split("\n")):
        found, width = _set_line(instance, line, start, number, setting, features)
        before = BEFORE[setting.alignment] * width
        letters += [replace(each, x=each.x - before) for each in found]
        starts.append(start)
        edges.append((-before, width - before))
        start += len(line) + 1
    leading = setting.leading * instance.units
    return SetWords(instance, tuple(letters), tuple(starts), tuple(edges), leading)


def _set_line(
    instance: Instance,
    line: str,
    start: int,
    number: int,
    setting: Setting,
    features: Mapping[str, int],
) -> tuple[list[SetLetter], float]:
    """The letters of a line from 0 on, and how wide it is."""
    unit = instance.units * _THOUSANDTH
    found: list[SetLetter] = []
    x = 0.0
    for letter in shaped(instance, line, features):
        own = (letter.start + start, letter.end + start)
        if found:
            # What is kept for a character stands before it as it is read.
            x += setting.tracking * unit
            x += setting.pairs.get(max(own[0], found[-1].start), 0.0) * unit
        found.append(SetLetter(letter, *own, x, number))
        x += letter.advance
        if line[letter.start] in _SPACES:
            x += setting.word_space * unit
    return found, x
