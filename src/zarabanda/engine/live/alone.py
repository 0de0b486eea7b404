"""Buttons by which some heads are alone while they are held (docs/computation.md, "Alone")."""

from __future__ import annotations

from dataclasses import dataclass, replace

from zarabanda.core.playback import alone as core
from zarabanda.messages import ControlId

from ..controls import Control
from .playing import Fade
from .state import LiveState


@dataclass(frozen=True)
class AloneState:
    """A button that is held, or was. share: how far all others are dark."""

    key: ControlId
    share: Fade


def held(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    """With a button held, or let go: then its share goes down from where it is."""
    own = next((one for one in state.alone if one.key == control.key), None)
    others = tuple(one for one in state.alone if one.key != control.key)
    if on:
        return state.with_(alone=(*others, AloneState(control.key, Fade(1.0, 1.0, t))))
    if own is None or own.share.end == 0:
        return state
    return state.with_(alone=(*others, replace(own, share=own.share.to(0.0, t, control.release_s))))


def tidied(state: LiveState, t: float) -> LiveState:
    """Without those that are over, and those whose button is gone."""
    left = tuple(one for one in state.alone if one.key in state.program.controls and (one.share.end > 0 or one.share.arrives > t))
    return state if len(left) == len(state.alone) else state.with_(alone=left)


def stage(state: LiveState, t: float) -> core.Alone | None:
    """The stage of a frame; None where none is held."""
    controls = state.program.controls
    found = [(controls[one.key].stayers, one.share.share(t)) for one in state.alone if one.key in controls]
    held_by = [(stayers, share) for stayers, share in found if stayers is not None and share > 0]
    return core.alone(state.program.rig, held_by) if held_by else None
