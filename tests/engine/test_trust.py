"""The lights go on: frames that fail, programs that cannot be played, what is held by who is gone."""

from dataclasses import replace

import numpy as np
import pytest

from tests.engine.shows import HEADS, RIG, Live, effect, on_tempo, program, show, two
from tests.engine.test_loop import Clock
from zarabanda.core.playback.ground import base_at
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.errors import ZarabandaError
from zarabanda.messages import action
from zarabanda.outputs.base import MemoryOutput


def looping():
    clock, output = Clock(), MemoryOutput()
    clock.now = 100.25
    loop = Loop(LiveState(), [output], clock=clock, sleep=clock.sleep)
    compiler = Compiler()
    loop.swap(program(show(effect()), compiler))
    loop.tick(100.25)
    return loop, output, compiler


def broken(message, compiler):
    """A program that compiles, but of which no frame can be made."""
    made = program(message, compiler)
    instance = made.instances["draft:1"]
    blocks = tuple(replace(block, head=block.head + 1000) for block in instance.placed.blocks)
    return replace(made, instances={"draft:1": replace(instance, placed=replace(instance.placed, blocks=blocks))})


def test_a_program_of_which_no_frame_can_be_made_gives_way_to_the_one_before():
    loop, output, compiler = looping()
    proven = []
    loop.on_proven = proven.append
    good = output.frames[-1][1]
    loop.swap(broken(show(effect(name="other"), revision=2), compiler))
    seen = []
    loop.on_failed = lambda t: seen.append(loop.troubles.report())
    for n in range(40):
        loop.tick(100.25 + n / 44)
    assert len(output.frames) == 41, "a frame each time"
    np.testing.assert_array_equal(output.frames[1][1], good)
    assert loop.state.program.revision == 1
    assert 20 < loop.health.errors < 25
    assert "Frame" in {one["who"] for one in seen[0]}, "told while it fails"
    told = {one["who"]: one["text"] for one in loop.troubles.report()}
    assert "goes on as it was before; undo that edit" in told["Show"]
    assert output.frames[-1][1].any()
    assert {one.revision for one in proven} <= {1}, "a restarted engine does not begin with it"


def test_one_output_that_fails_keeps_no_other_from_it():
    loop, output, _ = looping()

    class Failing(MemoryOutput):
        def send(self, universes, data, now):
            raise RuntimeError("cable")

    loop.outputs.insert(0, Failing())
    loop.tick(100.3)
    assert len(output.frames) == 2
    assert loop.troubles.report() == [{"who": "Output", "text": "RuntimeError: cable"}]


def test_the_newest_of_waiting_programs_is_taken_and_what_is_let_go_goes():
    loop, _, compiler = looping()
    loop.swap(program(show(effect(), revision=2, instances=[]), compiler, let_go=["draft:1"]))
    loop.swap(compiler.preview_values({"intensity": {"1": 30.0}}))
    loop.tick(100.3)
    assert base_at(loop.state.program.rig, loop.state.claims, 100.3)[0, 0] == 30.0
    assert not loop.state.playing


def test_an_action_that_cannot_be_done_keeps_no_other_from_it():
    loop, _, _ = looping()
    refused = []
    loop.post(action({"do": "level", "control": "control:1", "value": float("nan")}), refused.append)
    loop.post("what no action is", refused.append)
    loop.post(action({"do": "grand", "value": 0.5}), refused.append)
    loop.tick(100.3)
    assert len(refused) == 2
    assert loop.state.grand == 0.5


