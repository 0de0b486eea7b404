"""Actions on tempos."""

from __future__ import annotations

from dataclasses import replace

from zarabanda.errors import ZarabandaError, shown

from .running import Action
from .state import LiveState
from .tempo import MAX_BPM, MIN_BPM, Tempo


def _tempo(state: LiveState, action: Action) -> tuple[str, Tempo]:
    name = str(action.get("tempo"))
    if name not in state.tempos:
        raise ZarabandaError(f"There is no tempo {shown(name)}; use one of {', '.join(state.tempos)}.", "tempo")
    return name, state.tempos[name]


def tap(state: LiveState, action: Action, t: float) -> LiveState:
    """Tap a tempo."""
    name, tempo = _tempo(state, action)
    return state.with_(tempos={**state.tempos, name: tempo.tapped(t)})


def bpm(state: LiveState, action: Action, t: float) -> LiveState:
    """Set a tempo by a number."""
    name, tempo = _tempo(state, action)
    value = action.get("value")
    if isinstance(value, bool) or not isinstance(value, int | float) or not MIN_BPM <= value <= MAX_BPM:
        raise ZarabandaError(f"{shown(value)} is no tempo; give 10 to 400 BPM.", "value")
    return state.with_(tempos={**state.tempos, name: tempo.with_bpm(float(value), t)})


def line_up(state: LiveState, action: Action, t: float) -> LiveState:
    """Put all effects of a tempo on its beats."""
    name, tempo = _tempo(state, action)
    for key, playing in state.playing.items():
        speed = playing.instance.effect.speed
        if speed.kind == "tempo" and speed.tempo == name:
            lined = state.going_on_from(playing, speed.cycles_per_beat * tempo.beats(t), t)
            state = state.with_playing(key, replace(lined, layer_shifts=()))
    return state


ACTIONS = {"tap": tap, "bpm": bpm, "line-up": line_up}
