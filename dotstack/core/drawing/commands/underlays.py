"""The command that puts a picture under the shapes."""

from typing import Literal

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.kinds import UnderlayNode
from dotstack.core.drawing.places import plate_of, with_nodes, with_plate
from dotstack.core.drawing.sound import check_fresh
from dotstack.core.values import Digest, Id, Length, Name, Placement


class AddUnderlay(Command):
    """Puts a picture at the bottom of a plate's stack, in its middle and as large as fits.

    ``width`` and ``height`` are the picture's sides, in pixels.
    """

    kind: Literal["add-underlay"] = "add-underlay"
    plate: Id
    id: Id
    name: Name
    picture: Digest
    width: Length
    height: Length

    @property
    def label(self) -> str:
        return f"Add {self.name}"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        plate = plate_of(drawing, self.plate)
        scale = min(plate.width / self.width, plate.height / self.height)
        underlay = UnderlayNode(
            id=self.id,
            name=self.name,
            transform=Placement(e=plate.width / 2, f=plate.height / 2),
            picture=self.picture,
            width=self.width * scale,
            height=self.height * scale,
        )
        check_fresh(drawing, (underlay,))
        return with_plate(drawing, with_nodes(plate, (underlay, *plate.nodes)))
