"""The live state: actions, phase over edits, what is gone."""

import numpy as np
import pytest

from tests.engine.shows import Live, effect, on_tempo, program, show
from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.playback.ground import base_at
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.tempo import Tempo
from zarabanda.errors import ZarabandaError
from zarabanda.messages import Audition, DraftValuesPart, ShowUpdate


class Desk:
    """A live state with a compiler, to edit and to look at."""

    def __init__(self, message, t=0.0):
        self.compiler = Compiler()
        self.state = Live()
        self.edit(message, t)

    def edit(self, message, t):
        self.state.swap(program(message, self.compiler), t)

    def intensity(self, t):
        """Of all four heads at t, % from a base of 0, as far as what plays says."""
        state = self.state
        every = list(state.playing.values())
        rig = state.program.rig
        values = np.zeros(rig.low.size)
        batches = Batches([one.instance.placed for one in every], len(rig), rig.mixes)
        theta = np.array([state.theta(one, t) for one in every])
        weight = np.array([one.weight(t) for one in every])
        batches.apply(values, Running(theta, weight, [one.layer_shifts for one in every]))
        return values[:4]


def test_a_draft_effect_runs_at_once_and_fades_when_it_is_gone():
    desk = Desk(show(effect()), t=10.0)
    assert desk.intensity(10.25)[0] == pytest.approx(25)
    desk.edit({**show(effect()), "instances": []}, 10.5)
    assert desk.intensity(10.5)[0] == pytest.approx(50)
    assert 0 < desk.intensity(10.7)[0] < 70
    desk.state.advance(11.0)
    assert not desk.state.playing


EDITS = {
    "speed in seconds": lambda e: e | {"speed": {"kind": "time", "seconds_per_cycle": 3.0}},
    "to a tempo": lambda e: e | {"speed": on_tempo(0.5)},
    "ratio": lambda e: e | {"layers": [e["layers"][0] | {"ratio": 3}]},
    "run": lambda e: e | {"run": "back-and-forth"},
    "drift": lambda e: e | {"drift": [50, 200]},
}
RELAY_EDITS = {
    "handover": lambda e: e | {"spread": e["spread"] | {"handover": 0.8}},
    "what speed counts": lambda e: e | {"spread": e["spread"] | {"speed_counts": "circuits"}},
}


@pytest.mark.parametrize("name", EDITS)
def test_an_edit_keeps_the_phase(name):
    desk = Desk(show(effect()))
    t = 5.3
    before = desk.intensity(t)
    desk.edit(show(EDITS[name](effect()), revision=2), t)
    np.testing.assert_allclose(desk.intensity(t)[0], before[0], atol=1e-6)
    np.testing.assert_allclose(desk.intensity(t + 1e-4)[0], before[0], atol=0.1)


@pytest.mark.parametrize("name", RELAY_EDITS)
def test_an_edit_of_a_relay_keeps_the_turn_of_lane_0(name):
    relay = effect(spread={"kind": "relay", "handover": 0.5, "order": "in-turn", "speed_counts": "turns"})
    desk = Desk(show(relay))
    t = 8.3
    before = desk.intensity(t)
    assert before[0] > 0
    desk.edit(show(RELAY_EDITS[name](relay), revision=2), t)
    assert desk.intensity(t)[0] == pytest.approx(before[0], abs=1e-6)


def test_a_change_of_start_or_depth_is_seen_at_once():
    desk = Desk(show(effect()))
    layer = effect()["layers"][0] | {"start": 90}
    desk.edit(show(effect(layers=[layer]), revision=2), 3.1)
    assert desk.intensity(3.1)[0] == pytest.approx(35)


def test_phase_is_continuous_over_changes_of_tempo():
    desk = Desk(show(effect(speed=on_tempo())))
    state = desk.state
    for t, action in ((1.0, {"do": "bpm", "tempo": "Movement", "value": 180}), (2.2, {"do": "tap", "tempo": "Movement"}),
                      (2.65, {"do": "tap", "tempo": "Movement"}), (3.1, {"do": "tap", "tempo": "Movement"})):  # fmt: skip
        (playing,) = state.playing.values()
        before = state.theta(playing, t)
        state.act(action, t)
        assert state.theta(playing, t) == pytest.approx(before, abs=1e-9)


