"""Line to outline: the area that a line along an outline covers."""

import numpy as np

from dotstack.core.arrangement import straight
from dotstack.core.combine import union
from dotstack.core.geometry import Contour, Outline, Segments, Tolerance
from dotstack.core.refine.offset import offset, rings
from dotstack.core.values import Cap, Join

# Of its area: by how much a contour may differ from what it goes round, and not cross itself.
_SAME = 1e-9


def stroke(
    outline: Outline,
    width: float,
    join: Join = Join.SHARP,
    limit: float = 4.0,
    cap: Cap = Cap.FLAT,
) -> Outline:
    """The area of a line of this width, centred on all contours.

    Its ends and joins are as SVG has them where nothing is said: flat; sharp, and flat beyond
    a limit of four half widths (SVG 2, section 13.5). As exact as ``offset``. Raises
    GeometryError for a width that is no number, ArrangementError.
    """
    x0, y0, x1, y1 = outline.bounds
    reach = max(map(abs, (x0, y0, x1, y1)))
    tolerance = Tolerance.of_extent(abs(complex(x1 - x0, y1 - y0)), reach)
    # Curves that are straight tell no directions where they stand still.
    contours = [
        Contour(straight.straightened(each.segments, tolerance)[0], each.closed)
        for each in outline.contours
    ]
    areas = [_round(each, width / 2, join, limit) for each in contours if each.closed]
    # All that is open at once: dashes are many.
    loose = Outline.from_contours(each for each in contours if not each.closed)
    if not loose.is_empty:
        areas.append(offset(loose, width / 2, join, limit, cap))
    return union(areas)


def _round(contour: Contour, half: float, join: Join, limit: float) -> Outline:
    """The area of the line along a closed contour."""
    alone = Outline.from_contours([contour])
    area = union([alone])
    if len(area.contours) == 1 and abs(abs(alone.area) - area.area) <= _SAME * area.area:
        return rings(area, [half, -half], join, limit)
    # One that crosses itself is a line that begins anywhere, and comes round to there and a
    # little further, so that it is joined there too.
    rows = contour.segments
    round_ = Segments.concatenate([rows, rows.take(np.arange(1))])
    return offset(Outline.of_line(round_), half, join, limit, Cap.FLAT)
