"""Actions on what plays: start, stop, freeze."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import Adjust, Freeze, PlayerId, Run, Stop, StopAll

from ..program import Instance
from .playing import HAND_S, Fade, Playing
from .state import DEFAULT_RELEASE_S, LiveState


def start(state: LiveState, key: PlayerId, t: float, level: float = 1.0) -> LiveState:
    """Let an instance play; what plays already takes the level, what was fading out starts anew, as the youngest."""
    instance, playing = state.instance(key), state.playing.get(key)
    if playing is not None and not playing.stopping:
        return state.with_playing(key, replace(playing, level=level))
    beat = state.clock(instance).beats(t)
    return state.without([key]).with_playing(key, Playing(instance, t, beat, level, rate=instance.speed))


def brought_in(state: LiveState, key: PlayerId, t: float, seconds: Callable[[str], float]) -> LiveState:
    """With an instance coming in from where it is, each family in its time; what is in already stays."""
    playing = state.playing.get(key)
    if key not in state.program.instances or (playing is not None and not playing.stopping):
        return state
    instance = state.instance(key)
    fades = (Fade(0.0, 0.0, t),) * len(attributes.FAMILIES) if playing is None else playing.fades
    new = Playing(instance, t, state.clock(instance).beats(t), fades=fades, rate=instance.speed)
    return state.without([key]).with_playing(key, faded(new, 1.0, t, seconds))


def faded(playing: Playing, share: float, t: float, seconds: Callable[[str], float]) -> Playing:
    """On the way to a share, each family in its time."""
    times = map(seconds, attributes.FAMILIES)
    return replace(playing, fades=tuple(fade.to(share, t, s) for fade, s in zip(playing.fades, times, strict=True)))


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


def adjust(state: LiveState, action: Adjust, t: float) -> LiveState:
    """Change depth and speed live: soon, and without a jump of phase."""
    playing = _playing(state, action.key)
    if action.depth is not None:
        playing = replace(playing, hand=playing.hand.to(action.depth, t, HAND_S))
    if action.speed is not None:
        playing = at_rate(state, replace(playing, hand_speed=action.speed), playing.rate / playing.hand_speed * action.speed, t)
    return state.with_playing(action.key, playing)


def at_rate(state: LiveState, playing: Playing, rate: float, t: float) -> Playing:
    """At another rate from now on, without a jump."""
    if rate == playing.rate:
        return playing
    theta, changed = state.theta(playing, t), replace(playing, rate=rate)
    return changed if playing.frozen is not None else state.going_on_from(changed, theta, t)


def written_back(state: LiveState, playing: Playing, now: Instance, t: float) -> Playing:
    """With what hands had changed live in the show by now, which plays it as `now`. Where that is the same, a cue has it."""
    theta, share, speed = state.theta(playing, t), playing.hand.end, playing.hand_speed
    if now is playing.instance and now.list_id:
        fades = tuple(fade.scaled(share) for fade in playing.fades)
        return replace(playing, fades=fades, hand=Fade(), hand_speed=1.0)
    rate = playing.rate / speed * now.speed / playing.instance.speed
    playing = replace(playing, hand=Fade(), hand_speed=1.0, rate=rate)
    return playing if playing.frozen is not None else state.going_on_from(playing, theta, t)


ACTIONS: dict[Any, Any] = {Adjust: adjust, Stop: stop, StopAll: stop_all, Run: run, Freeze: freeze}
