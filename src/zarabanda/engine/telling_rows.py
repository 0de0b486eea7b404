"""What is told of rows of busking pages: what each has now, and what of it is covered."""

from __future__ import annotations

from math import isfinite

import numpy as np

from zarabanda.core.colour.spaces import rgb_to_hex
from zarabanda.core.playback.claims import Claims
from zarabanda.core.rig import attributes
from zarabanda.core.rig.slots import levels
from zarabanda.messages import BuskTold, FlashTold, PadHeld, RowTold, TwoColoursTold

from .live.rows import is_on, level_of, row_state
from .live.state import LiveState
from .live.ways_home import WITHIN_S
from .loop import Snapshot
from .rows import Row


def covered_shares(claims: Claims, size: int) -> dict[str, float]:
    """By holder: the share of its current claims that lie beneath later ones of others, 0…1; size: A · N.

    What the highest wins of covers nothing.
    """
    taken, count, beneath = np.zeros(size, bool), dict[str, int](), dict[str, int]()
    for strip in reversed(claims.strips):
        manner = claims.manners.get(strip.holder)
        if not strip.timing.is_current or (manner is not None and manner.highest and strip.family == "intensity"):
            continue
        hidden = taken[strip.cells]
        count[strip.holder] = count.get(strip.holder, 0) + len(hidden)
        beneath[strip.holder] = beneath.get(strip.holder, 0) + int(hidden.sum())
        taken[strip.cells] = True
    return {holder: beneath[holder] / number for holder, number in count.items()}


def rows_told(state: LiveState, snapshot: Snapshot | None, t: float) -> list[RowTold]:
    """All rows."""
    rig = state.program.rig
    if not state.program.rows:
        return []
    shares = covered_shares(state.claims, rig.home.size)
    same = snapshot is not None and snapshot.program.rig is rig
    lit = levels(rig, snapshot.values) if same and snapshot is not None else np.ones(len(rig))
    return [_told(state, row, shares, not len(row.lit) or bool((lit[row.lit] <= 0).all()), t)
            for row in state.program.rows.values()]  # fmt: skip


def _told(state: LiveState, row: Row, shares: dict[str, float], dark: bool, t: float) -> RowTold:
    own = row_state(state, row.id)
    held: dict[int, list[float]] = {}
    for what, pad in own.pressed.items():
        held.setdefault(pad, []).append(shares.get(row.holder(what), 0.0))
    waiting = [(one.pad, one.due_at(state)) for one in own.waiting]
    families = {
        family for one in state.playing.values() if one.instance.row_id in row.on and not one.stopping
        for family in one.instance.families
    }  # fmt: skip
    return RowTold(
        row.id, level_of(state, row), own.depth.end, own.pairs,
        [PadHeld(pad, sum(each) / len(each)) for pad, each in held.items()],
        [pad.id for pad in row.pads.values() if is_on(state, pad)],
        [(pad, due if isfinite(due) else None) for pad, due in waiting], dark, own.sent, dict(own.values),
        [attributes.FAMILIES[family] for family in sorted(families)],
    )  # fmt: skip


def busk_told(state: LiveState, t: float) -> BuskTold:
    """What goes over all rows."""
    busk, home = state.busk, state.way_home
    back = home is not None and t <= home.at + WITHIN_S
    a, b = (rgb_to_hex(np.array(one.rgb)) for one in (busk.two.a, busk.two.b))
    return BuskTold(
        busk.seconds, busk.position_s, busk.waits, busk.variant.shape, busk.variant.spread, busk.variant.travel,
        busk.release_s, busk.rate_hz, TwoColoursTold(a, b, sorted(busk.two.rows), busk.two.mix),
        [FlashTold(one.row, one.kind) for one in busk.flashing if one.share.end > 0],
        home.words if back and home is not None else "", home.at + WITHIN_S if back and home is not None else 0.0,
    )  # fmt: skip
