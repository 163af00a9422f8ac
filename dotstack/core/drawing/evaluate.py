"""Evaluation: from nodes to exact outlines, remembered by the identity of what made them."""

from collections import OrderedDict, deque
from collections.abc import Callable, Sequence
from functools import lru_cache
from operator import is_
from typing import Generic, TypeVar, cast

import numpy as np

from dotstack.core import primitives
from dotstack.core.arrangement import Arrangement
from dotstack.core.combine import (
    Build,
    Part,
    acting,
    build,
    covered,
    outcomes,
    regions_found,
    union,
)
from dotstack.core.drawing.looks import Look
from dotstack.core.drawing.nodes import (
    ClipNode,
    CompoundNode,
    DropNode,
    EllipseNode,
    GroupNode,
    LineNode,
    Node,
    PartsNode,
    PathNode,
    PieceNode,
    Placement,
    PolygonNode,
    RectangleNode,
    RegionNode,
    StarNode,
    UnderlayNode,
)
from dotstack.core.drawing.operands import paints_of
from dotstack.core.drawing.picking import picked, picks_of
from dotstack.core.drawing.pieces import as_held, pieces_of_build, pieces_of_parts
from dotstack.core.drawing.tree import children
from dotstack.core.errors import CoreError
from dotstack.core.geometry import Affine, Outline, bundle, open_part

_MEMORY = 6000
_ARRANGEMENTS = 64
_CHOSEN = 4
_PRIMITIVES = 2000

# What evaluation may raise: what the core refuses, and what numbers do at their limits.
FAULTS = (CoreError, ValueError, ArithmeticError)

Bounds = tuple[float, float, float, float]
T = TypeVar("T")


class _Memory(Generic[T]):
    """The last results by the identity of the values they came from, which are kept alive."""

    def __init__(self) -> None:
        self._known: OrderedDict[tuple[int, ...], tuple[tuple[object, ...], T]] = OrderedDict()

    def get(self, make: Callable[[], T], *sources: object) -> T:
        key = tuple(map(id, sources))
        known = self._known.get(key)
        if known is not None:
            self._known.move_to_end(key)
            return known[1]
        made = make()
        self._known[key] = (sources, made)
        while len(self._known) > _MEMORY:
            self._known.popitem(last=False)
        return made