def test_taps_set_the_rate_and_the_beat_falls_on_them():
    desk = Desk(show(effect(speed=on_tempo())))
    for n in range(5):
        desk.state.act({"do": "tap", "tempo": "Movement"}, 10.0 + n * 0.4)
    tempo = desk.state.tempo("Movement")
    assert tempo.bpm == pytest.approx(150)
    for beats in (1, 2, 7):
        beat = tempo.beats(11.6 + 0.4 * beats)
        assert beat == pytest.approx(round(beat), abs=1e-6)


def test_a_finger_that_bounces_taps_once():
    tempo = Tempo(120.0).tapped(10.0)
    assert tempo.tapped(10.0) == tempo.tapped(10.03) == tempo
    assert tempo.tapped(10.5).bpm == pytest.approx(120)


def test_line_up_puts_all_effects_on_the_beat():
    desk = Desk(show(effect(speed=on_tempo())))
    desk.edit(show(effect(speed=on_tempo(0.5)), revision=2), 3.3)
    desk.state.act({"do": "line-up", "tempo": "Movement"}, 4.0)
    (playing,) = desk.state.playing.values()
    assert desk.state.theta(playing, 5.0) == pytest.approx(0.5 * desk.state.beats("Movement", 5.0))


def test_a_fader_sets_the_weight_and_starts_and_ends():
    desk = Desk(show(effect(), control="fader"))
    assert not desk.state.playing
    desk.state.act({"do": "level", "control": "control:1", "value": 0.5}, 1.0)
    assert desk.intensity(1.5)[0] == pytest.approx(25)
    desk.state.act({"do": "level", "control": "control:1", "value": 0.8}, 1.6)
    assert desk.intensity(1.75)[0] == pytest.approx(60)
    desk.state.act({"do": "level", "control": "control:1", "value": 0}, 2.0)
    assert not desk.state.playing


def test_a_flash_runs_while_held_and_releases_softly():
    desk = Desk(show(effect(), control="flash"))
    press = {"do": "press", "control": "control:1"}
    desk.state.act(press | {"down": True}, 1.0)
    assert desk.intensity(1.6)[0] == pytest.approx(60)
    desk.state.act(press | {"down": False}, 1.6)
    assert desk.intensity(1.85)[0] == pytest.approx(85 * 0.5)
    desk.state.advance(2.2)
    assert not desk.state.playing


def test_a_latch_goes_on_and_off_by_presses():
    desk = Desk(show(effect(), control="latch"))
    for t, down, on in ((1, True, True), (1.1, False, True), (2, True, False), (2.1, False, False)):
        desk.state.act({"do": "press", "control": "control:1", "down": down}, t)
        assert (desk.state.levels["control:1"] > 0) == on


def test_stop_all_brings_everything_to_base_and_run_starts_again():
    desk = Desk(show(effect()))
    desk.state.act({"do": "stop-all"}, 2.0)
    assert desk.intensity(2.5)[0] == 0
    desk.state.advance(2.5)
    desk.edit(show(effect(name="renamed"), revision=2), 3.0)
    assert not desk.state.playing, "an edit does not start what was stopped"
    desk.state.act({"do": "run", "key": "draft:1"}, 4.0)
    assert desk.intensity(4.2)[0] == pytest.approx(20)


def test_freeze_holds_and_goes_on_from_there():
    desk = Desk(show(effect()))
    desk.state.act({"do": "freeze", "key": "draft:1"}, 1.25)
    assert desk.intensity(1.9)[0] == pytest.approx(25)
    desk.state.act({"do": "freeze", "key": "draft:1", "on": False}, 2.0)
    assert desk.intensity(2.1)[0] == pytest.approx(35)


def test_an_effect_that_ends_lets_go_of_its_control():
    desk = Desk(show(effect(ends_after=2), control="latch"))
    desk.state.act({"do": "press", "control": "control:1"}, 1.0)
    desk.state.advance(2.9)
    assert desk.state.playing
    desk.state.advance(3.01)
    assert not desk.state.playing
    assert desk.state.levels["control:1"] == 0


def test_opening_actions_run_once():
    opening = [{"do": "level", "control": "control:1", "value": 0.7}]
    message = show(effect(), control="fader", opening=opening)
    desk = Desk(message)
    assert desk.state.levels == {"control:1": 0.7}
    desk.state.act({"do": "level", "control": "control:1", "value": 0}, 1)
    desk.edit(message | {"revision": 2}, 2.0)
    assert not desk.state.playing


