"""Commands that align shapes, spread them evenly, and make them alike."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.placing import Resize, centred, mapped, outermost, turn
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Bounds, Evaluator
from dotstack.core.drawing.frame import bounds_of, box_round, frame_of
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.places import Place, place_of, places_of, put
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.values import AnyId

Edge = Literal["left", "centre", "right", "top", "middle", "bottom"]
# Which share of a box lies before each of its edges and middles.
SHARES = {"left": 0.0, "centre": 0.5, "right": 1.0, "top": 0.0, "middle": 0.5, "bottom": 1.0}
_LABELS: dict[Edge, str] = {
    "left": "Align left", "centre": "Align centres", "right": "Align right",
    "top": "Align top", "middle": "Align middles", "bottom": "Align bottom",
}  # fmt: skip


class Align(Command):
    """Brings edges or middles of shapes' boxes on one line.

    Of the ``plate``; of the shape ``fixed``, which stays; or else of the box round all.
    ``with_line`` takes the width of the line along the outline into the box.
    """

    kind: Literal["align"] = "align"
    ids: Ids
    edge: Edge
    to: Literal["selection", "plate"] = "selection"
    fixed: AnyId | None = None
    with_line: bool = False

    @property
    def label(self) -> str:
        return _LABELS[self.edge]

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        places = outermost(drawing, self.ids)
        boxes = [box_of(place, evaluator, self.with_line) for place in places]
        if self.fixed:
            whole = box_of(place_of(drawing, self.fixed), evaluator, self.with_line)
        elif self.to == "plate":
            whole = (0.0, 0.0, places[0].plate.width, places[0].plate.height)
        else:
            whole = box_round(boxes)
        first = 0 if self.edge in ("left", "centre", "right") else 1
        share = SHARES[self.edge]
        target = _between(whole, first, share)
        return put(
            drawing,
            [
                _moved(place, first, target - _between(box, first, share))
                for place, box in zip(places, boxes, strict=True)
                if place.node.id != self.fixed
            ],
        )


class Spread(Command):
    """Spreads three or more shapes evenly along x or y; the outermost two stay.

    By equal gaps between their boxes, or by equal steps between the middles of these. To the
    ``plate`` even gaps also lie before the first and after the last, and two are enough.
    """

    kind: Literal["spread"] = "spread"
    ids: Annotated[Ids, Field(min_length=2)]
    axis: Literal["x", "y"]
    by: Literal["gaps", "centres"] = "gaps"
    to: Literal["selection", "plate"] = "selection"

    @property
    def label(self) -> str:
        return "Equal gaps" if self.by == "gaps" else "Equal centres"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        places = outermost(drawing, self.ids)
        if len(places) < 2:
            raise CommandError("One shape alone is not spread; choose others beside it.")
        if len(places) < 3 and self.to == "selection":
            raise CommandError("Two shapes have one gap only; choose three or more to spread.")
        first = 0 if self.axis == "x" else 1
        boxed = [(place, box_of(place, evaluator, False)) for place in places]
        boxed.sort(key=lambda each: _between(each[1], first, 0.5))
        plate = places[0].plate
        extent = (plate.width, plate.height)[first] if self.to == "plate" else None
        middles = self._middles([box for _, box in boxed], first, extent)
        return put(
            drawing,
            [
                _moved(place, first, target - _between(box, first, 0.5))
                for (place, box), target in zip(boxed, middles, strict=True)
            ],
        )

    def _middles(self, boxes: list[Bounds], first: int, extent: float | None) -> list[float]:
        """Where the middles of the boxes go, in their order along the axis."""
        sizes = [box[first + 2] - box[first] for box in boxes]
        n = len(boxes)
        if self.by == "centres":
            low, high = (_between(boxes[i], first, 0.5) for i in (0, -1))
            if extent is not None:
                low, high = sizes[0] / 2, extent - sizes[-1] / 2
            return [low + (high - low) * i / (n - 1) for i in range(n)]
        low, high, gaps = boxes[0][first], boxes[-1][first + 2], n - 1
        if extent is not None:
            low, high, gaps = 0.0, extent, n + 1
        gap = (high - low - sum(sizes)) / gaps
        at, middles = low + (gap if extent is not None else 0.0), []
        for size in sizes:
            middles.append(at + size / 2)
            at += size + gap
        return middles


class SameCentre(Command):
    """Puts shapes on one centre, on both axes: that of the first one named."""

    kind: Literal["same-centre"] = "same-centre"
    ids: Annotated[Ids, Field(min_length=2)]

    @property
    def label(self) -> str:
        return "Same centre"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        first, *others = places_of(drawing, self.ids)
        centre = frame_of(first.node, first.affine, evaluator).centre
        return put(drawing, [centred(place, centre, evaluator) for place in others])


class SameSize(Command):
    """Gives shapes the size along their own axes that the first one named has."""

    kind: Literal["same-size"] = "same-size"
    ids: Annotated[Ids, Field(min_length=2)]

    @property
    def label(self) -> str:
        return "Same size"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        first = place_of(drawing, self.ids[0])
        frame = frame_of(first.node, first.affine, evaluator)
        size = {"width": frame.width or None, "height": frame.height or None}
        return Resize(ids=self.ids[1:], **size).applied_to(drawing, evaluator)


class SameAngle(Command):
    """Turns shapes about their centres to the angle that the first one named has."""

    kind: Literal["same-angle"] = "same-angle"
    ids: Annotated[Ids, Field(min_length=2)]

    @property
    def label(self) -> str:
        return "Same angle"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        first, *others = places_of(drawing, self.ids)
        angle = frame_of(first.node, first.affine, evaluator).angle_deg
        frames = [frame_of(place.node, place.affine, evaluator) for place in others]
        return put(
            drawing,
            [
                mapped(place, turn(frame, angle))
                for place, frame in zip(others, frames, strict=True)
            ],
        )


def box_of(place: Place, evaluator: Evaluator, with_line: bool) -> Bounds:
    """The box of a shape on its plate, perhaps with the line along its outline."""
    x0, y0, x1, y1 = bounds_of(place.node, place.affine, evaluator)
    grow = place.node.look.reach if with_line else 0.0
    return x0 - grow, y0 - grow, x1 + grow, y1 + grow


def _between(box: Bounds, first: int, share: float) -> float:
    low, high = box[first], box[first + 2]
    return low + share * (high - low)


def _moved(place: Place, first: int, by: float) -> Node:
    if by == 0.0:
        return place.node
    return mapped(place, Affine.translation(by, 0.0) if first == 0 else Affine.translation(0.0, by))
