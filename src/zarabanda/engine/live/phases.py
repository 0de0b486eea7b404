"""Another instance in the place of one that plays: its phase goes on without a jump."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from zarabanda.core.effects.batch.batches import Batches, Running

from ..program import Instance
from .playing import Playing
from .state import LiveState


def keeping_phase(state: LiveState, playing: Playing, new: Instance, t: float) -> Playing:
    """With another instance; its speed, ratio, run, handover and drift may change without a jump of lane 0."""
    theta, old = state.theta(playing, t), playing.instance
    turned = new.effect.run != old.effect.run or new.effect.drift != old.effect.drift or _turning(old) != _turning(new)
    before = _lane_zero(state, playing, theta) if turned else {}
    playing = replace(playing, instance=new)
    was, is_now = old.effect.speed, new.effect.speed
    if was != is_now:
        joins = was.kind == is_now.kind == "tempo" and is_now.sync == "beat" and was.sync == "start"
        playing = replace(playing, shift=0.0) if joins else state.going_on_from(playing, theta, t)  # joins: asked onto the beat
    if not turned:
        return playing
    shifts = [*playing.layer_shifts, *[0.0] * (len(new.effect.layers) - len(playing.layer_shifts))]
    padded = replace(playing, layer_shifts=tuple(shifts))
    for number, phase in _lane_zero(state, padded, state.theta(playing, t)).items():
        if number in before and _turns(old, number) != _turns(new, number):
            shifts[number] += before[number] - phase
    return replace(playing, layer_shifts=tuple(shifts))


def _lane_zero(state: LiveState, playing: Playing, theta: float) -> dict[int, float]:
    """Phase of lane 0 of each layer, within its cycle or circuit, without the layer's start."""
    placed, rig = playing.instance.placed, state.program.rig
    if not placed.blocks or max(int(block.head.max()) for block in placed.blocks) >= len(rig):
        return {}
    batches = Batches([placed], len(rig), rig.mixes)
    phases = batches.lane_zero_phase(Running(np.array([theta]), np.array([1.0]), [playing.layer_shifts]))
    circuits = {block.number: block.circuit for block in placed.blocks}
    starts = {block.number: 0.0 if block.is_relay else block.layer.start / 360 for block in placed.blocks}
    return {number: (phase - starts[number]) % circuits[number] for (_, number), phase in phases.items()}


def _turns(instance: Instance, number: int) -> tuple[object, ...]:
    effect = instance.effect
    if number >= len(effect.layers):
        return ()
    layer = effect.layers[number]
    spread = layer.spread or effect.spread
    return (effect.run, effect.drift, layer.ratio, spread.kind, spread.handover, spread.speed_counts, instance.placed.count)


def _turning(instance: Instance) -> list[tuple[object, ...]]:
    return [_turns(instance, number) for number in range(len(instance.effect.layers))]
