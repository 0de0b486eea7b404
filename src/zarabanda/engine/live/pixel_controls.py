"""What faders and buttons do with pixel maps (see `zarabanda.targets.UsePixels`)."""

from __future__ import annotations

from zarabanda.messages import PixelLevel, PressPixels
from zarabanda.targets import UsePixels

from ..controls import Control, gone
from . import pixels
from .state import LiveState


def _target(state: LiveState, control: Control) -> UsePixels:
    assert isinstance(control.target, UsePixels)
    if pixels.stack_of(state.program, (control.target.map, control.target.picture)) is None:
        raise gone(control)
    return control.target


def level(state: LiveState, control: Control, value: float, t: float) -> LiveState:
    """Move a fader: the share of the map."""
    target = _target(state, control)
    return pixels.level(state, PixelLevel(target.map, value, target.picture, target.over), t)


def turned(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    """Turn a button on or off; one that is held adds to the fader of the map."""
    if not on and pixels.stack_of(state.program, _use(control)) is None:
        return state
    target = _target(state, control)
    if control.mode == "latch":
        return pixels.press(state, PressPixels(target.map, on, target.picture, target.over), t)
    return pixels.held(state, _use(control), on, t, target.over)


def at(state: LiveState, control: Control) -> float:
    """Where a fader is: others can move it, too."""
    own = state.pixels.get(_use(control))
    return own.fader.end if own is not None else 0.0


def is_on(state: LiveState, control: Control) -> bool:
    """Whether a button is on."""
    return (at(state, control) if control.mode == "latch" else state.levels.get(control.key, 0.0)) > 0


def _use(control: Control) -> pixels.Use:
    assert isinstance(control.target, UsePixels)
    return control.target.map, control.target.picture