@pytest.mark.parametrize("level", [1.0, 0.25])
def test_what_is_frozen_is_looked_at_as_it_is_on_stage(level):
    loop = looping()[0]
    layer = effect()["layers"][0] | {"anchor": {"kind": "above", "depth": 80}}
    message = show(effect(layers=[layer]), control="fader", revision=2, draft={"intensity": {"2": 10.0}})
    loop.swap(program(message))
    looks = []
    loop.ask_look("control:1", looks.append)
    loop.post(action({"do": "level", "control": "control:1", "value": level}))
    loop.tick(200.0)
    loop.post(action({"do": "freeze", "key": "control:1"}))
    loop._actions[-1] = (200.5, *loop._actions[-1][1:])
    loop.ask_look("control:1", looks.append)
    loop.tick(200.5)
    assert looks[0] is None, "it was not frozen"
    share = loop.state.theta(loop.state.playing["control:1"], 201) % 1
    expected = {head: (10.0 if head == "2" else 0.0) + level * 80 * share for head in HEADS}
    assert looks[1] == {"intensity": pytest.approx(expected)}


# programs and the live state


def desk(message, t=0.0):
    compiler = Compiler()
    state = Live()
    state.swap(program(message, compiler), t)
    return state, compiler


def test_another_rig_while_playing_plays_on_with_the_heads_that_are_there():
    loop, output, _ = looping()
    fewer = RIG | {"fixtures": RIG["fixtures"][:2]}
    compiler = Compiler()
    loop.swap(program(show(effect(), revision=2), compiler, fewer))
    loop.tick(100.5)
    data = output.frames[-1][1]
    assert data[0, 4] == data[0, 14] == 64
    assert not data[0, 20:].any(), "these fixtures are gone"
    state, _ = desk(two(effect(), effect()))
    for n in (1, 2):
        state.act({"do": "press", "control": f"control:{n}"}, 0.0)
    one = two(effect(), effect()) | {"instances": two(effect(), effect())["instances"][:1]}
    state.swap(program(one, compiler, fewer), 1.0)
    assert list(state.playing) == ["control:1"], "on another rig nothing fades out where it was"


def test_what_was_stopped_may_start_again_once_it_was_gone():
    state, compiler = desk(show(effect()))
    state.act({"do": "stop", "key": "draft:1"}, 1.0)
    state.advance(3.0)
    state.swap(program(show(effect(), revision=2, instances=[]), compiler), 3.0)
    assert state.stopped == set()
    state.swap(program(show(effect(), revision=3), compiler), 4.0)
    assert list(state.playing) == ["draft:1"]


def test_line_up_takes_back_the_shifts_of_effects_on_its_tempo_alone():
    state, compiler = desk(two(effect(speed=on_tempo()), effect()))
    for n in (1, 2):
        state.act({"do": "press", "control": f"control:{n}"}, 0.3)
    faster = [effect()["layers"][0] | {"ratio": 3}]
    state.swap(program(two(effect(speed=on_tempo(), layers=faster), effect(layers=faster), revision=2), compiler), 1.35)
    first, second = state.playing.values()
    assert any(first.layer_shifts)
    before = second.layer_shifts
    state.act({"do": "line-up", "tempo": "Movement"}, 2.0)
    first, second = state.playing.values()
    assert first.layer_shifts == ()
    assert state.theta(first, 2.5) == pytest.approx(state.beats("Movement", 2.5))
    assert second.layer_shifts == before
    assert any(before)


def test_what_is_started_last_acts_last():
    state, _ = desk(two(effect(), effect()))
    press = [{"do": "press", "control": f"control:{n}", "down": down} for n in (1, 2) for down in (True, False)]
    state.act(press[0], 1.0)
    state.act(press[2], 1.1)
    assert list(state.playing) == ["control:1", "control:2"]
    state.act(press[1], 1.2)
    state.act(press[0], 1.3)
    assert list(state.playing) == ["control:2", "control:1"]


def test_the_order_that_a_program_brings_is_foretold():
    state, compiler = desk(show(effect()))
    state.act({"do": "stop", "key": "draft:1"}, 1.0)
    state.now = state.with_(stopped=frozenset())
    messages = [show(effect(name="x"), revision=2), show(effect(), revision=3, instances=[]), two(effect(), effect())]
    for t, message in enumerate(messages):
        made = program(message, compiler)
        foretold = state.order_in(made)
        state.swap(made, 1.1 + t / 100)
        assert list(state.playing) == foretold


