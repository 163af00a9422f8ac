"""The fonts that Dot Stack ships with, each with its licence beside it.

``make`` gathers the files from the packages that the front end's lock file pins.
"""

from functools import cache
from pathlib import Path

from dotstack.core.letters import Font, read_font

FOLDER = Path(__file__).parent / "files"


@cache
def shipped() -> dict[str, Font]:
    """All fonts that ship, by their digests."""
    fonts = (read_font(path.read_bytes()) for path in sorted(FOLDER.glob("*/*.ttf")))
    return {font.digest: font for font in fonts}
