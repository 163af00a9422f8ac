"""Finding and replacing a node anywhere in a drawing; what is not touched keeps its identity."""

from collections.abc import Callable
from dataclasses import dataclass

from dotstack.core.drawing.nodes import CompoundNode, Drawing, Node, Plate, walk
from dotstack.core.errors import UnknownNodeError
from dotstack.core.geometry import Affine


@dataclass(frozen=True, slots=True)
class Place:
    """Where a node stands.

    Attributes:
        outer: the map from the axes that contain the node to those of the plate.

    """

    plate: Plate
    node: Node
    outer: Affine

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
    for plate in drawing.plates:
        for node in plate.nodes:
            found = _within(plate, node, node_id, Affine())
            if found:
                return found
    raise UnknownNodeError("shape", node_id)


def _within(plate: Plate, node: Node, node_id: str, outer: Affine) -> Place | None:
    if node.id == node_id:
        return Place(plate, node, outer)
    if isinstance(node, CompoundNode):
        inner = outer @ node.transform.affine
        for member in node.members:
            found = _within(plate, member.node, node_id, inner)
            if found:
                return found
    return None


def all_ids(drawing: Drawing) -> set[str]:
    """The ids of all plates and nodes."""
    ids = {plate.id for plate in drawing.plates}
    return ids | {n.id for plate in drawing.plates for node in plate.nodes for n in walk(node)}


def with_plate(drawing: Drawing, plate: Plate) -> Drawing:
    """The drawing with the plate of the same id replaced."""
    plates = tuple(plate if old.id == plate.id else old for old in drawing.plates)
    return drawing.model_copy(update={"plates": plates})


def with_nodes(plate: Plate, nodes: tuple[Node, ...]) -> Plate:
    """The plate with other nodes."""
    return plate.model_copy(update={"nodes": nodes})


def replaced(drawing: Drawing, node_id: str, change: Callable[[Node], Node]) -> Drawing:
    """The drawing with one node replaced by what ``change`` makes of it."""
    plate = place_of(drawing, node_id).plate
    nodes = tuple(_changed(node, node_id, change) for node in plate.nodes)
    return with_plate(drawing, with_nodes(plate, nodes))


def _changed(node: Node, node_id: str, change: Callable[[Node], Node]) -> Node:
    if node.id == node_id:
        return change(node)
    if not isinstance(node, CompoundNode) or all(n.id != node_id for n in walk(node)):
        return node
    members = tuple(
        member
        if (inner := _changed(member.node, node_id, change)) is member.node
        else member.model_copy(update={"node": inner})
        for member in node.members
    )
    return node.model_copy(update={"members": members})
