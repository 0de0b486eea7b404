"""The engine process: loop in the main thread; the link to the web process and the journal in others."""

from __future__ import annotations

import contextlib
import os
import signal
import sys
import threading
import time
import traceback
from collections import deque
from pathlib import Path
from typing import Any

import msgspec

from zarabanda import network_settings, wire
from zarabanda.errors import ZarabandaError
from zarabanda.event_log import EventLog
from zarabanda.messages import (
    LINE,
    MTC,
    Acting,
    AnyAction,
    AskActing,
    AskCanvas,
    AskHeld,
    AskLook,
    AskStage,
    AskTaken,
    AskTrace,
    Audition,
    Chased,
    DevicePart,
    Do,
    DriveClock,
    EngineHello,
    LetGo,
    Locate,
    Look,
    LoopSong,
    PlayRecording,
    PlaySong,
    PreviewEffect,
    PreviewPixels,
    PreviewValues,
    RecordSent,
    Refused,
    RoutePart,
    Scrub,
    ShowRefused,
    ShowUpdate,
    ToEngine,
    WatchAll,
)
from zarabanda.outputs.devices import MESSAGES, Devices
from zarabanda.outputs.routes import Routes, Surroundings
from zarabanda.outputs.sender import Source
from zarabanda.outputs.sockets import Address
from zarabanda.workers import Troubles, in_words

from . import journal as journals
from .compiling import Compiler
from .drawing import drawn_now
from .folding_ahead import FoldingAhead
from .hearing import media_of
from .held_now import held_now
from .identity import SequenceNumbers, stream_identity
from .keeper import NAME as JOURNAL
from .keeper import JournalKeeper
from .line_in import LineIn
from .live.advance import MOVES
from .live.programs import order_in
from .live.sending import Outward
from .live.song_actions import prepare
from .live.state import LiveState
from .loop import PROGRAM, Loop, Snapshot, cannot_be_played
from .played_back import PlayedBack
from .program import Program
from .publisher import Publisher
from .recorder import Recorder
from .stage_clock import StageClock, may_be_driven
from .telling_songs import taken_told
from .timecode_in import TimecodeIn
from .tracing import acting, traced

_decoder = msgspec.msgpack.Decoder(ToEngine)
_BEAT_EVERY_S = 0.2
UNREADABLE, NETWORK = "Effects", "Network"


