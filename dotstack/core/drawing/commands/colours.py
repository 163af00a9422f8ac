"""Commands that keep a drawing's colours, and change them wherever they are."""

from abc import abstractmethod
from typing import Annotated, Literal

from pydantic import Field

from dotstack.core.drawing.commands.command import Command
from dotstack.core.drawing.document import Drawing, Swatch
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.drawing.places import with_each
from dotstack.core.drawing.tree import with_each_look
from dotstack.core.errors import CommandError
from dotstack.core.paint.fill import recoloured
from dotstack.core.values import Colour


class SetSwatches(Command):
    """Gives the drawing other colours, in this order."""

    kind: Literal["set-swatches"] = "set-swatches"
    swatches: Annotated[tuple[Swatch, ...], Field(max_length=200)]

    @property
    def label(self) -> str:
        return "Change colours"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        names = [swatch.name for swatch in self.swatches]
        if len(set(names)) < len(names):
            raise CommandError("Two colours cannot have the same name.")
        return drawing.model_copy(update={"swatches": self.swatches})


class _Recolouring(Command):
    """Exchanges colours in all looks of the drawing."""

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        return with_each(
            drawing,
            lambda node: with_each_look(node, lambda look: look.recoloured(self._exchanged)),
        )

    @abstractmethod
    def _exchanged(self, colour: str) -> str: ...


class Recolour(_Recolouring):
    """Paints all that has one colour in another, and with ``swap`` the other way too.

    Swatches of them too, but where they are swapped.
    """

    kind: Literal["recolour"] = "recolour"
    old: Colour
    new: Colour
    swap: bool = False

    @property
    def label(self) -> str:
        return "Swap colours" if self.swap else "Recolour"

    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        drawing = super().applied_to(drawing, evaluator)
        if self.swap:
            return drawing
        swatches = tuple(
            swatch.model_copy(update={"paint": recoloured(swatch.paint, self._exchanged)})
            for swatch in drawing.swatches
        )
        return drawing.model_copy(update={"swatches": swatches})

    def _exchanged(self, colour: str) -> str:
        if colour.upper() == self.old.upper():
            return self.new
        return self.old if self.swap and colour.upper() == self.new.upper() else colour


class OneColour(_Recolouring):
    """Paints all of the drawing in one colour; what is shaded keeps its opacities."""

    kind: Literal["one-colour"] = "one-colour"
    colour: Colour

    @property
    def label(self) -> str:
        return "One colour"

    def _exchanged(self, colour: str) -> str:
        return self.colour
