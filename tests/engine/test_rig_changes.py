"""Lights that are found, moved and renamed while they play."""

import numpy as np
import pytest

from tests.engine.shows import HEADS, RIG, Live, effect, on_tempo, program, show
from zarabanda.core.playback.highlight import LOWERED
from zarabanda.core.rig import attributes
from zarabanda.engine.batching import Batching
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.errors import ZarabandaError
from zarabanda.messages import action as action_of
from zarabanda.outputs.base import MemoryOutput
from zarabanda.workers import Troubles


def with_fixture(number, **changes):
    return RIG | {"fixtures": [one | changes if one["id"] == number else one for one in RIG["fixtures"]]}


@pytest.fixture
def stage():
    """A loop whose frames are kept, without a thread of its own."""
    loop = Loop(LiveState(), [MemoryOutput()], clock=lambda: 10.0, sleep=lambda seconds: None)
    loop.frames = []
    loop.on_frame = lambda snapshot: loop.frames.append((snapshot.data.copy(), snapshot.values.copy()))
    yield loop
    loop.batching.close()


def running(*rigs):
    compiler = Compiler()
    return [program(show(effect(speed=on_tempo(0.5)), revision=n + 1), compiler, rig) for n, rig in enumerate(rigs)]


def test_another_address_leaves_all_that_plays_as_it_is():
    before, after = running(RIG, with_fixture(2, address=200))
    assert after.rig is not before.rig
    assert after.rig.heads is before.rig.heads
    assert after.instances["draft:1"] is before.instances["draft:1"], "nothing is placed anew"
    live = Live()
    live.swap(before, 10.0)
    theta = live.now.theta(live.now.playing["draft:1"], 11.3)
    live.swap(after, 11.3)
    assert live.now.theta(live.now.playing["draft:1"], 11.3) == theta
    batching = Batching(np.float64, Troubles())
    placed = [after.instances["draft:1"].placed]
    batching.prepare(before.rig, placed)
    made, _ = batching.batches_of(before.rig, placed)
    assert batching.batches_of(after.rig, placed) == (made, True), "and its batches are used on"
    batching.close()


def test_another_place_touches_what_is_on_it_alone():
    compiler = Compiler()
    two = show(effect(), revision=1)
    two["instances"] = [one | {"key": f"draft:{n}", "heads": heads} for n, (one, heads) in
                        enumerate(zip(two["instances"] * 2, (["1", "2"], ["3", "4"]), strict=True), 1)]  # fmt: skip
    before = program(two, compiler)
    after = program(two | {"revision": 2}, compiler, with_fixture(4, place=[9, 0, 5]))
    assert after.instances["draft:1"] is before.instances["draft:1"]
    assert after.instances["draft:2"] is not before.instances["draft:2"]
    assert after.rig.heads.keys is before.rig.heads.keys


@pytest.mark.parametrize("change", [{"place": [2, 5, 5]}, {"rotation": [0, 0, 90]}, {"address": 200}, {"name": "Moved"}])
def test_a_light_can_be_moved_while_a_control_has_it(change):
    compiler = Compiler()
    before, after = (
        program(show(effect(), control="fader", revision=n), compiler, rig)
        for n, rig in enumerate((RIG, with_fixture(2, **change)), 1)
    )
    assert list(after.controls) == list(before.controls) == ["control:1"]
    assert after.rig is not before.rig


def test_the_light_is_at_the_new_slots_with_the_next_frame_and_the_old_ones_are_at_0(stage):
    before, after = running(RIG, with_fixture(2, address=200))
    for one in (before, after):
        stage.swap(one)
        stage.tick(10.0)
    (data, values), (then, values_then) = stage.frames
    assert (data[0, 10:20].any(), then[0, 10:20].any()) == (True, False)
    assert data[0, 10:20].tolist() == then[0, 199:209].tolist()
    assert np.array_equal(values, values_then)


def test_shown_heads_are_bright_the_rest_is_lowered_and_off_leaves_everything_as_it_was(stage):
    stage.swap(program(show(effect(), draft={"intensity": dict.fromkeys(HEADS, 60.0), "red": {"2": 0.1}})))
    stage.tick(10.0)
    plain, values = stage.frames[-1]

    def shows(t, **action):
        stage.post(action_of({"do": "highlight", **action}))
        stage.tick(t)
        return stage.frames[-1]

    row = attributes.INTENSITY
    _, lit = shows(10.0, steps=[["2"]])
    assert lit[row, 1] == 100
    assert lit[attributes.RED, 1] == 1
    assert lit[row, [0, 2, 3]] == pytest.approx(values[row, [0, 2, 3]] * LOWERED)
    assert (shows(10.0, steps=[])[0] == plain).all()
    live = Live()
    with pytest.raises(ZarabandaError, match="no step 3"):
        live.act({"do": "highlight", "steps": [["1"], ["2"]], "at": 2}, 1.0)


def test_steps_go_on_with_the_beats_of_a_tempo_and_end_with_who_asked():
    live = Live()
    live.swap(program(show(effect())), 0.0)
    live.act({"do": "highlight", "steps": [[key] for key in HEADS], "at": 1, "tempo": "Movement", "holder": "a"}, 0.05)
    tempo = next(iter(live.now.tempos.values()))
    steps = [live.now.shown.step(live.now, tempo.time_of(beat + 0.01)) for beat in range(6)]
    assert steps == [1, 2, 3, 0, 1, 2]
    live.act({"do": "let-go", "holders": ["b"]}, 1.0)
    assert live.now.shown is not None
    live.act({"do": "let-go", "holders": ["a"]}, 1.0)
    assert live.now.shown is None


def test_what_heads_have_on_stage_is_told_below_the_levels(stage):
    (now,) = running(RIG)
    stage.swap(now)
    stage.tick(10.0)
    told = []
    stage.post(action_of({"do": "grand", "value": 0.5}))
    stage.post(action_of({"do": "highlight", "steps": [["1"]]}))
    stage.ask_stage(["1", "3", "99"], told.append)
    stage.tick(10.0)
    (look,) = told
    assert {name: sorted(heads) for name, heads in look.items()}["intensity"] == ["1", "3"]
    levels = stage.frames[0][1][attributes.INTENSITY]  # before the grand master came down
    assert [look["intensity"][key] for key in ("1", "3")] == pytest.approx([levels[0], levels[2]], abs=1e-3)
    assert look["zoom"]["1"] == pytest.approx(20)
