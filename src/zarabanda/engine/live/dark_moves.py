"""Preparing lights while they are dark: when that is due, and doing it (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback import dark
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.shares import INFINITY
from zarabanda.core.rig import attributes

from .state import LiveState

Floats = NDArray[np.float64]


def watched(state: LiveState, t: float) -> LiveState:
    """After something was done at t: with heads that have been lit, and those that go dark; moves that are seen stand."""
    if not any(_lists(state)):
        return state if state.dark_since is None else state.with_(dark_since=None, dark_due=INFINITY)
    rig = state.program.rig
    since = dark.dark_from(rig, state.claims, dark.lit_by_effects(rig, _acting(state)), t)
    before = state.dark_since
    if before is not None and before.shape == since.shape:
        since = np.where(since <= t, np.where(before <= t, before, np.maximum(since, -INFINITY)), since)
    since = np.where(np.isneginf(since), t, since)
    claims = dark.stopped(state.claims, since <= t, t)
    ready = since[np.isfinite(since)] + dark.WAITS_S
    waiting = ready[ready > t]
    state = state.with_(dark_since=since, claims=claims)
    return state.with_(dark_due=float(t if _is_ready(state, t) else waiting.min() if len(waiting) else INFINITY))


def _lists(state: LiveState) -> Iterator[tuple[CueList, int, float]]:
    """Lists that may prepare lights: each with the place of its cue and the stamp of its last go."""
    for number, own in state.lists.items():
        whose = state.program.lists.get(number)
        if whose is not None and own.cue in whose.index and own.paused_at is None:
            yield whose, whose.index[own.cue], own.went_at


def _acting(state: LiveState) -> Iterator[tuple[NDArray[np.int64], float]]:
    """Heads whose intensity effects act on, and until when."""
    family = attributes.FAMILIES.index("intensity")
    for playing in state.playing.values():
        end = playing.fades[family].arrives if playing.fades[family].end == 0 else INFINITY
        for block in playing.placed.blocks:
            if block.family == family:
                yield block.head, end


def _is_ready(state: LiveState, t: float) -> bool:
    """Whether some head that has been dark for long enough has something to be prepared for."""
    return any(move is not None for _, _, _, move in _moves(state, t))


def _moves(state: LiveState, t: float) -> Iterator[tuple[CueList, int, float, dark.Move | None]]:
    if state.dark_since is None:
        return
    heads = state.dark_since + dark.WAITS_S <= t
    if not heads.any():
        return
    for whose, place, went_at in _lists(state):
        yield whose, place, went_at, dark.wanted(state.program.rig, whose, place, state.claims, heads)


def fall_due(state: LiveState, t: float) -> LiveState:
    """With the lights prepared that have been dark for long enough."""
    claims, home = state.claims, state.program.rig.home
    for whose, _, went_at, move in list(_moves(state, t)):
        if move is not None:
            claims = dark.moved(claims, whose, move, t, went_at, home)
    state = state.with_(claims=claims)
    assert state.dark_since is not None
    waiting = (state.dark_since + dark.WAITS_S)[np.isfinite(state.dark_since)]
    waiting = waiting[waiting > t]
    return state.with_(dark_due=float(waiting.min()) if len(waiting) else INFINITY)