@pytest.mark.parametrize(
    ("action", "part"),
    [
        ({"do": "fly"}, "There is no action 'fly'"),
        ({}, "There is no action None"),
        ({"do": "level", "control": "control:9", "value": 1}, "no longer on the page"),
        ({"do": "level", "control": "control:1", "value": 7}, "from 0 to 1"),
        ({"do": "level", "control": "control:1", "value": "x"}, "level cannot be read: Expected `float`, got `str`"),
        ({"do": "grand", "value": True}, "grand cannot be read: Expected `float`, got `bool`"),
        ({"do": "grand", "value": 1, "more": 2}, "unknown field `more`"),
        ({"do": "bpm", "tempo": "Movement", "value": 5}, "10 to 400"),
        ({"do": "tap", "tempo": "Nothing"}, "no tempo 'Nothing'"),
        ({"do": "stop", "key": "x"}, "does not run"),
        ({"do": "run", "key": "x"}, "not there"),
    ],
)
def test_bad_actions_are_refused_with_what_to_do(action, part):
    desk = Desk(show(effect(), control="fader"))
    with pytest.raises(ZarabandaError, match=part):
        desk.state.act(action, 0.0)


@pytest.mark.parametrize(("job", "weight", "per_second"), [("depth", 0.5, 1.0), ("speed", 1.0, 0.5), ("both", 0.5, 0.5)])
def test_a_fader_does_the_job_that_was_chosen_without_a_jump(job, weight, per_second):
    message = show(effect(), control="fader")
    message["controls"][0]["job"] = job
    desk = Desk(message)
    desk.state.act({"do": "level", "control": "control:1", "value": 1.0}, 0.0)
    before = desk.state.theta(desk.state.playing["control:1"], 3.25)
    desk.state.act({"do": "level", "control": "control:1", "value": 0.5}, 3.25)
    playing = desk.state.playing["control:1"]
    assert desk.state.theta(playing, 3.25) == pytest.approx(before)
    assert playing.weight(3.25) == pytest.approx(weight)
    assert desk.state.theta(playing, 5.25) - before == pytest.approx(2 * per_second)
    desk.state.act({"do": "level", "control": "control:1", "value": 0}, 6.0)
    assert "control:1" not in desk.state.playing


def test_layers_of_families_that_a_control_does_not_keep_are_silent():
    document = effect(
        layers=[
            *effect()["layers"],
            {"attribute": "position", "form": {"kind": "path", "path": "circle", "width": 9, "height": 9}},
        ]
    )
    message = show(document, control="latch")
    message["instances"][0]["families"] = ["position"]
    blocks = program(message).instances["control:1"].placed.blocks
    assert [block.layer.attribute for block in blocks] == ["position"]


def test_an_audition_runs_beside_the_show_and_fades_when_it_ends():
    desk = Desk(show(effect()))
    compiler = desk.compiler
    desk.state.swap(compiler.audition(Audition(7, effect(name="tried"), ["1", "2"])), 1.0)
    assert list(desk.state.playing) == ["draft:1", "audition"]
    desk.state.swap(compiler.audition(None), 2.0)
    assert desk.state.playing["audition"].stopping
    desk.state.advance(3.0)
    assert list(desk.state.playing) == ["draft:1"]


def test_what_is_let_go_ends_without_a_fade():
    desk = Desk(show(effect()))
    compiler = desk.compiler
    desk.state.swap(program(show(effect()) | {"instances": []}, compiler, let_go=["draft:1"]), 1.0)
    assert not desk.state.playing
    assert compiler.preview_values({}).let_go == ()


def test_values_set_by_hand_fade_from_what_is_there_and_back_to_home():
    desk = Desk(show(effect(), instances=[]))

    def set_to(level, t, fade_s):
        parts = [DraftValuesPart("intensity", {"1": level})] if level is not None else []
        gone = [] if parts else [("draft-values", "intensity")]
        update = ShowUpdate("test", 2, parts, gone, fade_s=fade_s)
        desk.state.swap(desk.compiler.take(update), t)

    def level(t):
        desk.state.advance(t)
        return base_at(desk.state.program.rig, desk.state.claims, t)[0, 0]

    set_to(80.0, 10.0, 2.0)
    assert [level(t) for t in (10.0, 11.0)] == [0.0, 40.0]
    set_to(0.0, 11.0, 1.0)
    assert [level(t) for t in (11.0, 11.5, 12.5)] == [40.0, 20.0, 0.0]
    set_to(60.0, 13.0, 0.0)
    set_to(None, 14.0, 4.0)
    assert [level(t) for t in (13.5, 15.0, 18.0)] == [60.0, 45.0, 0.0]
    assert not desk.state.claims.strips, "what is released for good is gone"
