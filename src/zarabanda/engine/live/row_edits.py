"""Rows of busking pages after an edit of the show: what is held follows, and what an edit leaves alone goes on."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.claims import Claims, held_now
from zarabanda.core.playback.looks import Cells, places
from zarabanda.core.playback.shares import Release, Timing, alike

from ..program import Program
from ..rows import ALL, LEVEL, Row
from . import rows
from .busk import RowState
from .state import LiveState

_EDITED_S = 0.2
"""So soon what was edited is there."""
Floats = NDArray[np.float64]


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: what a pad holds is what it is by now, what is gone goes out soon."""
    if before.rows is state.program.rows and before.rig.heads is state.program.rig.heads:
        return state
    claims = state.claims
    for number, own in state.rows.items():
        row, old = state.program.rows.get(number), before.rows.get(number)
        for what in [*own.pressed, LEVEL]:
            holder = f"row:{number}:{what}"
            if _of(old, own, what) is not _of(row, own, what):
                claims = _followed(state, claims, holder, row, _of(row, own, what) or (), t)
    kept = {number: _kept(own, state.program.rows[number]) for number, own in state.rows.items() if number in state.program.rows}
    state = state.with_(claims=claims, rows=kept)
    return rows.with_manners(state, [number for number, row in state.program.rows.items() if row.kind != ALL])


def _of(row: Row | None, own: RowState, what: str) -> tuple[Cells, ...] | None:
    """What a row claims, as it stands."""
    if row is None:
        return None
    if what == LEVEL:
        return row.level
    pad = row.pads.get(own.pressed[what])
    return None if pad is None else pad.claims.get(what)


def _kept(own: RowState, row: Row) -> RowState:
    """Without what is not there any more."""
    pressed: Mapping[str, int] = {
        what: pad for what, pad in own.pressed.items() if pad in row.pads and what in row.pads[pad].claims
    }
    return replace(own, pressed=pressed, waiting=tuple(one for one in own.waiting if one.pad in row.pads))


def _followed(
    state: LiveState, claims: Claims, holder: str, row: Row | None, wanted: tuple[Cells, ...], t: float
) -> Claims:  # fmt: skip
    """With a holder holding what it is to hold by now, where it holds anything."""
    home = state.program.rig.home
    held = held_now(claims, holder, home.shape).reshape(-1)
    if np.isnan(held).all():
        return claims
    stays = np.zeros(home.size, bool)
    rank = row.position if row is not None else 0
    for cells in wanted:
        at = places(cells.cells, cells.kind, home.shape[1])
        stays[at] = True
        known = ~np.isnan(held[cells.cells])
        other = known & (held[at] != cells.targets).any(axis=1)
        if other.any():
            claims = claims.retargeted(holder, cells.cells[other], cells.targets[other], t)
        if not known.all():
            new = Cells(cells.family, cells.kind, cells.cells[~known], cells.targets[~known])
            claims = claims.claimed(holder, [new], home, alike(Timing(t, fade=_EDITED_S)), rank=rank)
    gone = np.flatnonzero(~np.isnan(held) & ~stays)
    return claims.let_go([(holder, gone)], alike(Release(t, t, _EDITED_S)), home) if len(gone) else claims
