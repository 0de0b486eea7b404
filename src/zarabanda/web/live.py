"""The live socket: frames and states to the browser, actions and previews from it. See docs/formats.md, "Live socket"."""

from __future__ import annotations

import json
import threading
from typing import Any
from urllib.parse import urlsplit

from flask import Flask, request
from flask_sock import Sock
from simple_websocket import ConnectionClosed, Server

from zarabanda.errors import ZarabandaError
from zarabanda.formats import effect_document

from .link import Browser, EngineLink

VERSION = 1
MAX_MESSAGE = 1 << 20


def _write(socket: Server, browser: Browser) -> None:
    try:
        while (messages := browser.take()) is not None:
            for message in messages:
                socket.send(message["data"] if "data" in message else json.dumps(message))
    except (ConnectionClosed, OSError):
        pass


def _message(link: EngineLink, browser: Browser, text: object) -> None:
    if not isinstance(text, str):
        raise ZarabandaError("The live socket takes JSON text, not bytes. Reload the page.")
    try:
        message = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise ZarabandaError(f"The live socket takes JSON text; this is none: {error}. Reload the page.") from error
    if not isinstance(message, dict):
        raise ZarabandaError('A live message is an object such as {"type": "action", "action": {"do": "tap"}}.')
    kind = message.get("type")
    if kind == "action" and isinstance(message.get("action"), dict):
        link.act(message["action"], browser, message.get("ref"))
    elif kind == "watch":
        universes = message.get("universes")
        if (
            not isinstance(universes, list)
            or not all(type(u) is int and 0 < u <= 63_999 for u in universes)
            or len(universes) > 16
        ):
            raise ZarabandaError("watch takes a list of at most 16 universes, each 1 to 63999.", "universes")
        link.watch(browser, set(universes))
    elif kind == "preview-effect" and type(message.get("effect_id")) is int:
        document = effect_document.read(message.get("document"))
        link.send({"type": kind, "effect_id": message["effect_id"], "document": document.plain()})
    elif kind == "audition":
        link.audition(browser, _audition(message))
    else:
        known = "action, watch, preview-effect and audition"
        raise ZarabandaError(f"The live socket does not know {kind!r}; it takes {known}.", "type")


def _audition(message: dict[str, Any]) -> dict[str, Any] | None:
    """An effect to be seen on heads, or None to end that."""
    if message.get("document") is None:
        return None
    heads = message.get("heads")
    if not isinstance(heads, list) or not all(isinstance(head, str) for head in heads) or len(heads) > 20_000:
        raise ZarabandaError("audition takes a document and a list of heads.", "heads")
    document = effect_document.read(message["document"])
    return {"effect_id": int(message.get("effect_id") or 0), "effect": document.plain(), "heads": heads}


def same_origin(origin: str | None, host: str) -> bool:
    """Whether a socket is opened by a page of ours. A program that is no browser sends no origin."""
    return origin is None or urlsplit(origin).netloc == host


def _serve(socket: Server, link: EngineLink) -> None:
    browser = Browser()
    browser.post({"type": "hello", "version": VERSION, "engine": link.connected})
    link.join(browser)
    writer = threading.Thread(target=_write, args=(socket, browser), daemon=True, name="live-writer")
    writer.start()
    try:
        while True:
            text: Any = socket.receive()
            try:
                _message(link, browser, text)
            except ZarabandaError as error:
                browser.post({"type": "refused", "ref": None, "message": error.message})
    except ConnectionClosed:
        pass
    finally:
        link.leave(browser)
        browser.shut()


def add_live_socket(app: Flask, link: EngineLink) -> None:
    """Serve `/live`."""
    app.config["SOCK_SERVER_OPTIONS"] = {"max_message_size": MAX_MESSAGE, "ping_interval": 25}
    sock = Sock(app)

    @sock.route("/live")  # type: ignore[untyped-decorator]  # flask-sock has no types
    def live(socket: Server) -> None:
        if not same_origin(request.headers.get("Origin"), request.host):
            socket.close(1008, "Open Zarabanda at its own address.")
            return
        _serve(socket, link)
