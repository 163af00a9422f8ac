"""Commands on a drawing and its plates."""

from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.nodes import Drawing, Id, Length, Name, Plate
from dotstack.core.drawing.places import all_ids, plate_of, with_plate
from dotstack.core.errors import CommandError, LimitError

MAX_PLATES = 200


class RenameDrawing(Command):
    """Gives the drawing another name."""

    kind: Literal["rename-drawing"] = "rename-drawing"
    name: Name

    @property
    def label(self) -> str:
        return "Rename drawing"

    def applied_to(self, drawing: Drawing) -> Drawing:
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

    def applied_to(self, drawing: Drawing) -> Drawing:
        if self.id in all_ids(drawing):
            raise CommandError(f"The id {self.id!r} is taken already.")
        if len(drawing.plates) >= MAX_PLATES:
            raise LimitError("plates", len(drawing.plates) + 1, MAX_PLATES)
        plate = Plate(id=self.id, name=self.name, width=self.width, height=self.height)
        return drawing.model_copy(update={"plates": (*drawing.plates, plate)})


class RenamePlate(Command):
    """Gives a plate another name."""

    kind: Literal["rename-plate"] = "rename-plate"
    plate: Id
    name: Name

    @property
    def label(self) -> str:
        return "Rename plate"

    def applied_to(self, drawing: Drawing) -> Drawing:
        plate = plate_of(drawing, self.plate)
        return with_plate(drawing, plate.model_copy(update={"name": self.name}))
