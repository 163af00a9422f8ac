"""Nodes, handles and sides of an outline changed by hand.

Nodes are known by their numbers in ``nodes_of``, sides by their places among the segments.
Every function gives a new outline and leaves all that it is not about as it was.
"""

from dotstack.core.refine.nodes.counting import added, halfway, loops, removed
from dotstack.core.refine.nodes.ends import (
    JoinedBy,
    beginning_at,
    closed,
    joined,
    pairs_within,
    run_back,
    snipped,
    split,
)
from dotstack.core.refine.nodes.moving import (
    bent,
    circled,
    lined_up,
    moved,
    with_handle,
    with_radius,
)
from dotstack.core.refine.nodes.shaping import SideKind, shaped, with_sides
from dotstack.core.refine.nodes.table import (
    NodeKind,
    Nodes,
    handles,
    is_round,
    kinds,
    nodes_of,
    sides_between,
    turns,
)

__all__ = [
    "JoinedBy",
    "NodeKind",
    "Nodes",
    "SideKind",
    "added",
    "beginning_at",
    "bent",
    "circled",
    "closed",
    "halfway",
    "handles",
    "is_round",
    "joined",
    "kinds",
    "lined_up",
    "loops",
    "moved",
    "nodes_of",
    "pairs_within",
    "removed",
    "run_back",
    "shaped",
    "sides_between",
    "snipped",
    "split",
    "turns",
    "with_handle",
    "with_radius",
    "with_sides",
]
