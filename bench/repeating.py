"""Changes what is repeated, and measures what each look costs, by how many copies there are.

``python -m bench.repeating``. A look is what the desk asks for while one drags: a command applied,
and the figures that it changes, written. Times are told as ratios to the look that changes one
disc by itself, in the same run; ``--milliseconds`` tells those as well.
"""

import argparse
from collections.abc import Iterator
from typing import Any

from bench.looks import done, look
from dotstack.core.drawing import Drawing, Evaluator, Plate
from dotstack.core.drawing.kinds import EllipseNode, RectangleNode
from dotstack.core.values import Placement

_DISC = EllipseNode(id="disc", name="Disc", rx=6, ry=6, transform=Placement(e=218, f=128))
_BOARD = RectangleNode(
    id="board", name="Board", width=180, height=180, transform=Placement(e=128, f=128)
)
_PLATE = Plate(id="plate", name="Quay", width=256, height=256, nodes=(_BOARD, _DISC))
_JOIN = {"kind": "combine", "ids": ["board", "all"], "outcome": "join", "id": "mark", "name": "M"}


def _made(*commands: dict[str, Any]) -> Drawing:
    drawing = Drawing(name="Quay", plates=(_PLATE,))
    for command in commands:
        drawing = done(drawing, command, Evaluator())
    return drawing


def _spun(copies: int) -> dict[str, Any]:
    spin = {"kind": "make-repeat", "ids": ["disc"], "id": "all", "name": "Spin", "layout": "spin"}
    return {**spin, "parameters": {"count": copies}}


def spun_in_join(copies: int) -> Drawing:
    """A plate with a spin of discs joined to a board."""
    return _made(_spun(copies), _JOIN)


def _twins(copies: int) -> Iterator[dict[str, Any]]:
    for number in range(copies - 1):
        ids = ["t" if number else "disc"]
        by = {"e": -3 * (number % 9 + 1), "f": number}
        yield {"kind": "make-twin", "ids": ids, "id": "t", "source": "s", "seed": f"n{number}",
               "by": by}  # fmt: skip


def _radius(node_id: str, step: int) -> dict[str, Any]:
    sides = {"rx": 6 + step / 10, "ry": 6 + step / 10}
    return {"kind": "set-parameters", "ids": [node_id], "parameters": sides}


def cases() -> Iterator[tuple[str, float]]:
    """What is changed, and the time of a look in seconds; the first is what all is told by."""
    yield "one disc", look(_made(), lambda step: _radius("disc", step))
    for copies in (12, 100):
        spin = _made(_spun(copies))
        yield f"{copies} copies", look(spin, lambda step: _radius("all:0:disc", step))
        joined = spun_in_join(copies)
        yield f"{copies} joined", look(joined, lambda step: _radius("all:0:disc", step))
    twins = _made(*_twins(80))
    yield "80 twins", look(twins, lambda step: _radius("t:disc", step))
    follow = {"kind": "follow", "ids": ["all:0:disc"], "texts": {"rx": "disc", "ry": "disc"},
              "makes": {"name": "disc", "text": "6"}}  # fmt: skip
    measured = _made(_spun(80), follow)
    yield "80 by a measure", look(measured, lambda step: {
        "kind": "set-measure", "measure": {"name": "disc", "text": str(6 + step / 10)},
    })  # fmt: skip


def main() -> None:
    """Measures all cases."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--milliseconds", action="store_true")
    options = parser.parse_args()
    plain = 0.0
    for name, took in cases():
        plain = plain or took
        told = f"  {1000 * took:.1f} ms" if options.milliseconds else ""
        print(f"{name:20} {took / plain:6.1f}{told}")


if __name__ == "__main__":
    main()
