"""What requests share: the stores, and evaluators that remember what they computed."""

from dataclasses import dataclass

from flask import current_app

from dotstack.shared import SharedShelf
from dotstack.store import Database, DrawingStore, Evaluators, FontStore, PictureStore, ShelfStore
from dotstack.web.cards import Cards


@dataclass(frozen=True, slots=True)
class Studio:
    """The stores, an evaluator for each drawing and page in use, and the cards of all drawings."""

    database: Database
    evaluators: Evaluators
    drawings: DrawingStore
    shelf: ShelfStore
    pictures: PictureStore
    fonts: FontStore
    cards: Cards
    shared: SharedShelf | None = None


def studio() -> Studio:
    """The studio of the application that serves this request."""
    found = current_app.extensions["dotstack"]
    assert isinstance(found, Studio)
    return found
