"""Commands on the nodes of outlines: changed by hand, and ends joined."""

from collections.abc import Mapping, Sequence
from typing import Annotated, Literal

import numpy as np
import scipy
from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.node_edits import InHand, NodeEdit
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.corner_map import repicked
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node, PathNode, revised
from dotstack.core.drawing.looks import look_of
from dotstack.core.drawing.node_map import MAX_NODES_SHOWN, outline_in_hand
from dotstack.core.drawing.paths import PRECISION, as_path
from dotstack.core.drawing.places import (
    Place,
    exchanged,
    place_of,
    places_of,
    siblings,
    topmost_first,
)
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine, Outline, bundle, open_part
from dotstack.core.refine import nodes as hand
from dotstack.core.refine.nodes import JoinedBy
from dotstack.core.values import AnyId, Radius, Value

Numbers = Annotated[tuple[Annotated[int, Field(ge=0)], ...], Field(max_length=MAX_NODES_SHOWN)]


class Picked(Value):
    """What is picked of one shape, nodes and sides by their places in its map."""

    id: AnyId
    nodes: Numbers = ()
    sides: Numbers = ()


class EditNodes(Command):
    """Changes nodes and sides of outlines by hand; what is live becomes plain paths by it."""

    kind: Literal["edit-nodes"] = "edit-nodes"
    of: Annotated[tuple[Picked, ...], Field(min_length=1, max_length=200)]
    edit: NodeEdit

    @property
    def label(self) -> str:
        return self.edit.label

    @property
    def named(self) -> tuple[str, ...]:
        return tuple(picked.id for picked in self.of)

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        places = places_of(drawing, self.named)
        given = [
            _in_hand(drawing, place, picked, evaluator)
            for place, picked in zip(places, self.of, strict=True)
        ]
        made = zip(given, self.edit.made(given), strict=True)
        outlines = {
            picked.id: outline
            for picked, (before, outline) in zip(self.of, made, strict=True)
            if outline is not before.outline
        }

        def changed(node: Node) -> tuple[Node, ...]:
            return (edited(node, outlines[node.id], self.edit.keeps, evaluator),)

        return exchanged(drawing, outlines.keys(), changed)


class JoinEnds(Command):
    """Makes one node each of two ends, and one path of the shapes that they are of.

    Those of ``ends``, two in all; or else all ends that are no further apart than ``within``,
    the nearest first. The lowest of the shapes that become one keeps its place and paint.
    """

    kind: Literal["join-ends"] = "join-ends"
    ids: Ids
    ends: tuple[Picked, ...] = ()
    within: Radius = 0.0
    by: JoinedBy = "middle"

    @property
    def label(self) -> str:
        return "Join ends"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        ids = [each.id for each in self.ends] or self.ids
        order = topmost_first(drawing, ids)[::-1]
        outlines = {
            place.node.id: outline_in_hand(place.node, evaluator).transformed(place.affine)
            for place in places_of(drawing, order)
        }
        for group in [tuple(order)] if self.ends else self._groups(outlines):
            whole = bundle([outlines[key] for key in group])
            made = hand.joined(whole, self._pairs(whole, group, outlines), self.by)
            drawing = _one_path(drawing, group, made, evaluator)
        return drawing

    def _groups(self, outlines: Mapping[str, Outline]) -> list[tuple[str, ...]]:
        """The ids of shapes that become one, each group the lowest first; raises CommandError."""
        counts = [outline.node_count for outline in outlines.values()]
        of = np.repeat(np.arange(len(counts)), counts)
        whole = bundle(list(outlines.values()))
        pairs = of[np.array(hand.pairs_within(whole, self.within), np.intp).reshape(-1, 2)]
        if not len(pairs):
            raise CommandError(_too_far(whole, self.within))
        links = scipy.sparse.coo_matrix((np.ones(len(pairs)), pairs.T), (len(counts),) * 2)
        group = scipy.sparse.csgraph.connected_components(links, directed=False)[1]
        return [
            tuple(key for key, own in zip(outlines, group.tolist()) if own == each)
            for each in np.unique(group[pairs])
        ]

    def _pairs(
        self, whole: Outline, group: tuple[str, ...], outlines: Mapping[str, Outline]
    ) -> list[tuple[int, int]]:
        if not self.ends:
            return hand.pairs_within(whole, self.within)
        counts = {key: outlines[key].node_count for key in group}
        picked = [(each.id, node) for each in self.ends for node in each.nodes]
        if len(picked) != 2 or any(node >= counts.get(key, 0) for key, node in picked):
            raise CommandError(
                "Two ends of these shapes can be joined at a time; pick both of them."
            )
        first = dict(zip(group, np.cumsum([0, *counts.values()]).tolist()))
        one, two = (first[key] + node for key, node in picked)
        return [(one, two)]


