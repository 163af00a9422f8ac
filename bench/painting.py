"""Leads gradients, shadows, depth and lines, and measures what each look costs.

``python -m bench.painting``. The mark is one outline joined from 20 discs. A look is what the desk
asks for while one drags: a command applied, and the figures that it changes, written. Times are
told as ratios to the look that gives the mark another colour, in the same run; ``--milliseconds``
tells those as well.
"""

import argparse
import random
from collections.abc import Callable

from bench.looks import done, look
from dotstack.core.drawing import Drawing, Evaluator, Plate
from dotstack.core.drawing.kinds import EllipseNode
from dotstack.core.values import Placement

_DISCS = 20
_INK, _CARD = "#22303C", "#FBF7EF"


def _mark() -> Drawing:
    chance = random.Random(4)
    discs = tuple(
        EllipseNode(
            id=f"disc-{number}",
            name="Disc",
            rx=chance.uniform(10, 30),
            ry=chance.uniform(10, 30),
            transform=Placement(e=chance.uniform(40, 216), f=chance.uniform(40, 216)),
        )
        for number in range(_DISCS)
    )
    plate = Plate(id="plate", name="Quay", width=256, height=256, nodes=discs)
    ids = [disc.id for disc in discs]
    joined = {"kind": "combine", "ids": ids, "outcome": "join", "id": "mark", "name": "Mark"}
    drawing = Drawing(name="Quay", plates=(plate,))
    return done(drawing, joined, Evaluator())


def mark_with_depth() -> Drawing:
    """The mark, pushed out."""
    return done(_mark(), {"kind": "paint", "ids": ["mark"], **CASES["depth"](0)}, Evaluator())


def _gradient(shape: str, step: int) -> dict[str, object]:
    stops = [{"at": 0, "colour": _INK}, {"at": 1 - step / 50, "colour": _CARD}]
    return {"fill": {"shape": shape, "stops": stops}}


def _line(step: int, **said: object) -> dict[str, object]:
    return {"lines": [{"paint": _INK, "width": 3 + step / 20, **said}]}


# What a pointer changes, by how far it has come.
CASES: dict[str, Callable[[int], dict[str, object]]] = {
    "a colour": lambda step: {"fill": f"#{step:02X}6A83"},
    "a stop, linear": lambda step: _gradient("linear", step),
    "a stop, conic": lambda step: _gradient("conic", step),
    "a soft shadow": lambda step: {"shadows": [{"dx": step, "dy": 3, "blur": 8}]},
    "a hard shadow": lambda step: {"shadows": [{"dx": step, "dy": 3, "blur": 0}]},
    "depth": lambda step: {"depth": {"length": 10 + step, "angle_deg": 40 + step}},
    "depth with a bevel": lambda step: {"depth": {"length": 10 + step, "bevel": 2}},
    "a line's width": _line,
    "a line inside": lambda step: _line(step, position="inside"),
    "dashes that fit": lambda step: _line(0, dashes={"pattern": [6 + step / 9, 4], "fitted": True}),
}


def measured(change: Callable[[int], dict[str, object]]) -> float:
    """The median time of a look, in seconds."""
    return look(_mark(), lambda step: {"kind": "paint", "ids": ["mark"], **change(step)})


def main() -> None:
    """Measures all cases."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--milliseconds", action="store_true")
    options = parser.parse_args()
    plain = measured(CASES["a colour"])
    for name, change in CASES.items():
        took = measured(change)
        told = f"  {1000 * took:.1f} ms" if options.milliseconds else ""
        print(f"{name:20} {took / plain:6.1f}{told}")


if __name__ == "__main__":
    main()
