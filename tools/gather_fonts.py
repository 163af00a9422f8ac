"""Gathers the fonts that ship from the front end's packages, plain, with their licences.

``python -m tools.gather_fonts``, which ``make`` calls.
"""

from pathlib import Path
from shutil import copyfile, rmtree

from dotstack.core.letters import read_font
from dotstack.fonts import FOLDER

_PACKAGES = Path(__file__).parent.parent / "frontend" / "node_modules"
# By package: its licence, and the files of the styles that ship.
_SHIPPED = {
    "inter-ui": ("LICENSE.txt", "variable/InterVariable*.woff2"),
    **{
        f"@expo-google-fonts/{name}": ("LICENSE_FONT", f"{styles}/*.ttf")
        for name, styles in {
            "arvo": "*",
            "courier-prime": "*",
            "eb-garamond": "[4678]*",
            "limelight": "*",
            "quicksand": "*",
            "rubik": "[3579]*",
            "saira-stencil-one": "*",
        }.items()
    },
}


def main() -> None:
    """Puts all files that ship in place of those that are there."""
    rmtree(FOLDER, ignore_errors=True)
    for package, (licence, styles) in _SHIPPED.items():
        folder = FOLDER / package.split("/")[-1]
        folder.mkdir(parents=True)
        copyfile(_PACKAGES / package / licence, folder / "LICENCE.txt")
        files = sorted((_PACKAGES / package).glob(styles))
        assert files, f"{package} has the styles that ship"
        for file in files:
            (folder / f"{file.stem}.ttf").write_bytes(read_font(file.read_bytes()).data)


if __name__ == "__main__":
    main()
