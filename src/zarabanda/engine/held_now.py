"""What is held on stage now, below effects, and which effects run: what a look can be made of."""

from __future__ import annotations

from collections.abc import Collection

import numpy as np

from zarabanda.core.playback.ground import base_at
from zarabanda.core.playback.looks import places
from zarabanda.core.rig import attributes
from zarabanda.messages import EffectNow, HeldNow, Values

from .live.on_stage import on_stage
from .live.playing import Playing
from .live.state import LiveState


def held_now(state: LiveState, heads: Collection[str], t: float, reference: int) -> HeldNow:
    """Values that claims and overlays hold on some heads at t, and effects that run on them, oldest first."""
    state = on_stage(state, t)
    rig = state.program.rig
    values, held = base_at(rig, state.claims, t), np.zeros(rig.home.shape, bool)
    for strip in state.claims.strips:
        if strip.timing.share(t) > 0:
            held.reshape(-1)[places(strip.cells, strip.kind, strip.count)] = True
    for own in state.overlays_in_order:
        own.stage(t).apply(values)
        held |= own.look.touched
    chosen = np.zeros(len(rig), bool)
    chosen[[rig.heads.index[key] for key in heads if key in rig.heads.index]] = True
    found: Values = {}
    for row, head in np.argwhere(held & rig.heads.has & chosen).tolist():
        found.setdefault(attributes.ATTRIBUTES[row].name, {})[rig.heads.keys[head]] = float(values[row, head])
    return HeldNow(reference, found, [one for playing in state.playing.values() if (one := _effect(state, playing, chosen, t))])


def _effect(state: LiveState, playing: Playing, chosen: np.ndarray, t: float) -> EffectNow | None:
    """An effect as it runs now on the chosen heads (N,), in pick order; None: it does not."""
    weights, keys = state.weights(playing, t), state.program.rig.heads.keys
    acting = {head for block in playing.placed.blocks for head in block.head.tolist() if chosen[head]}
    families: list[str] = [attributes.FAMILIES[n] for n in playing.instance.families if weights[n] > 0]
    if playing.stopping or not acting or not families:
        return None
    order = playing.instance.picked.tolist() if playing.instance.picked is not None else sorted(acting)
    depth = min(max(weights[n] for n in playing.instance.families), 1.0)
    return EffectNow(
        playing.instance.effect_id, playing.instance.name, [keys[head] for head in order if head in acting],
        None if len(families) == len(playing.instance.families) else families, depth, min(max(playing.rate, 0.01), 16.0),
    )  # fmt: skip
