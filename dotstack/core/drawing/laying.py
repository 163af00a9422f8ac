"""Layouts that say something of shapes: the line that copies stand along, and how large they are.

A layout holds it as it was after the last step: nothing that reads one needs to evaluate.
"""

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import FAULTS, Evaluator
from dotstack.core.drawing.kinds import Node, RepeatNode
from dotstack.core.drawing.kinds.layouts import Along, Layout, Row
from dotstack.core.drawing.links import tied
from dotstack.core.drawing.places import with_each
from dotstack.core.drawing.sound import MAX_NESTING
from dotstack.core.drawing.tree import told, with_each_told
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Outline, bundle

# Enough that a copy stands on the line without a visible difference.
_PRECISION = 12


def laid(drawing: Drawing, evaluator: Evaluator) -> Drawing:
    """The drawing in which each layout says what its shapes are now, if anything is left of them.

    What stays as it is keeps its identity.
    """

    def renewed(node: Node) -> Node:
        if not isinstance(node, RepeatNode):
            return node
        layout = _layout(node, evaluator)
        return node if layout is node.layout else node.model_copy(update={"layout": layout})

    if not any(_asks(inner) for node in drawing.roots for inner in told(node)):
        return drawing
    # What lies in a repeat is laid before what is made of it.
    for _ in range(MAX_NESTING):
        fresh = with_each(drawing, lambda node: with_each_told(node, renewed))
        if fresh is drawing:
            break
        drawing = tied(fresh)
    return drawing


def _asks(node: Node) -> bool:
    return isinstance(node, RepeatNode) and (
        node.line is not None or (isinstance(node.layout, Row) and node.layout.clear)
    )


def _layout(repeat: RepeatNode, evaluator: Evaluator) -> Layout:
    """A layout that says what its shapes are; the same one, if it does."""
    layout = repeat.layout
    now: dict[str, object] = {}
    try:
        if isinstance(layout, Along) and repeat.line:
            outline = evaluator.outline(repeat.line)
            now = {} if outline.is_empty else {"data": as_line(outline)}
        elif isinstance(layout, Row) and layout.clear:
            wide, high = extent(repeat, evaluator)
            now = {"wide": wide, "high": high}
        if all(getattr(layout, name) == value for name, value in now.items()):
            return layout
        return type(layout).model_validate({**layout.model_dump(), **now})
    except FAULTS:
        # It stays where it was until there is something to follow.
        return layout


def as_line(outline: Outline) -> str:
    """An outline as a layout says it."""
    return outline.to_path_data(_PRECISION)


def extent(repeat: RepeatNode, evaluator: Evaluator) -> tuple[float, float]:
    """How wide and high what is repeated is, along the repeat's axes.

    Raises CommandError where nothing is left of it.
    """
    shown = [evaluator.outline(node) for node in repeat.nodes if node.is_active]
    if all(outline.is_empty for outline in shown):
        raise CommandError(f"There is nothing to be seen of what {repeat.name} repeats.")
    x0, y0, x1, y1 = bundle(shown).bounds
    return x1 - x0, y1 - y0
