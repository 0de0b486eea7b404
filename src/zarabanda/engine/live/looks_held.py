"""Looks that buttons and faders hold: values as claims of the control, with the effects that come and go with them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from zarabanda.core.playback.shares import Release, Timing, alike
from zarabanda.core.playback.strips import Manner
from zarabanda.messages import LookTold

from ..controls import Control
from ..program import Program
from .following import EDITED_S, followed
from .running import brought_in, fade_out, start
from .state import LiveState

RANK = 20_000
"""Claims of controls lie over those of rows at one stamp."""


def holds(state: LiveState, control: Control) -> bool:
    """Whether a control holds its look."""
    values = any(one.holder == control.key and one.timing.is_current for one in state.claims.strips)
    return values or any(key in state.playing and not state.playing[key].stopping for key in control.players)


def turned(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    """With a button on or off, in the times of its look."""
    assert control.look is not None
    if not on:
        return let_go(state, [control], alike(Release(t, t, control.look.out_s)), t)
    state = _claimed(state, control, control.look.in_s, t)
    for key in control.players:
        state = brought_in(state, key, t, lambda family: control.look.in_s if control.look else 0.0)
    return state


def level(state: LiveState, control: Control, value: float, t: float) -> LiveState:
    """With a fader that uncovers so much of its look. At 0 it is gone at once."""
    if value <= 0:
        return let_go(state, [control], alike(Release(t, t, 0.0)), t).without(control.players)
    if not holds(state, control):
        state = _claimed(state, control, 0.0, t)
    for key in control.players:
        if key in state.program.instances:
            state = start(state, key, t, value)
    return state.with_(claims=state.claims.with_manner(control.key, Manner(value, uncovers=True)))


def with_manners(state: LiveState) -> LiveState:
    """With the claims of faders acting as the faders say."""
    claims = state.claims
    for control in state.program.controls.values():
        if control.mode == "fader" and control.look is not None and not control.look.over:
            claims = claims.with_manner(control.key, Manner(state.levels.get(control.key, 0.0), uncovers=True))
    return state.with_(claims=claims)


def _claimed(state: LiveState, control: Control, seconds: float, t: float) -> LiveState:
    """With new claims on all values of a look."""
    assert control.look is not None
    claims, home, timing = state.claims, state.program.rig.home, alike(Timing(t, fade=seconds))
    for way, cells in control.look.claims:
        claims = claims.claimed(control.key, [cells], home, timing, rank=RANK, space=way)
    return state.with_(claims=claims)


def let_go(state: LiveState, controls: Iterable[Control], release: Mapping[str, Release], t: float) -> LiveState:
    """With controls that hold their looks no more, and their effects going out in the same time."""
    controls = list(controls)
    held = {strip.holder for strip in state.claims.strips}
    asked = [(str(one.key), None) for one in controls if one.key in held]
    state = state.with_(claims=state.claims.let_go(asked, release, state.program.rig.home))
    for control in controls:
        state = state.with_level(control.key, 0.0) if state.levels.get(control.key) else state
        for key in control.players:
            state = fade_out(state, key, t, release["intensity"].at - t + release["intensity"].seconds)
    return state


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: what a control holds is what its look is by now; what is gone goes out soon."""
    if before.controls is state.program.controls:
        return state
    claims, home = state.claims, state.program.rig.home
    for key, old in before.controls.items():
        control = state.program.controls.get(key)
        look = control.look if control is not None else None
        if old.look is not None and old.look is not look and not old.look.over:
            claims = followed(claims, key, look.claims if look is not None and not look.over else (), home, t, rank=RANK)
    state = state.with_(claims=claims)
    for control in state.program.controls.values():
        if control.look is not None and not control.look.over and state.levels.get(control.key, 0.0) > 0:
            for player in control.players:  # effects that the look has by now
                state = brought_in(state, player, t, lambda family: EDITED_S)
    return state


def told(state: LiveState) -> list[LookTold]:
    """Looks that controls hold."""
    return [
        LookTold(control.key, control.look.name, control.source)
        for control in state.program.controls.values()
        if control.look is not None and not control.look.over and holds(state, control)
    ]
