"""Pixels out: pictures as PNG, as icons of several sizes, and as all that a site wants."""

import json
from collections.abc import Sequence
from dataclasses import replace
from io import BytesIO
from xml.sax.saxutils import escape, quoteattr

import resvg_py
from PIL import Image, ImageChops, ImageFilter

from dotstack.core.formats.picture import Box, Layer, Part, Picture, extent, slug
from dotstack.core.formats.svg import SvgStyle, write_svg
from dotstack.core.paint import Shadow

# Of pictures of shadows: how many pixels a soft edge has, a unit has at most, and a side.
_PIXELS_A_BLUR = 12
_FINEST = 4.0
_MOST_SHADOW = 1600
_SITE_SIZES = (16, 32, 48, 180, 192, 512)


def write_png(picture: Picture, size: int) -> bytes:
    """A picture as PNG; ``size`` pixels is its longer side."""
    _, _, width, height = picture.box
    scale = size / max(width, height)
    return bytes(
        resvg_py.svg_to_bytes(
            svg_string=write_svg(picture, SvgStyle(words=False, quick=True)),
            skip_system_fonts=True,
            width=max(1, round(width * scale)),
            height=max(1, round(height * scale)),
        )
    )


def shadow_picture(layer: Layer, shadow: Shadow) -> tuple[bytes, Box]:
    """A shadow that a layer casts, as PNG, and where it lies.

    What is soft needs no more pixels than its edge has widths.
    """
    alone = Layer(layer.items)
    x0, y0, x1, y1 = extent(replace(alone, shadows=(shadow,)), tips=True)
    fine = _PIXELS_A_BLUR / shadow.blur if shadow.blur else _FINEST
    scale = min(fine, _FINEST, _MOST_SHADOW / max(x1 - x0, y1 - y0))
    picture = Picture("shadow", (x0, y0, x1 - x0, y1 - y0), (Part("shadow", (alone,)),))
    size = max(1, round(scale * max(x1 - x0, y1 - y0)))
    with Image.open(BytesIO(write_png(picture, size))) as read:
        shape = read.convert("RGBA").getchannel("A")
    across, down = shape.width / (x1 - x0), shape.height / (y1 - y0)
    cast = ImageChops.invert(shape) if shadow.inside else shape
    cast = cast.transform(
        cast.size,
        Image.Transform.AFFINE,
        (1, 0, -shadow.dx * across, 0, 1, -shadow.dy * down),
        Image.Resampling.BILINEAR,
        fillcolor=255 if shadow.inside else 0,
    )
    cast = cast.filter(ImageFilter.GaussianBlur((shadow.blur / 2 * across, shadow.blur / 2 * down)))
    if shadow.inside:
        cast = ImageChops.multiply(cast, shape)
    image = Image.new("RGBA", shape.size, shadow.colour)
    image.putalpha(cast.point([round(shadow.opacity * level) for level in range(256)]))
    made = BytesIO()
    image.save(made, format="PNG")
    return made.getvalue(), (x0, y0, x1, y1)


def write_ico(picture: Picture, sizes: Sequence[int]) -> bytes:
    """A picture as one icon file with an image of each size, its longer side; square all."""
    images = [_square(picture, size) for size in sorted(sizes)]
    made = BytesIO()
    shapes = [image.size for image in images]
    images[-1].save(made, format="ICO", sizes=shapes, append_images=images[:-1])
    return made.getvalue()


def write_site_icons(picture: Picture) -> dict[str, bytes]:
    """The files that a site shows in tabs and on home screens, by name, and how to name them."""
    name = slug(picture.name)
    files = {
        f"{name}.svg": write_svg(picture).encode(),
        "favicon.ico": write_ico(picture, (16, 32, 48)),
    }
    for size in _SITE_SIZES:
        made = BytesIO()
        _square(picture, size).save(made, format="PNG", optimize=True)
        files[f"{name}-{size}.png"] = made.getvalue()
    manifest = {
        "name": picture.name,
        "icons": [
            {"src": f"{name}-{size}.png", "sizes": f"{size}x{size}", "type": "image/png"}
            for size in (192, 512)
        ],
    }
    files["site.webmanifest"] = json.dumps(manifest, indent=2).encode()
    links = (
        f'<link rel="icon" href="{name}.svg" type="image/svg+xml">',
        '<link rel="icon" href="favicon.ico" sizes="16x16 32x32 48x48">',
        f'<link rel="icon" href="{name}-180.png" sizes="180x180" type="image/png">',
        '<link rel="manifest" href="site.webmanifest">',
        f"<title>{escape(picture.name)}</title>",
        f'<img src="{name}.svg" width="256" height="256" alt={quoteattr(picture.name)}>',
    )
    page = "\n".join(("<!doctype html>", '<meta charset="utf-8">', *links, ""))
    files["example.html"] = page.encode()
    return files


def _square(picture: Picture, size: int) -> Image.Image:
    """The picture in the middle of a square; what is added is clear, or of its ground."""
    with Image.open(BytesIO(write_png(picture, size))) as read:
        image = read.convert("RGBA")
    square = Image.new("RGBA", (size, size), picture.ground or (0, 0, 0, 0))
    square.paste(image, ((size - image.width) // 2, (size - image.height) // 2))
    return square
