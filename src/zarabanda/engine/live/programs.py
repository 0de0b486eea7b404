"""Taking a new program between two frames: what plays goes on at its phase, what is gone fades out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import PlayerId, TempoPart, action

from ..program import Instance, Program
from . import draft
from .acts import act
from .advance import advance
from .running import start
from .state import DEFAULT_RELEASE_S, LiveState, Playing
from .tempo import Tempo


def order_in(state: LiveState, program: Program) -> list[PlayerId]:
    """Keys of what will play once this program is taken, oldest first."""
    order = [
        key
        for key, one in state.playing.items()
        if key not in program.let_go
        and (key in program.instances or program.rig.heads.keys is state.program.rig.heads.keys)
        and not _returns(state, key, one, program)
    ]
    return order + [key for key, one in program.instances.items() if one.always and key not in state.stopped and key not in order]


def _returns(state: LiveState, key: PlayerId, playing: Playing, program: Program) -> bool:
    """Whether something of the draft that was fading out is there again: it starts anew."""
    instance = program.instances.get(key)
    return instance is not None and instance.always and playing.stopping and key not in state.stopped


def take(state: LiveState, program: Program, t: float) -> tuple[LiveState, list[str]]:
    """The state with a new program, and what was wrong with its opening actions, if they were due."""
    state = advance(state, t)
    old = state.program
    kept = {
        key: one
        for key, one in state.playing.items()
        if key not in program.let_go and (key in program.instances or old.rig.heads.keys is program.rig.heads.keys)
    }
    state = state.with_(
        program=program,
        tempos=_tempos(state.tempos, old.tempos, program.tempos, t),
        playing=kept,
        claims=draft.claimed(state.claims, old, program, t),
    ).with_controls_down(program.let_go)
    for key, playing in kept.items():
        instance = program.instances.get(key)
        if instance is None:
            state = state if playing.stopping else state.with_playing(key, playing.fading(0.0, DEFAULT_RELEASE_S, t))
        elif instance is not playing.instance:
            state = state.with_playing(key, _keeping_phase(state, playing, instance, t))
    state = state.with_(
        stopped=state.stopped & program.instances.keys(),
        held={key: holders for key, holders in state.held.items() if key in program.controls},
    )
    for key, instance in program.instances.items():
        waits = key not in state.playing or _returns(state, key, state.playing[key], program)
        if instance.always and key not in state.stopped and waits:
            state = start(state, key, t)
    return _opened(state, t) if program.revision and not state.opened else (state, [])


def _tempos(
    playing: Mapping[int, Tempo], before: Mapping[int, TempoPart], now: Mapping[int, TempoPart], t: float
) -> dict[int, Tempo]:
    """Tempos of the show: those that are gone go, and a BPM that was changed there acts at once."""
    tempos = {}
    for number, part in now.items():
        tempo, was = playing.get(number), before.get(number, part)
        if tempo is None:
            tempos[number] = Tempo(part.bpm, since=t)
        else:
            tempos[number] = tempo.with_bpm(part.bpm, t) if was.bpm != part.bpm else tempo
    return tempos


def _opened(state: LiveState, t: float) -> tuple[LiveState, list[str]]:
    """After the opening actions, done once; one that cannot be done keeps none of the others from it."""
    state, wrong = state.with_(opened=True), []
    for document in state.program.opening:
        try:
            state = act(state, action(document), t)
        except ZarabandaError as error:
            name = document.get("do") if isinstance(document, dict) else document
            wrong.append(f"When the show opened, {shown(name)} could not be done: {error.message}")
    return state, wrong


def _keeping_phase(state: LiveState, playing: Playing, new: Instance, t: float) -> Playing:
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
