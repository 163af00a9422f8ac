"""What can a person do to a drawing?

``apply`` is the only way to change one. A new command is a class in one of the modules
here and a name in ``AnyCommand``.
"""

from typing import Annotated, TypeAlias

from pydantic import Field, TypeAdapter, ValidationError

from dotstack.core.drawing.commands.combining import Combine, chosen_in_order
from dotstack.core.drawing.commands.placing import PlaceExactly, Resize, SameCentre, Transform
from dotstack.core.drawing.commands.plates import AddPlate, RenameDrawing, RenamePlate
from dotstack.core.drawing.commands.shapes import (
    AddShape,
    Paint,
    Remove,
    Rename,
    SetParameters,
    SetRole,
)
from dotstack.core.drawing.nodes import Drawing
from dotstack.core.errors import CommandError

AnyCommand: TypeAlias = Annotated[
    AddPlate
    | AddShape
    | Combine
    | Paint
    | PlaceExactly
    | Remove
    | Rename
    | RenameDrawing
    | RenamePlate
    | Resize
    | SameCentre
    | SetParameters
    | SetRole
    | Transform,
    Field(discriminator="kind"),
]

command_adapter: TypeAdapter[AnyCommand] = TypeAdapter(AnyCommand)


def apply(drawing: Drawing, command: AnyCommand) -> Drawing:
    """The drawing after the command; nodes that it does not touch keep their identity.

    Raises CommandError, LimitError or ArrangementError, and then nothing has changed.
    """
    try:
        return command.applied_to(drawing)
    except ValidationError as error:
        faults = "; ".join(
            f"{'.'.join(map(str, fault['loc'][-1:]))}: {fault['msg']}"
            for fault in error.errors(include_url=False)
        )
        raise CommandError(f"{command.label} is not possible: {faults}.") from error


__all__ = [
    "AddPlate",
    "AddShape",
    "AnyCommand",
    "Combine",
    "Paint",
    "PlaceExactly",
    "Remove",
    "Rename",
    "RenameDrawing",
    "RenamePlate",
    "Resize",
    "SameCentre",
    "SetParameters",
    "SetRole",
    "Transform",
    "apply",
    "chosen_in_order",
    "command_adapter",
]
