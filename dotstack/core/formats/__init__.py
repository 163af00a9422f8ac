"""How is a mark written to a file, and read from one?"""

from dotstack.core.formats.svg import SvgPath, write_svg
from dotstack.core.formats.svg_in import SvgFile, SvgShape, read_svg

__all__ = ["SvgFile", "SvgPath", "SvgShape", "read_svg", "write_svg"]