def test_a_changed_palette_reaches_what_plays():
    goes = {"attribute": "intensity", "form": {"kind": "stops", "stops": [{"value": {"palette": "Low"}, "travel": 0, "hold": 1}]}}
    loop = looping()[0]
    compiler = Compiler()
    for revision, level in enumerate((20.0, 60.0), 5):
        palettes = {"Low": {"values": {"intensity": level}, "own": {}}}
        loop.swap(program(show(effect(layers=[goes]), revision=revision, palettes=palettes), compiler))
        loop.tick(101.0 + revision)
        assert loop.outputs[0].frames[-1][1][0, 4] == int(level / 100 * 255 + 0.5)


def test_one_effect_that_cannot_be_read_keeps_no_other_from_playing():
    message = two(effect(), {"name": "half"})
    made = program(message)
    assert list(made.instances) == ["control:1"]
    assert "cannot be read" in made.faults[0]


def test_tempos_go_with_the_show_and_follow_its_bpm():
    state, compiler = desk(show(effect(), tempos={"Movement": 120.0, "Colour": 90.0}))
    state.act({"do": "bpm", "tempo": "Colour", "value": 100}, 0.5)
    state.swap(program(show(effect(), revision=2, tempos={"Movement": 140.0, "Zoom": 60.0}), compiler), 1.0)
    assert {state.program.tempos[number].name: tempo.bpm for number, tempo in state.tempos.items()} == {
        "Movement": 140.0,
        "Zoom": 60.0,
    }
    assert state.beats("Movement", 1.0) == pytest.approx(2.0)
    state.act({"do": "bpm", "tempo": "Movement", "value": 100}, 1.5)
    state.swap(program(show(effect(), revision=3, tempos={"Movement": 140.0, "Zoom": 60.0}), compiler), 2.0)
    assert state.tempo("Movement").bpm == 100, "what was tapped stays, where the show says nothing new"


def test_opening_actions_are_done_once_and_one_that_is_obsolete_keeps_no_other_from_it():
    opening = [{"do": "level", "control": "control:9", "value": 1}, {"do": "grand", "value": 0.6}]
    state, compiler = desk(show(effect(), revision=1, instances=[], opening=opening))
    assert state.grand == 0.6
    state.act({"do": "grand", "value": 1.0}, 1.0)
    state.swap(program(show(effect(), revision=2, opening=opening), compiler), 2.0)
    assert state.grand == 1.0, "not again when the show gets its first effect"
    fresh = Live()
    told = fresh.swap(program(show(effect(), opening=opening), compiler), 0.0)
    assert len(told) == 1
    assert "no longer on the page" in told[0]


@pytest.mark.parametrize(
    ("gone", "still_on"),
    [
        ({"holders": ["a"]}, True),
        ({"holders": ["a", "b"]}, False),
        ({"but": ["b", "c"]}, True),
        ({"but": ["c"]}, False),
    ],
)
def test_a_flash_is_on_as_long_as_somebody_holds_it(gone, still_on):
    state, _ = desk(show(effect(), control="flash"))
    for holder in ("a", "b"):
        state.act({"do": "press", "control": "control:1", "holder": holder}, 1.0)
    state.act({"do": "let-go", **gone}, 1.5)
    assert (state.levels["control:1"] > 0) == still_on
    assert state.playing["control:1"].stopping != still_on
    state.act({"do": "press", "control": "control:1", "down": False, "holder": "b"}, 1.6)
    assert state.playing["control:1"].stopping
    assert state.held == {}


def test_a_latch_is_nobodys_to_hold():
    state, _ = desk(show(effect(), control="latch"))
    state.act({"do": "press", "control": "control:1", "holder": "a"}, 1.0)
    state.act({"do": "let-go", "holders": ["a"]}, 1.5)
    assert state.levels["control:1"] == 1
    with pytest.raises(ZarabandaError):
        state.act({"do": "let-it-be"}, 2.0)
