"""Actions on cue lists, and what falls due in them by itself (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace
from typing import Any

from zarabanda.core.playback.claims import held_cells
from zarabanda.core.playback.cue_list import CueList, Step
from zarabanda.core.playback.cues import Times
from zarabanda.core.playback.going import Passage, gone_to
from zarabanda.core.playback.shares import INFINITY
from zarabanda.core.playback.strips import Manner
from zarabanda.core.playback.tracking import Tracked
from zarabanda.errors import ZarabandaError
from zarabanda.messages import Back, ChooseNext, Go, GoTo, ListLevel, Pause, PlayerId, Release, ReleaseAll, Resume

from . import cue_effects, cue_pixels, sending
from .levels import share
from .sending import Waiting
from .state import LiveState
from .sweeping import Sweep, swept
from .tempo import BEATS_IN_A_BAR


@dataclass(frozen=True)
class FollowOn:
    """What comes by itself, at a stamp or at a beat of a tempo: a cue, by its number in the show; None: the list releases
    itself."""

    cue: int | None
    due: float
    beat: float | None = None
    tempo: int | None = None

    def due_at(self, state: LiveState) -> float:
        """Its stamp; infinity while nothing counts its beats."""
        if self.beat is None:
            return self.due
        tempo = state.counter(self.tempo)
        return tempo.time_of(self.beat) if tempo is not None else INFINITY


@dataclass(frozen=True)
class ListState:
    """Where a list is. cue: its number in the show, None: on none; went_at: stamp of its last go; chosen: the next cue, by hand;
    follow_on: what comes by itself; paused_at: since when its clock stands; level: of its fader; rounds, backwards: of a list
    that goes round, see `cue_list.Step`; waiting: messages of its cues."""

    cue: int | None = None
    went_at: float = 0.0
    chosen: int | None = None
    follow_on: FollowOn | None = None
    paused_at: float | None = None
    level: float = 1.0
    rounds: int = 0
    backwards: bool = False
    waiting: tuple[Waiting, ...] = ()


_NOWHERE = ListState()


def list_state(state: LiveState, number: int) -> ListState:
    """Where a list is."""
    return state.lists.get(number, _NOWHERE)


def list_of(state: LiveState, number: int) -> CueList:
    """A list by its number, or a clear refusal."""
    found = state.program.lists.get(number)
    if found is None:
        raise ZarabandaError("This cue list is not there any more. Reload the page to see what is there.", "list")
    return found


def place_of(whose: CueList, cue: int) -> int:
    """Where a cue is in its list, or a clear refusal."""
    if cue not in whose.index:
        raise ZarabandaError(f"This cue is not in “{whose.name}” any more.", "cue")
    return whose.index[cue]


def at_step(state: LiveState, whose: CueList) -> Step | None:
    """Where a list is; None: on no cue."""
    own = list_state(state, whose.id)
    place = whose.index.get(own.cue) if own.cue is not None else None
    return None if place is None else Step(place, own.rounds, own.backwards)


def following(state: LiveState, whose: CueList) -> Step | None:
    """Where the next go goes; None: nothing more comes."""
    own, at = list_state(state, whose.id), at_step(state, whose)
    if own.chosen is not None and own.chosen in whose.index:
        return Step(whose.index[own.chosen], own.rounds, own.backwards)
    return whose.next(at)


# going


def go(state: LiveState, action: Go, t: float) -> LiveState:
    """The next cue; a list that is paused only goes on."""
    whose = list_of(state, action.list)
    if list_state(state, whose.id).paused_at is not None:
        return resumed(state, whose, t)
    step = following(state, whose)
    return state if step is None else gone(state, whose, step, t)


def go_to(state: LiveState, action: GoTo, t: float) -> LiveState:
    """A cue by its number in the show."""
    whose = list_of(state, action.list)
    return gone(state, whose, Step(place_of(whose, action.cue)), t)


def back(state: LiveState, action: Back, t: float) -> LiveState:
    """The cue before; with none before it only a pause ends."""
    whose = list_of(state, action.list)
    state, at = resumed(state, whose, t), at_step(state, whose)
    if at is None or at.place == 0:
        return state
    own = list_state(state, whose.id)
    state = with_list(state, whose, replace(own, waiting=sending.called_off(state, own)))
    return _quietly(state, whose, Step(at.place - 1, at.rounds), whose.back_s, t)


def _quietly(state: LiveState, whose: CueList, step: Step, seconds: float, t: float) -> LiveState:
    """A list at a cue after a time, with nothing sent, swept or armed."""
    passage = passage_of(state, Times.alike(seconds), way=whose.cues[step.place].way)
    return moved(state, whose, step, whose.after(step.place), passage, t)


def glided(state: LiveState, whose: CueList, to: ListState, seconds: float, t: float) -> LiveState:
    """With a list where it is in another state, after a time."""
    if to.cue not in whose.index:
        return state
    state = _quietly(resumed(state, whose, t), whose, Step(whose.index[to.cue], to.rounds, to.backwards), seconds, t)
    return with_list(state, whose, replace(to, went_at=t, level=list_state(state, whose.id).level))


def gone(state: LiveState, whose: CueList, step: Step, t: float) -> LiveState:
    """A list gone to a cue at t, with all that comes of it."""
    cue = whose.cues[step.place]
    state = resumed(state, whose, t)
    passage, to = passage_of(state, cue.times, cue.ease, cue.way), whose.after(step.place)
    state = moved(state, whose, step, to, passage, t, sweeps=cue.everything_else_out)
    if cue.takes_over:
        state = cue_effects.taken_over(state, whose, to, passage, t)
    state = with_list(state, whose, sending.armed(state, list_state(state, whose.id), cue.id, t))
    return _armed(state, whose, step, t)


def passage_of(state: LiveState, times: Times, ease: str = "linear", way: str = "") -> Passage:
    """How values go, by the ways of the show where a cue has none."""
    return Passage(times, ease, way, state.program.ways, state.program.way)


def moved(
    state: LiveState, whose: CueList, step: Step, to: Tracked, passage: Passage, t: float, *, sweeps: bool = False
) -> LiveState:
    """With the claims and effects of a list at a cue; a follow-on that waits is called off. to: what holds after the cue."""
    home = state.program.rig.home
    others = _swept(state, whose) if sweeps else []
    for other in others:
        state = resumed(state, other, t)
    stamps = sorted(one.went_at for number, one in state.lists.items() if number != whose.id)
    before = state.claims.settled(whose.holder, t, stamps)
    claims, gone_cells = gone_to(before, whose, to, passage, t, home)
    asked = [(whose.holder, gone_cells), *((other.holder, held_cells(state.claims, other.holder, home)) for other in others)]
    claims = claims.let_go([one for one in asked if len(one[1])], passage.releases(t), home).advanced(t)
    lists = {**state.lists}
    for other in others:
        lists[other.id] = _left(state, other)
    own = list_state(state, whose.id)
    lists[whose.id] = ListState(
        whose.cues[step.place].id, t, level=own.level, rounds=step.rounds, backwards=step.backwards, waiting=own.waiting
    )
    state = state.with_(claims=claims, lists=lists, looked_at=None)
    if sweeps:
        state = _without_effects_of_others(state, others, passage, t)
        state = swept(state, passage.releases(t), t).with_(swept=Sweep(t, passage))
    state = cue_pixels.gone_to(state, whose, step.place, passage, t)
    return cue_effects.gone_to(state, whose, step.place, passage, t)


def everything_out(state: LiveState, passage: Passage, t: float, but: Collection[str] = ()) -> LiveState:
    """With everything out that is not protected, as a song asks for it. but: what hands hold, see `hands.object_of`."""
    others = [one for one in on_cues(state) if not one.protected and f"list:{one.id}" not in but]
    for other in others:
        state = resumed(state, other, t)
    claims = state.claims.let_go([(one.holder, None) for one in others], passage.releases(t), state.program.rig.home)
    lists = {**state.lists, **{one.id: _left(state, one) for one in others}}
    state = _without_effects_of_others(state.with_(claims=claims.advanced(t), lists=lists), others, passage, t, but)
    return swept(state, passage.releases(t), t, but)


def on_cues(state: LiveState) -> list[CueList]:
    """Lists that are on a cue."""
    return [one for one in state.program.lists.values() if list_state(state, one.id).cue is not None]


def _left(state: LiveState, whose: CueList) -> ListState:
    """A list that is on no cue any more: its level stays, and what it has begun to send is ended."""
    own = list_state(state, whose.id)
    return ListState(level=own.level, waiting=sending.called_off(state, own))


def _without_effects_of_others(
    state: LiveState, others: list[CueList], passage: Passage, t: float, but: Collection[str] = ()
) -> LiveState:
    """With effects of lists that were swept out and of controls on their way out; the draft stays."""
    gone_lists, of_controls = {other.id for other in others}, {key for key in _of_controls(state) if key not in but}
    keys = [key for key, one in state.playing.items() if one.instance.list_id in gone_lists or key in of_controls]
    return cue_effects.faded_out(state, keys, passage, t).with_controls_down(of_controls & set(keys))


def _of_controls(state: LiveState) -> set[PlayerId]:
    """Keys of what plays the effects that controls drive."""
    return {player for control in state.program.controls.values() if control.plays_effect for player in control.players}


def _swept(state: LiveState, whose: CueList) -> list[CueList]:
    """Other lists that are on a cue and not protected."""
    return [other for other in on_cues(state) if other.id != whose.id and not other.protected]


def _armed(state: LiveState, whose: CueList, step: Step, t: float) -> LiveState:
    """With what comes by itself after the cue at a place: another cue, or the end of the list."""
    after = whose.next(step)
    own = list_state(state, whose.id)
    if after is None:
        if whose.ends_in_s is None:
            return state
        return with_list(state, whose, replace(own, follow_on=FollowOn(None, t + whose.arrives_after(step.place))))
    if whose.round is not None and whose.round.by != "hand":
        follow_on = _after_beats(state, whose.cues[after.place].id, whose.round.tempo, whose.round.every, t)
        if whose.round.by == "time":
            follow_on = FollowOn(whose.cues[after.place].id, t + whose.round.every)
        return with_list(state, whose, replace(own, follow_on=follow_on))
    trigger = whose.cues[after.place].trigger
    if not trigger.follows or (whose.never_rests and after.place <= step.place):
        return state
    follow_on = FollowOn(whose.cues[after.place].id, t + trigger.wait)
    if trigger.kind == "after":
        follow_on = replace(follow_on, due=t + whose.arrives_after(step.place) + trigger.wait)
    elif trigger.kind in ("beat", "bar"):
        every = 1 if trigger.kind == "beat" else BEATS_IN_A_BAR
        follow_on = _after_beats(state, whose.cues[after.place].id, trigger.tempo, 0.0, t, whole=every)
    return with_list(state, whose, replace(own, follow_on=follow_on))


def _after_beats(state: LiveState, cue: int, tempo: int | None, beats: float, t: float, *, whole: int = 0) -> FollowOn:
    """A cue so many beats on, or on the next whole one; where the tempo is gone, of the first one."""
    counted = state.beats_from(tempo)
    if counted is None:
        return FollowOn(cue, t + beats * 0.5)
    number, now = counted[0], counted[1].beats(t)
    return FollowOn(cue, t, now + beats if not whole else (now // whole + 1) * whole, number)


# the clock of a list


def pause(state: LiveState, action: Pause, t: float) -> LiveState:
    """Hold the list's own clock."""
    whose = list_of(state, action.list)
    own = list_state(state, whose.id)
    if own.paused_at is not None:
        return state
    state = cue_effects.with_clock(state, whose, lambda fade: fade.paused(t))
    claims = state.claims.with_clock(whose.holder, lambda timing: timing.paused(t))
    return with_list(state, whose, replace(own, paused_at=t)).with_(claims=claims)


