"""What copies have of their own: paint, and what is hidden in them."""

from collections.abc import Mapping
from typing import TYPE_CHECKING, Literal, TypeAlias, get_args

from dotstack.core.drawing.kinds.node import FollowerNode, HolderNode
from dotstack.core.paint import Look
from dotstack.core.values import Id, Value

if TYPE_CHECKING:
    from dotstack.core.drawing.kinds import Node

LookField: TypeAlias = Literal["fill", "lines", "opacity", "blend", "shadows", "depth", "grows"]
LOOK_FIELDS: tuple[LookField, ...] = get_args(LookField)


class Own(Value):
    """What a twin has of its own in one of its shapes; in all else that follows the source.

    Attributes:
        node: the shape's id in the source, or in a twin that lies in that one, after its id.
        fields: those of its look that are its own, as ``look`` says them.
        hidden: whether it is hidden in this twin alone.

    """

    node: Id
    fields: tuple[LookField, ...] = ()
    look: Look = Look()
    hidden: bool = False

    def worn(self, look: Look) -> Look:
        """The look that follows the source, with those of its fields that are its own."""
        return look.model_copy(update={name: getattr(self.look, name) for name in self.fields})


def made_own(own: Own, before: "Node", after: "Node") -> Own | None:
    """What is its own of a shape that was one thing and is another now; None if it is the same."""
    fields = {
        name for name in LOOK_FIELDS if getattr(before.look, name) != getattr(after.look, name)
    }
    hides = before.visible and not after.visible
    shows = own.hidden and after.visible
    if not (fields or hides or shows):
        return None
    kept = tuple(name for name in LOOK_FIELDS if name in fields or name in own.fields)
    hidden = (own.hidden or hides) and not shows
    return own.model_copy(update={"fields": kept, "look": after.look, "hidden": hidden})


def wearing(node: "Node", own: Mapping[str, Own]) -> "Node":
    """A shape of a twin with what is that one's own."""
    if mine := own.get(node.id):
        changes = {"look": mine.worn(node.look), "visible": node.visible and not mine.hidden}
        node = node.model_copy(update=changes)
    if isinstance(node, FollowerNode):
        return node.with_shown([wearing(child, own) for child in node.children])
    if isinstance(node, HolderNode):
        return node.with_children([(wearing(child, own),) for child in node.children])
    return node
