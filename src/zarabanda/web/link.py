"""The web process's end of the link to the engine: sends programs and actions, passes frames and states on."""

from __future__ import annotations

import contextlib
import secrets
import socket
import threading
import time
from pathlib import Path
from typing import Any

import msgspec
from sqlalchemy.exc import SQLAlchemyError

from zarabanda import wire
from zarabanda.core.rig.rig import Rig
from zarabanda.engine.decoding import rig_from_message
from zarabanda.errors import ZarabandaError
from zarabanda.show import compile as compiling
from zarabanda.show.store import Store, Touched
from zarabanda.show.tables import EffectRow
from zarabanda.workers import Troubles, Worker, in_words

from .processes import what_is_down

_RETRY_S = 0.1
_ANSWER_S = 2.0
_OF_RIG = frozenset({"fixture", "mode"})
"""Tables that the rig is made of."""
FRAMES_AT_ONCE = 12
"""Browsers that a frame is passed on to; where more are open, they take turns."""
NAME = "Engine link"
AWAY = "The engine is restarting; try again in a second."


class Browser(wire.Mailbox):
    """One open live socket. holder: who it is to the engine, for what it holds."""

    def __init__(self, holder: str = "") -> None:
        super().__init__()
        self.holder = holder
        self.watching: set[int] = set()


