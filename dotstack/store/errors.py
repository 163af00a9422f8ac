"""Every error that the store raises.

StoreError
├── GoneError (LookupError)   what is not there, or was deleted
├── StaleRevisionError        a change based on a revision that is no longer the newest
├── NothingToUndoError        undo or redo with no step left that way
├── UnwritableError (ValueError)  text that no database takes
├── BusyError (TimeoutError)  others that write for too long
├── UnreachableError (ConnectionError)  a database that does not answer
│   └── AddressError          a URL of no database that is known
└── DiskError (OSError)       what the disk does not take
"""


class StoreError(Exception):
    """Anything that the store refuses."""


class GoneError(StoreError, LookupError):
    """A drawing, asset or section that is not there, or no longer."""

    def __init__(self, what: str, key: str) -> None:
        super().__init__(f"There is no {what} with the id {key!r}; it may have been deleted.")
        self.what = what
        self.key = key


class StaleRevisionError(StoreError):
    """A change based on a revision that is no longer the newest; ``current`` is that."""

    def __init__(self, based_on: int, current: int) -> None:
        super().__init__(
            f"The drawing has changed elsewhere (it is at revision {current}, this change "
            f"was made on {based_on}). Nothing was overwritten; load it again and repeat the step."
        )
        self.based_on = based_on
        self.current = current


class NothingToUndoError(StoreError):
    """Undo or redo with no step left that way."""


class BusyError(StoreError, TimeoutError):
    """Others that write for too long; nothing was changed."""

    def __init__(self) -> None:
        super().__init__(
            "The database is busy with other changes. Nothing was changed; try again in a moment."
        )


class UnreachableError(StoreError, ConnectionError):
    """A database that does not answer, or no longer; a step sent again is not done twice."""

    def __init__(
        self,
        said: str = "The database does not answer. What is saved stays; try again in a moment.",
    ) -> None:
        super().__init__(said)


class AddressError(UnreachableError):
    """A URL of no database that is known."""

    def __init__(self, reason: str) -> None:
        super().__init__(
            f"This is no address of a database ({reason}); "
            "it reads like postgresql://dotstack@127.0.0.1/dotstack."
        )


class UnwritableError(StoreError, ValueError):
    """Text with a character that no database takes: NUL, or half of a surrogate pair."""

    def __init__(self) -> None:
        super().__init__("Something in this request is no text. Nothing was changed.")


class DiskError(StoreError, OSError):
    """What the disk does not take; nothing of the change is kept."""

    def __init__(self, reason: str) -> None:
        super().__init__(
            f"This could not be written to the disk ({reason}). Nothing was changed or lost; "
            "make room, or mend the disk, and try again."
        )
        self.reason = reason
