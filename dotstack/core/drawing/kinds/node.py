"""What every kind of node is, and the questions that it answers for itself."""

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator, Mapping, Sequence
from functools import cache
from typing import TYPE_CHECKING, Annotated, Protocol, Self, TypeVar

from pydantic import Field

from dotstack.core.arrangement import Arrangement
from dotstack.core.drawing.kinds.formulas import Formula
from dotstack.core.drawing.kinds.refinements import Refinements
from dotstack.core.geometry import Affine, Outline
from dotstack.core.letters import Font
from dotstack.core.memory import Memory
from dotstack.core.paint import OF_WHOLE, Look, Tint
from dotstack.core.values import Id, Length, Name, Placement, Radius, Value

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node
    from dotstack.core.drawing.kinds.pieces import InPieces

T = TypeVar("T")
N = TypeVar("N", bound="NodeBase")
# How many outlines of each kind of primitive are remembered, and in how many bytes.
_DRAWN, _WEIGHT = 2000, 128 * 2**20
# How many of a shape's numbers can follow measures.
MAX_FORMULAS = 200
# A radius that is drawn this much smaller than it was asked for is clamped.
_LESS = 1 - 1e-9


class Evaluation(Protocol):
    """What evaluation offers a node that makes its outline of others, or of its surroundings."""

    def font(self, digest: str) -> Font | None:
        """The font with a digest; None where it is missing."""

    def outline(self, node: "Node") -> Outline:
        """A node's outline in the axes that contain it."""

    def placed(self, outline: Outline, by: Affine) -> Outline:
        """An outline under a map, remembered by both."""

    def pieces(self, node: "InPieces") -> "tuple[Node, ...]":
        """The pieces that a node comes in, the lowest first."""

    def arranged(self, outlines: Sequence[Outline]) -> Arrangement:
        """The arrangement of outlines, remembered by their identity."""

    def remembered(self, what: str, make: Callable[[], T], *sources: object) -> T:
        """What was made of these very sources, or else what is made now."""


class Origin(Value):
    """The asset that a shape is a placed copy of, and what it was of it then.

    Attributes:
        revision: of the asset's mark.
        size: the longer side of the mark along its own axes, before it was placed.
        angle_deg: that the mark was turned to.

    """

    asset: Id
    revision: Annotated[int, Field(ge=1)]
    size: Radius
    angle_deg: Annotated[float, Field(allow_inf_nan=False)]


class NodeBase(Value, ABC):
    """What every shape of the stack has.

    Attributes:
        look: its paint.
        refinements: what its outline goes through after it is made, the first one first.
        visible, guide: hidden and guide shapes take no part in outcomes, results or exports.
        locked: not to be picked or moved on the desk.
        origin: the asset that it was placed from, if it was.
        formulas: what of its numbers follows measures of the drawing; see ``measures``.

    """

    id: Id
    name: Name
    transform: Placement = Placement()
    look: Look = Look()
    refinements: Refinements = ()
    visible: bool = True
    locked: bool = False
    guide: bool = False
    origin: Origin | None = None
    formulas: Annotated[tuple[Formula, ...], Field(max_length=MAX_FORMULAS)] = ()

    @property
    @abstractmethod
    def children(self) -> "tuple[Node, ...]":
        """The nodes directly inside it, the lowest first."""

    @property
    @abstractmethod
    def lenders(self) -> "tuple[Node, ...]":
        """Those of its children whose paint it shows; none if that is its own."""

    @abstractmethod
    def outline(self, evaluation: Evaluation) -> Outline:
        """Its outline in its own axes, before any refinement; raises ArrangementError."""

    def refined(self: N, change: Callable[[Refinements], Refinements]) -> N:
        """The node with its refinements changed, or those of what has them in its place."""
        return self.model_copy(update={"refinements": change(self.refinements)})

    @abstractmethod
    def painted(self: N, changes: Mapping[str, object]) -> N:
        """The node with another look: with these of its fields."""

    def with_looks(self: N, change: Callable[[Look], Look]) -> N:
        """The node with each look that it keeps, but for its children's, changed."""
        return self.model_copy(update={"look": change(self.look)})

    @abstractmethod
    def renamed(self: N, new_ids: Mapping[str, str]) -> N:
        """The node with what it says of its children under their new ids, by the old ones."""

    @property
    def is_centred(self) -> bool:
        """Whether it is made round a centre of its own, at its origin, or has its box's middle."""
        return False

    @property
    def is_active(self) -> bool:
        """Whether it takes part in what is made of it."""
        return self.visible and not self.guide

    @property
    def common(self) -> dict[str, object]:
        """The fields that stay when it becomes a shape of another kind, by their names."""
        names = NodeBase.model_fields.keys() - {"refinements", "formulas"}
        return {name: getattr(self, name) for name in names}

    @property
    def own(self) -> tuple[object, ...]:
        """The values that its kind alone has, by which what is made of it is remembered."""
        return tuple(getattr(self, name) for name in own_fields(type(self)))

    def scaled(self: N, across: float, down: float) -> N:
        """The node scaled along its own axes, about its own origin: by its transform."""
        there = self.transform.affine @ Affine.scaling(across, down)
        return revised(self, {"transform": Placement.of(there)})

    def seen(self, evaluation: Evaluation) -> "tuple[Node, ...] | None":
        """The nodes that are to be seen in its place, the lowest first; None if it is itself."""
        return None

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        """What its figure says of this kind of node alone, by the figure's fields."""
        return {}


