"""The application factory."""

from __future__ import annotations

import hashlib
import hmac
import secrets
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

from flask import Blueprint, Response, g, jsonify, request, send_from_directory
from flask.typing import ResponseReturnValue
from flask_openapi3.models.info import Info
from flask_openapi3.openapi import OpenAPI
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from zarabanda import __version__
from zarabanda.errors import ZarabandaError
from zarabanda.formats.effect_document import faults
from zarabanda.show import repositories
from zarabanda.show.store import Store

from .context import Context
from .link import EngineLink
from .live import add_live_socket
from .models import Fault
from .resources import draft, effects, output, pages, palettes, rig, show

BROWSER_COOKIE, ACCESS_COOKIE = "zarabanda-browser", "zarabanda-access"
STATIC = Path(__file__).parent / "static"
_POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; connect-src 'self'; frame-ancestors 'none'"
)


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
    text = "; ".join(f"{place or 'the request'}: {what}" for place, what in listed[:5])
    response: Response = jsonify(Fault(message=f"{text}.", place=listed[0][0]).model_dump())
    response.status_code = 422
    return response


def _status(error: ZarabandaError) -> int:
    if isinstance(error, repositories.NotThere):
        return 404
    return 409 if isinstance(error, repositories.InUse) else 422


def create_app(data: Path, *, access_code: str = "", connect: bool = True) -> OpenAPI:
    """The web application of a data folder. access_code: asked for before anything else; connect: look for the engine."""
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
    )
    app.config["MAX_CONTENT_LENGTH"] = 8 << 20
    app.wsgi_app = _without_deflate(app.wsgi_app)  # type: ignore[method-assign,assignment]  # as Flask says to wrap it
    store = Store(data / "show.db")
    link = EngineLink(data, store)
    store.on_edit = link.push
    app.extensions["zarabanda"] = Context(data, store, link)
    for blueprint in (show.api, rig.api, effects.api, palettes.api, draft.api, pages.api, output.api):
        app.register_api(blueprint)
    _add_identity(app, access_code)
    _add_errors(app)
    _add_pages(app)
    add_live_socket(app, link)
    if connect:
        link.start()
    return app


def _add_identity(app: OpenAPI, access_code: str) -> None:
    token = hmac.new(access_code.encode(), b"zarabanda", hashlib.sha256).hexdigest() if access_code else ""

    @app.before_request
    def identify() -> ResponseReturnValue | None:
        g.browser = request.cookies.get(BROWSER_COOKIE, "")[:64] or secrets.token_urlsafe(16)
        if not token or hmac.compare_digest(request.cookies.get(ACCESS_COOKIE, ""), token):
            return None
        if request.method == "POST" and request.path == "/access":
            if hmac.compare_digest(request.form.get("code", ""), access_code):
                response = Response(status=303, headers={"Location": "/"})
                response.set_cookie(ACCESS_COOKIE, token, httponly=True, samesite="Strict", max_age=30 * 86400)
                return response
            return _access_page("This is not the code. Ask whoever started Zarabanda."), 401
        if request.path.startswith("/api") or request.path == "/live":
            return jsonify(Fault(message="Enter the access code first, on the start page.").model_dump()), 401
        return _access_page(""), 401

    @app.after_request
    def remember(response: Response) -> Response:
        if BROWSER_COOKIE not in request.cookies and request.path != "/live":
            response.set_cookie(BROWSER_COOKIE, g.browser, httponly=True, samesite="Strict", max_age=365 * 86400)
        response.headers["Content-Security-Policy"] = _POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        return response


def _access_page(problem: str) -> str:
    return (
        "<!doctype html><html lang=en><meta charset=utf-8><title>Zarabanda</title>"
        "<style>body{background:#14110e;color:#efe7d8;font:18px sans-serif;display:grid;place-content:center;height:90vh}"
        "input,button{font:inherit;padding:.5em;background:#14110e;color:inherit;border:1px solid #8d8477}</style>"
        f"<form method=post action=/access><h1>Zarabanda</h1><p role=alert>{problem}</p>"
        "<label>Access code <input name=code type=password autofocus></label> <button>Enter</button></form></html>"
    )


def _add_errors(app: OpenAPI) -> None:
    @app.errorhandler(ZarabandaError)
    def refused(error: ZarabandaError) -> ResponseReturnValue:
        return jsonify(Fault(message=error.message, place=error.place).model_dump()), _status(error)

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
