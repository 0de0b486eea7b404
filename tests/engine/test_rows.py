"""Rows of busking pages: as holders, waiting presses, waveforms of all, two colours, flashes, ways home."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.busking import BLUE, HELD, LEFT, NARROW, RED, RIGHT, ROWS, STAGE, SWELL, SWELLS, TOP, WAVE, Page, row
from zarabanda.engine.telling_rows import covered_shares, rows_told
from zarabanda.errors import ZarabandaError


def told(page, number, t=0.0):
    page.advance(t)
    return next(one for one in rows_told(page.now, None, t) if one.id == number)


def held(page, number):
    return {one.pad: one.covered for one in told(page, number).held}


def test_pressing_claims_also_what_is_held_and_none_uncovers():
    page = Page()
    page.pad(RED, 1.0)
    assert page.colours(1.0) == ["r", "r", "w", "w"]
    page.pad(BLUE, 2.0, TOP)
    assert page.colours(2.0) == ["b", "b", "b", "b"]
    assert held(page, LEFT) == {RED: 1.0}  # a later action covered it
    page.pad(RED, 3.0)
    page.pad(RED, 3.05)  # a nervous second tap
    assert page.colours(3.1) == ["r", "r", "b", "b"]
    assert held(page, LEFT) == {RED: 0.0}
    assert held(page, TOP) == {BLUE: 0.5}
    page.act({"do": "no-pad", "row": TOP, "section": "colour"}, 4.0)
    assert page.colours(4.0) == ["r", "r", "w", "w"]
    page.act({"do": "no-pad", "row": LEFT, "section": "colour"}, 5.0)
    assert page.colours(5.0) == ["w", "w", "w", "w"]
    assert held(page, LEFT) == {}


def test_attributes_of_beam_are_held_apart_from_each_other_and_from_colour():
    page = Page()
    for pad in (RED, STAGE, NARROW):
        page.pad(pad, 1.0)
    page.act({"do": "no-pad", "row": LEFT, "section": "position"}, 2.0)
    assert page.of("zoom", 2.0)[:2] == [6, 6]
    assert page.colours(2.0)[:2] == ["r", "r"]
    assert page.of("pan", 2.0) == [0, 0, 0, 0]
    assert set(told(page, LEFT).held and held(page, LEFT)) == {RED, NARROW}


def test_a_press_takes_the_time_of_the_next_change_by_family():
    page = Page()
    page.act({"do": "next-change", "seconds": 2.0, "position_s": 4.0}, 0.0)
    page.pad(STAGE, 1.0)
    page.pad(NARROW, 1.0)
    assert page.of("pan", 2.0)[0] == pytest.approx(7.5)
    home = page.of("zoom", 1.0)[0]
    assert page.of("zoom", 2.0)[0] == pytest.approx((home + 6) / 2)


def test_levels_are_highest_wins_and_the_top_row_multiplies_all():
    page = Page()
    page.act({"do": "row-level", "row": LEFT, "value": 0.8}, 1.0)
    page.act({"do": "row-level", "row": RIGHT, "value": 0.4}, 1.0)
    assert page.of("intensity", 1.0) == [80, 80, 40, 40]
    page.act({"do": "row-level", "row": TOP, "value": 0.5}, 2.0)
    assert page.of("intensity", 2.0) == [40, 40, 20, 20]
    page.act({"do": "release-row", "row": LEFT, "seconds": 1.0}, 3.0)
    assert page.of("intensity", 3.5) == [20, 20, 20, 20]
    assert (told(page, LEFT, 3.5).level, page.of("intensity", 4.0)) == (0, [0, 0, 20, 20])
    page.act({"do": "row-level", "row": LEFT, "value": 1.0}, 5.0)
    assert page.of("intensity", 5.0) == [50, 50, 20, 20]


def test_presses_wait_for_the_beat_and_the_bar_and_a_tap_moves_them():
    page = Page()  # 120 BPM: a beat is half a second, a bar two
    page.act({"do": "next-change", "waits": "bar"}, 0.0)
    page.pad(RED, 0.6)
    page.pad(BLUE, 0.7)  # the later press for the same thing counts
    assert told(page, LEFT, 0.7).waiting == [(BLUE, 2.0)]
    assert page.colours(1.999)[0] == "w"
    assert page.colours(2.0)[0] == "b"
    page.act({"do": "next-change", "waits": "beat"}, 2.1)
    page.pad(SWELL, 2.1)
    page.act({"do": "bpm", "tempo": "Movement", "value": 60}, 2.25)
    assert told(page, LEFT, 2.3).waiting == [(SWELL, 2.75)]
    assert told(page, LEFT, 2.75).on == [SWELL]
    page.pad(SWELL, 2.8)
    page.pad(SWELL, 2.9)  # an effect pad that waits is called off by its second press
    assert told(page, LEFT, 4.0).on == [SWELL]
    page.act({"do": "hold-tempo", "tempo": "Movement"}, 4.1)
    page.pad(RED, 4.2)
    assert told(page, LEFT, 9.0).waiting == [(RED, None)]
    page.act({"do": "hold-tempo", "tempo": "Movement", "on": False}, 9.0)
    assert page.colours(10.0)[0] == "r"


def test_effects_go_on_and_off_lie_over_each_other_and_fade_by_family():
    page = Page()
    page.pad(SWELL, 0.0)
    page.pad(WAVE, 0.0)
    assert told(page, LEFT).on == [SWELL, WAVE]
    assert told(page, LEFT).moves == ["intensity", "position"]
    assert page.of("intensity", 1.0)[0] == pytest.approx(0, abs=1e-3)  # a cycle of two beats, back at its begin
    assert page.of("intensity", 1.75) == pytest.approx([75, 75, 0, 0])
    page.act({"do": "row-depth", "row": LEFT, "value": 0.5}, 1.75)
    assert page.of("intensity", 2.75)[0] == pytest.approx(37.5)
    page.act({"do": "row-depth", "row": TOP, "value": 0.5}, 2.75)
    assert page.of("intensity", 3.75)[0] == pytest.approx(18.75)
    page.pad(SWELL, 4.0)
    assert page.of("intensity", 4.0)[0] == 0
    assert told(page, LEFT).on == [WAVE]


def test_a_pad_of_the_top_row_plays_on_every_row_and_is_one_switch():
    page = Page()
    page.pad(SWELL, 0.0, TOP)
    assert [str(key) for key in page.playing] == ["row:1:5:2", "row:1:5:3"]
    assert page.of("intensity", 0.5) == pytest.approx([50] * 4)
    assert [told(page, row).on for row in (TOP, LEFT, RIGHT)] == [[SWELL], [], []], "on where it was pressed"
    page.pad(SWELL, 0.6, TOP)
    page.advance(0.6)
    assert not page.playing
    assert told(page, TOP).on == []
    page.pad(RED, 0.7)
    assert (told(page, LEFT).on, [one.pad for one in told(page, LEFT).held]) == ([], [RED]), "a colour is held, not on"


def test_a_pad_that_acts_while_it_is_held_ends_with_the_last_hand():
    page = Page()
    page.pad(HELD, 1.0, holder="a")
    page.pad(HELD, 1.1, holder="b")
    page.pad(HELD, 1.2, down=False, holder="a")
    assert told(page, LEFT, 1.3).on == [HELD]
    page.act({"do": "let-go", "holders": ["b"]}, 1.4)
    assert told(page, LEFT, 1.5).on == []


def phases(page, t):
    one = page.playing["row:2:5:2"]
    return page.now.theta(one, t)


@given(st.lists(st.sampled_from([("shape", "rise"), ("shape", "square"), ("shape", "fall"), ("travel", "reverse"), ("shape", ""),
                                 ("spread", "two waves"), ("spread", ""), ("travel", "")]), max_size=6))  # fmt: skip
def test_waveform_spread_and_travel_of_all_change_without_a_jump_of_phase(changes):
    page = Page()
    page.pad(SWELL, 0.3)
    t = 0.7
    for name, choice in changes:
        before = phases(page, t)
        page.act({"do": "all-waves", name: choice}, t)
        assert phases(page, t) == pytest.approx(before, abs=1e-9)
        t += 0.31
    page.act({"do": "all-waves", "shape": "", "spread": "", "travel": ""}, t)
    assert page.playing["row:2:5:2"].instance is page.program.instances["row:2:5:2"]


def test_waveforms_of_all_are_seen_and_hold_for_what_begins_later():
    page = Page()
    page.pad(SWELL, 0.0)
    page.act({"do": "all-waves", "shape": "fall"}, 0.25)
    assert page.of("intensity", 0.25)[0] == pytest.approx(75)  # ¼ of a cycle: rise has 25
    page.pad(SWELL, 0.5, RIGHT)
    assert page.of("intensity", 0.75)[2] == pytest.approx(25)
    page.act({"do": "all-waves", "spread": "one wave"}, 1.0)
    assert page.of("intensity", 1.25)[:2] == pytest.approx([75, 25])


def test_effects_of_a_row_in_pairs_face_each_other():
    rows = [row(TOP, "all", []), row(LEFT, "lights", ["1", "2", "3", "4"])]
    wave = SWELLS | {"spread": {"kind": "ripple", "degrees": 360}}
    page = Page(rows=rows, swells=wave)
    page.pad(SWELL, 0.0)
    values = page.of("intensity", 0.1)
    assert len(set(values)) == 4
    page.act({"do": "row-pairs", "row": LEFT, "on": True}, 0.1)
    values = page.of("intensity", 0.2)
    assert values[0] == values[3] != values[1] == values[2]


def test_two_colours_are_repicked_without_passing_black_or_white():
    page = Page()
    page.act({"do": "two-colours", "a": "#ff0000", "b": "#ff0000", "rows": [LEFT], "mix": 1.0}, 0.0)
    page.advance(1.0)
    page.act({"do": "two-colours", "a": "#00ffff", "b": "#00ffff"}, 1.0)
    for t in np.linspace(1.0, 1.6, 25):
        rgb = np.array([page.of(name, float(t))[:2] for name in ("red", "green", "blue")])
        assert rgb.max(axis=0) == pytest.approx([1, 1], abs=1e-3)
        assert rgb.min(axis=0) == pytest.approx([0, 0], abs=1e-3)
    assert page.colours(2.0)[2:] == ["w", "w"]  # the other row takes no part
    page.act({"do": "two-colours", "mix": 0.5}, 2.0)
    assert page.of("red", 2.0)[:2] == pytest.approx([0.5, 0.5])
    page.act({"do": "two-colours", "mix": 0.0}, 3.0)
    assert page.colours(3.0) == ["w"] * 4


def test_two_colours_go_to_and_fro_over_a_row_by_their_tempo():
    page = Page()
    page.act({"do": "two-colours", "a": "#ff0000", "b": "#0000ff", "rows": [LEFT], "mix": 1.0}, -5.0)
    assert page.colours(0.0)[:2] == ["r", "b"]  # a quarter of a cycle a beat, half a cycle from light to light
    assert page.colours(1.0)[:2] == ["b", "r"]


@pytest.mark.parametrize(
    ("kind", "levels"), [("white", [100, 100]), ("odd", [100, 0]), ("even", [0, 100]), ("dark", [0, 0]), ("strobe", [100, 100])]
)
def test_flashes_lie_over_what_runs_and_leave_the_very_same_values(kind, levels):
    page, other = Page(), Page()
    for one in (page, other):
        one.act({"do": "row-level", "row": LEFT, "value": 0.6}, 0.0)
        one.pad(RED, 0.0)
        one.pad(WAVE, 0.0)
    page.act({"do": "flash-times", "release_s": 1.0}, 0.0)
    page.act({"do": "flash", "row": LEFT, "kind": kind, "holder": "a"}, 1.0)
    assert page.of("intensity", 1.01)[:2] == levels
    assert page.of("intensity", 1.01)[2:] == [0, 0]
    page.act({"do": "flash", "row": LEFT, "kind": kind, "down": False, "holder": "a"}, 2.0)
    assert page.of("intensity", 2.5)[0] == pytest.approx((60 + levels[0]) / 2)
    assert np.array_equal(page.at(3.0), other.at(3.0))
    assert not page.busk.flashing


def test_two_fingers_on_odd_and_even_and_a_hand_that_is_gone():
    page = Page()
    for kind, holder in (("odd", "a"), ("even", "b")):
        page.act({"do": "flash", "row": LEFT, "kind": kind, "holder": holder}, 1.0)
    assert page.of("intensity", 1.0)[:2] == [0, 100]  # the one pressed last lies on top
    page.act({"do": "let-go", "holders": ["b"]}, 1.1)
    assert page.of("intensity", 2.0)[:2] == [100, 0]
    assert list(page.held) == ["flash:2:odd"]


def test_everything_else_goes_out_takes_rows_and_what_waits_along():
    page = Page()
    page.act({"do": "row-level", "row": LEFT, "value": 1.0}, 0.0)
    page.pad(RED, 0.0)
    page.pad(SWELL, 0.0)
    page.act({"do": "next-change", "waits": "bar"}, 0.1)
    page.pad(BLUE, 0.2)
    page.act({"do": "go", "list": 1}, 0.3)
    assert told(page, LEFT, 0.3).waiting == []
    now = told(page, LEFT, 1.5)
    assert (now.level, now.held, now.on) == (0, [], [])
    assert page.of("intensity", 1.5) == [0, 0, 0, 0]
    assert page.colours(3.0)[0] == "w"


HOMES = {
    "release-row": {"do": "release-row", "row": LEFT, "seconds": 1.0},
    "release-all": {"do": "release-all", "seconds": 1.0},
    "stop-all": {"do": "stop-all"},
}


@pytest.mark.parametrize("name", HOMES)
def test_each_way_home_is_brought_back_within_ten_seconds(name):
    page, other = Page(), Page()
    for one in (page, other):
        one.act({"do": "row-level", "row": LEFT, "value": 0.7}, 0.0)
        for pad in (RED, NARROW, SWELL, WAVE):
            one.pad(pad, 0.0)
        one.pad(BLUE, 0.5, TOP)
    page.act(HOMES[name], 1.0)
    page.advance(3.0)
    page.act({"do": "bring-back"}, 4.0)
    assert np.allclose(page.at(5.0), other.at(5.0))
    assert (held(page, LEFT), told(page, LEFT, 5.0).level) == (held(other, LEFT), 0.7)
    with pytest.raises(ZarabandaError, match="nothing to bring back"):
        page.act({"do": "bring-back"}, 5.1)
    page.act(HOMES[name], 6.0)
    with pytest.raises(ZarabandaError, match="10 s"):
        page.act({"do": "bring-back"}, 16.1)


def test_what_hands_do_after_a_way_home_stays_when_it_is_brought_back():
    page = Page()
    page.pad(RED, 0.0)
    page.act(HOMES["release-row"], 1.0)
    page.pad(BLUE, 2.0)
    page.act({"do": "bring-back"}, 3.0)
    assert page.colours(4.0)[0] == "b"


def test_edits_of_palettes_pads_and_groups_are_followed():
    page = Page()
    page.pad(RED, 0.0)
    page.act({"do": "row-level", "row": LEFT, "value": 1.0}, 0.0)
    wider = [ROWS[0], row(LEFT, "lights", ["2", "3"]), ROWS[2]]
    page.edit(1.0, rows=wider)
    assert page.colours(2.0) == ["w", "r", "r", "w"]
    assert page.of("intensity", 2.0) == [0, 100, 100, 0]
    without = [ROWS[0], row(LEFT, "lights", ["2", "3"], colour=[{"id": BLUE, "palette": 2}]), ROWS[2]]
    page.edit(2.0, rows=without)
    assert page.colours(3.0) == ["w"] * 4
    page.edit(3.0, rows=[ROWS[0]])
    assert page.of("intensity", 4.0) == [0, 0, 0, 0]
    assert list(page.rows) == []


@pytest.mark.parametrize(
    ("action", "says"),
    [
        ({"do": "pad", "row": 9, "pad": 1}, "not on the page any more"),
        ({"do": "pad", "row": LEFT, "pad": 99}, "not in the row"),
        ({"do": "pad", "row": LEFT, "pad": 8}, "its palette is gone"),
        ({"do": "row-value", "row": LEFT, "attribute": "haze", "value": 10}, "no haze output"),
        ({"do": "row-level", "row": LEFT, "value": 1.5}, "cannot be read"),
        ({"do": "all-waves", "shape": "wobble"}, "no shape"),
        ({"do": "bpm", "tempo": "Movement", "value": 0}, "10 to 400 BPM"),
        ({"do": "tempo-times", "tempo": "Movement", "factor": 8}, "10 to 400 BPM"),
        ({"do": "flash", "row": 9, "kind": "white"}, "not on the page any more"),
    ],
)
def test_what_cannot_be_done_is_said(action, says):
    gone = row(LEFT, "lights", ["1", "2"], beam=[{"id": 8, "palette": 77}])
    page = Page(rows=[ROWS[0], gone, ROWS[2]])
    with pytest.raises(ZarabandaError, match=says):
        page.act(action, 1.0)


def test_covered_shares_count_cells_beneath_later_claims():
    page = Page()
    page.pad(RED, 0.0, TOP)
    page.pad(BLUE, 1.0, LEFT)
    shares = covered_shares(page.claims, page.program.rig.home.size)
    assert (shares["row:1:colour"], shares["row:2:colour"]) == (0.5, 0.0)