class Engine:
    """Ties loop, link and journal together."""

    def __init__(
        self, data: Path, source: Source, simulators: dict[str, Address], rate: float, troubles: Troubles, since: float = 0.0
    ) -> None:
        self.troubles = troubles
        self._events = EventLog(data, "engine")

        def settings() -> network_settings.NetworkSettings:
            return network_settings.read(data, lambda text: troubles.tell(NETWORK, text))

        sequences = SequenceNumbers(data, troubles).of
        self._routes = Routes(Surroundings(source, simulators, settings, sequences, self._events.tell), troubles)
        self.devices = Devices(simulators, settings, troubles)
        self._recorder = Recorder(data, troubles)
        self._clock = StageClock()
        self.loop = Loop(
            LiveState(), [self._routes, self._recorder], clock=self._clock, sleep=time.sleep, rate=rate, troubles=troubles,
            machine=time.monotonic,
        )  # fmt: skip
        self.loop.played_back = PlayedBack(data, troubles)
        self.loop.on_frame, self.loop.on_change = self._publish, self._changed
        self.loop.on_failed = self._failed
        self.loop.on_proven = self._proven
        self.loop.on_message = self._send
        self._line = LineIn(simulators.get(LINE), troubles, self._clock)
        self._timecode = TimecodeIn(
            simulators.get(MTC), lambda: self.loop.state.program.timelines, self._chase, troubles,
            lambda: self._publisher.state_is_new(), self._clock,
        )  # fmt: skip
        self._folding = FoldingAhead(lambda: self.loop.state, self.loop.idle, troubles)
        self._publisher = Publisher(self.loop, source.cid.hex(), self.devices, self._timecode, self._line, self._recorder)
        self._media = media_of(data)
        self._compiler = Compiler(self._media, self._line.heard)
        self._compiling = threading.Lock()
        self._kept: ShowUpdate | None = None
        self._boot = journals.boot_id()
        self._journal = journals.Journal(data / "journal")
        self._keeper = JournalKeeper(self._journal, troubles)
        self._auditions: wire.Peer | None = None
        self._unproven: deque[tuple[Program, ShowUpdate | None]] = deque(maxlen=64)
        self._journalled: ShowUpdate | None = None
        self._routed: tuple[RoutePart, ...] = ()
        self._sent_to: tuple[DevicePart, ...] = ()
        self._show = ""
        self._resume(since)
        self._server = wire.Server(wire.socket_path(data, "engine"), _decoder, self._message, self._joined, troubles, self._left)
        self._keeper.start()
        self._keep()
        self._routes.start()
        self._events.tell("The engine has started.")

    def run(self) -> None:
        """Until stopped."""
        self.loop.run()
        self._keep(ended=True)
        try:
            self._keeper.write_now()
        except OSError as error:
            self.troubles.tell(JOURNAL, in_words(error))
        self._server.close()
        self.devices.close()
        self._timecode.close()
        self._line.close()
        self._folding.close()
        self.loop.close()

    def _resume(self, since: float) -> None:
        """Go on from the journal. since: when the supervisor started, by the same clock: what is older was cut off with it."""
        program: Program | None = self._journal.read_program(self._compiled)
        entry = self._journal.read_live()
        if program is not None:
            if entry is not None:
                cut = not entry.ended and (entry.boot != self._boot or entry.now < since)
                cut_at = self._journal.cut_at(entry) if cut else None
                now, wall = self._clock(), time.time()
                self.loop.state = journals.restored(entry, program, now, wall, self._boot, cut_at=cut_at)
            self._swap(program)
            self._tell_faults(program)
        for number, text in enumerate(self._journal.told):
            self.troubles.tell(f"{JOURNAL} {number + 1}", text)

    def _compiled(self, update: ShowUpdate) -> Program:
        compiler = Compiler(self._media, self._line.heard)
        program = compiler.take(update)
        self._compiler, self._kept = compiler, update
        return program

    def _swap(self, program: Program) -> None:
        """Give the loop a program together with the batches of what will play."""
        state = self.loop.state
        playing = {key: one.instance for key, one in state.playing.items()} | program.instances
        asked = state.with_(program=program)
        playing |= {key: asked.instance(key) for key in playing if key in program.instances}
        order = [playing[key] for key in order_in(state, program) if key in playing]
        placed = [one.placed for one in order if not one.overlay_id]
        self.loop.batching.prepare(program.rig, placed)
        for one in program.maps.values():
            self.loop.batching.frame(program.rig)[0].prepare(one.wall.touched)
        self.loop.swap(program)
        if program.routes is not self._routed:
            self._routed = program.routes
            self._routes.set(program.routes)
        if program.show != self._show:
            self._show = program.show
            self._timecode.forget()
        self._timecode.set(program.timecode_in)
        self._line.set(program.line_in)
        if program.devices != self._sent_to:
            self._sent_to = program.devices
            self.devices.set(program.devices)

    # link

    def _joined(self, peer: wire.Peer) -> None:
        peer.post(EngineHello())
        self._publisher.state_is_new()

    def _left(self, peer: wire.Peer) -> None:
        if self._auditions is peer:
            self._compile(peer, Audition())
        if not self._server.peers:  # the web process is gone: it says who is still there when it is back
            self.loop.post(LetGo(but=[""]))

    def _message(self, peer: wire.Peer, message: ToEngine) -> None:
        match message:
            case Do():
                reference = message.ref
                self._prepare(message.action)
                self.loop.post(message.action, lambda text: peer.post(Refused(text, reference)))
            case RecordSent():
                self._record(message.name)
            case DriveClock():
                if may_be_driven():
                    self._clock.drive(rate=message.rate, ahead_s=message.ahead_s)
            case WatchAll():
                peer.watching = set(message.universes)
            case AskLook():
                reference = message.ref
                self.loop.ask_look(message.key, lambda look: peer.post(Look(reference, look)))
            case AskStage():
                asked = message.ref
                self.loop.ask_stage(message.heads, lambda values: peer.post(Look(asked, values)))
            case AskTaken():
                number = message.ref
                self.loop.ask_taken(message.timeline, lambda found: peer.post(taken_told(found, number)))
            case AskTrace():
                state, sent, now = self.loop.state, self.loop.sent, self._clock()
                peer.post(traced(state, sent, message.head, message.attribute, now, message.ref))
            case AskHeld():
                peer.post(held_now(self.loop.state, message.heads, self._clock(), message.ref))
            case AskCanvas():
                peer.post(drawn_now(self.loop.state, (message.map, message.picture), self._clock(), message.ref))
            case AskActing():
                peer.post(Acting(message.ref, acting(self.loop.state, message.effect_id)))
            case _:
                self._compile(peer, message)

    def _record(self, name: str) -> None:
        """Record what is sent, or end that."""
        if name:
            self._recorder.start(name)
        else:
            self._recorder.stop()
        self._publisher.state_is_new()

    def _prepare(self, action: AnyAction) -> None:
        """Fold a song to where it is to go, and open a recording, before the loop asks for it: no frame waits for that."""
        if isinstance(action, PlayRecording):
            if action.name:
                self.loop.played_back.prepare(action.name)
            return
        position = _goes_to(action)
        if position is not None:
            prepare(self.loop.state, *position, MOVES)

    def _chase(self, action: Chased) -> None:
        """Out of the thread of timecode."""
        if action.jump:
            self._prepare(action)
        self.loop.post(action)

    def _compile(self, peer: wire.Peer, message: ShowUpdate | PreviewEffect | PreviewPixels | PreviewValues | Audition) -> None:
        """Compile, then journal: what cannot be compiled is refused, and changes nothing."""
        with self._compiling:
            trial, kept = self._compiler.copy(), self._kept
            try:
                match message:
                    case ShowUpdate():
                        program = trial.take(message)
                        kept = ShowUpdate(message.session, message.revision, list(trial.parts), whole=True, show=program.show)
                    case PreviewEffect() | PreviewPixels() | PreviewValues():
                        seen = trial.preview(message)
                        if seen is None:
                            return
                        program = seen
                    case Audition():
                        program = trial.audition(message if message.document is not None else None)
                self._unproven.append((program, kept))
                self._swap(program)
            except Exception as error:  # whatever is wrong with it
                if not isinstance(error, ZarabandaError):
                    traceback.print_exc()  # a fault of ours: its place is in the log
                text = cannot_be_played(error)
                self.troubles.tell(PROGRAM, text)
                peer.post(ShowRefused(text))
                return
            self._compiler, self._kept = trial, kept
            self.troubles.clear(PROGRAM)
            self._tell_faults(program)
            if isinstance(message, Audition):
                self._auditions = peer if message.document is not None else None

    def _tell_faults(self, program: Program) -> None:
        faults = [*program.faults, *(text for one in program.maps.values() for text in one.stack.faults)]
        faults += [text for one in program.pictures.values() for text in one.faults]
        if faults:
            self.troubles.tell(UNREADABLE, " ".join(faults[:5]))
        else:
            self.troubles.clear(UNREADABLE)

    # out of the loop's thread, before the frame

    def _send(self, message: Outward) -> None:
        if message.text:
            self._events.tell(message.text)
            self.troubles.tell(MESSAGES, message.text)
        else:
            self.devices.send(message.device, message.content)

    # out of the loop's thread, after the frame was sent

    def _publish(self, snapshot: Snapshot) -> None:
        self._publisher.publish(snapshot, self._server.peers)

    def _failed(self, t: float) -> None:
        with contextlib.suppress(Exception):  # what is wrong was told; the loop must turn
            self._publisher.publish_state(t, self._server.peers)

    def _changed(self) -> None:
        self._folding.wake()
        self._publisher.state_is_new()
        self._keep()

    def _keep(self, *, ended: bool = False) -> None:
        self._keeper.keep_live(journals.entry_of(self.loop.state, self._clock(), time.time(), self._boot, ended=ended))

    def _proven(self, program: Program) -> None:
        """A frame was made of it: now it may be what a restarted engine begins with."""
        while any(one is program for one, _ in self._unproven):
            _, kept = self._unproven.popleft()
            if kept is not self._journalled and kept is not None:
                self._journalled = kept
                self._keeper.keep_program(kept)


