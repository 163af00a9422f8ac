"""The cards of the drawings that there are: what home shows of each."""

from collections.abc import Callable
from contextlib import suppress
from typing import TypeAlias

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.store import DrawingStore, Evaluators, FontStore, GoneError, Summary
from dotstack.web.models import DrawingCard

# The revision that a card shows, and how many fonts there were.
_State: TypeAlias = tuple[int, int]


class Cards:
    """Each card is made once for a revision of its drawing, and for the fonts that there are."""

    def __init__(self, drawings: DrawingStore, evaluators: Evaluators, fonts: FontStore) -> None:
        self._drawings, self._evaluators, self._fonts = drawings, evaluators, fonts
        self._known: dict[str, tuple[_State, DrawingCard]] = {}

    def all(self, make: Callable[[Summary, Drawing, Evaluator], DrawingCard]) -> list[DrawingCard]:
        """The cards of all drawings, the last changed first; ``make`` makes those not known."""
        fonts, found = self._fonts.count(), dict[str, tuple[_State, DrawingCard]]()
        for summary in self._drawings.summaries():
            known = self._known.get(summary.id)
            if known and known[0] == (summary.revision, fonts):
                found[summary.id] = known
                continue
            # It may be gone by now; and what it takes just now, the list does not wait for.
            with suppress(GoneError), self._evaluators.of_idle(summary.id) as evaluator:
                revision, drawing = self._drawings.glanced(summary.id)
                found[summary.id] = (revision, fonts), make(summary, drawing, evaluator)
        self._known = found
        return [card for _, card in found.values()]
