"""The scalars of a document, with their limits, and what all its values are."""

from enum import StrEnum
from typing import Annotated

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from dotstack.core.geometry import Affine

MAX_SIZE = 1e6
MAX_HELD = 2000

# Signs that no XML can hold (XML 1.0, section 2.2), and controls, of which none can be seen. They
# are shown as what they are, so that a document that has them already can still be read.
_STRANGE = "\N{REPLACEMENT CHARACTER}"
_ILLEGAL = dict.fromkeys([*range(9), 11, 12, *range(14, 32), 0xFFFE, 0xFFFF], _STRANGE)
_IN_ONE_LINE = {
    **_ILLEGAL, **dict.fromkeys(range(127, 160), _STRANGE), **dict.fromkeys((9, 10, 13), " ")
}  # fmt: skip


def writable(text: str) -> str:
    """The text, with a sign in place of each that cannot be written."""
    return text.translate(_ILLEGAL)


def in_one_line(text: str) -> str:
    """The same, with a space for each break of a line."""
    return text.replace("\r\n", "\n").translate(_IN_ONE_LINE)


_PLAIN = r"[A-Za-z0-9-]{1,40}"
# Of a shape inside a twin: the twin's id, a colon, and its id in the source.
_ID = rf"{_PLAIN}(:{_PLAIN}){{0,24}}"
Id = Annotated[str, Field(pattern=rf"^{_ID}$")]
# Of a piece, among those of one whole: a number, or the shape that it is of.
PieceKey = Annotated[str, Field(pattern=rf"^(\d{{1,4}}|of-{_ID}(\.\d{{1,4}})?)$")]
# Of a shape, or of a piece of one: the whole's id, a dot, and the piece's key.
AnyId = Annotated[str, Field(pattern=rf"^{_ID}(\.[A-Za-z0-9.:-]{{1,1100}})?$")]
Name = Annotated[
    str, Field(min_length=1, max_length=120, pattern=r"\S"), AfterValidator(in_one_line)
]
Length = Annotated[float, Field(gt=0, le=MAX_SIZE, allow_inf_nan=False)]
Coordinate = Annotated[float, Field(ge=-MAX_SIZE, le=MAX_SIZE, allow_inf_nan=False)]
Radius = Annotated[float, Field(ge=0, le=MAX_SIZE, allow_inf_nan=False)]
Colour = Annotated[str, Field(pattern=r"^#[0-9A-Fa-f]{6}$")]
Opacity = Annotated[float, Field(ge=0, le=1)]
# Of a sharp join, in half widths or distances.
Limit = Annotated[float, Field(ge=1, le=100)]
Digest = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


class Join(StrEnum):
    """How parallels are joined where they part: by an arc, by going on, or by a straight side."""

    ROUND = "round"
    SHARP = "sharp"
    FLAT = "flat"


class Cap(StrEnum):
    """How a line ends: there, by half a disc, or by half a square."""

    FLAT = "flat"
    ROUND = "round"
    SQUARE = "square"


class Value(BaseModel):
    """A frozen value that refuses what it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class Placement(Value):
    """Where a node stands: an affine map from its own axes to those that contain it."""

    a: Coordinate = 1.0
    b: Coordinate = 0.0
    c: Coordinate = 0.0
    d: Coordinate = 1.0
    e: Coordinate = 0.0
    f: Coordinate = 0.0

    @property
    def affine(self) -> Affine:
        """The same as a map."""
        return Affine(self.a, self.b, self.c, self.d, self.e, self.f)

    @classmethod
    def of(cls, affine: Affine) -> "Placement":
        """The placement of a map; raises ValidationError if it leads too far away."""
        return cls(a=affine.a, b=affine.b, c=affine.c, d=affine.d, e=affine.e, f=affine.f)