class Evaluator:
    """Outlines of nodes. Not for several threads at once.

    A compound's result depends on its members alone: it is remembered by the identity of
    their tuple, so that moving the whole compound computes nothing again. Where one member
    moves, the crossings between the others are kept from the last time.
    """

    def __init__(self) -> None:
        self._own: _Memory[Outline] = _Memory()
        self._placed: _Memory[Outline] = _Memory()
        self._seen: _Memory[Outline] = _Memory()
        self._builds: _Memory[Build] = _Memory()
        self._parts: _Memory[tuple[Part, ...]] = _Memory()
        self._came: _Memory[tuple[PieceNode, ...]] = _Memory()
        self._pieces: _Memory[tuple[Node, ...]] = _Memory()
        self._things: _Memory[dict[Affine, object]] = _Memory()
        self._chosen: deque[Arrangement] = deque(maxlen=_CHOSEN)
        self._arranged: OrderedDict[str, Arrangement] = OrderedDict()

    def outline(self, node: Node) -> Outline:
        """The node's outline in the axes that contain it; raises ArrangementError.

        That of a group or of parts is of all that they cover, that of a clip its holder's.
        """
        if isinstance(node, PieceNode) and node.transform == Placement():
            return node.outline
        return self._placed.get(
            lambda: self.own_outline(node).transformed(node.transform.affine), node
        )

    def own_outline(self, node: Node) -> Outline:
        """The node's outline in its own axes; raises ArrangementError."""
        match node:
            case CompoundNode():
                return self._own.get(
                    lambda: self._combined(node), node.members, node.filled, node.bundled
                )
            case GroupNode():
                active = [self.outline(child) for child in node.nodes if child.is_active]
                return self._own.get(lambda: union(active), node.nodes)
            case RegionNode() if not node.held:
                return self.build(node).outline
            case RegionNode() | PartsNode():
                return self._own.get(lambda: self._whole(node), self.pieces(node))
            case ClipNode():
                return self.outline(node.holder)
            case PieceNode():
                return node.outline
        return primitive_outline(node)

    def seen_outline(self, node: Node) -> Outline:
        """What is to be seen of a node in its own axes: of a group, all outlines in it."""
        if isinstance(node, PartsNode):
            inner = self.pieces(node)
        elif isinstance(node, GroupNode):
            inner = node.nodes
        else:
            return self.own_outline(node)
        return self._seen.get(
            lambda: bundle(
                [
                    self.seen_outline(child).transformed(child.transform.affine)
                    for child in inner
                    if child.visible
                ]
            ),
            inner,
        )

    def own_bounds(self, node: Node) -> Bounds:
        """The box of what is to be seen of a node, in its own axes."""
        return self.seen_outline(node).bounds

    def build(self, node: RegionNode) -> Build:
        """What a region build comes to, in its own axes; raises ArrangementError."""
        return self._builds.get(
            lambda: build(self.arrangement(node), picks_of(node), keep_rest=node.keep_rest),
            node.members,
            node.picks,
            node.keep_rest,
        )

    def pieces(self, node: RegionNode | PartsNode) -> tuple[Node, ...]:
        """The pieces that a node comes in, the lowest first; raises ArrangementError."""
        came = self.pieces_as_they_come(node)
        return self._pieces.get(lambda: as_held(node, came), came, node.held, node.order)

    def pieces_as_they_come(self, node: RegionNode | PartsNode) -> tuple[PieceNode, ...]:
        """All pieces of a node, whatever was done to them by hand; raises ArrangementError."""

        def come() -> tuple[PieceNode, ...]:
            if isinstance(node, RegionNode):
                return tuple(pieces_of_build(node, self.build(node)))
            return tuple(pieces_of_parts(node, self.parts(node)))

        # Those that have no shape's paint have the node's.
        paint = (getattr(node, name) for name in Look._fields)
        return self._came.get(come, node.id, *_made_of(node), *paint)

    def parts(self, node: PartsNode) -> tuple[Part, ...]:
        """What a cutter leaves of each of its node's active shapes, in the node's own axes.

        A part's ``paint`` is the place of its shape among these. Raises ArrangementError.
        """
        return self._parts.get(lambda: self._parted(node), node.outcome, node.cutter, node.nodes)

    def arrangement(self, node: CompoundNode | RegionNode) -> Arrangement:
        """The arrangement of a node's active members; raises ArrangementError."""
        return self._arrangement(
            node, [self.outline(child) for child in children(node) if child.is_active]
        )

    def _arrangement(self, node: Node, outlines: list[Outline]) -> Arrangement:
        last = self._arranged.get(node.id)
        if last and _are_same(last.operands, outlines):
            return last
        arrangement = Arrangement.of(outlines, last)
        self._arranged[node.id] = arrangement
        self._arranged.move_to_end(node.id)
        while len(self._arranged) > _ARRANGEMENTS:
            self._arranged.popitem(last=False)
        return arrangement

    def remembered(self, node: Node, outer: Affine, make: Callable[[], T]) -> T:
        """What was made of a node that stood just so, or else what is made of it now.

        ``outer`` maps the axes that contain it to the plate's. For one kind of thing only.
        """
        known = self._things.get(dict, node)
        if outer not in known:
            known.clear()
            known[outer] = make()
        return cast(T, known[outer])

    def arranged(self, outlines: list[Outline]) -> Arrangement:
        """The arrangement of chosen shapes, remembered for a while; raises ArrangementError."""
        for known in self._chosen:
            if _are_same(known.operands, outlines):
                return known
        arrangement = Arrangement.of(outlines)
        self._chosen.append(arrangement)
        return arrangement

    def _parted(self, node: PartsNode) -> tuple[Part, ...]:
        active = [child for child in node.nodes if child.is_active]
        outlines = [self.outline(child) for child in active]
        paints = paints_of(active)
        if not node.cutter.is_active:
            return tuple(map(Part, outlines, range(len(outlines))))
        outlines.append(self.outline(node.cutter))
        paints += paints_of([node.cutter])
        arrangement = self._arrangement(node, acting(node.outcome, outlines, paints))
        (result,) = outcomes(arrangement, paints, [node.outcome])
        return result.parts

    def _whole(self, node: RegionNode | PartsNode) -> Outline:
        """All that its pieces cover, and all their lines."""
        found = [self.outline(piece) for piece in self.pieces(node) if piece.is_active]
        return bundle([union(found), *map(open_part, found)])

    def _combined(self, node: CompoundNode) -> Outline:
        roles = [member.role for member in node.members if member.node.is_active]
        if not roles:
            return Outline.empty()
        if node.bundled:
            active = [self.outline(child) for child in children(node) if child.is_active]
            return bundle(active, "evenodd")
        arrangement = self.arrangement(node)
        kept = covered(arrangement.covers, roles)
        if node.filled:
            found = regions_found(arrangement, picked(node.filled, children(node)))
            # By region, 0 being outside.
            filled = [place + 1 for place in found if place is not None]
            kept |= np.isin(arrangement.region_of_face, filled)
        return arrangement.outline(kept)


