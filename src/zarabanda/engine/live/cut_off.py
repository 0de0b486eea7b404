"""After engine and supervisor were cut off together: everything is as it was then, and cue lists stand until a hand lets them go
on, since nobody knows how long ago that was."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from zarabanda.messages import GoOn, Pause

from .cue_lists import list_state, pause, resumed
from .state import LiveState


@dataclass(frozen=True)
class CutOff:
    """at: when it was cut off, s since 1970; standing: lists that were on their way, by number."""

    at: float
    standing: tuple[int, ...]


def standing(state: LiveState, t: float, at: float) -> LiveState:
    """With all lists standing that were on their way when it was cut off; as it is where nothing was on a cue."""
    on_cues = [number for number, one in state.lists.items() if one.cue is not None and number in state.program.lists]
    if not on_cues:
        return state
    moving = [number for number in on_cues if list_state(state, number).paused_at is None and _on_its_way(state, number, t)]
    for number in moving:
        state = pause(state, Pause(number), t)
    return state.with_(cut_off=CutOff(at, tuple(moving)))


def _on_its_way(state: LiveState, number: int, t: float) -> bool:
    own, whose = list_state(state, number), state.program.lists[number]
    arrives = own.went_at + (whose.arrives_after(whose.index[own.cue]) if own.cue in whose.index else 0.0)
    return own.follow_on is not None or bool(own.waiting) or arrives > t


def go_on(state: LiveState, action: GoOn, t: float) -> LiveState:
    """Let what stands go on where it was; or leave it as it is, and ask no more."""
    stood = state.cut_off.standing if state.cut_off is not None else ()
    for number in stood if action.on else ():
        if number in state.program.lists:
            state = resumed(state, state.program.lists[number], t)
    return state.with_(cut_off=None)


ACTIONS: dict[Any, Any] = {GoOn: go_on}
