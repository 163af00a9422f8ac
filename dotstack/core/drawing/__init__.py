"""What is the mark? The document, the commands that change it, and its evaluation."""

from dotstack.core.drawing.commands import AnyCommand, apply, command_adapter
from dotstack.core.drawing.delta import (
    Delta,
    Entries,
    as_in,
    difference,
    patched,
    touched_plate,
    whole,
)
from dotstack.core.drawing.document import Drawing, Plate
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import (
    CompoundNode,
    EllipseNode,
    Member,
    Node,
    PolygonNode,
    RectangleNode,
    StarNode,
)
from dotstack.core.drawing.links import tied, tied_alone
from dotstack.core.values import Placement

__all__ = [
    "AnyCommand",
    "CompoundNode",
    "Delta",
    "Drawing",
    "EllipseNode",
    "Entries",
    "Evaluator",
    "Member",
    "Node",
    "Placement",
    "Plate",
    "PolygonNode",
    "RectangleNode",
    "StarNode",
    "apply",
    "as_in",
    "command_adapter",
    "difference",
    "patched",
    "tied",
    "tied_alone",
    "touched_plate",
    "whole",
]