class LeafNode(NodeBase):
    """A node that holds no others, and has its own outline and paint."""

    @property
    def children(self) -> "tuple[Node, ...]":
        return ()

    @property
    def lenders(self) -> "tuple[Node, ...]":
        return ()

    @abstractmethod
    def drawn(self) -> Outline:
        """The outline in its own axes, which depends on nothing else."""

    def outline(self, evaluation: Evaluation) -> Outline:
        return self.drawn()

    def painted(self: N, changes: Mapping[str, object]) -> N:
        return self.with_looks(lambda look: look.model_copy(update=changes))

    def renamed(self: N, new_ids: Mapping[str, str]) -> N:
        return self


class PrimitiveNode(LeafNode):
    """A shape made of parameters, round its own centre at the origin of its axes."""

    @property
    def is_centred(self) -> bool:
        return True

    @abstractmethod
    def scaled(self: N, across: float, down: float) -> N:
        """The shape with its radii and sides scaled; its corners keep their radius."""

    def sized(self, width: float, height: float) -> Self:
        """The shape with a box of this size along its own axes.

        A side that has no length, as of a line, keeps none.
        """
        x0, y0, x1, y1 = self.drawn().bounds
        return self.scaled(share(width, x1 - x0), share(height, y1 - y0))

    def fitting(self) -> dict[str, tuple[float, float]]:
        """Its corner radii by name: as they are asked for, and as there is room for them."""
        return {}

    def rounder(self, scale: float) -> dict[str, object]:
        """Its corner radii, ``scale`` times as large, by the names of the fields."""
        return {name: asked * scale for name, (asked, _) in self.fitting().items()}

    def told(self, evaluation: Evaluation) -> dict[str, object]:
        radii = self.fitting().items()
        return {"clamped": {name: fits for name, (asked, fits) in radii if fits < asked * _LESS}}


class RadialNode(PrimitiveNode):
    """A shape round an ellipse of these radii."""

    rx: Length
    ry: Length

    def scaled(self, across: float, down: float) -> Self:
        return revised(self, {"rx": self.rx * across, "ry": self.ry * down})


