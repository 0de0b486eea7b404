"""Dark moves: heads that are dark are prepared for the next cue that lights them (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback import looks
from zarabanda.core.playback.claims import Claims, held_now
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.shares import INFINITY, Timing
from zarabanda.core.playback.strips import Strip, lay
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

WAITS_S = 1.0
"""So long a head is dark before it is moved."""
MOVE_S = 2.0
"""A dark move takes so long, or what the speed of the fixture needs."""


def dark_from(rig: Rig, claims: Claims, lit_until: Floats, t: float) -> Floats:
    """From when on each head gives no light if nothing more is done, (N,); infinity: it is lit. lit_until (N,): when the last
    effect that acts on its intensity is over, infinity where one stays."""
    settled = lit_until.copy()
    ours = [strip for strip in claims.strips if strip.family == "intensity"]
    for strip in ours:
        timing = strip.timing
        if timing.paused_at < INFINITY:
            until = INFINITY if strip.moves(timing.paused_at) else -INFINITY
        else:
            until = max((end for _, end in timing.ways()), default=timing.begins)
            until = min(until, timing.over_at)
        settled[strip.cells] = np.maximum(settled[strip.cells], until)
    late = float(settled[np.isfinite(settled)].max(initial=t))
    left = [strip for strip in ours if strip.timing.over_at > late]
    end = lay(rig.home, left, late, claims.manners)[attributes.INTENSITY]
    own = np.where(end <= 0, settled, INFINITY)
    led = rig.leader >= 0
    own[led] = np.minimum(own[led], own[rig.leader[led]])
    return np.asarray(own)


@dataclass(frozen=True, eq=False)
class Move:
    """What heads of a list are prepared for: values (A, N), NaN where nothing is to be done, and the time it takes in s."""

    values: Floats
    seconds: float

    @property
    def heads(self) -> int:
        """How many heads it moves."""
        return int((~np.isnan(self.values)).any(axis=0).sum())


def wanted(rig: Rig, whose: CueList, place: int, claims: Claims, dark: Bools) -> Move | None:
    """The move of dark heads (N,) for the next cues that light them, from the cue at a place; None: nothing is to be done."""
    held = held_now(claims, whose.holder, rig.home.shape)
    for strip in claims.strips:
        if strip.holder == whose.holder and strip.early and strip.timing.stops_at < INFINITY:
            held.reshape(-1)[looks.places(strip.cells, strip.kind, strip.count)] = np.inf  # it goes on from where it stands
    now = np.where(np.isnan(held), rig.home, held)
    values = prepared(whose, place, dark)
    new = rig.heads.has & ~np.isnan(values) & (values != now)
    new[_COLOUR] = new[_COLOUR].any(axis=0)
    if not new.any():
        return None
    values[~new] = np.nan
    ways = np.abs(values - np.where(np.isinf(now), rig.home, now))[[attributes.PAN, attributes.TILT]] / rig.speed
    return Move(values, float(max([MOVE_S, *ways[~np.isnan(ways)]])))


_COLOUR = [attributes.RED, attributes.GREEN, attributes.BLUE]


def prepared(whose: CueList, place: int, heads: Bools) -> Floats:
    """What the next cues that light heads (N,) have for them beside intensity, (A, N), NaN where nothing is to be prepared."""
    values = np.full(whose.shape, np.nan)
    of_heads = np.where(heads, whose.next_lit[place], -1)
    for following in np.unique(of_heads[of_heads >= 0]).tolist():
        cue, chosen = whose.cues[following], of_heads == following
        chosen[cue.seen_moves] = False
        if cue.dark_moves and chosen.any():
            values[:, chosen] = _values_after(whose, following)[:, chosen]
    values[attributes.INTENSITY] = np.nan
    return values


@lru_cache(maxsize=32)
def _values_after(whose: CueList, place: int) -> Floats:
    """What holds after a cue, (A, N): asked for again after all that is done meanwhile. Not to be changed."""
    return whose.after(place).values


def moved(claims: Claims, whose: CueList, move: Move, t: float, went_at: float, home: Floats) -> Claims:
    """With the claims of a dark move: by the stamp of the list's last go, so that a later hand stays on top."""
    timing: dict[str, Timing] = {family: Timing(t, fade=move.seconds) for family in attributes.FAMILIES}
    cells = looks.cells_of(move.values, ~np.isnan(move.values))
    return claims.claimed(whose.holder, cells, home, timing, rank=whose.position, laid=went_at, early=True)


def stopped(claims: Claims, dark: Bools, t: float) -> Claims:
    """With the dark moves of heads that are dark no more standing where they are. dark: (N,)."""
    seen = {
        (strip.holder, cell)
        for strip in claims.strips
        if strip.early and strip.timing.is_current and strip.moves(t)
        for cell in strip.cells[~dark[strip.cells % strip.count]].tolist()
    }
    if not seen:
        return claims
    strips: list[Strip] = []
    for strip in claims.strips:
        lit = np.array([(strip.holder, cell) in seen for cell in strip.cells.tolist()], bool)
        if not lit.any():
            strips.append(strip)
            continue
        left, part = strip.divided(lit)
        timing = strip.timing
        stands = replace(timing, stops_at=t) if strip.early and timing.is_current else replace(timing, goes_at=INFINITY)
        strips += [*left, replace(part, timing=stands)]
    return replace(claims, strips=tuple(strips))


def lit_by_effects(rig: Rig, acting: Iterable[tuple[NDArray[np.int64], float]]) -> Floats:
    """When the last effect on the intensity of each head is over, (N,), −infinity where none acts. acting: heads and times."""
    until = np.full(len(rig), -INFINITY)
    for heads, end in acting:
        until[heads] = np.maximum(until[heads], end)
    return until
