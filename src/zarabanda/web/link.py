"""The web process's end of the link to the engine: sends programs and actions, passes frames and states on."""

from __future__ import annotations

import contextlib
import secrets
import socket
import threading
import time
from collections.abc import Mapping
from pathlib import Path

import msgspec
from sqlalchemy.exc import SQLAlchemyError

from zarabanda import wire
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.rig.rig import FixtureSpec, Rig
from zarabanda.errors import ZarabandaError
from zarabanda.event_log import EventLog
from zarabanda.formats.effect_document import EffectDocument
from zarabanda.formats.pixel_document import PixelMapDocument
from zarabanda.messages import (
    Acting,
    AnyAction,
    AskPage,
    Audition,
    CanvasNow,
    Do,
    DoActions,
    EngineHello,
    EngineIs,
    Frame,
    FromEngine,
    HeldNow,
    Highlight,
    HoldSlot,
    LetGo,
    Look,
    LookAtPixels,
    PartKey,
    PixelMapPart,
    PlayerId,
    Press,
    PressFlash,
    PressPad,
    PreviewEffect,
    PreviewPixels,
    Refused,
    RoutePart,
    ShowIs,
    ShowUpdate,
    State,
    TakenNow,
    ToEngine,
    Traced,
    Trouble,
    UniverseFrame,
    WatchAll,
)
from zarabanda.show import compile as compiling
from zarabanda.show.references import Names
from zarabanda.show.store import Store, Touched
from zarabanda.show.tables import Fixture, Group, Mode, PaletteRow, RouteRow, TempoRow
from zarabanda.workers import Troubles, Worker, in_words

from .browsers import Browser, Browsers
from .compiled import Compiled
from .processes import what_is_down
from .questions import Questions

_RETRY_S = 0.1
_decoder = msgspec.msgpack.Decoder(FromEngine)
_NAMED = frozenset({PaletteRow.__tablename__, TempoRow.__tablename__})
"""Tables whose rows documents name."""
_SHOWN_WITH_RIG = frozenset({Fixture.__tablename__, Mode.__tablename__, Group.__tablename__})
NAME = "Engine link"
AWAY = "The engine is restarting; try again in a second."


