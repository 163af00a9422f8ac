"""Shapes from SVG: each as what it can be edited as, placed as in the file, in pixels."""

from collections.abc import Callable, Container, Iterable
from dataclasses import dataclass, replace
from typing import TypeAlias

from pydantic import ValidationError

from dotstack.core.drawing.frame import unit_box
from dotstack.core.drawing.kinds import (
    ClipNode,
    CompoundNode,
    EllipseNode,
    GroupNode,
    LineNode,
    Member,
    Node,
    PathNode,
    RectangleNode,
    Source,
    TwinNode,
)
from dotstack.core.drawing.links import tied_together
from dotstack.core.errors import CommandError, FormatError, GeometryError
from dotstack.core.formats import recover_svg
from dotstack.core.formats.svg_file import Branch, Item, Leaf, Shared, SvgInk, Whole
from dotstack.core.formats.svg_gradient import SvgGradient
from dotstack.core.formats.svg_shapes import composed
from dotstack.core.geometry import Affine
from dotstack.core.paint import OF_WHOLE, Gradient, Line, Look, Stroke
from dotstack.core.values import Placement

# Enough that an arc's centre comes back from its ends without a visible difference.
_PRECISION = 12
_PLAIN = Look(fill=None)
# What a leaf of a file becomes.
_Shape: TypeAlias = EllipseNode | RectangleNode | LineNode | PathNode


@dataclass(frozen=True, slots=True)
class Pasted:
    """The shapes, the lowest first, and what could not be kept, in words."""

    nodes: tuple[Node, ...]
    notes: tuple[str, ...]


def pasted(svg: str | bytes, new_id: Callable[[], str]) -> Pasted:
    """Reads SVG; raises FormatError, LimitError or CommandError that name what is wrong."""
    file = recover_svg(svg)
    maker = _Maker(new_id, file.to_pixels, _in_places(file.items))
    nodes = tuple(node for item in file.items if (node := maker.node(item)) is not None)
    notes = (*map(str, file.findings), *maker.notes)
    if not nodes:
        said = f" What is there cannot be kept: {'; '.join(notes[:3])}." if notes else ""
        raise CommandError(f"There is no shape in what was pasted.{said}")
    return Pasted(tuple(tied_together(nodes)), notes)


