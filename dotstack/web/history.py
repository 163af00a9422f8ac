"""``/api/drawings/<id>/…``: the states that a drawing was in, some with a name."""

from flask import Response
from pydantic import BaseModel

from dotstack.core.drawing.places import plate_of
from dotstack.core.values import Name
from dotstack.web import answers
from dotstack.web.blueprints import Part
from dotstack.web.models import (
    Based,
    Body,
    DrawingPath,
    DrawingState,
    HistoryState,
    Key,
    PlatePicture,
    StateId,
)
from dotstack.web.studio import studio


class StatePath(DrawingPath):
    """Which state of a drawing a request is about: a step's number, or a version's id."""

    state: StateId


class OnePlate(BaseModel):
    """The plate that is wanted of a drawing."""

    plate: str


class NamedState(Body):
    """A name for a state."""

    name: Name
    state: StateId


class DrawingHistory(BaseModel):
    """The states of a drawing in their order; those after ``position`` were undone.

    ``versions`` are those that were given a name, and outlast their steps.
    """

    position: int
    steps: list[HistoryState]
    versions: list[HistoryState]


class GoBack(Based):
    """Makes the drawing what it was in a state, as a step of this key."""

    key: Key
    state: StateId


blueprint = Part("history", "/api/drawings/<drawing_id>")


@blueprint.get("/history", responses={200: DrawingHistory})
def show_history(path: DrawingPath) -> Response:
    """All states of a drawing, without pictures."""
    history = studio().drawings.history(path.drawing_id)
    return answers.json(
        DrawingHistory(
            position=history.position,
            steps=[answers.history_state(state) for state in history.steps],
            versions=[answers.history_state(state) for state in history.versions],
        )
    )


@blueprint.get("/states/<state>", responses={200: PlatePicture})
def picture_state(path: StatePath, query: OnePlate) -> Response:
    """A plate as it was in a state: the one that the step changed, else the one asked for,
    or the first if there was none of this id.
    """
    drawing, touched = studio().drawings.in_state(path.drawing_id, path.state)
    wanted = touched or query.plate
    there = any(plate.id == wanted for plate in drawing.plates)
    plate = plate_of(drawing, wanted) if there else drawing.plates[0]
    with studio().evaluators.of(path.drawing_id) as evaluator:
        return answers.json(answers.plate_picture(plate, evaluator))


@blueprint.post("/versions", responses={201: HistoryState})
def name_state(path: DrawingPath, body: NamedState) -> Response:
    """Gives a state a name, or another one."""
    version = studio().drawings.name_state(path.drawing_id, body.state, body.name)
    return answers.json(answers.history_state(version), 201)


@blueprint.delete("/versions/<state>", responses={204: None})
def forget_version(path: StatePath) -> Response:
    """Takes the name from a state."""
    studio().drawings.forget_version(path.drawing_id, path.state)
    return answers.done()


@blueprint.post("/go-back", responses={200: DrawingState})
def go_back(path: DrawingPath, body: GoBack) -> Response:
    """Makes the drawing what it was in a state, as a new step."""
    return answers.changed(
        studio().drawings.go_back(path.drawing_id, body.revision, body.key, body.state)
    )
