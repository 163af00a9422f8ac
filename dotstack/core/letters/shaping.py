"""From a line of words to glyphs: directions, scripts, and what HarfBuzz makes of each run."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import groupby

import uharfbuzz as hb
from bidi import algorithm as bidi
from fontTools import unicodedata

from dotstack.core.errors import LimitError
from dotstack.core.letters.font import Instance
from dotstack.core.letters.letter import Glyph, Letter

# A font may make several glyphs of a letter, but hardly so many.
MAX_GLYPHS = 40_000
# Scripts of what is written in any: spaces, points, marks.
_ANY = {"Zyyy", "Zinh", "Zzzz"}


@dataclass(frozen=True, slots=True)
class _Run:
    """Characters of one direction and script."""

    start: int
    end: int
    level: int
    script: str


def shaped(instance: Instance, line: str, features: Mapping[str, int]) -> list[Letter]:
    """The letters of a line from left to right; raises LimitError.

    Directions by the Unicode bidirectional algorithm (UAX #9), each run by HarfBuzz.
    """
    letters = [
        letter
        for run in _in_sight(list(_runs(line)))
        for letter in _shaped_run(instance, line, run, features)
    ]
    if (count := sum(len(letter.glyphs) for letter in letters)) > MAX_GLYPHS:
        raise LimitError("glyphs in one line", count, MAX_GLYPHS)
    return letters


def _runs(line: str) -> Iterator[_Run]:
    """The line cut where direction or script change, in the order of reading."""
    keys = list(zip(_levels(line), _scripts(line)))
    for (level, script), chars in groupby(range(len(line)), keys.__getitem__):
        places = list(chars)
        yield _Run(places[0], places[-1] + 1, level, script)


def _levels(line: str) -> list[int]:
    """The embedding level of each character: odd ones are read from right to left."""
    if all(unicodedata.bidirectional(char) not in {"R", "AL", "AN"} for char in line):
        return [0] * len(line)
    base = bidi.get_base_level(line)
    storage = bidi.get_empty_storage()
    storage["base_level"] = base
    storage["base_dir"] = ("L", "R")[base]
    bidi.get_embedding_levels(line, storage)
    for chars, number in zip(storage["chars"], range(len(line))):
        chars["place"] = number
    bidi.explicit_embed_and_overrides(storage)
    bidi.resolve_weak_types(storage)
    bidi.resolve_neutral_types(storage, False)
    bidi.resolve_implicit_levels(storage, False)
    # Signs that only say a direction were taken out, and are of the paragraph's.
    levels = [base] * len(line)
    for char in storage["chars"]:
        levels[char["place"]] = char["level"]
    return levels


def _scripts(line: str) -> list[str]:
    """The script of each character; what is written in any has that of what stands before it."""
    found = [unicodedata.script(char) for char in line]
    known = [script for script in found if script not in _ANY]
    script = known[0] if known else "Zyyy"
    for place, own in enumerate(found):
        script = script if own in _ANY else own
        found[place] = script
    return found


def _in_sight(runs: list[_Run]) -> list[_Run]:
    """Runs from left to right, as they are seen (rule L2)."""
    for level in range(max((run.level for run in runs), default=0), 0, -1):
        turned = [run.level >= level for run in runs]
        places = range(len(runs))
        groups = [(turn, list(each)) for turn, each in groupby(places, turned.__getitem__)]
        runs = [runs[place] for turn, each in groups for place in (each[::-1] if turn else each)]
    return runs


def _shaped_run(
    instance: Instance, line: str, run: _Run, features: Mapping[str, int]
) -> Iterator[Letter]:
    buffer = hb.Buffer()
    # With what stands round it, for letters join across runs.
    buffer.add_str(line, run.start, run.end - run.start)
    buffer.direction = "rtl" if run.level % 2 else "ltr"
    buffer.script = run.script
    hb.shape(instance.shaper, buffer, dict(features))
    glyphs = list(zip(buffer.glyph_infos, buffer.glyph_positions))
    starts = sorted({info.cluster for info, _ in glyphs})
    ends = dict(zip(starts, [*starts[1:], run.end]))
    for start, group in groupby(glyphs, lambda glyph: glyph[0].cluster):
        at, made = 0.0, []
        for info, where in group:
            made.append(Glyph(info.codepoint, at + where.x_offset, -where.y_offset))
            at += where.x_advance
        yield Letter(start, ends[start], tuple(made), at, bool(run.level % 2))
