"""Takes random steps in drawings of every kind of shape: part of ``make sweep``.

Commands are made of what their description allows, mostly with the ids of what is there. A step
may be refused, by an error of the core; one that is taken leads back and forth, can be shown,
and leaves a document that reads as it was written. Anything else fails.
"""

import argparse
import random
import sys
import time
import traceback
import warnings
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from pydantic import ValidationError

from dotstack.core.drawing import (
    Delta,
    Drawing,
    Evaluator,
    Plate,
    apply,
    command_adapter,
    difference,
    patched,
    tied,
    whole,
)
from dotstack.core.drawing.places import all_ids
from dotstack.core.drawing.scene import Figure, all_figures, require_shown
from dotstack.core.drawing.snapping import snap_targets
from dotstack.core.drawing.surroundings import Surroundings
from dotstack.core.drawing.tree import walk
from dotstack.core.errors import CoreError
from dotstack.fonts import shipped

# A drawing of more shapes than that is left for a new one; so is one after so many steps, or
# where a step takes so many seconds.
_SHAPES, _LONG, _HEAVY_S = 20, 80, 0.5
_WHOLE_EVERY, _STARTS = 100, 10
# How often shapes are chosen that lie beside each other; and with how many holders one begins.
_BESIDE, _HOLDERS = 0.8, 6
# How often the id of what is to be made is a new one.
_FRESH = 0.9
_PARAMETERS = ("rx", "width", "count", "points", "angle_deg", "height")
_MAKES_HOLDERS = (
    "combine", "group", "make-twin", "make-repeat", "build-regions", "put-inside", "mirror",
    "complete-half", "set-refinements",
)  # fmt: skip
# Points as near are the same.
_NEAR = 1e-6
# As one request may take.
_SLOW_S = 60.0
_SCHEMA = command_adapter.json_schema()
_WORDS = ("Quay", "Gull", "Buoy 2", "Tide")
_PATHS = ("M0 0H9V7Z", "M0 0C3 9 9 9 9 0Z", "M0 0A5 5 0 0 1 9 3")
# What texts are chosen from, by how the pattern begins that they match.
_TEXTS = {
    "^#": ("#B8452E", "#1D6A83"),
    "\\S": _WORDS,
    "^[^\\W": ("tide", "ebb"),
    "^[0-9a-f]{64}": sorted(shipped())[:2],
    "^[a-z_]+": (*_PARAMETERS, "transform.e", "layout.count"),
    "^(\\d{1,4}|of-": ("0", "1", "2"),
}


