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
    pixels,
    recorded,
    rows,
    running,
    seen_ahead,
    song_actions,
    specials,
    stand_ins,
    tempos,
    testing,
    two_colours,
    waves,
    ways_home,
)
from .advance import MOVES, advance, done
from .folding import Moves
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
    **seen_ahead.ACTIONS,
    **cut_off.ACTIONS,
    **specials.ACTIONS,
    **stand_ins.ACTIONS,
    **recorded.ACTIONS,
    **holding.ACTIONS,
    **rows.ACTIONS,
    **flashes.ACTIONS,
    **two_colours.ACTIONS,
    **waves.ACTIONS,
    **overlays.ACTIONS,
    **pixels.ACTIONS,
    **action_lists.ACTIONS,
    **ways_home.ACTIONS,
}


def _of_songs(does: Callable[[LiveState, Any, float, Moves], LiveState]) -> Callable[[LiveState, Any, float], LiveState]:
    return lambda state, action, t: does(state, action, t, MOVES)


ACTIONS |= {kind: _of_songs(does) for kind, does in song_actions.OF_SONGS.items()}


def act(state: LiveState, action: AnyAction, t: float) -> LiveState:
    """The state after one action, stamped t. What falls due by then comes before it. ZarabandaError says what is wrong."""
    before = advance(state, t)
    return done(song_actions.acted(before, action, t, MOVES, ACTIONS), t, before)
