"""What the sides of a shape's outline come from: so that a corner between two is known again."""

from collections.abc import Iterator
from dataclasses import dataclass
from statistics import fmean

import numpy as np
import scipy

from dotstack.core.arrangement import pairs
from dotstack.core.drawing.kinds.node import Evaluation, NodeBase
from dotstack.core.drawing.kinds.refinements import PickedCorner, Side
from dotstack.core.geometry import ARC, Affine, Outline, Segments, locate, measure
from dotstack.core.geometry.arrays import Ints, Points

# Of the extent of all: how near a point on a side is to be to one that it comes from.
_NEAR = 1e-8
# Of its radii: how alike the centres and radii of two arcs of one ellipse are.
_ALIKE = 1e-9


@dataclass(frozen=True, slots=True)
class Leaf:
    """A shape that sides are of.

    Attributes:
        id: None of the shape itself.
        affine: from its own axes to those in which the sides are told.

    """

    id: str | None
    affine: Affine


@dataclass(frozen=True, eq=False, slots=True)
class Origins:
    """All sides that those of a shape's outline may come from.

    Attributes:
        rows: in the shape's axes, leaf by leaf.
        leaf, number: shape (n,); which leaf each is of, and which side there.

    """

    rows: Segments
    leaf: Ints
    number: Ints
    leaves: tuple[Leaf, ...]

    @classmethod
    def of(
        cls, node: NodeBase, outline: Outline, stretch: Affine, evaluation: Evaluation
    ) -> "Origins":
        """Those of a node whose outline, before any refinement, is this one.

        ``stretch`` maps the node's own axes to those of the outline, in which sides are told.
        """
        # What is held may all be put aside, and shows as an outline nevertheless.
        found = list(_leaves(node, stretch, evaluation)) or [(None, stretch, outline)]
        counts = [len(each.segments) for _, _, each in found]
        numbers = [_numbers(each.segments) for _, _, each in found]
        return cls(
            Segments.concatenate(each.segments for _, _, each in found),
            np.repeat(np.arange(len(found)), counts),
            np.concatenate([np.empty(0, np.intp), *numbers]),
            tuple(Leaf(key, affine) for key, affine, _ in found),
        )

    def sides(self, points: Points) -> list[Side]:
        """The sides that points on the outline come from: those that run nearest to them."""
        if not len(self.rows):
            return [Side(number=0) for _ in points]
        x0, y0, x1, y1 = measure.boxes(self.rows)
        grain = _NEAR * max(float(x1.max() - x0.min()), float(y1.max() - y0.min()))
        rows = self._on(points, (x0, y0, x1, y1), grain)
        # What was moved away from all of them comes from what is nearest.
        for i in np.flatnonzero(rows < 0).tolist():
            rows[i], _, _ = locate.nearest_of_all(self.rows, complex(points[i]))
        return [
            Side(leaf=self.leaves[self.leaf[row]].id, number=int(self.number[row])) for row in rows
        ]

    def leaf_of(self, side: Side) -> Leaf:
        """The leaf that a side is of."""
        return next(leaf for leaf in self.leaves if leaf.id == side.leaf)

    def in_order(self, before: Side, after: Side) -> tuple[Side, Side]:
        """Two sides of a corner as they follow each other in their leaf, were it not mirrored."""
        if before.leaf == after.leaf and self.leaf_of(before).affine.determinant < 0:
            return after, before
        return before, after

    def moved(self, pick: PickedCorner, stretch: Affine) -> tuple[float, float]:
        """Where a corner is to be looked for: moved with its leaves, on average."""
        affines = {leaf.id: leaf.affine for leaf in self.leaves}
        keys = [side.leaf for side in (pick.before, pick.after) if side.leaf is not None]
        spots = [
            affines[key].apply_to(*place) for key, place in zip(keys, pick.places) if key in affines
        ] or [stretch.apply_to(pick.x, pick.y)]
        return fmean(x for x, _ in spots), fmean(y for _, y in spots)

    def _on(self, points: Points, boxes: pairs.Boxes, grain: float) -> Ints:
        """The first row that each point lies on, to a grain; -1 where there is none."""
        point, row = pairs.points_in_boxes(points, pairs.Strips(boxes, grain))
        _, off = locate.nearest(self.rows, row, points[point])
        point, row = point[off <= grain], row[off <= grain]
        found = np.full(len(points), len(self.rows))
        np.minimum.at(found, point, row)
        return np.where(found < len(self.rows), found, -1)


def _leaves(
    node: NodeBase, outer: Affine, evaluation: Evaluation
) -> Iterator[tuple[str | None, Affine, Outline]]:
    """The active shapes in a node that hold no others, where they stand, and their outlines."""
    for child in node.children:
        if not child.is_active:
            continue
        affine = outer @ child.transform.affine
        if child.children:
            yield from _leaves(child, affine, evaluation)
        else:
            yield child.id, affine, evaluation.outline(child).transformed(outer)


def _numbers(rows: Segments) -> Ints:
    """A number for each segment's side: that of the first arc on the same ellipse, or its own."""
    numbers = np.arange(len(rows))
    arcs = np.flatnonzero(rows.kind == ARC)
    if len(arcs) > 1:
        p, q = rows.p[arcs], rows.q[arcs]
        places = np.stack([p.real, p.imag, q.real, q.imag], axis=1)
        alike = scipy.spatial.cKDTree(places).query_ball_point(places, _ALIKE * np.abs(q))
        numbers[arcs] = arcs[[min(each) for each in alike]]
    return numbers
