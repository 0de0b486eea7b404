"""The live state is a fold: the same actions at the same stamps give the same state, whenever frames were made."""

from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine import every_action
from tests.engine.shows import HEADS, Live, effect, on_tempo, program, show
from tests.thoroughness import thorough
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live import acts
from zarabanda.engine.live.advance import advance, due
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.live.tempo import Tempo
from zarabanda.errors import ZarabandaError
from zarabanda.messages import ShowUpdate, action

CONTROLS = {"control:1": "fader", "control:2": "latch", "control:3": "flash", "control:4": "latch"}


def a_show(revision=1, seconds=0.7, draft=True):
    hit = effect(ends_after=2.0, speed=on_tempo(1.5))
    effects = [
        effect(),
        hit,
        effect(speed=on_tempo(sync="start")),
        effect(ends_after=3.0, speed={"kind": "time", "seconds_per_cycle": seconds}),
    ]
    instances = [
        {"key": key, "effect_id": n, "effect": one, "heads": HEADS, "source": "test", "always": False}
        for n, (key, one) in enumerate(zip(CONTROLS, effects, strict=True))
    ]
    if draft:
        instances.append({"key": "draft:9", "effect_id": 9, "effect": hit, "heads": HEADS, "source": "draft", "always": True})
    controls = [{"key": key, "name": key, "mode": mode, "release_s": 0.3, "job": "both"} for key, mode in CONTROLS.items()]
    return show(effect(), revision=revision, instances=instances, controls=controls)


COMPILER = Compiler()
PROGRAMS = [
    program(a_show(), COMPILER),
    program(a_show(2, seconds=0.2) | {"draft": {"intensity": {"1": 30.0}}}, COMPILER),
    program(a_show(3, draft=False), COMPILER),
]

KEYS = st.sampled_from([*CONTROLS, "draft:9"])
ACTIONS = st.one_of(
    st.fixed_dictionaries({"do": st.just("level"), "control": KEYS, "value": st.sampled_from([0, 0.3, 1])}),
    st.fixed_dictionaries({"do": st.just("press"), "control": KEYS, "down": st.booleans(), "holder": st.sampled_from("ab")}),
    st.fixed_dictionaries({"do": st.sampled_from(["stop", "run"]), "key": KEYS}),
    st.fixed_dictionaries({"do": st.just("freeze"), "key": KEYS, "on": st.booleans()}),
    st.fixed_dictionaries({"do": st.just("adjust"), "key": KEYS, "depth": st.just(0.5), "speed": st.sampled_from([1, 4])}),
    st.fixed_dictionaries({"do": st.just("bpm"), "tempo": st.just("Movement"), "value": st.sampled_from([60, 128, 300])}),
    st.sampled_from([{"do": "tap", "tempo": "Movement"}, {"do": "line-up", "tempo": "Movement"}, {"do": "stop-all"},
                     {"do": "let-go", "holders": ["a"]}, {"do": "grand", "value": 0.4},
                     {"do": "highlight", "steps": [["1"], ["2"]], "tempo": "Movement", "holder": "a"}]),
    st.sampled_from(PROGRAMS),
)  # fmt: skip


def played(moments, rate):
    """The state after actions (pause, action), with frames at a rate in between (0: none)."""
    live, t, frame = Live(), 10.0, 10.0
    live.swap(PROGRAMS[0], t)
    for pause, done in moments:
        t += pause
        while rate and frame <= t:
            live.advance(frame)
            frame += 1 / rate
        if isinstance(done, dict):
            with suppress(ZarabandaError):
                live.act(done, t)
        else:
            live.swap(done, t)
    live.advance(t + 0.5)
    return live.now


@thorough(150)
@given(st.lists(st.tuples(st.floats(0, 1.5), ACTIONS), max_size=14))
def test_the_same_actions_give_the_same_state_with_frames_at_44_hz_at_20_hz_and_none(moments):
    without = played(moments, 0)
    assert played(moments, 44) == without
    assert played(moments, 20) == without


@pytest.fixture(scope="module")
def demo_program(demo_parts):
    return Compiler().take(ShowUpdate("test", 1, demo_parts, whole=True))


@pytest.mark.parametrize("kind", every_action.KINDS, ids=lambda kind: kind.__struct_config__.tag)
def test_any_action_of_any_kind_is_such_a_fold(demo_program, kind):
    names = every_action.names_in(demo_program)
    of_kind = st.tuples(st.floats(0.01, 0.7), every_action.of_kind(kind, names))
    others = st.lists(st.tuples(st.floats(0.01, 0.7), every_action.any_action(demo_program)), max_size=3)

    @thorough(4)
    @given(others, of_kind, others)
    def same(before, one, after):
        states = []
        for rate in (0, 44):
            live, t, frame = Live(), 10.0, 10.0
            live.swap(demo_program, t)
            for pause, drawn in (*before, one, *after):
                t += pause
                while rate and frame <= t:
                    live.advance(frame)
                    frame += 1 / rate
                with suppress(ZarabandaError):
                    live.now = acts.act(live.now, drawn, t)
            live.advance(t + 0.3)
            states.append(live.now)
        assert states[0] == states[1]

    same()


def test_two_presses_give_the_same_whether_a_frame_lay_between_or_not():
    press = {"do": "press", "control": "control:2"}
    ends = 2 / 1.5 / 2  # two cycles at 1.5 a beat of 120 BPM, on the beat from 0
    for frames in ([], [10.8], [10.3, 10.7, 10.9]):
        live = Live()
        live.swap(PROGRAMS[0], 10.0)
        live.act(press, 10.0)
        for frame in frames:
            live.advance(frame)
        live.act(press, 11.0)
        assert live.levels["control:2"] == 1.0, "it had ended by itself: the second press starts it again"
    assert ends < 1


def test_states_are_kept_as_they_were():
    first = LiveState()
    live = Live()
    live.swap(PROGRAMS[0], 0.0)
    second = live.now
    live.act({"do": "level", "control": "control:1", "value": 0.5}, 0.1)
    third = live.now
    live.act({"do": "stop-all"}, 0.2)
    assert first == LiveState()
    assert list(second.playing) == ["draft:9"]
    assert third.playing["control:1"].level == 0.5
    assert not third.playing["control:1"].stopping
    assert acts.act(third, action({"do": "stop-all"}), 0.2) == live.now, "the same from the same"


@given(st.floats(10, 400), st.lists(st.floats(0.05, 1.2), max_size=5), st.floats(0, 30))
def test_when_a_beat_comes_is_the_inverse_of_which_beat_it_is(bpm, taps, later):
    tempo, t = Tempo(bpm, since=3.0, beat=1.5), 4.0
    for pause in taps:
        t += pause
        tempo = tempo.tapped(t)
    assert tempo.time_of(tempo.beats(t + later)) == pytest.approx(t + later, abs=1e-6)


def test_what_is_frozen_never_ends_and_a_release_does():
    live = Live()
    live.swap(PROGRAMS[0], 0.0)
    live.act({"do": "freeze", "key": "draft:9"}, 0.1)
    assert due(live.now, live.playing["draft:9"])[0] == float("inf")
    live.act({"do": "stop", "key": "draft:9"}, 0.2)
    assert due(live.now, live.playing["draft:9"]) == (pytest.approx(0.6), False)
    assert list(advance(live.now, 0.59).playing) == ["draft:9"]
    assert list(advance(live.now, 0.61).playing) == []