class Maker:
    """Random values of what a JSON schema describes, as commands want them."""

    def __init__(self, chance: random.Random, drawing: Drawing) -> None:
        self._chance = chance
        self._plates = [plate.id for plate in drawing.plates]
        self._ids = sorted(all_ids(drawing) - set(self._plates)) or ["none"]
        self._tops = [[node.id for node in plate.nodes] for plate in drawing.plates if plate.nodes]
        self._fresh = iter(f"n{chance.randrange(10**9)}" for _ in range(10**6))

    def command(self, kind: str | None = None) -> dict[str, Any]:
        """A command, perhaps of a kind, as JSON has it."""
        kinds = _SCHEMA["discriminator"]["mapping"]
        made = self._value({"$ref": kinds[kind or self._chance.choice(sorted(kinds))]}, "", 0)
        assert isinstance(made, dict)
        return made

    def _value(self, schema: dict[str, Any], name: str, depth: int) -> Any:
        while "$ref" in schema:
            schema = _SCHEMA["$defs"][schema["$ref"].rpartition("/")[2]]
        if "const" in schema:
            return schema["const"]
        if "enum" in schema:
            return self._chance.choice(schema["enum"])
        if choices := schema.get("anyOf") or schema.get("oneOf"):
            return self._value(self._chance.choice(choices), name, depth)
        made = getattr(self, f"_{schema.get('type', 'any')}")
        return made(schema, name, depth)

    def _object(self, schema: dict[str, Any], name: str, depth: int) -> dict[str, Any]:
        wanted, found = set(schema.get("required", ())), {}
        for key, inner in schema.get("properties", {}).items():
            if key in wanted or "const" in inner or self._chance.random() < 0.4 / (1 + depth):
                found[key] = self._value(inner, key, depth + 1)
        if of := schema.get("additionalProperties"):
            for key in self._chance.sample(_PARAMETERS, 2):
                found[key] = self._value(of, key, depth + 1)
        is_shape = depth > 0 and "kind" in found
        if "id" in found and (is_shape or ("ids" in found and self._chance.random() < _FRESH)):
            found["id"] = next(self._fresh)
        return found

    def _array(self, schema: dict[str, Any], name: str, depth: int) -> list[Any]:
        if "prefixItems" in schema:
            return [self._value(each, name, depth) for each in schema["prefixItems"]]
        least = schema.get("minItems", 0)
        if name == "ids" and self._tops and self._chance.random() < _BESIDE:
            tops = self._chance.choice(self._tops)
            count = self._chance.randint(max(1, least), max(1, least, min(4, len(tops))))
            return self._chance.sample(tops, min(count, len(tops)))
        count = self._chance.randint(max(least, min(1, 4 - depth)), max(least, 3))
        made = [self._value(schema["items"], name, depth + 1) for _ in range(count)]
        return list(dict.fromkeys(made)) if made and isinstance(made[0], str) else made

    def _string(self, schema: dict[str, Any], name: str, depth: int) -> str:
        pattern = schema.get("pattern", "")
        if name.startswith("plate"):
            return self._chance.choice(self._plates)
        if name in ("new_id", "seed"):
            return next(self._fresh)
        for beginning, choices in _TEXTS.items():
            if pattern.startswith(beginning):
                return self._chance.choice(choices)
        return self._chance.choice(_PATHS if name == "data" else self._ids)

    def _number(self, schema: dict[str, Any], name: str, depth: int) -> float:
        least = schema.get("minimum", schema.get("exclusiveMinimum", -40))
        most = schema.get("maximum", schema.get("exclusiveMaximum", 80))
        least, most = max(least, -40), min(most, max(least, -40) + 80)
        if self._chance.random() < 0.5 and round(least) < int(most):
            return self._chance.randint(round(least), int(most))
        return self._chance.uniform(least, most)

    def _integer(self, schema: dict[str, Any], name: str, depth: int) -> int:
        least = schema.get("minimum", 0)
        return self._chance.randint(least, min(schema.get("maximum", least + 6), least + 6))

    def _boolean(self, schema: dict[str, Any], name: str, depth: int) -> bool:
        return self._chance.random() < 0.5

    def _null(self, schema: dict[str, Any], name: str, depth: int) -> None:
        return None

    def _any(self, schema: dict[str, Any], name: str, depth: int) -> Any:
        return self._chance.choice((1, "Quay", None))


@dataclass
class Tally:
    """What came of many steps."""

    taken: Counter[str] = field(default_factory=Counter)
    refused: Counter[str] = field(default_factory=Counter)
    broken: Counter[str] = field(default_factory=Counter)
    failures: list[str] = field(default_factory=list)

    def add(self, other: "Tally") -> None:
        """Adds another one's to it."""
        self.taken += other.taken
        self.refused += other.refused
        self.broken += other.broken
        self.failures += other.failures


def begun(chance: random.Random) -> Drawing:
    """A drawing of two plates with a few plain shapes."""
    plates = tuple(Plate(id=f"plate-{i}", name="Quay", width=64, height=64) for i in range(2))
    drawing = Drawing(name="Quay", plates=plates)
    shapes = (
        {"kind": "ellipse", "rx": 9, "ry": 7}, {"kind": "rectangle", "width": 12, "height": 8},
        {"kind": "star", "points": 5, "rx": 9, "ry": 9}, {"kind": "path", "data": "M0 0H9L3 8Z"},
    )  # fmt: skip
    for number, shape in enumerate(shapes):
        place = {"e": chance.uniform(0, 30), "f": chance.uniform(0, 30)}
        node = {**shape, "id": f"shape-{number}", "name": "Shape", "transform": place}
        command = {"kind": "add-shape", "plate": "plate-0", "node": node}
        drawing = apply(drawing, command_adapter.validate_python(command), Evaluator())
    for kind in chance.choices(_MAKES_HOLDERS, k=_HOLDERS):
        for _ in range(20):
            with suppress(CoreError, ValidationError):
                made = Maker(chance, drawing).command(kind)
                drawing = apply(drawing, command_adapter.validate_python(made), _evaluator())
                break
    return drawing


