"""What depends on what in a drawing: twins are tied to their sources, and sources to each other.

This is the one graph of dependencies. A tie is part of a twin's value: where a source becomes
another, so do all its twins, and what holds them. Whatever compares nodes, or remembers what was
made of them, needs to know of nothing else.
"""

from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Sequence
from operator import is_

from dotstack.core.drawing.document import Drawing, Plate
from dotstack.core.drawing.kinds import Node, RepeatNode, Source, TwinNode
from dotstack.core.drawing.kinds.node import FollowerNode, recast
from dotstack.core.drawing.sound import MAX_NESTING, MAX_NODES
from dotstack.core.drawing.tree import with_children
from dotstack.core.errors import CommandError, LimitError


def tied(drawing: Drawing) -> Drawing:
    """The drawing with each twin tied to its source; what was tied so keeps its identity.

    Where a twin's shapes were changed its source is what they make of it. A twin that carries a
    source brings it, unless the drawing has it. Sources without twins go, and so do twins in
    whose source nothing is left.

    Raises CommandError where a source would lie in itself, is not there, or would become two
    things at once; LimitError where there would be too many shapes, or too deep in each other.
    """
    return _Ties(drawing).tied()


def tied_alone(node: Node) -> Node:
    """The same of one node; see ``tied_together``."""
    (found,) = tied_together((node,))
    return found


def tied_together(nodes: tuple[Node, ...]) -> list[Node]:
    """The nodes with each twin in them tied to the source that one of them carries.

    Raises as ``tied``.
    """
    plate = Plate(id="alone", name="alone", width=1, height=1, nodes=nodes)
    (alone,) = tied(Drawing(name="alone", plates=(plate,))).plates
    return carrying(alone.nodes)


def carrying(nodes: Iterable[Node]) -> list[Node]:
    """The nodes, of which the first twin of each source carries it, for other drawings."""
    carried: set[str] = set()

    def loaded(node: Node) -> tuple[Node]:
        if not isinstance(node, TwinNode):
            return (_with_each(node, loaded),)
        assert node.link, "a twin in a drawing is tied"
        if node.source in carried:
            return (node.model_copy(update={"carried": None}),)
        carried.add(node.source)
        source = node.link.source
        inner = tuple(new for each in source.nodes for new in loaded(each))
        source = source.model_copy(update={"nodes": inner})
        return (node.model_copy(update={"carried": source}),)

    return [new for node in nodes for new in loaded(node)]


def with_own_sources(node: Node, new_id: Callable[[], str]) -> Node:
    """The node whose twins carry sources under new ids: they follow nothing but each other."""
    new_ids: defaultdict[str, str] = defaultdict(new_id)

    def freed(node: Node) -> tuple[Node]:
        if not isinstance(node, TwinNode):
            return (_with_each(node, freed),)
        changes: dict[str, object] = {"source": new_ids[node.source], "link": None}
        if node.carried:
            inner = tuple(new for each in node.carried.nodes for new in freed(each))
            changes["carried"] = Source(
                id=new_ids[node.source], name=node.carried.name, nodes=inner
            )
        return (node.model_copy(update=changes),)

    (fresh,) = freed(node)
    return tied_alone(fresh) if new_ids else node


