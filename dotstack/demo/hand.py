"""A hand that draws as a person would: one command after the other."""

from dotstack.core.drawing import AnyCommand, Drawing, Evaluator, Node, command_adapter
from dotstack.core.drawing.region_map import region_map
from dotstack.core.geometry import Outline
from dotstack.core.letters import Font
from dotstack.fonts import shipped
from dotstack.store import DrawingStore, Opened

INK, CLAY, MOSS, TIDE, MUSTARD = "#22303C", "#B8452E", "#3F7355", "#1D6A83", "#C98A1B"


def font_of(family: str, style: str) -> Font:
    """The font that ships and has a style of a family."""
    return next(
        font
        for font in shipped().values()
        if font.family == family and style in {each.name for each in font.styles}
    )


class Hand:
    """Draws on the plate that it added last."""

    def __init__(self, drawings: DrawingStore, opened: Opened) -> None:
        self._drawings, self._opened = drawings, opened
        self._plate = ""
        self._count = 0

    def plate(self, name: str, width: float = 256, height: float = 256) -> None:
        """Adds a plate, and goes on drawing there."""
        self._plate = self._id()
        self.do(kind="add-plate", id=self._plate, name=name, width=width, height=height)

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

    def ring(self, name: str, x: float, y: float, r: float, inner: float, fill: str = INK) -> str:
        """Draws a ring; answers its id."""
        return self._add(name, x, y, 0, fill, kind="ellipse", rx=r, ry=r, inner=inner)

    def drop(
        self, name: str, x: float, y: float, r: float, tip: float,
        fill: str = INK, angle: float = 0,
    ) -> str:  # fmt: skip
        """Draws a drop round its body's centre; answers its id."""
        return self._add(name, x, y, angle, fill, kind="drop", rx=r, ry=r, tip=tip)

    def line(self, name: str, x: float, y: float, length: float) -> str:
        """Draws a level line round its middle; answers its id."""
        line = {"paint": INK, "width": 1}
        return self._add(name, x, y, 0, None, kind="line", length=length, line=line)

    def words(
        self, name: str, words: str, x: float, y: float, face: tuple[str, str], cap_height: float,
        fill: str = INK, **set_: object,
    ) -> str:  # fmt: skip
        """Sets words from a point on, in a family and style; answers the text's id."""
        font = font_of(*face)
        choice = {"digest": font.digest, "family": face[0], "style": face[1]}
        axes = next(dict(each.axes) for each in font.styles if each.name == face[1])
        letters = {"words": words, "font": choice, "axes": axes, **set_}
        size = {"size": cap_height, "measure": "cap-height"}
        return self._add(name, x, y, 0, fill, kind="text", **letters, **size)

    def path(self, name: str, data: str, colour: str, width: float) -> str:
        """Draws an open path; answers its id."""
        line = {"paint": colour, "width": width}
        return self._add(name, 0, 0, 0, None, kind="path", data=data, line=line)

    def underlay(self, name: str, picture: str, width: int, height: int) -> None:
        """Puts a picture of so many pixels under all shapes."""
        sides = {"width": width, "height": height}
        self.do(
            "add-underlay", plate=self._plate, id=self._id(), name=name, picture=picture, **sides
        )

    def spin(self, name: str, node_id: str, x: float, y: float, **parameters: float) -> str:
        """Repeats a shape live round a point; answers the repeat's id."""
        repeat = self._id()
        self.do("make-repeat", ids=[node_id], id=repeat, name=name, layout="spin", x=x, y=y)
        self.do("set-parameters", ids=[repeat], parameters=parameters)
        return repeat

    def follow(self, node_id: str, measure: str, value: float, **texts: str) -> None:
        """Names a measure, and lets fields follow it; ``__`` stands for a dot in their paths."""
        paths = {path.replace("__", "."): text for path, text in texts.items()}
        makes = {"name": measure, "text": f"{value:g}"}
        self.do("follow", ids=[node_id], texts=paths, makes=makes)

    def combine(self, outcome: str, name: str, *ids: str) -> str:
        """Takes an outcome; answers the compound's id."""
        compound = self._id()
        self.do(kind="combine", ids=ids, outcome=outcome, id=compound, name=name)
        return compound

    def role(self, compound: str, member: str, role: str) -> None:
        """Gives a member another role."""
        self.do(kind="set-role", compound=compound, member=member, role=role)

    def pick_regions(
        self, name: str, ids: list[str], strokes: list[tuple[str, list[tuple[float, float]]]]
    ) -> str:
        """Makes a region build by strokes through points, each in a colour; answers its id.

        A stroke without a colour drops what it touches.
        """
        spots = region_map(self._opened.drawing, tuple(ids), Evaluator()).spots
        outlines = [Outline.from_path_data(spot.path) for spot in spots]

        def touched(x: float, y: float) -> object:
            for spot, outline in zip(spots, outlines, strict=True):
                if outline.contains(x, y):
                    return spot.pick
            raise ValueError(f"No region lies at {x}, {y}.")

        picks = [
            {
                "regions": [touched(x, y) for x, y in points],
                "dropped": not colour,
                "fill": colour or None,
            }
            for colour, points in strokes
        ]
        build = self._id()
        self.do(kind="build-regions", ids=ids, id=build, name=name, picks=picks)
        return build

    def same_centre(self, *ids: str) -> None:
        """Puts shapes on the centre of the first."""
        self.do(kind="same-centre", ids=ids)

    @property
    def drawing(self) -> Drawing:
        """The drawing as it is by now."""
        return self._opened.drawing

    def named(self, name: str) -> Node:
        """The shape with this name, as it stands on its plate."""
        return next(node for node in self.drawing.nodes if node.name == name)

    def _add(
        self, name: str, x: float, y: float, angle: float, fill: str | None, **shape: object
    ) -> str:
        node_id = self._id()
        line = shape.pop("line", None)
        look = {"fill": fill, "lines": [line] if line else []}
        node = {"id": node_id, "name": name, "look": look, "transform": {"e": x, "f": y}, **shape}
        self.do(kind="add-shape", plate=self._plate, node=node)
        if angle:
            self.do(kind="place", ids=[node_id], angle_deg=angle)
        return node_id

    def _id(self) -> str:
        self._count += 1
        return f"demo-{self._count}"

    def do(self, kind: str, **fields: object) -> None:
        """Does a command."""
        command: AnyCommand = command_adapter.validate_python({"kind": kind, **fields})
        key = f"demo-step-{self._opened.revision}"
        self._opened = self._drawings.change(self._opened.id, self._opened.revision, key, command)
