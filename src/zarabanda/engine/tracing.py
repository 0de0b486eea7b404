"""Where a value on stage comes from, asked while the loop runs: from the same records as the frame's."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.stand_ins import StandIns
from zarabanda.core.playback.trace import Playing, Step, trace
from zarabanda.core.rig import attributes
from zarabanda.core.rig.read_back import ReadBack
from zarabanda.core.rig.rig import Rig
from zarabanda.core.rig.slots import slots_of
from zarabanda.messages import Traced, TracedSlot, TraceStep

from .live import pixels, stand_ins
from .live.cue_lists import list_state
from .live.on_stage import on_stage
from .live.specials import crossing
from .live.stages import Stages, levels_at
from .live.state import LiveState

Sent = tuple[Sequence[int], NDArray[np.uint8]]
Way = Callable[[str, str], list[Step]]
"""The steps to an attribute of a head, by its key."""


def playing_at(state: LiveState, t: float, words: Callable[[int], Sequence[str]] = lambda effect_id: ()) -> list[Playing]:
    """What plays at t beneath overlays, as a trace takes it. words: the layers of an effect, by its number."""
    return [
        Playing(
            one.instance.name, one.placed, state.theta(one, t), state.weights(one, t), one.layer_shifts,
            words(one.instance.effect_id), key,
        )
        for key, one in state.beneath_overlays.items()
    ]  # fmt: skip


def acting(state: LiveState, effect_id: int) -> list[tuple[str, list[str]]]:
    """On which heads an effect runs now: where each that plays comes from, and the keys of its heads, without those where
    another list has taken over."""
    keys = state.program.rig.heads.keys
    found = []
    for one in state.playing.values():
        if one.instance.effect_id == effect_id and not one.stopping:
            heads = dict.fromkeys(head for block in one.placed.blocks for head in block.head.tolist())
            found.append((one.instance.source, [keys[head] for head in sorted(heads)]))
    return found


def traced(state: LiveState, sent: Sent | None, head: str, attribute: str, t: float, reference: int) -> Traced:
    """The steps to an attribute of a head at t, and its slots as they were sent last: universes and bytes (universes, 512)."""
    live, state = state, on_stage(state, t)
    rig = state.program.rig
    number, names = rig.heads.index.get(head), attributes.touched(attribute)
    if number is None or not set(names) <= attributes.BY_NAME.keys():
        return Traced(reference, [], [])
    effects = {str(key): one.instance.effect_id for key, one in state.playing.items()}
    cues = {whose.holder: list_state(state, number).cue or 0 for number, whose in state.program.lists.items()}
    over, under = Stages().at(state, t), pixels.stages(state, t, over=False)
    playing, levels, specials = playing_at(state, t), levels_at(state, t), crossing(state)

    def way(head: str, attribute: str) -> list[Step]:
        return trace(rig, state.claims, playing, levels, head, attribute, t, over, specials, under)

    of, found = _standing_in(stand_ins.closing(live), rig, number, attribute, way)
    if live.recorded is not None and sent is not None and sent[0] is rig.universes:
        rows = [attributes.INDEX[name] for name in names]
        found = [*found, Step("recorded", live.recorded.name, tuple(ReadBack(rig).values(sent[1])[rows, number].tolist()))]
    steps = [
        TraceStep(
            what=one.what, who=one.who, value=list(one.value), target=None if one.target is None else list(one.target),
            share=one.share, layer=one.layer, key=one.key, effect=effects.get(one.key, 0),
            cue=cues.get(one.who, 0),
        )
        for one in found
    ]  # fmt: skip
    return Traced(reference, steps, _slots(state, sent, number, [attributes.INDEX[name] for name in names]), of)


def _standing_in(last: StandIns | None, rig: Rig, head: int, attribute: str, way: Way) -> tuple[str, list[Step]]:
    """Whose way it is, and the way to a value: of a light that stands in for another one that of the other, and what becomes of
    it."""
    names = attributes.touched(attribute)
    rows = [attributes.INDEX[name] for name in names]
    if last is None or not last.touched[rows, head].any():
        return rig.heads.keys[head], way(rig.heads.keys[head], attribute)
    sources = dict.fromkeys(one for one in last.source[rows, head].tolist() if one >= 0)
    of = rig.heads.keys[next(iter(sources), head)]
    found = way(of, attribute)
    values = rig.home.astype(float)
    together = {*names, *attributes.COMPOUND["position"]} if {"pan", "tilt"} & {*names} else {*names}
    for one in sources:
        for name in together:
            values[attributes.INDEX[name], one] = way(rig.heads.keys[one], name)[-1].value[0]
    last.apply(values)
    return of, [*found, Step("stand in", last.words(head), tuple(values[rows, head].tolist()))]


def _slots(state: LiveState, sent: Sent | None, head: int, rows: Sequence[int]) -> list[TracedSlot]:
    if sent is None or sent[0] is not state.program.rig.universes:
        return []
    row_of = {universe: row for row, universe in enumerate(sent[0])}
    return [
        TracedSlot(universe, slot, int(sent[1][row_of[universe], slot - 1]), (universe, slot) in state.held_slots)
        for universe, slot in slots_of(state.program.rig, head, rows)
    ]
