"""Action lists: each step at its exact stamp, through to the end or until released, within each other, and called off."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.bank import HELD_LIST, HIT, INNER, Bank
from tests.engine.busking import LEFT, RED
from zarabanda.engine.live.action_lists import told
from zarabanda.errors import ZarabandaError


def test_steps_come_at_their_exact_stamps_whenever_frames_are_made():
    bank = Bank()
    bank.press("hit", 1.0)
    assert (bank.now.rows.get(LEFT), told(bank.now)[0].due) == (None, 1.25)
    bank.advance(1.26)
    assert bank.now.rows[LEFT].level == 1.0
    assert "colour" not in bank.now.rows[LEFT].pressed
    bank.advance(9.0)
    red = next(one for one in bank.now.claims.strips if one.holder == f"row:{LEFT}:colour")
    assert red.timing.stamp == 1.75
    assert bank.now.overlays[1].fader.at == 2.75
    assert bank.now.outbox.messages[0].content["address"] == "/hit"
    assert (bank.now.page.page, bank.now.page.holder) == (3, "")
    assert not bank.now.actions


def test_it_lets_go_at_its_end_of_what_it_held():
    bank = Bank()
    bank.press("hit", 1.0)
    bank.advance(1.8)
    assert bank.now.held["control:8"] == {"actions:1"}
    bank.advance(3.0)
    assert "control:8" not in bank.now.held


def test_one_that_runs_until_it_is_released_goes_on_holding_and_is_called_off_then():
    bank = Bank()
    bank.press("held", 1.0)
    bank.advance(4.0)
    assert (bank.now.held["control:8"], bank.tempo("Movement").bpm) == ({f"actions:{HELD_LIST}"}, 60)
    assert bank.now.specials.on == (1,)
    assert bank.now.lists[1].cue == 1, "steps of the list that it has run came in their own time"
    bank.press("held", 4.0, down=False)
    bank.advance(20.0)
    assert not bank.now.blackout
    assert "control:8" not in bank.now.held


def test_it_stays_as_long_as_any_hand_holds_it_and_a_hand_that_is_gone_lets_go():
    bank = Bank()
    for holder in "ab":
        bank.act({"do": "run-actions", "actions": HELD_LIST, "holder": holder}, 1.0)
    bank.act({"do": "let-go", "holders": ["a"]}, 2.0)
    assert HELD_LIST in bank.now.actions
    bank.act({"do": "run-actions", "actions": HELD_LIST, "down": False, "holder": "b"}, 3.0)
    assert HELD_LIST not in bank.now.actions


@pytest.mark.parametrize("way", ["press", "call-off", "release-all"])
def test_it_is_called_off(way):
    bank = Bank()
    bank.press("hit", 1.0)
    bank.advance(1.5)
    if way == "press":
        bank.press("hit", 1.5)
    else:
        bank.act({"do": way, **({"actions": HIT} if way == "call-off" else {})}, 1.5)
    bank.advance(9.0)
    assert not bank.now.overlays
    assert "colour" not in bank.now.rows[LEFT].pressed


def test_a_page_is_shown_to_the_hand_that_pressed():
    bank = Bank()
    bank.act({"do": "run-actions", "actions": HIT, "holder": "browser 7"}, 1.0)
    bank.advance(5.0)
    assert bank.now.page.holder == "browser 7"


def test_what_a_step_cannot_do_is_told_and_the_others_are_done():
    bank = Bank()
    bank.edit(0.5, rows=[])
    bank.press("hit", 1.0)
    bank.advance(5.0)
    assert [one.text[:22] for one in bank.now.outbox.messages if one.text] == ["A step of Hit was not "] * 2
    assert bank.now.overlays[1].fader.end == 0.5
    with pytest.raises(ZarabandaError, match="not there any more"):
        bank.act({"do": "run-actions", "actions": 77}, 6.0)


@given(st.lists(st.floats(0.01, 0.7), max_size=8))
def test_frames_in_between_change_nothing(pauses):
    without, with_frames = Bank(), Bank()
    for bank in (without, with_frames):
        bank.act({"do": "run-actions", "actions": INNER, "holder": "a"}, 1.0)
    t = 1.0
    for pause in pauses:
        t += pause
        with_frames.advance(t)
    for bank in (without, with_frames):
        bank.advance(t)
    assert (without.now.actions, without.now.specials, without.now.lists) == (
        with_frames.now.actions, with_frames.now.specials, with_frames.now.lists
    )  # fmt: skip


def test_pressing_again_begins_anew():
    bank = Bank()
    bank.act({"do": "run-actions", "actions": HIT, "holder": "a"}, 1.0)
    bank.act({"do": "run-actions", "actions": HIT, "holder": "a"}, 1.5)
    bank.advance(1.9)
    assert bank.now.actions[HIT].place == 1
    assert RED not in bank.now.rows[LEFT].pressed.values()
