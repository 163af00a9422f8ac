"""A hand that draws as a person would: one command after the other."""

from dotstack.core.drawing import AnyCommand, Node, command_adapter
from dotstack.store import DrawingStore, Opened

INK, CLAY, MOSS, TIDE, MUSTARD = "#22303C", "#B8452E", "#3F7355", "#1D6A83", "#C98A1B"


class Hand:
    """Draws on the plate that it added last."""

    def __init__(self, drawings: DrawingStore, opened: Opened) -> None:
        self._drawings, self._opened = drawings, opened
        self._plate = ""
        self._count = 0

    def plate(self, name: str, size: float = 256) -> None:
        """Adds a square plate, and goes on drawing there."""
        self._plate = self._id()
        self._do(kind="add-plate", id=self._plate, name=name, width=size, height=size)

    def circle(
        self, name: str, x: float, y: float, r: float, fill: str = INK, ry: float = 0
    ) -> str:
        """Draws a circle, or an ellipse if ``ry`` is given; answers its id."""
        return self._add(name, x, y, 0, fill, kind="ellipse", rx=r, ry=ry or r)

    def box(
        self, name: str, x: float, y: float, width: float, height: float,
        fill: str = INK, radius: float = 0, angle: float = 0,
    ) -> str:  # fmt: skip
        """Draws a box round its centre; answers its id."""
        shape = {"width": width, "height": height, "radius": radius}
        return self._add(name, x, y, angle, fill, kind="rectangle", **shape)

    def polygon(
        self, name: str, x: float, y: float, sides: int, rx: float, ry: float,
        fill: str = INK, angle: float = 0,
    ) -> str:  # fmt: skip
        """Draws a polygon; answers its id."""
        return self._add(name, x, y, angle, fill, kind="polygon", sides=sides, rx=rx, ry=ry)

    def star(
        self, name: str, x: float, y: float, points: int, r: float, ratio: float, fill: str
    ) -> str:
        """Draws a star; answers its id."""
        return self._add(name, x, y, 0, fill, kind="star", points=points, rx=r, ry=r, ratio=ratio)

    def combine(self, outcome: str, name: str, *ids: str) -> str:
        """Takes an outcome; answers the compound's id."""
        compound = self._id()
        self._do(kind="combine", ids=ids, outcome=outcome, id=compound, name=name)
        return compound

    def role(self, compound: str, member: str, role: str) -> None:
        """Gives a member another role."""
        self._do(kind="set-role", compound=compound, member=member, role=role)

    def same_centre(self, *ids: str) -> None:
        """Puts shapes on the centre of the first."""
        self._do(kind="same-centre", ids=ids)

    def named(self, name: str) -> Node:
        """The shape with this name, as it stands on its plate."""
        plates = self._opened.drawing.plates
        return next(node for plate in plates for node in plate.nodes if node.name == name)

    def _add(self, name: str, x: float, y: float, angle: float, fill: str, **shape: object) -> str:
        node_id = self._id()
        node = {"id": node_id, "name": name, "fill": fill, "transform": {"e": x, "f": y}, **shape}
        self._do(kind="add-shape", plate=self._plate, node=node)
        if angle:
            self._do(kind="place", id=node_id, angle_deg=angle)
        return node_id

    def _id(self) -> str:
        self._count += 1
        return f"demo-{self._count}"

    def _do(self, **fields: object) -> None:
        command: AnyCommand = command_adapter.validate_python(fields)
        key = f"demo-step-{self._opened.revision}"
        self._opened = self._drawings.change(self._opened.id, self._opened.revision, key, command)
