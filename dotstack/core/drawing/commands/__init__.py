"""What can a person do to a drawing?

``apply`` is the only way to change one. A new command is a class in one of the modules
here and a name in ``AnyCommand``.
"""

from typing import Annotated, TypeAlias

from pydantic import Field, TypeAdapter, ValidationError
from pydantic_core import ErrorDetails

from dotstack.core.drawing.commands.aligning import Align, SameAngle, SameCentre, SameSize, Spread
from dotstack.core.drawing.commands.clipping import PutInside, TakeOut
from dotstack.core.drawing.commands.colours import OneColour, Recolour, SetSwatches
from dotstack.core.drawing.commands.combining import Combine, TakeOutcome, painted_place
from dotstack.core.drawing.commands.filling import FillHole, OpenHoles
from dotstack.core.drawing.commands.holding import AllHome, acted_on
from dotstack.core.drawing.commands.lettering import (
    BreakIntoLetters,
    SetLetters,
    SetWords,
    SpaceLetters,
)
from dotstack.core.drawing.commands.lines import LineToOutline
from dotstack.core.drawing.commands.measures import (
    Follow,
    FollowPlate,
    RemoveMeasure,
    RenameMeasure,
    SetMeasure,
)
from dotstack.core.drawing.commands.members import LiftMembers, MakeMembers, SetRole
from dotstack.core.drawing.commands.nodes import CompleteHalf, EditNodes, JoinEnds
from dotstack.core.drawing.commands.on_lines import PutOnLine, TakeOffLine
from dotstack.core.drawing.commands.painting import CopyPaint, Paint, SpreadGradient
from dotstack.core.drawing.commands.placing import (
    Mirror,
    PlaceExactly,
    Resize,
    SetEnds,
    SetThrough,
    Stretch,
    Transform,
)
from dotstack.core.drawing.commands.plates import (
    AddPlate,
    DuplicatePlate,
    MovePlate,
    RemovePlate,
    RenameDrawing,
    SetPlate,
)
from dotstack.core.drawing.commands.refining import Refine, SetCorners, SetRefinements
from dotstack.core.drawing.commands.regions import BuildRegions, SetRegions
from dotstack.core.drawing.commands.renewing import Renew
from dotstack.core.drawing.commands.repeats import (
    BringBack,
    MakeRepeat,
    MoveCentre,
    SetRepeat,
    SpaceRow,
    VaryCopies,
)
from dotstack.core.drawing.commands.retaking import SetOutcome
from dotstack.core.drawing.commands.settling import Close, LiftOut, Settle, Unbundle
from dotstack.core.drawing.commands.shapes import (
    AddShape,
    Paste,
    Remove,
    Rename,
    SetParameters,
    SetState,
)
from dotstack.core.drawing.commands.simplifying import Simplify
from dotstack.core.drawing.commands.stacking import Arrange, Duplicate, Group, MoveInStack, Ungroup
from dotstack.core.drawing.commands.twins import (
    FollowAgain,
    FreeTwins,
    MakeTwin,
    OnlyHere,
    RenameSource,
)
from dotstack.core.drawing.commands.underlays import AddUnderlay
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.laying import laid
from dotstack.core.drawing.links import tied
from dotstack.core.drawing.measures import checked
from dotstack.core.drawing.sound import check_apart
from dotstack.core.drawing.stacks import active_in_order
from dotstack.core.errors import CommandError, GeometryError

AnyCommand: TypeAlias = Annotated[
    AddPlate
    | AddShape
    | AddUnderlay
    | Align
    | AllHome
    | Arrange
    | BringBack
    | BreakIntoLetters
    | BuildRegions
    | Close
    | Combine
    | CompleteHalf
    | CopyPaint
    | Duplicate
    | DuplicatePlate
    | EditNodes
    | FillHole
    | Follow
    | FollowAgain
    | FollowPlate
    | FreeTwins
    | Group
    | JoinEnds
    | LiftMembers
    | LiftOut
    | LineToOutline
    | MakeMembers
    | MakeRepeat
    | MakeTwin
    | Mirror
    | MoveCentre
    | MoveInStack
    | MovePlate
    | OpenHoles
    | Paint
    | Paste
    | PlaceExactly
    | PutInside
    | PutOnLine
    | OneColour
    | OnlyHere
    | Recolour
    | Refine
    | Remove
    | RemoveMeasure
    | RemovePlate
    | Rename
    | RenameDrawing
    | RenameMeasure
    | RenameSource
    | Renew
    | Resize
    | SameAngle
    | SameCentre
    | SameSize
    | SetCorners
    | SetEnds
    | SetLetters
    | SetMeasure
    | SetOutcome
    | SetParameters
    | SetPlate
    | SetRefinements
    | SetRegions
    | SetRepeat
    | SetRole
    | SetState
    | SetSwatches
    | SetThrough
    | SetWords
    | Simplify
    | SpaceLetters
    | SpaceRow
    | Stretch
    | Spread
    | SpreadGradient
    | Settle
    | TakeOffLine
    | TakeOut
    | TakeOutcome
    | Transform
    | Unbundle
    | Ungroup
    | VaryCopies,
    Field(discriminator="kind"),
]

