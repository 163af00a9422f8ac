"""Commands about words: what they say, how they are set, what they stand on."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import (
    FontChoice,
    GroupNode,
    Node,
    OnCircle,
    OnLine,
    TextNode,
    revised,
)
from dotstack.core.drawing.kinds.text import Axes, Spacing, Tag
from dotstack.core.drawing.paths import path_of
from dotstack.core.drawing.places import exchanged, place_of, replaced
from dotstack.core.drawing.sound import MAX_PIECES, check_fresh
from dotstack.core.drawing.stacks import moved_within
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.geometry import Affine
from dotstack.core.letters import Alignment, Font, Measure, unit_size
from dotstack.core.values import Coordinate, Digest, Id, Length

_LONGEST = 40


class SetWords(Command):
    """Changes what a text says; without a letter it goes.

    What was added between single letters stays between those that stay. A name that told the
    old words tells the new ones.
    """

    kind: Literal["set-words"] = "set-words"
    id: Id
    words: Annotated[str, Field(max_length=1_000_000)]

    @property
    def label(self) -> str:
        return "Type" if self.words.strip() else "Remove the words"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        text = _text_of(drawing, self.id)
        if not self.words.strip():
            return exchanged(drawing, {self.id}, lambda _: ())
        font_of(text, evaluator)
        changes = {"words": self.words, "pairs": _moved_pairs(text, self.words), "kept": None}
        if text.name == name_told_by(text.words):
            changes["name"] = name_told_by(self.words)
        return replaced(drawing, self.id, lambda _: revised(text, changes))


class SetLetters(Command):
    """Changes how the words of texts are set; what is not named stays.

    Attributes:
        measure: what the size is that of; by itself it leaves the letters as large as they are.
        axes, features: these of them; a feature that is None is as usual again.
        course: a circle to stand on, or *straight*.
        start, other_side: of texts that stand on a line.

    """

    kind: Literal["set-letters"] = "set-letters"
    ids: Ids
    font: Digest | None = None
    size: Length | None = None
    measure: Measure | None = None
    axes: Axes | None = None
    tracking: Spacing | None = None
    word_space: Spacing | None = None
    leading: Annotated[float, Field(ge=0, le=20)] | None = None
    alignment: Alignment | None = None
    features: Annotated[dict[Tag, int | None], Field(max_length=200)] | None = None
    course: OnCircle | Literal["straight"] | None = None
    start: Coordinate | None = None
    other_side: bool | None = None

    @property
    def label(self) -> str:
        # With a font come places on its axes: it is what counts.
        also = {"kind", "ids", *(["axes"] if self.font else [])}
        words = sorted(name.replace("_", " ") for name in self.model_fields_set - also)
        return f"Change {', '.join(words)}" if words else "Change letters"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return exchanged(
            drawing, set(self.ids), lambda node: (self._made(_as_text(node), evaluator),)
        )

    def _made(self, text: TextNode, evaluator: Evaluator) -> Node:
        """The text so; where it is bent otherwise than before, its box keeps its middle."""
        changed = self._changed(text, evaluator)
        if type(changed.course) is type(text.course):
            return changed
        before, after = (evaluator.outline(each).bounds for each in (text, changed))
        across = (before[0] + before[2] - after[0] - after[2]) / 2
        down = (before[1] + before[3] - after[1] - after[3]) / 2
        return moved_within(changed, Affine.translation(across, down))

    def _changed(self, text: TextNode, evaluator: Evaluator) -> TextNode:
        font = self._font(text, evaluator)
        axes = {**text.axes, **(self.axes or {})}
        known = {axis.tag for axis in font.axes}
        axes = {tag: value for tag, value in axes.items() if tag in known}
        changes: dict[str, object] = {
            "kept": None,
            "axes": axes,
            "font": _choice(font, axes),
            **self._own_changes(),
        }
        if self.features is not None:
            features = {**text.features, **self.features}
            changes["features"] = {
                tag: value for tag, value in features.items() if value is not None
            }
        if self.measure and self.size is None:
            changes["size"] = _size_as(text, font, self.measure)
        if self.course is not None:
            if text.children:
                raise CommandError(f"{text.name} stands on a line; take it off first.")
            changes["course"] = None if self.course == "straight" else self.course
        if self.start is not None or self.other_side is not None:
            changes["course"] = self._along(text)
        return revised(text, changes)

    def _own_changes(self) -> dict[str, object]:
        """What is given of the fields that are simply the text's."""
        names = ("size", "measure", "tracking", "word_space", "leading", "alignment")
        return {name: value for name in names if (value := getattr(self, name)) is not None}

    def _font(self, text: TextNode, evaluator: Evaluator) -> Font:
        if self.font is None:
            return font_of(text, evaluator)
        font = evaluator.font(self.font)
        if font is None:
            raise CommandError("This font is not here any more; choose another.")
        return font

    def _along(self, text: TextNode) -> OnLine:
        if not isinstance(text.course, OnLine):
            raise CommandError(f"{text.name} stands on no line.")
        start = text.course.start if self.start is None else self.start
        other_side = text.course.other_side if self.other_side is None else self.other_side
        return OnLine(line=text.course.line, start=start, other_side=other_side)


