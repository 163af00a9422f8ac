"""Every error that the core raises.

    CoreError
    ├── GeometryError (ValueError)      a number or shape that no geometry can be made of
    │   └── PathDataError               path data that cannot be read, with the character
    ├── ArrangementError (ArithmeticError)  outlines that could not be arranged consistently
    ├── CommandError (ValueError)       a command that does not fit the drawing
    │   └── UnknownNodeError (LookupError)  a command names a shape or plate that is not there
    ├── FormatError (ValueError)        a file that cannot be read, with the element
    └── LimitError (ValueError)         more than Dot Stack takes on, with the limit

``str()`` of each is a sentence for the person who draws; details are attributes.
"""

from collections.abc import Sequence


class CoreError(Exception):
    """Anything that the core refuses."""


class GeometryError(CoreError, ValueError):
    """A number or shape that no geometry can be made of."""


class PathDataError(GeometryError):
    """Path data that cannot be read. ``position`` counts characters from 0."""

    def __init__(self, reason: str, position: int) -> None:
        super().__init__(f"Path data, character {position + 1}: {reason}")
        self.reason = reason
        self.position = position


class ArrangementError(CoreError, ArithmeticError):
    """The outlines could not be arranged without contradiction; ``operands`` carries them."""

    def __init__(self, reason: str, operands: Sequence[object]) -> None:
        super().__init__(
            f"These {len(operands)} shapes could not be combined: {reason}. "
            "Nothing was changed; moving one of them slightly may help."
        )
        self.reason = reason
        self.operands = tuple(operands)


class CommandError(CoreError, ValueError):
    """A command that does not fit the drawing; the drawing is unchanged."""


class UnknownNodeError(CommandError, LookupError):
    """A command names a shape or plate that the drawing does not have."""

    def __init__(self, kind: str, node_id: str) -> None:
        super().__init__(f"There is no {kind} with the id {node_id!r} in this drawing.")
        self.kind = kind
        self.node_id = node_id


class FormatError(CoreError, ValueError):
    """A file that cannot be read. ``where`` names the element, ``reason`` the fault."""

    def __init__(self, where: str, reason: str) -> None:
        super().__init__(f"Cannot read {where}: {reason}.")
        self.where = where
        self.reason = reason


class LimitError(CoreError, ValueError):
    """More than Dot Stack takes on; ``limit`` says how much it does."""

    def __init__(self, what: str, got: int, limit: int) -> None:
        super().__init__(f"{got} {what} are too many; Dot Stack takes up to {limit}.")
        self.limit = limit
