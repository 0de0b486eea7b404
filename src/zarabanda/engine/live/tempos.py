"""Actions on tempos."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import Bpm, FollowTempo, HoldTempo, LineUp, Tap, TemposBack, TempoTimes

from .state import LiveState
from .tempo import MAX_BPM, MIN_BPM, Tempo


@dataclass(frozen=True)
class Follow:
    """That a tempo follows another: its beats are ratio · beats of the main + shift, a whole number, so that they are in line."""

    main: int
    ratio: float
    shift: float

    def of(self, main: Tempo) -> Tempo:
        """What it comes to."""
        return main.scaled(self.ratio, self.shift)


def tempo_named(state: LiveState, name: str) -> tuple[int, Tempo]:
    """Number and tempo by its name, or a clear refusal."""
    parts = state.program.tempos
    number = next((part.id for part in parts.values() if part.name == name and part.id in state.tempos), None)
    if number is None and state.grid is not None:
        raise ZarabandaError(f"The beat grid of the song drives {shown(name)}.", "tempo")
    if number is None:
        there = ", ".join(part.name for part in parts.values())
        raise ZarabandaError(f"There is no tempo {shown(name)}; use one of {there}.", "tempo")
    return number, state.tempos[number]


def with_tempo(state: LiveState, number: int, tempo: Tempo, t: float) -> LiveState:
    """With another tempo by its number, and all that follow it."""
    before = state.tempos.get(number)
    changed = {number: tempo}
    for follower, follow in state.follows.items():
        own = state.tempos.get(follower)
        if follow.main == number and own is not None:
            to = follow.of(tempo)
            in_line = before is not None and abs(own.beats(t) - follow.of(before).beats(t)) < 1e-9
            changed[follower] = to if in_line else own.joining(to, t)
    return state.with_(tempos={**state.tempos, **changed})


def following(state: LiveState, number: int, main: int, ratio: float, t: float) -> LiveState:
    """With a tempo following another, caught up over its next beat."""
    own, of = state.tempos[number], state.tempos[main]
    follow = Follow(main, ratio, float(round(own.beats(t) - ratio * of.beats(t))))
    joining = own.going_on(t).joining(follow.of(of), t)
    return state.with_(tempos={**state.tempos, number: joining}, follows={**state.follows, number: follow})


def _alone(state: LiveState, number: int) -> LiveState:
    """With a tempo on its own: a hand has it."""
    return state.with_(follows={one: follow for one, follow in state.follows.items() if one != number})


def tap(state: LiveState, action: Tap, t: float) -> LiveState:
    """Tap a tempo: it goes on where it stood, and follows no other any more."""
    number, tempo = tempo_named(state, action.tempo)
    return with_tempo(_alone(state, number), number, tempo.going_on(t).tapped(t), t)


def _in_range(name: str, bpm: float, place: str) -> float:
    if not MIN_BPM <= bpm <= MAX_BPM:
        raise ZarabandaError(f"{shown(round(bpm, 3))} BPM is no tempo for {name}; give {MIN_BPM:g} to {MAX_BPM:g} BPM.", place)
    return bpm


def bpm(state: LiveState, action: Bpm, t: float) -> LiveState:
    """Set a tempo by a number."""
    number, tempo = tempo_named(state, action.tempo)
    value = _in_range(action.tempo, action.value, "value")
    return with_tempo(_alone(state, number), number, _with_bpm(tempo, value, t), t)


def _with_bpm(tempo: Tempo, bpm: float, t: float) -> Tempo:
    """One that stands goes on standing."""
    changed = tempo.going_on(t).with_bpm(bpm, t)
    return changed.held_at(t) if tempo.held else changed


def times(state: LiveState, action: TempoTimes, t: float) -> LiveState:
    """Half, double and the like; of one that follows, its ratio."""
    number, tempo = tempo_named(state, action.tempo)
    value = _in_range(action.tempo, tempo.bpm * action.factor, "factor")
    follow = state.follows.get(number)
    if follow is not None:
        return following(state, number, follow.main, follow.ratio * action.factor, t)
    return with_tempo(state, number, _with_bpm(tempo, value, t), t)


def hold(state: LiveState, action: HoldTempo, t: float) -> LiveState:
    """Let a tempo stand, or go on; one that follows is on its own then."""
    number, tempo = tempo_named(state, action.tempo)
    return with_tempo(_alone(state, number), number, tempo.held_at(t) if action.on else tempo.going_on(t), t)


def follow(state: LiveState, action: FollowTempo, t: float) -> LiveState:
    """Let a tempo follow another."""
    number, _ = tempo_named(state, action.tempo)
    if action.main is None:
        return _alone(state, number)
    main, of = tempo_named(state, action.main)
    if main == number or main in state.follows or any(one.main == number for one in state.follows.values()):
        raise ZarabandaError(
            f"{action.tempo} cannot follow {action.main}: a tempo that is followed follows no other. Choose another.", "main"
        )
    _in_range(action.tempo, of.bpm * action.ratio, "ratio")
    return following(state, number, main, action.ratio, t)


def back(state: LiveState, action: TemposBack, t: float) -> LiveState:
    """Tempos as the show keeps them: on their own, and going."""
    chosen = [tempo_named(state, action.tempo)[0]] if action.tempo is not None else list(state.tempos)
    for number in chosen:
        state = _alone(state, number)
    for number in chosen:
        part = state.program.tempos.get(number)
        if part is not None:
            state = with_tempo(state, number, state.tempos[number].going_on(t).with_bpm(part.bpm, t), t)
    return state


def line_up(state: LiveState, action: LineUp, t: float) -> LiveState:
    """Put all effects of a tempo on its beats."""
    number, tempo = tempo_named(state, action.tempo)
    for key, playing in state.playing.items():
        speed = playing.instance.effect.speed
        if speed.kind == "tempo" and speed.tempo == number:
            lined = state.going_on_from(playing, speed.cycles_per_beat * tempo.beats(t), t)
            state = state.with_playing(key, replace(lined, layer_shifts=()))
    return state


ACTIONS: dict[Any, Any] = {
    Tap: tap, Bpm: bpm, TempoTimes: times, HoldTempo: hold, FollowTempo: follow, LineUp: line_up, TemposBack: back,
}  # fmt: skip