class _Maker:
    """Makes nodes of what a file holds, and notes what cannot be one."""

    def __init__(
        self, new_id: Callable[[], str], to_pixels: Affine, in_places: Container[Shared]
    ) -> None:
        self._new_id = new_id
        self._to_pixels = to_pixels
        self._in_places = in_places
        self._sources: dict[Shared, Source | None] = {}
        self.notes: list[str] = []

    def node(self, item: Item) -> Node | None:
        if isinstance(item, Leaf):
            return self._kept(item.name, lambda: self._leaf(item))
        if (shared := item.shared) and shared in self._in_places:
            return self._kept(item.name, lambda: self._twin(item, shared))
        nodes = tuple(node for inner in item.items if (node := self.node(inner)) is not None)
        if not nodes:
            return None
        if item.clip is not None:
            return self._clip(item, nodes)
        look = self._whole(Look(), item.whole)
        if len(nodes) == 1 and not nodes[0].look.acts_on_whole:
            return nodes[0].painted({name: getattr(look, name) for name in OF_WHOLE})
        if len(nodes) == 1 and item.whole == Whole():
            return nodes[0]
        return GroupNode(id=self._new_id(), name=_named(item.name), look=look, nodes=nodes)

    def _twin(self, item: Branch, shared: Shared) -> Node | None:
        """A twin of what is shown in several places, which carries its source."""
        there = Placement.of(composed(self._to_pixels, shared.affine, item.name))
        if shared not in self._sources:
            # In the axes of the source, with lines as wide as they come to be.
            back = self._to_pixels.inverse @ shared.affine.inverse
            inner = self.node(_moved(replace(item, shared=None, whole=Whole()), back))
            named = {"id": self._new_id(), "name": _named(shared.name)}
            self._sources[shared] = Source(**named, nodes=(inner,)) if inner else None
        source = self._sources[shared]
        if source is None:
            return None
        return TwinNode(
            id=self._new_id(), name=_named(item.name), source=source.id, carried=source,
            transform=there, look=self._whole(_PLAIN, item.whole),
        )  # fmt: skip

    def _clip(self, item: Branch, nodes: tuple[Node, ...]) -> Node | None:
        # Twins would show what they are twins of.
        shapes = map(_by_itself, item.clip or ())
        holders = tuple(node for inner in shapes if (node := self.node(inner)))
        if not holders:
            # What shows within nothing does not show.
            return None
        holder = holders[0]
        if len(holders) > 1:
            members = tuple(Member(role="adds", node=each) for each in holders)
            holder = CompoundNode(id=self._new_id(), name=_named(item.name), members=members)
        holder = holder.model_copy(update={"look": _PLAIN})
        return ClipNode(id=self._new_id(), name=_named(item.name), holder=holder, nodes=nodes)

    def _leaf(self, leaf: Leaf) -> Node | None:
        node = self._made(leaf)
        return self._shaded(node, leaf) if node else None

    def _kept(self, name: str, make: Callable[[], Node | None]) -> Node | None:
        """What can be made of an item; None, with a note, of what cannot be in a drawing."""
        try:
            return make()
        except (ValidationError, FormatError, GeometryError):
            self.notes.append(f"{name}: it is left out, for it is too large or has no extent")
            return None

    def _made(self, leaf: Leaf) -> _Shape | None:
        look, form = leaf.look, leaf.form
        there = composed(self._to_pixels, leaf.affine, leaf.name)
        lines: tuple[Line, ...] = ()
        if look.line:
            stroke = look.stroke.times(abs(self._to_pixels.determinant) ** 0.5)
            said = {name: getattr(stroke, name) for name in Stroke.model_fields}
            lines = (Line(paint=_colour(look.line), **said),)
        fill = None if look.fill is None else _colour(look.fill)
        common: dict[str, object] = {
            "id": self._new_id(),
            "name": _named(leaf.name),
            "look": self._whole(Look(fill=fill, lines=lines), look.whole),
            "transform": Placement.of(there @ form.place),
        }
        match form.kind, form.sides:
            case "ellipse", (rx, ry):
                return EllipseNode.model_validate({**common, "rx": rx, "ry": ry})
            case "rectangle", (width, height, radius):
                sides = {"width": width, "height": height, "radius": radius}
                return RectangleNode.model_validate({**common, **sides})
            case "line", (size,):
                return LineNode.model_validate({**common, "length": size})
        if form.path.is_empty:
            return None
        data = form.path.transformed(there).to_path_data(_PRECISION)
        rule = form.path.fill_rule
        common["transform"] = Placement()
        return PathNode.model_validate({**common, "data": data, "fill_rule": rule})

    def _whole(self, look: Look, whole: Whole) -> Look:
        """A look, with what the file does with all of it together."""
        there = self._to_pixels
        shadows = tuple(shadow.times(abs(there.determinant) ** 0.5) for shadow in whole.shadows)
        changes = {"opacity": whole.opacity, "blend": whole.blend, "shadows": shadows}
        return look.model_copy(update=changes)

    def _shaded(self, node: _Shape, leaf: Leaf) -> _Shape:
        """The node with the gradients that its shape has in the file, over its own box."""
        look = node.look
        if isinstance(leaf.look.fill, SvgGradient) and look.fill is not None:
            fill = self._gradient(node, leaf, leaf.look.fill)
            look = look.model_copy(update={"fill": fill or look.fill})
        if isinstance(leaf.look.line, SvgGradient) and look.line:
            paint = self._gradient(node, leaf, leaf.look.line)
            line = look.line.model_copy(update={"paint": paint or look.line.paint})
            look = look.model_copy(update={"lines": (line,)})
        return node if look is node.look else node.model_copy(update={"look": look})

    def _gradient(self, node: _Shape, leaf: Leaf, gradient: SvgGradient) -> Gradient | None:
        box = unit_box(leaf.form.outline.bounds) if gradient.in_box else Affine()
        there = composed(self._to_pixels, leaf.affine, leaf.name) @ box @ gradient.affine
        own = node.transform.affine @ unit_box(node.drawn().bounds)
        try:
            place = Placement.of(own.inverse @ there)
            return Gradient(shape=gradient.shape, stops=gradient.stops, place=place)
        except (ValidationError, GeometryError):
            self.notes.append(f"{leaf.name}: its gradient became {gradient.mean}")
            return None


def _in_places(items: Iterable[Item]) -> set[Shared]:
    """The elements that are shown more than once, where what they lie in is shown once."""
    seen: set[Shared] = set()
    several: set[Shared] = set()

    def look(item: Item) -> None:
        if isinstance(item, Leaf):
            return
        if item.shared in seen:
            several.add(item.shared)
            return
        if item.shared:
            seen.add(item.shared)
        for inner in item.items:
            look(inner)

    for item in items:
        look(item)
    return several


def _by_itself(item: Item) -> Item:
    """An item in which nothing is shown elsewhere too."""
    if isinstance(item, Leaf):
        return item
    return replace(item, items=tuple(map(_by_itself, item.items)), shared=None)


def _moved(item: Item, by: Affine) -> Item:
    """An item mapped by a map of the file's axes."""
    if isinstance(item, Leaf):
        return replace(item, affine=by @ item.affine)
    shared = item.shared and replace(item.shared, affine=by @ item.shared.affine)
    items = tuple(_moved(inner, by) for inner in item.items)
    clip = None if item.clip is None else tuple(_moved(inner, by) for inner in item.clip)
    return replace(item, items=items, clip=clip, shared=shared)


def _colour(ink: SvgInk) -> str:
    return ink.mean if isinstance(ink, SvgGradient) else ink


def _named(name: str) -> str:
    return name.strip()[:120] or "Shape"
