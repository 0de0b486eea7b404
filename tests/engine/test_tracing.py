"""Where a value comes from, asked of the engine: the last step is what is on stage, and the slots are those that were sent."""

import pytest

from tests.engine.shows import HEADS, effect, program, show
from tests.engine.test_loop import Clock
from zarabanda.core.rig import attributes
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.engine.tracing import traced
from zarabanda.messages import Highlight, PaletteUse
from zarabanda.outputs.base import MemoryOutput


@pytest.mark.parametrize("attribute", ["intensity", "pan", "zoom", "colour"])
@pytest.mark.parametrize("lit", [False, True])
def test_the_last_step_is_on_stage_and_the_slots_are_those_that_were_sent(attribute, lit):
    clock, seen = Clock(), []
    loop = Loop(LiveState(), [MemoryOutput()], clock=clock, sleep=clock.sleep)
    loop.on_frame = lambda snapshot: seen.append((snapshot.values.copy(), snapshot.data.copy()))
    palettes = {"Half": {"values": {"intensity": 40.0, "zoom": 30.0}, "own": {}}}
    draft = {"intensity": {HEADS[0]: PaletteUse(1)}, "zoom": {HEADS[0]: PaletteUse(1)}, "pan": {HEADS[0]: 33.0}}
    loop.swap(program(show(effect(), draft=draft, palettes=palettes), Compiler()))
    if lit:
        loop.post(Highlight(steps=[[HEADS[0]]]))
    loop.tick(100.3)
    found = traced(loop.state, loop.sent, HEADS[0], attribute, 100.3, 7)
    values, data = seen[-1]
    rig = loop.state.program.rig
    rows = [attributes.INDEX[name] for name in attributes.touched(attribute)]
    assert found.steps[-1].value == pytest.approx(values[rows, 0].tolist(), abs=1e-3)
    assert found.steps[0].what == "home"
    assert all(one.value == data[rig.universes.index(one.universe), one.slot - 1] for one in found.slots)


def test_unknown_heads_and_attributes_have_no_way():
    loop = Loop(LiveState(), [], clock=Clock(), sleep=Clock().sleep)
    assert traced(loop.state, loop.sent, "1", "intensity", 0.0, 1).steps == []
    loop.swap(program(show(effect()), Compiler()))
    loop.tick(100.0)
    assert traced(loop.state, loop.sent, HEADS[0], "wobble", 100.0, 1).steps == []
