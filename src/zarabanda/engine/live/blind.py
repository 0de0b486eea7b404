"""Preparing the draft without output: what is on stage stays, until what was prepared is sent in a time."""

from __future__ import annotations

from typing import Any

from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import Blind, PlayerId

from ..program import Program
from . import draft
from .phases import keeping_phase
from .running import fade_out, start
from .state import LiveState

_LONGEST_S = 3600.0
_OF_DRAFT = "draft:"


def withheld(state: LiveState, program: Program) -> set[PlayerId]:
    """Who plays what of the draft, and must stay as it is while the draft is prepared; none where nothing is prepared."""
    if state.blind is None:
        return set()
    return {key for key in {*state.playing, *program.instances} if key.startswith(_OF_DRAFT)}


def blind(state: LiveState, action: Blind, t: float) -> LiveState:
    """Begin to prepare, or send."""
    if action.on:
        return state if state.blind is not None else state.with_(blind=t)
    if not 0 <= action.send_s <= _LONGEST_S:
        raise ZarabandaError(f"{shown(action.send_s)} s is no time to send in; give 0 to {_LONGEST_S:g} s.", "send_s")
    return state if state.blind is None else sent(state, t, action.send_s)


def sent(state: LiveState, t: float, seconds: float) -> LiveState:
    """With all that was prepared on its way to the stage."""
    program = state.program
    waiting = withheld(state, program)
    state = state.with_(blind=None, claims=draft.settled(state.claims, program, t, seconds))
    for key in waiting:
        instance, playing = program.instances.get(key), state.playing.get(key)
        if instance is None:
            state = fade_out(state, key, t, seconds)
        elif (playing is None or playing.stopping) and key not in state.stopped:
            state = start(state.without([key]), key, t)
            state = state.with_playing(key, state.playing[key].fading(0.0, 0.0, t).fading(1.0, seconds, t))
        elif playing is not None and playing.instance is not instance:
            state = state.with_playing(key, keeping_phase(state, playing, instance, t))
    return state


def prepared(state: LiveState) -> LiveState:
    """What will be on stage once it is sent; effects that are new have run since the preparation began."""
    return state if state.blind is None else sent(state, state.blind, 0.0)


ACTIONS: dict[Any, Any] = {Blind: blind}