command_adapter: TypeAdapter[AnyCommand] = TypeAdapter(AnyCommand)


# The commands that make something of shapes, which one may want to compare.
OUTCOME_KINDS = frozenset(
    {"build-regions", "combine", "put-inside", "set-outcome", "set-regions", "take-outcome"}
)
# What a person would call the fields of a placement.
_WORDS = {"e": "x", "f": "y", "a": "size", "b": "size", "c": "size", "d": "size"}


def _word(location: tuple[int | str, ...]) -> str:
    name = str(location[-1]) if location else "it"
    return _WORDS.get(name, name.replace("_deg", "").replace("_", " "))


def apply(drawing: Drawing, command: AnyCommand, evaluator: Evaluator) -> Drawing:
    """The drawing after the command; nodes that it does not touch keep their identity.

    Raises CommandError, LimitError or ArrangementError, and then nothing has changed.
    """
    try:
        done = tied(acted_on(drawing, command.named, command.applied_to, evaluator))
        done = done if (sound := checked(done)) is done else tied(sound)
        done = laid(done, evaluator)
        check_apart(drawing, done)
        return done
    except GeometryError as error:
        raise CommandError(str(error)) from error
    except ValidationError as error:
        faults = "; ".join(map(_said, error.errors(include_url=False)))
        raise CommandError(f"{command.label} is not possible: {faults}.") from error


def _said(fault: ErrorDetails) -> str:
    """What is wrong, in words."""
    if fault["type"] == "value_error":
        # Our own, which says what it is about.
        return str(fault["ctx"]["error"]).rstrip(".")
    return f"{_word(fault['loc'])} {fault['msg'].replace('Input should', 'should')}"


__all__ = [
    "OUTCOME_KINDS",
    "AddPlate",
    "AddShape",
    "AddUnderlay",
    "Align",
    "AllHome",
    "AnyCommand",
    "Arrange",
    "BreakIntoLetters",
    "BringBack",
    "BuildRegions",
    "Close",
    "Combine",
    "CompleteHalf",
    "CopyPaint",
    "Duplicate",
    "DuplicatePlate",
    "EditNodes",
    "FillHole",
    "Follow",
    "FollowAgain",
    "FollowPlate",
    "FreeTwins",
    "Group",
    "JoinEnds",
    "LiftMembers",
    "LiftOut",
    "LineToOutline",
    "MakeMembers",
    "MakeRepeat",
    "MakeTwin",
    "Mirror",
    "MoveCentre",
    "MoveInStack",
    "MovePlate",
    "OneColour",
    "OnlyHere",
    "OpenHoles",
    "Paint",
    "Paste",
    "PlaceExactly",
    "PutInside",
    "PutOnLine",
    "Recolour",
    "Refine",
    "Remove",
    "RemoveMeasure",
    "RemovePlate",
    "Rename",
    "RenameDrawing",
    "RenameMeasure",
    "RenameSource",
    "Renew",
    "Resize",
    "SameAngle",
    "SameCentre",
    "SameSize",
    "SetCorners",
    "SetEnds",
    "SetLetters",
    "SetMeasure",
    "SetOutcome",
    "SetParameters",
    "SetPlate",
    "SetRefinements",
    "SetRegions",
    "SetRepeat",
    "SetRole",
    "SetState",
    "SetSwatches",
    "SetThrough",
    "SetWords",
    "Settle",
    "Simplify",
    "SpaceLetters",
    "SpaceRow",
    "Spread",
    "SpreadGradient",
    "Stretch",
    "TakeOffLine",
    "TakeOut",
    "TakeOutcome",
    "Transform",
    "Unbundle",
    "Ungroup",
    "VaryCopies",
    "active_in_order",
    "apply",
    "command_adapter",
    "painted_place",
]
