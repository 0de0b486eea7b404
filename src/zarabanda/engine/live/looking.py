"""What is on stage at a moment, computed whole: what the quick way of the frame loop is compared with."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.playback.frame import Acting, Stage
from zarabanda.core.playback.ground import base_at
from zarabanda.core.rig import attributes

from . import pixels
from .playing import Playing
from .state import LiveState

Floats = NDArray[np.float64]


def running_at(state: LiveState, every: Sequence[Playing], t: float) -> Running:
    """θ and weight of what plays."""
    shifts = [one.layer_shifts for one in every] if any(any(one.layer_shifts) for one in every) else ()
    weights = np.array([state.weights(one, t) for one in every]).reshape(-1, len(attributes.FAMILIES))
    return Running(np.array([state.theta(one, t) for one in every]), weights, shifts)


def over_base(state: LiveState, acting: Acting, running: Running, t: float, stages: Sequence[Stage] = ()) -> Floats:
    """What the base comes to with effects and then stages on it, (A, N), within the ranges."""
    rig = state.program.rig
    values = base_at(rig, state.claims, t)
    for under in pixels.stages(state, t, over=False):
        under.stage.apply(values)
    acting.apply(values.reshape(-1), running)
    for stage in stages:
        stage.apply(values)
    values[attributes.HUE] %= 360
    return np.clip(values, rig.low, rig.high)


def look_below(state: LiveState, t: float, stages: Sequence[Stage]) -> Floats:
    """The look at t, (A, N): base, effects beneath overlays, and these stages."""
    every, rig = list(state.beneath_overlays.values()), state.program.rig
    batches = Batches([one.placed for one in every], len(rig), rig.mixes)
    return over_base(state, batches, running_at(state, every, t), t, stages)
