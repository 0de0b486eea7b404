"""What the engine tells whoever is connected: frames for screens, universes, and the state twice a second."""

from __future__ import annotations

from math import isfinite

from zarabanda import wire
from zarabanda.core.playback.cue_list import CueList
from zarabanda.messages import (
    CutOffTold,
    Frame,
    HeldSlot,
    ListTold,
    PageTold,
    PlayerId,
    RecordedTold,
    RunningState,
    ShownState,
    StandInTold,
    State,
    TempoState,
    Trouble,
    UniverseFrame,
)
from zarabanda.outputs.devices import Devices

from .frames import FrameWriter, universe_frame
from .line_in import LineIn
from .live.action_lists import told as actions_told
from .live.controls import level_of
from .live.cue_lists import at_step, following, list_state
from .live.looks_held import told as looks_told
from .live.on_stage import on_stage
from .live.overlays import told as overlays_told
from .live.pixels import told as pixels_told
from .live.specials import told as specials_told
from .live.state import LiveState
from .loop import Loop, Snapshot
from .recorder import Recorder
from .telling_rows import busk_told, rows_told
from .telling_songs import songs_told
from .timecode_in import TimecodeIn

_SCREEN_RATE, _UNIVERSE_RATE, _STATE_EVERY_S = 40.0, 20.0, 0.5


class Publisher:
    """Called in the loop's thread, after a frame was sent."""

    def __init__(self, loop: Loop, source: str, devices: Devices, timecode: TimecodeIn, line: LineIn, recorder: Recorder) -> None:
        self._loop, self._source, self._devices, self._timecode, self._line = loop, source, devices, timecode, line
        self._recorder = recorder
        self._writer: FrameWriter | None = None
        self._numbers: dict[PlayerId, int] = {}
        self._step: int | None = None
        self._latest: Snapshot | None = None
        self._next_screen, self._next_universe, self._next_state = 0.0, 0.0, 0.0

    def state_is_new(self) -> None:
        """Tell the state with the next frame."""
        self._next_state = 0.0

    def publish(self, snapshot: Snapshot, peers: list[wire.Peer]) -> None:
        """Tell them what is due."""
        if not peers:
            return
        if self._writer is None or self._writer.rig is not snapshot.program.rig:
            self._writer = FrameWriter(snapshot.program.rig)
        slack, self._latest = 0.25 / self._loop.rate, snapshot
        if snapshot.t >= self._next_screen - slack:
            self._next_screen = max(self._next_screen + 1 / _SCREEN_RATE, snapshot.t)
            frame = Frame(self._writer.heads(snapshot, self._numbers))
            for peer in peers:
                peer.post_newest("frame", frame)
        if snapshot.t >= self._next_universe - slack:
            self._next_universe = max(self._next_universe + 1 / _UNIVERSE_RATE, snapshot.t)
            for universe in set().union(*(peer.watching for peer in peers)):
                data = universe_frame(snapshot, universe)
                for peer in peers:
                    if data and universe in peer.watching:
                        peer.post_newest(f"universe {universe}", UniverseFrame(universe, data))
        self.publish_state(snapshot.t, peers)

    def _step_is_new(self, t: float) -> bool:
        shown = self._loop.state.shown
        before, self._step = self._step, None if shown is None else shown.step(self._loop.state, t)
        return before != self._step

    def publish_state(self, t: float, peers: list[wire.Peer]) -> None:
        """Tell the state, if it is due: also while no frame can be made."""
        if self._step_is_new(t) or t >= self._next_state:
            self._next_state = t + _STATE_EVERY_S
            message = self._state(t)
            for peer in peers:
                peer.post_newest("state", message)

    def _state(self, t: float) -> State:
        loop = self._loop
        live, program = loop.state, loop.state.program
        state = on_stage(live, t)
        for key in [*program.instances, *state.playing]:
            self._numbers.setdefault(key, len(self._numbers) + 1)
        return State(
            t=t,
            session=program.session,
            revision=program.revision,
            tempos=[_tempo(state, number, t) for number in state.tempos],
            running=[
                RunningState(
                    key, self._numbers[key], one.instance.effect_id, one.instance.name, one.instance.source, one.level,
                    one.stopping, one.frozen is not None, state.theta(one, t), one.theta_shifts(),
                    one.hand.end, one.hand_speed,
                )
                for key, one in state.playing.items()
            ],
            stopped=sorted(state.stopped),
            levels={key: level_of(state, control) for key, control in program.controls.items()},
            grand=live.grand,
            blackout=live.blackout,
            health=loop.health.report(loop.rate, [Trouble(**one) for one in loop.troubles.report()]),
            routes=[route for output in loop.outputs for route in output.report()],
            source=self._source,
            blind=state.blind is not None,
            recorder=self._recorder.told(),
            recorded=None if (own := live.recorded) is None else RecordedTold(own.name, own.position(t), own.seconds, own.loops),
            stand_ins=[StandInTold(light, by) for light, by in live.stand_ins.items()],
            held=[HeldSlot(*place, value) for place, (value, _) in state.held_slots.items()],
            shown=_shown(state, t),
            lists=[_list(state, whose) for whose in program.lists.values()],
            looked_at=None if state.looked_at is None else state.looked_at.cue,
            devices=self._devices.report(),
            cut_off=_cut_off(state),
            songs=songs_told(live, t),
            timecode=self._timecode.report(t) if program.timecode_in else None,
            line=self._line.report(t),
            scrubbed=None if live.scrubbed is None else live.scrubbed[1],
            rows=rows_told(state, self._latest, t),
            busk=busk_told(state, t) if program.rows else None,
            specials=specials_told(state, t), specials_level=state.specials.level,
            overlays=overlays_told(state, t), pixels=pixels_told(state, t),
            pixels_seen=None if live.pixels_seen is None else list(live.pixels_seen),
            looks=looks_told(state), actions=actions_told(state),
            page=None if state.page is None else PageTold(state.page.page, state.page.number, state.page.holder),
        )  # fmt: skip