class _Ties:
    """The sources of a drawing, found and tied anew."""

    def __init__(self, drawing: Drawing) -> None:
        self._drawing = drawing
        self._known = {source.id: source for source in drawing.sources}
        self._changed: dict[str, Source] = {}
        self._tied: dict[str, Source] = {}
        self._sizes: dict[str, tuple[int, int]] = {}
        self._taken: set[str] | None = None

    def tied(self) -> Drawing:
        drawing = self._drawing
        if not any(map(_has_copies, drawing.nodes)):
            return drawing.model_copy(update={"sources": ()}) if drawing.sources else drawing
        self._find(drawing.nodes)
        self._known |= self._changed
        self._measure(drawing.nodes)
        plates = tuple(self._plate(plate) for plate in drawing.plates)
        used: set[str] = set()
        self._use([node for plate in plates for node in plate.nodes], used)
        sources = tuple(self._tied[key] for key in self._known if key in used)
        changes: dict[str, object] = {}
        if not _same(plates, drawing.plates):
            changes["plates"] = plates
        if not _same(sources, drawing.sources):
            changes["sources"] = sources
        return drawing.model_copy(update=changes) if changes else drawing

    def _find(self, nodes: Iterable[Node]) -> None:
        """Finds what sources have become, and those that come along."""
        for twin in _twins(nodes):
            if twin.carried and twin.source not in self._known:
                self._known[twin.source] = twin.carried
                self._find(twin.carried.nodes)
            if twin.link is None or not twin.link.edited:
                continue
            source = twin.link.source
            other = self._changed.get(twin.source)
            if other is None:
                self._changed[twin.source] = source
                self._find(source.nodes)
            elif other.model_dump_json() != source.model_dump_json():
                raise CommandError(
                    f"Two twins of {source.name} would be changed in two ways, and each would "
                    "have to follow the other; change one of them."
                )

    def _use(self, nodes: Iterable[Node], used: set[str]) -> None:
        """Finds the sources that some twin follows."""
        for key in {twin.source for twin in _twins(nodes)} - used:
            used.add(key)
            self._use(self._tied[key].nodes, used)

    def _measure(self, nodes: Sequence[Node]) -> None:
        """Raises CommandError or LimitError unless all that is to be tied is sound."""
        count, deepest = self._size(nodes, ())
        if count > MAX_NODES:
            raise LimitError("shapes in one drawing, those in twins counted,", count, MAX_NODES)
        if deepest > MAX_NESTING:
            raise LimitError("shapes inside each other", deepest, MAX_NESTING)

    def _size(self, nodes: Iterable[Node], above: tuple[str, ...]) -> tuple[int, int]:
        """How many shapes there are, those in them counted, and how deep they lie."""
        count, deepest = 0, 0
        for node in nodes:
            if isinstance(node, TwinNode):
                inner = self._size_of_source(node, above)
            else:
                inner = self._size(_stored(node), above)
            if isinstance(node, RepeatNode):
                # More than it is by its line, if it has one, which is there once.
                inner = node.layout.total * (1 + inner[0]), 1 + inner[1]
            count += 1 + inner[0]
            deepest = max(deepest, 1 + inner[1])
        return count, deepest

    def _size_of_source(self, twin: TwinNode, above: tuple[str, ...]) -> tuple[int, int]:
        key = twin.source
        if key not in self._known:
            raise CommandError(f"The source of {twin.name} is not in this drawing.")
        if key in above:
            names = [self._known[each].name for each in (*above[above.index(key) :], key)]
            raise CommandError(f"A twin cannot lie in its own source: {' holds '.join(names)}.")
        if key not in self._sizes:
            self._sizes[key] = self._size(self._known[key].nodes, (*above, key))
        return self._sizes[key]

    def _plate(self, plate: Plate) -> Plate:
        nodes = self._nodes(plate.nodes)
        return plate if _same(nodes, plate.nodes) else plate.model_copy(update={"nodes": nodes})

    def _nodes(self, nodes: Sequence[Node]) -> tuple[Node, ...]:
        return tuple(new for node in nodes for new in self._node(node))

    def _node(self, node: Node) -> tuple[Node, ...]:
        if ":" in node.id:
            node = recast(node, self._named_plainly)
        if isinstance(node, TwinNode):
            source = self._source(node.source)
            if not source.nodes:
                return ()
            plain = node.model_copy(update={"carried": None}) if node.carried else node
            return (plain.tied(source),)
        if isinstance(node, RepeatNode):
            return self._repeat(node)
        if not node.children:
            return (node,)
        left = with_children(node, self._node)
        return () if left is None else (left,)

    def _repeat(self, node: RepeatNode) -> tuple[Node, ...]:
        line = () if node.line is None else self._node(node.line)
        repeated = self._nodes(node.nodes)
        if not repeated:
            return ()
        if node.line and not line:
            node = node.model_copy(update={"line": None})
        nodes = (*line, *repeated)
        return (node.with_stored(node.stored if _same(nodes, node.stored) else nodes),)

    def _named_plainly(self, node: Node) -> Node:
        """A shape that came out of a twin, which its id tells no longer."""
        if self._taken is None:
            sources = (inner for source in self._known.values() for inner in source.nodes)
            self._taken = set(_plain_ids((*self._drawing.nodes, *sources)))
        stem = fresh = node.id.rpartition(":")[2]
        serial = 1
        while fresh in self._taken:
            # The same shape came out of another twin too.
            fresh, serial = f"{stem[:36]}-{serial}", serial + 1
        self._taken.add(fresh)
        return node.model_copy(update={"id": fresh})

    def _source(self, key: str) -> Source:
        if key not in self._tied:
            known = self._known[key]
            nodes = self._nodes(known.nodes)
            same = _same(nodes, known.nodes)
            self._tied[key] = known if same else known.model_copy(update={"nodes": nodes})
        return self._tied[key]


def _stored(node: Node) -> Sequence[Node]:
    """What of a node a document says that lies in it."""
    return node.stored if isinstance(node, FollowerNode) else node.children


def _with_each(node: Node, change: Callable[[Node], tuple[Node]]) -> Node:
    """The node with each that a document says to lie in it changed."""
    if isinstance(node, FollowerNode):
        return node.with_stored([change(child)[0] for child in node.stored])
    return (with_children(node, change) or node) if node.children else node


def _plain_ids(nodes: Iterable[Node]) -> Iterator[str]:
    """The ids of nodes and of those in them, but for those in twins."""
    for node in nodes:
        if ":" not in node.id:
            yield node.id
        if not isinstance(node, TwinNode):
            yield from _plain_ids(node.children)


def _twins(nodes: Iterable[Node]) -> Iterator[TwinNode]:
    """The twins among nodes and in them, but for those in their sources."""
    for node in nodes:
        if isinstance(node, TwinNode):
            yield node
        else:
            yield from _twins(_stored(node))


def _has_copies(node: Node) -> bool:
    return isinstance(node, FollowerNode) or any(map(_has_copies, node.children))


def _same(some: Sequence[object], others: Sequence[object]) -> bool:
    return len(some) == len(others) and all(map(is_, some, others))
