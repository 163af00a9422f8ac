"""What is done with all that a shape paints: shadow, depth, opacity and blend."""

import cmath
import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import replace
from statistics import fmean

from dotstack.core.colours import shaded
from dotstack.core.combine import difference, intersection, union
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.formats.picture import (
    Ink,
    Item,
    Layer,
    Painted,
    Shading,
    all_painted,
    ink_colour,
)
from dotstack.core.geometry import Affine, Outline, bundle, closed_part
from dotstack.core.paint import INK, Depth, Gradient, Look, Shadow, Stop
from dotstack.core.refine import Face, Solid, bevelled, inked, pushed

# Where the light comes from, on the plate: the upper left.
_LIGHT = complex(-1, -1) / math.sqrt(2)
# Of sides in one colour.
_UNLIT = -0.5
# Between what is turned to it and what is square to it.
_SHADES = 64


def dressed(look: Look, items: tuple[Item, ...], evaluator: Evaluator) -> tuple[Item, ...]:
    """What is painted of a shape, with what its look says of all of it together."""
    if not items:
        return ()
    if look.depth and look.depth.on:
        items = _deep(items, look.depth, evaluator)
    if shadows := tuple(shadow for shadow in look.shadows if shadow.on):
        items = _casting(items, shadows, evaluator)
    if look.opacity == 1.0 and look.blend == "normal":
        return items
    if len(items) == 1 and items[0].blend == "normal":
        (item,) = items
        return (replace(item, opacity=item.opacity * look.opacity, blend=look.blend),)
    return (Layer(items, look.opacity, look.blend),)


def _casting(
    items: tuple[Item, ...], shadows: tuple[Shadow, ...], evaluator: Evaluator
) -> tuple[Item, ...]:
    """Items and their shadows; what is cast with a sharp edge by what is dense is an outline."""
    sharp = [shadow for shadow in shadows if not shadow.blur]
    if not sharp or not all(map(_is_opaque, items)):
        return (Layer(items, shadows=shadows),)
    soft = tuple(shadow for shadow in shadows if shadow.blur)
    cast = (Layer(items, shadows=soft),) if soft else items
    return _with_sharp(cast, sharp, _silhouette(items, evaluator))


def _silhouette(items: tuple[Item, ...], evaluator: Evaluator) -> Outline:
    """The area that items cover; raises ArrangementError."""

    def made() -> Outline:
        return union([area for item in items for area in _areas(item)] or [Outline.empty()])

    return evaluator.remembered("silhouette", made, *_sources(items))


def _areas(item: Item) -> Iterator[Outline]:
    if isinstance(item, Layer):
        areas = [area for inner in item.items for area in _areas(inner)]
    else:
        areas = [closed_part(item.outline)] if item.fill else []
        if item.line:
            areas.append(inked(item.outline, item.line.stroke))
    clip = item.clip
    yield from (intersection([area, clip]) for area in areas) if clip else areas


def _is_opaque(item: Item) -> bool:
    if item.opacity < 1.0:
        return False
    if isinstance(item, Layer):
        return all(map(_is_opaque, item.items))
    stops = [stop for ink in item.inks if isinstance(ink, Shading) for stop in ink.gradient.stops]
    return all(stop.opacity == 1.0 for stop in stops)


def _with_sharp(items: tuple[Item, ...], shadows: list[Shadow], shape: Outline) -> tuple[Item, ...]:
    """Items with shadows that have no soft edge, the first one topmost."""
    beneath, above = list[Item](), list[Item]()
    for shadow in reversed(shadows):
        there = shape.transformed(Affine.translation(shadow.dx, shadow.dy))
        cast = difference(shape, [there]) if shadow.inside else there
        if not cast.is_empty:
            (above if shadow.inside else beneath).append(
                Painted(cast, shadow.colour, opacity=shadow.opacity)
            )
    return (*beneath, *items, *above)


def _deep(items: tuple[Item, ...], depth: Depth, evaluator: Evaluator) -> tuple[Item, ...]:
    """Items as the front of a solid, with its sides beneath and its slanted edge on top."""
    shape = _silhouette(items, evaluator)
    by = cmath.rect(depth.length, math.radians(depth.angle_deg))
    solid = evaluator.remembered("solid", lambda: pushed(shape, by), shape, by.real, by.imag)
    edge = evaluator.remembered("edge", lambda: bevelled(shape, depth.bevel), shape, depth.bevel)
    front = _front_colour(items)
    base = depth.colour or front
    beneath = _sides(solid, shape, base, lit=depth.shaded, dense=all(map(_is_opaque, items)))
    # Of an edge that goes round, many faces come in few shades.
    shades = defaultdict[Ink, list[Outline]](list)
    for face in edge:
        shades[_ink_of(face, front)].append(face.outline)
    above = [Painted(bundle(outlines), ink) for ink, outlines in shades.items()]
    return (*beneath, *items, *above)


def _sides(solid: Solid, shape: Outline, base: str, *, lit: bool, dense: bool) -> Iterator[Painted]:
    """What is seen of a solid beside its front."""
    if not solid.faces:
        return
    mean = shaded(base, _mean_light(solid.faces) if lit else _UNLIT)
    if dense:
        # Lest what lies beneath shines through where faces meet.
        yield Painted(solid.swept, mean)
    elif not lit:
        yield Painted(difference(solid.swept, [shape]), mean)
    if lit:
        yield from (Painted(face.outline, _ink_of(face, base)) for face in solid.faces)


def _sources(items: tuple[Item, ...]) -> Iterator[object]:
    """All that the area which items cover depends on."""
    for item in items:
        if item.clip:
            yield item.clip
        if isinstance(item, Layer):
            yield from _sources(item.items)
        else:
            yield item.outline
            yield item.line and item.line.stroke
            yield bool(item.fill)


def _front_colour(items: tuple[Item, ...]) -> str:
    """The colour of the topmost fill, or else of a line."""
    front = INK
    for each in all_painted(items):
        if each.inks:
            front = ink_colour(each.inks[0])
    return front


def _ink_of(face: Face, base: str) -> Ink:
    """The colour of a face by where it faces; of a curved side, a gradient across its way."""
    colours = [
        (at, shaded(base, round(_light(normal) * _SHADES) / _SHADES)) for at, normal in face.normals
    ]
    if len(colours) == 1:
        return colours[0][1]
    stops = tuple(Stop(at=min(max(at, 0.0), 1.0), colour=colour) for at, colour in colours)
    across = face.across
    where = Affine(
        across.real, across.imag, -across.imag, across.real, face.start.real, face.start.imag
    )
    return Shading(Gradient(shape="linear", stops=stops), where)


def _light(normal: complex) -> float:
    """How much a face is turned to the light, from −1 to 1."""
    return (normal * _LIGHT.conjugate()).real


def _mean_light(faces: Sequence[Face]) -> float:
    """How much faces are turned to the light on the whole."""
    return fmean(fmean(_light(normal) for _, normal in face.normals) for face in faces)
