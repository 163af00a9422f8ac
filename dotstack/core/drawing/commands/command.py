"""What every command is."""

from abc import ABC, abstractmethod

from dotstack.core.drawing.document import Drawing
from dotstack.core.drawing.evaluate import Evaluator
from dotstack.core.values import Value


class Command(Value, ABC):
    """A small value that says one change of a drawing."""

    @property
    @abstractmethod
    def label(self) -> str:
        """The step's name, as undo shows it."""

    @property
    def named(self) -> tuple[str, ...]:
        """The ids of the shapes that it is about, of which some may be pieces."""
        one = (getattr(self, name, None) for name in ("id", "source", "fixed", "above"))
        return (*getattr(self, "ids", ()), *(each for each in one if each))

    @abstractmethod
    def applied_to(self, drawing: Drawing, evaluator: Evaluator) -> Drawing:
        """The changed drawing; raises CommandError or ValidationError and changes nothing."""
