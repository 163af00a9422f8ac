"""A node's own axes: its box along them, its centre, its size as a person reads it."""

from collections.abc import Callable
from dataclasses import dataclass

from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.nodes import (
    CompoundNode,
    EllipseNode,
    Member,
    Node,
    Placement,
    RectangleNode,
)
from dotstack.core.geometry import Affine

_RIGID = 1e-12


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
    box = evaluator.own_outline(node).bounds
    across, down = axis_scales(affine)
    return Frame(
        box,
        affine,
        affine.apply_to(*own_centre(node, box)),
        (box[2] - box[0]) * across,
        (box[3] - box[1]) * down,
        affine.angle_deg,
    )


def own_centre(node: Node, box: tuple[float, float, float, float]) -> tuple[float, float]:
    """The centre in the node's own axes."""
    if isinstance(node, CompoundNode):
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
    if isinstance(node, RectangleNode):
        changes = {"width": node.width * across, "height": node.height * down}
    elif isinstance(node, CompoundNode):
        changes = {"transform": Placement.of(node.transform.affine @ Affine.scaling(across, down))}
    else:
        changes = {"rx": node.rx * across, "ry": node.ry * down}
    return revised(node, changes)


def sized(node: Node, width: float, height: float, evaluator: Evaluator) -> Node:
    """The node with a box of this size along its own axes, before its transform."""
    if isinstance(node, EllipseNode):
        return revised(node, {"rx": width / 2, "ry": height / 2})
    if isinstance(node, RectangleNode):
        return revised(node, {"width": width, "height": height})
    x0, y0, x1, y1 = evaluator.own_outline(node).bounds
    return scaled(node, width / (x1 - x0), height / (y1 - y0))


def placed_copy(
    node: Node,
    *,
    name: str,
    centre: tuple[float, float],
    scale: float,
    new_id: Callable[[], str],
) -> Node:
    """A live copy with new ids, moved by ``centre`` and ``scale`` times as large."""
    fresh = _with_new_ids(node, new_id)
    if isinstance(fresh, RectangleNode):
        fresh = revised(fresh, {"radius": fresh.radius * scale})
    old = fresh.transform.affine
    moved = Affine(old.a, old.b, old.c, old.d, old.e * scale + centre[0], old.f * scale + centre[1])
    return scaled(revised(fresh, {"name": name, "transform": Placement.of(moved)}), scale, scale)


def kept_copy(node: Node, affine: Affine, evaluator: Evaluator) -> Node:
    """The node as it stands on its plate, with the middle of its box moved to the origin."""
    there = revised(node, {"transform": Placement.of(affine)})
    x0, y0, x1, y1 = evaluator.outline(there).bounds
    middle = Affine.translation(-(x0 + x1) / 2, -(y0 + y1) / 2)
    return revised(there, {"transform": Placement.of(middle @ affine)})


def _with_new_ids(node: Node, new_id: Callable[[], str]) -> Node:
    changes: dict[str, object] = {"id": new_id()}
    if isinstance(node, CompoundNode):
        changes["members"] = tuple(
            Member(role=member.role, node=_with_new_ids(member.node, new_id))
            for member in node.members
        )
    return revised(node, changes)


def revised(node: Node, changes: dict[str, object]) -> Node:
    """The node with other fields, validated with the rest; raises ValidationError.

    Fields that do not change keep their identity, by which results are remembered.
    """
    fields = {name: getattr(node, name) for name in type(node).model_fields}
    checked = type(node).model_validate({**fields, **changes})
    return node.model_copy(update={name: getattr(checked, name) for name in changes})
