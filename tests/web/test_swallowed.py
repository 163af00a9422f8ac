"""What cannot be shown is not written, and a drawing that holds such a thing opens all the same."""

from collections.abc import Iterator
from itertools import count
from pathlib import Path
from typing import Any, Self

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from dotstack.store import Database
from dotstack.web import create_app
from tests.broken import FAR, broken_drawing


def disc(node_id: str, x: float = 50, y: float = 50, r: float = 20) -> dict[str, Any]:
    transform = {"e": x, "f": y}
    return {
        "kind": "ellipse", "id": node_id, "name": f"Disc {node_id}", "rx": r, "ry": r,
        "transform": transform,
    }  # fmt: skip


class Desk:
    """A drawing, and ways to ask for changes and to look at it."""

    def __init__(self, client: FlaskClient, drawing: str) -> None:
        self.client, self.url = client, f"/api/drawings/{drawing}"
        self._keys = count()

    @classmethod
    def with_discs(cls, client: FlaskClient) -> Self:
        made = client.post("/api/drawings", json={"name": "Quay", "width": 128, "height": 100})
        desk = cls(client, made.json["id"])
        for node in (disc("a"), disc("b", 70), disc("c", 60, 65), disc("d", 20, 20, 8)):
            assert desk.ask({"kind": "add-shape", "plate": "plate-1", "node": node})[0] == 200
        return desk

    def opened(self) -> dict[str, Any]:
        answer = self.client.get(self.url)
        assert answer.status_code == 200, answer.json
        found: dict[str, Any] = answer.json
        return found

    def ask(self, command: dict[str, Any], step: str = "commands") -> tuple[int, dict[str, Any]]:
        body = {"revision": self.opened()["revision"], "command": command}
        if step == "commands":
            body["key"] = f"key-{next(self._keys):06}"
        answer = self.client.post(f"{self.url}/{step}", json=body)
        return answer.status_code, answer.json

    def undo(self) -> None:
        revision = self.opened()["revision"]
        assert self.client.post(f"{self.url}/undo", json={"revision": revision}).status_code == 200

    def faults(self) -> dict[str, str]:
        return {
            figure["id"]: figure["fault"]
            for figures in self.opened()["figures"].values()
            for figure in figures
            if figure["fault"]
        }


@pytest.fixture
def desk(client: FlaskClient) -> Desk:
    return Desk.with_discs(client)


def moved(node_id: str, x: float = FAR) -> dict[str, Any]:
    return {"kind": "transform", "ids": [node_id], "by": {"e": x}}


HOLDERS: dict[str, dict[str, Any]] = {
    "group": {"kind": "group", "ids": ["a", "b"], "id": "whole", "name": "Whole"},
    "compound": {
        "kind": "combine", "ids": ["a", "b"], "outcome": "join", "id": "whole", "name": "Whole",
    },
    "clip": {"kind": "put-inside", "ids": ["a"], "holder": "b", "id": "whole"},
    "build": {"kind": "build-regions", "ids": ["a", "b"], "id": "whole", "name": "Whole"},
}  # fmt: skip


@pytest.mark.parametrize("holder", HOLDERS)
def test_a_step_to_where_nothing_can_be_shown_is_refused_and_not_kept(
    desk: Desk, holder: str
) -> None:
    assert desk.ask(HOLDERS[holder])[0] == 200
    assert desk.ask(moved("whole"))[0] == 200
    before = desk.opened()
    for step in ("preview", "commands"):
        status, problem = desk.ask(moved("a"), step)
        assert status == 422
        assert "Disc a could not be shown: it would lie more than a million units" in str(problem)
    assert desk.opened() == before
    desk.undo()
    assert desk.ask(moved("a"))[0] == 200


def test_a_drawing_that_holds_what_cannot_be_shown_opens_with_that_marked(tmp_path: Path) -> None:
    database = Database(f"sqlite:///{tmp_path}/dotstack.db")
    desk = Desk(create_app(database).test_client(), broken_drawing(database))
    assert list(desk.faults()) == ["lost"]
    # All else goes on: the list, exports, snaps, other steps, and what brings it back.
    snaps = {"revision": desk.opened()["revision"], "plate": "plate"}
    assert desk.client.get("/api/drawings").status_code == 200
    assert desk.client.get(f"{desk.url}/plates/plate.svg").status_code == 200
    assert desk.client.post(f"{desk.url}/snaps", json=snaps).status_code == 200
    assert desk.ask(moved("near", 7))[0] == 200
    desk.undo()
    desk.undo()
    assert desk.faults() == {}
    database.close()