class HolderNode(NodeBase):
    """A node that holds others."""

    @property
    def stays_alone(self) -> bool:
        """Whether it stays where none of its children is left."""
        return False

    @abstractmethod
    def with_children(self, fresh: "Sequence[tuple[Node, ...]]") -> "Node":
        """The node with each of its children replaced by others, of which some are left.

        A child that becomes several keeps what it does in each.
        """

    @abstractmethod
    def with_stack(self: N, nodes: "Sequence[Node]") -> N:
        """The node with these in it, the lowest first: its children in another order, and more."""

    def recast_in(self, cast: "Callable[[Node], Node]", new_ids: dict[str, str]) -> "Node":
        """The node with each that it holds cast, whose new ids stand in ``new_ids`` by then."""
        inner = [(cast(child),) for child in self.children]
        fresh = self.with_children(inner)
        return fresh.renamed(new_ids)

    def arrangement(self, evaluation: Evaluation) -> Arrangement:
        """The arrangement of its active children; raises ArrangementError."""
        active = [child for child in self.children if child.is_active]
        return evaluation.arranged([evaluation.outline(child) for child in active])

    def with_whole(self: N, changes: Mapping[str, object]) -> N:
        """The node with those fields of a look that are of all that it shows together."""
        own = {name: value for name, value in changes.items() if name in OF_WHOLE}
        return self.model_copy(update={"look": self.look.model_copy(update=own)}) if own else self


def recast(
    node: "Node", change: "Callable[[Node], Node]", new_ids: dict[str, str] | None = None
) -> "Node":
    """The node and all in it changed, each to one that may have another id.

    What is said of them follows; ``new_ids`` gets them by the old ones.
    """
    known = {} if new_ids is None else new_ids
    fresh = change(node)
    if isinstance(fresh, HolderNode):
        fresh = fresh.recast_in(lambda child: recast(child, change, known), known)
    known[node.id] = fresh.id
    refinements = tuple(each.renamed(known) for each in fresh.refinements)
    if refinements == fresh.refinements:
        return fresh
    return fresh.model_copy(update={"refinements": refinements})


def of_each(changes: Mapping[str, object]) -> dict[str, object]:
    """Those fields of a look that each shape in a holder has for itself."""
    return {name: value for name, value in changes.items() if name not in OF_WHOLE}


class FollowerNode(HolderNode):
    """A node whose shapes follow others: it makes them anew, and documents do not say them.

    Attributes:
        growth: how much larger lines and effects are than in those, where they are to be
            resized with their shapes.
        tint: what their fills are mixed with.

    """

    growth: Annotated[float, Field(gt=0, le=1e9, allow_inf_nan=False)] = 1.0
    tint: Tint | None = None

    @property
    @abstractmethod
    def stored(self) -> "tuple[Node, ...]":
        """Those that its shapes follow, as far as it holds them itself."""

    @abstractmethod
    def with_stored(self, nodes: "Sequence[Node]") -> Self:
        """The node whose shapes follow these."""

    @abstractmethod
    def with_shown(self, nodes: "Sequence[Node]") -> Self:
        """The node with these in the place of its shapes, which follow none for the moment."""

    @abstractmethod
    def grown(self, scale: float) -> Self:
        """The node with the lines and effects in it resized that are to be resized with it."""

    def renamed(self, new_ids: Mapping[str, str]) -> Self:
        return self


def leaves(node: "Node") -> "Iterator[Node]":
    """What has the node's paint: itself, or those in it that lend it theirs."""
    if not node.lenders:
        yield node
    for child in node.lenders:
        yield from leaves(child)


def paint_of(node: "Node") -> "Node":
    """The node whose paint a shape shows: itself, or of a group its topmost shape."""
    return list(leaves(node))[-1]


@cache
def own_fields(kind: type[NodeBase]) -> tuple[str, ...]:
    """The names of the fields that only this kind of node has."""
    return tuple(
        name for name in kind.model_fields if name not in NodeBase.model_fields and name != "kind"
    )


def revised(node: N, changes: Mapping[str, object]) -> N:
    """The node with other fields, validated with the rest; raises ValidationError.

    Fields that do not change keep their identity, by which results are remembered.
    """
    fields = {name: getattr(node, name) for name in type(node).model_fields}
    checked = type(node).model_validate({**fields, **changes})
    return node.model_copy(update={name: getattr(checked, name) for name in changes})


def remembered(draw: Callable[..., Outline]) -> Callable[..., Outline]:
    """The same, remembered by its parameters, so that what is moved is not made again."""
    memory = Memory(_DRAWN, _WEIGHT)
    return lambda *parameters: memory.get(parameters, lambda: draw(*parameters))


def share(wanted: float, given: float) -> float:
    """The factor to a wanted length; 1 for what has none."""
    return wanted / given if given > 0 else 1.0
