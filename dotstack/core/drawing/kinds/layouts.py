"""Where the copies of a repeat stand: round a centre, in rows, along a line, across axes."""

from abc import abstractmethod
from functools import lru_cache
from typing import Annotated, Literal, Self, TypeAlias

import numpy as np
from pydantic import AfterValidator, Field, model_validator

from dotstack.core.drawing.kinds.formulas import Expressed
from dotstack.core.drawing.kinds.path import PathData, path_outline
from dotstack.core.expressions import expression
from dotstack.core.geometry import Affine
from dotstack.core.geometry.walk import Walk
from dotstack.core.paint import Tint
from dotstack.core.values import Colour, Coordinate, Radius, Value

MAX_COPIES = 1000
MAX_AXES = 180
_TURN = 360.0
_LINES = 200
_LARGEST = 100.0

Count = Annotated[int, Field(ge=1, le=MAX_COPIES)]
Angle = Annotated[float, Field(ge=-_TURN, le=_TURN, allow_inf_nan=False)]


def _some(angle: float) -> float:
    if angle == 0:
        raise ValueError("the copies of a spin need an angle to be spread over; 360 is all round")
    return angle


def _of_copies(text: str) -> str:
    if unknown := expression(text).names - {"n", "count"}:
        raise ValueError(
            f"n, a copy's number, and count can stand in it, and {min(unknown)} cannot"
        )
    return text


# In terms of n, a copy's number, the first being 1, and of their count.
OfCopy = Annotated[Expressed, AfterValidator(_of_copies)]


class _Laid(Value):
    """Copies that stand somewhere.

    Attributes:
        opacity: of each copy as a whole, for what it shows.
        last_fill: the colour of the last one's fills, to which those of all turn by and by.

    """

    opacity: OfCopy | None = None
    last_fill: Colour | None = None

    @property
    @abstractmethod
    def total(self) -> int:
        """How many copies there are."""

    @property
    @abstractmethod
    def places(self) -> list[Affine]:
        """From what is repeated to where each copy stands."""

    def size_of(self, number: int) -> float:
        """How large a copy is."""
        return 1.0

    def tint_of(self, number: int) -> Tint | None:
        """What the fills of a copy are mixed with."""
        share = self._share(number)
        return Tint(colour=self.last_fill, share=share) if self.last_fill and share else None

    def _share(self, number: int) -> float:
        """How near to the last one a copy is."""
        return number / max(self.total - 1, 1)

    def opacity_of(self, number: int) -> float:
        """How opaque a copy is."""
        return self._come(self.opacity, number) if self.opacity else 1.0

    def _come(self, text: str, number: int) -> float:
        return expression(text).value({"n": number + 1.0, "count": float(self.total)})

    @model_validator(mode="after")
    def _sound(self) -> Self:
        for number in range(self.total if self.opacity else 0):
            if not 0 <= (found := self.opacity_of(number)) <= 1:
                raise ValueError(f"the opacity of copy {number + 1} would be {found:g}, not 0 to 1")
        return self


class _Growing(_Laid):
    """Copies that may be larger and larger, each about its own origin.

    Attributes:
        last_size: how large the last one is; those between are between.
        size: how large each is, in the place of that.

    """

    count: Count = 6
    last_size: Annotated[float, Field(gt=0, le=_LARGEST, allow_inf_nan=False)] = 1.0
    size: OfCopy | None = None

    @property
    def total(self) -> int:
        return self.count

    def size_of(self, number: int) -> float:
        if self.size:
            return self._come(self.size, number)
        return 1.0 + (self.last_size - 1.0) * self._share(number)

    @model_validator(mode="after")
    def _of_some_size(self) -> Self:
        for number in range(self.total if self.size else 0):
            if not 0 < (found := self.size_of(number)) <= _LARGEST:
                raise ValueError(
                    f"the size of copy {number + 1} would be {found:g}, "
                    f"not above 0, up to {_LARGEST:g}"
                )
        return self

    def _scaling(self, number: int) -> Affine:
        size = self.size_of(number)
        return Affine.scaling(size, size)


