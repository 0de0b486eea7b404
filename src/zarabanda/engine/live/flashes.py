"""Actions on flashes, and what they are in a frame (docs/computation.md, "Flashes")."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from zarabanda.core.playback.flashes import Flash, Flashes, flash, touched_by
from zarabanda.errors import ZarabandaError
from zarabanda.messages import ControlId, FlashTimes, PressFlash

from ..program import Program
from .busk import Flashing
from .playing import Fade
from .rows import row_of
from .state import LiveState


def press(state: LiveState, action: PressFlash, t: float) -> LiveState:
    """Flash a row, or let go of it."""
    row = row_of(state, action.row) if action.down else state.program.rows.get(action.row)
    if row is None:
        return state
    if action.down and not len(row.heads):
        raise ZarabandaError(f"{row.name} has no lights to flash. Give its group some.", "row")
    key = ControlId(f"flash:{row.id}:{action.kind}")
    before = state.held.get(key, frozenset())
    return held_changed(state, key, before | {action.holder} if action.down else before - {action.holder}, t)


def held_changed(state: LiveState, key: ControlId, holders: frozenset[str], t: float) -> LiveState:
    """With a flash in other hands, or in none: then its share goes down from where it is."""
    _, number, kind = key.split(":")
    state = state.with_holders(key, holders)
    flashing = [one for one in state.busk.flashing if one.key != key]
    own = next((one for one in state.busk.flashing if one.key == key), None)
    if holders:
        if own is None or own.share.end == 0:  # pressed anew: it comes last
            flashing.append(Flashing(int(number), kind, t, Fade(1.0, 1.0, t)))
        else:
            flashing.append(own)
    elif own is not None:
        flashing.append(own if own.share.end == 0 else replace(own, share=own.share.to(0.0, t, state.busk.release_s)))
    return state.with_(busk=state.busk.with_(flashing=tuple(flashing)))


def times(state: LiveState, action: FlashTimes, t: float) -> LiveState:
    """How long they take to go, and the rate of strobes."""
    given = {"release_s": action.release_s, "rate_hz": action.rate_hz}
    return state.with_(busk=state.busk.with_(**{name: one for name, one in given.items() if one is not None}))


def tidied(state: LiveState, t: float) -> LiveState:
    """Without those that are out."""
    left = tuple(one for one in state.busk.flashing if one.share.end > 0 or one.share.arrives > t)
    return state if len(left) == len(state.busk.flashing) else state.with_(busk=state.busk.with_(flashing=left))


class FlashStages:
    """Makes the stage of a frame; what flashes set is kept as long as they and the program are the same."""

    def __init__(self) -> None:
        self._known: tuple[Program, float, tuple[tuple[int, str], ...]] | None = None
        self._each: Sequence[Flash] = ()
        self._stage: Flashes | None = None

    def at(self, state: LiveState, t: float) -> Flashes | None:
        """The stage at t; None where nothing is flashed."""
        flashing = [one for one in state.busk.flashing if one.row in state.program.rows]
        if not flashing:
            return None
        rig, rate = state.program.rig, state.busk.rate_hz
        known = (state.program, rate, tuple((one.row, one.kind) for one in flashing))
        if self._known is None or self._known[0] is not known[0] or self._known[1:] != known[1:]:
            rows = [(state.program.rows[one.row], one.kind) for one in flashing]
            self._each = [flash(rig, kind, row.heads, row.lit, rate) for row, kind in rows]
            self._known, self._stage = known, Flashes((), touched_by(rig, self._each), rate)
        assert self._stage is not None
        shares = [(one.share.share(t), t - one.since) for one in flashing]
        each = [(made, share, since) for made, (share, since) in zip(self._each, shares, strict=True)]
        return Flashes(each, self._stage.touched, rate)


ACTIONS: dict[Any, Any] = {PressFlash: press, FlashTimes: times}
