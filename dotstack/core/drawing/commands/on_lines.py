"""Commands that put words, and what is repeated, on a line, and take them off it."""

from math import hypot
from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.lettering import font_of
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node, OnLine, RepeatNode, TextNode, revised
from dotstack.core.drawing.kinds.layouts import Along, Mirror, Row
from dotstack.core.drawing.laying import as_line
from dotstack.core.drawing.places import exchanged, place_of, replaced
from dotstack.core.drawing.stacks import moved_within
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine, Outline, bundle
from dotstack.core.letters import usual_start
from dotstack.core.values import Id, Placement


class PutOnLine(Command):
    """Puts a text, or a repeat's copies, on the outline of a shape, which stays live inside it."""

    kind: Literal["put-on-line"] = "put-on-line"
    id: Id
    line: Id

    @property
    def named(self) -> tuple[str, ...]:
        return (self.id, self.line)

    @property
    def label(self) -> str:
        return "Put on a line"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        at, line = place_of(drawing, self.id), place_of(drawing, self.line)
        node = at.node
        if _line_of(node):
            raise CommandError(f"{node.name} stands on a line already; take it off first.")
        if at.affine.determinant == 0 or line.affine.determinant == 0:
            raise CommandError(f"{node.name} is flat; nothing can be put on a line.")
        if any(inner.id == self.id for inner in walk(line.node)):
            raise CommandError(
                f"{node.name} cannot stand on {line.node.name}, which it is part of."
            )
        moved = moved_within(line.node, at.affine.inverse @ line.outer)
        outline = evaluator.outline(moved)
        if outline.is_empty:
            raise CommandError(f"Nothing is left of {moved.name} to stand on.")
        fresh = _standing(node, moved, outline, evaluator)
        left = exchanged(drawing, {self.line}, lambda _: ())
        return replaced(left, self.id, lambda _: fresh)


def _standing(node: Node, line: Node, outline: Outline, evaluator: Evaluator) -> Node:
    match node:
        case TextNode():
            font_of(node, evaluator)
            start = usual_start(outline, node.alignment)
            return revised(node, {"course": OnLine(line=line, start=start), "kept": None})
        case RepeatNode(layout=layout) if not isinstance(layout, Mirror):
            first = layout.places[0]
            shown = bundle([evaluator.outline(each) for each in node.nodes]).transformed(first)
            x0, y0, x1, y1 = shown.bounds
            # They are round their own origin, and as large and turned as the first one was.
            by = Affine.translation(-(x0 + x1) / 2, -(y0 + y1) / 2) @ first
            nodes = tuple(moved_within(each, by) for each in node.nodes)
            along = Along(count=layout.total, data=as_line(outline))
            return revised(node, {"layout": along, "nodes": nodes, "line": line})
        case _:
            raise CommandError(
                f"Words, spins and rows can be put on a line; {node.name} is none of these."
            )


class TakeOffLine(Command):
    """Takes a text, or a repeat's copies, off its line, which lies under it again.

    The text is straight, and so is the row that the copies are in then.
    """

    kind: Literal["take-off-line"] = "take-off-line"
    id: Id

    @property
    def label(self) -> str:
        return "Take off the line"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = place_of(drawing, self.id).node
        line = _line_of(node)
        if line is None:
            raise CommandError(f"{node.name} stands on no line.")
        below = moved_within(line, node.transform.affine)
        straight = _straight(node)
        return exchanged(drawing, {self.id}, lambda _: (below, straight))


def _line_of(node: Node) -> Node | None:
    if isinstance(node, TextNode) and isinstance(node.course, OnLine):
        return node.course.line
    return node.line if isinstance(node, RepeatNode) else None


def _straight(node: Node) -> Node:
    if not isinstance(node, RepeatNode):
        return revised(node, {"course": None})
    first, *others = node.layout.places
    apart = hypot(others[0].e - first.e, others[0].f - first.f) if others else 1.0
    row = Row(columns=node.layout.total, dx=apart)
    there = node.transform.affine @ Affine.translation(first.e, first.f)
    changes = {"layout": row, "line": None, "transform": Placement.of(there)}
    return revised(node, changes)
