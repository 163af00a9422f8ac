"""How what is made of shapes takes their paint."""

from dotstack.core.combine import Ink
from dotstack.core.geometry import Outline
from dotstack.core.paint import INK, LINE_WIDTH, Line, Look


def look_of(outline: Outline, paint: Look, ink: Ink = Ink.ALL) -> Look:
    """How a piece looks in a paint, or in what ``ink`` takes of it.

    A line is not filled; one without paint of its own is drawn in the fill's colour.
    """
    own = paint.lines or (Line(paint=paint.colour or INK, width=LINE_WIDTH),)
    changes: dict[str, object]
    if ink is Ink.SEAM:
        seam = Line(paint=paint.colour or INK, width=own[0].width)
        changes = {"fill": None, "lines": (seam,)}
    elif ink is Ink.LINE or not outline.closed.any():
        changes = {"fill": None, "lines": own}
    elif ink is Ink.FILLED and paint.fill is None:
        changes = {"fill": own[0].paint}
    elif ink is Ink.FILL:
        changes = {"lines": ()}
    else:
        return paint
    return paint.model_copy(update=changes)
