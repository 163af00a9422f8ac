"""``/api/drawings/<id>/…``: steps of one drawing, and what they would come to."""

from flask import Response
from pydantic import BaseModel, Field

from dotstack.core.combine import Outcome
from dotstack.core.drawing import AnyCommand, Drawing, apply, difference
from dotstack.core.drawing.assets import standing
from dotstack.core.drawing.carrying import going_out
from dotstack.core.drawing.commands import OUTCOME_KINDS, SpaceLetters
from dotstack.core.drawing.commands.combining import PaintChoice
from dotstack.core.drawing.corner_map import CornerMap, corner_map
from dotstack.core.drawing.kinds import Node
from dotstack.core.drawing.letter_map import letter_map
from dotstack.core.drawing.node_map import NodeMap, node_maps
from dotstack.core.drawing.pictures import shapes_picture
from dotstack.core.drawing.places import all_ids, place_of, plate_of
from dotstack.core.drawing.region_map import RegionMap, region_map
from dotstack.core.drawing.scene import Box, Piece, between_two, require_shown
from dotstack.core.drawing.simplifying import Fewer, fewer_nodes, told
from dotstack.core.drawing.snapping import SnapTargets, snap_targets
from dotstack.core.drawing.tiles import TileResult, contours_of, outcomes_of
from dotstack.core.formats import write_svg
from dotstack.core.geometry import bundle
from dotstack.core.values import AnyId, Id, Length
from dotstack.web import answers
from dotstack.web.blueprints import Part
from dotstack.web.models import (
    Based,
    DrawingPath,
    DrawingState,
    Key,
    PlatePicture,
    PreviewState,
    ShapeIds,
    Shapes,
)
from dotstack.web.studio import studio


class Change(Based):
    """A command; ``key`` names this step, so that a repeated request does nothing twice."""

    key: Key
    command: AnyCommand


class Preview(Based):
    """A command to look at, and what is to be told of how it leaves things.

    Attributes:
        nodes: shapes whose nodes are wanted.
        letters: a text of which it is wanted where its letters stand.
        opened: shapes of which it is wanted how those stand that they only make something of;
            of all, unless it is said.

    """

    command: AnyCommand
    nodes: list[AnyId] = Field(default_factory=list, max_length=200)
    letters: Id | None = None
    opened: list[AnyId] | None = Field(default=None, max_length=2000)


class Selection(Based):
    """Chosen shapes of one stack, or one live thing.

    ``paint`` says whose paint results of one piece take.

    ``which`` outcomes: all, unless named. With ``as_lines`` shapes with a line and no fill are
    cut and overlapped as lines; with ``lines_as_areas`` lines count as what they ink.
    """

    paint: PaintChoice | None = None
    as_lines: bool = False
    lines_as_areas: bool = False
    which: list[Outcome] = Field(default_factory=lambda: list(Outcome), min_length=1)
    ids: ShapeIds


class PlateAt(Based):
    """A plate of the drawing at this revision."""

    plate: Id


class Pair(Based):
    """Two shapes of one plate."""

    ids: tuple[AnyId, AnyId]


class Measured(BaseModel):
    """How two shapes stand to each other: the gap between their outlines, and from the
    centre of the first to that of the second. ``gap`` is None where one has no outline.
    """

    gap: float | None
    dx: float
    dy: float


class ShapeAt(Based):
    """A shape of the drawing at this revision."""

    id: Id


class Simplifying(Shapes):
    """Shapes to be simplified, and how far they may stray on the plate."""

    bound: Length


class Contours(BaseModel):
    """The contours of a plain path, each as it looks by itself."""

    contours: list[Piece]


class CopiedShapes(BaseModel):
    """Shapes as an SVG document, and as they are: ready to be put on a plate, the lowest first."""

    svg: str
    nodes: list[Node]


class Nodes(BaseModel):
    """The nodes of shapes, by the shapes' ids."""

    maps: dict[str, NodeMap]


class Tiles(BaseModel):
    """All outcomes of a selection, most useful first, in one common box."""

    nodes: int
    box: Box
    tiles: list[TileResult]


class Compared(BaseModel):
    """A plate as it was before the last outcome, and what that was; None if there was none."""

    label: str | None = None
    before: PlatePicture | None = None


blueprint = Part("steps", "/api/drawings/<drawing_id>")


@blueprint.post("/commands", responses={200: DrawingState})
def change_drawing(path: DrawingPath, body: Change) -> Response:
    """Applies a command; answers what it changed once that is on disk."""
    return answers.changed(
        studio().drawings.change(path.drawing_id, body.revision, body.key, body.command)
    )


@blueprint.post("/undo", responses={200: DrawingState})
def undo(path: DrawingPath, body: Based) -> Response:
    """Takes the last step back."""
    return answers.changed(studio().drawings.undo(path.drawing_id, body.revision))