def _goes_to(action: AnyAction) -> tuple[int, float] | None:
    """The song and the position that an action goes to; None: to none."""
    match action:
        case Locate() | Scrub() | Chased() if action.position is not None:
            return action.timeline, action.position
        case LoopSong() if action.end is not None:
            return action.timeline, action.begin
        case PlaySong():
            return action.timeline, 0.0
    return None


ORDINARY = "ZARABANDA_ORDINARY_PRIORITY"
"""In the environment: the engine takes turns with everything else on this machine. Where much else is at work, as in tests."""


def _go_first() -> None:
    """Light before everything else on this machine, where the system allows it (Linux, with the right to)."""
    if os.environ.get(ORDINARY):
        return
    with contextlib.suppress(OSError, AttributeError):
        os.sched_setscheduler(0, os.SCHED_RR | os.SCHED_RESET_ON_FORK, os.sched_param(1))


def _heartbeat(handle: int) -> Any:
    """Tells the supervisor that the loop turns; it takes one that stands still for hung."""
    os.set_blocking(handle, False)
    last = [float("-inf")]

    def beat(t: float) -> None:
        if t - last[0] >= _BEAT_EVERY_S:
            last[0] = t
            with contextlib.suppress(OSError):
                os.write(handle, b".")

    return beat


def main(
    data: Path, simulators: dict[str, Address], source_name: str, priority: int | None, rate: float, heartbeat: int,
    since: float = 0.0,
) -> None:  # fmt: skip
    """Run the engine until SIGTERM, SIGINT or the end of standard input."""
    sys.setswitchinterval(0.0005)  # the loop's thread gets its turn soon
    troubles = Troubles()
    source = Source(source_name, stream_identity(data, troubles), priority)
    engine = Engine(data, source, simulators, rate, troubles, since)
    if heartbeat >= 0:
        engine.loop.on_beat = _heartbeat(heartbeat)
    for sign in (signal.SIGTERM, signal.SIGINT):
        signal.signal(sign, lambda number, frame: engine.loop.stop())

    def end_with_parent() -> None:
        sys.stdin.read()  # closes when the supervisor is gone, however it went
        engine.loop.stop()

    threading.Thread(target=end_with_parent, daemon=True, name="parent").start()
    _go_first()
    engine.run()
