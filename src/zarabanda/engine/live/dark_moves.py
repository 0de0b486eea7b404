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
        since = np.where(since <= t, np.where(before <= t, before, since), since)
    since = np.where(np.isneginf(since), t, since)
    claims = dark.stopped(state.claims, since <= t, t)
    state = state.with_(dark_since=since, claims=claims)
    return state.with_(dark_due=t if any(True for _ in _moves(state, t)) else _next_due(since, t))


def _next_due(since: Floats, t: float) -> float:
    """When the next head has been dark for long enough."""
    ready = since + dark.WAITS_S
    return float(ready[ready > t].min(initial=INFINITY))


def _lists(state: LiveState) -> Iterator[tuple[CueList, int, float]]:
    """Lists that may prepare lights: each with the place of its cue and the stamp of its last go."""
    for number, own in state.lists.items():
        whose = state.program.lists.get(number)
        if whose is not None and own.cue in whose.index and own.paused_at is None:
            yield whose, whose.index[own.cue], own.went_at


def _acting(state: LiveState) -> Iterator[tuple[NDArray[np.int64], float]]:
    """Heads whose intensity effects act on, and until when."""
    family = attributes.FAMILIES.index("intensity")
    for one in state.busk.flashing:
        row = state.program.rows.get(one.row)
        if row is not None and one.kind != "dark":
            yield row.heads, one.share.arrives if one.share.end == 0 else INFINITY
    for own in state.overlays.values():
        if own.look.touched[attributes.INTENSITY].any():
            yield np.flatnonzero(own.look.touched[attributes.INTENSITY]), own.out_at
    for playing in state.playing.values():
        end = playing.fades[family].arrives if playing.fades[family].end == 0 else INFINITY
        over = state.overlays.get(playing.instance.overlay_id)
        for block in playing.placed.blocks:
            if block.family == family:
                yield block.head, end if over is None else min(end, over.out_at)


def _moves(state: LiveState, t: float) -> Iterator[tuple[CueList, float, dark.Move]]:
    """What heads that have been dark for long enough are prepared for: list, stamp of its last go, and how they move."""
    if state.dark_since is None:
        return
    heads = state.dark_since + dark.WAITS_S <= t
    for whose, place, went_at in _lists(state) if heads.any() else ():
        move = dark.wanted(state.program.rig, whose, place, state.claims, heads)
        if move is not None:
            yield whose, went_at, move


def fall_due(state: LiveState, t: float) -> LiveState:
    """With the lights prepared that have been dark for long enough."""
    claims, home = state.claims, state.program.rig.home
    for whose, went_at, move in _moves(state, t):
        claims = dark.moved(claims, whose, move, t, went_at, home)
    assert state.dark_since is not None
    return state.with_(claims=claims, dark_due=_next_due(state.dark_since, t))
