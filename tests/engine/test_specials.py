"""Specials: never light while moving, never a jump, home at the look's present phase; what is told of them; edits while on."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.shows import RIG, Live, rig_parts
from tests.thoroughness import thorough
from zarabanda.core.playback.frame import Frame, Levels
from zarabanda.core.playback.ground import Base, base_at
from zarabanda.core.rig import attributes
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.specials import crossing, told
from zarabanda.formats import replay_request
from zarabanda.messages import CueListPart, CuePart, ShowUpdate, SpecialPart
from zarabanda.replay import replay

OUT, UP, STEP = 0.5, 0.8, 0.05
SWAY = {
    "name": "Sway", "speed": {"kind": "time", "seconds_per_cycle": 3}, "spread": {"kind": "ripple", "degrees": 90},
    "layers": [{"attribute": "pan", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 20}}],
}  # fmt: skip
HEADS = ["a", "b", "c"]
SHOW = {
    "heads": [{"id": head, "x": n, "pan_speed": 100, "tilt_speed": 80} for n, head in enumerate(HEADS)],
    "home": {"intensity": 0, "pan": 0, "tilt": 0},
    "effects": [SWAY],
    "cue_lists": [{"name": "Songs", "cues": [{"number": 1, "values": {"intensity": dict.fromkeys(HEADS, 70)}}]}],
    "specials": [
        {"name": "Singer", "heads": ["a", "b"], "values": {"pan": 90, "tilt": 30}, "out": OUT, "up": UP},
        {"name": "Drums", "heads": ["b", "c"], "values": {"pan": -60, "tilt": 10}, "out": OUT, "move": 0.7, "up": UP},
    ],
}  # fmt: skip
LOOK = [{"at": 0, "do": "go", "list": "Songs"}, {"at": 0, "do": "put-on", "effect": "Sway", "heads": HEADS}]
NAMES = ("intensity", "pan", "tilt")


def played(actions, times):
    request = {"show": SHOW, "actions": [*LOOK, *actions], "times": times, "heads": HEADS, "attributes": list(NAMES)}
    return {name: np.array(rows) for name, rows in replay(replay_request.read(request))["values"].items()}


presses = st.lists(
    st.tuples(
        st.sampled_from([0.1, 0.35, 0.9, 2.0]),
        st.sampled_from([
            {"do": "special", "name": "Singer"}, {"do": "special", "name": "Singer", "on": False},
            {"do": "special", "name": "Drums"}, {"do": "special", "name": "Drums", "on": False}, {"do": "specials-home"},
        ]),
    ),
    min_size=1, max_size=7,
)  # fmt: skip


@thorough(20)
@given(presses)
def test_no_light_while_it_moves_no_jump_and_home_at_the_present_phase(drawn):
    actions, t = [], 1.0
    for wait, press in drawn:
        t += wait
        actions.append({"at": t, **press})
    end = t + 12.0
    times = np.arange(0.5, end, STEP).tolist()
    on = played([*actions, {"at": t + 6, "do": "specials-home"}], [*times, end])
    plain = played([], [*times, end])
    level = on["intensity"]
    assert np.abs(np.diff(level, axis=0)).max() <= STEP * 100 / min(OUT, UP) + 1e-6, "a level never jumps"
    lit = (level[:-1] > 0) & (level[1:] > 0)
    for name, most in (("pan", 25 * STEP), ("tilt", 0.0)):
        assert (np.abs(np.diff(on[name], axis=0))[lit] <= most + 1e-6).all(), "lit, it moves as the look's effect does, or not"
    for name in NAMES:
        assert on[name][-1] == pytest.approx(plain[name][-1]), "in the look, at its present phase"


def test_a_light_asked_for_twice_goes_through_the_dark_and_home_takes_all_of_them():
    actions = [{"at": 1, "do": "special", "name": "Singer"}, {"at": 5, "do": "special", "name": "Drums"}]
    both = played(actions, [4.9, 5.6, 9.0])
    assert both["pan"][0][1] == 90
    assert both["pan"][2][1] == -60
    assert both["intensity"][:, 1].tolist() == [100, 0, 100]
    assert both["intensity"][1][0] == 100
    home = played([*actions, {"at": 9, "do": "specials-home"}], [9.6, 16.0])
    assert home["intensity"][0].tolist() == [0, 0, 0]
    assert home["intensity"][1].tolist() == [70, 70, 70]


def test_the_level_of_all_specials_is_apart_from_everything_else():
    level = [{"at": 1, "do": "special", "name": "Singer"}, {"at": 5, "do": "specials-level", "value": 0.25}]
    half = played([*level, {"at": 5, "do": "grand", "value": 0.5}], [4.9, 5.1])
    assert half["intensity"].tolist() == [[100, 100, 70], [12.5, 12.5, 35]]


SINGER = SpecialPart(1, "Singer", ("1", "2"), {"intensity": dict.fromkeys(("1", "2"), 100.0)}, 0.5, 0.0, 0.5, (0.0, 0.0, 0.0))


def show(*specials):
    lit = {"intensity": dict.fromkeys(("1", "2", "3"), 60)}
    return ShowUpdate(
        "test", 1, [*rig_parts(RIG), CueListPart(1, "songs", 1, {}), CuePart(1, 1, 1.0, {"values": lit}), *specials], whole=True
    )


class Stage(Live):
    def __init__(self, *specials):
        super().__init__()
        self.compiler = Compiler()
        self.swap(self.compiler.take(show(*specials)), 0.0)
        self.act({"do": "go", "list": 1}, 0.0)

    def level(self, t):
        self.advance(t)
        state, rig = self.now, self.now.program.rig
        values = Frame(rig).values(Base(base_at(rig, state.claims, t)), [], Levels(), t, crossing(state))
        return np.round(values[attributes.INTENSITY, :3], 3).tolist()

    def phase(self, t):
        self.advance(t)
        (one,) = told(self.now, t)
        return one.phase, one.until and round(one.until, 3), one.lights


def test_what_is_told_follows_the_light_that_is_farthest_behind():
    stage = Stage(SINGER)
    assert stage.phase(0.5) == ("off", None, 0)
    stage.act({"do": "special", "special": 1}, 1.0)
    assert stage.phase(1.2) == ("to dark", 1.5, 2)
    phase, opens, _ = stage.phase(1.6)
    assert phase == "moving"
    assert opens >= 1.8
    assert stage.phase(opens + 0.1) == ("opening", round(opens + 0.5, 3), 2)
    assert stage.phase(opens + 1) == ("on", None, 2)
    stage.act({"do": "special", "special": 1, "on": False}, 20.0)
    assert stage.phase(20.1)[0] == "home to dark"
    assert stage.phase(20.6)[0] == "home moving"
    assert stage.phase(40.0) == ("off", None, 0)


def test_a_special_that_is_deleted_while_it_is_on_goes_home_through_the_dark():
    stage = Stage(SINGER)
    stage.act({"do": "special", "special": 1}, 1.0)
    assert stage.level(10.0) == [100, 100, 60]
    stage.swap(stage.compiler.take(show()), 10.0)
    assert stage.level(10.25) == [50, 50, 60], "it goes down, and does not jump into the look"
    assert stage.level(10.6)[:2] == [0, 0]
    assert stage.level(30.0) == [60, 60, 60]
    assert not stage.now.specials.on


def test_a_light_that_is_taken_out_of_a_special_goes_home_and_the_others_stay():
    stage = Stage(SINGER)
    stage.act({"do": "special", "special": 1}, 1.0)
    one = SpecialPart(1, "Singer", ("1",), {"intensity": {"1": 100.0}}, 0.5, 0.0, 0.5, (0.0, 0.0, 0.0))
    stage.swap(stage.compiler.take(show(one)), 10.0)
    assert stage.level(10.25) == [100, 50, 60]
    assert stage.level(30.0) == [100, 60, 60]
