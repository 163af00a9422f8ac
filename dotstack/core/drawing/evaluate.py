"""Evaluation: from nodes to exact outlines, remembered by the identity of what made them."""

from collections import OrderedDict
from collections.abc import Callable, Sequence
from typing import TypeVar

from dotstack.core.arrangement import Arrangement
from dotstack.core.drawing.kinds import InPieces, Node, NodeBase, PieceNode, TwinNode
from dotstack.core.drawing.kinds.node import own_fields
from dotstack.core.drawing.kinds.pieces import as_held
from dotstack.core.drawing.refining import Note, Refined, refined, stretch_of, together
from dotstack.core.drawing.surroundings import NOWHERE, Surroundings
from dotstack.core.errors import CoreError
from dotstack.core.geometry import Affine, Outline, bundle
from dotstack.core.letters import Font
from dotstack.core.memory import Memory

# How much is remembered, and in how many bytes.
_RESULTS, _ARRANGEMENTS = 40_000, 16
_WEIGHT = 128 * 2**20
# How many shapes of twins are known for those of their sources.
_MODELS = 6000

# What evaluation may raise: what the core refuses, and what numbers do at their limits.
FAULTS = (CoreError, ValueError, ArithmeticError)

_UNMOVED = Affine()
# What is known by its value; a union of types would take twice as long to ask for.
_VALUES = (float, Affine)

Bounds = tuple[float, float, float, float]
T = TypeVar("T")


def _key(source: object) -> int | tuple[object]:
    """What tells a source from others: what it is of numbers and maps, of all else which."""
    return (source,) if isinstance(source, _VALUES) else id(source)


class Evaluator:
    """Outlines of nodes. Not for several threads at once.

    What is made of a node depends on the values of its kind alone: it is remembered by their
    identity, so that moving or painting the whole of a compound computes nothing again. An
    arrangement is remembered by its outlines, whoever asks for it; where some of them are
    new, the crossings between the others are kept from the last time.

    ``surroundings`` are where it finds what no drawing holds.
    """

    def __init__(self, surroundings: Surroundings = NOWHERE) -> None:
        self._surroundings = surroundings
        self._results = Memory(_RESULTS, _WEIGHT)
        self._arrangements = Memory(_ARRANGEMENTS, _WEIGHT)
        # By identity, with what was asked for, which is kept alive by it.
        self._models: OrderedDict[int, tuple[Node, Node]] = OrderedDict()

    def font(self, digest: str) -> Font | None:
        """The font with a digest; None where it is missing."""
        return self._surroundings.font(digest)

    def outline(self, node: Node) -> Outline:
        """The node's outline in the axes that contain it; raises ArrangementError.

        That of a group or of parts is of all that they cover, that of a clip its holder's.
        """
        return self.placed(self.own_outline(node), node.transform.affine)

    def placed(self, outline: Outline, by: Affine) -> Outline:
        """An outline under a map, remembered by both."""
        if by == _UNMOVED:
            return outline
        return self.remembered("placed", lambda: outline.transformed(by), outline, by)

    def own_outline(self, node: Node) -> Outline:
        """The node's refined outline in its own axes; raises ArrangementError."""
        if isinstance(node, InPieces) and (node.held or node.refinements):
            # Its pieces are refined, each by itself.
            return self.remembered("own", lambda: node.outline(self), self.pieces(node))
        return self.refined(node).outline

    def base_outline(self, node: Node) -> Outline:
        """The node's outline in its own axes before any refinement; raises ArrangementError."""
        model = self._model(node)
        return self.remembered("base", lambda: model.outline(self), *model.own)

    def refined(self, node: Node) -> Refined:
        """The node's refined outline, and what is to be told of it; raises ArrangementError."""
        model = self._model(node)
        return self._refined(model, self.base_outline(model))

    def meet(self, twin: TwinNode) -> None:
        """Takes what is inside a twin for what its source holds, which is evaluated once for all.

        Only what is to be seen may be other in a twin, so that their outlines are the same.
        """
        for shown, plain in twin.models():
            self._models[id(shown)] = shown, plain
        while len(self._models) > _MODELS:
            self._models.popitem(last=False)

    def _model(self, node: Node) -> Node:
        """The shape of a source that a shape of a twin is, where that twin was met; or itself."""
        return self._models.get(id(node), (node, node))[1]

    def _refined(self, node: NodeBase, outline: Outline) -> Refined:
        """An outline of the node, in its own axes, with its refinements."""
        stretch = stretch_of(node.transform.affine) if node.refinements else None
        if stretch is None or not stretch.determinant:
            return Refined(outline, ())
        return self.remembered(
            "refined",
            lambda: refined(node, outline, self),
            outline, node.refinements, stretch, *node.own,
        )  # fmt: skip

    def seen_outline(self, node: Node) -> Outline:
        """What is to be seen of a node in its own axes: of a group, all outlines in it."""
        inner = node.seen(self)
        if inner is None:
            return self.own_outline(node)
        return self.remembered(
            "seen",
            lambda: bundle(
                [
                    self.placed(self.seen_outline(child), child.transform.affine)
                    for child in inner
                    if child.visible
                ]
            ),
            inner,
        )

    def own_bounds(self, node: Node) -> Bounds:
        """The box of what is to be seen of a node, in its own axes."""
        return self.seen_outline(node).bounds

    def pieces(self, node: InPieces) -> tuple[Node, ...]:
        """The pieces that a node comes in, the lowest first; raises ArrangementError."""
        came = self.pieces_as_they_come(node)
        return self.remembered("pieces", lambda: as_held(node, came), came, node.held, node.order)

    def pieces_as_they_come(self, node: InPieces) -> tuple[PieceNode, ...]:
        """All pieces of a node, whatever was done to them by hand; raises ArrangementError."""
        came = self._come(node)
        if not node.refinements:
            return came

        made = [self._refined(node, piece.area) for piece in came]

        def refined_pieces() -> tuple[PieceNode, ...]:
            return tuple(
                piece.model_copy(update={"area": each.outline})
                for piece, each in zip(came, made, strict=True)
                if not each.outline.is_empty
            )

        return self.remembered("came refined", refined_pieces, came, *made)

    def notes(self, node: Node) -> tuple[Note, ...]:
        """What is to be told of the node's refinements; of what comes in pieces, of all of them."""
        if not isinstance(node, InPieces):
            return self.refined(node).notes
        each = [self._refined(node, outline).notes for outline in self.unrefined(node)]
        return tuple(map(together, zip(*each, strict=True)))

    def unrefined(self, node: Node) -> list[Outline]:
        """The node's outline before any refinement, or those of its pieces, in its own axes."""
        if not isinstance(node, InPieces):
            return [self.base_outline(node)]
        return [piece.area for piece in self._come(node)]

    def _come(self, node: InPieces) -> tuple[PieceNode, ...]:
        # Those that have no shape's paint have the node's.
        made_of = [
            getattr(node, name)
            for name in ("id", "look", *own_fields(type(node)))
            if name not in ("held", "order")
        ]
        return self.remembered("came", lambda: tuple(node.come(self)), *made_of)

    def arranged(self, outlines: Sequence[Outline]) -> Arrangement:
        """The arrangement of outlines, remembered for a while; raises ArrangementError."""
        known, key = self._arrangements, tuple(map(id, outlines))

        def arrange() -> Arrangement:
            return Arrangement.of(outlines, known.nearest(key))

        return known.get(key, arrange, tuple(outlines))

    def remembered(self, what: str, make: Callable[[], T], *sources: object) -> T:
        """What was made of these very sources, or else what is made of them now."""
        return self._results.get((what, *map(_key, sources)), make, sources)