def _tempo(state: LiveState, number: int, t: float) -> TempoState:
    tempo, part, follow = state.tempos[number], state.program.tempos[number], state.follows.get(number)
    main = state.program.tempos.get(follow.main) if follow is not None else None
    return TempoState(
        part.name, tempo.bpm, tempo.beats(t), tempo.rate, part.bpm, tempo.held, None if main is None else main.name,
        1.0 if follow is None else follow.ratio,
    )  # fmt: skip


def _list(state: LiveState, whose: CueList) -> ListTold:
    own, at, follow = list_state(state, whose.id), at_step(state, whose), following(state, whose)
    waits = own.follow_on
    due = None if waits is None else waits.due_at(state)
    return ListTold(
        whose.id, None if at is None else whose.cues[at.place].id, None if follow is None else whose.cues[follow.place].id,
        own.chosen is not None, own.went_at, own.went_at + (0.0 if at is None else whose.arrives_after(at.place)),
        None if waits is None else waits.cue or 0, due if due is not None and isfinite(due) else None, own.paused_at, own.level,
    )  # fmt: skip


def _cut_off(state: LiveState) -> CutOffTold | None:
    if state.cut_off is None:
        return None
    on = [(whose, at_step(state, whose)) for whose in state.program.lists.values() if not whose.protected]
    cues = [f"{whose.name}, cue {whose.cues[at.place].number:g}" for whose, at in on if at is not None]
    return CutOffTold(state.cut_off.at, cues, len(state.cut_off.standing))


def _shown(state: LiveState, t: float) -> ShownState | None:
    if state.shown is None:
        return None
    at = state.shown.step(state, t)
    return ShownState(state.shown.steps[at], at, len(state.shown.steps), state.shown.tempo is not None)
