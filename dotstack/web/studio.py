"""What requests share: the stores, and one evaluator that remembers what it computed."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from threading import Lock

from flask import current_app

from dotstack.core.drawing import Evaluator
from dotstack.shared import SharedShelf
from dotstack.store import DrawingStore, PictureStore, ShelfStore


@dataclass(frozen=True, slots=True)
class Studio:
    """The stores, and the evaluator for one request at a time."""

    drawings: DrawingStore
    shelf: ShelfStore
    pictures: PictureStore
    shared: SharedShelf | None = None
    _evaluator: Evaluator = field(default_factory=Evaluator)
    _lock: Lock = field(default_factory=Lock)

    @contextmanager
    def evaluator(self) -> Iterator[Evaluator]:
        """The evaluator, for the caller alone."""
        with self._lock:
            yield self._evaluator


def studio() -> Studio:
    """The studio of the application that serves this request."""
    found = current_app.extensions["dotstack"]
    assert isinstance(found, Studio)
    return found
