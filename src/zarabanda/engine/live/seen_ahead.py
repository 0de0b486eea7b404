"""What screens show instead of the stage: a cue as it will be, or a position of a song."""

from __future__ import annotations

from typing import Any

from zarabanda.core.playback.cue_list import Step
from zarabanda.core.playback.cues import Times
from zarabanda.messages import LookAt

from .cue_lists import list_of, moved, passage_of, place_of
from .state import LiveState, LookedAt


def look_at(state: LiveState, action: LookAt, t: float) -> LiveState:
    """Let screens see a cue as it will be."""
    if action.cue is None:
        return state.with_(looked_at=None)
    whose = list_of(state, action.list)
    place_of(whose, action.cue)
    return state.with_(looked_at=LookedAt(whose.id, action.cue, t))


def seen_ahead(state: LiveState) -> LiveState | None:
    """The state in which the cue that is looked at is alone on stage, all of it arrived; None where there is none."""
    looked = state.looked_at
    whose = state.program.lists.get(looked.list) if looked is not None else None
    if looked is None or whose is None or looked.cue not in whose.index:
        return None
    alone = LiveState(program=state.program, tempos=state.tempos)
    at_once = passage_of(state, Times.alike(0.0))
    place = whose.index[looked.cue]
    return moved(alone, whose, Step(place), whose.after(place), at_once, looked.since)


ACTIONS: dict[Any, Any] = {LookAt: look_at}