class CompleteHalf(Command):
    """Makes a whole of a half: mirrors an open path across the line through its two ends.

    The mirrored half runs back from end to end, so that the path is closed without a gap.
    """

    kind: Literal["complete-half"] = "complete-half"
    id: AnyId

    @property
    def label(self) -> str:
        return "Mirror and close"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        place = place_of(drawing, self.id)
        half = outline_in_hand(place.node, evaluator).transformed(place.affine)
        table = hand.nodes_of(half)
        ends = table.at[~table.has_both].tolist()
        if len(ends) != 2 or ends[0] == ends[1]:
            raise CommandError(
                f"{place.node.name} is no half: that is one open line whose two ends lie apart."
            )
        begin, along = ends[0], (ends[1] - ends[0]) / abs(ends[1] - ends[0])
        turn = along * along
        across = Affine(turn.real, turn.imag, turn.imag, -turn.real)
        whole = bundle([half, half.transformed(across.about(begin.real, begin.imag))])
        n, (one, two) = half.node_count, np.flatnonzero(~table.has_both).tolist()
        made = hand.joined(whole, [(one, one + n), (two, two + n)], "first")
        return _one_path(drawing, (self.id,), made, evaluator)


def _in_hand(drawing: Drawing, place: Place, picked: Picked, evaluator: Evaluator) -> InHand:
    """What is picked of a shape; raises CommandError for what is not there."""
    outline = outline_in_hand(place.node, evaluator)
    nodes, sides = (np.array(sorted({*each}), np.intp) for each in (picked.nodes, picked.sides))
    counts = (outline.node_count, len(outline.segments))
    if any(len(each) and each[-1] >= count for each, count in zip((nodes, sides), counts)):
        raise CommandError(
            f"{place.node.name} has {counts[0]} nodes and {counts[1]} sides, not so many."
        )

    def others() -> list[Outline]:
        into_own = place.affine.inverse @ place.outer
        return [
            evaluator.outline(node).transformed(into_own)
            for node in siblings(drawing, place)
            if node.id != place.node.id and node.visible
        ]

    between = np.union1d(sides, hand.sides_between(outline, nodes)).astype(np.intp)
    return InHand(place.node.name, outline, place.affine, nodes, between, others)


def edited(node: Node, outline: Outline, keeps: bool, evaluator: Evaluator) -> Node:
    """The node as a path of another outline; ``keeps`` says whether its sides keep their numbers.

    A path keeps its refinements, and corners that were picked are picked on the new sides.
    """
    if outline.is_empty:
        raise CommandError(f"That would leave nothing of {node.name}; it stays as it is.")
    if not outline.closed.all() and outline_in_hand(node, evaluator).closed.all():
        # What is opened bounds nothing more, and would be seen no more without a line.
        lines = look_of(open_part(outline), node.look).lines
        node = node.with_looks(lambda look: look.model_copy(update={"lines": lines}))
    if not isinstance(node, PathNode):
        return as_path(node, outline, node.id)
    changed = revised(node, {"data": outline.to_path_data(PRECISION)})
    return changed if keeps else repicked(node, changed, evaluator)


def _one_path(
    drawing: Drawing, ids: Sequence[str], on_plate: Outline, evaluator: Evaluator
) -> Drawing:
    """The drawing with one path in the place of the first of some shapes, the others gone."""
    lowest = place_of(drawing, ids[0])
    path = edited(lowest.node, on_plate.transformed(lowest.affine.inverse), False, evaluator)
    return exchanged(drawing, set(ids), lambda node: (path,) if node.id == ids[0] else ())


def _too_far(whole: Outline, within: float) -> str:
    table = hand.nodes_of(whole)
    ends = table.at[~table.has_both]
    if len(ends) < 2:
        return "These shapes have no open ends to join; lines and open paths have."
    apart = np.abs(ends[:, None] - ends[None, :])
    nearest = apart[np.triu_indices(len(ends), k=1)].min()
    return f"No two ends lie within {within:g} of each other; the nearest are {nearest:g} apart."
