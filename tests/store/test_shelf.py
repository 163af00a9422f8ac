"""The shelf: what is put there stays in its order, and every change can be taken back."""

from collections.abc import Callable, Iterator
from contextlib import closing
from datetime import datetime
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from dotstack.core.drawing import EllipseNode
from dotstack.core.drawing.kit import KitAsset
from dotstack.store import Database, GoneError, Shelf, ShelfStore
from dotstack.store.errors import NothingToUndoError


def now() -> datetime:
    return datetime(2026, 11, 1)


@pytest.fixture
def shelf(url: str) -> Iterator[ShelfStore]:
    database = Database(url)
    yield ShelfStore(database, now)
    database.close()


def disc(name: str, *tags: str) -> KitAsset:
    return KitAsset(name=name, tags=tags, node=EllipseNode(id="disc", name=name, rx=5, ry=5))


def names(shelf: Shelf) -> dict[str, dict[str, list[str]]]:
    return {
        collection.name: {
            section.name: [asset.name for asset in section.assets]
            for section in collection.sections
        }
        for collection in shelf.collections
    }


def filled(shelf: ShelfStore) -> None:
    shelf.add_collection("Harbour set", ["Wayfinding", "Parts"])
    shelf.add_collection("Ferry set", ["Boats"])
    (first, second), (third,) = (c.sections for c in shelf.shelf().collections)
    for section, marks in ((first, "ABC"), (second, "DE"), (third, "F")):
        shelf.put(section.id, [disc(name, "sign") for name in marks])


def test_assets_are_found_where_they_were_put_with_the_newest_first(shelf: ShelfStore) -> None:
    filled(shelf)
    section = shelf.shelf().collections[0].sections[0]
    (asset,) = shelf.put(section.id, [disc("Buoy", "float", "sign")])
    assert names(shelf.shelf()) == {
        "Harbour set": {"Wayfinding": ["Buoy", "A", "B", "C"], "Parts": ["D", "E"]},
        "Ferry set": {"Boats": ["F"]},
    }
    assert shelf.asset(asset.id).tags == ("float", "sign")
    assert shelf.update(asset.id, disc("Float").node).revision == 2
    assert shelf.asset(asset.id).node.name == "Float"
    for wrong in (
        lambda: shelf.put("nowhere", [disc("Buoy")]),
        lambda: shelf.asset("nowhere"),
        lambda: shelf.rename("section", "nowhere", "Name"),
        lambda: shelf.move("asset", [asset.id], "nowhere", 0),
        lambda: shelf.delete("collection", ["nowhere"]),
        lambda: shelf.add_section("nowhere", "Parts"),
    ):
        with pytest.raises(GoneError, match="nowhere"):
            wrong()
    assert shelf.shelf().undo_label == "Update Buoy"


def test_a_mark_is_the_same_node_for_all_who_ask_until_it_is_another(shelf: ShelfStore) -> None:
    filled(shelf)
    head = shelf.shelf().collections[0].sections[0].assets[0]
    node = shelf.asset(head.id).node
    assert shelf.assets([head.id])[0].node is node
    shelf.update(head.id, disc("Other").node)
    assert shelf.asset(head.id).node.name == "Other"
    shelf.undo()
    assert shelf.asset(head.id).node is node


