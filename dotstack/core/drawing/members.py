"""Shapes that become members of others, with a role."""

from dotstack.core.combine import Role
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import CompoundNode, GroupNode, Member, Node, paint_of
from dotstack.core.drawing.places import all_ids, place_of, replaced
from dotstack.core.drawing.sound import check_depth
from dotstack.core.drawing.stacks import moved_within
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError
from dotstack.core.geometry import Affine
from dotstack.core.values import AnyId, Id, Name, Value

# What is done with a member of each role, as its step is called.
DOES = {
    Role.ADDS: "Add",
    Role.CUTS: "Cut with",
    Role.LIMITS: "Limit to",
    Role.ALTERNATES: "Alternate with",
}


class Into(Value):
    """What a shape becomes a member of, and what it does there.

    Attributes:
        id: the shape that takes it in.
        whole: the id of the compound that this one becomes, unless it is one already.
        name: the compound's name.

    """

    id: AnyId
    role: Role
    whole: Id
    name: Name


def taken_in(
    drawing: Drawing, into: Into, nodes: tuple[Node, ...], evaluator: Evaluator
) -> Drawing:
    """The drawing with nodes, which stand in a plate's axes, on top of what ``into`` names.

    What adds to a group lies in it. Raises CommandError, also where nothing would be left.
    """
    place = place_of(drawing, into.id)
    target = place.node
    if not target.is_active or target.locked:
        raise CommandError(
            f"{target.name} is hidden, locked or a guide shape, and takes nothing in; "
            "show or unlock it, or choose another."
        )

    def within(outer: Affine) -> tuple[Node, ...]:
        return tuple(moved_within(node, outer.inverse) for node in nodes)

    def roles(inner: tuple[Node, ...]) -> tuple[Member, ...]:
        return tuple(Member(role=into.role, node=node) for node in inner)

    whole: Node
    if isinstance(target, GroupNode) and into.role is Role.ADDS:
        whole = target.with_stack((*target.nodes, *within(place.affine)))
    elif isinstance(target, CompoundNode) and not target.bundled:
        members = (*target.members, *roles(within(place.affine)))
        whole = target.model_copy(update={"members": members})
    elif into.whole in all_ids(drawing) | {inner.id for node in nodes for inner in walk(node)}:
        raise CommandError(f"The id {into.whole!r} is taken already.")
    else:
        lowest = Member(role=Role.ADDS, node=target)
        whole = CompoundNode(
            id=into.whole,
            name=into.name,
            look=paint_of(target).look,
            members=(lowest, *roles(within(place.outer))),
        )
    if evaluator.own_outline(whole).is_empty:
        raise CommandError(f"Nothing would be left of {target.name}; it stays as it is.")
    done = replaced(drawing, into.id, lambda _: whole)
    for plate in done.plates:
        check_depth(plate.nodes)
    return done
