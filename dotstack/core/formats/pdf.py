"""PDF out: one page a picture, all vector. PDF knows no arcs: these become cubics."""

from collections.abc import Iterable
from io import BytesIO

from reportlab.lib.colors import HexColor
from reportlab.pdfgen.canvas import FILL_EVEN_ODD, FILL_NON_ZERO, Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from dotstack.core.formats.pen import Point, draw
from dotstack.core.formats.picture import PaintedPath, Picture, Shading
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
        for path in picture.paths:
            _paint(canvas, path)
        canvas.showPage()
    canvas.save()
    return made.getvalue()


def _paint(canvas: Canvas, path: PaintedPath) -> None:
    canvas.saveState()
    if path.clip:
        canvas.clipPath(_drawn(canvas, path.clip), stroke=0, fill=0)
    if path.shading:
        _shade(canvas, path, path.shading)
    elif path.fill:
        canvas.setFillColor(HexColor(path.fill), alpha=path.opacity)
    if path.stroke:
        canvas.setStrokeColor(HexColor(path.stroke), alpha=path.opacity)
        canvas.setLineWidth(1.0 if path.stroke_width is None else path.stroke_width)
    canvas.drawPath(
        _drawn(canvas, path.path),
        stroke=int(path.stroke is not None),
        fill=int(path.fill is not None and path.shading is None),
        fillMode=_mode(path.fill_rule),
    )
    canvas.restoreState()


def _shade(canvas: Canvas, path: PaintedPath, shading: Shading) -> None:
    """Paints a path's gradient; its stops have no opacity of their own in PDF."""
    stops = shading.stops
    colours = [HexColor(stop.colour) for stop in (stops[0], *stops, stops[-1])]
    places = [0.0, *(stop.at for stop in stops), 1.0]
    canvas.saveState()
    canvas.setFillAlpha(path.opacity)
    drawn = _drawn(canvas, path.path)
    canvas.clipPath(drawn, stroke=0, fill=0, fillMode=_mode(path.fill_rule))
    canvas.transform(*shading.matrix)
    if shading.shape == "linear":
        canvas.linearGradient(0, 0, 1, 0, colours, places, extend=True)
    else:
        canvas.radialGradient(0, 0, 1, colours, places, extend=True)
    canvas.restoreState()


def _mode(rule: FillRule) -> int:
    return int(FILL_EVEN_ODD if rule == "evenodd" else FILL_NON_ZERO)


def _drawn(canvas: Canvas, data: str) -> PDFPathObject:
    drawn = canvas.beginPath()
    draw(Outline.from_path_data(data), _PathPen(drawn))
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
