"""The live socket: frames and states to the browser, actions and previews from it. See docs/formats.md, "Live socket"."""

from __future__ import annotations

import json
import threading
from collections.abc import Callable
from typing import Annotated, Any

import msgspec
from flask import Flask
from flask_sock import Sock
from simple_websocket import ConnectionClosed, Server

from zarabanda.errors import ZarabandaError, brief
from zarabanda.formats import effect_document
from zarabanda.workers import in_words

from .link import Browser, EngineLink

VERSION = 1
MAX_MESSAGE = 1 << 20
MOST_SOCKETS = 80
"""Open at once: each holds a thread, and HTTP must keep its own (see supervisor)."""
_TRY_LATER, _DOES_NOT_READ = 1013, 1008

Universe = Annotated[int, msgspec.Meta(ge=1, le=63_999)]
EffectId = Annotated[int, msgspec.Meta(ge=0, le=2**31 - 1)]


class Act(msgspec.Struct, tag="action", forbid_unknown_fields=True):
    """A live action; ref comes back with a refusal."""

    action: dict[str, Any]
    ref: Any = None


class Watch(msgspec.Struct, tag="watch", forbid_unknown_fields=True):
    """Universes to see live."""

    universes: Annotated[list[Universe], msgspec.Meta(max_length=16)]


class PreviewEffect(msgspec.Struct, tag="preview-effect", forbid_unknown_fields=True):
    """An effect as it is being edited, until the next edit."""

    effect_id: EffectId
    document: Any


class Audition(msgspec.Struct, tag="audition", forbid_unknown_fields=True):
    """An effect to be seen on heads; without a document: no more."""

    effect_id: EffectId = 0
    document: Any = None
    heads: Annotated[list[str], msgspec.Meta(max_length=20_000)] = []


Message = Act | Watch | PreviewEffect | Audition
_decoder = msgspec.json.Decoder(Message)


def _act(link: EngineLink, browser: Browser, message: Act) -> None:
    link.act(message.action, browser, message.ref)


def _watch(link: EngineLink, browser: Browser, message: Watch) -> None:
    link.watch(browser, set(message.universes))


def _preview(link: EngineLink, browser: Browser, message: PreviewEffect) -> None:
    document = effect_document.read(message.document)
    link.send({"type": "preview-effect", "effect_id": message.effect_id, "document": document.plain()})


def _audition(link: EngineLink, browser: Browser, message: Audition) -> None:
    if message.document is None:
        link.audition(browser, None)
        return
    document = effect_document.read(message.document)
    link.audition(browser, {"effect_id": message.effect_id, "effect": document.plain(), "heads": message.heads})


_HANDLERS: dict[type, Callable[[EngineLink, Browser, Any], None]] = {
    Act: _act,
    Watch: _watch,
    PreviewEffect: _preview,
    Audition: _audition,
}


def take(link: EngineLink, browser: Browser, text: object) -> None:
    """Do what a message asks for; ZarabandaError says what is wrong with it."""
    if not isinstance(text, str):
        raise ZarabandaError("The live socket takes JSON text, not bytes. Reload the page.")
    try:
        message = _decoder.decode(text)
    except (msgspec.DecodeError, RecursionError, UnicodeError) as error:
        raise ZarabandaError(
            f"The live socket cannot read this message: {brief(str(error))}. It takes JSON text with a type: action, watch, "
            "preview-effect or audition. Reload the page."
        ) from error
    _HANDLERS[type(message)](link, browser, message)


def _write(socket: Server, browser: Browser) -> None:
    try:
        while (messages := browser.take()) is not None:
            for message in messages:
                socket.send(message["data"] if "data" in message else json.dumps(message))
        socket.close(_DOES_NOT_READ, "This page did not read what was sent to it.")
    except (ConnectionClosed, OSError):
        pass


def _serve(socket: Server, link: EngineLink) -> None:
    browser = link.join()
    browser.post({"type": "hello", "version": VERSION, "engine": link.connected})
    threading.Thread(target=_write, args=(socket, browser), daemon=True, name="live-writer").start()
    try:
        while True:
            text: Any = socket.receive()
            try:
                take(link, browser, text)
            except ZarabandaError as error:
                browser.post({"type": "refused", "ref": None, "message": error.message})
            except Exception as error:  # told, and the socket stays open
                link.troubles.tell("Live socket", in_words(error))
                browser.post({"type": "refused", "ref": None, "message": f"This could not be done: {brief(in_words(error))}."})
    except ConnectionClosed:
        pass
    finally:
        link.leave(browser)
        browser.shut()


def add_live_socket(app: Flask, link: EngineLink) -> None:
    """Serve `/live`. Who may open it is checked with every request (see `guard`)."""
    app.config["SOCK_SERVER_OPTIONS"] = {"max_message_size": MAX_MESSAGE, "ping_interval": 25}
    sock = Sock(app)
    places = threading.BoundedSemaphore(MOST_SOCKETS)

    @sock.route("/live")  # type: ignore[untyped-decorator]  # flask-sock has no types
    def live(socket: Server) -> None:
        if not places.acquire(blocking=False):
            socket.close(_TRY_LATER, f"{MOST_SOCKETS} pages are open already. Close one of them.")
            return
        try:
            _serve(socket, link)
        finally:
            places.release()
