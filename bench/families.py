"""Hard families of shapes, made at random from a seed, for ``bench.sweep``."""

import math
import random
from collections.abc import Callable
from itertools import pairwise

import numpy as np

from dotstack.core import primitives
from dotstack.core.combine import difference, intersection, union
from dotstack.core.geometry import Affine, Contour, Outline

Family = Callable[[random.Random], list[Outline]]


def _length(rng: random.Random) -> float:
    return float(rng.randint(1, 6)) if rng.random() < 0.5 else rng.uniform(0.5, 6)


def _place(rng: random.Random) -> float:
    return float(rng.randint(0, 10)) if rng.random() < 0.6 else rng.uniform(0, 10)


def _angle(rng: random.Random) -> float:
    return rng.choice([0.0, 30.0, 45.0, 90.0, rng.uniform(0, 360)])


def primitive(rng: random.Random) -> Outline:
    """A primitive somewhere, often of typed numbers."""
    a, b = _length(rng), _length(rng)
    outline = rng.choice(
        [
            lambda: primitives.ellipse(a, a),
            lambda: primitives.ellipse(a, b),
            lambda: primitives.rectangle(a, b, rng.choice([0.0, 0.5, 9.0])),
            lambda: primitives.polygon(rng.randint(3, 9), a, b),
            lambda: primitives.star(rng.randint(3, 9), a, a, rng.uniform(0.2, 1)),
        ]
    )()
    by = Affine.translation(_place(rng), _place(rng)) @ Affine.rotation_deg(_angle(rng))
    return outline.transformed(by)


def blob(rng: random.Random) -> Outline:
    """Cubics with any handles: loops, cusps, folds."""
    data = f"M{_place(rng)} {_place(rng)}"
    for _ in range(rng.randint(1, 3)):
        data += "C" + " ".join(str(_place(rng)) for _ in range(6))
    return Outline.from_path_data(data + "Z")


def polygon(rng: random.Random) -> Outline:
    """A polygon that may cross itself."""
    points = [f"{_place(rng)} {_place(rng)}" for _ in range(rng.randint(3, 7))]
    return Outline.from_path_data("M" + "L".join(points) + "Z")


def anything(rng: random.Random) -> Outline:
    """Any of the above."""
    return rng.choice([primitive, primitive, blob, polygon])(rng)


def mixed(rng: random.Random) -> list[Outline]:
    """Two to four shapes of any kind."""
    return [anything(rng) for _ in range(rng.randint(2, 4))]


def blobs(rng: random.Random) -> list[Outline]:
    """Cubics alone."""
    return [blob(rng) for _ in range(rng.randint(2, 4))]


def near_copies(rng: random.Random) -> list[Outline]:
    """A shape and copies of it, turned or moved by 1e-2 to 1e-12."""
    outline = anything(rng)
    copies = [outline]
    for _ in range(rng.randint(1, 2)):
        by = 10.0 ** -rng.randint(2, 12)
        turn, move = Affine.rotation_deg(math.degrees(by)), Affine.translation(by, -by / 2)
        copies.append(outline.transformed(rng.choice([turn, move])))
    return copies


def tangent(rng: random.Random) -> list[Outline]:
    """Circles that touch a first one, and boxes and lines along it, turned together."""
    r, s = _length(rng), _length(rng)
    shapes = [primitives.ellipse(r, r)]
    for _ in range(rng.randint(1, 3)):
        turn = math.radians(_angle(rng))
        reach = r + rng.choice([s, -s])
        centre = Affine.translation(reach * math.cos(turn), reach * math.sin(turn))
        shapes.append(primitives.ellipse(s, s).transformed(centre))
    shapes.append(primitives.rectangle(2 * r, s).transformed(Affine.translation(0, r + s / 2)))
    by = Affine.translation(_place(rng), _place(rng)) @ Affine.rotation_deg(_angle(rng))
    return [shape.transformed(by) for shape in shapes]


def concentric(rng: random.Random) -> list[Outline]:
    """Shapes on one centre, some of them equal but for their start."""
    by = Affine.translation(_place(rng), _place(rng))
    shapes = [primitives.ellipse(_length(rng), _length(rng)) for _ in range(rng.randint(1, 2))]
    r = _length(rng)
    for _ in range(rng.randint(2, 3)):
        shapes.append(primitives.ellipse(r, r).transformed(Affine.rotation_deg(_angle(rng))))
    return [shape.transformed(by) for shape in shapes]


