"""Commands that make region builds, and pick anew in them."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.combining import taken
from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids, Seed
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.inked import inked
from dotstack.core.drawing.kinds import Node, RegionNode, RegionPick, paint_of, revised
from dotstack.core.drawing.kinds.picking import bounding, picked_region
from dotstack.core.drawing.places import place_of, replaced
from dotstack.core.drawing.sound import MAX_PIECES, check_pieces
from dotstack.core.drawing.stacks import pickable_in_order
from dotstack.core.errors import CommandError
from dotstack.core.values import Colour, Id, Name

Picks = Annotated[tuple[RegionPick, ...], Field(max_length=MAX_PIECES)]
RegionPaint = Literal["topmost", "lowest", "new"]


class BuildRegions(Command):
    """Makes shapes of one stack a region build.

    Attributes:
        picks: what becomes of which regions; None makes a piece of each, as Split does.
        fill: the build's own colour, which pieces take if ``paint`` is *new*.
        keep: whether hidden copies of the shapes stay beneath.
        lines_as_areas: whether lines count as what they ink.

    """

    kind: Literal["build-regions"] = "build-regions"
    ids: Ids
    id: Seed
    name: Name
    picks: Picks | None = None
    keep_rest: bool = True
    paint: RegionPaint = "topmost"
    fill: Colour | None = None
    keep: bool = False
    lines_as_areas: bool = False

    @property
    def label(self) -> str:
        return "Split" if self.picks is None else "Pick regions"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        chosen = pickable_in_order(drawing, self.ids)
        counted = inked(drawing, chosen) if self.lines_as_areas else chosen
        picks = self.picks
        if picks is None:
            picks = picks_of_all(counted, evaluator)
        look = paint_of(counted[-1]).look.bare
        build = RegionNode(
            id=self.id,
            name=self.name,
            look=look.model_copy(update={"fill": self.fill}) if self.fill else look,
            members=tuple(counted),
            picks=picks,
            keep_rest=self.keep_rest,
            paint=self.paint,
        )
        _check_leaves_something(build, evaluator)
        return taken(drawing, chosen, build, self.id if self.keep else None)


class SetRegions(Command):
    """Gives a region build other picks."""

    kind: Literal["set-regions"] = "set-regions"
    id: Id
    picks: Picks
    keep_rest: bool
    paint: RegionPaint
    fill: Colour | None = None

    @property
    def label(self) -> str:
        return "Pick regions"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        node = place_of(drawing, self.id).node
        if not isinstance(node, RegionNode):
            raise CommandError(f"{node.name} is no region build.")
        changes: dict[str, object] = {
            "picks": self.picks,
            "keep_rest": self.keep_rest,
            "paint": self.paint,
        }
        if self.fill:
            changes["look"] = node.look.model_copy(update={"fill": self.fill})
        build = revised(node, changes)
        assert isinstance(build, RegionNode)
        _check_leaves_something(build, evaluator)
        held = _still_held(node, build, evaluator)
        return replaced(drawing, node.id, lambda _: build.model_copy(update=held))


def picks_of_all(chosen: list[Node], evaluator: Evaluator) -> tuple[RegionPick, ...]:
    """A pick of each region that shapes cover; raises LimitError if they are too many."""
    shapes = bounding(chosen, evaluator)
    arrangement = evaluator.arranged([evaluator.outline(node) for node in shapes])
    found = [region for region in arrangement.regions if region.cover]
    check_pieces(len(found))
    return tuple(
        RegionPick(regions=(picked_region(region, region.spot[:2], shapes),)) for region in found
    )


def _still_held(before: RegionNode, after: RegionNode, evaluator: Evaluator) -> dict[str, object]:
    """What of a build was held, by the picks that find the same regions after a change.

    What goes by hand is told by the picks from then on.
    """
    found = {frozenset(regions): str(i) for i, regions in enumerate(after.build(evaluator).found)}
    now = {
        str(i): found.get(frozenset(regions))
        for i, regions in enumerate(before.build(evaluator).found)
    }
    held = ((now.get(each.piece, each.piece), each) for each in before.held)
    keys = (now.get(key, key) for key in before.order)
    return {
        "held": tuple(
            each.model_copy(
                update={"piece": key, "dropped": each.dropped and not each.piece.isdecimal()}
            )
            for key, each in held
            if key
        ),
        "order": tuple(key for key in keys if key),
    }


def _check_leaves_something(build: RegionNode, evaluator: Evaluator) -> None:
    if not build.build(evaluator).pieces:
        raise CommandError(
            "These picks leave nothing: keep a region, or let the rest stay. "
            "The shapes stay as they are."
        )