class SpaceLetters(Command):
    """Adds room before one character of a text, in thousandths of its body size; 0 for none."""

    kind: Literal["space-letters"] = "space-letters"
    id: Id
    before: Annotated[int, Field(ge=1)]
    by: Spacing

    @property
    def label(self) -> str:
        return "Space letters"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        text = _text_of(drawing, self.id)
        font_of(text, evaluator)
        if self.before >= len(text.words):
            raise CommandError(f"{text.name} has no letter there.")
        pairs = {**text.pairs, self.before: self.by}
        if not self.by:
            del pairs[self.before]
        return replaced(drawing, self.id, lambda _: revised(text, {"pairs": pairs, "kept": None}))


class BreakIntoLetters(Command):
    """Makes a group of a text: a path of each letter, under its name."""

    kind: Literal["break-into-letters"] = "break-into-letters"
    id: Id

    @property
    def label(self) -> str:
        return "Break into letters"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        text = _text_of(drawing, self.id)
        font = font_of(text, evaluator)
        if text.refinements:
            raise CommandError(
                f"{text.name} is refined as a whole; remove that, or settle it as one path."
            )
        inked = [each for each in text.letters(font, evaluator) if each.is_inked]
        if not inked:
            raise CommandError(f"{text.name} has no letter that can be seen.")
        if len(inked) > MAX_PIECES:
            raise LimitError("letters of one group", len(inked), MAX_PIECES)
        paths = tuple(
            path_of(
                each.outline,
                f"{text.id[:30]}-{number}",
                text.words[each.place.start : each.place.end],
                text.look.bare,
            )
            for number, each in enumerate(inked)
        )
        group = GroupNode(**{**text.common, "look": text.look.of_whole}, nodes=paths)
        check_fresh(exchanged(drawing, {text.id}, lambda _: ()), (group,))
        return replaced(drawing, text.id, lambda _: group)


def name_told_by(words: str) -> str:
    """What a text is called that nobody has named."""
    first = next(line for line in words.split("\n") if line.strip())
    return first.strip()[:_LONGEST].strip()


def _as_text(node: Node) -> TextNode:
    if not isinstance(node, TextNode):
        raise CommandError(f"{node.name} has no words.")
    return node


def _text_of(drawing: Drawing, node_id: str) -> TextNode:
    return _as_text(place_of(drawing, node_id).node)


def font_of(text: TextNode, evaluator: Evaluator) -> Font:
    """The font of a text; raises CommandError where it is not here."""
    font = evaluator.font(text.font.digest)
    if font is None:
        raise CommandError(
            f"The font {text.font.family} {text.font.style} of {text.name} is not here: "
            "add its file, or choose another font for it."
        )
    return font


def _choice(font: Font, axes: dict[str, float]) -> FontChoice:
    return FontChoice(digest=font.digest, family=font.family, style=font.style_at(axes))


def _size_as(text: TextNode, font: Font, measure: Measure) -> float:
    """The size of a text's letters as they are, told by another of their heights."""
    return (
        text.size
        * unit_size(text.instance(font), 1.0, text.measure)
        / unit_size(text.instance(font), 1.0, measure)
    )


def _moved_pairs(text: TextNode, words: str) -> dict[int, float]:
    """What was added between letters of a text, between the same ones in other words.

    Words are taken to have changed in one place: all before it and after it is the same.
    """
    old, shorter = text.words, min(len(text.words), len(words))
    head = next((i for i in range(shorter) if old[i] != words[i]), shorter)
    most = shorter - head
    tail = next((i for i in range(most) if old[-1 - i] != words[-1 - i]), most)
    grown = len(words) - len(old)
    return {
        place + (grown if place > head else 0): by
        for place, by in text.pairs.items()
        if place < head or place > len(old) - tail
    }
