"""Evaluators that remember what they computed, from one request to the next."""

from collections import OrderedDict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from threading import Lock

from dotstack.core.drawing import Evaluator
from dotstack.core.drawing.surroundings import NOWHERE, Surroundings

_IN_USE = 64


@dataclass(frozen=True, slots=True)
class _Kept:
    evaluator: Evaluator
    lock: Lock = field(default_factory=Lock)


class Evaluators:
    """An evaluator for each drawing in use: no drawing waits for what another one takes."""

    def __init__(
        self, surroundings: Surroundings = NOWHERE, version: Callable[[], int] = lambda: 0
    ) -> None:
        """``version`` is another one where the surroundings have changed, here or elsewhere."""
        self._surroundings = surroundings
        self._version, self._seen = version, version()
        self._lock = Lock()
        self._kept: OrderedDict[str, _Kept] = OrderedDict()

    @contextmanager
    def of(self, drawing_id: str) -> Iterator[Evaluator]:
        """The evaluator of a drawing, or of a page that shows many, for the caller alone."""
        kept = self._of(drawing_id)
        with kept.lock:
            yield kept.evaluator

    @contextmanager
    def of_idle(self, drawing_id: str) -> Iterator[Evaluator]:
        """The evaluator of a drawing that is in use, but not just now, or else one to be forgotten.

        Who only looks takes no evaluator from those who work.
        """
        version = self._version()
        with self._lock:
            self._forget_unless(version)
            kept = self._kept.get(drawing_id)
        if kept is None or not kept.lock.acquire(blocking=False):
            yield Evaluator(self._surroundings)
            return
        try:
            yield kept.evaluator
        finally:
            kept.lock.release()

    def _of(self, drawing_id: str) -> _Kept:
        version = self._version()
        with self._lock:
            self._forget_unless(version)
            kept = self._kept.get(drawing_id) or _Kept(Evaluator(self._surroundings))
            self._kept[drawing_id] = kept
            self._kept.move_to_end(drawing_id)
            while len(self._kept) > _IN_USE:
                self._kept.popitem(last=False)
            return kept

    def _forget_unless(self, version: int) -> None:
        """What was computed in other surroundings may be wrong."""
        if version != self._seen:
            self._seen = version
            self._kept.clear()
