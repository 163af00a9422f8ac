"""Commands on a drawing and its plates."""

from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.commands.shapes import Seed
from dotstack.core.drawing.copies import with_new_ids
from dotstack.core.drawing.document import Drawing, Plate
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.naming import free_name, numbered
from dotstack.core.drawing.places import all_ids, plate_of, with_plate
from dotstack.core.drawing.sound import MAX_PLATES, check_fresh
from dotstack.core.errors import CommandError, LimitError
from dotstack.core.values import Colour, Id, Length, Name


class RenameDrawing(Command):
    """Gives the drawing another name."""

    kind: Literal["rename-drawing"] = "rename-drawing"
    name: Name

    @property
    def label(self) -> str:
        return "Rename drawing"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return drawing.model_copy(update={"name": self.name})


class AddPlate(Command):
    """Adds an empty plate after the others."""

    kind: Literal["add-plate"] = "add-plate"
    id: Id
    name: Name
    width: Length
    height: Length

    @property
    def label(self) -> str:
        return "Add plate"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        plate = Plate(id=self.id, name=self.name, width=self.width, height=self.height)
        return _with_new(drawing, plate, len(drawing.plates))


class DuplicatePlate(Command):
    """Adds a copy of a plate after it; ids of its shapes are made from the copy's ``id``."""

    kind: Literal["duplicate-plate"] = "duplicate-plate"
    plate: Id
    id: Seed

    @property
    def label(self) -> str:
        return "Duplicate plate"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        plate = plate_of(drawing, self.plate)
        new_id = numbered(self.id)
        nodes = tuple(with_new_ids(node, new_id) for node in plate.nodes)
        check_fresh(drawing, nodes)
        name = free_name(plate.name, {other.name for other in drawing.plates})
        copy = plate.model_copy(update={"id": self.id, "name": name, "nodes": nodes})
        return _with_new(drawing, copy, drawing.plates.index(plate) + 1)


class RemovePlate(Command):
    """Takes a plate and its shapes away; the last one stays."""

    kind: Literal["remove-plate"] = "remove-plate"
    plate: Id

    @property
    def label(self) -> str:
        return "Remove plate"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        plate = plate_of(drawing, self.plate)
        if len(drawing.plates) == 1:
            raise CommandError("A drawing keeps at least one plate.")
        left = tuple(other for other in drawing.plates if other is not plate)
        return drawing.model_copy(update={"plates": left})


class MovePlate(Command):
    """Puts a plate at another place among the plates, from 0."""

    kind: Literal["move-plate"] = "move-plate"
    plate: Id
    index: Annotated[int, Field(ge=0, le=MAX_PLATES)]

    @property
    def label(self) -> str:
        return "Move plate"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        plate = plate_of(drawing, self.plate)
        order = [other for other in drawing.plates if other is not plate]
        order.insert(self.index, plate)
        return drawing.model_copy(update={"plates": tuple(order)})


class SetPlate(Command):
    """Gives a plate another name, size or background; what is not named stays.

    Its shapes stay where they are, measured from the plate's top left.
    """

    kind: Literal["set-plate"] = "set-plate"
    plate: Id
    name: Name = "Plate"
    width: Length = 1.0
    height: Length = 1.0
    background: Colour | None = None

    @property
    def label(self) -> str:
        words = {"name": "Rename plate", "background": "Background"}
        named = self.model_fields_set - {"kind", "plate"}
        return words.get(next(iter(named), ""), "Resize plate")

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        plate = plate_of(drawing, self.plate)
        changes: dict[str, object] = {
            name: getattr(self, name)
            for name in ("name", "width", "height", "background")
            if name in self.model_fields_set
        }
        return with_plate(drawing, plate.model_copy(update=changes))


def _with_new(drawing: Drawing, plate: Plate, index: int) -> Drawing:
    if plate.id in all_ids(drawing):
        raise CommandError(f"The id {plate.id!r} is taken already.")
    if len(drawing.plates) >= MAX_PLATES:
        raise LimitError("plates", len(drawing.plates) + 1, MAX_PLATES)
    plates = (*drawing.plates[:index], plate, *drawing.plates[index:])
    return drawing.model_copy(update={"plates": plates})
