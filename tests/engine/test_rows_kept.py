"""Rows whatever frames were made, after a restart, and in the trace; tempos that follow others."""

from contextlib import suppress

import msgspec
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.bank import CONTROLS, Bank, bank_parts
from tests.engine.busking import BLUE, HELD, LEFT, RED, RIGHT, STAGE, SWELL, TOP, WAVE, Page, parts
from tests.engine.test_loop import Clock
from tests.thoroughness import thorough
from zarabanda.core.rig import attributes
from zarabanda.engine import journal
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.engine.tracing import traced
from zarabanda.errors import ZarabandaError
from zarabanda.messages import ShowUpdate, action
from zarabanda.outputs.base import MemoryOutput

ROW = st.sampled_from([TOP, LEFT, RIGHT])
SHARE = st.sampled_from([0.0, 0.4, 1.0])
PRESSES = st.fixed_dictionaries(
    {"do": st.just("pad"), "row": ROW, "pad": st.sampled_from([RED, BLUE, STAGE, SWELL, WAVE, HELD]), "down": st.booleans()}
)
OTHERS = st.one_of(
    st.fixed_dictionaries({"do": st.sampled_from(["row-level", "row-depth"]), "row": ROW, "value": SHARE}),
    st.fixed_dictionaries({"do": st.just("row-pairs"), "row": ROW, "on": st.booleans()}),
    st.fixed_dictionaries({"do": st.just("flash"), "row": ROW, "kind": st.sampled_from(["white", "odd", "strobe"]),
                           "down": st.booleans()}),
    st.fixed_dictionaries({"do": st.just("next-change"), "seconds": st.sampled_from([0, 0.7]),
                           "waits": st.sampled_from(["", "beat", "bar"])}),
    st.fixed_dictionaries({"do": st.just("all-waves"), "shape": st.sampled_from(["", "square", "fall"])}),
    st.fixed_dictionaries({"do": st.just("two-colours"), "a": st.sampled_from(["#ff0000", "#00ff00"]), "mix": SHARE,
                           "rows": st.sampled_from([[LEFT], [LEFT, RIGHT]])}),
    st.sampled_from([{"do": "tap", "tempo": "Movement"}, {"do": "go", "list": 1}, {"do": "release-all", "seconds": 0.5},
                     {"do": "release-row", "row": LEFT, "seconds": 0.3}, {"do": "stop-all"}, {"do": "bring-back"},
                     {"do": "no-pad", "row": TOP, "section": "colour"}, {"do": "no-pad", "row": LEFT, "section": "effects"},
                     {"do": "follow-tempo", "tempo": "Movement", "main": "Colour", "ratio": 2.0},
                     {"do": "hold-tempo", "tempo": "Colour"}, {"do": "tempos-back"}]),
)  # fmt: skip
BANK = st.one_of(
    st.fixed_dictionaries({"do": st.just("press"), "control": st.sampled_from([f"control:{n}" for n, _, _ in CONTROLS.values()]),
                           "down": st.booleans(), "holder": st.sampled_from("ab")}),
    st.fixed_dictionaries({"do": st.just("level"), "control": st.sampled_from([f"control:{n}" for n, _, _ in CONTROLS.values()]),
                           "value": SHARE}),
    st.fixed_dictionaries({"do": st.just("run-actions"), "actions": st.sampled_from([1, 2, 3]), "down": st.booleans(),
                           "holder": st.sampled_from("ab")}),
    st.fixed_dictionaries({"do": st.just("overlay"), "overlay": st.sampled_from([1, 2, 3]), "on": st.booleans()}),
)  # fmt: skip
MOMENTS = st.lists(st.tuples(st.floats(0, 1.2), st.one_of(PRESSES, OTHERS, BANK, BANK)), max_size=12)


def played(moments, rate):
    """The state after actions (pause, action), with frames at a rate in between (0: none)."""
    page, t, frame = Bank(), 0.0, 0.0
    for pause, done in moments:
        t += pause
        while rate and frame <= t:
            page.advance(frame)
            frame += 1 / rate
        with suppress(ZarabandaError):
            page.act(done, t)
    return page, t + 0.4


@thorough(80)
@given(MOMENTS)
def test_the_same_presses_give_the_same_light_with_frames_and_without(moments):
    (without, end), (with_frames, _) = played(moments, 0), played(moments, 44)
    assert np.allclose(without.at(end), with_frames.at(end), atol=1e-9)
    assert without.now.rows == with_frames.now.rows
    assert without.now.actions == with_frames.now.actions
    ways = [{number: (one.fader, one.flash) for number, one in page.now.overlays.items()} for page in (without, with_frames)]
    assert ways[0] == ways[1]


@thorough(60)
@given(MOMENTS)
def test_a_restarted_engine_has_the_same_rows_and_goes_on_alike(moments):
    page, end = played(moments, 0)
    page.advance(end)
    entry = journal.entry_of(page.now, now=end, wall=9_000.0, boot="this start")
    again, kept = Bank(), page.now
    read = msgspec.msgpack.decode(msgspec.msgpack.encode(entry), type=journal.LiveEntry)
    again.now = journal.restored(read, kept.program, end, 9_000.0, "this start")
    assert again.now.rows == kept.rows
    assert again.now.busk == kept.busk
    for later in (0.0, 0.3, 2.1):
        assert np.allclose(again.at(end + later), page.at(end + later), atol=1e-6)