def restarted(rng: random.Random) -> list[Outline]:
    """A shape, and the same cut at other places, begun elsewhere, or run backwards."""
    outline = anything(rng)
    contours = []
    for contour in outline.contours:
        segments = contour.segments
        cuts = sorted([0.0, 1.0, *(rng.random() for _ in range(rng.randint(0, 2)))])
        parts = [
            segments.pieces(np.array([i]), np.array([low]), np.array([high]))
            for i in range(len(segments))
            for low, high in pairwise(cuts)
        ]
        first = rng.randrange(len(parts))
        parts = parts[first:] + parts[:first]
        if rng.random() < 0.5:
            parts = [part.reversed() for part in reversed(parts)]
        contours.append(Contour(type(segments).concatenate(parts), closed=True))
    return [outline, Outline.from_contours(contours)]


def shared_edges(rng: random.Random) -> list[Outline]:
    """Boxes side by side, turned as one."""
    by = Affine.translation(_place(rng), _place(rng)) @ Affine.rotation_deg(rng.uniform(0, 360))
    size = _length(rng)
    boxes = []
    for _ in range(rng.randint(2, 6)):
        across, down = rng.randint(0, 2), rng.randint(0, 2)
        box = primitives.rectangle(size, size * rng.choice([1, 2]))
        boxes.append(box.transformed(Affine.translation(across * size, down * size)))
    return [box.transformed(by) for box in boxes]


def slivers(rng: random.Random) -> list[Outline]:
    """Shapes of which one is almost flat."""
    by = Affine.rotation_deg(_angle(rng)) @ Affine.scaling(1, 10.0 ** -rng.randint(2, 8))
    return [anything(rng), anything(rng).transformed(by), anything(rng)]


def parts(rng: random.Random) -> list[Outline]:
    """What two shapes leave of each other, with one of them."""
    one, other = anything(rng), anything(rng)
    left = [difference(one, [other]), intersection([one, other]), difference(other, [one])]
    return [other, *(part for part in left if not part.is_empty)]


def generations(rng: random.Random) -> list[Outline]:
    """A result of ten generations, each combined with one more shape, and another shape."""
    result = anything(rng)
    for _ in range(10):
        other = anything(rng)
        result = union([result, other]) if rng.random() < 0.6 else difference(result, [other])
        if result.is_empty:
            result = anything(rng)
    return [result, anything(rng)]


def scaled(rng: random.Random) -> list[Outline]:
    """Shapes at another size, and up to a million units away."""
    scale = rng.choice([1e-3, 1.0, 1e3])
    away = rng.choice([0.0, 1e3, 1e6])
    by = Affine.translation(away, -away) @ Affine.scaling(scale)
    return [shape.transformed(by) for shape in mixed(rng)]


def osculating(rng: random.Random) -> list[Outline]:
    """Cubics that end alike: they agree in direction and curvature where they meet."""
    shared = " ".join(str(_place(rng)) for _ in range(6))
    data = f"M{_place(rng)} {_place(rng)}C{shared}"
    if rng.random() < 0.7:
        return [Outline.from_path_data(f"{data}C{shared}Z"), anything(rng)]
    other = f"M{_place(rng)} {_place(rng)}C{shared}Z"
    return [Outline.from_path_data(data + "Z"), Outline.from_path_data(other)]


def slow_ends(rng: random.Random) -> list[Outline]:
    """Cubics whose handles lie on their ends or in line with them: no speed there, no bend."""

    def curve(start: complex) -> tuple[complex, complex, complex]:
        end = complex(_place(rng), _place(rng))
        first, second = (start + rng.uniform(-0.5, 1.5) * (end - start) for _ in range(2))
        free = complex(_place(rng), _place(rng))
        return rng.choice([start, first, free]), rng.choice([end, second, start, free]), end

    shapes = []
    for _ in range(rng.randint(1, 3)):
        at = complex(_place(rng), _place(rng))
        data = f"M{at.real} {at.imag}"
        for _ in range(rng.randint(2, 4)):
            points = curve(at)
            data += "C" + " ".join(f"{point.real} {point.imag}" for point in points)
            at = points[-1]
        shapes.append(Outline.from_path_data(data + "Z"))
    return [*shapes, anything(rng)]


