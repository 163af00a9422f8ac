"""PDF out: one page a picture, all vector but for soft shadows.

PDF knows no arcs: these become cubics.
"""

from collections.abc import Callable, Iterable
from io import BytesIO

from reportlab.lib.colors import HexColor
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import FILL_EVEN_ODD, FILL_NON_ZERO
from reportlab.pdfgen.pathobject import PDFPathObject

from dotstack.core.formats.conic import in_wedges
from dotstack.core.formats.pdf_canvas import LayeredCanvas
from dotstack.core.formats.pen import Point, draw
from dotstack.core.formats.picture import (
    Item,
    Layer,
    Painted,
    Pen,
    Picture,
    Shading,
    changed,
    extent,
)
from dotstack.core.formats.pixels import shadow_picture
from dotstack.core.geometry import FillRule, Outline
from dotstack.core.paint import BLENDS
from dotstack.core.values import Cap, Join

# CSS 2.1, section 4.3.2: a pixel is 1/96 inch, a point 1/72.
_POINTS = 72 / 96
_JOINS = {Join.SHARP: 0, Join.ROUND: 1, Join.FLAT: 2}
# ISO 32000-1, tables 136 and 137: as those of CSS, written otherwise.
_BLENDS = {mode: "".join(map(str.capitalize, mode.split("-"))) for mode in BLENDS}


def write_pdf(pictures: Iterable[Picture]) -> bytes:
    """Pictures as the pages of one document, each as large as the picture."""
    pictures = list(pictures)
    made = BytesIO()
    canvas = LayeredCanvas(made, pageCompression=1, invariant=1)
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
        for part in picture.parts:
            for item in changed(part.items, in_wedges):
                _paint(canvas, item)
        canvas.showPage()
    canvas.save()
    return made.getvalue()


def _paint(canvas: LayeredCanvas, item: Item) -> None:
    """Paints an item; raises AssertionError for a line with a gradient, which PDF has not."""
    canvas.saveState()
    if item.clip:
        drawn = _drawn(canvas, item.clip)
        canvas.clipPath(drawn, stroke=0, fill=0, fillMode=_mode(item.clip.fill_rule))
    if item.blend != "normal":
        canvas.setBlendMode(_BLENDS[item.blend])
    if isinstance(item, Layer):
        _paint_layer(canvas, item)
    elif item.opacity < 1.0 and item.fill and item.line:
        _as_one(canvas, item, lambda: _paint_alone(canvas, item, 1.0))
    else:
        _paint_alone(canvas, item, item.opacity)
    canvas.restoreState()


def _paint_layer(canvas: LayeredCanvas, layer: Layer) -> None:
    def draw_items() -> None:
        for inner in layer.items:
            _paint(canvas, inner)

    def draw() -> None:
        _cast(canvas, layer, inside=False)
        if layer.shadows and _blends(layer):
            # What blends in it does not blend with its shadows.
            canvas.doForm(canvas.layer(extent(layer, tips=True), draw_items))
        else:
            draw_items()
        _cast(canvas, layer, inside=True)

    if layer.opacity == 1.0 and layer.blend == "normal" and not _blends(layer):
        draw()
    else:
        _as_one(canvas, layer, draw)


def _blends(layer: Layer) -> bool:
    """Whether anything in it would look otherwise on what lies beneath than by itself."""
    return any(
        item.blend != "normal" or (isinstance(item, Layer) and _blends(item))
        for item in layer.items
    )


def _as_one(canvas: LayeredCanvas, item: Item, draw: Callable[[], None]) -> None:
    """Lays what is drawn on the rest as one, as dense as the item is."""
    name = canvas.layer(extent(item, tips=True), draw)
    canvas.setFillAlpha(item.opacity)
    canvas.doForm(name)


def _cast(canvas: LayeredCanvas, layer: Layer, *, inside: bool) -> None:
    """Shadows as a picture: PDF knows no blur."""
    for shadow in reversed(layer.shadows):
        if shadow.inside is not inside:
            continue
        png, (x0, y0, x1, y1) = shadow_picture(layer, shadow)
        canvas.saveState()
        # Pictures stand on their feet.
        canvas.transform(1, 0, 0, -1, 0, y0 + y1)
        image = ImageReader(BytesIO(png))
        canvas.drawImage(image, x0, y0, x1 - x0, y1 - y0, mask="auto")
        canvas.restoreState()


def _paint_alone(canvas: LayeredCanvas, painted: Painted, opacity: float) -> None:
    line, fill = painted.line, painted.fill
    if isinstance(fill, Shading):
        _shade(canvas, painted, fill, opacity)
    elif fill:
        canvas.setFillColor(HexColor(fill), alpha=opacity)
    if line:
        if isinstance(line.ink, Shading):
            raise AssertionError("a line with a gradient is an area by then")
        _take_pen(canvas, line, opacity)
    canvas.drawPath(
        _drawn(canvas, painted.outline),
        stroke=int(line is not None),
        fill=int(isinstance(fill, str)),
        fillMode=_mode(painted.outline.fill_rule),
    )


def _take_pen(canvas: LayeredCanvas, pen: Pen, opacity: float) -> None:
    stroke = pen.stroke
    canvas.setStrokeColor(HexColor(pen.colour), alpha=opacity)
    canvas.setLineWidth(stroke.width)
    canvas.setLineCap(list(Cap).index(stroke.cap))
    canvas.setLineJoin(_JOINS[stroke.join])
    canvas.setMiterLimit(stroke.limit)
    if stroke.dashes:
        pattern = stroke.dashes.pattern * (1 + len(stroke.dashes.pattern) % 2)
        canvas.setDash(list(pattern), stroke.dashes.start % sum(pattern))


def _shade(canvas: LayeredCanvas, painted: Painted, shading: Shading, opacity: float) -> None:
    canvas.saveState()
    drawn = _drawn(canvas, painted.outline)
    canvas.clipPath(drawn, stroke=0, fill=0, fillMode=_mode(painted.outline.fill_rule))
    if any(stop.opacity < 1.0 for stop in shading.gradient.stops):
        canvas.gradient_mask(shading, painted.outline.bounds)
    canvas.setFillAlpha(opacity)
    canvas.gradient(shading)
    canvas.restoreState()


def _mode(rule: FillRule) -> int:
    return int(FILL_EVEN_ODD if rule == "evenodd" else FILL_NON_ZERO)


def _drawn(canvas: LayeredCanvas, outline: Outline) -> PDFPathObject:
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
