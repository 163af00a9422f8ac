"""Words as a shape."""

import unicodedata
from collections.abc import Mapping, Sequence
from math import isclose
from typing import TYPE_CHECKING, Annotated, Literal, Self, TypeAlias

from pydantic import AfterValidator, Field

from dotstack.core.drawing.kinds.node import Evaluation, HolderNode, revised
from dotstack.core.drawing.kinds.path import PathData, path_outline
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine, Outline
from dotstack.core.letters import (
    Alignment,
    Along,
    Course,
    Font,
    Instance,
    Measure,
    Round,
    Setting,
    StandingLetter,
    Straight,
    outline_of,
    set_words,
    standing,
    unit_size,
)
from dotstack.core.values import Coordinate, Digest, Length, Name, Placement, Value, writable

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node

MAX_LETTERS = 5000
# Factors that differ by less size letters and do not stretch them.
_SAME = 1e-12
# Controls, and halves of surrogate pairs.
_UNWRITABLE = {"Cc", "Cs"}
# Thousandths of the body size.
Spacing = Annotated[float, Field(ge=-10_000, le=10_000)]


def _tag(tag: str) -> str:
    # By hand: what JSON Schema says of names by a pattern is lost on its way to other languages.
    if len(tag) != 4 or not tag.isascii() or not tag.isprintable():
        raise ValueError(f"{tag!r} is no tag of four letters")
    return tag


Tag = Annotated[str, AfterValidator(_tag)]
Axes = Annotated[dict[Tag, Annotated[float, Field(ge=-1e5, le=1e5)]], Field(max_length=64)]
Features = Annotated[dict[Tag, Annotated[int, Field(ge=0, le=1000)]], Field(max_length=200)]
Pairs = Annotated[dict[Annotated[int, Field(ge=1)], Spacing], Field(max_length=MAX_LETTERS)]


def _words(words: str) -> str:
    if len(words) > MAX_LETTERS:
        raise ValueError(
            f"{len(words)} letters are too many for one text; Dot Stack takes up to {MAX_LETTERS}"
        )
    if not words.strip():
        raise ValueError("a text needs a letter")
    for char in words:
        if char != "\n" and unicodedata.category(char) in _UNWRITABLE:
            raise ValueError(f"a text cannot hold the sign U+{ord(char):04X}")
    return writable(words)


Words = Annotated[str, AfterValidator(_words)]


class FontChoice(Value):
    """A font, by its digest; and what it is called, for where it is missing."""

    digest: Digest
    family: Name
    style: Name


class OnCircle(Value):
    """A circle round the text's origin that letters stand on.

    Lines are set from ``start_deg``, clockwise from +x. Outside it they run clockwise, inside the
    other way.
    """

    kind: Literal["circle"] = "circle"
    radius: Length
    start_deg: Annotated[float, Field(ge=-360, le=360)] = -90.0
    inside: bool = False


class OnLine(Value):
    """A shape along whose outline letters stand, from a distance ``start`` on."""

    kind: Literal["line"] = "line"
    line: "Node"
    start: Coordinate = 0.0
    other_side: bool = False


class KeptLetters(Value):
    """The outline of a text as it was when its letters had a size."""

    data: PathData
    size: Length


TextCourse: TypeAlias = Annotated[OnCircle | OnLine, Field(discriminator="kind")]