def _curve(*points: complex) -> str:
    return "C" + " ".join(f"{point.real!r} {point.imag!r}" for point in points)


def _polygon(points: list[complex]) -> Outline:
    return Outline.from_path_data("M" + "L".join(f"{p.real!r} {p.imag!r}" for p in points) + "Z")


def _vector(rng: random.Random, reach: float) -> complex:
    return complex(rng.uniform(-reach, reach), rng.uniform(-reach, reach))


def handles_on_nodes(rng: random.Random) -> list[Outline]:
    """Leaves that begin with a handle on its node, cut off further on, and what touches them."""
    node, tip = complex(_place(rng), _place(rng)), _vector(rng, 8)
    first = node + _vector(rng, 1) * rng.choice([0.0, 1e-15, 1e-13, 1e-10, 1e-7, 1e-5])
    data = f"M{node.real!r} {node.imag!r}" + _curve(first, node + _vector(rng, 8), node + tip)
    across = node.real + tip.real * rng.uniform(0.2, 0.9)
    box = primitives.rectangle(40, 90).transformed(
        Affine.translation(across + math.copysign(20, tip.real), node.imag)
    )
    leaf = difference(Outline.from_path_data(data + "Z"), [box])
    return [leaf, _polygon([node, node + _vector(rng, 5), node + _vector(rng, 5)])]


def cusps(rng: random.Random) -> list[Outline]:
    """Curves with a cusp, passed there by a line, both off by a rounding or more."""
    tip, way, side = complex(_place(rng), _place(rng)), _vector(rng, 2), _vector(rng, 2)
    noise = 10.0 ** -rng.randint(8, 17)

    def off() -> complex:
        return _vector(rng, noise)

    # Halved by de Casteljau where its speed is none.
    data = f"M{(tip + way + side).real!r} {(tip + way + side).imag!r}"
    data += _curve(tip + 2 * way / 3 + off(), tip + off(), tip + off())
    data += _curve(tip + off(), tip + 2 * way / 3 + off(), tip + way - side)
    ahead = _vector(rng, 3)
    passing = [tip + off(), tip + ahead, tip + ahead + _vector(rng, 3), tip - rng.random() * ahead]
    return [Outline.from_path_data(data + "Z"), _polygon(passing)]


def sharp_bends(rng: random.Random) -> list[Outline]:
    """Curves that overshoot and come back, or hardly move, and turn within next to nothing."""
    small = 10.0 ** -rng.uniform(1, 12)
    start, way, side = complex(_place(rng), _place(rng)), _vector(rng, 8), _vector(rng, 8)

    def off() -> complex:
        return _vector(rng, small)

    first, second = rng.choice(
        [
            (start + rng.uniform(-3, 4) * way + off(), start + rng.uniform(-3, 4) * way + off()),
            (start + way + side + off(), start + side + off()),
            (start + off(), start + side),
        ]
    )
    data = f"M{start.real!r} {start.imag!r}" + _curve(first, second, start + way)
    last = start + _vector(rng, 8)
    return [Outline.from_path_data(f"{data}L{last.real!r} {last.imag!r}Z"), anything(rng)]


def shared_nodes(rng: random.Random) -> list[Outline]:
    """Curves that leave one node almost alike, and cross near it or not."""
    node, turn = complex(_place(rng), _place(rng)), rng.uniform(0, math.tau)
    shapes = []
    for angle in (turn, turn + rng.choice([-1, 1]) * 10.0 ** -rng.uniform(1, 9)):
        ahead = complex(math.cos(angle), math.sin(angle))
        far = node + rng.uniform(3, 9) * ahead + _vector(rng, 3)
        points = (node + rng.uniform(0.5, 4) * ahead, far + _vector(rng, 4), far)
        data = f"M{node.real!r} {node.imag!r}" + _curve(*points)
        back = far + rng.choice([-1, 1]) * 1j * rng.uniform(2, 6) * ahead
        shapes.append(Outline.from_path_data(f"{data}L{back.real!r} {back.imag!r}Z"))
    return shapes


