"""What every command is."""

from abc import ABC, abstractmethod

from dotstack.core.drawing.nodes import Drawing, Value


class Command(Value, ABC):
    """A small value that says one change of a drawing."""

    @property
    @abstractmethod
    def label(self) -> str:
        """The step's name, as undo shows it."""

    @abstractmethod
    def applied_to(self, drawing: Drawing) -> Drawing:
        """The changed drawing; raises CommandError or ValidationError and changes nothing."""