# Numbers from everyday to absurd.
numbers = st.one_of(
    st.sampled_from([0.0, 1e-300, 1e-9, 1.0, -1.0, 0.5, 90.0, FAR, -FAR, 1e6, -1e6, 1e7, 1e300]),
    st.floats(-200, 200),
)
pieces = [f"n0.{key}" for key in ("0", "1", "2", "of-a", "of-b.2")]
ids = st.lists(
    st.sampled_from(["a", "b", "c", "d", "n0", "n1", *pieces]), min_size=1, max_size=3, unique=True
)
several = st.sampled_from(
    [["a", "b"], ["b", "c"], ["c", "d"], ["a", "n0"], ["n0", "n1"], ["a", "gone"], pieces[:2]]
)
placements = st.fixed_dictionaries({}, optional=dict.fromkeys("abcdef", numbers))
fresh = st.sampled_from(["n0", "n1"])


def command(kind: str, **fields: Any) -> st.SearchStrategy[dict[str, Any]]:
    return st.fixed_dictionaries({"kind": st.just(kind), **fields})


commands = st.one_of(
    command("transform", ids=ids, by=placements),
    command("place", ids=ids, x=numbers, y=numbers, angle_deg=numbers),
    command("resize", ids=ids, width=numbers, height=numbers),
    command("set-parameters", ids=ids, parameters=st.dictionaries(
        st.sampled_from(["rx", "ry", "start_deg", "sweep_deg", "inner"]), numbers, max_size=2)),
    command("mirror", ids=ids, about=st.sampled_from(["own", "selection", "plate"])),
    command("same-size", ids=several),
    command("group", ids=several, id=fresh, name=st.just("Group")),
    command("ungroup", ids=st.just(["n0"])),
    command("combine", ids=several, id=fresh, name=st.just("Mark"),
            outcome=st.sampled_from(["join", "cut", "overlap", "alternate", "gap", "slice"])),
    command("set-outcome", id=fresh, outcome=st.sampled_from(["join", "gap", "split", "overlap"])),
    command("fill-hole", id=fresh, hole=st.integers(0, 1)),
    command("open-holes", id=fresh),
    command("stretch", ids=ids, across=numbers, down=numbers, x=numbers, y=numbers),
    command("take-outcome", ids=several, id=fresh, name=st.just("Mark"),
            outcome=st.sampled_from(["split", "slice", "seams", "window", "bundle"])),
    command("put-inside", ids=ids, holder=st.sampled_from(["c", "d", "n0"]), id=fresh),
    command("build-regions", ids=several, id=fresh, name=st.just("Regions")),
    command("settle", ids=ids),
    command("remove", ids=ids),
    command("duplicate", ids=ids, seed=fresh, by=placements),
    command("arrange", ids=ids, to=st.sampled_from(["raise", "bottom"])),
    command("paint", ids=ids, fill=st.just("#B8452E")),
    command("move-in-stack", ids=ids, parent=st.sampled_from(["plate-1", "n0"])),
    command("all-home", id=fresh),
    command("set-plate", plate=st.just("plate-1"), name=st.just("P"), width=numbers,
            height=numbers),
)  # fmt: skip


@pytest.fixture(scope="module")
def lasting(tmp_path_factory: pytest.TempPathFactory) -> Iterator[FlaskClient]:
    database = Database(f"sqlite:///{tmp_path_factory.mktemp('lasting')}/dotstack.db")
    yield create_app(database).test_client()
    database.close()


BUILT: dict[str, Any] = {"ids": ["a", "b", "c"], "id": "n0", "name": "Whole"}
# Streams begin plainly, or with something that comes in pieces.
beginnings = st.sampled_from(
    [[], [{"kind": "build-regions", **BUILT}], [{"kind": "combine", "outcome": "slice", **BUILT}]]
)
streams = st.builds(list.__add__, beginnings, st.lists(commands, min_size=8, max_size=16))


@settings(max_examples=30, suppress_health_check=[HealthCheck.too_slow])
@given(streams)
def test_any_stream_of_commands_is_shown_or_refused_without_a_change(
    lasting: FlaskClient, stream: list[dict[str, Any]]
) -> None:
    desk = Desk.with_discs(lasting)
    for each in stream:
        before = desk.opened()
        status, answer = desk.ask(each)
        after = desk.opened()
        assert desk.faults() == {}
        if status == 200:
            exported = lasting.get(f"{desk.url}/plates/plate-1.svg")
            assert exported.status_code == 200, exported.json
        else:
            assert 400 <= status < 500, answer
            assert after == before
            assert answer["detail"]