def test_a_kit_is_loaded_anew_beside_or_in_place_and_what_stays_keeps_its_id(
    shelf: ShelfStore,
) -> None:
    filled(shelf)
    harbour = shelf.shelf().collections[0]
    kit = shelf.kit_of(harbour.id)
    parts = kit.sections[1]
    other = parts.assets[0].model_copy(update={"node": disc("Other").node})
    changed = kit.model_copy(
        update={
            "sections": (parts.model_copy(update={"assets": (other, *kit.sections[0].assets)}),)
        }
    )
    shelf.load([changed], "skip")
    assert shelf.shelf().collections[0] == harbour
    shelf.load([changed], "replace")
    now_there = shelf.shelf()
    assert names(now_there)["Harbour set"] == {"Parts": ["D", "A", "B", "C"]}
    (section,) = now_there.collections[0].sections
    assert section.id == harbour.sections[1].id
    kept, *fresh = section.assets
    assert (kept.id, kept.revision) == (harbour.sections[1].assets[0].id, 2)
    assert all(asset.revision == 1 for asset in fresh)
    shelf.undo()
    assert shelf.shelf().collections[0] == harbour
    shelf.load([kit, kit], "keep both")
    assert [each.name for each in shelf.shelf().collections] == [
        "Harbour set", "Ferry set", "Harbour set 2", "Harbour set 3",
    ]  # fmt: skip
    assert shelf.kit_of(shelf.shelf().collections[3].id).sections == kit.sections
    shelf.undo()
    assert len(shelf.shelf().collections) == 2


def _changes(shelf: ShelfStore) -> dict[str, Any]:
    collections = shelf.shelf().collections
    sections = [s for c in collections for s in c.sections]
    heads = [a for s in sections for a in s.assets]
    pick = st.sampled_from
    name = st.text("abc", min_size=1, max_size=3)
    made: dict[str, Any] = {"add_collection": st.tuples(name, st.just(["x", "y"]))}
    if collections:
        of = pick([c.id for c in collections])
        made["add_section"] = st.tuples(of, name)
        made["rename"] = st.tuples(st.just("collection"), of, name)
        made["move"] = st.tuples(st.just("collection"), of.map(lambda i: [i]), st.none(),
                                 st.integers(0, 3))  # fmt: skip
        made["delete"] = st.tuples(st.just("collection"), of.map(lambda i: [i]))
    if sections:
        to = pick([s.id for s in sections])
        made["put"] = st.tuples(to, st.lists(name.map(disc), min_size=1, max_size=3))
        into = pick([c.id for c in collections])
        one = to.map(lambda i: [i])
        made["move section"] = st.tuples(st.just("section"), one, into, st.integers(0, 3))
        made["delete section"] = st.tuples(st.just("section"), to.map(lambda i: [i]))
    if heads:
        some = st.lists(pick([a.id for a in heads]), min_size=1, max_size=3, unique=True)
        to = pick([s.id for s in sections])
        made["tag"] = st.tuples(some, st.lists(name, max_size=2), st.lists(name, max_size=2))
        made["move asset"] = st.tuples(st.just("asset"), some, to, st.integers(0, 4))
        made["delete asset"] = st.tuples(st.just("asset"), some)
        made["update"] = st.tuples(pick([a.id for a in heads]), name.map(lambda n: disc(n).node))
    return made


@pytest.mark.parametrize("where", ["memory", "postgresql"])
@settings(max_examples=25, deadline=None)
@given(data=st.data())
def test_undo_and_redo_lead_through_every_change_of_the_shelf(
    data: st.DataObject, where: str, new_postgresql: Callable[[], str]
) -> None:
    url = "sqlite://" if where == "memory" else new_postgresql()
    with closing(Database(url)) as database:
        shelf = ShelfStore(database, now)
        filled(shelf)
        states = [shelf.shelf()]
        for _ in range(data.draw(st.integers(1, 8))):
            changes = _changes(shelf)
            kind = data.draw(st.sampled_from(sorted(changes)))
            before = shelf.shelf()
            getattr(shelf, kind.split()[0])(*data.draw(changes[kind]))
            after = shelf.shelf()
            # What changes nothing is no step.
            if after.collections != before.collections:
                states.append(after)
        for back in reversed(states[:-1]):
            shelf.undo()
            assert shelf.shelf().collections == back.collections
        for forth in states[1:]:
            shelf.redo()
            assert shelf.shelf().collections == forth.collections
        with pytest.raises(NothingToUndoError):
            shelf.redo()
