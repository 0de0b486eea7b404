"""Actions on cue lists, and what falls due in them by itself (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from zarabanda.core.playback.claims import Claims, held_cells
from zarabanda.core.playback.cues import Cue, CueList, Times, families_of
from zarabanda.core.playback.going import Passage, gone_to
from zarabanda.core.playback.strips import Manner
from zarabanda.errors import ZarabandaError
from zarabanda.messages import Back, ChooseNext, Go, GoTo, ListLevel, Pause, Release, Resume

from ..program import Program
from .levels import share
from .state import INFINITY, LiveState

BEATS_IN_A_BAR = 4


@dataclass(frozen=True)
class FollowOn:
    """A cue that comes by itself: at a stamp, or at a beat of a tempo."""

    cue: int
    due: float
    beat: float | None = None
    tempo: int | None = None

    def due_at(self, state: LiveState) -> float:
        """Its stamp; infinity while nothing counts its beats."""
        if self.beat is None:
            return self.due
        tempo = state.tempos.get(self.tempo) if self.tempo is not None else None
        return tempo.time_of(self.beat) if tempo is not None else INFINITY


@dataclass(frozen=True)
class ListState:
    """Where a list is. cue: its number in the show, None: on no cue; went_at: stamp of its last go; chosen: the next cue, by hand;
    follow_on: what comes by itself; paused_at: since when its clock stands; level: of its fader."""

    cue: int | None = None
    went_at: float = 0.0
    chosen: int | None = None
    follow_on: FollowOn | None = None
    paused_at: float | None = None
    level: float = 1.0


_NOWHERE = ListState()


def list_state(state: LiveState, number: int) -> ListState:
    """Where a list is."""
    return state.lists.get(number, _NOWHERE)


def _list(state: LiveState, number: int) -> CueList:
    found = state.program.lists.get(number)
    if found is None:
        raise ZarabandaError("This cue list is not there any more. Reload the page to see what is there.", "list")
    return found


def _place(whose: CueList, cue: int) -> int:
    if cue not in whose.index:
        raise ZarabandaError(f"This cue is not in “{whose.name}” any more.", "cue")
    return whose.index[cue]


def at_place(state: LiveState, whose: CueList) -> int | None:
    """The place of the cue that a list is on; None: on none."""
    cue = list_state(state, whose.id).cue
    return whose.index.get(cue) if cue is not None else None


def following(state: LiveState, whose: CueList) -> int | None:
    """The place of the cue that the next go goes to; None: nothing more comes."""
    own = list_state(state, whose.id)
    if own.chosen is not None and own.chosen in whose.index:
        return whose.index[own.chosen]
    place = at_place(state, whose)
    if place is None:
        return 0 if whose.cues else None
    if place + 1 < len(whose.cues):
        return place + 1
    return 0 if whose.goes_round else None


# going


def go(state: LiveState, action: Go, t: float) -> LiveState:
    """The next cue; a list that is paused only goes on."""
    whose = _list(state, action.list)
    if list_state(state, whose.id).paused_at is not None:
        return resumed(state, whose, t)
    place = following(state, whose)
    return state if place is None else gone(state, whose, place, t)


def go_to(state: LiveState, action: GoTo, t: float) -> LiveState:
    """A cue by its number in the show."""
    whose = _list(state, action.list)
    return gone(state, whose, _place(whose, action.cue), t)


def back(state: LiveState, action: Back, t: float) -> LiveState:
    """The cue before; with none before it only a pause ends."""
    whose = _list(state, action.list)
    state, place = resumed(state, whose, t), at_place(state, whose)
    if place is None or place == 0:
        return state
    passage = _passage(state, Times.alike(whose.back_s), way=whose.cues[place - 1].way)
    return _moved(state, whose, place - 1, passage, t)


def gone(state: LiveState, whose: CueList, place: int, t: float) -> LiveState:
    """A list gone to a cue at t, with all that comes of it."""
    cue = whose.cues[place]
    state = resumed(state, whose, t)
    state = _moved(state, whose, place, _passage(state, cue.times, cue.ease, cue.way), t, sweeps=cue.everything_else_out)
    return _armed(state, whose, place, t)


def _passage(state: LiveState, times: Times, ease: str = "linear", way: str = "") -> Passage:
    return Passage(times, ease, way, state.program.ways, state.program.way)


def _moved(state: LiveState, whose: CueList, place: int, passage: Passage, t: float, *, sweeps: bool = False) -> LiveState:
    """With the claims of a list at a cue; a follow-on that waits is called off."""
    home = state.program.rig.home
    others = _swept(state, whose) if sweeps else []
    for other in others:
        state = resumed(state, other, t)
    claims, gone_cells = gone_to(state.claims, whose, whose.after(place), passage, t, home)
    asked = [(whose.holder, gone_cells), *((other.holder, held_cells(state.claims, other.holder, home)) for other in others)]
    claims = claims.let_go(asked, passage.releases(t), home).advanced(t)
    lists = {**state.lists}
    for other in others:
        lists[other.id] = ListState(level=list_state(state, other.id).level)
    lists[whose.id] = replace(
        list_state(state, whose.id), cue=whose.cues[place].id, went_at=t, chosen=None, follow_on=None, paused_at=None
    )
    return state.with_(claims=claims, lists=lists)


def _swept(state: LiveState, whose: CueList) -> list[CueList]:
    """Other lists that are on a cue and not protected."""
    return [
        other for other in state.program.lists.values()
        if other.id != whose.id and not other.protected and list_state(state, other.id).cue is not None
    ]  # fmt: skip


def _armed(state: LiveState, whose: CueList, place: int, t: float) -> LiveState:
    """With the follow-on of the cue at a place, if one comes by itself."""
    after = following(state, whose)
    if after is None or not whose.cues[after].trigger.follows:
        return state
    trigger, cue = whose.cues[after].trigger, whose.cues[place]
    follow_on = FollowOn(whose.cues[after].id, t + trigger.wait)
    if trigger.kind == "after":
        follow_on = replace(follow_on, due=t + cue.times.arrives(_families(cue, whose)) + trigger.wait)
    if trigger.kind in ("beat", "bar") and trigger.tempo in state.tempos:
        every = 1 if trigger.kind == "beat" else BEATS_IN_A_BAR
        beat = state.tempos[trigger.tempo].beats(t)
        follow_on = replace(follow_on, beat=(beat // every + 1) * every, tempo=trigger.tempo)
    return _with_list(state, whose, replace(list_state(state, whose.id), follow_on=follow_on))


def _families(cue: Cue, whose: CueList) -> set[str]:
    """Families in which a cue writes values or stops some."""
    count = whose.shape[1]
    if cue.states_everything:
        return families_of(whose.after(whose.index[cue.id]).written.reshape(-1).nonzero()[0], count) | families_of(cue.stops, count)
    return families_of(cue.places, count) | families_of(cue.stops, count)


# the clock of a list


def pause(state: LiveState, action: Pause, t: float) -> LiveState:
    """Hold the list's own clock."""
    whose = _list(state, action.list)
    own = list_state(state, whose.id)
    if own.paused_at is not None:
        return state
    strips = [
        replace(strip, timing=strip.timing.paused(t)) if strip.holder == whose.holder else strip for strip in state.claims.strips
    ]
    return _with_list(state, whose, replace(own, paused_at=t)).with_(claims=_of(state.claims, strips))


