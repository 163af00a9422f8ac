"""Fills an empty database with the signs of Marram Quay."""

from dotstack.core.drawing import Drawing, Evaluator
from dotstack.core.drawing.assets import kept_as_one
from dotstack.core.drawing.kit import KitAsset
from dotstack.demo import boat_hire, net_float, quay_signs
from dotstack.demo.hand import Hand
from dotstack.store import DrawingStore, PictureStore, ShelfStore

_ASSETS = {"Wayfinding": ("Mussel", "Hull"), "Ornament": ("Tide ring",), "Parts": ("North star",)}
_TAGS = {"Mussel": ("shore", "sign"), "Hull": ("boat", "sign"), "North star": ("sky",)}


def fill(drawings: DrawingStore, shelf: ShelfStore, pictures: PictureStore) -> None:
    """Makes the demo drawings and the shelf's first collection, unless there is a shelf."""
    if shelf.shelf().collections:
        return
    shelf.add_collection("Harbour set", list(_ASSETS))
    sketch = net_float.sketch()
    pictures.keep([sketch])
    net_float.draw(Hand(drawings, drawings.create(Drawing(name="Net float (tracing)"))), sketch)
    hand = Hand(drawings, drawings.create(Drawing(name="Quay signs")))
    quay_signs.draw(hand)
    boat_hire.draw(Hand(drawings, drawings.create(Drawing(name="Slack tide boat hire"))))
    evaluator = Evaluator()
    (collection,) = shelf.shelf().collections
    for section in collection.sections:
        for name in _ASSETS[section.name]:
            mark = kept_as_one(hand.drawing, [hand.named(name).id], evaluator)
            shelf.put(section.id, [KitAsset(name=name, tags=_TAGS.get(name, ()), node=mark)])
