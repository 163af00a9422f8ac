"""Commands that name measures, and let fields follow them."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Ids
from dotstack.core.drawing.document import Drawing, Measure
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds.formulas import Definition, Expressed, MeasureName
from dotstack.core.drawing.measures import following, with_formulas, with_measures
from dotstack.core.drawing.places import exchanged, plate_of, with_plate
from dotstack.core.errors import CommandError
from dotstack.core.expressions import UNITS, expression, renamed
from dotstack.core.values import Id


class SetMeasure(Command):
    """Gives a measure another value, or makes it; all that follows it moves along."""

    kind: Literal["set-measure"] = "set-measure"
    measure: Definition

    @property
    def label(self) -> str:
        return f"Change {self.measure.name}"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return _with(drawing, self.measure)


class RenameMeasure(Command):
    """Gives a measure another name, wherever it is used."""

    kind: Literal["rename-measure"] = "rename-measure"
    name: MeasureName
    new_name: MeasureName

    @property
    def label(self) -> str:
        return f"Rename {self.name}"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        names = [measure.name for measure in drawing.measures]
        _require(self.name, names)
        if self.new_name in names or self.new_name.lower() in UNITS:
            raise CommandError(f"{self.new_name} means something already.")

        def with_name(text: str) -> str:
            return renamed(text, self.name, self.new_name)

        measures = [
            measure.model_copy(
                update={
                    "name": self.new_name if measure.name == self.name else measure.name,
                    "text": with_name(measure.text),
                }
            )
            for measure in drawing.measures
        ]
        return with_measures(with_formulas(drawing, with_name), measures)


class RemoveMeasure(Command):
    """Takes a measure away; fields that followed it keep their values."""

    kind: Literal["remove-measure"] = "remove-measure"
    name: MeasureName

    @property
    def label(self) -> str:
        return f"Remove {self.name}"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        _require(self.name, [measure.name for measure in drawing.measures])
        left = [measure for measure in drawing.measures if measure.name != self.name]
        if users := [each.name for each in left if self.name in expression(each.text).names]:
            raise CommandError(f"{', '.join(users)} needs {self.name}; change that first.")
        return with_measures(drawing, left)


class FollowPlate(Command):
    """Lets sides of a plate, by their names, follow expressions; see ``Follow``."""

    kind: Literal["follow-plate"] = "follow-plate"
    plate: Id
    texts: Annotated[dict[str, Expressed], Field(min_length=1, max_length=2)]
    makes: Definition | None = None

    @property
    def label(self) -> str:
        return "Resize plate"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        drawing, values = _having(drawing, self.makes)
        return with_plate(drawing, following(plate_of(drawing, self.plate), self.texts, values))


class Follow(Command):
    """Lets fields of shapes follow expressions, by the paths of the fields.

    With ``makes`` there is this measure first.
    """

    kind: Literal["follow"] = "follow"
    ids: Ids
    texts: Annotated[dict[str, Expressed], Field(min_length=1, max_length=20)]
    makes: Definition | None = None

    @property
    def label(self) -> str:
        words = {path.rpartition(".")[2].removesuffix("_deg") for path in self.texts}
        return f"Change {', '.join(sorted(words))}".replace("_", " ")

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        drawing, values = _having(drawing, self.makes)
        return exchanged(
            drawing, set(self.ids), lambda node: (following(node, self.texts, values),)
        )


def _having(drawing: Drawing, made: Definition | None) -> tuple[Drawing, dict[str, float]]:
    """The drawing with a measure, if one is made, and the values of all that it has."""
    drawing = _with(drawing, made) if made else drawing
    return drawing, {measure.name: measure.value for measure in drawing.measures}


def _with(drawing: Drawing, made: Definition) -> Drawing:
    """The drawing with this measure, and all that follows it; raises CommandError."""
    if made.name.lower() in UNITS:
        raise CommandError(f"{made.name} is a unit; call the measure something else.")
    expression(made.text)
    known = {measure.name: measure for measure in drawing.measures}
    known[made.name] = Measure(name=made.name, text=made.text.strip())
    return with_measures(drawing, tuple(known.values()))


def _require(name: str, known: list[str]) -> None:
    if name not in known:
        raise CommandError(f"There is no measure called {name}.")
