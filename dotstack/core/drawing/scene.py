"""The scene: what is painted, and what a person can take hold of, as path data."""

from collections.abc import Iterator
from typing import Self

from dotstack.core.combine import LIVE, OutcomeResult, outcomes
from dotstack.core.drawing.commands import chosen_in_order
from dotstack.core.drawing.delta import Entries
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.frame import frame_of
from dotstack.core.drawing.nodes import CompoundNode, Node, Placement, Plate, Value
from dotstack.core.geometry import Affine, Outline

# Enough for what is seen at any zoom; exports choose their own precision.
PRECISION = 6


class Box(Value):
    """Bounds along two axes."""

    x0: float
    y0: float
    x1: float
    y1: float

    @classmethod
    def of(cls, bounds: tuple[float, float, float, float]) -> Self:
        """The box of an outline's bounds."""
        x0, y0, x1, y1 = bounds
        return cls(x0=x0, y0=y0, x1=x1, y1=y1)


class Figure(Value):
    """One node as it stands on the plate.

    Attributes:
        path: its outline, as path data in the plate's axes; empty if nothing is left.
        fill_rule: as in SVG.
        node_count: how many nodes its outline has.
        matrix: from its own axes to the plate's.
        box: along its own axes.
        x, y, width, height, angle_deg: its facts: its centre on the plate, its sizes along
            its own axes.

    """

    id: str
    path: str
    fill_rule: str
    node_count: int
    matrix: Placement
    box: Box
    x: float
    y: float
    width: float
    height: float
    angle_deg: float


class Piece(Value):
    """Something painted: path data in the plate's axes, and its paint."""

    path: str
    fill_rule: str
    fill: str


def figures(node: Node, evaluator: Evaluator, outer: Affine | None = None) -> Iterator[Figure]:
    """The node's figure, and those of all nodes inside it.

    ``outer`` maps the axes that contain the node to the plate's.
    """
    outer = outer or Affine()
    affine = outer @ node.transform.affine
    outline = evaluator.outline(node)
    if outer != Affine():
        outline = outline.transformed(outer)
    frame = frame_of(node, affine, evaluator)
    yield Figure(
        id=node.id,
        path=outline.to_path_data(PRECISION),
        fill_rule=outline.fill_rule,
        node_count=outline.node_count,
        matrix=Placement.of(affine),
        box=Box.of(frame.box),
        x=frame.centre[0],
        y=frame.centre[1],
        width=frame.width,
        height=frame.height,
        angle_deg=frame.angle_deg,
    )
    if isinstance(node, CompoundNode):
        for member in node.members:
            yield from figures(member.node, evaluator, affine)


def changed_figures(entries: Entries, evaluator: Evaluator) -> dict[str, list[Figure]]:
    """The figures of all nodes in the entries, by the id of the node on the plate."""
    return {
        key: list(figures(node, evaluator))
        for key, node in entries.nodes.items()
        if node is not None
    }


def painted(
    nodes: tuple[Node, ...], evaluator: Evaluator, precision: int = PRECISION
) -> list[Piece]:
    """What a stack of nodes paints, the lowest piece first."""
    pieces = []
    for node in nodes:
        outline = evaluator.outline(node)
        if node.fill is not None and not outline.is_empty:
            path = outline.to_path_data(precision)
            pieces.append(Piece(path=path, fill_rule=outline.fill_rule, fill=node.fill))
    return pieces


def outcomes_of(
    plate: Plate, ids: tuple[str, ...], evaluator: Evaluator
) -> tuple[list[Node], list[OutcomeResult]]:
    """The chosen nodes, lowest first, and every live outcome of them; raises CommandError."""
    chosen = chosen_in_order(plate.nodes, ids)
    operands: list[Outline] = [evaluator.outline(node) for node in chosen]
    return chosen, list(outcomes(operands, which=LIVE))
