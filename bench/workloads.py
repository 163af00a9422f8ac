"""The shapes that the engine is timed on; see the README of this folder for what they are."""

import math
import random
from collections.abc import Callable

from dotstack.core import primitives
from dotstack.core.geometry import Affine, Outline


def disc(x: float, y: float, r: float) -> Outline:
    """A circle."""
    return primitives.ellipse(r, r).transformed(Affine.translation(x, y))


def rosette() -> list[Outline]:
    """A disc with 16 discs on its rim."""
    turns = (math.tau * i / 16 for i in range(16))
    return [disc(0, 0, 100), *(disc(100 * math.cos(t), 100 * math.sin(t), 30) for t in turns)]


def gear() -> list[Outline]:
    """A star with 16 tips and three discs on its centre."""
    return [primitives.star(16, 100, 100, 0.6), *(disc(0, 0, r) for r in (80, 50, 20))]


def rings(count: int = 60) -> list[Outline]:
    """Circles and turned ellipses at random, ever as dense."""
    rng = random.Random(5)
    extent = 500 * math.sqrt(count / 60)
    shapes = []
    for i in range(count):
        r = rng.uniform(20, 90)
        shape = primitives.ellipse(r, r if i % 2 else r * rng.uniform(0.3, 0.9))
        by = Affine.translation(rng.uniform(0, extent), rng.uniform(0, extent))
        shapes.append(shape.transformed(by @ Affine.rotation_deg(rng.uniform(0, 360))))
    return shapes


def letters() -> list[Outline]:
    """40 letter-like outlines of lines and curves, with counters, over 20 boxes."""
    rng = random.Random(7)
    bowl = "M0 0H30C55 0 55 38 32 39C62 42 60 84 30 84H0ZM14 12V34H28C42 34 42 12 28 12Z"
    stem = "M0 84L28 0H42L70 84H55L48 62H22L15 84ZM26 50H44L35 20Z"
    curl = "M60 20C52 -6 4 -8 2 22C0 56 46 36 46 62C46 78 16 76 12 60L0 64C6 94 60 92 60 60Z"
    shapes = [
        primitives.rectangle(rng.uniform(60, 200), rng.uniform(40, 90), 8).transformed(
            Affine.translation(rng.uniform(0, 700), rng.uniform(0, 400))
        )
        for _ in range(20)
    ]
    for i in range(40):
        glyph = Outline.from_path_data((bowl, stem, curl)[i % 3])
        shapes.append(glyph.transformed(Affine.translation(i % 10 * 72, i // 10 * 100)))
    return shapes


def blobs(count: int = 200) -> list[Outline]:
    """Smooth closed outlines of cubics at random, ever as dense."""
    rng = random.Random(11)
    extent = 1000 * math.sqrt(count / 200)
    return [blob(rng, rng.uniform(0, extent), rng.uniform(0, extent)) for _ in range(count)]


def blob(rng: random.Random, x: float, y: float) -> Outline:
    """A smooth closed outline of cubics at random, 30 to 90 round a place."""
    n = rng.randint(5, 9)
    reach = [rng.uniform(30, 90) for _ in range(n)]
    nodes = [
        complex(x, y) + r * complex(math.cos(math.tau * i / n), math.sin(math.tau * i / n))
        for i, r in enumerate(reach)
    ]
    data = f"M{nodes[0].real} {nodes[0].imag}"
    for i in range(n):
        before, a, b, after = nodes[i - 1], nodes[i], nodes[(i + 1) % n], nodes[(i + 2) % n]
        points = (a + (b - before) / 6, b - (after - a) / 6, b)
        data += "C" + " ".join(f"{p.real} {p.imag}" for p in points)
    return Outline.from_path_data(data + "Z")


def tiles() -> list[Outline]:
    """400 squares side by side, ten of them twice."""
    squares = [
        Outline.from_path_data(f"M{10 * (i % 20)} {10 * (i // 20)}h10v10h-10z") for i in range(400)
    ]
    return squares + squares[:10]


WORKLOADS: dict[str, Callable[[], list[Outline]]] = {
    "rosette": rosette,
    "gear": gear,
    "rings": rings,
    "letters": letters,
    "blobs": blobs,
    "tiles": tiles,
}
