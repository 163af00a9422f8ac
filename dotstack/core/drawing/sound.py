"""What every document keeps to: its limits, and ids that nothing else has."""

from collections import Counter

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.places import all_ids
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CommandError, LimitError

MAX_PLATES = 200
MAX_NODES = 20_000
MAX_NESTING = 24
# Of one outcome: the shapes that go into it, and the pieces that come of it.
MAX_COMBINED = 500
MAX_PIECES = 2000


def check_fresh(drawing: Drawing, nodes: tuple[Node, ...]) -> None:
    """Raises CommandError or LimitError unless the nodes can be added."""
    taken = all_ids(drawing)
    fresh = [inner.id for node in nodes for inner in walk(node)]
    if len(set(fresh)) < len(fresh) or not taken.isdisjoint(fresh):
        raise CommandError("A shape needs ids that nothing else in the drawing has.")
    if len(taken) + len(fresh) > MAX_NODES:
        raise LimitError("shapes in one drawing", len(taken) + len(fresh), MAX_NODES)
    check_depth(nodes)


def check_apart(before: Drawing, after: Drawing) -> None:
    """Raises CommandError if a step puts two shapes of one id into one that holds them.

    What repeats hold has ids that copies of them share: a shape of one can be another's too.
    """
    known = set(map(id, before.nodes))
    for node in after.nodes:
        if id(node) not in known and (twice := _twice((node,))) and twice - _twice(before.nodes):
            raise CommandError(
                f"{node.name} would hold two shapes that copying has made of one, which nothing "
                "tells apart; duplicate the one to be put there, and put the duplicate."
            )


def _twice(nodes: tuple[Node, ...]) -> set[str]:
    """The ids that two shapes have, of the nodes and all in them."""
    counts = Counter(inner.id for node in nodes for inner in walk(node))
    return {key for key, count in counts.items() if count > 1}


def check_combined(count: int) -> None:
    """Raises LimitError if so many shapes cannot go into one outcome."""
    if count > MAX_COMBINED:
        raise LimitError("shapes combined at once", count, MAX_COMBINED)


def check_pieces(count: int) -> None:
    """Raises LimitError if so many pieces cannot come of one outcome."""
    if count > MAX_PIECES:
        raise LimitError("pieces of one outcome", count, MAX_PIECES)


def check_depth(nodes: tuple[Node, ...]) -> None:
    """Raises LimitError if compounds and groups lie too deep inside each other."""
    deepest = max(map(depth, nodes), default=0)
    if deepest > MAX_NESTING:
        raise LimitError("compounds inside each other", deepest, MAX_NESTING)


def depth(node: Node) -> int:
    """How many compounds and groups lie inside each other, the node itself counted."""
    inner = node.children
    return 1 + max(map(depth, inner)) if inner else 0
