"""The application factory."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from pathlib import Path
from typing import Any

from flask import Blueprint, Response, g, jsonify, send_from_directory
from flask.typing import ResponseReturnValue
from flask_openapi3.models.info import Info
from flask_openapi3.openapi import OpenAPI
from pydantic import BaseModel, ValidationError
from sqlalchemy.exc import DatabaseError
from werkzeug.exceptions import HTTPException

from zarabanda import __version__
from zarabanda.errors import Busy, InUse, NotThere, OutOfStep, ZarabandaError, brief
from zarabanda.formats.effect_document import faults

from .context import opened
from .guard import add_guard
from .live import add_live_socket
from .parts import Fault
from .resources import (
    action_lists,
    bakes,
    busk,
    colour,
    cue_lists,
    cue_messages,
    cue_pixels,
    cue_sheets,
    cue_updates,
    cues,
    devices,
    draft,
    effects,
    fans,
    gdtf_files,
    groups,
    health,
    jobs,
    kind_edits,
    kinds,
    line,
    looks,
    media,
    midi_files,
    mvr_files,
    output,
    pages,
    palette_sets,
    palettes,
    pixel_pictures,
    pixels,
    recordings,
    rerig,
    rig,
    rig_csv,
    routes,
    running,
    selection,
    show,
    shows,
    sounds,
    specials,
    timecode,
    timeline_events,
    timelines,
    trace,
)

_MOST_TOLD = 1000
_MOST_STEPS, _STEP_S = 6, 0.5
"""So often a request is done once more that found an edit on its way, and so long it waits for that each time."""
_STATUS: dict[type[ZarabandaError], int] = {NotThere: 404, InUse: 409, Busy: 429}
STATIC = Path(__file__).parent / "static"


class _Application(OpenAPI):
    def make_response(self, rv: Any) -> Response:  # views return models
        if isinstance(rv, BaseModel):
            rv = Response(rv.model_dump_json(), mimetype="application/json")
        elif isinstance(rv, tuple) and isinstance(rv[0], BaseModel):
            rv = (Response(rv[0].model_dump_json(), mimetype="application/json"), *rv[1:])
        return super().make_response(rv)


def _without_deflate(application: Any) -> Callable[[dict[str, Any], Any], Iterable[bytes]]:
    """Live frames are small and many: compressing them costs more than it saves."""

    def wrapped(environ: dict[str, Any], start_response: Any) -> Iterable[bytes]:
        environ.pop("HTTP_SEC_WEBSOCKET_EXTENSIONS", None)
        result: Iterable[bytes] = application(environ, start_response)
        return result

    return wrapped


def _refused(error: ValidationError) -> Response:
    listed = faults(error)
    text = "; ".join(f"{brief(place) or 'the request'}: {what}" for place, what in listed[:5])
    response: Response = jsonify(Fault(message=f"{text}.", place=brief(listed[0][0])).model_dump())
    response.status_code = 422
    return response


def _status(error: ZarabandaError) -> int:
    return next((status for kind, status in _STATUS.items() if isinstance(error, kind)), 422)


def create_app(data: Path, *, access_code: str = "", hosts: Sequence[str] = (), connect: bool = True) -> OpenAPI:
    """The web application of a data folder. access_code: asked for before anything else; hosts: names that it is known by;
    connect: look for the engine."""
    app = _Application(
        "zarabanda",
        info=Info(title="Zarabanda", version=__version__),
        security_schemes={},
        responses={422: Fault},
        validation_error_status=422,
        validation_error_model=Fault,
        validation_error_callback=_refused,
        doc_prefix="/api/docs",
        static_folder=None,
        template_folder=str(Path(__file__).parent / "templates"),
    )
    app.config["MAX_CONTENT_LENGTH"] = 8 << 20
    app.wsgi_app = _without_deflate(app.wsgi_app)  # type: ignore[method-assign,assignment]  # as Flask says to wrap it
    own = app.extensions["zarabanda"] = opened(data)
    for blueprint in (
        show.api,
        shows.api,
        rig.api,
        rig_csv.api,
        mvr_files.api,
        recordings.api,
        rerig.api,
        midi_files.api,
        kinds.api,
        jobs.api,
        kind_edits.api,
        gdtf_files.api,
        groups.api,
        selection.api,
        effects.api,
        palette_sets.api,
        palettes.api,
        draft.api,
        fans.api,
        trace.api,
        colour.api,
        pages.api,
        busk.api,
        looks.api,
        pixels.api,
        pixel_pictures.api,
        media.api,
        action_lists.api,
        bakes.api,
        specials.api,
        cue_lists.api,
        cue_messages.api,
        cue_pixels.api,
        cue_sheets.api,
        cue_updates.api,
        cues.api,
        cues.lists_api,
        devices.api,
        timelines.api,
        timeline_events.api,
        sounds.api,
        timecode.api,
        line.api,
        output.api,
        routes.api,
        running.api,
        health.api,
    ):
        app.register_api(blueprint)
    add_guard(app, access_code=access_code, names=hosts)
    _add_errors(app)
    _add_pages(app)
    add_live_socket(app, own.link)
    if connect:
        own.link.start()
        own.hearing.start()
        own.keeping.start()
    return app


def _add_errors(app: OpenAPI) -> None:
    @app.errorhandler(ZarabandaError)
    def refused(error: ZarabandaError) -> ResponseReturnValue:
        body = Fault(message=brief(error.message, _MOST_TOLD), place=brief(error.place))
        return jsonify(body.model_dump()), _status(error)

    @app.before_request
    def begins() -> None:
        g.edition = app.extensions["zarabanda"].link.edition  # what comes later than this need not be waited for

    @app.errorhandler(OutOfStep)
    def out_of_step(error: OutOfStep) -> ResponseReturnValue:
        tried = g.setdefault("out_of_step", 0)
        if tried >= _MOST_STEPS:
            return refused(error)
        g.out_of_step = tried + 1
        app.extensions["zarabanda"].link.catch_up(g.edition, _STEP_S)
        return app.full_dispatch_request()  # the same request once more: an edit of it was rolled back

    @app.errorhandler(ValidationError)
    def cannot_be_read(error: ValidationError) -> ResponseReturnValue:
        return _refused(error)  # a kept document that is broken

    @app.errorhandler(DatabaseError)
    def cannot_be_kept(error: DatabaseError) -> ResponseReturnValue:
        why, store = str(error.orig), app.extensions["zarabanda"].store
        full = "full" in why or "disk I/O" in why
        if full and not g.get("again") and store.go_on_in_memory():
            g.again = True
            return app.full_dispatch_request()  # the same request once more, on the copy in memory
        remedy = "Make room on the disk" if full else "Try again in a moment"
        body = Fault(message=f"This edit was not kept: {why}. {remedy}. The lights go on.")
        return jsonify(body.model_dump()), 409

    @app.errorhandler(HTTPException)
    def failed(error: HTTPException) -> ResponseReturnValue:
        response = error.get_response()
        body = Fault(message=f"{error.description or error.name}")
        return Response(body.model_dump_json(), error.code, {**dict(response.headers), "Content-Type": "application/json"})


def _add_pages(app: OpenAPI) -> None:
    pages = Blueprint("screens", __name__)

    @pages.get("/")
    def start_page() -> ResponseReturnValue:
        if not (STATIC / "index.html").exists():
            raise ZarabandaError("The screens are not built yet. Run `make setup`, then start again.")
        response = send_from_directory(STATIC, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response

    @pages.get("/<path:name>")
    def asset(name: str) -> ResponseReturnValue:
        return send_from_directory(STATIC, name, max_age=31_536_000 if name.startswith("assets/") else 0)

    app.register_blueprint(pages)
