"""Actions on the rows of busking pages, and presses that fall due on a beat (docs/computation.md, "Rows")."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from typing import Any

import numpy as np

from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.looks import Cells
from zarabanda.core.playback.shares import Release, Timing, alike
from zarabanda.core.playback.strips import Manner
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    ControlId,
    NextChange,
    NoPad,
    PlayerId,
    PressPad,
    ReleaseRow,
    RowDepth,
    RowLevel,
    RowPairs,
    RowValue,
)

from ..rows import ALL, LEVEL, LIGHTS, Pad, Row
from . import pixels, sending
from .busk import NEW_ROW, RowState, WaitingPress
from .phases import keeping_phase
from .playing import HAND_S
from .running import brought_in, faded
from .state import LiveState
from .tempo import BEATS_IN_A_BAR

_RANK = 10_000
"""Claims of rows lie over those of lists at one stamp."""


def row_of(state: LiveState, number: int) -> Row:
    """A row by its number, or a clear refusal."""
    row = state.program.rows.get(number)
    if row is None:
        raise ZarabandaError("This row is not on the page any more. Reload the page to see what is there.", "row")
    return row


def row_state(state: LiveState, number: int) -> RowState:
    """Where a row is."""
    return state.rows.get(number, NEW_ROW)


def level_of(state: LiveState, row: Row) -> float:
    """Where its fader is: that of the top row begins at full."""
    level = row_state(state, row.id).level
    return level if level is not None else 1.0 if row.kind == ALL else 0.0


def with_row(state: LiveState, number: int, **changes: Any) -> LiveState:
    """With a row elsewhere."""
    return state.with_(rows={**state.rows, number: replace(row_state(state, number), **changes)})


def _pad(row: Row, number: int) -> Pad:
    pad = row.pads.get(number)
    if pad is None:
        raise ZarabandaError(f"This pad is not in the row {row.name} any more. Reload the page to see what is there.", "pad")
    if pad.gone:
        raise ZarabandaError(f"{row.name}: {pad.gone}. Give this pad something else while pads are edited.", "pad")
    return pad


# pressing


def press(state: LiveState, action: PressPad, t: float) -> LiveState:
    """Press a pad, or let go of it: at once, or on the next beat or bar."""
    row = row_of(state, action.row)
    pad = _pad(row, action.pad) if action.down else row.pads.get(action.pad)
    if pad is None or (not action.down and not pad.while_held):
        return state
    if pad.while_held:
        return _held_by(state, row, pad, action, t)
    if not action.down:
        return state
    on = not is_on(state, pad)
    waits = state.busk.waits if pad.message is None else ""
    if waits and pad.players and any(one.pad == pad.id for one in row_state(state, row.id).waiting):
        return _called_off(state, row, lambda one: one.pad == pad.id)
    counted = state.beats_from(row.tempo)
    if not waits or counted is None:
        return _acted(state, row, pad, on, t)
    number, every = counted[0], 1 if waits == "beat" else BEATS_IN_A_BAR
    beat = (counted[1].beats(t) // every + 1) * every
    state = _called_off(state, row, lambda one: one.pad == pad.id or _same(row, one.pad, pad))
    waiting = WaitingPress(pad.id, on, beat, number, state.busk.presses)
    state = with_row(state, row.id, waiting=(*row_state(state, row.id).waiting, waiting))
    return state.with_(busk=state.busk.with_(presses=state.busk.presses + 1))


def _same(row: Row, one: int, pad: Pad) -> bool:
    """Whether a pad that waits holds something that another takes: the later press counts."""
    other = row.pads.get(one)
    return other is not None and bool(other.claims.keys() & pad.claims.keys())


def _called_off(state: LiveState, row: Row, which: Callable[[WaitingPress], bool]) -> LiveState:
    waiting = row_state(state, row.id).waiting
    left = tuple(one for one in waiting if not which(one))
    return state if len(left) == len(waiting) else with_row(state, row.id, waiting=left)


def _acted(state: LiveState, row: Row, pad: Pad, on: bool, t: float) -> LiveState:
    if pad.message is not None:
        outward = sending.Outward(int(pad.message.get("device", 0)), pad.message)
        return with_row(state, row.id, sent=pad.id).with_(outbox=state.outbox.with_message(outward))
    if pad.section == "effects":
        return effects_on(state, pad, on, t)
    claims, way = state.claims, state.program.ways.get(pad.palette) or state.program.way
    for what, cells in pad.claims.items():
        claims = _claimed(state, claims, row, what, cells, _timing(state, t), way)
    pressed = {**row_state(state, row.id).pressed, **dict.fromkeys(pad.claims, pad.id)}
    return with_row(state, row.id, pressed=pressed).with_(claims=claims)


def _claimed(
    state: LiveState, claims: Claims, row: Row, what: str, cells: Iterable[Cells], timing: Mapping[str, Timing], way: str = "rgb"
) -> Claims:
    home, rank = state.program.rig.home, _RANK + row.position
    return claims.claimed(row.holder(what), cells, home, timing, rank=rank, space=way)


def _timing(state: LiveState, t: float) -> dict[str, Timing]:
    return {family: Timing(t, fade=state.busk.fade_s(family)) for family in attributes.FAMILIES}


def due(state: LiveState) -> list[tuple[float, int, int]]:
    """Presses that wait: stamp, order in which they came, and row."""
    return [(one.due_at(state), one.order, number) for number, own in state.rows.items() for one in own.waiting]


def fall_due(state: LiveState, number: int, order: int, t: float) -> LiveState:
    """With a press done that waited until t."""
    waiting = next(one for one in state.rows[number].waiting if one.order == order)
    row, left = state.program.rows.get(number), tuple(one for one in state.rows[number].waiting if one.order != order)
    state = with_row(state, number, waiting=left)
    pad = row.pads.get(waiting.pad) if row is not None else None
    return _acted(state, row, pad, waiting.on, t) if row is not None and pad is not None and not pad.gone else state


# effects


def is_on(state: LiveState, pad: Pad) -> bool:
    """Whether the effect of a pad runs on any row, or its pixel map is in."""
    if pad.pixels is not None:
        own = state.pixels.get(pad.pixels)
        return own is not None and (own.flash if pad.while_held else own.fader).end > 0
    return any(key in state.playing and not state.playing[key].stopping for key in pad.players)


def effects_on(state: LiveState, pad: Pad, on: bool, t: float) -> LiveState:
    """With the effect of a pad coming, or going, or its pixel map."""
    if pad.pixels is not None:
        if pixels.stack_of(state.program, pad.pixels) is None:
            return state
        if pad.while_held:
            return pixels.held(state, pad.pixels, on, t)
        return pixels.brought(state, pad.pixels, 1.0 if on else 0.0, state.busk.fade_s("intensity"), t)
    for key in pad.players:
        playing = state.playing.get(key)
        if on:
            state = brought_in(state, key, t, state.busk.fade_s)
        elif playing is not None and not playing.stopping:
            state = state.with_playing(key, faded(playing, 0.0, t, state.busk.fade_s))
    return state


def _held_by(state: LiveState, row: Row, pad: Pad, action: PressPad, t: float) -> LiveState:
    key = ControlId(f"pad:{row.id}:{pad.id}")
    before = state.held.get(key, frozenset())
    return held_changed(state, key, before | {action.holder} if action.down else before - {action.holder}, t)


def held_changed(state: LiveState, key: ControlId, holders: frozenset[str], t: float) -> LiveState:
    """With a pad that acts while it is held in other hands, or in none."""
    state = state.with_holders(key, holders)
    _, row, pad = key.split(":")
    found = state.program.rows.get(int(row))
    one = found.pads.get(int(pad)) if found is not None else None
    return state if one is None else effects_on(state, one, bool(holders), t)


def pairs(state: LiveState, action: RowPairs, t: float) -> LiveState:
    """Play the effects of a row in pairs; of the top row, those of all rows."""
    row = row_of(state, action.row)
    for number in {row.id, *row.on}:
        state = with_row(state, number, pairs=action.on)
    return revaried(state, t)


def revaried(state: LiveState, t: float) -> LiveState:
    """With all that plays as hands ask for it by now: its phase goes on without a jump."""
    for key, one in state.playing.items():
        if one.instance.key in state.program.instances:
            now = state.instance(one.instance.key)
            if now is not one.instance:
                state = state.with_playing(key, keeping_phase(state, one, now, t))
    return state


def depth(state: LiveState, action: RowDepth, t: float) -> LiveState:
    """Move the depth of all effects of a row."""
    row = row_of(state, action.row)
    return with_row(state, row.id, depth=row_state(state, row.id).depth.to(action.value, t, HAND_S))


# levels


def level(state: LiveState, action: RowLevel, t: float) -> LiveState:
    """Move the level of a row: a claim of which the highest wins."""
    row = row_of(state, action.row)
    if row.kind == ALL:
        return with_manners(with_row(state, row.id, level=action.value), row.on)
    if row.kind != LIGHTS or not row.level:
        raise ZarabandaError(f"{row.name} has no lights with a level.", "row")
    holder, claims = row.holder(LEVEL), state.claims
    if not any(strip.holder == holder and strip.timing.is_current for strip in claims.strips):
        claims = _claimed(state, claims, row, LEVEL, row.level, alike(Timing(t)))
    return with_manners(with_row(state.with_(claims=claims), row.id, level=action.value, shown=action.value), (row.id,))


def with_manners(state: LiveState, rows: Iterable[int]) -> LiveState:
    """With the claims of rows acting as their faders say: 100 % × that of the row × that of the top row, the highest wins."""
    claims = state.claims
    for number in rows:
        row = state.program.rows.get(number)
        if row is not None:
            top = state.program.top_of(row)
            all_of = level_of(state, top) if top is not None else 1.0
            manner = Manner(row_state(state, number).shown * all_of, highest=True)
            claims = claims.with_manner(row.holder(LEVEL), manner)
    return state.with_(claims=claims)


def value(state: LiveState, action: RowValue, t: float) -> LiveState:
    """Move an attribute of a row by hand."""
    row, rig = row_of(state, action.row), state.program.rig
    number = attributes.INDEX[action.attribute]
    able = np.sort(row.heads[rig.heads.has[number, row.heads]])
    if not len(able):
        raise ZarabandaError(f"{row.name} has no {attributes.ATTRIBUTES[number].label.lower()}.", "attribute")
    cells = Cells("beam", "number", number * len(rig) + able, np.full((len(able), 1), action.value))
    claims = _claimed(state, state.claims, row, action.attribute, [cells], alike(Timing(t)))
    values = {**row_state(state, row.id).values, action.attribute: action.value}
    return with_row(state, row.id, values=values).with_(claims=claims)


# letting go


def no_pad(state: LiveState, action: NoPad, t: float) -> LiveState:
    """Let go of what the pads of a section hold, in the time of the next change."""
    row = row_of(state, action.row)
    state = _called_off(state, row, lambda one: one.pad in row.pads and row.pads[one.pad].section == action.section)
    if action.section == "effects":
        for pad in row.pads.values():
            state = effects_on(state, pad, False, t)
        return state
    own = row_state(state, row.id).pressed
    whats = [what for what in own if (attributes.BY_NAME[what].family if what in attributes.BY_NAME else what) == action.section]
    release: dict[str, Release] = {family: Release(t, t, state.busk.fade_s(family)) for family in attributes.FAMILIES}
    return _released(state, row, whats, release)


def _released(state: LiveState, row: Row, whats: Iterable[str], release: Mapping[str, Release]) -> LiveState:
    own, gone = row_state(state, row.id), set(whats)
    held = {strip.holder for strip in state.claims.strips}
    asked = [(row.holder(what), None) for what in [*own.pressed, *own.values, LEVEL] if what in gone and row.holder(what) in held]
    claims = state.claims.let_go(asked, release, state.program.rig.home)
    changes: dict[str, Any] = {"pressed": {what: pad for what, pad in own.pressed.items() if what not in gone}}
    changes["values"] = {what: number for what, number in own.values.items() if what not in gone}
    if LEVEL in gone and row.kind == LIGHTS:
        changes["level"] = 0.0
    return with_row(state, row.id, **changes).with_(claims=claims)


def release_row(state: LiveState, action: ReleaseRow, t: float) -> LiveState:
    """Let go of all that a row holds, and of the effects that its pads play."""
    row = row_of(state, action.row)
    return let_go(state, [row], alike(Release(t, t, action.seconds)), t)


def let_go(state: LiveState, rows: Iterable[Row], release: Mapping[str, Release], t: float) -> LiveState:
    """With rows that hold nothing any more, and their effects going out in the same times."""
    for row in rows:
        own = row_state(state, row.id)
        state = _called_off(state, row, lambda one: True)
        state = _released(state, row, [*own.pressed, *own.values, LEVEL], release)
        for pad in row.pads.values():
            for key in pad.players:
                state = _out(state, key, release, t)
    return state


def _out(state: LiveState, key: PlayerId, release: Mapping[str, Release], t: float) -> LiveState:
    playing = state.playing.get(key)
    if playing is None or playing.stopping:
        return state
    times = [release[family] for family in attributes.FAMILIES]
    fades = [fade.to(0.0, t, one.seconds, delay=one.at - t) for fade, one in zip(playing.fades, times, strict=True)]
    return state.with_playing(key, replace(playing, fades=tuple(fades)))


def next_change(state: LiveState, action: NextChange, t: float) -> LiveState:
    """What the next press takes."""
    given = {"seconds": action.seconds, "position_s": action.position_s, "waits": action.waits}
    return state.with_(busk=state.busk.with_(**{name: one for name, one in given.items() if one is not None}))


ACTIONS: dict[Any, Any] = {
    PressPad: press,
    NoPad: no_pad,
    RowLevel: level,
    RowDepth: depth,
    RowValue: value,
    RowPairs: pairs,
    ReleaseRow: release_row,
    NextChange: next_change,
}
