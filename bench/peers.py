"""The same work done by other libraries, to be timed beside ours in the same run."""

import math
from collections.abc import Sequence

import numpy as np
import pathops
import shapely

from dotstack.core.geometry import ARC, CUBIC, LINE, Outline

# Chords at which flattened areas are right to about 1e-6, by kind of segment. Half a circle
# of n chords falls short by (π/n)²/6.
_CHORDS = {LINE: 1, ARC: 1280, CUBIC: 256}


def compiled_paths(outlines: Sequence[Outline]) -> list[pathops.Path]:
    """The outlines as paths of the compiled peer."""
    return [_path(outline) for outline in outlines]


def _path(outline: Outline) -> pathops.Path:
    path = pathops.Path()
    pen = path.getPen()
    for contour in outline.contours:
        s = contour.segments
        pen.moveTo(_pair(s.start[0]))
        for i in range(len(s)):
            if s.kind[i] == CUBIC:
                pen.curveTo(_pair(s.p[i]), _pair(s.q[i]), _pair(s.end[i]))
            elif s.kind[i] == ARC:
                whole = abs(s.sweep[i]) > math.pi
                large = pathops.ArcSize.LARGE if whole else pathops.ArcSize.SMALL
                turn = pathops.Direction.CW if s.sweep[i] > 0 else pathops.Direction.CCW
                angle = math.degrees(s.rotation[i])
                path.arcTo(s.q[i].real, s.q[i].imag, angle, large, turn, *_pair(s.end[i]))
            else:
                pen.lineTo(_pair(s.end[i]))
        pen.closePath()
    return path


def _pair(point: complex) -> tuple[float, float]:
    return point.real, point.imag


def compiled_union(paths: Sequence[pathops.Path]) -> object:
    """The union by the compiled peer."""
    builder = pathops.OpBuilder(fix_winding=False, keep_starting_points=False)
    for path in paths:
        builder.add(path, pathops.PathOp.UNION)
    return builder.resolve()


def compiled_regions(paths: Sequence[pathops.Path]) -> list[tuple[object, frozenset[int]]]:
    """All regions with their covers, as far as one boolean at a time makes them."""
    regions: list[tuple[pathops.Path, frozenset[int]]] = []
    for index, path in enumerate(paths):
        rest, split = path, []
        for region, cover in regions:
            if not _boxes_meet(region.bounds, path.bounds):
                split.append((region, cover))
                continue
            inside = _combined(region, path, pathops.PathOp.INTERSECTION)
            outside = _combined(region, path, pathops.PathOp.DIFFERENCE)
            rest = _combined(rest, region, pathops.PathOp.DIFFERENCE)
            split += [(inside, cover | {index}), (outside, cover)]
        regions = [(p, c) for p, c in [*split, (rest, frozenset({index}))] if any(p)]
    return list(regions)


def _combined(a: pathops.Path, b: pathops.Path, how: pathops.PathOp) -> pathops.Path:
    return pathops.op(a, b, how, fix_winding=False, keep_starting_points=False)


def _boxes_meet(a: tuple[float, ...], b: tuple[float, ...]) -> bool:
    return a[0] <= b[2] and b[0] <= a[2] and a[1] <= b[3] and b[1] <= a[3]


def flattened(outlines: Sequence[Outline]) -> list[shapely.Geometry]:
    """The outlines as polygons with many corners."""
    return [_polygon(outline) for outline in outlines]


def _polygon(outline: Outline) -> shapely.Geometry:
    filled: shapely.Geometry = shapely.Polygon()
    for contour in outline.contours:
        steps = [np.linspace(0, 1, _CHORDS[kind] + 1)[:-1] for kind in contour.segments.kind]
        index = np.repeat(np.arange(len(steps)), [len(each) for each in steps])
        ring = contour.segments.at(index, np.concatenate(steps))
        filled = filled.symmetric_difference(
            shapely.make_valid(shapely.Polygon(np.stack([ring.real, ring.imag], axis=1)))
        )
    return filled


def flattened_union(polygons: Sequence[shapely.Geometry]) -> shapely.Geometry:
    """The union of flattened outlines."""
    return shapely.union_all(polygons)


def flattened_regions(
    polygons: Sequence[shapely.Geometry],
) -> list[tuple[float, tuple[int, ...]]]:
    """All regions of flattened outlines, with area and cover."""
    lines = shapely.union_all([polygon.boundary for polygon in polygons])
    faces = shapely.get_parts(shapely.polygonize([lines]))
    points = shapely.point_on_surface(faces)
    tree = shapely.STRtree(points)
    shape, face = tree.query(polygons, predicate="contains")
    covers: list[list[int]] = [[] for _ in faces]
    for i, j in zip(shape, face):
        covers[j].append(int(i))
    return list(zip(shapely.area(faces).tolist(), map(tuple, covers)))
