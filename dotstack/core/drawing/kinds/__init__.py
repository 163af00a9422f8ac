"""What is a shape of the stack? A module for each kind, and all of them as one type.

A new kind is a module, a line in ``Node``, and its name below: see ``docs/adding.md``.
"""

from typing import Annotated, TypeAlias

from pydantic import Field

from dotstack.core.drawing.kinds.arc import ArcNode
from dotstack.core.drawing.kinds.clip import ClipNode
from dotstack.core.drawing.kinds.compound import CompoundNode, Member
from dotstack.core.drawing.kinds.drop import DropNode
from dotstack.core.drawing.kinds.ellipse import EllipseNode
from dotstack.core.drawing.kinds.group import GroupNode
from dotstack.core.drawing.kinds.inscribed import PolygonNode, StarNode
from dotstack.core.drawing.kinds.line import LineNode
from dotstack.core.drawing.kinds.node import (
    HolderNode,
    LeafNode,
    NodeBase,
    Origin,
    PrimitiveNode,
    leaves,
    paint_of,
    revised,
)
from dotstack.core.drawing.kinds.own import Own
from dotstack.core.drawing.kinds.parts import PartsNode, paints_of
from dotstack.core.drawing.kinds.path import PathNode
from dotstack.core.drawing.kinds.picking import PickedRegion
from dotstack.core.drawing.kinds.pieces import Held, InPieces, OwnPaint, PieceNode
from dotstack.core.drawing.kinds.rectangle import RectangleNode
from dotstack.core.drawing.kinds.regions import RegionNode, RegionPick
from dotstack.core.drawing.kinds.repeat import RepeatNode
from dotstack.core.drawing.kinds.text import FontChoice, OnCircle, OnLine, TextNode
from dotstack.core.drawing.kinds.twin import Source, TwinNode
from dotstack.core.drawing.kinds.underlay import UnderlayNode

Node: TypeAlias = Annotated[
    EllipseNode
    | RectangleNode
    | PolygonNode
    | StarNode
    | DropNode
    | LineNode
    | ArcNode
    | PathNode
    | TextNode
    | UnderlayNode
    | CompoundNode
    | GroupNode
    | RegionNode
    | ClipNode
    | PartsNode
    | PieceNode
    | TwinNode
    | RepeatNode,
    Field(discriminator="kind"),
]


# What is painted in its own paint along one outline.
OneOutline: TypeAlias = LeafNode | CompoundNode | TextNode


def _knowing_each_other(*kinds: type[NodeBase]) -> None:
    """Tells kinds what a Node is, and mypy which of them leaves a question unanswered."""
    for kind in kinds:
        kind.model_rebuild(_types_namespace={"Node": Node})


Member.model_rebuild(_types_namespace={"Node": Node})
Source.model_rebuild(_types_namespace={"Node": Node})
OnLine.model_rebuild(_types_namespace={"Node": Node})
_knowing_each_other(EllipseNode, RectangleNode, PolygonNode, StarNode, DropNode, LineNode, ArcNode)
_knowing_each_other(PathNode, TextNode, UnderlayNode, PieceNode)
_knowing_each_other(CompoundNode, GroupNode, RegionNode, ClipNode, PartsNode, TwinNode)
_knowing_each_other(RepeatNode)

__all__ = [
    "ArcNode",
    "ClipNode",
    "CompoundNode",
    "DropNode",
    "EllipseNode",
    "FontChoice",
    "GroupNode",
    "Held",
    "HolderNode",
    "InPieces",
    "LeafNode",
    "LineNode",
    "Member",
    "Node",
    "NodeBase",
    "OnCircle",
    "OnLine",
    "OneOutline",
    "Origin",
    "Own",
    "OwnPaint",
    "PartsNode",
    "PathNode",
    "PickedRegion",
    "PieceNode",
    "PolygonNode",
    "PrimitiveNode",
    "RectangleNode",
    "RegionNode",
    "RegionPick",
    "RepeatNode",
    "Source",
    "StarNode",
    "TextNode",
    "TwinNode",
    "UnderlayNode",
    "leaves",
    "paint_of",
    "paints_of",
    "revised",
]