@blueprint.post("/redo", responses={200: DrawingState})
def redo(path: DrawingPath, body: Based) -> Response:
    """Takes the step that was undone last again."""
    return answers.changed(studio().drawings.redo(path.drawing_id, body.revision))


@blueprint.post("/preview", responses={200: PreviewState})
def preview(path: DrawingPath, body: Preview) -> Response:
    """What a command would change; nothing is saved."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        after = apply(drawing, body.command, evaluator)
        delta = difference(drawing, after)
        figures = require_shown(delta, evaluator, body.opened)
        found = PreviewState(entries=delta.after, figures=figures)
        if body.nodes:
            found.nodes = node_maps(after, all_ids(after) & set(body.nodes), evaluator)
        if body.letters in all_ids(after):
            spaced = isinstance(body.command, SpaceLetters)
            found.letters = letter_map(after, body.letters, evaluator, with_gaps=spaced)
        return answers.json(found)


@blueprint.post("/outcomes", responses={200: Tiles})
def outcomes(path: DrawingPath, body: Selection) -> Response:
    """Every outcome of the chosen shapes, computed from one arrangement."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        operands, tiles = outcomes_of(
            drawing,
            tuple(body.ids),
            evaluator,
            body.paint,
            tuple(body.which),
            body.as_lines,
            body.lines_as_areas,
        )
    return answers.json(
        Tiles(
            nodes=sum(outline.node_count for outline in operands),
            box=Box.of(bundle(operands).bounds),
            tiles=tiles,
        )
    )


@blueprint.post("/regions", responses={200: RegionMap})
def regions(path: DrawingPath, body: Shapes) -> Response:
    """The regions of chosen shapes, or of one region build, to be picked."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        return answers.json(region_map(drawing, tuple(body.ids), evaluator))


@blueprint.post("/contours", responses={200: Contours})
def contours(path: DrawingPath, body: ShapeAt) -> Response:
    """The contours of a plain path, of which one can be lifted out."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        return answers.json(Contours(contours=contours_of(drawing, body.id, evaluator)))


@blueprint.post("/corners", responses={200: CornerMap})
def corners(path: DrawingPath, body: ShapeAt) -> Response:
    """The corners of a shape, to be rounded, cut off or hollowed out."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        return answers.json(corner_map(place_of(drawing, body.id).node, evaluator))


@blueprint.post("/nodes", responses={200: Nodes})
def nodes(path: DrawingPath, body: Shapes) -> Response:
    """The nodes and sides of shapes, to be changed by hand."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        return answers.json(Nodes(maps=node_maps(drawing, body.ids, evaluator)))


@blueprint.post("/fewer", responses={200: Fewer})
def fewer(path: DrawingPath, body: Simplifying) -> Response:
    """What simplifying shapes would come to."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        found = fewer_nodes(drawing, body.ids, body.bound, evaluator)
        return answers.json(told(list(found.values())))


@blueprint.post("/before", responses={200: Compared})
def before(path: DrawingPath, body: PlateAt) -> Response:
    """A plate as it was before the last outcome that was taken."""
    at(path.drawing_id, body.revision)
    found = studio().drawings.before_last(path.drawing_id, OUTCOME_KINDS)
    if found is None or all(plate.id != body.plate for plate in found[1].plates):
        return answers.json(Compared())
    label, drawing = found
    with studio().evaluators.of(path.drawing_id) as evaluator:
        picture = answers.plate_picture(plate_of(drawing, body.plate), evaluator)
    return answers.json(Compared(label=label, before=picture))


@blueprint.post("/snaps", responses={200: SnapTargets})
def snaps(path: DrawingPath, body: PlateAt) -> Response:
    """What the shapes of a plate offer to be snapped to."""
    drawing = at(path.drawing_id, body.revision)
    plate = plate_of(drawing, body.plate)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        return answers.json(snap_targets(plate, evaluator))


@blueprint.post("/measure", responses={200: Measured})
def measure(path: DrawingPath, body: Pair) -> Response:
    """How two shapes stand to each other."""
    drawing = at(path.drawing_id, body.revision)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        between, dx, dy = between_two(drawing, body.ids, evaluator)
    return answers.json(Measured(gap=between, dx=dx, dy=dy))


@blueprint.post("/copy-out", responses={200: CopiedShapes})
def copy_out(path: DrawingPath, body: Shapes) -> Response:
    """Chosen shapes, to be pasted here or elsewhere; the SVG text is cropped to them."""
    drawing, ids = at(path.drawing_id, body.revision), tuple(body.ids)
    with studio().evaluators.of(path.drawing_id) as evaluator:
        svg = write_svg(shapes_picture(drawing, ids, evaluator))
        nodes = going_out(standing(drawing, ids, evaluator), evaluator, drawing.measures)
        return answers.json(CopiedShapes(svg=svg, nodes=nodes))


def at(drawing_id: str, revision: int) -> Drawing:
    """A drawing, if this is its revision."""
    return studio().drawings.at(drawing_id, revision)
