"""Fills an empty database with the signs of Marram Quay."""

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.frame import kept_copy
from dotstack.demo import quay_signs
from dotstack.demo.hand import Hand
from dotstack.store import DrawingStore, ShelfStore

_ASSETS = {"Wayfinding": ("Mussel", "Hull"), "Ornament": ("Tide ring",), "Parts": ("North star",)}


def fill(drawings: DrawingStore, shelf: ShelfStore) -> None:
    """Makes the demo drawings and the shelf's first collection, unless there is a shelf."""
    if shelf.collections():
        return
    shelf.add_collection("Harbour set", list(_ASSETS))
    hand = Hand(drawings, drawings.create(Drawing(name="Quay signs")))
    quay_signs.draw(hand)
    evaluator = Evaluator()
    (collection,) = shelf.collections()
    for section in collection.sections:
        for name in _ASSETS[section.name]:
            node = hand.named(name)
            shelf.put(section.id, name, kept_copy(node, node.transform.affine, evaluator))