class Spin(_Growing):
    """Copies round the repeat's origin, from ``start_deg`` on, clockwise.

    What is repeated points along +x, and lies round its own origin.

    Attributes:
        whole_deg: the angle that they are spread over, the last one at its end; all round, the
            last one lies a step before the first.
        radius: how far their own origins lie from the centre.
        upright: whether they stay as they are, and do not turn with their place.

    """

    kind: Literal["spin"] = "spin"
    whole_deg: Annotated[Angle, AfterValidator(_some)] = _TURN
    start_deg: Angle = 0.0
    radius: Radius = 0.0
    upright: bool = False

    @property
    def places(self) -> list[Affine]:
        steps = self.count if abs(self.whole_deg) == _TURN else max(self.count - 1, 1)
        return [
            self._place(number, self.whole_deg * number / steps) for number in range(self.count)
        ]

    def _place(self, number: int, turn: float) -> Affine:
        scaled = self._scaling(number)
        turned = Affine.rotation_deg(self.start_deg + turn)
        if not self.upright:
            return turned @ Affine.translation(self.radius, 0.0) @ scaled
        x, y = turned.apply_to(self.radius, 0.0)
        return Affine.translation(x, y) @ Affine.rotation_deg(self.start_deg) @ scaled


class Row(_Laid):
    """Copies along the repeat's axes: a row of them, or a grid, row by row.

    Attributes:
        columns, rows: how many along x and along y.
        dx, dy: from each to the next.
        clear: whether these are the gaps between what is to be seen of them.
        wide, high: how large that is, where they are; see ``laying``.
        shift: how far every other row lies along x.

    """

    kind: Literal["row"] = "row"
    columns: Count = 3
    rows: Count = 1
    dx: Coordinate = 0.0
    dy: Coordinate = 0.0
    clear: bool = False
    wide: Radius = 0.0
    high: Radius = 0.0
    shift: Coordinate = 0.0

    @property
    def total(self) -> int:
        return self.columns * self.rows

    @property
    def places(self) -> list[Affine]:
        dx, dy = self.dx, self.dy
        if self.clear:
            dx, dy = dx + self.wide, dy + self.high
        return [
            Affine.translation(dx * column + self.shift * (row % 2), dy * row)
            for row in range(self.rows)
            for column in range(self.columns)
        ]


class Along(_Growing):
    """Copies along a line, which point on along it, and lie round their own origin.

    Attributes:
        data: the line's outline in the repeat's axes, as path data; its first contour counts.
        start: how far along it the first one stands.
        step: from each to the next; without one they are spread to the end of the line, or
            evenly all round it. Beyond the ends of an open one they go straight on.
        upright: whether they stay as they are, and do not turn with the line.

    """

    kind: Literal["along"] = "along"
    data: PathData
    start: Coordinate = 0.0
    step: Radius = 0.0
    upright: bool = False

    @property
    def places(self) -> list[Affine]:
        walk, closed = _walk(self.data)
        if closed:
            step = walk.length / self.count
        else:
            step = (walk.length - self.start) / max(self.count - 1, 1)
        found = walk.at_each(
            self.start + (self.step or step) * np.arange(self.count, dtype=np.float64)
        )
        return [self._place(number, *there) for number, there in enumerate(found)]

    def _place(self, number: int, point: complex, way: complex) -> Affine:
        there = Affine.standing(point, 1 + 0j if self.upright else way)
        return there @ self._scaling(number)


@lru_cache(_LINES)
def _walk(data: str) -> tuple[Walk, bool]:
    """Along the first contour of an outline, and whether that is closed."""
    contour = path_outline(data, "nonzero").contours[0]
    return Walk(contour), contour.closed


class Mirror(_Laid):
    """Copies mirrored across axes through the repeat's origin, at equal angles.

    Across one axis there are two halves, across more the whole is a rosette of twice as many
    copies, in turn. ``angle_deg`` is that of the first axis.
    """

    kind: Literal["mirror"] = "mirror"
    axes: Annotated[int, Field(ge=1, le=MAX_AXES)] = 1
    angle_deg: Angle = 90.0

    @property
    def total(self) -> int:
        return 2 * self.axes

    @property
    def places(self) -> list[Affine]:
        mirrored = Affine.rotation_deg(2 * self.angle_deg) @ Affine.scaling(1.0, -1.0)
        turns = [Affine.rotation_deg(_TURN * number / self.axes) for number in range(self.axes)]
        return [place for turn in turns for place in (turn, turn @ mirrored)]


Layout: TypeAlias = Annotated[Spin | Row | Along | Mirror, Field(discriminator="kind")]
