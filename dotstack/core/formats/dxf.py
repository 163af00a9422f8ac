"""DXF out, for machines that cut: closed polylines of lines and true arcs, in millimetres."""

from collections.abc import Iterable
from io import StringIO

import numpy as np
from ezdxf import filemanagement, units
from ezdxf.colors import rgb2int
from ezdxf.document import Drawing

from dotstack.core.formats.picture import Picture, slug
from dotstack.core.geometry import Affine, Outline
from dotstack.core.geometry.respelling import bulged

# CSS 2.1, section 4.3.2.
MM_PER_UNIT = 25.4 / 96
_GAP = 10.0


def write_dxf(pictures: Iterable[Picture], tolerance: float, width: float | None = None) -> str:
    """Pictures side by side, each shape's outline on the layer of its colour.

    ``tolerance`` says, in millimetres, how far arcs may lie from what is neither line nor
    circle; ``width`` how wide each picture is to be there, where that is not its own size.
    """
    document = filemanagement.new("R2010", setup=False)
    document.units = units.MM
    document.header["$MEASUREMENT"] = 1
    right = 0.0
    for picture in pictures:
        x, y, across, down = picture.box
        scale = width / across if width else MM_PER_UNIT
        # Up is up in DXF.
        there = Affine(a=scale, d=-scale, e=right - x * scale, f=(y + down) * scale)
        for painted in picture.painted:
            line = painted.line
            colour = painted.colour or (line.colour if line else None)
            outline = painted.outline.transformed(there)
            _add(document, outline, _layer(document, colour), tolerance)
        right += across * scale + _GAP
    made = StringIO()
    document.write(made)
    return made.getvalue()


def _layer(document: Drawing, colour: str | None) -> str:
    name = slug(f"colour {colour}") if colour else "no-colour"
    if name not in document.layers:
        layer = document.layers.add(name)
        if colour:
            layer.dxf.true_color = rgb2int(
                tuple(int(colour[i : i + 2], 16) for i in (1, 3, 5))  # type: ignore[arg-type]
            )
    return name


def _add(document: Drawing, outline: Outline, layer: str, tolerance: float) -> None:
    for contour in outline.contours:
        points, bulges = bulged(contour.segments, tolerance)
        if not contour.closed:
            points = np.append(points, contour.segments.end[-1:])
            bulges = np.append(bulges, 0.0)
        document.modelspace().add_lwpolyline(
            np.column_stack([points.real, points.imag, bulges]).tolist(),
            format="xyb",
            close=bool(contour.closed),
            dxfattribs={"layer": layer},
        )