class EngineLink:
    """Keeps a connection to the engine, and connects again when it is gone."""

    def __init__(self, data: Path, store: Store, troubles: Troubles, show: str = "") -> None:
        self.show = show
        """Which show of the library it is."""
        self._data, self._path = data, wire.socket_path(data, "engine")
        self._store, self.troubles = store, troubles
        self._connection: socket.socket | None = None
        self._sending, self._pushing = threading.Lock(), threading.Lock()
        self._asked: dict[int, tuple[Browser, object]] = {}
        self.questions = Questions(self.send)
        self._references = 0
        self._auditions: Browser | None = None
        self._worker = Worker(NAME, self._be_connected, troubles)
        self._events = EventLog(data, "web")
        self.let_go: list[PlayerId] = []
        self.written_back: list[PlayerId] = []
        """Keys of what shall end without a fade with the next program, since the program holds its values."""
        self.fade_s = 0.0
        """In which values set by hand go where the next update says."""
        self._compiled = Compiled()
        self._pushed_edit = -1
        """Newest edit that the engine was told; −1: it must be told everything."""
        self._names = Names({}, {}, {}, {})
        self.session = secrets.token_hex(6)
        """Who counts the revisions: each start of this process begins anew, at 0."""
        self._browsers = Browsers(self.session)
        self.revision = 0
        self.rig_edition = 0
        """Counts edits of what the rig is shown with: fixtures, modes, groups."""
        self.route_edition = 0
        """Counts edits of routes."""
        self.state: State | None = None
        self.frame: Frame | None = None
        """The newest of each."""
        with store.reading() as session:
            self._compiled.take_in(compiling.all_parts(session), [], whole=True)

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
        return self.connected and self.state is not None and self.state.session == self.session

    @property
    def fixtures(self) -> list[FixtureSpec]:
        """What the rig is made of, by number."""
        return self._compiled.fixtures

    @property
    def rig(self) -> Rig:
        """The rig."""
        return self._compiled.rig

    @property
    def routes(self) -> list[RoutePart]:
        """Which universes go where, as the engine was told."""
        return self._compiled.routes

    @property
    def lists(self) -> Mapping[int, CueList]:
        """Cue lists by number, in their order."""
        return self._compiled.lists

    @property
    def carried(self) -> set[int]:
        """Universes of the rig that a route carries which is on."""
        return {one for one in self.rig.universes if any(route.on and route.carries(one) for route in self.routes)}

    def edited(self, touched: Touched = None) -> None:
        """After an edit, which is kept by now: give it to the engine. What fails is told, and made good by connecting anew."""
        try:
            self.push(touched)
        except (SQLAlchemyError, ValueError, TypeError, KeyError) as error:
            self.troubles.tell(NAME, f"The newest edit is kept, but is not on stage yet: {in_words(error)}. It is tried again.")
            self._pushed_edit = -1
            self._hang_up()

    def show_changed(self, show: str) -> None:
        """The store has another show: the engine gets all of it, and pages begin anew."""
        self.show = show
        self.rig_edition, self.route_edition = self.rig_edition + 1, self.route_edition + 1
        self.edited(None)
        for browser in self._browsers.every:
            browser.post_newest("show", ShowIs(show))

    def push(self, touched: Touched = None) -> None:
        """Give the engine the parts of the show that an edit touched; all of them where that is not known."""
        with self._pushing:
            with self._store.reading() as session:
                newest = compiling.newest_edit(session)
                follows = newest in (self._pushed_edit, self._pushed_edit + 1)  # nobody else has edited meanwhile
                whole = touched is None or not follows
                parts, gone = (
                    (compiling.all_parts(session), list[PartKey]())
                    if touched is None or whole
                    else compiling.changed_parts(session, touched)
                )
                if whole or not _NAMED.isdisjoint(touched or ()):
                    self._names = Names.of(session)
            if touched is None or not _SHOWN_WITH_RIG.isdisjoint(touched):
                self.rig_edition += 1
            if touched is None or RouteRow.__tablename__ in touched:
                self.route_edition += 1
            self.revision, self._pushed_edit = self.revision + 1, newest
            let_go, self.let_go = self.let_go, []
            written_back, self.written_back = self.written_back, []
            fade_s, self.fade_s = self.fade_s, 0.0
            with contextlib.suppress(ZarabandaError):  # without an engine: it gets the show when it is back
                self.send(ShowUpdate(self.session, self.revision, parts, gone, whole, let_go, fade_s, written_back, self.show))
            self._compiled.take_in(parts, gone, whole=whole)  # after the engine has it: the light comes first
            if whole:
                Worker("Cue lists", self._compiled.prepare, self.troubles).start()  # so that no page waits for them

    @property
    def edition(self) -> int:
        """Of what is compiled here: another one after each edit."""
        return self._compiled.edition

    def catch_up(self, edition: int, patience_s: float) -> None:
        """Something was found to be out of step at this edition: wait for the edit that is on its way here. What does not come
        was edited by another process: then all of the show is read anew."""
        self._compiled.wait_for_another(edition, patience_s)
        if self._compiled.edition == edition:
            self.edited(None)

    def preview_effect(self, effect_id: int, document: EffectDocument, revision: int | None = None) -> None:
        """Show an effect as it is being edited. revision: of the show that the document was made from; None: the newest."""
        newest = self.revision if revision is None else revision
        self.send(PreviewEffect(effect_id, self._names.numbered(document.plain()), newest))

    def preview_pixels(self, number: int, name: str, document: PixelMapDocument) -> None:
        """Show a pixel map as it is being edited."""
        plain = self._names.numbered(document.model_dump(mode="json"))
        self.send(PreviewPixels(PixelMapPart(number, name, plain), self.revision))

    def send(self, message: ToEngine) -> None:
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

    def act(self, action: AnyAction, browser: Browser | None = None, reference: object = None) -> None:
        """A live action; a refusal goes to the browser that asked, with its reference."""
        if isinstance(action, Press | PressPad | PressFlash | Highlight | HoldSlot | DoActions | AskPage | LookAtPixels):
            action = msgspec.structs.replace(action, holder=browser.holder if browser else "")
        number = 0
        if browser is not None:
            self._references += 1
            number = self._references
            self._asked[number] = browser, reference
            while len(self._asked) > 256:
                self._asked.pop(next(iter(self._asked)))
        self.send(Do(action, number))

    # browsers

    def join(self) -> Browser:
        """A browser that frames and states are passed on to."""
        browser = self._browsers.join()
        self._events.tell(f"A page was opened; {self._browsers.in_words()}.")
        if self.state is not None:
            browser.post_newest("state", self.state)
        return browser

    def leave(self, browser: Browser) -> None:
        """It is gone: what it held and what it looked at are let go."""
        self._browsers.leave(browser)
        self._events.tell(f"A page is gone; {self._browsers.in_words()}.")
        with contextlib.suppress(ZarabandaError):
            self.end_audition(browser)
        with contextlib.suppress(ZarabandaError):
            self.send(Do(LetGo(holders=[browser.holder])))
        self._watch()

    def audition(self, browser: Browser, effect_id: int, document: EffectDocument, heads: list[str]) -> None:
        """Show an effect on stage while a browser looks at it; it ends when the browser says so, or is gone."""
        self._auditions = browser
        self.send(Audition(effect_id, self._names.numbered(document.plain()), heads))

    def end_audition(self, browser: Browser) -> None:
        """Show no more what this browser looked at, if it still does."""
        if self._auditions is browser:
            self._auditions = None
            self.send(Audition())

    def watch(self, browser: Browser, universes: set[int]) -> None:
        """Which universes a browser wants to see."""
        browser.watching = universes
        self._watch()

    def _watch(self) -> None:
        with contextlib.suppress(ZarabandaError):
            self.send(WatchAll(self._browsers.watched))

    def _tell_browsers(self, connected: bool) -> None:
        text = "" if connected else what_is_down(self._data)
        for browser in self._browsers.every:
            browser.post_newest("engine", EngineIs(connected, text))

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
            if self._connection is not None:
                self._events.tell("The engine does not answer any more.")
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
        hello = wire.receive(connection, _decoder)
        if not isinstance(hello, EngineHello):
            return
        self._connection = connection
        self.push()
        self._watch()
        present = ["", *(browser.holder for browser in self._browsers.every)]
        self.send(Do(LetGo(but=present)))
        self._tell_browsers(True)
        self._events.tell("Connected to the engine.")
        self.troubles.clear(NAME)
        while (message := wire.receive(connection, _decoder)) is not None:
            self._pass_on(message)

    def _pass_on(self, message: FromEngine) -> None:
        match message:
            case Frame():
                self.frame = message
                for browser in self._browsers.in_turn():
                    browser.post_newest("frame", message)
            case UniverseFrame(universe):
                for browser in self._browsers.every:
                    if universe in browser.watching:
                        browser.post_newest(f"universe {universe}", message)
            case State():
                troubles = [*message.health.troubles, *(Trouble(**one) for one in self.troubles.report())]
                health = msgspec.structs.replace(message.health, troubles=troubles)
                self.state = msgspec.structs.replace(message, health=health)
                for browser in self._browsers.every:
                    browser.post_newest("state", self.state)
            case Look() | Traced() | Acting() | HeldNow() | TakenNow() | CanvasNow():
                self.questions.answered(message)
            case Refused(text, ref) if ref in self._asked:
                asker, reference = self._asked.pop(ref)
                asker.post(Refused(text, reference))
