"""Fills an empty database with the signs of Marram Quay."""

from dotstack.core.drawing import Drawing
from dotstack.demo import quay_signs
from dotstack.demo.hand import Hand
from dotstack.store import DrawingStore, ShelfStore


def fill(drawings: DrawingStore, shelf: ShelfStore) -> None:
    """Makes the demo drawings and the shelf's first collection, unless there is a shelf."""
    if shelf.collections():
        return
    shelf.add_collection("Harbour set", ["Wayfinding", "Ornament", "Parts"])
    hand = Hand(drawings, drawings.create(Drawing(name="Quay signs")))
    quay_signs.draw(hand)
