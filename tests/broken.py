"""A drawing with a shape that cannot be shown, as an older Dot Stack could leave one."""

from unittest.mock import patch

from dotstack.core.drawing import Drawing, Plate
from dotstack.core.drawing.commands import Transform
from dotstack.core.drawing.kinds import EllipseNode, GroupNode
from dotstack.core.paint import Look
from dotstack.core.values import Placement
from dotstack.store import Database, DrawingStore
from dotstack.web.app import utc_now

FAR = 6e5


def broken_drawing(database: Database) -> str:
    """The drawing's id; its last step moved "Lost", inside a group, more than 1e6 away."""
    away = Placement(e=FAR)
    lost = EllipseNode(id="lost", name="Lost", rx=5, ry=5)
    group = GroupNode(id="whole", name="Whole", nodes=(lost,), transform=away)
    near = EllipseNode(id="near", name="Near", rx=5, ry=5, look=Look(fill="#3F7355"))
    plate = Plate(id="plate", name="Plate", width=100, height=100, nodes=(group, near))
    drawings = DrawingStore(database, utc_now)
    opened = drawings.create(Drawing(name="Broken", plates=(plate,)))
    step = Transform(ids=("lost",), by=away)
    # Once nobody asked whether what is written can be shown.
    with patch("dotstack.store.drawings.require_shown"):
        drawings.change(opened.id, opened.revision, "key-000001", step)
    return opened.id
