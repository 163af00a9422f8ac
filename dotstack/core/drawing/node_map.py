"""The nodes, handles and sides of shapes, to be taken hold of."""

from collections.abc import Collection
from math import degrees

import numpy as np

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import (
    CompoundNode,
    LeafNode,
    Node,
    PathNode,
    PieceNode,
    TextNode,
    UnderlayNode,
)
from dotstack.core.drawing.places import places_of
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.geometry import ARC, LINE, Outline, Segments
from dotstack.core.geometry.directions import at_ends
from dotstack.core.refine.nodes import NodeKind, SideKind, handles, is_round, kinds, nodes_of, turns
from dotstack.core.values import Value

# More than this nobody could tell apart on the desk.
MAX_NODES_SHOWN = 5000
_PRECISION = 6

Spot = tuple[float, float]


class NodeDot(Value):
    """A node, in the shape's own axes.

    Attributes:
        turn_deg: by how much the outline turns there, positive to the left.
        leaves_x, leaves_y: a unit vector the way that the outline goes on; at the last end, came.
        handle_before, handle_after: where its handles are; None where there is none.

    """

    x: float
    y: float
    kind: NodeKind
    turn_deg: float
    leaves_x: float
    leaves_y: float
    contour: int
    handle_before: Spot | None
    handle_after: Spot | None


class SideLine(Value):
    """A side, in the shape's own axes.

    Attributes:
        first, last: the nodes that it leaves and arrives at, by their places.
        radius: of an arc of a circle.
        path: path data that draws it alone.

    """

    kind: SideKind
    first: int
    last: int
    radius: float | None
    path: str


class NodeMap(Value):
    """All nodes and sides of one shape.

    Attributes:
        live: whether the shape has to be settled before its nodes are its own.

    """

    live: bool
    nodes: tuple[NodeDot, ...]
    sides: tuple[SideLine, ...]


def outline_in_hand(node: Node, evaluator: Evaluator) -> Outline:
    """The outline whose nodes can be changed by hand, in the shape's own axes.

    Of a path before its refinements, which stay; else the one that it is settled to. Raises
    CommandError for what is several shapes or none, and ArrangementError.
    """
    match node:
        case PathNode():
            return evaluator.base_outline(node)
        case UnderlayNode():
            raise CommandError(f"{node.name} is a picture; it has no nodes.")
        case PieceNode():
            raise CommandError(
                f"{node.name} is a piece of what is live; settle the whole, then change its nodes."
            )
        case CompoundNode() | TextNode() | LeafNode():
            return evaluator.own_outline(node)
        case _:
            raise CommandError(
                f"{node.name} is made of several shapes; choose one inside it, or settle it first."
            )


def node_map(node: Node, evaluator: Evaluator) -> NodeMap:
    """The nodes and sides of a shape; raises CommandError, LimitError or ArrangementError."""
    outline = outline_in_hand(node, evaluator)
    table = nodes_of(outline)
    if len(table.at) > MAX_NODES_SHOWN:
        raise LimitError(f"nodes of {node.name} at once", len(table.at), MAX_NODES_SHOWN)
    at = table.at.tolist()
    before, after = (values.tolist() for values in handles(outline, table))
    turned, named = turns(outline, table).tolist(), kinds(outline, table)
    begins, ends = at_ends(outline.segments)
    way = np.where(table.after >= 0, begins[table.after], ends[table.before]).tolist()
    contour = table.contour.tolist()
    arrives, leaves = table.before.tolist(), table.after.tolist()
    dots = tuple(
        NodeDot(
            x=at[i].real,
            y=at[i].imag,
            kind=named[i],
            turn_deg=degrees(turned[i]),
            leaves_x=way[i].real,
            leaves_y=way[i].imag,
            contour=contour[i],
            handle_before=_spot(at[i] + before[i]) if before[i] else None,
            handle_after=_spot(at[i] + after[i]) if after[i] else None,
        )
        for i in range(len(at))
    )
    return NodeMap(
        live=not isinstance(node, PathNode),
        nodes=dots,
        sides=tuple(_sides(outline, arrives, leaves)),
    )


def node_maps(drawing: Drawing, ids: Collection[str], evaluator: Evaluator) -> dict[str, NodeMap]:
    """The nodes and sides of several shapes by their ids; raises as ``node_map``."""
    return {
        place.node.id: node_map(place.node, evaluator) for place in places_of(drawing, list(ids))
    }


def _sides(outline: Outline, arrives: list[int], leaves: list[int]) -> list[SideLine]:
    rows, round_ = outline.segments, is_round(outline).tolist()
    first = {side: node for node, side in enumerate(leaves) if side >= 0}
    last = {side: node for node, side in enumerate(arrives) if side >= 0}
    radii = rows.q.real.tolist()
    return [
        SideLine(
            kind="straight" if kind == LINE else "arc" if kind == ARC else "curve",
            first=first[i],
            last=last[i],
            radius=radii[i] if round_[i] else None,
            path=path,
        )
        for i, (kind, path) in enumerate(zip(rows.kind.tolist(), _each_alone(rows), strict=True))
    ]


def _each_alone(rows: Segments) -> list[str]:
    """Path data of each segment, written at once as contours of their own."""
    count = len(rows)
    apart = Outline(rows, np.arange(count + 1), np.zeros(count, np.bool_))
    return [f"M{word}" for word in apart.to_quick_data(_PRECISION).split("M")[1:]]


def _spot(point: complex) -> Spot:
    return point.real, point.imag
