"""Actions on what plays: start, stop, freeze."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from zarabanda.errors import ZarabandaError

from .state import DEFAULT_RELEASE_S, LiveState, Playing

Action = dict[str, Any]


def start(state: LiveState, key: str, t: float, level: float = 1.0) -> LiveState:
    """Let an instance play; what plays already takes the level, what was fading out starts anew, as the youngest."""
    instance, playing = state.program.instances[key], state.playing.get(key)
    if playing is not None and not playing.stopping:
        return state.with_playing(key, replace(playing, level=level))
    beat = state.beats(instance.effect.speed.tempo, t)
    return state.without([key]).with_playing(key, Playing(instance, t, beat, level))


def fade_out(state: LiveState, key: str, t: float, seconds: float) -> LiveState:
    """Let something end in a time."""
    playing = state.playing.get(key)
    if playing is None or playing.stopping:
        return state
    return state.with_playing(key, playing.fading(0.0, seconds, t))


def _playing(state: LiveState, action: Action) -> tuple[str, Playing]:
    key = str(action.get("key"))
    playing = state.playing.get(key)
    if playing is None:
        raise ZarabandaError("This does not run any more.", "key")
    return key, playing


def stop(state: LiveState, action: Action, t: float) -> LiveState:
    """Bring one thing back to base."""
    key, playing = _playing(state, action)
    state = fade_out(state, key, t, DEFAULT_RELEASE_S).with_level(key, 0.0)
    return state.with_(stopped=state.stopped | {key}) if playing.instance.always else state


def stop_all(state: LiveState, action: Action, t: float) -> LiveState:
    """Bring everything back to base."""
    for key in state.playing:
        state = stop(state, {"key": key}, t)
    return state


def run(state: LiveState, action: Action, t: float) -> LiveState:
    """Let something play again that was stopped."""
    key = str(action.get("key"))
    if key not in state.program.instances:
        raise ZarabandaError("This effect is not there any more.", "key")
    return start(state.with_(stopped=state.stopped - {key}), key, t)


def freeze(state: LiveState, action: Action, t: float) -> LiveState:
    """Hold θ where it is, or let it go on from there."""
    key, playing = _playing(state, action)
    if bool(action.get("on", True)):
        return state.with_playing(key, replace(playing, frozen=state.theta(playing, t)))
    if playing.frozen is None:
        return state
    return state.with_playing(key, state.going_on_from(replace(playing, frozen=None), playing.frozen, t))


ACTIONS = {"stop": stop, "stop-all": stop_all, "run": run, "freeze": freeze}
