"""The frame loop: absolute deadlines without drift, one frame each, late frames counted and never queued."""

from __future__ import annotations

import gc
import threading
import traceback
from collections import deque
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.playback.frame import Effects, Levels, Stage
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.errors import ZarabandaError
from zarabanda.messages import AnyAction, PlayerId, Values
from zarabanda.outputs.base import Output
from zarabanda.workers import Troubles, in_words

from .batching import Batching, Chain
from .health import Health, Laps
from .live import pixels, recorded, stand_ins
from .live.acts import act
from .live.advance import MOVES, advance
from .live.blind import prepared
from .live.looking import over_base, running_at
from .live.on_stage import on_stage
from .live.programs import take
from .live.recording import Recording, ended
from .live.seen_ahead import seen_ahead
from .live.sending import Outward
from .live.song_actions import scrubbed_state
from .live.songs import led, with_song
from .live.specials import crossing
from .live.stages import Stages, levels_at
from .live.state import LiveState, LookedAt, OfProgram
from .live.testing import with_held
from .played_back import PlayedBack
from .program import EMPTY, Program

MIN_RATE, MAX_RATE, DEFAULT_RATE = 20.0, 44.0, 44.0
LEAD_S = 0.009
"""Songs are played so far ahead of their frames: what has a stamp comes at it on average, not half a frame and the way later."""


FRAME, SCREEN, OUTPUT, PROGRAM, OPENING = "Frame", "Screen", "Output", "Show", "Opening"
"""What can be in trouble here."""


def cannot_be_played(error: Exception) -> str:
    """What a user shall know of an edit that the engine cannot take."""
    return f"The newest edit cannot be played ({in_words(error)}). The show goes on as it was before; undo that edit."


PRECISION = np.float32
"""Of values in the loop: twice as quick as float64, and far finer than a 16-bit step."""


_FALL_BACK_AFTER = 22
"""So many frames in a row that cannot be computed, half a second of them, are the program's fault."""


@dataclass(frozen=True)
class RunningNow:
    """Something that runs in a frame, and the cell (attribute, head) that stands for it on screens."""

    key: PlayerId
    theta: float
    weight: float
    cell: tuple[int, int] | None


@dataclass(frozen=True)
class Snapshot:
    """One frame as it went out. values (A, N) are a buffer that the next frame overwrites."""

    number: int
    t: float
    values: NDArray[np.float64]
    data: NDArray[np.uint8]
    program: Program
    running: list[RunningNow]


