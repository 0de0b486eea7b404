"""Actions on faders and buttons."""

from __future__ import annotations

from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.messages import ControlId, Level, Press, StopAll

from ..program import Control
from .levels import share
from .running import at_rate, fade_out, start, stop_all
from .state import LiveState


def _control(state: LiveState, key: ControlId) -> Control:
    control = state.program.controls.get(key)
    if control is None:
        raise ZarabandaError("This control is no longer on the page. Reload the page to see what is there.", "control")
    return control


def level(state: LiveState, action: Level, t: float) -> LiveState:
    """Move a fader. At 0 what it drives is gone at once."""
    control, value = _control(state, action.control), share(action.value, "value")
    state = state.with_level(control.key, value)
    if value <= 0 or control.player not in state.program.instances:
        return state.without([control.player])
    state = start(state, control.player, t, 1.0 if control.job == "speed" else value)
    playing = state.playing[control.player]
    speed = (1.0 if control.job == "depth" else value) * playing.instance.speed * playing.hand_speed
    return state.with_playing(control.player, at_rate(state, playing, speed, t))


def press(state: LiveState, action: Press, t: float) -> LiveState:
    """Press a button, or let go of it. One that acts while it is held is on as long as somebody holds it."""
    control = _control(state, action.control)
    if control.stops:
        family = None if control.stops == "all" else control.stops
        return stop_all(state, StopAll(family, control.release_s), t) if action.down else state
    if control.mode == "latch":
        return _turned(state, control, not state.levels.get(control.key, 0.0) > 0, t) if action.down else state
    holders = state.held.get(control.key, frozenset())
    return held_changed(state, control.key, holders | {action.holder} if action.down else holders - {action.holder}, t)


def held_changed(state: LiveState, key: ControlId, holders: frozenset[str], t: float) -> LiveState:
    """With a button that acts while it is held in other hands, or in none."""
    state = state.with_holders(key, holders)
    return _turned(state, state.program.controls[key], bool(holders), t)


def _turned(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    """With a button on or off."""
    state = state.with_level(control.key, 1.0 if on else 0.0)
    if on and control.player in state.program.instances:
        return start(state, control.player, t)
    return fade_out(state, control.player, t, control.release_s)


ACTIONS: dict[Any, Any] = {Level: level, Press: press}
