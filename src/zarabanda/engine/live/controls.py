"""Actions on faders and buttons."""

from __future__ import annotations

from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.messages import ControlId, LetGo, Level, Press, StopAll

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
    return _held_by(state, control, holders | {action.holder} if action.down else holders - {action.holder}, t)


def let_go(state: LiveState, action: LetGo, t: float) -> LiveState:
    """Let go of what is held by some who are gone: those of `holders`, or all but those in `but`."""
    gone, staying = action.holders, action.but
    if state.shown is not None and (state.shown.holder not in staying if gone is None else state.shown.holder in gone):
        state = state.with_(shown=None)
    slots = {place: one for place, one in state.held_slots.items() if (one[1] in staying if gone is None else one[1] not in gone)}
    if len(slots) < len(state.held_slots):
        state = state.with_(held_slots=slots)
    for key, holders in state.held.items():
        left = frozenset(one for one in holders if (one in staying if gone is None else one not in gone))
        if not left:
            state = _held_by(state, state.program.controls[key], left, t)
        elif left != holders:
            state = state.with_(held={**state.held, key: left})
    return state


def _held_by(state: LiveState, control: Control, holders: frozenset[str], t: float) -> LiveState:
    held = {other: who for other, who in state.held.items() if other != control.key}
    if holders:
        held[control.key] = holders
    return _turned(state.with_(held=held), control, bool(holders), t)


def _turned(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    """With a button on or off."""
    state = state.with_level(control.key, 1.0 if on else 0.0)
    if on and control.player in state.program.instances:
        return start(state, control.player, t)
    return fade_out(state, control.player, t, control.release_s)


ACTIONS: dict[Any, Any] = {Level: level, Press: press, LetGo: let_go}
