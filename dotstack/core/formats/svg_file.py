"""What an SVG file holds, for those who make something of it."""

from collections.abc import Callable, Hashable, Iterator
from dataclasses import dataclass, field
from typing import TypeAlias, TypeVar

from dotstack.core.errors import FormatError, GeometryError
from dotstack.core.formats.svg_gradient import SvgGradient
from dotstack.core.formats.svg_shapes import Form
from dotstack.core.geometry import Affine, Outline
from dotstack.core.paint import Blend, Shadow, Stroke

_T = TypeVar("_T")


@dataclass(frozen=True, slots=True)
class Finding:
    """Something that is not kept: a code for it, where it is, and what becomes of it."""

    code: str
    where: str
    what: str

    def __str__(self) -> str:
        return f"{self.where}: {self.what}"


class Findings:
    """What was found not to be kept so far, each thing once."""

    def __init__(self) -> None:
        self._found: dict[Finding, None] = {}

    @property
    def found(self) -> tuple[Finding, ...]:
        """All of them, in the order in which they were met."""
        return tuple(self._found)

    def tell(self, code: str, where: str, what: str) -> None:
        """Adds what is not kept."""
        self._found.setdefault(Finding(code, where, what))

    def careful(self, where: str, read: Callable[[], _T], fallback: _T) -> _T:
        """What ``read`` answers, or the fallback, with a finding, if it cannot."""
        try:
            return read()
        except FormatError as error:
            self.tell("unreadable", error.where, error.reason)
        except GeometryError as error:
            self.tell("unreadable", where, str(error))
        return fallback


# Six hex digits, or a gradient.
SvgInk: TypeAlias = str | SvgGradient


@dataclass(frozen=True, slots=True)
class Whole:
    """What is done with a shape, or all that is in a branch, together."""

    opacity: float = 1.0
    blend: Blend = "normal"
    shadows: tuple[Shadow, ...] = ()


@dataclass(frozen=True, slots=True)
class Look:
    """Paint; None for no fill or line. Lengths of the ``stroke`` are in the file's axes."""

    fill: SvgInk | None
    line: SvgInk | None
    stroke: Stroke
    whole: Whole = Whole()

    @property
    def colour(self) -> str | None:
        """The fill as one colour, that of a gradient its mean."""
        return self.fill.mean if isinstance(self.fill, SvgGradient) else self.fill


@dataclass(frozen=True, eq=False, slots=True)
class Leaf:
    """A shape; ``affine`` maps its element's axes to the file's."""

    name: str
    form: Form
    affine: Affine
    look: Look

    @property
    def outline(self) -> Outline:
        """Its outline in the file's axes."""
        return self.form.outline.transformed(self.affine)


@dataclass(frozen=True, slots=True)
class Shared:
    """An element that is shown in several places: in all that are equal in the same way.

    Attributes:
        name: the element's id.
        style: what it inherits there.
        size: how large its lines and shadows are; 0 where it has none.
        form: what there is in it: not the same where it would contain itself, or lead too far.
        affine: from its axes to the file's.

    """

    name: str
    style: frozenset[tuple[str, str]]
    size: float
    form: Hashable
    affine: Affine = field(compare=False)


@dataclass(frozen=True, eq=False, slots=True)
class Branch:
    """Shapes kept together, the lowest first, perhaps within the shapes of a clip.

    Shadows of the whole are cut off by it.
    """

    name: str
    items: tuple["Item", ...]
    clip: tuple["Item", ...] | None = None
    whole: Whole = Whole()
    shared: Shared | None = None


Item: TypeAlias = Leaf | Branch


@dataclass(frozen=True, eq=False, slots=True)
class SvgShape:
    """A top-level shape of a file.

    Attributes:
        name: its id, or its element's name and place.
        outlines: of the shape, or of all shapes of a group, in the file's axes.
        fills: of each outline; "none" where nothing is filled.

    """

    name: str
    outlines: tuple[Outline, ...]
    fills: tuple[str, ...]

    @property
    def fill(self) -> str:
        """The fill of the topmost outline."""
        return self.fills[-1] if self.fills else "none"


@dataclass(frozen=True, eq=False, slots=True)
class SvgFile:
    """What was read.

    Attributes:
        items: the top-level shapes and groups, the lowest first.
        view_box: x, y, width, height, or None.
        to_pixels: from the file's axes to pixels, as width, height and view box say.
        findings: what is not kept.

    """

    items: tuple[Item, ...]
    view_box: tuple[float, float, float, float] | None
    to_pixels: Affine
    findings: tuple[Finding, ...]

    @property
    def shapes(self) -> tuple[SvgShape, ...]:
        """The top-level shapes as outlines."""
        return tuple(
            SvgShape(
                item.name,
                tuple(leaf.outline for leaf in leaves(item)),
                tuple(leaf.look.colour or "none" for leaf in leaves(item)),
            )
            for item in self.items
        )


def form_of(item: Item) -> Hashable:
    """What an item is made of, by which those of one element are told from each other."""
    if isinstance(item, Leaf):
        return item.form.kind, item.form.count
    clip = None if item.clip is None else tuple(map(form_of, item.clip))
    return clip, tuple(map(form_of, item.items))


def has_lengths(item: Item) -> bool:
    """Whether there are lines or shadows in it, whose lengths are not those of its outlines."""
    if isinstance(item, Leaf):
        return item.look.line is not None or bool(item.look.whole.shadows)
    return bool(item.whole.shadows) or any(map(has_lengths, item.items))


def leaves(item: Item) -> Iterator[Leaf]:
    """All shapes of an item, the lowest first."""
    if isinstance(item, Leaf):
        yield item
    else:
        for inner in item.items:
            yield from leaves(inner)
