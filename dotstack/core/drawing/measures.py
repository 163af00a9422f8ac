"""Measures: numbers of a drawing under a name, and the fields of shapes that follow them.

A field that follows holds its value as any other does, and its shape the expression beside it:
nothing that reads shapes needs to know of measures.
"""

from collections.abc import Callable, Mapping, Sequence
from itertools import chain
from operator import is_
from typing import TypeVar

from pydantic import TypeAdapter, ValidationError

from dotstack.core.drawing.document import MAX_MEASURES, Drawing, Measure, Plate
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.kinds.formulas import Definition, Formula
from dotstack.core.drawing.kinds.node import MAX_FORMULAS, own_fields, revised
from dotstack.core.drawing.laying import laid
from dotstack.core.drawing.links import tied
from dotstack.core.drawing.places import with_each
from dotstack.core.drawing.tree import told, with_each_told
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.expressions import expression
from dotstack.core.geometry import Affine
from dotstack.core.values import Length, Placement, Value

# What may follow measures of every shape, beside what its kind alone has: where its origin lies,
# and all that is in these.
_PLACE = ("transform.e", "transform.f")
# The angle that what is made round its own centre is turned to, as its transform has it.
_ANGLE = "angle_deg"
_NEAR = 1e-9
_SIDES = ("width", "height")
_SIDE: TypeAdapter[float] = TypeAdapter(Length)
# What has fields that can follow.
_Bearer = TypeVar("_Bearer", Node, Plate)
_OF_ALL = ("refinements", "look")


def values_of(measures: Sequence[Definition]) -> dict[str, float]:
    """The values of measures by their names.

    Raises CommandError where one would be made from itself, with the chain, or cannot be.
    """
    texts = {measure.name: expression(measure.text) for measure in measures}
    found: dict[str, float] = {}

    def find(name: str, above: tuple[str, ...]) -> None:
        if name in above:
            chain = " needs ".join((*above[above.index(name) :], name))
            raise CommandError(f"A measure cannot need itself: {chain}.")
        for each in sorted(texts[name].names):
            if each not in texts:
                raise CommandError(f"{name} needs {each}, and there is no such measure.")
            if each not in found:
                find(each, (*above, name))
        found[name] = texts[name].value(found)

    for name in texts:
        if name not in found:
            find(name, ())
    return found


def with_measures(drawing: Drawing, measures: Sequence[Measure]) -> Drawing:
    """The drawing with other measures, and all that follows them.

    Raises CommandError or LimitError.
    """
    if len(measures) > MAX_MEASURES:
        raise LimitError("measures in one drawing", len(measures), MAX_MEASURES)
    values = values_of(measures)
    valued = tuple(
        measure.model_copy(update={"value": values[measure.name]}) for measure in measures
    )
    return _following(drawing.model_copy(update={"measures": valued}), values, moved=True)


def varied(drawing: Drawing, texts: Mapping[str, str], evaluator: Evaluator) -> Drawing:
    """The drawing with other values of measures that it has, all at once; raises CommandError."""
    known = {measure.name: measure for measure in drawing.measures}
    for name, text in texts.items():
        if name not in known:
            has = ", ".join(known) or "none"
            raise CommandError(f"There is no measure called {name}; the drawing has: {has}.")
        expression(text)
        known[name] = known[name].model_copy(update={"text": text})
    return laid(tied(with_measures(drawing, tuple(known.values()))), evaluator)


def checked(drawing: Drawing) -> Drawing:
    """The drawing in which fields that were changed by other means follow no measure any more.

    What stays as it is keeps its identity.
    """
    # Of every step and look this is asked, and mostly nothing follows.
    inner = (inner for node in drawing.roots for inner in told(node))
    if not any(each.formulas for each in chain(drawing.plates, inner)):
        return drawing
    drawing = _with_needed(drawing)
    values = {measure.name: measure.value for measure in drawing.measures}
    return _following(drawing, values, moved=False)


def with_needs(node: Node, measures: Sequence[Measure]) -> Node:
    """The node whose expressions carry the measures that they need, for other drawings."""
    texts = {measure.name: measure.text for measure in measures}

    def needed(text: str, found: dict[str, str]) -> dict[str, str]:
        for name in sorted(expression(text).names & texts.keys()):
            needed(texts[name], found)
            found[name] = texts[name]
        return found

    def loaded(formula: Formula) -> Formula:
        needs = needed(formula.text, {}).items()
        return formula.model_copy(
            update={"needs": tuple(Definition(name=name, text=text) for name, text in needs)}
        )

    def changed(node: Node) -> Node:
        fresh = tuple(map(loaded, node.formulas))
        return node.model_copy(update={"formulas": fresh})

    return _each(node, changed) if measures else node


def _with_needed(drawing: Drawing) -> Drawing:
    """The drawing with the measures that shapes from elsewhere need, and it has not.

    Where one of the same name is another, the shape is left to its numbers.
    """
    known = {measure.name: measure for measure in drawing.measures}

    def unloaded(node: Node) -> Node:
        nonlocal known
        if not any(formula.needs for formula in node.formulas):
            return node
        for formula in node.formulas:
            fresh = {each.name: Measure(**each.model_dump()) for each in formula.needs}
            fits = all(known[name].text == fresh[name].text for name in known.keys() & fresh)
            wanted = expression(formula.text).value(values_of(formula.needs))
            now = value_at(node, formula.path)
            if fits and now is not None and _is(formula.path, now, wanted):
                known = {**fresh, **known}
        bare = (formula.model_copy(update={"needs": ()}) for formula in node.formulas)
        return node.model_copy(update={"formulas": tuple(bare)})

    drawing = _changed(drawing, unloaded)
    if len(known) == len(drawing.measures):
        return drawing
    return with_measures(drawing, tuple(known.values()))