class EngineLink:
    """Keeps a connection to the engine, and connects again when it is gone."""

    def __init__(self, data: Path, store: Store, troubles: Troubles) -> None:
        self._data, self._path = data, wire.socket_path(data, "engine")
        self._store, self.troubles = store, troubles
        self._connection: socket.socket | None = None
        self._sending, self._pushing, self._joining = threading.Lock(), threading.Lock(), threading.Lock()
        self._browsers: list[Browser] = []
        self._joined = 0
        self._turn = 0
        self._asked: dict[int, Browser] = {}
        self._answers: dict[int, tuple[threading.Event, list[Any]]] = {}
        self._references = 0
        self._auditions: Browser | None = None
        self._worker = Worker(NAME, self._be_connected, troubles)
        self.let_go: list[str] = []
        """Keys of what shall end without a fade with the next program, since the program holds its values."""
        self._engine_rig = ""
        self._rig_message: dict[str, Any] = {}
        self._show_message: dict[str, Any] = {}
        self._pushed_edit = -1
        self.rig: Rig = rig_from_message({"modes": [], "fixtures": []})
        self.rig_number = 0
        self.session = secrets.token_hex(6)
        """Who counts the revisions: each start of this process begins anew, at 0."""
        self.revision = 0
        self.state: dict[str, Any] | None = None
        self.refresh_rig()

    def start(self) -> None:
        """Begin to connect, in a thread of its own."""
        self._worker.start()

    def stop(self) -> None:
        """Connect no more."""
        self._worker.end()
        self._hang_up()

    @property
    def connected(self) -> bool:
        """Whether the engine is there."""
        return self._connection is not None

    @property
    def playing(self) -> bool:
        """Whether the engine plays this show."""
        return self.connected and self.state is not None and self.state["session"] == self.session

    def refresh_rig(self) -> None:
        """Build the rig anew, for previews, when it has changed."""
        with self._store.reading() as session:
            message = compiling.rig_message(session)
        if message["revision"] != self._rig_message.get("revision"):
            self._rig_message = message
            self.rig = rig_from_message(message)
            self.rig_number = int(message["revision"][:8], 16)

    def edited(self, touched: Touched = None) -> None:
        """After an edit, which is kept by now: give it to the engine. What fails is told, and made good by connecting anew."""
        try:
            self.push(touched)
        except (SQLAlchemyError, ValueError, TypeError, KeyError) as error:
            self.troubles.tell(NAME, f"The newest edit is kept, but is not on stage yet: {in_words(error)}. It is tried again.")
            self._show_message = {}
            self._hang_up()

    def push(self, touched: Touched = None) -> None:
        """Give the engine the show as it is now; with the rows that an edit touched, where they are known."""
        with self._pushing:
            if touched is None or not _OF_RIG.isdisjoint(touched):
                self.refresh_rig()
            with self._store.reading() as session:
                newest = compiling.newest_edit(session)
                follows = newest == self._pushed_edit + 1  # nobody else has edited meanwhile
                number = self.revision + 1
                if self._show_message and follows and touched and set(touched) == {EffectRow.__tablename__}:
                    ids = touched[EffectRow.__tablename__]
                    self._show_message = compiling.with_effects(self._show_message, session, number, ids)
                else:
                    self._show_message = compiling.show_message(session, number)
            self.revision, self._pushed_edit = number, newest
            show = self._show_message | {"session": self.session}
            message: dict[str, Any] = {"type": "program", "show": show}
            message["let_go"], self.let_go = self.let_go, []
            if self._engine_rig != self._rig_message["revision"]:
                message["rig"] = self._rig_message
                self._engine_rig = self._rig_message["revision"]
            with contextlib.suppress(ZarabandaError):  # without an engine: it gets the show when it is back
                self.send(message)

    def send(self, message: dict[str, Any]) -> None:
        """Send to the engine; ZarabandaError when it is not there, or the message cannot be sent."""
        connection = self._connection
        if connection is None:
            raise ZarabandaError(AWAY)
        try:
            with self._sending:
                wire.send(connection, message)
        except (OverflowError, TypeError, RecursionError, UnicodeError) as error:
            raise ZarabandaError(f"This cannot be sent to the engine: {error}. Give plain numbers and text.") from error
        except OSError as error:
            raise ZarabandaError(AWAY) from error

    def act(self, action: dict[str, Any], browser: Browser | None = None, reference: object = None) -> None:
        """A live action; a refusal goes to the browser that asked, with its reference."""
        action = {**action, "holder": browser.holder if browser else ""}
        message: dict[str, Any] = {"type": "action", "action": action}
        if browser is not None:
            self._references += 1
            self._asked[self._references] = browser
            message["ref"] = [self._references, reference]
            while len(self._asked) > 256:
                self._asked.pop(next(iter(self._asked)))
        self.send(message)

    def look_of(self, key: str) -> dict[str, dict[str, float]] | None:
        """What a frozen effect shows on stage now: values by attribute and head; None where nothing frozen has this key."""
        self._references += 1
        number, arrived, answer = self._references, threading.Event(), list[Any]()
        self._answers[number] = (arrived, answer)
        try:
            self.send({"type": "look", "key": key, "ref": number})
            if not arrived.wait(_ANSWER_S):
                raise ZarabandaError("The engine did not answer in time; try again.")
        finally:
            self._answers.pop(number, None)
        look: dict[str, dict[str, float]] | None = answer[0]
        return look

    # browsers

    def join(self) -> Browser:
        """A browser that frames and states are passed on to."""
        with self._joining:
            self._joined += 1
            browser = Browser(f"{self.session}-{self._joined}")
            self._browsers = [*self._browsers, browser]
        if self.state is not None:
            browser.post_newest("state", self.state)
        return browser

    def leave(self, browser: Browser) -> None:
        """It is gone: what it held and what it looked at are let go."""
        with self._joining:
            self._browsers = [other for other in self._browsers if other is not browser]
        with contextlib.suppress(ZarabandaError):
            self.audition(browser, None)
        with contextlib.suppress(ZarabandaError):
            self.send({"type": "action", "action": {"do": "let-go", "holders": [browser.holder]}})
        self._watch()

    def audition(self, browser: Browser, effect: dict[str, Any] | None) -> None:
        """Show an effect on stage while a browser looks at it; it ends when the browser says so, or is gone."""
        if effect is None and self._auditions is not browser:
            return
        self._auditions = browser if effect else None
        self.send({"type": "audition", "on": effect})

    def watch(self, browser: Browser, universes: set[int]) -> None:
        """Which universes a browser wants to see."""
        browser.watching = universes
        self._watch()

    def _watch(self) -> None:
        every = sorted(set().union(*(browser.watching for browser in self._browsers)))
        with contextlib.suppress(ZarabandaError):
            self.send({"type": "watch", "universes": every})

    def _tell_browsers(self, connected: bool) -> None:
        text = "" if connected else what_is_down(self._data)
        for browser in self._browsers:
            browser.post_newest("engine", {"type": "engine", "connected": connected, "message": text})

    # the connection

    def _be_connected(self) -> None:
        try:
            connection = wire.connect(self._path)
        except OSError:
            self._tell_browsers(False)
            time.sleep(_RETRY_S)
            return
        connection.settimeout(None)
        try:
            self._listen(connection)
        except (OSError, msgspec.DecodeError):
            pass  # the engine is gone: connect again
        finally:
            self._connection = None
            connection.close()
            self._tell_browsers(False)
        time.sleep(_RETRY_S)

    def _hang_up(self) -> None:
        connection = self._connection
        if connection is not None:
            with contextlib.suppress(OSError):
                connection.shutdown(socket.SHUT_RDWR)

    def _listen(self, connection: socket.socket) -> None:
        hello = wire.receive(connection)
        if hello is None:
            return
        self._engine_rig = hello["rig"]
        self._connection = connection
        self.push()
        self._watch()
        present = ["", *(browser.holder for browser in self._browsers)]
        self.send({"type": "action", "action": {"do": "let-go", "but": present}})
        self._tell_browsers(True)
        self.troubles.clear(NAME)
        while (message := wire.receive(connection)) is not None:
            self._pass_on(message)

    def _next_browsers(self) -> list[Browser]:
        """Who gets this frame: all of them, or in turn so many as can be served while HTTP is answered."""
        every = self._browsers
        if len(every) <= FRAMES_AT_ONCE:
            return every
        self._turn += FRAMES_AT_ONCE
        return [every[(self._turn + n) % len(every)] for n in range(FRAMES_AT_ONCE)]

    def _pass_on(self, message: dict[str, Any]) -> None:
        kind = message["type"]
        if kind == "frame":
            for browser in self._next_browsers():
                browser.post_newest("frame", message)
        elif kind == "universe":
            for browser in self._browsers:
                if message["universe"] in browser.watching:
                    browser.post_newest(f"universe {message['universe']}", message)
        elif kind == "state":
            message["health"]["troubles"] += self.troubles.report()
            self.state = message
            for browser in self._browsers:
                browser.post_newest("state", message)
        elif kind == "look" and message["ref"] in self._answers:
            arrived, answer = self._answers[message["ref"]]
            answer.append(message["values"])
            arrived.set()
        elif kind == "refused" and message.get("ref"):
            number, reference = message["ref"]
            asker = self._asked.pop(number, None)
            if asker is not None:
                asker.post({"type": "refused", "ref": reference, "message": message["message"]})
