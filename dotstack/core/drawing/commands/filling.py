"""Commands that fill the holes of a compound, and open them again."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import CompoundNode, Node, revised
from dotstack.core.drawing.kinds.picking import picked_region
from dotstack.core.drawing.places import place_of, replaced
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Outline, unbundle
from dotstack.core.values import Id


class FillHole(Command):
    """Fills a hole of a compound, by its place among ``holes``; it stays filled as members move."""

    kind: Literal["fill-hole"] = "fill-hole"
    id: Id
    hole: Annotated[int, Field(ge=0)]

    @property
    def label(self) -> str:
        return "Fill hole"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = _compound(drawing, self.id)
        found = holes(node, evaluator)
        if self.hole >= len(found):
            raise CommandError(f"{node.name} has no such hole: there are {len(found)}.")
        edge = found[self.hole]
        active = [member for member in node.children if member.is_active]
        regions = node.arrangement(evaluator).regions
        within = [region for region in regions if edge.contains(*region.spot[:2])]
        fresh = tuple(picked_region(region, region.spot[:2], active) for region in within)
        changes: dict[str, object] = {"filled": (*node.filled, *fresh)}
        return replaced(drawing, node.id, lambda _: revised(node, changes))


class OpenHoles(Command):
    """Opens the holes of a compound that were filled."""

    kind: Literal["open-holes"] = "open-holes"
    id: Id

    @property
    def label(self) -> str:
        return "Open holes"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = _compound(drawing, self.id)
        return replaced(drawing, node.id, lambda _: revised(node, {"filled": ()}))


def holes(node: CompoundNode, evaluator: Evaluator) -> list[Outline]:
    """The edges of a compound's holes, in its own axes; each runs round what it leaves out.

    As its shapes leave them, before any refinement. Those of a bundle are shapes of it, and no
    holes to be filled.
    """
    if node.bundled:
        return []
    return [contour for contour in unbundle(evaluator.base_outline(node)) if contour.area < 0]


def _compound(drawing: Drawing, node_id: str) -> CompoundNode:
    node: Node = place_of(drawing, node_id).node
    if not isinstance(node, CompoundNode):
        raise CommandError(f"{node.name} is no compound; only the holes of one can be filled.")
    return node
