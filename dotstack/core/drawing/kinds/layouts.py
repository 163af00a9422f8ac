"""Where the copies of a repeat stand: round a centre, in a row or grid, across axes."""

from typing import Annotated, Literal, TypeAlias

from pydantic import AfterValidator, Field

from dotstack.core.geometry import Affine
from dotstack.core.values import Coordinate, Radius, Value

MAX_COPIES = 1000
MAX_AXES = 180
_TURN = 360.0

Count = Annotated[int, Field(ge=1, le=MAX_COPIES)]
Angle = Annotated[float, Field(ge=-_TURN, le=_TURN, allow_inf_nan=False)]


def _some(angle: float) -> float:
    if angle == 0:
        raise ValueError("the copies of a spin need an angle to be spread over; 360 is all round")
    return angle


class _Alike(Value):
    """Copies that are all as large as what is repeated."""

    def size_of(self, number: int) -> float:
        """How large a copy is."""
        return 1.0


class Spin(Value):
    """Copies round the repeat's origin, from ``start_deg`` on, clockwise.

    What is repeated points along +x, and lies round its own origin.

    Attributes:
        whole_deg: the angle that they are spread over, the last one at its end; all round, the
            last one lies a step before the first.
        radius: how far their own origins lie from the centre.
        upright: whether they stay as they are, and do not turn with their place.
        last_size: how large the last one is; those between are between.

    """

    kind: Literal["spin"] = "spin"
    count: Count = 6
    whole_deg: Annotated[Angle, AfterValidator(_some)] = _TURN
    start_deg: Angle = 0.0
    radius: Radius = 0.0
    upright: bool = False
    last_size: Annotated[float, Field(gt=0, le=100, allow_inf_nan=False)] = 1.0

    @property
    def places(self) -> list[Affine]:
        """From what is repeated to where each copy stands."""
        steps = self.count if abs(self.whole_deg) == _TURN else max(self.count - 1, 1)
        return [
            self._place(number, self.whole_deg * number / steps) for number in range(self.count)
        ]

    def size_of(self, number: int) -> float:
        """How large a copy is."""
        return 1.0 + (self.last_size - 1.0) * number / max(self.count - 1, 1)

    def _place(self, number: int, turn: float) -> Affine:
        size = self.size_of(number)
        scaled = Affine.scaling(size, size)
        turned = Affine.rotation_deg(self.start_deg + turn)
        if not self.upright:
            return turned @ Affine.translation(self.radius, 0.0) @ scaled
        x, y = turned.apply_to(self.radius, 0.0)
        return Affine.translation(x, y) @ Affine.rotation_deg(self.start_deg) @ scaled


class Row(_Alike):
    """Copies along the repeat's axes: a row of them, or a grid.

    Attributes:
        columns, rows: how many along x and along y.
        dx, dy: from each to the next.
        shift: how far every other row lies along x.

    """

    kind: Literal["row"] = "row"
    columns: Count = 3
    rows: Count = 1
    dx: Coordinate = 0.0
    dy: Coordinate = 0.0
    shift: Coordinate = 0.0

    @property
    def places(self) -> list[Affine]:
        """From what is repeated to where each copy stands, row by row."""
        return [
            Affine.translation(self.dx * column + self.shift * (row % 2), self.dy * row)
            for row in range(self.rows)
            for column in range(self.columns)
        ]


class Mirror(_Alike):
    """Copies mirrored across axes through the repeat's origin, at equal angles.

    Across one axis there are two halves, across more the whole is a rosette of twice as many
    copies. ``angle_deg`` is that of the first axis.
    """

    kind: Literal["mirror"] = "mirror"
    axes: Annotated[int, Field(ge=1, le=MAX_AXES)] = 1
    angle_deg: Angle = 90.0

    @property
    def places(self) -> list[Affine]:
        """From what is repeated to where each copy stands, in turn round the origin."""
        mirrored = Affine.rotation_deg(2 * self.angle_deg) @ Affine.scaling(1.0, -1.0)
        turns = [Affine.rotation_deg(_TURN * number / self.axes) for number in range(self.axes)]
        return [place for turn in turns for place in (turn, turn @ mirrored)]


Layout: TypeAlias = Annotated[Spin | Row | Mirror, Field(discriminator="kind")]
