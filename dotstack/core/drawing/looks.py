"""How what is made of shapes takes their paint."""

from collections.abc import Callable

from dotstack.core.combine import Ink
from dotstack.core.geometry import Outline
from dotstack.core.paint import INK, LINE_WIDTH, Gradient, Line, Look


def look_of(outline: Outline, paint: Look, ink: Ink = Ink.ALL) -> Look:
    """How a piece looks in a paint, or in what ``ink`` takes of it.

    A line is not filled; one without paint of its own is drawn in the fill's colour.
    """
    own = paint.line or Line(colour=paint.colour or INK, width=LINE_WIDTH)
    if ink is Ink.SEAM:
        seam = Line(colour=paint.colour or INK, width=own.width)
        return Look(fill=None, line=seam, opacity=paint.opacity)
    if ink is Ink.LINE or not outline.closed.any():
        return Look(fill=None, line=own, opacity=paint.opacity)
    fill = own.colour if ink is Ink.FILLED and paint.fill is None else paint.fill
    line = None if ink is Ink.FILL else paint.line
    return Look(fill=fill, line=line, opacity=paint.opacity)


def recoloured(look: Look, colour: Callable[[str], str]) -> Look:
    """The look with each of its colours exchanged."""
    fill, line = look.fill, look.line
    if isinstance(fill, Gradient):
        stops = tuple(
            stop.model_copy(update={"colour": colour(stop.colour)}) for stop in fill.stops
        )
        fill = fill.model_copy(update={"stops": stops})
    elif fill is not None:
        fill = colour(fill)
    if line:
        line = line.model_copy(update={"colour": colour(line.colour)})
    return look.model_copy(update={"fill": fill, "line": line})
