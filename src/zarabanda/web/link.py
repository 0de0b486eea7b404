"""The web process's end of the link to the engine: sends programs and actions, passes frames and states on."""

from __future__ import annotations

import contextlib
import socket
import threading
import time
from pathlib import Path
from typing import Any

import msgspec

from zarabanda import wire
from zarabanda.core.rig import Rig
from zarabanda.engine.program import rig_from_message
from zarabanda.errors import ZarabandaError
from zarabanda.show import compile as compiling
from zarabanda.show.store import Store, Touched
from zarabanda.show.tables import EffectRow

_RETRY_S = 0.1
_OF_RIG = frozenset({"fixture", "mode"})
"""Tables that the rig is made of."""


class Browser(wire.Mailbox):
    """One open live socket."""

    def __init__(self) -> None:
        super().__init__()
        self.watching: set[int] = set()


class EngineLink:
    """Keeps a connection to the engine, and connects again when it is gone."""

    def __init__(self, data: Path, store: Store) -> None:
        self._path = wire.socket_path(data, "engine")
        self._store = store
        self._connection: socket.socket | None = None
        self._sending = threading.Lock()
        self._browsers: list[Browser] = []
        self._asked: dict[int, Browser] = {}
        self._auditions: Browser | None = None
        self.let_go: list[str] = []
        """Keys of what shall end without a fade with the next program, since the program holds its values."""
        self._references = 0
        self._engine_rig = ""
        self._rig_message: dict[str, Any] = {}
        self._show_message: dict[str, Any] = {}
        self._pushing = threading.Lock()
        self.rig: Rig = rig_from_message({"modes": [], "fixtures": []})
        self.rig_number = 0
        self.revision = int(time.time() * 1000)
        self.state: dict[str, Any] | None = None
        self.refresh_rig()

    def start(self) -> None:
        """Begin to connect, in a thread of its own."""
        threading.Thread(target=self._run, daemon=True, name="engine-link").start()

    @property
    def connected(self) -> bool:
        """Whether the engine is there."""
        return self._connection is not None

    @property
    def playing(self) -> bool:
        """Whether the engine plays this show."""
        return self.connected and self.state is not None and self.state["revision"] > 0

    def refresh_rig(self) -> None:
        """Build the rig anew, for previews, when it has changed."""
        with self._store.reading() as session:
            message = compiling.rig_message(session)
        if message["revision"] != self._rig_message.get("revision"):
            self._rig_message = message
            self.rig = rig_from_message(message)
            self.rig_number = int(message["revision"][:8], 16)

    def push(self, touched: Touched = None) -> None:
        """Give the engine the show as it is now; called after every edit, with the rows that it touched."""
        with self._pushing:
            self.revision += 1
            if touched is None or not _OF_RIG.isdisjoint(touched):
                self.refresh_rig()
            with self._store.reading() as session:
                if self._show_message and touched and set(touched) == {EffectRow.__tablename__}:
                    ids = touched[EffectRow.__tablename__]
                    self._show_message = compiling.with_effects(self._show_message, session, self.revision, ids)
                else:
                    self._show_message = compiling.show_message(session, self.revision)
            message: dict[str, Any] = {"type": "program", "show": self._show_message}
            message["let_go"], self.let_go = self.let_go, []
            if self._engine_rig != self._rig_message["revision"]:
                message["rig"] = self._rig_message
                self._engine_rig = self._rig_message["revision"]
            with contextlib.suppress(ZarabandaError):  # without an engine: it gets the show when it is back
                self.send(message)

    def send(self, message: dict[str, Any]) -> None:
        """Send to the engine; ZarabandaError when it is not there."""
        connection = self._connection
        if connection is None:
            raise ZarabandaError("The engine is restarting; try again in a second.")
        try:
            with self._sending:
                wire.send(connection, message)
        except OSError as error:
            raise ZarabandaError("The engine is restarting; try again in a second.") from error

    def act(self, action: dict[str, Any], browser: Browser | None = None, reference: object = None) -> None:
        """A live action; a refusal goes to the browser that asked, with its reference."""
        message: dict[str, Any] = {"type": "action", "action": action}
        if browser is not None:
            self._references += 1
            self._asked[self._references] = browser
            message["ref"] = [self._references, reference]
            while len(self._asked) > 256:
                self._asked.pop(next(iter(self._asked)))
        self.send(message)

    def join(self, browser: Browser) -> None:
        """Begin to pass frames and states on to a browser."""
        self._browsers = [*self._browsers, browser]
        if self.state is not None:
            browser.post_newest("state", self.state)

    def audition(self, browser: Browser, effect: dict[str, Any] | None) -> None:
        """Show an effect on stage while a browser looks at it; it ends when the browser says so, or is gone."""
        if effect is None and self._auditions is not browser:
            return
        self._auditions = browser if effect else None
        self.send({"type": "audition", "on": effect})

    def leave(self, browser: Browser) -> None:
        """Stop that."""
        with contextlib.suppress(ZarabandaError):
            self.audition(browser, None)
        self._browsers = [other for other in self._browsers if other is not browser]
        self._watch()

    def watch(self, browser: Browser, universes: set[int]) -> None:
        """Which universes a browser wants to see."""
        browser.watching = universes
        self._watch()

    def _watch(self) -> None:
        every = sorted(set().union(*(browser.watching for browser in self._browsers)))
        with contextlib.suppress(ZarabandaError):
            self.send({"type": "watch", "universes": every})

    def _run(self) -> None:
        while True:
            try:
                connection = wire.connect(self._path)
            except OSError:
                time.sleep(_RETRY_S)
                continue
            connection.settimeout(None)
            try:
                self._listen(connection)
            except (OSError, msgspec.DecodeError):
                pass
            finally:
                self._connection = None
                connection.close()
                for browser in self._browsers:
                    browser.post({"type": "engine", "connected": False})

    def _listen(self, connection: socket.socket) -> None:
        hello = wire.receive(connection)
        if hello is None:
            return
        self._engine_rig = hello["rig"]
        self._connection = connection
        self.push()
        self._watch()
        for browser in self._browsers:
            browser.post({"type": "engine", "connected": True})
        while (message := wire.receive(connection)) is not None:
            self._pass_on(message)

    def _pass_on(self, message: dict[str, Any]) -> None:
        kind = message["type"]
        if kind == "frame":
            for browser in self._browsers:
                browser.post_newest("frame", message)
        elif kind == "universe":
            for browser in self._browsers:
                if message["universe"] in browser.watching:
                    browser.post_newest(f"universe {message['universe']}", message)
        elif kind == "state":
            self.state = message
            for browser in self._browsers:
                browser.post_newest("state", message)
        elif kind == "refused" and message.get("ref"):
            number, reference = message["ref"]
            asker = self._asked.pop(number, None)
            if asker is not None:
                asker.post({"type": "refused", "ref": reference, "message": message["message"]})
