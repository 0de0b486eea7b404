"""Pixel maps of cue lists: what a go does to them (docs/computation.md, "Pixels")."""

from __future__ import annotations

from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.going import Passage
from zarabanda.core.rig import attributes

from . import pixels
from .state import LiveState

_LEVEL = attributes.FAMILIES.index("intensity")


def gone_to(state: LiveState, whose: CueList, place: int, passage: Passage, t: float) -> LiveState:
    """With the maps of a list that are on after the cue at a place, in the cue's times of intensity."""
    wanted = whose.pixels_after(place)
    written = {one.use for one in whose.cues[place].pixels}
    state = _out(state, whose, passage, t, but=set(wanted))
    for use, one in wanted.items():
        own = state.pixels.get(use)
        if pixels.stack_of(state.program, use) is None or (own is not None and own.fader.end == one.share and use not in written):
            continue
        now = own.share(t) if own is not None else 0.0
        state = pixels.brought(
            state, use, one.share, passage.fade_s(_LEVEL, one.share > now), t, delay=passage.delay_s(_LEVEL), ease=passage.ease,
            over=one.over, list_id=whose.id,
        )  # fmt: skip
    return state


def released(state: LiveState, whose: CueList, passage: Passage, t: float) -> LiveState:
    """With all maps of a list on their way out."""
    return _out(state, whose, passage, t, but=set())


def _out(state: LiveState, whose: CueList, passage: Passage, t: float, but: set[pixels.Use]) -> LiveState:
    for use, own in state.pixels.items():
        if own.list_id == whose.id and use not in but and own.fader.end > 0:
            state = pixels.brought(
                state, use, 0.0, passage.fade_s(_LEVEL, False), t, delay=passage.delay_s(_LEVEL), ease=passage.ease,
                list_id=whose.id,
            )  # fmt: skip
    return state