class TextNode(HolderNode):
    """Words, which stay words, in a font.

    Its first line starts, is centred or ends at its origin, or where its course says.

    Attributes:
        size, measure: how large the font's body, capitals or small letters are.
        axes: places on the axes of a variable font; elsewhere the usual ones.
        tracking, word_space: added between letters and to spaces, in thousandths of the body.
        leading: from line to line, in body sizes.
        features: OpenType features by their tags: off, on, or which alternate.
        pairs: added before single characters, by their places in the words, in thousandths.
        course: what they stand on, if not on straight lines.
        kept: its outline as it was last made: shown where its font is missing.

    """

    kind: Literal["text"] = "text"
    words: Words
    font: FontChoice
    size: Length
    measure: Measure = "body"
    axes: Axes = Field(default_factory=dict)
    tracking: Spacing = 0.0
    word_space: Spacing = 0.0
    leading: Annotated[float, Field(ge=0, le=20)] = 1.2
    alignment: Alignment = "start"
    features: Features = Field(default_factory=dict)
    pairs: Pairs = Field(default_factory=dict)
    course: TextCourse | None = None
    kept: KeptLetters | None = None

    @property
    def children(self) -> "tuple[Node, ...]":
        return (self.course.line,) if isinstance(self.course, OnLine) else ()

    @property
    def is_centred(self) -> bool:
        """Round a circle it has that one's centre."""
        return isinstance(self.course, OnCircle)

    @property
    def stays_alone(self) -> bool:
        return True

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return ()

    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> Self:
        """The text on another line; without one its lines are straight."""
        return self.with_stack([node for nodes in fresh for node in nodes])

    def with_stack(self, nodes: "Sequence[Node]") -> Self:
        course = self.course
        if not nodes and not isinstance(course, OnLine):
            return self
        if len(nodes) > 1 or not isinstance(course, OnLine):
            raise CommandError(f"{self.name} holds nothing but a line that it stands on.")
        fresh = course.model_copy(update={"line": nodes[0]}) if nodes else None
        return self.model_copy(update={"course": fresh})

    def scaled(self, across: float, down: float) -> Self:
        """The text in another size; stretched as well, where its axes are scaled unlike."""
        course = self.course
        if isinstance(course, OnCircle):
            course = course.model_copy(update={"radius": course.radius * down})
        elif course:
            placed = Affine.scaling(down, down) @ course.line.transform.affine
            line = course.line.model_copy(update={"transform": Placement.of(placed)})
            course = course.model_copy(update={"line": line, "start": course.start * down})
        changes: dict[str, object] = {"size": self.size * down, "course": course}
        if not isclose(across, down, rel_tol=_SAME):
            stretched = self.transform.affine @ Affine.scaling(across / down, 1.0)
            changes["transform"] = Placement.of(stretched)
        return revised(self, changes)

    def outline(self, evaluation: Evaluation) -> Outline:
        font = evaluation.font(self.font.digest)
        if font is None:
            return self._kept_outline()
        return outline_of(self.letters(font, evaluation), self.instance(font).drawn)

    def painted(self, changes: Mapping[str, object]) -> Self:
        return self.with_looks(lambda look: look.model_copy(update=changes))

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        return self

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        font = evaluation.font(self.font.digest)
        if font is None:
            return {"font_missing": True}
        return {"lacks": self._lacks(self.letters(font, evaluation))}

    def instance(self, font: Font) -> Instance:
        """The font at the text's places on its axes."""
        return font.at(self.axes)

    def unit(self, font: Font) -> float:
        """How large a unit of the font is."""
        return unit_size(self.instance(font), self.size, self.measure)

    def letters(self, font: Font, evaluation: Evaluation) -> tuple[StandingLetter, ...]:
        """All letters where they stand, line by line from left to right, in its own axes."""

        def made() -> tuple[StandingLetter, ...]:
            instance = self.instance(font)
            setting = Setting(
                tracking=self.tracking,
                word_space=self.word_space,
                leading=self.leading,
                alignment=self.alignment,
                features=self.features,
                pairs=self.pairs,
            )
            words = set_words(instance, self.words, setting)
            return standing(words, instance.drawn, self.unit(font), self.laid(evaluation))

        return evaluation.remembered("letters", made, *self.own, font)

    def laid(self, evaluation: Evaluation) -> Course:
        """What its letters stand on, in its own axes."""
        match self.course:
            case None:
                return Straight()
            case OnCircle(radius=radius, start_deg=start, inside=inside):
                return Round(radius, start, inside)
            case OnLine(line=line, start=start, other_side=other_side):
                return Along(evaluation.outline(line), start, other_side=other_side)

    def _kept_outline(self) -> Outline:
        if self.kept is None:
            return Outline.empty()
        scale = self.size / self.kept.size
        return path_outline(self.kept.data, "nonzero").transformed(Affine.scaling(scale, scale))

    def _lacks(self, letters: Sequence[StandingLetter]) -> str:
        """The letters that its font has none for, each once: a box stands for them, or nothing."""
        lacking = "".join(
            self.words[each.place.start : each.place.end]
            for each in letters
            if each.place.letter.is_missing or not each.is_inked
        )
        return "".join(dict.fromkeys(filter(_is_seen, lacking)))


def _is_seen(char: str) -> bool:
    """Whether a character is more than space, or a sign that only steers others."""
    return not char.isspace() and unicodedata.category(char) != "Cf"