@pytest.mark.parametrize("attribute", ["intensity", "colour", "pan"])
def test_the_last_step_of_a_trace_is_on_stage_also_of_rows_and_flashes(attribute):
    clock, seen = Clock(), []
    loop = Loop(LiveState(), [MemoryOutput()], clock=clock, sleep=clock.sleep)
    loop.on_frame = lambda snapshot: seen.append(snapshot.values.copy())
    loop.swap(Compiler().take(ShowUpdate("test", 1, [*parts(), *bank_parts()], whole=True)))
    loop.tick(clock())
    for document in (
        {"do": "row-level", "row": LEFT, "value": 0.5}, {"do": "pad", "row": LEFT, "pad": RED},
        {"do": "pad", "row": TOP, "pad": SWELL}, {"do": "pad", "row": LEFT, "pad": WAVE},
        {"do": "two-colours", "rows": [LEFT], "mix": 0.5}, {"do": "flash", "row": LEFT, "kind": "odd", "holder": "a"},
        {"do": "flash-times", "release_s": 5}, {"do": "flash", "row": LEFT, "kind": "odd", "down": False, "holder": "a"},
        {"do": "overlay-level", "overlay": 1, "value": 0.5}, {"do": "overlay", "overlay": 3}, {"do": "level",
         "control": "control:7", "value": 0.5}, {"do": "press", "control": "control:8", "holder": "a"},
    ):  # fmt: skip
        loop.post(action(document))
    t = clock() + 0.35
    loop.tick(t)
    found = traced(loop.state, loop.sent, "2", attribute, t, 7)
    rows = [attributes.INDEX[name] for name in attributes.touched(attribute)]
    assert found.steps[-1].value == pytest.approx(seen[-1][rows, 1].tolist(), abs=1e-3)
    kinds = {one.what for one in found.steps}
    expected = {
        "intensity": {"claim", "effect", "flash", "alone", "levels"}, "colour": {"claim", "two colours", "overlay"},
        "pan": {"effect", "overlay"},
    }  # fmt: skip
    assert kinds >= expected[attribute]


def test_half_double_hold_and_back_of_a_tempo():
    page = Page()
    page.act({"do": "tempo-times", "tempo": "Movement", "factor": 0.5}, 1.0)
    assert (page.tempo("Movement").bpm, page.beats("Movement", 2.0)) == (60, 3.0)
    page.act({"do": "hold-tempo", "tempo": "Movement"}, 2.0)
    page.act({"do": "bpm", "tempo": "Movement", "value": 90}, 3.0)
    assert page.beats("Movement", 9.0) == 3.0
    page.act({"do": "tempos-back"}, 10.0)
    assert page.beats("Movement", 11.0) == 5.0
    page.act({"do": "bring-back"}, 12.0)
    assert (page.tempo("Movement").bpm, page.tempo("Movement").held) == (90, True)
    page.act({"do": "tap", "tempo": "Movement"}, 13.0)
    assert not page.tempo("Movement").held


@thorough(80)
@given(
    st.sampled_from([0.25, 0.5, 1.0, 2.0, 3.0]),
    st.lists(st.tuples(st.floats(0.05, 1.5), st.sampled_from(["tap", "bpm", "half", "hold", "on"])), max_size=6),
)
def test_a_tempo_that_follows_comes_into_line_and_its_beats_never_go_back(ratio, changes):
    page, t = Page(), 3.17
    before = page.beats("Colour", t)
    page.act({"do": "follow-tempo", "tempo": "Colour", "main": "Movement", "ratio": ratio}, t)
    documents = {
        "tap": {"do": "tap", "tempo": "Movement"}, "bpm": {"do": "bpm", "tempo": "Movement", "value": 97},
        "half": {"do": "tempo-times", "tempo": "Movement", "factor": 0.5},
        "hold": {"do": "hold-tempo", "tempo": "Movement"}, "on": {"do": "hold-tempo", "tempo": "Movement", "on": False},
    }  # fmt: skip
    for pause, name in changes:
        for step in np.linspace(0, pause, 7):
            now = page.beats("Colour", t + step)
            assert now >= before - 1e-9
            before = now
        t += pause
        with suppress(ZarabandaError):
            page.act(documents[name], t)
        assert page.beats("Colour", t) == pytest.approx(before, abs=1e-9)
    page.act(documents["on"], t)
    late = t + 60
    apart = page.beats("Colour", late) - ratio * page.beats("Movement", late)
    assert apart == pytest.approx(round(apart), abs=1e-6)
    assert page.tempo("Colour").bpm == pytest.approx(ratio * page.tempo("Movement").bpm)


@pytest.mark.parametrize(
    ("document", "says"),
    [
        ({"do": "follow-tempo", "tempo": "Movement", "main": "Movement"}, "cannot follow"),
        ({"do": "follow-tempo", "tempo": "Zoom", "main": "Colour"}, "cannot follow"),
        ({"do": "follow-tempo", "tempo": "Zoom", "main": "Movement", "ratio": 8.0}, "10 to 400 BPM"),
        ({"do": "follow-tempo", "tempo": "Zoom", "main": "Nobody"}, "no tempo"),
    ],
)
def test_tempos_that_cannot_follow_are_refused(document, says):
    page = Page()
    page.act({"do": "follow-tempo", "tempo": "Colour", "main": "Movement", "ratio": 0.5}, 0.0)
    with pytest.raises(ZarabandaError, match=says):
        page.act(document, 1.0)
