"""Commands that put shapes inside another, and take them out again."""

from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import ClipNode, Node
from dotstack.core.drawing.places import all_ids, exchanged, place_of, places_of, topmost_first
from dotstack.core.drawing.sound import check_depth
from dotstack.core.drawing.stacks import brought, moved_within
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.values import Id


class PutInside(Command):
    """Puts shapes inside another, so that they show only within it; they stay where they are.

    ``id`` is that of the clip which the holder becomes, unless it is a clip already.
    """

    kind: Literal["put-inside"] = "put-inside"
    ids: Ids
    holder: Id
    id: Id

    @property
    def label(self) -> str:
        return "Clip"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        order = topmost_first(drawing, set(self.ids))[::-1]
        places = places_of(drawing, order)
        into = place_of(drawing, self.holder)
        if any(inner.id == self.holder for place in places for inner in walk(place.node)):
            raise CommandError("A shape cannot be put inside itself.")
        if not evaluator.outline(into.node).closed.any():
            raise CommandError(f"{into.node.name} has no area that shapes could show within.")
        outer = into.affine if isinstance(into.node, ClipNode) else into.outer
        inside = tuple(brought(places, outer))
        left = exchanged(drawing, set(order), lambda _: ())
        if not isinstance(into.node, ClipNode) and self.id in all_ids(drawing):
            raise CommandError(f"The id {self.id!r} is taken already.")

        def filled(node: Node) -> tuple[Node, ...]:
            if isinstance(node, ClipNode):
                return (node.model_copy(update={"nodes": (*node.nodes, *inside)}),)
            return (ClipNode(id=self.id, name=node.name, holder=node, nodes=inside),)

        done = exchanged(left, {self.holder}, filled)
        for plate in done.plates:
            check_depth(plate.nodes)
        return done


class TakeOut(Command):
    """Takes shapes out of the clips that hold them, on to these; they stay where they are.

    A clip that is left with its holder alone becomes that again.
    """

    kind: Literal["take-out"] = "take-out"
    ids: Ids

    @property
    def label(self) -> str:
        return "Take out of clip"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        clips = set()
        for place in places_of(drawing, self.ids):
            if not isinstance(place.parent, ClipNode) or place.node is place.parent.holder:
                raise CommandError(f"{place.node.name} lies inside no clip.")
            clips.add(place.parent.id)
        return exchanged(drawing, clips, self._emptied)

    def _emptied(self, node: Node) -> tuple[Node, ...]:
        assert isinstance(node, ClipNode)
        by = node.transform.affine
        out = tuple(moved_within(child, by) for child in node.nodes if child.id in self.ids)
        stay = tuple(child for child in node.nodes if child.id not in self.ids)
        if not stay:
            return (moved_within(node.holder, by), *out)
        return (node.model_copy(update={"nodes": stay}), *out)
