"""Deltas: what one step changed, both ways, so that undo needs no command run backwards."""

from collections.abc import Mapping

from pydantic import Field

from dotstack.core.drawing.document import SWATCHES, Drawing, Measure, Plate, Swatch
from dotstack.core.drawing.kinds import Node, Source
from dotstack.core.drawing.kinds.formulas import Formula
from dotstack.core.drawing.links import tied
from dotstack.core.values import Colour, Id, Length, Name, Value


class PlateHead(Value):
    """A plate without its nodes, of which it has the ids, the lowest first."""

    name: Name
    width: Length
    height: Length
    background: Colour | None = "#FFFFFF"
    formulas: tuple[Formula, ...] = ()
    nodes: tuple[Id, ...]


class Entries(Value):
    """Parts of a drawing by id; None stands for one that is not there.

    Attributes:
        name, swatches, measures: of the drawing.
        plates: the ids of all plates, in order.
        heads: plates that are new, other or gone.
        nodes: shapes directly on a plate that are new, other or gone, also by their sources.
        sources: those that are new, other or gone.

    """

    name: Name
    swatches: tuple[Swatch, ...] = SWATCHES
    measures: tuple[Measure, ...] = ()
    plates: tuple[Id, ...]
    heads: dict[str, PlateHead | None]
    nodes: dict[str, Node | None]
    sources: dict[str, Source | None] = Field(default_factory=dict)


class Delta(Value):
    """What leads back to the drawing before a step, and forth to the one after it."""

    before: Entries
    after: Entries


def difference(before: Drawing, after: Drawing) -> Delta:
    """The delta between two drawings; the smaller, the more they share."""
    old_heads, new_heads = _heads(before), _heads(after)
    old_nodes, new_nodes = _nodes(before), _nodes(after)
    old_sources, new_sources = _sources(before), _sources(after)
    heads = [key for key in {**old_heads, **new_heads} if old_heads.get(key) != new_heads.get(key)]
    nodes = _changed(old_nodes, new_nodes)
    sources = _changed(old_sources, new_sources)

    def entries(
        drawing: Drawing,
        all_heads: dict[str, PlateHead],
        all_nodes: dict[str, Node],
        all_sources: dict[str, Source],
    ) -> Entries:
        return Entries(
            name=drawing.name,
            swatches=drawing.swatches,
            measures=drawing.measures,
            plates=tuple(plate.id for plate in drawing.plates),
            heads={key: all_heads.get(key) for key in heads},
            nodes={key: all_nodes.get(key) for key in nodes},
            sources={key: all_sources.get(key) for key in sources},
        )

    return Delta(
        before=entries(before, old_heads, old_nodes, old_sources),
        after=entries(after, new_heads, new_nodes, new_sources),
    )


def patched(drawing: Drawing, entries: Entries) -> Drawing:
    """The drawing with the entries in place; all else keeps its identity.

    What follows a source that is among them is another then, too.
    """
    nodes = {**_nodes(drawing), **entries.nodes}
    heads = {**_heads(drawing), **entries.heads}
    old = {plate.id: plate for plate in drawing.plates}

    def plate(plate_id: str) -> Plate:
        head = heads[plate_id]
        assert head is not None, "a plate in the order has a head"
        stack = tuple(node for key in head.nodes if (node := nodes[key]) is not None)
        known = old.get(plate_id)
        if known and plate_id not in entries.heads and all(map(_is, known.nodes, stack)):
            return known
        return Plate(
            id=plate_id,
            name=head.name,
            width=head.width,
            height=head.height,
            background=head.background,
            formulas=head.formulas,
            nodes=stack,
        )

    sources = {**_sources(drawing), **entries.sources}
    return tied(
        Drawing(
            name=entries.name,
            swatches=entries.swatches,
            measures=entries.measures,
            plates=tuple(plate(key) for key in entries.plates),
            sources=tuple(source for source in sources.values() if source is not None),
        )
    )


def as_in(drawing: Drawing, entries: Entries) -> Entries:
    """The entries with shapes and sources as the drawing has them, in which they were put."""
    nodes, sources = _nodes(drawing), _sources(drawing)
    return entries.model_copy(
        update={
            "nodes": {key: nodes.get(key) for key in entries.nodes},
            "sources": {key: sources.get(key) for key in entries.sources},
        }
    )


def touched_plate(drawing: Drawing, entries: Entries) -> str | None:
    """The first plate of a drawing that these entries, put into it, changed; or None."""
    for plate in drawing.plates:
        if plate.id in entries.heads or any(node.id in entries.nodes for node in plate.nodes):
            return plate.id
    return None


def whole(drawing: Drawing) -> Entries:
    """All of a drawing as entries."""
    return difference(Drawing(name=drawing.name, swatches=drawing.swatches), drawing).after


def _is(a: object, b: object) -> bool:
    return a is b


def _heads(drawing: Drawing) -> dict[str, PlateHead]:
    return {
        plate.id: PlateHead(
            name=plate.name,
            width=plate.width,
            height=plate.height,
            background=plate.background,
            formulas=plate.formulas,
            nodes=tuple(node.id for node in plate.nodes),
        )
        for plate in drawing.plates
    }


def _changed(before: Mapping[str, object], after: Mapping[str, object]) -> list[str]:
    return [
        key
        for key in {**before, **after}
        if (old := before.get(key)) is not (new := after.get(key)) and old != new
    ]


def _sources(drawing: Drawing) -> dict[str, Source]:
    return {source.id: source for source in drawing.sources}


def _nodes(drawing: Drawing) -> dict[str, Node]:
    return {node.id: node for node in drawing.nodes}