class Loop:
    """Runs a live state at a rate. Clocks and sleep are passed in; other threads use `post` and `swap` only.

    clock: the stage's time, of all stamps; machine: by which frames are paced and measured, as a rule the same.
    """

    def __init__(
        self,
        state: LiveState,
        outputs: list[Output],
        *,
        clock: Callable[[], float],
        sleep: Callable[[float], None],
        rate: float = DEFAULT_RATE,
        troubles: Troubles | None = None,
        machine: Callable[[], float] | None = None,
    ) -> None:
        if not MIN_RATE <= rate <= MAX_RATE:
            raise ZarabandaError(f"{rate:g} Hz is no frame rate; give {MIN_RATE:g} to {MAX_RATE:g} Hz.")
        self.state, self.outputs, self.rate = state, outputs, rate
        self.health, self.troubles = Health(), troubles or Troubles()
        self.idle = threading.Event()
        """While no frame is made: what can wait gets its turn then."""
        self.batching = Batching(PRECISION, self.troubles)
        self.on_beat: Callable[[float], None] = lambda t: None
        self.on_failed: Callable[[float], None] = lambda t: None
        self.on_proven: Callable[[Program], None] = lambda program: None
        self.on_frame: Callable[[Snapshot], None] = lambda snapshot: None
        self.on_change: Callable[[], None] = lambda: None
        self.on_message: Callable[[Outward], None] = lambda message: None
        self._clock, self._machine, self._sleep = clock, machine or clock, sleep
        self._actions: deque[tuple[float, AnyAction, Callable[[str], None]]] = deque()
        self._swapped: deque[tuple[float, Program]] = deque()
        self._questions: deque[tuple[PlayerId, Callable[[Values | None], None]]] = deque()
        self._asked_for_taken: deque[tuple[int, Callable[[Recording | None], None]]] = deque()
        self._asked_of_stage: deque[tuple[Sequence[str], Callable[[Values], None]]] = deque()
        self._batches: Batches | Chain = Batches([], 0, EMPTY.rig.mixes, PRECISION)
        self._batches_are_whole = True
        self._order: list[PlayerId] = []
        self._planned: list[int] | None = None
        self._sent: tuple[Sequence[int], NDArray[np.uint8]] | None = None
        self._good: Program | None = None
        self._ahead: tuple[LiveState, NDArray[np.float64]] | None = None
        self._looked: tuple[LookedAt | None, Program, LiveState | None] | None = None
        self._crossing, self._standing = OfProgram(crossing), OfProgram(stand_ins.closing)
        self.played_back = PlayedBack(None, self.troubles)
        self._stages = Stages(self.batching.single)
        self._failed = 0
        self._stopping = False

    # for other threads

    def post(self, action: AnyAction, refuse: Callable[[str], None] = lambda text: None) -> None:
        """An action, stamped now; acts on the next frame. refuse: told why, if it cannot be done."""
        self._actions.append((self._clock(), action, refuse))

    def swap(self, program: Program) -> None:
        """A new program, stamped now; swapped in between two frames."""
        self._swapped.append((self._clock(), program))

    def ask_look(self, key: PlayerId, reply: Callable[[Values | None], None]) -> None:
        """What a frozen effect shows now, given to `reply` between two frames; None where nothing frozen has this key."""
        self._questions.append((key, reply))

    def ask_stage(self, heads: Sequence[str], reply: Callable[[Values], None]) -> None:
        """What heads have on stage in the next frame, below the levels and without what is lit to be found."""
        self._asked_of_stage.append((heads, reply))

    def ask_taken(self, timeline: int, reply: Callable[[Recording | None], None]) -> None:
        """What was recorded of a song, given to `reply` between two frames, and forgotten."""
        self._asked_for_taken.append((timeline, reply))

    @property
    def sent(self) -> tuple[Sequence[int], NDArray[np.uint8]] | None:
        """Universes and bytes (universes, 512) of the last good frame."""
        return self._sent

    def stop(self) -> None:
        """End `run` after the frame under way."""
        self._stopping = True

    def close(self) -> None:
        """End what works beside it; after `run`, or where it never ran."""
        self.batching.close()
        self.played_back.close()

    # the loop

    def run(self) -> None:
        """Frame after frame until stopped; then the outputs end their streams."""
        period = 1 / self.rate
        gc.collect()
        gc.freeze()
        gc.disable()  # collected below, in the pause of a frame, never within one
        deadline = self._machine() + period
        while not self._stopping:
            self._sleep(max(0.0, deadline - self._machine()))
            self.tick(self._clock())
            if self.health.frames % 64 == 0:
                gc.collect(1)
            now = self._machine()
            deadline += period
            if now > deadline:
                missed = int((now - deadline) / period) + 1
                self.health.missed(missed)
                deadline += missed * period
        gc.enable()
        for output in self.outputs:
            output.close()

    def tick(self, t: float) -> None:
        """One frame at t: actions, program, values, bytes, out."""
        self.idle.clear()
        try:
            self._frame(t)
        finally:
            self.idle.set()
            self.on_beat(self._machine())  # not before: the first frame after a restart may have much to catch up with

    def _frame(self, t: float) -> None:
        begun = self._machine()
        try:
            laps = Laps(self._machine, begun)
            self._take_in(t)
            laps.mark("actions")
            snapshot = self._compute(t, laps)
        except Exception as error:  # the lights go on, whatever happens: the fault is counted and shown
            self._frame_failed(error, begun)
            self.on_failed(t)
            return
        if self._good is not snapshot.program:
            self._good = snapshot.program
            self.on_proven(snapshot.program)
        self._failed = 0
        self.troubles.clear(FRAME)
        self._sent = (snapshot.program.rig.universes, snapshot.data.copy())
        self._send(begun)
        sent = laps.mark("sending")
        try:
            self.on_frame(snapshot)
            self.troubles.clear(SCREEN)
        except Exception as error:  # it is on stage already
            self.troubles.tell(SCREEN, in_words(error))
        laps.mark("screens")
        self.health.frame(begun, (sent - begun) * 1000, laps.times_ms)

    def _send(self, begun: float) -> None:
        if self._sent is None:
            return
        for output in self.outputs:
            try:
                output.send(*self._sent, begun)
            except Exception as error:  # one that fails must not keep the others
                self.troubles.tell(OUTPUT, in_words(error))

    def _frame_failed(self, error: Exception, begun: float) -> None:
        """Send the last good bytes again; where the fault stays, go back to the program that was good."""
        self.health.errors += 1
        if self.health.last_error != in_words(error):
            traceback.print_exception(error)  # its place is in the log, once for all frames that fail alike
        self.health.last_error = in_words(error)
        self._failed += 1
        self.troubles.tell(FRAME, f"{in_words(error)}. The lights stand as they were in the last good frame.")
        self._send(begun)
        if self._failed % _FALL_BACK_AFTER == 0 and self._good is not None and self._good is not self.state.program:
            self.troubles.tell(PROGRAM, cannot_be_played(error))
            self.swap(replace(self._good, let_go=(), written_back=()))

    def _take_in(self, t: float) -> None:
        before = self.state
        program, arrived = None, t
        while self._swapped:
            earlier = program
            arrived, program = self._swapped.popleft()
            if earlier is not None and (earlier.let_go or earlier.written_back):
                let_go, written_back = (*earlier.let_go, *program.let_go), (*earlier.written_back, *program.written_back)
                program = replace(program, let_go=let_go, written_back=written_back)
        if program is not None:
            self.state, wrong = take(self.state, program, arrived)
            for text in wrong:
                self.troubles.tell(OPENING, text)
        while self._actions:
            stamp, action, refuse = self._actions.popleft()
            try:
                self.state = act(self.state, action, stamp)
            except ZarabandaError as error:
                refuse(error.message)
            except Exception as error:  # the others act all the same
                refuse(f"This could not be done: {in_words(error)}.")
        self.state = recorded.advanced(advance(self.state, t), t)
        for message in self.state.outbox.messages:
            self.on_message(message)
        if self.state.outbox.messages:
            self.state = self.state.with_(outbox=replace(self.state.outbox, messages=()))
        if self.state is not before:
            self.on_change()
        while self._asked_for_taken:
            timeline, answer = self._asked_for_taken.popleft()
            answer(self._taken(timeline, t))
        while self._questions:
            key, reply = self._questions.popleft()
            reply(self._look(key, t))

    def _taken(self, timeline: int, t: float) -> Recording | None:
        song = next((one for one in self.state.songs if one.id == timeline), None)
        if song is None or song.recording is None:
            return None
        found = ended(song, t)
        self.state = with_song(self.state, replace(song, recording=None))
        self.on_change()
        return found

    def _compute(self, t: float, laps: Laps) -> Snapshot:
        seen = led(self.state, t, LEAD_S, MOVES)
        state, beneath = on_stage(seen, t), seen.beneath(t)
        program = state.program
        self._order = list(state.beneath_overlays)
        placed = [state.playing[key].placed for key in self._order]
        planned = [id(one) for one in placed]
        if planned != self._planned or not self._batches_are_whole:
            self._planned = planned
            self._batches, self._batches_are_whole = self.batching.batches_of(program.rig, placed)
        every = [state.playing[key] for key in self._order]
        running = running_at(state, every, t)
        while self._asked_of_stage:
            heads, reply = self._asked_of_stage.popleft()
            reply(self._on_stage(state, heads, running, t))
        frame, ground = self.batching.frame(program.rig)
        under: list[Stage] = [one.stage for one in pixels.stages(state, t, over=False)]
        stages: list[Stage] = [*under, Effects(self._batches, running), *(one.stage for one in self._stages.at(state, t))]
        levels = levels_at(state, t)
        specials, standing = self._crossing(self.state, self.state.specials), self._standing(self.state, self.state.stand_ins)
        values = frame.values(ground.at(self.state.claims, t, beneath), stages, levels, t, specials, standing)
        laps.mark("values")
        values, data = self.played_back.over(self.state.recorded, program.rig, values, frame.bytes(values), levels, t)
        data = with_held(state, data)
        laps.mark("bytes")
        if any(one is not None for one in (state.blind, state.looked_at, state.scrubbed, state.pixels_seen)):
            ahead = self._seen_ahead(t)
            values = values if ahead is None else ahead
            laps.mark("prepared")
        over = [key for key in state.playing if state.playing[key].instance.overlay_id]
        if over:
            every += [state.playing[key] for key in over]
            running = running_at(state, every, t)
        cells = [one.placed.first_cell for one in every]
        weights = [
            max((row[number] for number in one.instance.families), default=0.0)
            for one, row in zip(every, running.weight.tolist(), strict=True)
        ]
        now = [RunningNow(*one) for one in zip([*self._order, *over], running.theta.tolist(), weights, cells, strict=True)]
        return Snapshot(self.health.frames, t, values, data, program, now)

    def _seen_ahead(self, t: float) -> NDArray[np.float64] | None:
        """What screens show instead of the stage, (A, N), in every second frame anew: the cue that is looked at, else what was
        prepared; None: neither."""
        if self._ahead is None or self.health.frames % 2 == 0 or self._ahead[0] is not self.state:
            state = scrubbed_state(self.state, t, MOVES)
            if state is not None:
                state = on_stage(state, t)
            else:
                state = self._cue_ahead() or (prepared(on_stage(self.state, t)) if self.state.blind is not None else None)
            if self.state.pixels_seen is not None:
                state = pixels.seen(state or on_stage(self.state, t), t)
            if state is None:
                return None
            every = list(state.beneath_overlays.values())
            batches, _ = self.batching.batches_of(state.program.rig, [one.placed for one in every])
            over = [one.stage for one in pixels.stages(state, t, over=True)]
            over += [one.stage for one in Stages(self.batching.single).overlays(state, t)]
            values = over_base(state, batches, running_at(state, every, t), t, over)
            Levels(state.grand, state.blackout).apply(values, state.program.rig)
            self._ahead = (self.state, values)
        return self._ahead[1]

    def _cue_ahead(self) -> LiveState | None:
        """The state of the cue that is looked at, made once for as long as it is."""
        of = (self.state.looked_at, self.state.program)
        if self._looked is None or self._looked[0] != of[0] or self._looked[1] is not of[1]:
            self._looked = (*of, seen_ahead(self.state))
        return self._looked[2]

    def _look(self, key: PlayerId, t: float) -> Values | None:
        state = on_stage(self.state, t)
        playing, program = state.playing.get(key), state.program
        if playing is None or playing.frozen is None:
            return None
        batches = self.batching.single(program.rig, playing.placed)
        running = Running(np.array([playing.frozen]), np.array([playing.weight(t)]), [playing.layer_shifts])
        return _told(program.rig, over_base(state, batches, running, t), batches.touched)

    def _on_stage(self, state: LiveState, heads: Sequence[str], running: Running, t: float) -> Values:
        rig = state.program.rig
        chosen = np.zeros(len(rig), bool)
        chosen[[rig.heads.index[key] for key in heads if key in rig.heads.index]] = True
        over = [one.stage for one in (*pixels.stages(state, t, over=True), *self._stages.overlays(state, t))]
        return _told(rig, over_base(state, self._batches, running, t, over), np.broadcast_to(chosen, rig.heads.has.shape))


def _told(rig: Rig, values: NDArray[np.float64], wanted: NDArray[np.bool_]) -> Values:
    """Values by attribute and head, of what is wanted (A, N) and there."""
    look: Values = {}
    for row, head in np.argwhere(wanted & rig.heads.has).tolist():
        look.setdefault(attributes.ATTRIBUTES[row].name, {})[rig.heads.keys[head]] = float(values[row, head])
    return look
