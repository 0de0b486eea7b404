"""The live socket: frames and states to the browser, actions and previews from it. See docs/formats.md, "Live socket"."""

from __future__ import annotations

import threading
from typing import Any

import msgspec
from flask import Flask
from flask_sock import Sock
from simple_websocket import ConnectionClosed, Server

from zarabanda.errors import ZarabandaError, brief
from zarabanda.formats import effect_document
from zarabanda.messages import (
    Act,
    Audition,
    Frame,
    FromBrowser,
    Hello,
    PreviewEffect,
    Refused,
    UniverseFrame,
    Watch,
    what_is_wrong,
)
from zarabanda.workers import in_words

from .browsers import Browser
from .link import EngineLink

VERSION = 1
MAX_MESSAGE = 1 << 20
MOST_SOCKETS = 80
"""Open at once: each holds a thread, and HTTP must keep its own (see supervisor)."""
_TRY_LATER, _DOES_NOT_READ = 1013, 1008

_decoder = msgspec.json.Decoder(FromBrowser)


def take(link: EngineLink, browser: Browser, text: object) -> None:
    """Do what a message asks for; ZarabandaError says what is wrong with it."""
    if not isinstance(text, str):
        raise ZarabandaError("The live socket takes JSON text, not bytes. Reload the page.")
    match _read(text):
        case Act(action, ref):
            link.act(action, browser, ref)
        case Watch(universes):
            link.watch(browser, set(universes))
        case PreviewEffect(effect_id, document):
            link.preview_effect(effect_id, effect_document.read(document))
        case Audition(effect_id, document, heads) if document is not None:
            link.audition(browser, effect_id, effect_document.read(document), heads)
        case Audition():
            link.end_audition(browser)


class Unreadable(ZarabandaError):
    """A message that cannot be read. ref: that of the action, if it was one."""

    def __init__(self, message: str, ref: object = None) -> None:
        super().__init__(message)
        self.ref = ref


def _read(text: str) -> FromBrowser:
    try:
        message: FromBrowser = _decoder.decode(text)
        return message
    except msgspec.ValidationError as error:
        raise _wrong(text, error) from error
    except (msgspec.DecodeError, RecursionError, UnicodeError) as error:
        raise _unreadable(error) from error


def _wrong(text: str, error: msgspec.ValidationError) -> Unreadable:
    """What is wrong with a message of another type; with the reference of the action, if it is one."""
    try:
        plain = msgspec.json.decode(text)
    except (msgspec.DecodeError, RecursionError, UnicodeError) as another:
        return _unreadable(another)
    if isinstance(plain, dict) and plain.get("type") == "action" and isinstance(plain.get("action"), dict):
        return Unreadable(what_is_wrong(plain["action"], error), plain.get("ref"))
    return _unreadable(error)


def _unreadable(error: Exception) -> Unreadable:
    return Unreadable(
        f"The live socket cannot read this message: {brief(str(error))}. It takes JSON text with a type: action, watch, "
        "preview-effect or audition. Reload the page."
    )


def _write(socket: Server, browser: Browser) -> None:
    try:
        while (messages := browser.take()) is not None:
            for message in messages:
                socket.send(message.data if isinstance(message, Frame | UniverseFrame) else msgspec.json.encode(message).decode())
        socket.close(_DOES_NOT_READ, "This page did not read what was sent to it.")
    except (ConnectionClosed, OSError):
        pass


def _serve(socket: Server, link: EngineLink) -> None:
    browser = link.join()
    browser.post(Hello(VERSION, link.connected, browser.holder, link.show))
    threading.Thread(target=_write, args=(socket, browser), daemon=True, name="live-writer").start()
    try:
        while True:
            text: Any = socket.receive()
            try:
                take(link, browser, text)
            except ZarabandaError as error:
                browser.post(Refused(error.message, getattr(error, "ref", None)))
            except Exception as error:  # told, and the socket stays open
                link.troubles.tell("Live socket", in_words(error))
                browser.post(Refused(f"This could not be done: {brief(in_words(error))}."))
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
