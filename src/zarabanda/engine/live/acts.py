"""All actions by their type, and doing one of them at its stamp."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from zarabanda.messages import AnyAction

from . import (
    action_lists,
    blind,
    controls,
    cue_lists,
    cut_off,
    flashes,
    highlighting,
    holding,
    levels,
    overlays,
    rows,
    running,
    specials,
    tempos,
    testing,
    two_colours,
    waves,
    ways_home,
)
from .advance import advance, done
from .state import LiveState

ACTIONS: dict[Any, Callable[[LiveState, Any, float], LiveState]] = {
    **controls.ACTIONS,
    **running.ACTIONS,
    **tempos.ACTIONS,
    **levels.ACTIONS,
    **highlighting.ACTIONS,
    **testing.ACTIONS,
    **blind.ACTIONS,
    **cue_lists.ACTIONS,
    **cut_off.ACTIONS,
    **specials.ACTIONS,
    **holding.ACTIONS,
    **rows.ACTIONS,
    **flashes.ACTIONS,
    **two_colours.ACTIONS,
    **waves.ACTIONS,
    **overlays.ACTIONS,
    **action_lists.ACTIONS,
    **ways_home.ACTIONS,
}


def act(state: LiveState, action: AnyAction, t: float) -> LiveState:
    """The state after one action, stamped t. What falls due by then comes before it. ZarabandaError says what is wrong."""
    before = advance(state, t)
    return done(ACTIONS[type(action)](before, action, t), t, before)