def _made_of(node: RegionNode | PartsNode) -> tuple[object, ...]:
    """What its pieces come of, but for paint of its own."""
    if isinstance(node, RegionNode):
        return node.members, node.picks, node.keep_rest, node.paint
    return node.outcome, node.cutter, node.nodes, node.picks


def _are_same(one: Sequence[Outline], two: Sequence[Outline]) -> bool:
    return len(one) == len(two) and all(map(is_, one, two))


def primitive_outline(node: Node) -> Outline:
    """The outline of a primitive or path in its own axes, round the origin."""
    match node:
        case EllipseNode():
            return _ellipse(node.rx, node.ry, node.start_deg, node.sweep_deg, node.inner)
        case RectangleNode():
            return _rectangle(node.width, node.height, node.radii or node.radius)
        case PolygonNode():
            return _polygon(node.sides, node.rx, node.ry, node.radius)
        case StarNode():
            return _star(
                node.points, node.rx, node.ry, node.ratio, node.tip_radius, node.notch_radius
            )
        case DropNode():
            return _drop(node.rx, node.ry, node.tip)
        case LineNode():
            return _line(node.length)
        case PathNode():
            return _path(node.data, node.fill_rule)
        case UnderlayNode():
            return _rectangle(node.width, node.height, 0.0)
    raise TypeError(f"A {node.kind} is no primitive.")


# By parameters, so that a shape that is moved or painted is not made again.
_ellipse = lru_cache(_PRIMITIVES)(primitives.ellipse)
_rectangle = lru_cache(_PRIMITIVES)(primitives.rectangle)
_polygon = lru_cache(_PRIMITIVES)(primitives.polygon)
_star = lru_cache(_PRIMITIVES)(primitives.star)
_drop = lru_cache(_PRIMITIVES)(primitives.drop)
_line = lru_cache(_PRIMITIVES)(primitives.line)
_path = lru_cache(_PRIMITIVES)(Outline.from_path_data)


def clamped(node: Node) -> dict[str, float]:
    """Corner radii that are drawn smaller than was asked for, by the parameter's name."""
    drawn: dict[str, float] = {}
    match node:
        case RectangleNode():
            fitting = primitives.fitting_box_radii(
                node.width, node.height, node.radii or node.radius
            )
            if node.radii:
                drawn = {f"radii.{i}": radius for i, radius in enumerate(fitting)}
                asked = {f"radii.{i}": radius for i, radius in enumerate(node.radii)}
                return {
                    name: value for name, value in drawn.items() if _is_less(value, asked[name])
                }
            drawn = {"radius": min(fitting)}
        case PolygonNode():
            fitted = primitives.fitting_polygon_radius(node.sides, node.rx, node.ry, node.radius)
            drawn = {"radius": fitted}
        case StarNode():
            tip, notch = primitives.fitting_star_radii(
                node.points, node.rx, node.ry, node.ratio, node.tip_radius, node.notch_radius
            )
            drawn = {"tip_radius": tip, "notch_radius": notch}
    return {name: value for name, value in drawn.items() if _is_less(value, getattr(node, name))}


def _is_less(drawn: float, asked: float) -> bool:
    return drawn < asked * (1 - 1e-9)
