"""How is a mark written to a file?"""

from dotstack.core.formats.svg import write_svg

__all__ = ["write_svg"]
