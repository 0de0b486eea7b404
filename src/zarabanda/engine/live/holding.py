"""What is on as long as somebody holds it: buttons, pads, flashes. Who is gone lets go."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from zarabanda.messages import ControlId, LetGo

from . import action_lists, controls, flashes, rows
from .state import LiveState

_KINDS: dict[str, Callable[[LiveState, ControlId, frozenset[str], float], LiveState]] = {
    "control": controls.held_changed,
    "pad": rows.held_changed,
    "flash": flashes.held_changed,
}
"""What happens when other hands hold something, by the kind of it."""


def let_go(state: LiveState, action: LetGo, t: float) -> LiveState:
    """Let go of what is held by some who are gone: those of `holders`, or all but those in `but`."""
    gone, staying = action.holders, action.but
    if state.shown is not None and (state.shown.holder not in staying if gone is None else state.shown.holder in gone):
        state = state.with_(shown=None)
    if state.pixels_seen is not None and (state.pixels_seen_by not in staying if gone is None else state.pixels_seen_by in gone):
        state = state.with_(pixels_seen=None)
    slots = {place: one for place, one in state.held_slots.items() if (one[1] in staying if gone is None else one[1] not in gone)}
    if len(slots) < len(state.held_slots):
        state = state.with_(held_slots=slots)
    for number, own in state.actions.items():
        hands = frozenset(one for one in own.holders if (one in staying if gone is None else one not in gone))
        if hands != own.holders:
            state = action_lists.let_go(state, number, hands, t)
    for key, holders in state.held.items():
        left = frozenset(one for one in holders if (one in staying if gone is None else one not in gone))
        if left != holders:
            state = _KINDS[key.partition(":")[0]](state, key, left, t)
    return state


ACTIONS: dict[Any, Any] = {LetGo: let_go}
