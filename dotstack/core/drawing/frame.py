"""A node's own axes: its box along them, its centre, its size as a person reads it."""

from collections.abc import Sequence
from dataclasses import dataclass

from dotstack.core.drawing.evaluate import Bounds, Evaluator
from dotstack.core.drawing.nodes import (
    ClipNode,
    CompoundNode,
    EllipseNode,
    GroupNode,
    Line,
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
from dotstack.core.geometry import Affine

_RIGID = 1e-12
_THIN = 1e-9
_SIZINGS = 80
# These have no centre of their own, but the middle of their box.
_BOXED = (ClipNode, CompoundNode, GroupNode, PartsNode, PathNode, PieceNode, RegionNode)


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
    box = evaluator.own_bounds(node) if isinstance(node, _BOXED) else (0.0, 0.0, 0.0, 0.0)
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
    if isinstance(node, _BOXED):
        return (box[0] + box[2]) / 2, (box[1] + box[3]) / 2
    return 0.0, 0.0


def axis_scales(affine: Affine) -> tuple[float, float]:
    """The lengths that a map gives to units along both axes; exactly 1 for a rigid one."""
    scales = abs(complex(affine.a, affine.b)), abs(complex(affine.c, affine.d))
    across, down = (1.0 if abs(scale - 1.0) <= _RIGID else scale for scale in scales)
    return across, down


def scaled(node: Node, across: float, down: float) -> Node:
    """The node scaled along its own axes, about its own origin.

    A primitive's radii and sides are scaled and its corners keep their radius; anything
    else is scaled by its transform.
    """
    changes: dict[str, object]
    if isinstance(node, RectangleNode | UnderlayNode):
        changes = {"width": node.width * across, "height": node.height * down}
    elif isinstance(node, LineNode):
        changes = {"length": node.length * across}
    elif isinstance(node, _BOXED):
        changes = {"transform": Placement.of(node.transform.affine @ Affine.scaling(across, down))}
    else:
        changes = {"rx": node.rx * across, "ry": node.ry * down}
    return revised(node, changes)


def sized(node: Node, width: float, height: float, evaluator: Evaluator) -> Node:
    """The node with a box of this size along its own axes, before its transform.

    A side that has no length, as of a line, keeps none.
    """
    if isinstance(node, EllipseNode) and node.sweep_deg == 360.0:
        return revised(node, {"rx": width / 2, "ry": height / 2})
    if isinstance(node, RectangleNode | UnderlayNode):
        return revised(node, {"width": width, "height": height})
    if isinstance(node, LineNode):
        return revised(node, {"length": width})
    x0, y0, x1, y1 = evaluator.own_bounds(node)
    if not isinstance(node, PolygonNode | StarNode):
        return scaled(node, _share(width, x1 - x0), _share(height, y1 - y0))
    # Rounded corners keep their radius, so that the box grows a little unlike the radii.
    for _ in range(_SIZINGS):
        across, down = _share(width, x1 - x0), _share(height, y1 - y0)
        if max(abs(across - 1.0), abs(down - 1.0)) <= _RIGID:
            break
        node = scaled(node, across, down)
        x0, y0, x1, y1 = evaluator.own_bounds(node)
    return node


def _share(wanted: float, given: float) -> float:
    return wanted / given if given > 0 else 1.0


def scaled_radii(node: Node, scale: float) -> dict[str, object]:
    """The corner radii and line width of a node that is to be ``scale`` times as large."""
    changes: dict[str, object] = {
        name: getattr(node, name) * scale
        for name in ("radius", "tip_radius", "notch_radius")
        if hasattr(node, name)
    }
    if isinstance(node, RectangleNode) and node.radii:
        changes["radii"] = tuple(radius * scale for radius in node.radii)
    if node.line:
        changes["line"] = Line(colour=node.line.colour, width=node.line.width * scale)
    return changes


def revised(node: Node, changes: dict[str, object]) -> Node:
    """The node with other fields, validated with the rest; raises ValidationError.

    Fields that do not change keep their identity, by which results are remembered.
    """
    fields = {name: getattr(node, name) for name in type(node).model_fields}
    checked = type(node).model_validate({**fields, **changes})
    return node.model_copy(update={name: getattr(checked, name) for name in changes})
