"""Finding and replacing a node anywhere in a drawing; what is not touched keeps its identity."""

from collections.abc import Callable, Collection, Iterable
from dataclasses import dataclass
from operator import is_
from typing import TypeVar

from dotstack.core.drawing.document import Drawing, Plate
from dotstack.core.drawing.kinds import Node, Source
from dotstack.core.drawing.tree import walk, with_children
from dotstack.core.errors import UnknownNodeError
from dotstack.core.geometry import Affine

_Holder = TypeVar("_Holder", Plate, Source)


@dataclass(frozen=True, slots=True)
class Place:
    """Where a node stands.

    Attributes:
        outer: the map from the axes that contain the node to those of the plate.
        parent: what contains it; None directly on the plate.

    """

    plate: Plate
    node: Node
    outer: Affine
    parent: Node | None

    @property
    def affine(self) -> Affine:
        """The map from the node's own axes to the plate's."""
        return self.outer @ self.node.transform.affine


def plate_of(drawing: Drawing, plate_id: str) -> Plate:
    """The plate with this id; raises UnknownNodeError."""
    for plate in drawing.plates:
        if plate.id == plate_id:
            return plate
    raise UnknownNodeError("plate", plate_id)


def place_of(drawing: Drawing, node_id: str) -> Place:
    """Where the node with this id stands; raises UnknownNodeError."""
    return places_of(drawing, (node_id,))[0]


def places_of(drawing: Drawing, ids: Collection[str]) -> list[Place]:
    """Where the nodes with these ids stand, in the order of the ids; raises UnknownNodeError."""
    wanted = set(ids)
    found: dict[str, Place] = {}

    def look(plate: Plate, node: Node, outer: Affine, parent: Node | None) -> None:
        if node.id in wanted:
            found[node.id] = Place(plate, node, outer, parent)
        inner = node.children
        if inner and len(found) < len(wanted):
            within = outer @ node.transform.affine
            for child in inner:
                look(plate, child, within, node)

    unmoved = Affine()
    for plate in drawing.plates:
        for node in plate.nodes:
            look(plate, node, unmoved, None)
        if len(found) == len(wanted):
            return [found[node_id] for node_id in ids]
    raise UnknownNodeError("shape", next(each for each in ids if each not in found))


def all_ids(drawing: Drawing) -> set[str]:
    """The ids of all plates and nodes, those in sources too."""
    ids = {plate.id for plate in drawing.plates}
    nodes = (*drawing.nodes, *(node for source in drawing.sources for node in source.nodes))
    return ids | {inner.id for node in nodes for inner in walk(node)}


def with_plate(drawing: Drawing, plate: Plate) -> Drawing:
    """The drawing with the plate of the same id replaced."""
    plates = tuple(plate if old.id == plate.id else old for old in drawing.plates)
    return drawing.model_copy(update={"plates": plates})


def with_nodes(plate: Plate, nodes: tuple[Node, ...]) -> Plate:
    """The plate with other nodes."""
    return plate.model_copy(update={"nodes": nodes})


def with_each(drawing: Drawing, change: Callable[[Node], Node]) -> Drawing:
    """The drawing with each shape directly on a plate or in a source changed.

    Where nothing has changed it is the same object.
    """

    def changed(of: _Holder) -> _Holder:
        return of.model_copy(update={"nodes": tuple(map(change, of.nodes))})

    done = drawing.model_copy(
        update={
            "plates": tuple(map(changed, drawing.plates)),
            "sources": tuple(map(changed, drawing.sources)),
        }
    )
    return drawing if all(map(is_, drawing.roots, done.roots)) else done


def replaced(drawing: Drawing, node_id: str, change: Callable[[Node], Node]) -> Drawing:
    """The drawing with one node replaced by what ``change`` makes of it."""
    return exchanged(drawing, {node_id}, lambda node: (change(node),))


def exchanged(
    drawing: Drawing, ids: Collection[str], change: Callable[[Node], tuple[Node, ...]]
) -> Drawing:
    """The drawing with each node of ``ids`` replaced by none, one or several others.

    Compounds and groups that lose their last node go too. Raises UnknownNodeError.
    """
    places_of(drawing, ids)

    def changed(node: Node) -> tuple[Node, ...]:
        if node.id in ids:
            return change(node)
        if not node.children:
            return (node,)
        left = with_children(node, changed)
        return () if left is None else (left,)

    for plate in drawing.plates:
        nodes = tuple(new for node in plate.nodes for new in changed(node))
        if len(nodes) != len(plate.nodes) or not all(map(is_, nodes, plate.nodes)):
            drawing = with_plate(drawing, with_nodes(plate, nodes))
    return drawing


def put(drawing: Drawing, nodes: Iterable[Node]) -> Drawing:
    """The drawing with each of the nodes in the place of that of the same id."""
    fresh = {node.id: node for node in nodes}
    return exchanged(drawing, fresh.keys(), lambda node: (fresh[node.id],))


def siblings(drawing: Drawing, place: Place) -> tuple[Node, ...]:
    """The stack that a node is part of: of its plate, or of what contains it."""
    return place.parent.children if place.parent else place.plate.nodes


def topmost_first(drawing: Drawing, ids: Collection[str]) -> list[str]:
    """The ids as their nodes lie in the stacks, the topmost first, without those inside others.

    Raises UnknownNodeError if they are of no shapes at all.
    """
    found: list[str] = []

    def look(node: Node) -> None:
        if node.id in ids:
            found.append(node.id)
            return
        for child in reversed(node.children):
            look(child)

    for plate in drawing.plates:
        for node in reversed(plate.nodes):
            look(node)
    if not found:
        raise UnknownNodeError("shape", min(ids, default=""))
    return found
