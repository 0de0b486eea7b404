"""Actions on faders and buttons."""

from __future__ import annotations

from dataclasses import replace

from zarabanda.errors import ZarabandaError

from .levels import share
from .running import Action, fade_out, start
from .state import LiveState


def _control(state: LiveState, action: Action) -> str:
    key = str(action.get("control"))
    if key not in state.program.controls:
        raise ZarabandaError("This control is no longer on the page. Reload the page to see what is there.", "control")
    return key


def level(state: LiveState, action: Action, t: float) -> LiveState:
    """Move a fader. At 0 what it runs is gone at once."""
    key = _control(state, action)
    value = share(action.get("value"), "value")
    state = state.with_level(key, value)
    if value <= 0 or key not in state.program.instances:
        return state.without([key])
    job = state.program.controls[key].job
    state = start(state, key, t, 1.0 if job == "speed" else value)
    return _at_rate(state, key, 1.0 if job == "depth" else value, t)


def _at_rate(state: LiveState, key: str, rate: float, t: float) -> LiveState:
    """At a share of the full speed from now on, without a jump."""
    playing = state.playing[key]
    if rate == playing.rate:
        return state
    theta, slower = state.theta(playing, t), replace(playing, rate=rate)
    return state.with_playing(key, slower if playing.frozen is not None else state.going_on_from(slower, theta, t))


def press(state: LiveState, action: Action, t: float) -> LiveState:
    """Press a button, or let go of it. One that acts while it is held is on as long as somebody holds it."""
    key, down = _control(state, action), bool(action.get("down", True))
    if state.program.controls[key].mode == "latch":
        return _turned(state, key, not state.levels.get(key, 0.0) > 0, t) if down else state
    holder = {str(action.get("holder", ""))}
    holders = state.held.get(key, frozenset())
    return _held_by(state, key, holders | holder if down else holders - holder, t)


def let_go(state: LiveState, action: Action, t: float) -> LiveState:
    """Let go of what is held by some who are gone: those of `holders`, or all but those in `but`."""
    gone, staying = action.get("holders"), action.get("but", [])
    for key, holders in state.held.items():
        left = frozenset(one for one in holders if (one in staying if gone is None else one not in gone))
        if not left:
            state = _held_by(state, key, left, t)
        elif left != holders:
            state = state.with_(held={**state.held, key: left})
    return state


def _held_by(state: LiveState, key: str, holders: frozenset[str], t: float) -> LiveState:
    held = {other: who for other, who in state.held.items() if other != key} | ({key: holders} if holders else {})
    return _turned(state.with_(held=held), key, bool(holders), t)


def _turned(state: LiveState, key: str, on: bool, t: float) -> LiveState:
    """With a button on or off."""
    state = state.with_level(key, 1.0 if on else 0.0)
    if on and key in state.program.instances:
        return start(state, key, t)
    return fade_out(state, key, t, state.program.controls[key].release_s)


ACTIONS = {"level": level, "press": press, "let-go": let_go}
