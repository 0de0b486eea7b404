"""Actions on tempos."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import Bpm, LineUp, Tap

from .state import LiveState
from .tempo import MAX_BPM, MIN_BPM, Tempo


def tempo_named(state: LiveState, name: str) -> tuple[int, Tempo]:
    """Number and tempo by its name, or a clear refusal."""
    parts = state.program.tempos
    number = next((part.id for part in parts.values() if part.name == name and part.id in state.tempos), None)
    if number is None:
        there = ", ".join(part.name for part in parts.values())
        raise ZarabandaError(f"There is no tempo {shown(name)}; use one of {there}.", "tempo")
    return number, state.tempos[number]


def tap(state: LiveState, action: Tap, t: float) -> LiveState:
    """Tap a tempo."""
    number, tempo = tempo_named(state, action.tempo)
    return state.with_(tempos={**state.tempos, number: tempo.tapped(t)})


def bpm(state: LiveState, action: Bpm, t: float) -> LiveState:
    """Set a tempo by a number."""
    number, tempo = tempo_named(state, action.tempo)
    if not MIN_BPM <= action.value <= MAX_BPM:
        raise ZarabandaError(f"{shown(action.value)} is no tempo; give 10 to 400 BPM.", "value")
    return state.with_(tempos={**state.tempos, number: tempo.with_bpm(action.value, t)})


def line_up(state: LiveState, action: LineUp, t: float) -> LiveState:
    """Put all effects of a tempo on its beats."""
    number, tempo = tempo_named(state, action.tempo)
    for key, playing in state.playing.items():
        speed = playing.instance.effect.speed
        if speed.kind == "tempo" and speed.tempo == number:
            lined = state.going_on_from(playing, speed.cycles_per_beat * tempo.beats(t), t)
            state = state.with_playing(key, replace(lined, layer_shifts=()))
    return state


ACTIONS: dict[Any, Any] = {Tap: tap, Bpm: bpm, LineUp: line_up}
