"""The application factory."""

from collections.abc import Callable
from datetime import UTC, datetime

from flask_openapi3 import Info, OpenAPI

from dotstack.core.drawing.surroundings import Surroundings
from dotstack.shared import SharedShelf
from dotstack.shared.service import is_loopback
from dotstack.store import Database, DrawingStore, Evaluators, FontStore, PictureStore, ShelfStore
from dotstack.web import (
    colours,
    drawings,
    errors,
    export,
    history,
    importing,
    kits,
    lettering,
    pages,
    pictures,
    placing,
    safety,
    shelf,
    steps,
)
from dotstack.web import (
    shared as sharing,
)
from dotstack.web.blueprints import limit_bodies
from dotstack.web.cards import Cards
from dotstack.web.studio import Studio


def utc_now() -> datetime:
    """The time, in UTC, without a zone, as the store keeps it."""
    return datetime.now(UTC).replace(tzinfo=None)


def create_app(
    database: Database,
    now: Callable[[], datetime] = utc_now,
    shared: SharedShelf | None = None,
    is_own: Callable[[str], bool] = is_loopback,
) -> OpenAPI:
    """Dot Stack as a WSGI application on a database, perhaps with a shared shelf.

    ``is_own`` says whether a Host header is a name that it goes by.
    """
    app = OpenAPI(
        __name__,
        info=Info(title="Dot Stack", version="1"),
        static_folder=None,
        doc_ui=False,
        validation_error_status=422,
        validation_error_model=errors.Problem,
        validation_error_callback=errors.invalid_request,
    )

    fonts = FontStore(database, now)
    evaluators = Evaluators(Surroundings(fonts.font), fonts.count)
    stored = DrawingStore(database, now, evaluators)
    app.extensions["dotstack"] = Studio(
        database,
        evaluators,
        stored,
        ShelfStore(database, now),
        PictureStore(database, now),
        fonts,
        Cards(stored, evaluators, fonts),
        shared,
    )
    errors.register(app)
    safety.register(app, is_own)
    limit_bodies(app)
    for part in (
        drawings, steps, placing, history, importing, pictures, lettering, colours, export, shelf,
        kits, sharing,
    ):  # fmt: skip
        app.register_api(part.blueprint)
    app.register_blueprint(pages.blueprint)
    return app