def walked(seed: int, count: int) -> Tally:
    """Takes so many steps; what came of them."""
    warnings.simplefilter("error")
    chance, tally = random.Random(seed), Tally()
    starts = [begun(chance) for _ in range(_STARTS)]
    drawing, steps, evaluator = starts[0], 0, _evaluator()
    for number in range(count):
        if steps == _LONG or len(all_ids(drawing)) > _SHAPES:
            drawing, steps, evaluator = chance.choice(starts), 0, _evaluator()
        made = Maker(chance, drawing).command()
        kind, before = str(made["kind"]), time.process_time()
        try:
            command = command_adapter.validate_python(made)
        except ValidationError:
            tally.broken[kind] += 1
            continue
        try:
            after = apply(drawing, command, evaluator)
            delta = difference(drawing, after)
            changed = require_shown(delta, evaluator)
        except (CoreError, ValidationError):
            tally.refused[kind] += 1
        except Exception:
            said = traceback.format_exc(limit=-3)
            tally.failures.append(f"{seed} {number}: {made}\n{said}\n{drawing.model_dump_json()}")
        else:
            tally.taken[kind] += 1
            wrong = list(_wrong(drawing, after, delta))
            if number % _WHOLE_EVERY == 0:
                wrong += [
                    *_wrongly_told(delta, changed, evaluator),
                    *_wrongly_read(after, evaluator),
                ]
            tally.failures += [f"{seed} {number}: {made}: {each}" for each in wrong]
            drawing, steps = after, steps + 1
        spent = time.process_time() - before
        if spent > _SLOW_S:
            tally.failures.append(f"{seed} {number}: {made} took too long")
        if spent > _HEAVY_S:
            steps = _LONG
    return tally


def _wrong(before: Drawing, after: Drawing, delta: Delta) -> Iterator[str]:
    """What is wrong with a step."""
    if _said(patched(before, delta.after)) != _said(after):
        yield "redo leads elsewhere"
    if _said(patched(after, delta.before)) != _said(before):
        yield "undo leads elsewhere"
    ids = [inner.id for node in after.nodes for inner in walk(node)]
    if len(set(ids)) < len(ids):
        yield "two shapes have one id"


def _wrongly_told(
    delta: Delta, changed: dict[str, list[Figure]], evaluator: Evaluator
) -> Iterator[str]:
    """What is shown after a step, though it was other before and nobody was told."""
    sources = (all_figures(delta.before, evaluator), changed)
    known = {(key, each.id): each for told in sources for key in told for each in told[key]}
    for key, found in all_figures(delta.after, evaluator).items():
        yield from (f"{each.id} is other" for each in found if known.get((key, each.id)) != each)


def _wrongly_read(after: Drawing, evaluator: Evaluator) -> Iterator[str]:
    """What is wrong with a document when it is opened anew."""
    read = tied(Drawing.model_validate_json(after.model_dump_json()))
    if _said(read) != _said(after):
        yield "it reads otherwise than it was written"
    anew = _evaluator()
    if _shown(read, anew) != _shown(after, evaluator):
        yield "it is shown otherwise when it is opened anew"
    for plate, same in zip(after.plates, read.plates):
        known, found = snap_targets(plate, evaluator), snap_targets(same, anew)
        centres = [np.column_stack([each.x, each.y])[: len(each.shapes)] for each in (known, found)]
        if known.shapes != found.shapes or not np.allclose(*centres, atol=_NEAR):
            yield "its shapes offer other centres when it is opened anew"


def _said(drawing: Drawing) -> dict[str, Any]:
    """What is kept of a drawing; its sources have no order."""
    said = drawing.model_dump()
    return {**said, "sources": {source["id"]: source for source in said["sources"]}}


def _shown(drawing: Drawing, evaluator: Evaluator) -> dict[str, list[tuple[str, int]]]:
    """What is shown of a drawing, but for the last digits of numbers."""
    figures = all_figures(whole(drawing), evaluator)
    return {key: [(each.id, each.node_count) for each in found] for key, found in figures.items()}


def _evaluator() -> Evaluator:
    return Evaluator(Surroundings(shipped().get))


def main() -> int:
    """Prints what came of all steps; exits with 1 if any failed."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=1_000_000, help="of commands tried")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--processes", type=int, default=2)
    options = parser.parse_args()
    at_once, total = 5000, Tally()
    seeds = range(options.seed * 1_000_003, options.seed * 1_000_003 + options.count // at_once)
    with ProcessPoolExecutor(options.processes) as pool:
        for tally in pool.map(walked, seeds, [at_once] * len(seeds)):
            total.add(tally)
            for said in tally.failures:
                print(f"FAILED {said}", flush=True)
    print("| command | taken | refused | not made sense of |\n|---|---|---|---|")
    for kind in sorted(total.taken.keys() | total.refused.keys() | total.broken.keys()):
        print(f"| {kind} | {total.taken[kind]} | {total.refused[kind]} | {total.broken[kind]} |")
    counts = (total.taken, total.refused, total.broken)
    print("all:", *(each.total() for each in counts), f"{len(total.failures)} failed")
    return bool(total.failures)


if __name__ == "__main__":
    sys.exit(main())
