"""Where the letters of a text stand: for a caret, for what is chosen of them, for their gaps."""

from itertools import pairwise
from statistics import median
from typing import Literal

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.frame import axis_scales
from dotstack.core.drawing.kinds import TextNode
from dotstack.core.drawing.places import place_of
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.letters import Font, StandingLetter, gap_between
from dotstack.core.values import Value

# A gap is odd if it is off the middle one by more than so much of it, and of what is usual.
_ODD_SHARE, _ODD_SPREADS = 0.35, 3.0


class Cell(Value):
    """The room of one character, in the plate's axes.

    Attributes:
        before: the caret before it, from the foot of its line to the head.
        after: the caret behind it.

    """

    before: tuple[float, float, float, float]
    after: tuple[float, float, float, float]


class LetterGap(Value):
    """The room between two letters that stand side by side.

    Attributes:
        before: the character that stands behind it: what is added there is kept for that.
        gap: the clear gap between their outlines, on the plate.
        by: what was added by hand, in thousandths of the body size.
        x, y: where it is shown, on the plate.
        odd: whether it is much tighter or wider than the others.

    """

    before: int
    gap: float
    by: float
    x: float
    y: float
    odd: Literal["tight", "wide"] | None


class LetterMap(Value):
    """The letters of a text on the plate.

    Attributes:
        words: what it says.
        cells: of each character, and a last one behind them all.
        gaps: between letters that show something, where they are asked for.
        unit: a thousandth of the body size, on the plate.

    """

    words: str
    cells: tuple[Cell, ...]
    gaps: tuple[LetterGap, ...]
    unit: float


def letter_map(
    drawing: Drawing, node_id: str, evaluator: Evaluator, *, with_gaps: bool = True
) -> LetterMap:
    """Where the letters of a text stand; raises CommandError where there are none to tell of."""
    place = place_of(drawing, node_id)
    text = place.node
    if not isinstance(text, TextNode):
        raise CommandError(f"{text.name} has no words.")
    font = evaluator.font(text.font.digest)
    if font is None:
        raise CommandError(f"The font {text.font.family} of {text.name} is not here.")
    letters = text.letters(font, evaluator)
    body = text.unit(font) * text.instance(font).units
    size, _ = axis_scales(place.affine)
    return LetterMap(
        words=text.words,
        cells=_cells(text, font, letters, place.affine, evaluator),
        gaps=_gaps(text, font, letters, place.affine) if with_gaps else (),
        unit=body * size / 1000,
    )


def _cells(
    text: TextNode,
    font: Font,
    letters: tuple[StandingLetter, ...],
    there: Affine,
    evaluator: Evaluator,
) -> tuple[Cell, ...]:
    instance = text.instance(font)
    head, foot = -instance.ascent, instance.descent

    def caret(letter: Affine, x: float) -> tuple[float, float, float, float]:
        whole = there @ letter
        return (*whole.apply_to(x, foot), *whole.apply_to(x, head))

    cells: dict[int, Cell] = {}
    for each in letters:
        start, end = each.place.start, each.place.end
        for char in range(start, end):
            # Characters of a ligature share its room.
            shares = [(char - start) / (end - start), (char + 1 - start) / (end - start)]
            if each.place.letter.leftwards:
                shares = [1 - share for share in shares]
            before, after = (caret(each.affine, each.place.letter.advance * s) for s in shares)
            cells[char] = Cell(before=before, after=after)
    unit, course, end = text.unit(font), text.laid(evaluator), -1
    for number, line in enumerate(text.words.split("\n")):
        end += len(line) + 1
        if line:
            at = cells[end - 1].after
        else:
            below = unit * text.leading * instance.units * number
            at = caret(course.at(0.0, below) @ Affine.scaling(unit, unit), 0.0)
        cells[end] = Cell(before=at, after=at)
    return tuple(cells[char] for char in range(len(text.words) + 1))


def _gaps(
    text: TextNode, font: Font, letters: tuple[StandingLetter, ...], there: Affine
) -> tuple[LetterGap, ...]:
    drawn = text.instance(font).drawn
    size = text.unit(font) * axis_scales(there)[0]
    pairs = [
        (one, two, gap_between(one, two, drawn) * size)
        for one, two in pairwise(letters)
        if one.place.line == two.place.line and one.is_inked and two.is_inked
    ]
    gaps = [gap for _, _, gap in pairs]
    found = []
    for one, two, gap in pairs:
        before = max(one.place.start, two.place.start)
        middle = (there @ two.affine).apply_to(0.0, 0.0)
        found.append(
            LetterGap(
                before=before, gap=gap, by=text.pairs.get(before, 0.0),
                x=middle[0], y=middle[1], odd=_odd(gap, gaps),
            )
        )  # fmt: skip
    return tuple(found)


def _odd(gap: float, gaps: list[float]) -> Literal["tight", "wide"] | None:
    """Whether a gap is far off the others: off their median by their median deviation."""
    usual = median(gaps)
    spread = median(abs(each - usual) for each in gaps)
    off = gap - usual
    if len(gaps) < 3 or abs(off) <= max(_ODD_SHARE * usual, _ODD_SPREADS * spread):
        return None
    return "tight" if off < 0 else "wide"
