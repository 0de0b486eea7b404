"""Looks, overlays, heads alone, levels of groups, and what faders and buttons do."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.bank import ALL, BLUE, CIRCLE, CONTROLS, GREEN, LOOKS, WARM, Bank
from tests.engine.busking import LEFT, RED, STAGE, SWELL, TOP, WAVE
from tests.thoroughness import thorough
from zarabanda.core.playback.alone import Stayers, alone
from zarabanda.core.rig import attributes
from zarabanda.engine.live.controls import level_of
from zarabanda.engine.live.looks_held import told as looks_told
from zarabanda.engine.live.overlays import told
from zarabanda.errors import ZarabandaError


def red(**more):
    bank = Bank(**more)
    bank.act({"do": "row-level", "row": LEFT, "value": 1.0}, 0.0)
    bank.pad(RED, 0.0)
    return bank


def test_an_overlay_lies_over_what_runs_by_its_fader_and_leaves_the_very_same_values():
    bank = red()
    before = bank.at(1.0)
    bank.move("blue", 0.25, 1.0)
    assert bank.of("red", 1.0)[0] == 0.75
    assert bank.of("blue", 1.0)[0] == 0.25
    assert bank.of("zoom", 1.0)[0] == pytest.approx(before[attributes.INDEX["zoom"], 0] * 0.75 + 10)
    bank.move("blue", 1.0, 2.0)
    assert bank.colours(2.0)[0] == "b"
    bank.move("blue", 0.0, 3.0)
    assert (bank.at(3.0) == before).all()
    assert not bank.now.overlays


def test_overlays_lie_over_one_another_in_their_order_which_can_be_changed():
    bank = red()
    bank.move("blue", 1.0, 1.0)
    bank.press("green", 1.0)
    assert bank.colours(4.0) == ["g", "g", "b", "b"]
    bank.edit(5.0, looks={GREEN: None, 6: LOOKS[GREEN], BLUE: None, 8: LOOKS[BLUE]})
    assert [one.name for one in told(bank.now, 5.0)] == ["Circle", "Green", "Blue"]


def test_attack_and_release_of_a_latch_and_of_a_flash_over_a_fader_that_is_up():
    bank = red()
    bank.press("green", 1.0)
    assert [bank.of("green", t)[0] for t in (1.0, 2.0, 3.0)] == [0.0, 0.5, 1.0]
    bank.press("green", 4.0)
    assert [bank.of("green", t)[0] for t in (4.5, 5.0)] == [0.5, 0.0]
    bank.act({"do": "overlay-level", "overlay": CIRCLE, "value": 0.4}, 6.0)
    bank.press("circle", 6.0)
    bank.press("circle", 6.0, holder="b")
    (circle,) = [one for one in told(bank.now, 6.7) if one.name == "Circle"]
    assert (round(circle.share, 3), circle.level, circle.until) == (0.7, 0.4, 7.0)
    bank.press("circle", 8.0, down=False)
    assert bank.now.overlays[CIRCLE].share(8.9) == 1.0, "the other hand still holds it"
    bank.press("circle", 9.0, down=False, holder="b")
    assert bank.now.overlays[CIRCLE].share(9.5) == 0.5
    assert bank.now.overlays[CIRCLE].share(11.0) == 0.4


def test_effects_of_an_overlay_go_around_what_is_below_by_its_fader():
    plain, half, whole = red(), red(), red()
    for bank in (plain, half, whole):
        bank.pad(STAGE, 0.0)
    half.act({"do": "overlay-level", "overlay": CIRCLE, "value": 0.5}, 1.0)
    whole.act({"do": "overlay-level", "overlay": CIRCLE, "value": 1.0}, 1.0)
    base, moved, fully = (np.array(bank.of("pan", 1.3)) for bank in (plain, half, whole))
    assert base[0] == 30
    assert np.abs(fully - base).max() > 3
    assert moved - base == pytest.approx((fully - base) / 2, abs=1e-3)


moves = st.lists(
    st.tuples(st.sampled_from([BLUE, GREEN, CIRCLE]), st.sampled_from([0.0, 0.3, 1.0]), st.floats(0.05, 0.8)), max_size=8
)


@thorough(40)
@given(moves, st.permutations([BLUE, GREEN, CIRCLE]))
def test_overlays_mixed_in_and_out_in_any_order_leave_what_runs_as_it_was(drawn, order):
    bank, plain = red(), red()
    for one in (bank, plain):
        one.pad(SWELL, 0.2)
        one.pad(WAVE, 0.2)
    t = 1.0
    for number, value, pause in drawn:
        bank.act({"do": "overlay-level", "overlay": number, "value": value}, t)
        t += pause
    for number in order:
        bank.act({"do": "overlay-level", "overlay": number, "value": 0.0}, t)
    assert np.allclose(bank.at(t + 0.3), plain.at(t + 0.3), atol=1e-9)


def test_an_overlay_that_is_edited_goes_to_what_it_is_by_now_and_one_that_is_deleted_goes_out():
    bank = red()
    bank.move("blue", 1.0, 1.0)
    white = {"values": {"colour": dict.fromkeys(ALL, "#ff00ff")}}
    bank.edit(2.0, looks={BLUE: ("Blue", True, white)})
    assert [bank.of("red", t)[0] for t in (2.0, 2.1, 2.2)] == pytest.approx([0.0, 0.5, 1.0])
    assert bank.of("zoom", 2.2)[0] == 20, "what it has no more goes too"
    bank.edit(3.0, looks={BLUE: None})
    assert [bank.of("blue", t)[0] for t in (3.0, 3.2, 3.4)] == pytest.approx([1.0, 0.5, 0.0])


def test_a_way_round_the_hues_begins_from_what_was_beneath():
    bank = Bank()
    bank.edit(0.0, looks={})
    rows = bank.made_of()
    from zarabanda.messages import ColourWayPart, ShowUpdate

    bank.swap(bank.compiler.take(ShowUpdate("test", 2, [*rows, ColourWayPart("hsv-short")], whole=True)), 0.0)
    bank.act({"do": "row-level", "row": LEFT, "value": 1.0}, 0.0)
    bank.pad(RED, 0.0)
    bank.move("blue", 0.5, 1.0)
    assert [bank.of(name, 1.0)[0] for name in ("red", "green", "blue")] == [1.0, 0.0, 1.0], "magenta, not a dark violet"


def test_a_look_with_an_effect_comes_and_goes_in_its_times_and_uncovers_what_was_there():
    bank = red()
    bank.press("warm", 1.0)
    assert [bank.of("pan", t)[0] for t in (1.0, 2.0, 3.0)] == [0.0, 22.5, 45.0]
    (effect,) = [one for one in bank.now.playing.values() if one.instance.key == "control:4:0"]
    assert effect.weight(2.0) == 0.5
    assert [(one.control, one.name) for one in looks_told(bank.now)] == [("control:4", "Warm")]
    bank.press("warm", 10.0)
    assert bank.of("pan", 12.0)[0] == 22.5
    assert bank.now.playing["control:4:0"].weight(12.0) == 0.5
    bank.advance(14.0)
    assert "control:4:0" not in bank.now.playing
    assert bank.of("pan", 14.0)[0] == 0.0


def test_a_look_on_a_fader_uncovers_as_much_as_the_fader_says_also_of_its_effect():
    bank = Bank()
    bank.move("warm fader", 0.5, 1.0)
    assert bank.of("pan", 1.0)[:2] == [22.5, 22.5]
    assert bank.now.playing["control:5:0"].weight(1.0) == 0.5
    bank.move("warm fader", 1.0, 2.0)
    assert bank.of("pan", 2.0)[0] == 45.0
    bank.move("warm fader", 0.0, 3.0)
    assert bank.of("pan", 3.0)[0] == 0.0
    assert not bank.now.playing


def test_a_whole_stage_look_holds_everything_dark_but_one():
    bank = red()
    bank.press("dark", 1.0)
    assert bank.of("intensity", 1.0) == [100, 100, 0, 80], "the level of a row is highest wins"
    bank.act({"do": "row-level", "row": LEFT, "value": 0.0}, 1.0)
    assert bank.of("intensity", 1.1) == [0, 0, 0, 80]
    bank.press("dark", 2.0, down=False)
    assert bank.of("intensity", 2.0)[3] == 0


@pytest.mark.parametrize(
    ("held", "levels"),
    [
        ({"alone": 1.0}, [1, 0, 0, 0]), ({"alone": 0.25}, [1, 0.75, 0.75, 0.75]),
        ({"alone": 1.0, "alone too": 1.0}, [1, 1, 0, 0]), ({"alone": 1.0, "alone too": 0.5}, [1, 0.5, 0, 0]),
    ],
)  # fmt: skip
def test_who_is_alone_stays_and_all_others_go_dark(held, levels):
    bank = Bank()
    rig = bank.now.program.rig
    stayers = {"alone": Stayers(rig, np.array([0])), "alone too": Stayers(rig, np.array([0, 1]))}
    stage = alone(rig, [(stayers[name], share) for name, share in held.items()])
    assert stage.factors.tolist() == levels


def test_alone_while_held_goes_softly_and_releases_nothing():
    bank = red()
    bank.press("alone", 1.0)
    assert bank.of("intensity", 1.0)[:2] == [100, 0]
    bank.press("alone", 2.0, down=False)
    assert [bank.of("intensity", t)[1] for t in (2.0, 2.25, 2.5)] == [0, 50, 100]
    bank.press("alone", 3.0)
    bank.act({"do": "let-go", "holders": ["a"]}, 3.0)
    assert bank.of("intensity", 4.0)[1] == 100, "a hand that is gone lets go"


def test_the_level_of_a_group_is_apart_from_specials_and_comes_back_when_its_fader_goes():
    bank = red()
    bank.edit(0.5)
    bank.move("group", 0.5, 1.0)
    assert bank.of("intensity", 1.0)[:2] == [50, 50]
    bank.edit(2.0, without=("group",))
    assert [bank.of("intensity", t)[0] for t in (2.0, 2.2, 2.4)] == [50, 75, 100]
    bank.edit(3.0)
    bank.press("singer", 3.0)
    bank.move("master", 0.5, 9.0)
    assert bank.of("intensity", 9.0)[2] == 50


def state_of(bank, name, t):
    control = next(one for one in bank.now.program.controls.values() if one.name == name)
    return level_of(bank.now, control)


FADERS = {
    "level": lambda bank: bank.now.lists[1].level, "bpm": lambda bank: (bank.tempo("Movement").bpm - 20) / 220,
    "specials": lambda bank: bank.now.specials.level, "master": lambda bank: bank.now.grand,
    "row": lambda bank: bank.now.rows[TOP].depth.share(9.0), "blue": lambda bank: bank.now.overlays[BLUE].share(9.0),
    "group": lambda bank: bank.now.group_levels[7].share.share(9.0),
    "swell": lambda bank: bank.now.playing["control:28"].weight(9.0),
    "send": lambda bank: float(bank.now.outbox.messages[-1].content["arguments"]),
}  # fmt: skip


@pytest.mark.parametrize("name", FADERS)
def test_faders_do_their_jobs_and_tell_where_they_are(name):
    bank = Bank()
    bank.move(name, 0.25, 1.0)
    assert FADERS[name](bank) == pytest.approx(0.25, abs=1e-3)
    assert state_of(bank, name, 9.0) == pytest.approx(0.25, abs=1e-3)


def test_a_fader_follows_what_others_do_with_the_same_thing():
    bank = Bank()
    bank.act({"do": "grand", "value": 0.4}, 1.0)
    bank.act({"do": "bpm", "tempo": "Movement", "value": 130}, 1.0)
    bank.act({"do": "overlay-level", "overlay": BLUE, "value": 0.3}, 1.0)
    bank.act({"do": "special", "special": 1}, 1.0)
    assert [state_of(bank, name, 2.0) for name in ("master", "bpm", "blue", "singer")] == [0.4, 0.5, 0.3, 1.0]


def test_buttons_do_what_they_say():
    bank = red()
    bank.press("go", 1.0)
    assert bank.now.lists[1].cue == 1
    bank.press("pause", 1.1)
    assert bank.now.lists[1].paused_at == 1.1
    bank.press("pause", 1.2)
    assert bank.now.lists[1].paused_at is None
    bank.press("release", 1.3)
    assert bank.now.lists[1].cue is None
    bank.press("singer", 2.0)
    assert bank.now.specials.on == (1,)
    bank.press("home", 3.0)
    assert bank.now.specials.on == ()
    bank.press("page", 3.0, holder="mine")
    assert (bank.now.page.page, bank.now.page.number, bank.now.page.holder) == (3, 1, "mine")
    bank.press("blackout", 4.0)
    assert bank.now.blackout
    bank.pad(SWELL, 5.0)
    bank.press("stop", 5.0)
    assert all(one.stopping for one in bank.now.playing.values())


@pytest.mark.parametrize("sweep", ["out", "go"])
def test_what_puts_everything_out_takes_looks_and_overlays_along_and_faders_take_hold_again(sweep):
    bank = Bank()
    bank.move("warm fader", 0.5, 1.0)
    bank.move("blue", 0.5, 1.0)
    bank.press("warm", 1.0)
    bank.press(sweep, 2.0)
    bank.advance(4.0)
    assert (bank.of("pan", 4.0)[0], bank.of("blue", 4.0)[0]) == (0.0, bank.of("blue", 0.0)[0])
    assert [state_of(bank, name, 4.0) for name in ("warm fader", "blue", "warm")] == [0, 0, 0]
    bank.move("warm fader", 0.4, 5.0)
    assert bank.of("pan", 5.0)[0] == 18.0


def test_a_way_home_that_took_looks_and_overlays_is_brought_back():
    bank = Bank()
    bank.move("blue", 0.5, 1.0)
    bank.press("warm", 1.0)
    before = bank.at(4.0)
    bank.act({"do": "release-all", "seconds": 0.0}, 4.0)
    bank.act({"do": "bring-back"}, 5.0)
    assert np.allclose(bank.at(6.0), before, atol=15), "effects have gone on meanwhile"
    assert bank.of("pan", 6.0)[0] == 45.0
    assert bank.of("blue", 6.0)[0] == bank.of("blue", 4.0)[0]
    assert state_of(bank, "warm", 6.0) == 1.0


def test_a_look_that_is_edited_while_it_is_held_is_followed():
    bank = Bank()
    bank.press("warm", 1.0)
    bank.advance(5.0)
    other = {"values": {"pan": dict.fromkeys(ALL[:2], -45.0)}, "effects": [], "in_s": 2.0, "out_s": 4.0}
    bank.edit(5.0, looks={WARM: ("Warm", False, other)})
    assert [bank.of("pan", t)[0] for t in (5.0, 5.1, 5.2)] == pytest.approx([45, 0, -45])
    assert bank.of("intensity", 6.0)[0] == 0
    bank.edit(6.0, without=("warm",))
    assert bank.of("pan", 7.0)[0] == 0


@pytest.mark.parametrize(
    ("action", "says"),
    [
        ({"do": "press", "control": "control:27"}, "drives is gone"),
        ({"do": "level", "control": "control:27", "value": 1}, "is a button"),
        ({"do": "level", "control": "control:11", "value": 2}, "no level"),
        ({"do": "level", "control": "control:8", "value": 1}, "is a button"),
        ({"do": "press", "control": "control:7"}, "is a fader"),
        ({"do": "overlay", "overlay": WARM}, "not there any more"),
    ],
)
def test_what_cannot_be_done_is_said(action, says):
    bank = Bank()
    with pytest.raises(ZarabandaError, match=says):
        bank.act(action, 1.0)


def test_the_look_of_a_control_is_let_go_whoever_holds_it_and_nothing_else_is():
    bank = Bank()
    bank.press("dark", 1.0, holder="a")
    bank.press("dark", 1.0, holder="b")
    bank.press("warm", 1.0)
    bank.move("blue", 0.5, 1.0)
    release = {
        name: {"do": "release-control", "control": f"control:{CONTROLS[name][0]}"} for name in ("dark", "warm", "blue", "alone")
    }
    bank.act(release["dark"], 2.0)
    assert bank.of("intensity", 2.0)[3] == 0, "in its own time, here 0 s"
    assert "control:6" not in bank.now.held
    assert bank.levels["control:4"] == 1
    bank.act(release["warm"], 3.0)
    half = bank.of("intensity", 5.0)[0]
    assert 0 < half < 60, "it goes in 4 s"
    assert bank.of("intensity", 7.1)[0] == 0
    before = bank.now
    for name in ("blue", "alone"):
        bank.act(release[name], 8.0)
    assert (bank.now.overlays, bank.levels) == (before.overlays, before.levels), "an overlay and what has no look stay"
