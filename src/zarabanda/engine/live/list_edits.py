"""Cue lists after an edit of the show: what is on stage follows, and what an edit leaves alone goes on."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from zarabanda.core.playback import looks
from zarabanda.core.playback.claims import held_now
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.cues import Times
from zarabanda.core.playback.going import Passage, claimed

from ..program import Program
from . import cue_effects, cue_pixels
from .cue_lists import list_state, passage_of, with_list, with_manners
from .state import LiveState

_EDITED_S = 0.2
"""So soon what was edited in a cue that is on stage is there."""


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: what was edited in the cue that a list is on goes there soon, and all else stays."""
    lists = {number: own for number, own in state.lists.items() if number in state.program.lists}
    gone_lists = [before.lists[number].holder for number in state.lists.keys() - lists.keys() if number in before.lists]
    if gone_lists:
        release = Passage(Times.alike(_EDITED_S)).releases(t)
        claims = state.claims.let_go([(holder, None) for holder in gone_lists], release, state.program.rig.home)
        state = state.with_(claims=claims, lists=lists)
    for number, own in lists.items():
        whose, old = state.program.lists[number], before.lists.get(number)
        if own.cue is not None and old is not None and old is not whose:
            state = _edited(state, whose, old, t, same_heads=before.rig.heads.keys is state.program.rig.heads.keys)
    return with_manners(state)


def _edited(state: LiveState, whose: CueList, old: CueList, t: float, *, same_heads: bool) -> LiveState:
    """With a list that is on a cue as it is by now. Where that is gone, it is on the one before, and holds what it held."""
    own = list_state(state, whose.id)
    if own.cue is None or own.cue not in old.index:
        return state
    if own.cue not in whose.index:
        number = old.cues[old.index[own.cue]].number
        before = [cue.id for cue in whose.cues if cue.number <= number]
        return with_list(state, whose, replace(own, cue=before[-1] if before else None))
    place, home = whose.index[own.cue], state.program.rig.home
    was, now = old.after(old.index[own.cue]), whose.after(place)
    held = held_now(state.claims, whose.holder, home.shape)
    new = ~np.isnan(now.values) & ~(now.values == held)
    gone_cells = ~np.isnan(held) & np.isnan(now.values)
    claims, passage = state.claims, passage_of(state, Times.alike(_EDITED_S))
    if same_heads:
        differs = ~((was.values == now.values) | (np.isnan(was.values) & np.isnan(now.values)))
        new, gone_cells = new & differs, gone_cells & differs
        follows = new & (now.palettes >= 0) & (now.palettes == was.palettes) & ~np.isnan(held)
        for cells in looks.cells_of(now.values, follows):
            claims = claims.retargeted(whose.holder, cells.cells, cells.targets, t)
        new &= ~follows
    claims = claimed(claims, whose, now, new, passage, t, home)
    claims = claims.let_go([(whose.holder, np.flatnonzero(gone_cells))], passage.releases(t), home)
    state = cue_pixels.gone_to(state.with_(claims=claims), whose, place, passage, t)
    return cue_effects.gone_to(state, whose, place, passage, t)
