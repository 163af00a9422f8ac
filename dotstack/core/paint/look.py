"""How is a shape painted? Its look: fill, lines, and what is done with all of it together."""

from collections.abc import Callable
from typing import Annotated, Literal, Self, TypeAlias, get_args

from pydantic import Field

from dotstack.core.paint.fill import Fill, Tint, colour_of, recoloured
from dotstack.core.paint.line import Line
from dotstack.core.values import Colour, Coordinate, Opacity, Radius, Value

INK = "#22303C"
# The fields of a look that are of all that is painted together: a group has its own.
OF_WHOLE = ("opacity", "blend", "shadows", "depth")
MAX_LINES = 20
MAX_SHADOWS = 20
# How far a shadow may be blurred.
MAX_BLUR = 2000.0

# Compositing and Blending Level 1, section 5: the modes by their names there.
Blend: TypeAlias = Literal[
    "normal", "multiply", "screen", "overlay", "darken", "lighten", "color-dodge", "color-burn",
    "hard-light", "soft-light", "difference", "exclusion", "hue", "saturation", "color",
    "luminosity",
]  # fmt: skip
BLENDS: tuple[Blend, ...] = get_args(Blend)


class Shadow(Value):
    """What the whole result casts beneath it, or its edge into it.

    Attributes:
        on: whether it is there.
        dx, dy: how far it lies away, on the plate.
        blur: the width of its soft edge: twice the standard deviation, as CSS has it.
        inside: whether it falls into the shape.

    """

    on: bool = True
    dx: Coordinate = 0.0
    dy: Coordinate = 6.0
    blur: Annotated[float, Field(ge=0, le=MAX_BLUR, allow_inf_nan=False)] = 8.0
    colour: Colour = INK
    opacity: Opacity = 0.4
    inside: bool = False

    def times(self, scale: float) -> Self:
        """The same so much larger."""
        return self.model_copy(
            update={
                "dx": self.dx * scale,
                "dy": self.dy * scale,
                "blur": min(self.blur * scale, MAX_BLUR),
            }
        )


class Depth(Value):
    """The whole result pushed out to a solid, whose front it is.

    Attributes:
        on: whether it is there.
        angle_deg: where it is pushed to, on the plate, from x towards y.
        length: how far.
        colour: of its sides; None for that of the front.
        shaded: whether each side is lighter or darker by where it faces; else all are alike.
        bevel: how wide the slanted edge of the front is; 0 for none.

    """

    on: bool = True
    angle_deg: Annotated[float, Field(allow_inf_nan=False)] = 45.0
    length: Radius = 24.0
    colour: Colour | None = None
    shaded: bool = True
    bevel: Radius = 0.0

    def times(self, scale: float) -> Self:
        """The same so much larger."""
        return self.model_copy(update={"length": self.length * scale, "bevel": self.bevel * scale})


Lines: TypeAlias = Annotated[tuple[Line, ...], Field(max_length=MAX_LINES)]
Shadows: TypeAlias = Annotated[tuple[Shadow, ...], Field(max_length=MAX_SHADOWS)]


class Look(Value):
    """The paint of a shape.

    Attributes:
        fill: what it is filled with, or None for nothing.
        lines: along the outline, the lowest first.
        opacity, blend: of all of it together, on what lies beneath.
        shadows, depth: of all of it together.
        grows: whether lines, shadows and depth are resized with the shape.

    """

    fill: Fill | None = INK
    lines: Lines = ()
    opacity: Opacity = 1.0
    blend: Blend = "normal"
    shadows: Shadows = ()
    depth: Depth | None = None
    grows: bool = False

    @property
    def line(self) -> Line | None:
        """The first of its lines, where one stands for all; None for none."""
        return self.lines[0] if self.lines else None

    @property
    def colour(self) -> str | None:
        """The fill as one colour, that of a gradient its mean; None for no fill."""
        return None if self.fill is None else colour_of(self.fill)

    @property
    def bare(self) -> Self:
        """Its fill and lines alone."""
        return self.model_copy(update=_UNDONE)

    @property
    def acts_on_whole(self) -> bool:
        """Whether anything is done with all of it together."""
        return any(getattr(self, name) != usual for name, usual in _UNDONE.items())

    @property
    def of_whole(self) -> Self:
        """What is done with all of it together, alone."""
        return self.model_copy(update={"fill": None, "lines": ()})

    @property
    def reach(self) -> float:
        """How far outside the outline its lines ink, but for the points of sharp joins."""
        return max((line.reach for line in self.lines), default=0.0)

    def times(self, scale: float) -> Self:
        """The same with its lengths so much larger."""
        return self.model_copy(
            update={
                "lines": tuple(line.times(scale) for line in self.lines),
                "shadows": tuple(shadow.times(scale) for shadow in self.shadows),
                "depth": self.depth and self.depth.times(scale),
            }
        )

    def tinted(self, tint: Tint) -> Self:
        """The same with its fill mixed with a colour."""
        return self.model_copy(update={"fill": self.fill and tint.over(self.fill)})

    def recoloured(self, colour: Callable[[str], str]) -> Self:
        """The same with each of its colours exchanged."""
        depth = self.depth
        if depth and depth.colour:
            depth = depth.model_copy(update={"colour": colour(depth.colour)})
        return self.model_copy(
            update={
                "fill": None if self.fill is None else recoloured(self.fill, colour),
                "lines": tuple(line.recoloured(colour) for line in self.lines),
                "shadows": tuple(
                    shadow.model_copy(update={"colour": colour(shadow.colour)})
                    for shadow in self.shadows
                ),
                "depth": depth,
            }
        )


# What the fields are of that are of the whole, where nothing is done with it.
_UNDONE = {name: Look.model_fields[name].default for name in OF_WHOLE}
