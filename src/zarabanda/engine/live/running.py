"""Actions on what plays: start, stop, freeze."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import Freeze, PlayerId, Run, Stop, StopAll

from .playing import Playing
from .state import DEFAULT_RELEASE_S, LiveState


def start(state: LiveState, key: PlayerId, t: float, level: float = 1.0) -> LiveState:
    """Let an instance play; what plays already takes the level, what was fading out starts anew, as the youngest."""
    instance, playing = state.program.instances[key], state.playing.get(key)
    if playing is not None and not playing.stopping:
        return state.with_playing(key, replace(playing, level=level))
    beat = state.clock(instance).beats(t)
    return state.without([key]).with_playing(key, Playing(instance, t, beat, level))


def fade_out(state: LiveState, key: PlayerId, t: float, seconds: float) -> LiveState:
    """Let something end in a time."""
    playing = state.playing.get(key)
    if playing is None or playing.stopping:
        return state
    return state.with_playing(key, playing.fading(0.0, seconds, t))


def _playing(state: LiveState, key: PlayerId) -> Playing:
    playing = state.playing.get(key)
    if playing is None:
        raise ZarabandaError("This does not run any more.", "key")
    return playing


def stop(state: LiveState, action: Stop, t: float) -> LiveState:
    """Bring one thing back to base."""
    _playing(state, action.key)
    return stopped(state, action.key, t, DEFAULT_RELEASE_S)


def stop_all(state: LiveState, action: StopAll, t: float) -> LiveState:
    """Bring everything back to base, or what it does in one family."""
    if action.family is not None and action.family not in attributes.FAMILIES:
        raise ZarabandaError(f"There is no family {shown(action.family)}; use one of {', '.join(attributes.FAMILIES)}.", "family")
    for key, playing in state.playing.items():
        others = set(playing.instance.families) - playing.silenced
        if action.family is None or others <= {attributes.FAMILIES.index(action.family)}:
            state = stopped(state, key, t, action.seconds)
        else:
            number = attributes.FAMILIES.index(action.family)
            state = state.with_playing(key, playing.silent(number, action.seconds, t))
    return state


def stopped(state: LiveState, key: PlayerId, t: float, seconds: float) -> LiveState:
    """With something stopped by hand: it does not begin again by itself."""
    playing = state.playing[key]
    state = fade_out(state, key, t, seconds).with_controls_down({key})
    again = playing.instance.always or playing.instance.list_id
    return state.with_(stopped=state.stopped | {playing.instance.key}) if again else state


def run(state: LiveState, action: Run, t: float) -> LiveState:
    """Let something play again that was stopped."""
    key = action.key
    if key not in state.program.instances:
        raise ZarabandaError("This effect is not there any more.", "key")
    return start(state.with_(stopped=state.stopped - {key}), key, t)


def freeze(state: LiveState, action: Freeze, t: float) -> LiveState:
    """Hold θ where it is, or let it go on from there."""
    key, playing = action.key, _playing(state, action.key)
    if action.on:
        return state.with_playing(key, replace(playing, frozen=state.theta(playing, t)))
    if playing.frozen is None:
        return state
    return state.with_playing(key, state.going_on_from(replace(playing, frozen=None), playing.frozen, t))


ACTIONS: dict[Any, Any] = {Stop: stop, StopAll: stop_all, Run: run, Freeze: freeze}