def with_formulas(drawing: Drawing, change: Callable[[str], str]) -> Drawing:
    """The drawing with the text of each expression that a field follows changed."""

    def changed(node: _Bearer) -> _Bearer:
        fresh = [each.model_copy(update={"text": change(each.text)}) for each in node.formulas]
        return node.model_copy(update={"formulas": tuple(fresh)})

    return _with_plates(_changed(drawing, changed), changed)


def following(node: _Bearer, texts: Mapping[str, str], values: Mapping[str, float]) -> _Bearer:
    """The node, or plate, whose fields, by their paths, have the values of expressions.

    They follow the measures that these name; one that names none is a plain number. Raises
    CommandError, which names the shape.
    """
    formulas = {formula.path: formula for formula in node.formulas}
    for path, text in texts.items():
        node = _with_value(node, path, expression(text).value(values))
        formulas.pop(path, None)
        if expression(text).names:
            formulas[path] = Formula(path=path, text=text.strip())
    if len(formulas) > MAX_FORMULAS:
        raise LimitError(f"numbers of {node.name} that follow", len(formulas), MAX_FORMULAS)
    return node.model_copy(update={"formulas": tuple(formulas.values())})


def _following(drawing: Drawing, values: Mapping[str, float], *, moved: bool) -> Drawing:
    """The drawing in which what follows measures does so, or no more unless they ``moved``."""

    def led(node: _Bearer) -> _Bearer:
        return _led(node, values, moved=moved)

    return _with_plates(_changed(drawing, led), led)


def _with_plates(drawing: Drawing, change: Callable[[Plate], Plate]) -> Drawing:
    """The drawing with each plate whose sides follow measures changed."""
    plates = tuple(change(plate) if plate.formulas else plate for plate in drawing.plates)
    same = all(map(is_, plates, drawing.plates))
    return drawing if same else drawing.model_copy(update={"plates": plates})


def _changed(drawing: Drawing, change: Callable[[Node], Node]) -> Drawing:
    """The drawing with each shape that follows measures changed, wherever it is."""
    return with_each(drawing, lambda node: _each(node, change))


def _each(node: Node, change: Callable[[Node], Node]) -> Node:
    return with_each_told(node, lambda inner: change(inner) if inner.formulas else inner)


def _led(node: _Bearer, values: Mapping[str, float], *, moved: bool) -> _Bearer:
    kept = []
    for formula in node.formulas:
        read = expression(formula.text)
        now = value_at(node, formula.path)
        if now is None or not read.names <= values.keys():
            continue
        try:
            wanted = read.value(values)
        except CommandError as error:
            if not moved:
                continue
            raise CommandError(f"{node.name} cannot follow: {error}") from error
        if not _is(formula.path, now, wanted):
            if not moved:
                continue
            node = _with_value(node, formula.path, wanted)
        kept.append(formula)
    if len(kept) == len(node.formulas):
        return node
    return node.model_copy(update={"formulas": tuple(kept)})


def value_at(node: Node | Plate, path: str) -> float | None:
    """The number at a path of fields and places in lists; None where there is none."""
    if isinstance(node, Plate):
        return getattr(node, path) if path in _SIDES else None
    if path == _ANGLE:
        return node.transform.affine.angle_deg if node.is_centred else None
    first, *steps = path.split(".")
    if path not in _PLACE and first not in (*_OF_ALL, *own_fields(type(node))):
        return None
    found: object = getattr(node, first)
    for step in steps:
        if isinstance(found, tuple):
            at = int(step) if step.isdecimal() else len(found)
            found = found[at] if at < len(found) else None
        else:
            found = getattr(found, step, None) if isinstance(found, Value) else None
    return float(found) if isinstance(found, float | int) and not isinstance(found, bool) else None


def _with_value(node: _Bearer, path: str, value: float) -> _Bearer:
    if value_at(node, path) is None:
        raise CommandError(f"{node.name} has no number {path.replace('_', ' ')}.")
    first, *steps = path.split(".")
    try:
        if isinstance(node, Plate):
            return node.model_copy(update={path: _SIDE.validate_python(value)})
        if path == _ANGLE:
            return _turned(node, value)
        return revised(node, {first: _set(getattr(node, first), steps, value)})
    except ValidationError as error:
        fault = error.errors(include_url=False)[0]["msg"].replace("Input should", "should")
        name = path.rpartition(".")[2].replace("_deg", "").replace("_", " ")
        raise CommandError(f"{name} of {node.name} {fault}; it would be {value:g}.") from error


def _is(path: str, now: float, wanted: float) -> bool:
    """Whether a number is what it is to be; an angle comes from a map, and whole turns are none."""
    if path == _ANGLE:
        return abs((now - wanted + 180) % 360 - 180) <= _NEAR
    return now == wanted


def _turned(node: Node, angle_deg: float) -> Node:
    there = node.transform.affine
    by = Affine.rotation_deg(angle_deg - there.angle_deg)
    turned = by @ there._replace(e=0.0, f=0.0)
    # Its place is another field, and stays what it is.
    placed = turned._replace(e=there.e, f=there.f)
    return revised(node, {"transform": Placement.of(placed)})


def _set(found: object, steps: Sequence[str], value: float) -> object:
    """A value with a number put at a path in it, checked with all that is round it."""
    if not steps:
        return value
    first, *rest = steps
    if isinstance(found, tuple):
        at = int(first)
        return (*found[:at], _set(found[at], rest, value), *found[at + 1 :])
    assert isinstance(found, Value), "the path leads to a number"
    fields = {name: getattr(found, name) for name in type(found).model_fields}
    return type(found).model_validate({**fields, first: _set(fields[first], rest, value)})