def resume(state: LiveState, action: Resume, t: float) -> LiveState:
    """Let the list's own clock go on."""
    return resumed(state, _list(state, action.list), t)


def resumed(state: LiveState, whose: CueList, t: float) -> LiveState:
    """With the clock of a list going, where it stood."""
    own = list_state(state, whose.id)
    if own.paused_at is None:
        return state
    follow_on, by = own.follow_on, t - own.paused_at
    if follow_on is not None:
        follow_on = replace(follow_on, due=follow_on.due + by)
    strips = [
        replace(strip, timing=strip.timing.resumed(t)) if strip.holder == whose.holder else strip for strip in state.claims.strips
    ]
    own = replace(own, paused_at=None, follow_on=follow_on)
    return _with_list(state, whose, own).with_(claims=_of(state.claims, strips))


def _of(claims: Claims, strips: list[Any]) -> Claims:
    return replace(claims, strips=tuple(strips))


# the others


def choose_next(state: LiveState, action: ChooseNext, t: float) -> LiveState:
    """Choose where the next go goes."""
    whose = _list(state, action.list)
    if action.cue is not None:
        _place(whose, action.cue)
    return _with_list(state, whose, replace(list_state(state, whose.id), chosen=action.cue))


def release(state: LiveState, action: Release, t: float) -> LiveState:
    """Let go of what a list holds."""
    whose = _list(state, action.list)
    state = resumed(state, whose, t)
    passage = _passage(state, Times.alike(action.seconds))
    claims = state.claims.let_go([(whose.holder, None)], passage.releases(t), state.program.rig.home).advanced(t)
    return _with_list(state, whose, ListState(level=list_state(state, whose.id).level)).with_(claims=claims)


def list_level(state: LiveState, action: ListLevel, t: float) -> LiveState:
    """Move the fader of a list."""
    whose, value = _list(state, action.list), share(action.value, "value")
    return with_manners(_with_list(state, whose, replace(list_state(state, whose.id), level=value)))


def with_manners(state: LiveState) -> LiveState:
    """With the claims acting as lists and their faders say."""
    claims = state.claims
    for whose in state.program.lists.values():
        manner = Manner(list_state(state, whose.id).level, whose.fader == "uncovers", whose.highest_wins)
        claims = claims.with_manner(whose.holder, manner)
    return state.with_(claims=claims)


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken."""
    return with_manners(state)


def _with_list(state: LiveState, whose: CueList, own: ListState) -> LiveState:
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
    state = _with_list(state, whose, replace(own, follow_on=None))
    if own.follow_on is None or own.follow_on.cue not in whose.index:
        return state
    return gone(state, whose, whose.index[own.follow_on.cue], t)


ACTIONS: dict[Any, Any] = {
    Go: go,
    Back: back,
    GoTo: go_to,
    ChooseNext: choose_next,
    Pause: pause,
    Resume: resume,
    Release: release,
    ListLevel: list_level,
}
