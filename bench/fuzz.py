"""Feeds the readers of files what they should not get: part of ``make sweep``.

Each file is a real one with a few faults, told by its number. A reader may take it or refuse
it with an error of the core; anything else, and more than a few seconds for one, fails.
"""

import argparse
import random
import sys
import time
import warnings
from collections import Counter
from collections.abc import Callable
from io import BytesIO

from fontTools.ttLib import TTFont
from PIL import Image

from bench.damage import damaged_svg
from dotstack.core.drawing import Drawing, Evaluator, Plate
from dotstack.core.drawing.assets import kept
from dotstack.core.drawing.drawing_file import read_drawing, write_drawing
from dotstack.core.drawing.kit import KitAsset, KitCollection, KitSection, read_kit, write_kit
from dotstack.core.drawing.pasting import pasted
from dotstack.core.drawing.scene import painted
from dotstack.core.errors import CoreError
from dotstack.core.formats.raster import read_raster
from dotstack.core.letters import (
    Setting,
    Straight,
    outline_of,
    read_font,
    set_words,
    standing,
)
from dotstack.fonts import shipped

_SLOW = 5.0


def _svg(seed: int) -> None:
    names = iter(range(100_000))
    found = pasted(damaged_svg(seed), lambda: f"n{next(names)}")
    list(painted(found.nodes, Evaluator()))


def _whole() -> tuple[bytes, bytes]:
    """A drawing file and a kit that are right."""
    names = iter(range(100))
    nodes = pasted(
        '<svg xmlns="http://www.w3.org/2000/svg"><circle r="9"/>'
        '<path d="M0 0C1 2 3 4 5 0Z"/></svg>',
        lambda: f"n{next(names)}",
    ).nodes
    drawing = Drawing(
        name="Quay", plates=(Plate(id="p", name="Quay", width=64, height=64, nodes=nodes),)
    )
    marks = kept(drawing, [node.id for node in nodes], Evaluator())
    assets = tuple(KitAsset(name=mark.name, node=mark) for mark in marks)
    kit = KitCollection(name="Set", sections=(KitSection(name="Parts", assets=assets),))
    return write_drawing(drawing, Evaluator()), write_kit(kit, Evaluator())


_DRAWING, _KIT = _whole()


def _pictures() -> tuple[bytes, bytes]:
    """A PNG and a JPEG file that are right."""
    image = Image.linear_gradient("L").resize((40, 30)).convert("RGB")
    png, jpeg = BytesIO(), BytesIO()
    image.save(png, "PNG")
    image.save(jpeg, "JPEG")
    return png.getvalue(), jpeg.getvalue()


_PICTURES = _pictures()


def _damaged(seed: int, data: bytes) -> bytes:
    rng = random.Random(seed)
    damaged = bytearray(data)
    for _ in range(rng.randint(1, 6)):
        place = rng.randrange(len(damaged))
        if rng.random() < 0.3:
            del damaged[place : place + rng.randint(1, 200)]
        else:
            damaged[place : place + 1] = rng.randbytes(rng.randint(1, 4))
        damaged = damaged or bytearray(b"x")
    return bytes(damaged)


def _fonts() -> list[bytes]:
    """Fonts that are right: small ones that ship, of fixed and variable outlines, and packed."""
    small = sorted((font.data for font in shipped().values()), key=len)[:4]
    packed = []
    for flavor in ("woff", "woff2"):
        font, made = TTFont(BytesIO(small[0])), BytesIO()
        font.flavor = flavor
        font.save(made)
        packed.append(made.getvalue())
    return [*small, *packed]


_FONTS = _fonts()


def _overwritten(seed: int, data: bytes) -> bytes:
    """The same with a few bytes changed where they are, past the directory: seldom refused."""
    rng = random.Random(seed)
    damaged = bytearray(data)
    for _ in range(rng.randint(1, 30)):
        damaged[rng.randrange(500, len(damaged))] = rng.randrange(256)
    return bytes(damaged)


def _letters(seed: int) -> None:
    """Sets words in a font that may be damaged."""
    spoil = _overwritten if seed % 2 else _damaged
    font = read_font(spoil(seed, _FONTS[seed // 2 % len(_FONTS)]))
    instance = font.at({axis.tag: axis.high for axis in font.axes})
    words = set_words(instance, "fi\né4", Setting(5, 5, 1.2, "middle", {}, {}))
    outline_of(standing(words, instance.drawn, 0.01, Straight()), instance.drawn)


READERS: dict[str, Callable[[int], object]] = {
    "SVG": _svg,
    "kits": lambda seed: read_kit(_damaged(seed, _KIT)),
    "drawing files": lambda seed: read_drawing(_damaged(seed, _DRAWING)),
    "fonts": _letters,
    "pictures": lambda seed: read_raster(_damaged(seed, _PICTURES[seed % 2])),
}


def main() -> int:
    """Feeds all readers, prints a table, and answers 1 if anything failed."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--inputs", type=int, default=20_000, help="for each reader")
    parser.add_argument("--seed", type=int, default=1)
    options = parser.parse_args()
    # What NumPy warns of is a number that should not have come so far.
    warnings.simplefilter("error")
    failed = 0
    print("| files | tried | read | refused | slowest | failures |\n|---|---|---|---|---|---|")
    for name, read in READERS.items():
        told: Counter[str] = Counter()
        slowest = 0.0
        for number in range(options.inputs):
            begun, seed = time.process_time(), options.seed * 1_000_003 + number
            try:
                read(seed)
                told["read"] += 1
            except CoreError:
                told["refused"] += 1
            except Exception as error:
                told["failed"] += 1
                print(f"    {name} {seed}: {type(error).__name__}: {error}", file=sys.stderr)
            spent = time.process_time() - begun
            slowest = max(slowest, spent)
            if spent > _SLOW:
                told["failed"] += 1
                print(f"    {name} {seed}: it took {spent:.1f} s", file=sys.stderr)
        failed += told["failed"]
        print(
            f"| {name} | {options.inputs} | {told['read']} | {told['refused']} | {slowest:.2f} s "
            f"| {told['failed']} |", flush=True,
        )  # fmt: skip
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
