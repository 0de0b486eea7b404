"""Rows of busking pages after an edit of the show: what is held follows, and what an edit leaves alone goes on."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from zarabanda.core.playback.looks import Cells

from ..program import Program
from ..rows import ALL, LEVEL, Row
from . import rows
from .busk import RowState
from .following import followed
from .state import LiveState


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: what a pad holds is what it is by now, what is gone goes out soon."""
    if before.rows is state.program.rows and before.rig.heads is state.program.rig.heads:
        return state
    claims, home = state.claims, state.program.rig.home
    for number, own in state.rows.items():
        row, old = state.program.rows.get(number), before.rows.get(number)
        for what in [*own.pressed, LEVEL]:
            holder = f"row:{number}:{what}"
            if _of(old, own, what) is not _of(row, own, what):
                wanted = [("rgb", cells) for cells in _of(row, own, what) or ()]
                claims = followed(claims, holder, wanted, home, t, rank=row.position if row is not None else 0)
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
