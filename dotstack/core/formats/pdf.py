"""PDF out: one page a picture, all vector. PDF knows no arcs: these become cubics."""

from collections.abc import Iterable
from io import BytesIO

from reportlab.lib.colors import HexColor
from reportlab.pdfgen.canvas import FILL_EVEN_ODD, FILL_NON_ZERO, Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from dotstack.core.formats.pen import Point, draw
from dotstack.core.formats.picture import Painted, Picture, Shading
from dotstack.core.geometry import FillRule, Outline

# CSS 2.1, section 4.3.2: a pixel is 1/96 inch, a point 1/72.
_POINTS = 72 / 96


def write_pdf(pictures: Iterable[Picture]) -> bytes:
    """Pictures as the pages of one document, each as large as the picture."""
    pictures = list(pictures)
    made = BytesIO()
    canvas = Canvas(made, pageCompression=1, invariant=1)
    canvas.setTitle(pictures[0].name if len(pictures) == 1 else f"{len(pictures)} marks")
    canvas.setCreator("Dot Stack")
    canvas.setProducer("Dot Stack")
    for picture in pictures:
        x, y, width, height = picture.box
        canvas.setPageSize((width * _POINTS, height * _POINTS))
        canvas.bookmarkPage(picture.name)
        canvas.transform(_POINTS, 0, 0, -_POINTS, -x * _POINTS, (y + height) * _POINTS)
        if picture.ground:
            canvas.setFillColor(HexColor(picture.ground))
            canvas.rect(x, y, width, height, stroke=0, fill=1)
        for painted in picture.painted:
            _paint(canvas, painted)
        canvas.showPage()
    canvas.save()
    return made.getvalue()


def _paint(canvas: Canvas, painted: Painted) -> None:
    canvas.saveState()
    if painted.clip:
        canvas.clipPath(_drawn(canvas, painted.clip), stroke=0, fill=0)
    line, fill = painted.line, painted.fill
    if isinstance(fill, Shading):
        _shade(canvas, painted, fill)
    elif fill:
        canvas.setFillColor(HexColor(fill), alpha=painted.opacity)
    if line:
        canvas.setStrokeColor(HexColor(line.colour), alpha=painted.opacity)
        canvas.setLineWidth(line.width)
    canvas.drawPath(
        _drawn(canvas, painted.outline),
        stroke=int(line is not None),
        fill=int(isinstance(fill, str)),
        fillMode=_mode(painted.outline.fill_rule),
    )
    canvas.restoreState()


def _shade(canvas: Canvas, painted: Painted, shading: Shading) -> None:
    """Paints a gradient; its stops have no opacity of their own in PDF."""
    stops, there = shading.gradient.stops, shading.affine
    colours = [HexColor(stop.colour) for stop in (stops[0], *stops, stops[-1])]
    places = [0.0, *(stop.at for stop in stops), 1.0]
    canvas.saveState()
    canvas.setFillAlpha(painted.opacity)
    drawn = _drawn(canvas, painted.outline)
    canvas.clipPath(drawn, stroke=0, fill=0, fillMode=_mode(painted.outline.fill_rule))
    canvas.transform(there.a, there.b, there.c, there.d, there.e, there.f)
    if shading.gradient.shape == "linear":
        canvas.linearGradient(0, 0, 1, 0, colours, places, extend=True)
    else:
        canvas.radialGradient(0, 0, 1, colours, places, extend=True)
    canvas.restoreState()


def _mode(rule: FillRule) -> int:
    return int(FILL_EVEN_ODD if rule == "evenodd" else FILL_NON_ZERO)


def _drawn(canvas: Canvas, outline: Outline) -> PDFPathObject:
    drawn = canvas.beginPath()
    draw(outline, _PathPen(drawn))
    return drawn


class _PathPen:
    """Draws on a path of a PDF document."""

    def __init__(self, path: PDFPathObject) -> None:
        self._path = path

    def moveTo(self, pt: Point) -> None:  # noqa: N802
        self._path.moveTo(*pt)

    def lineTo(self, pt: Point) -> None:  # noqa: N802
        self._path.lineTo(*pt)

    def curveTo(self, *points: Point) -> None:  # noqa: N802
        self._path.curveTo(*(value for point in points for value in point))

    def closePath(self) -> None:  # noqa: N802
        self._path.close()

    def endPath(self) -> None:  # noqa: N802
        """A path of PDF is open until it is closed."""