def chamfers(rng: random.Random) -> list[Outline]:
    """Polygons whose corners are cut off by next to nothing, and they as they would be written."""
    count, size = rng.randint(3, 6), 10.0 ** -rng.uniform(5, 10)
    corners = [
        50 + rng.uniform(20, 50) * complex(math.cos(t), math.sin(t))
        for t in (math.tau * (k + 0.6 * rng.random()) / count for k in range(count))
    ]
    cut = []
    for before, corner, after in zip(corners[-1:] + corners, corners, corners[1:] + corners[:1]):
        cut += [corner + size * (before - corner), corner + size * (after - corner)]
    outline = _polygon(rng.choice([cut, corners]))
    written = outline.to_path_data(rng.choice([6, 7, 8, 9]))
    return [outline, Outline.from_path_data(written)]


def written(rng: random.Random) -> list[Outline]:
    """A shape and what is read of what is written of it, at some precision."""
    outline = primitive(rng).transformed(Affine.scaling(rng.choice([1.0, 20.0])))
    precision = rng.randint(2, 12)
    return [outline, Outline.from_path_data(outline.to_path_data(precision)), anything(rng)]


def interlocked(rng: random.Random) -> list[Outline]:
    """Hooks, combs and open rings that reach into each other and touch nowhere."""
    width, depth, thick = rng.uniform(8, 20), rng.uniform(8, 20), rng.uniform(0.3, 1.1)
    reach = rng.uniform(2 * thick, depth - 2 * thick)

    def comb(teeth: int) -> Outline:
        pitch = (width - thick) / (teeth - 1)
        points = [0j, complex(width, 0)]
        for k in reversed(range(teeth)):
            points += [complex(k * pitch + thick, depth), complex(k * pitch, depth)]
            if k:
                points += [complex(k * pitch, thick), complex((k - 1) * pitch + thick, thick)]
        return _polygon(points)

    shapes, teeth = [], rng.randint(2, 4)
    pitch = (width - thick) / (teeth - 1)
    for k in range(rng.randint(1, 6)):
        here = Affine.translation(k * 2.5 * width, rng.uniform(-3, 3))
        shapes.append(comb(teeth).transformed(here))
        other = Affine.translation(width + pitch / 2, 2 * depth - reach) @ Affine.rotation_deg(180)
        shapes.append(comb(teeth).transformed(here @ other))
    by = Affine.rotation_deg(_angle(rng))
    return [shape.transformed(by) for shape in shapes]


def copies_in_place(rng: random.Random) -> list[Outline]:
    """A shape many times over, as it is or turned about its own centre."""
    outline, count = anything(rng), rng.randint(3, 24)
    if rng.random() < 0.5:
        return [outline] * count
    r = _length(rng)
    shape = rng.choice([primitives.ellipse(r, r), primitives.polygon(count, r, r)])
    turns = (Affine.rotation_deg(360 * k / count) for k in range(count))
    here = Affine.translation(_place(rng), _place(rng))
    return [shape.transformed(here @ turn) for turn in turns]


def through_one_point(rng: random.Random) -> list[Outline]:
    """Bowties whose lines all pass one point, but for some noise."""
    middle, noise = complex(_place(rng), _place(rng)), 10.0 ** -rng.randint(9, 16)
    shapes, count = [], rng.randint(3, 16)
    for k in range(count):
        rays = [math.pi * (k + shift) / count for shift in (0.0, rng.uniform(0.1, 0.9))]
        a, b = (5 * complex(math.cos(ray), math.sin(ray)) for ray in rays)
        shapes.append(_polygon([middle + p + _vector(rng, noise) for p in (a, -a, b, -b)]))
    return shapes


FAMILIES: dict[str, Family] = {
    "mixed": mixed,
    "blobs": blobs,
    "near copies": near_copies,
    "tangent": tangent,
    "concentric": concentric,
    "restarted": restarted,
    "shared edges": shared_edges,
    "osculating": osculating,
    "slow ends": slow_ends,
    "slivers": slivers,
    "parts": parts,
    "generations": generations,
    "scaled, far away": scaled,
    "handles on nodes": handles_on_nodes,
    "sharp bends": sharp_bends,
    "cusps": cusps,
    "shared nodes": shared_nodes,
    "chamfers": chamfers,
    "written": written,
    "interlocked": interlocked,
    "copies in place": copies_in_place,
    "through one point": through_one_point,
}
