"""A browser as the API knows it."""

from typing import Any

from flask.testing import FlaskClient


def disc(node_id: str, x: float, r: float = 24.7) -> dict[str, Any]:
    transform = {"e": x, "f": 50}
    return {
        "kind": "ellipse", "id": node_id, "name": node_id, "rx": r, "ry": r, "transform": transform,
    }  # fmt: skip


class Caller:
    """A person's browser: knows the drawing and the revision that it is at."""

    def __init__(self, client: FlaskClient) -> None:
        self.client = client
        made = client.post("/api/drawings", json={"name": "Quay", "width": 128, "height": 100})
        assert made.status_code == 201
        self.id, self.revision = made.json["id"], made.json["revision"]
        self.plate = made.json["entries"]["plates"][0]

    def post(self, step: str, **body: Any) -> dict[str, Any]:
        answer = self.client.post(
            f"/api/drawings/{self.id}/{step}", json={"revision": self.revision, **body}
        )
        assert answer.status_code == 200, answer.json
        self.revision = answer.json.get("revision", self.revision)
        found: dict[str, Any] = answer.json
        return found

    def do(self, kind: str, **fields: Any) -> dict[str, Any]:
        command = {"kind": kind, **fields}
        return self.post("commands", key=f"key-{self.revision:06}", command=command)

    def add(self, *nodes: dict[str, Any]) -> None:
        for node in nodes:
            self.do("add-shape", plate=self.plate, node=node)