def resume(state: LiveState, action: Resume, t: float) -> LiveState:
    """Let the list's own clock go on."""
    return resumed(state, list_of(state, action.list), t)


def resumed(state: LiveState, whose: CueList, t: float) -> LiveState:
    """With the clock of a list going, where it stood."""
    own = list_state(state, whose.id)
    if own.paused_at is None:
        return state
    follow_on, by = own.follow_on, t - own.paused_at
    if follow_on is not None:
        follow_on = _moved_on(state, replace(follow_on, due=follow_on.due + by), t)
    waiting = tuple(one if sending.ends_something(state, one) else replace(one, due=one.due + by) for one in own.waiting)
    state = cue_effects.with_clock(state, whose, lambda fade: fade.resumed(t))
    claims = state.claims.with_clock(whose.holder, lambda timing: timing.resumed(t))
    return with_list(state, whose, replace(own, paused_at=None, follow_on=follow_on, waiting=waiting)).with_(claims=claims)


def _moved_on(state: LiveState, follow_on: FollowOn, t: float) -> FollowOn:
    """On the next beat of its grid, where its own has passed meanwhile."""
    tempo = state.counter(follow_on.tempo)
    if follow_on.beat is None or tempo is None:
        return follow_on
    missed = tempo.beats(t) - follow_on.beat
    return follow_on if missed < 0 else replace(follow_on, beat=follow_on.beat + missed // 1 + 1)


# the others


def choose_next(state: LiveState, action: ChooseNext, t: float) -> LiveState:
    """Choose where the next go goes."""
    whose = list_of(state, action.list)
    if action.cue is not None:
        place_of(whose, action.cue)
    return with_list(state, whose, replace(list_state(state, whose.id), chosen=action.cue))


def release(state: LiveState, action: Release, t: float) -> LiveState:
    """Let go of what a list holds."""
    return released(state, list_of(state, action.list), action.seconds, t)


def released(state: LiveState, whose: CueList, seconds: float, t: float) -> LiveState:
    """With a list holding nothing any more, after a time."""
    state = resumed(state, whose, t)
    passage = passage_of(state, Times.alike(seconds))
    claims = state.claims.let_go([(whose.holder, None)], passage.releases(t), state.program.rig.home).advanced(t)
    state = cue_effects.faded_out(state, [key for key, _ in cue_effects.of_list(state, whose)], passage, t)
    state = cue_pixels.released(state, whose, passage, t)
    stopped = {key for key in state.stopped if key.startswith(f"list:{whose.id}:")}
    state = state.with_(stopped=state.stopped - stopped)
    return with_list(state, whose, _left(state, whose)).with_(claims=claims)


def release_all(state: LiveState, action: ReleaseAll, t: float) -> LiveState:
    """Let go of all that is not protected: lists, rows, overlays, looks and effects of controls. The draft stays."""
    for whose in on_cues(state):
        if not whose.protected:
            state = release(state, Release(whose.id, action.seconds), t)
    of_controls = _of_controls(state) & set(state.playing)
    passage = passage_of(state, Times.alike(action.seconds))
    state = swept(state, passage.releases(t), t)
    return cue_effects.faded_out(state, sorted(of_controls), passage, t).with_controls_down(of_controls)


def list_level(state: LiveState, action: ListLevel, t: float) -> LiveState:
    """Move the fader of a list."""
    whose, value = list_of(state, action.list), share(action.value, "value")
    return with_manners(with_list(state, whose, replace(list_state(state, whose.id), level=value)))


def with_manners(state: LiveState) -> LiveState:
    """With the claims acting as lists and their faders say."""
    claims = state.claims
    for whose in state.program.lists.values():
        manner = Manner(list_state(state, whose.id).level, whose.fader == "uncovers", whose.highest_wins)
        claims = claims.with_manner(whose.holder, manner)
    return state.with_(claims=claims)


def with_list(state: LiveState, whose: CueList, own: ListState) -> LiveState:
    """With a list elsewhere."""
    return state.with_(lists={**state.lists, whose.id: own})


def due(state: LiveState) -> list[tuple[float, int, int]]:
    """Follow-ons that wait: stamp, order in the show, and list."""
    found = []
    for number, own in state.lists.items():
        whose = state.program.lists.get(number)
        if own.follow_on is not None and own.paused_at is None and whose is not None:
            found.append((own.follow_on.due_at(state), whose.position, number))
    return found


def follow(state: LiveState, number: int, t: float) -> LiveState:
    """A list gone on by itself, at the stamp that was due."""
    whose, own = state.program.lists[number], state.lists[number]
    state = with_list(state, whose, replace(own, follow_on=None))
    if own.follow_on is None:
        return state
    if own.follow_on.cue is None:
        return release(state, Release(number, whose.ends_in_s or 0.0), t)
    if own.follow_on.cue not in whose.index:
        return state
    step, place = whose.next(at_step(state, whose)), whose.index[own.follow_on.cue]
    return gone(state, whose, step if step is not None and step.place == place else Step(place), t)


ACTIONS: dict[Any, Any] = {
    Go: go,
    Back: back,
    GoTo: go_to,
    ChooseNext: choose_next,
    Pause: pause,
    Resume: resume,
    Release: release,
    ReleaseAll: release_all,
    ListLevel: list_level,
}
