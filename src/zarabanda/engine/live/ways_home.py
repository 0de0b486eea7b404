"""Ways home, and bringing back what the last of them let go, within 10 s."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from zarabanda.core.playback.claims import Claims, held_now
from zarabanda.core.playback.looks import Cells
from zarabanda.core.playback.shares import Timing, alike
from zarabanda.errors import ZarabandaError
from zarabanda.messages import BringBack, PlayerId, ReleaseAll, ReleaseRow, StopAll, TemposBack

from . import cue_lists, overlays, rows, running, tempos
from .playing import Fade
from .state import LiveState

WITHIN_S = 10.0
_BACK_S = 0.5
"""So soon what is brought back is there."""


@dataclass(frozen=True)
class WayHome:
    """The last way home: what it did, in words, when, and the state before it."""

    words: str
    at: float
    before: LiveState
    tempos: bool = False
    """Whether it set tempos back."""


def _known(way: Callable[[LiveState, Any, float], LiveState], words: Callable[[LiveState, Any], str]) -> Any:
    """A way home that can be taken back."""

    def act(state: LiveState, action: Any, t: float) -> LiveState:
        after = way(state, action, t)
        return after.with_(way_home=WayHome(words(state, action), t, state.with_(way_home=None), isinstance(action, TemposBack)))

    return act


def bring_back(state: LiveState, action: BringBack, t: float) -> LiveState:
    """What the last way home let go, as it was; what hands have done since stays."""
    home = state.way_home
    if home is None or t > home.at + WITHIN_S:
        raise ZarabandaError(f"There is nothing to bring back: that can be done within {WITHIN_S:g} s of the last way home.")
    was = home.before
    state = _effects_back(state.with_(way_home=None), was, t)
    if was.program.rig.heads.keys is state.program.rig.heads.keys:
        state = state.with_(claims=_claims_back(state, was.claims, t))
    state = _lists_back(state, was, t)
    for number, own in was.rows.items():
        now = rows.row_state(state, number)
        pressed = {what: pad for what, pad in own.pressed.items() if what not in now.pressed}
        values = {what: one for what, one in own.values.items() if what not in now.values}
        changes: dict[str, Any] = {"pressed": {**now.pressed, **pressed}, "values": {**now.values, **values}}
        if not now.level and own.level:
            changes |= {"level": own.level, "shown": own.shown}
        state = rows.with_row(state, number, **changes)
    state = rows.with_manners(state, list(was.rows))
    state = overlays.brought_back(state, was, t)
    return _tempos_back(state, was, t) if home.tempos else state


def _effects_back(state: LiveState, was: LiveState, t: float) -> LiveState:
    back: dict[PlayerId, Any] = {}
    for key, before in was.playing.items():
        now = state.playing.get(key)
        same = now is not None and now.silenced == before.silenced and (before.stopping or not now.stopping)
        if before.stopping or same or before.instance.key not in state.program.instances:
            continue
        shares = [fade.share(t) for fade in now.fades] if now is not None else [0.0] * len(before.fades)
        fades = [Fade(share, one.end, t, _BACK_S) for share, one in zip(shares, before.fades, strict=True)]
        back[key] = replace(before, fades=tuple(fades), instance=state.instance(before.instance.key))
    playing = {key: back.get(key) or state.playing.get(key) for key in was.playing if key in back or key in state.playing}
    levels = {
        control.key: was.levels[control.key]
        for control in state.program.controls.values()
        if control.key in was.levels
        and (control.look is not None or not back.keys().isdisjoint(control.players))
        and not state.levels.get(control.key)
    }
    return state.with_(
        playing={**playing, **{key: one for key, one in state.playing.items() if key not in playing}},
        levels={**state.levels, **levels},
        stopped=state.stopped - {one.instance.key for one in back.values()} | (state.stopped & was.stopped),
    )


def _claims_back(state: LiveState, was: Claims, t: float) -> Claims:
    """With what is not held any more held again, in its old place among the others."""
    claims, home = state.claims, state.program.rig.home
    for strip in was.strips:
        if not strip.timing.is_current:
            continue
        held = held_now(claims, strip.holder, home.shape).reshape(-1)
        gone = np.isnan(held[strip.cells])
        if gone.any():
            part = strip.part(gone)
            cells = Cells(strip.family, strip.kind, part.cells, part.targets)
            timing = alike(Timing(t, fade=_BACK_S))
            claims = claims.claimed(
                strip.holder, [cells], home, timing, rank=strip.rank, space=strip.space, laid=strip.laid
            )  # fmt: skip
    return claims


def _lists_back(state: LiveState, was: LiveState, t: float) -> LiveState:
    lists = {**state.lists}
    for number, own in was.lists.items():
        whose = state.program.lists.get(number)
        if whose is not None and own.cue in whose.index and cue_lists.list_state(state, number).cue is None:
            late = own.follow_on is not None and own.follow_on.due_at(state) <= t
            lists[number] = replace(own, follow_on=None if late else own.follow_on, waiting=())
    return state.with_(lists=lists)


def _tempos_back(state: LiveState, was: LiveState, t: float) -> LiveState:
    for number, before in was.tempos.items():
        now = state.tempos.get(number)
        if now is not None and (now.bpm, now.held) != (before.bpm, before.held):
            going = now.going_on(t).with_bpm(before.bpm, t)
            state = tempos.with_tempo(state, number, going.held_at(t) if before.held else going, t)
    for number, follow in was.follows.items():
        if number not in state.follows and number in state.tempos and follow.main in state.tempos:
            state = tempos.following(state, number, follow.main, follow.ratio, t)
    return state


ACTIONS: dict[Any, Any] = {
    StopAll: _known(running.stop_all, lambda state, action: f"Stopped {action.family or 'all'} effects"),
    ReleaseAll: _known(cue_lists.release_all, lambda state, action: "Released everything"),
    ReleaseRow: _known(rows.release_row, lambda state, action: f"Released {rows.row_of(state, action.row).name}"),
    TemposBack: _known(tempos.back, lambda state, action: "Set tempos back"),
    BringBack: bring_back,
}
"""Those that can be taken back, in the place of the plain ones."""
