"""How is a mark written to a file, and read from one?

The writers that lean on large libraries, ``pixels``, ``pdf``, ``dxf`` and ``icon_font``, are
imported by name where they are wanted.
"""

from dotstack.core.formats.picture import Item, Layer, Painted, Part, Pen, Picture, slug, unique
from dotstack.core.formats.svg import SvgStyle, write_sprite, write_svg
from dotstack.core.formats.svg_file import SvgFile, SvgShape
from dotstack.core.formats.svg_in import read_svg, recover_svg

__all__ = [
    "Item",
    "Layer",
    "Painted",
    "Part",
    "Pen",
    "Picture",
    "SvgFile",
    "SvgShape",
    "SvgStyle",
    "read_svg",
    "recover_svg",
    "slug",
    "unique",
    "write_sprite",
    "write_svg",
]
