"""A node's own axes: its box along them, its centre, its size as a person reads it."""

from collections.abc import Sequence
from dataclasses import dataclass

from dotstack.core.drawing.evaluate import Bounds, Evaluator
from dotstack.core.drawing.kinds import Node, PrimitiveNode
from dotstack.core.drawing.kinds.node import share
from dotstack.core.geometry import Affine

_RIGID = 1e-12
_THIN = 1e-9


@dataclass(frozen=True, slots=True)
class Frame:
    """The box of a node along its own axes, and the map from these to the plate's.

    Attributes:
        box: x0, y0, x1, y1 in the node's own axes, before its transform.
        centre: a primitive's own centre, the middle of the box of anything else; in the
            plate's axes, as are the following.
        width, height: along the node's own axes, not along the plate's.
        angle_deg: that its first axis is turned to.

    """

    box: tuple[float, float, float, float]
    affine: Affine
    centre: tuple[float, float]
    width: float
    height: float
    angle_deg: float


def frame_of(node: Node, affine: Affine, evaluator: Evaluator) -> Frame:
    """The frame of a node whose own axes are mapped to the plate's by ``affine``."""
    box = evaluator.own_bounds(node)
    across, down = axis_scales(affine)
    return Frame(
        box,
        affine,
        affine.apply_to(*own_centre(node, box)),
        (box[2] - box[0]) * across,
        (box[3] - box[1]) * down,
        affine.angle_deg,
    )


def centre_of(node: Node, affine: Affine, evaluator: Evaluator) -> tuple[float, float]:
    """The node's centre on the plate, as in ``Frame``."""
    box = (0.0, 0.0, 0.0, 0.0) if node.is_centred else evaluator.own_bounds(node)
    return affine.apply_to(*own_centre(node, box))


def bounds_of(node: Node, affine: Affine, evaluator: Evaluator) -> Bounds:
    """The box round what is to be seen of a node, along the plate's axes."""
    return evaluator.seen_outline(node).transformed(affine).bounds


def unit_box(bounds: Bounds) -> Affine:
    """The map of the unit square to a box, whose sides are taken to have some length."""
    x0, y0, x1, y1 = bounds
    return Affine(a=max(x1 - x0, _THIN), d=max(y1 - y0, _THIN), e=x0, f=y0)


def box_round(boxes: Sequence[Bounds]) -> Bounds:
    """The box round several."""
    return (
        min(box[0] for box in boxes),
        min(box[1] for box in boxes),
        max(box[2] for box in boxes),
        max(box[3] for box in boxes),
    )


def own_centre(node: Node, box: tuple[float, float, float, float]) -> tuple[float, float]:
    """The centre in the node's own axes."""
    if node.is_centred:
        return 0.0, 0.0
    return (box[0] + box[2]) / 2, (box[1] + box[3]) / 2


def axis_scales(affine: Affine) -> tuple[float, float]:
    """The lengths that a map gives to units along both axes; exactly 1 for a rigid one."""
    scales = abs(complex(affine.a, affine.b)), abs(complex(affine.c, affine.d))
    across, down = (1.0 if abs(scale - 1.0) <= _RIGID else scale for scale in scales)
    return across, down


def sized(node: Node, width: float, height: float, evaluator: Evaluator) -> Node:
    """The node with a box of this size along its own axes, before its transform.

    A side that has no length, as of a line, keeps none.
    """
    x0, y0, x1, y1 = evaluator.own_bounds(node)
    if isinstance(node, PrimitiveNode):
        if not node.refinements:
            return node.sized(width, height)
        # What refinements add to its sides they will add again.
        u0, v0, u1, v1 = node.drawn().bounds
        more, higher = (x1 - x0) - (u1 - u0), (y1 - y0) - (v1 - v0)
        return node.sized(max(width - more, _THIN), max(height - higher, _THIN))
    return node.scaled(share(width, x1 - x0), share(height, y1 - y0))
