"""What cues send: in their order, at exact stamps, to devices and to other lists; and what calls them off."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.shows import Live
from tests.engine.test_cue_lists import SLOW, cue, go, live, value
from tests.thoroughness import thorough
from zarabanda.engine import journal
from zarabanda.engine.live.sending import MOST_AT_ONCE
from zarabanda.messages import ControlPart
from zarabanda.targets import EffectOnHeads


def osc(address, wait=0.0):
    return {"kind": "osc", "device": 1, "address": f"/{address}", "arguments": "", "wait": wait}


def note(length, wait=0.0):
    return {"kind": "note", "device": 2, "channel": 1, "note": 60, "velocity": 100, "length": length, "wait": wait}


def to_list(number, do="go", wait=0.0, **more):
    return {"kind": "list", "list": number, "do": do, "cue": None, "value": 1.0, "seconds": 0.0, "wait": wait, **more}


def sent(desk, t):
    """Everything that has been sent by t, in short."""
    desk.advance(t)
    return [one.text or one.content.get("address", one.content["kind"]).strip("/") for one in desk.now.outbox.messages]


def cue_of(desk, number):
    return desk.now.lists[number].cue


def test_messages_go_in_their_order_each_after_the_one_before():
    desk = live(cue(1, messages=[osc("a"), osc("b", 1), note(0.5), osc("c", 0.25), osc("d", 2)]))
    go(desk, 10.0)
    assert sent(desk, 10.0) == ["a"]
    assert sent(desk, 11.0) == ["a", "b", "note"]
    assert sent(desk, 11.5) == ["a", "b", "note", "c", "note off"]
    assert sent(desk, 13.25)[-1] == "d"


@pytest.mark.parametrize(
    ("does", "by_then"),
    [
        ({"do": "go", "list": 1}, ["note", "note off", "late"]),
        ({"do": "go-to", "list": 1, "cue": 101}, ["note", "note", "note off", "note off", "late", "late"]),
        ({"do": "back", "list": 1}, ["note", "note off"]),
        ({"do": "release", "list": 1}, ["note", "note off"]),
        ({"do": "release-all"}, ["note", "note off"]),
        ({"do": "go-to", "list": 2, "cue": 201}, ["note", "note off"]),
        ({"do": "pause", "list": 1}, ["note", "note off"]),
    ],
)
def test_what_waits_is_sent_or_called_off_and_notes_end_in_any_case(does, by_then):
    desk = live(
        cue(0, messages=[]), cue(1, messages=[note(1), osc("late", 2)]), cue(2), cue(1, list_id=2, everything_else_out=True),
        lists=2,
    )  # fmt: skip
    desk.act({"do": "go-to", "list": 1, "cue": 101}, 1.0)
    desk.act(does, 1.5)
    assert sent(desk, 9.0) == by_then


def test_a_paused_list_sends_the_rest_when_it_goes_on():
    desk = live(cue(1, messages=[osc("late", 2)]))
    go(desk, 1.0)
    desk.act({"do": "pause", "list": 1}, 2.0)
    assert sent(desk, 20.0) == []
    desk.act({"do": "resume", "list": 1}, 20.0)
    assert (sent(desk, 20.9), sent(desk, 21.0)) == ([], ["late"])


def test_a_cue_acts_on_other_lists_and_controls_at_the_exact_stamp():
    button = ControlPart(5, "Rise", "page", "latch", "depth", 0.0, EffectOnHeads(1, ("1",)))
    messages = [
        to_list(2, "go to", wait=0.5, cue=202), to_list(2, "level", value=0.25),
        {"kind": "control", "control": 5, "do": "press", "value": 1.0, "wait": 0.25},
    ]  # fmt: skip
    desk = live(cue(1, messages=messages), cue(1, list_id=2), cue(2, list_id=2, values={"zoom": {"1": 9}}), button, lists=2)
    go(desk, 10.0)
    desk.advance(30.0)
    own = desk.now.lists[2]
    assert (own.cue, own.went_at, own.level) == (202, 10.5, 0.25)
    assert desk.playing["control:5"].started == 10.75


def test_effects_are_stopped_and_everything_released_by_a_cue():
    desk = live(
        cue(1, effects=[{"do": "start", "thread": 1, "effect": 1, "heads": ["1"]}]),
        cue(1, list_id=2, messages=[{"kind": "stop effects", "family": None, "seconds": 1.0, "wait": 0}]),
        cue(2, list_id=2, messages=[{"kind": "release everything", "seconds": 0.0, "wait": 1.0}]),
        lists=2,
    )
    go(desk, 1.0)
    go(desk, 2.0, list_id=2)
    desk.advance(2.5)
    assert desk.playing["list:1:1"].weight(2.5) == 0.5
    go(desk, 4.0, list_id=2)
    desk.advance(4.9)
    assert (cue_of(desk, 1), cue_of(desk, 2)) == (101, 202)
    desk.advance(5.0)
    assert (cue_of(desk, 1), cue_of(desk, 2)) == (None, None)


def test_what_is_gone_and_what_never_ends_is_told_and_the_rest_is_sent():
    desk = live(cue(1, messages=[to_list(9), osc("after")]))
    go(desk, 1.0)
    told = sent(desk, 1.0)
    assert told[0].startswith("A message of List 1, cue 1, was not done: This cue list is not there any more")
    assert told[1:] == ["after"]
    desk = live(
        cue(1, messages=[to_list(2, "go to", cue=201)]), cue(1, list_id=2, messages=[to_list(1, "go to", cue=101)]), lists=2
    )
    go(desk, 1.0)
    told = sent(desk, 1.0)
    assert desk.now.outbox.count == MOST_AT_ONCE + 1
    assert len(told) == 1
    assert "without end" in told[0]


waits = st.sampled_from([0.0, 0.1, 0.5, 1.0])
some = st.lists(st.one_of(st.builds(osc, st.sampled_from("ab"), waits), st.builds(note, waits, waits)), max_size=4)


@given(messages=st.lists(some, min_size=2, max_size=3), frames=st.lists(st.floats(0, 6), max_size=30))
@thorough(40)
def test_what_is_sent_does_not_depend_on_when_frames_are_made(messages, frames):
    def played(frames):
        desk = live(*(cue(n + 1, messages=one, trigger={"kind": "with", "wait": 0.3}) for n, one in enumerate(messages)))
        go(desk, 0.0)
        for t in sorted(frames):
            desk.advance(t)
        return sent(desk, 12.0)

    assert played(frames) == played([])


def test_messages_that_wait_are_kept_in_the_journal():
    desk = live(cue(1, messages=[osc("late", 2)]))
    go(desk, 1.0)
    again = Live()
    again.now = journal.restored(journal.entry_of(desk.now, 1.5, 0.0, "x"), desk.now.program, 1.5, 0.0, "x")
    assert (sent(again, 2.9), sent(again, 3.0)) == ([], ["late"])


def test_after_a_cut_the_list_stands_until_a_hand_lets_it_go_on():
    desk = live(cue(1), cue(2, values={"intensity": {"1": 100.0}}, times=SLOW), cue(3, trigger={"kind": "with", "wait": 3}))
    go(desk, 1.0)
    go(desk, 10.0)
    entry = journal.entry_of(desk.now, 11.0, 1000.0, "before")
    again = Live()
    again.now = journal.restored(entry, desk.now.program, 500.0, 9999.0, "after", cut_at=1000.5)  # half a second later
    assert value(again, "intensity", "1", 560.0) == pytest.approx(75.0), "it stands where it was when it was cut off"
    assert (again.now.cut_off.at, again.now.cut_off.standing, cue_of(again, 1)) == (1000.5, (1,), 102)
    again.act({"do": "go-on"}, 600.0)
    assert value(again, "intensity", "1", 600.25) == pytest.approx(87.5)
    again.advance(601.49)
    assert cue_of(again, 1) == 102
    again.advance(601.5)
    assert (cue_of(again, 1), again.now.cut_off) == (103, None)
