"""Outlines as plain paths of the document."""

from dotstack.core.drawing.kinds import Node, PathNode
from dotstack.core.geometry import Outline
from dotstack.core.paint import Look

# Enough that an arc's centre comes back from its ends without a difference that is seen.
PRECISION = 12


def path_of(outline: Outline, node_id: str, name: str, look: Look) -> PathNode:
    """A path that looks so."""
    return PathNode(
        id=node_id,
        name=name,
        look=look,
        data=outline.to_path_data(PRECISION),
        fill_rule=outline.fill_rule,
    )


def as_path(node: Node, outline: Outline, node_id: str) -> PathNode:
    """A node of such an outline as a plain path."""
    fields = {**node.common, "id": node_id}
    return PathNode(**fields, data=outline.to_path_data(PRECISION), fill_rule=outline.fill_rule)
