"""A light that stands in for a broken one does what that would do, hits what that would hit, and is itself when given back."""

import msgspec
import numpy as np
import pytest

from tests.engine.shows import HEADS, RIG, effect, program, show
from tests.engine.test_loop import Clock
from zarabanda.core.playback.stand_ins import StandIns
from zarabanda.core.rig import attributes
from zarabanda.core.rig.attributes import INTENSITY, PAN, TILT
from zarabanda.core.rig.followed import points_of
from zarabanda.core.rig.modes import Channel, ModeSpec
from zarabanda.core.rig.rig import FixtureSpec, build
from zarabanda.engine import journal
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.acts import act
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.engine.tracing import traced
from zarabanda.errors import ZarabandaError
from zarabanda.messages import action
from zarabanda.outputs.base import MemoryOutput

HANGING = RIG | {"fixtures": [one | {"rotation": [0, 180, 0]} for one in RIG["fixtures"]]}
DRAFT = {
    "pan": {"1": 33.0, "2": 5.0, "3": -70.0}, "tilt": {"1": 25.0, "2": 10.0, "3": -40.0}, "zoom": {"1": 12.0},
    "red": {"1": 0.25}, "green": {"1": 0.5}, "blue": {"1": 1.0},
}  # fmt: skip


def started():
    clock, seen = Clock(), []
    loop = Loop(LiveState(), [MemoryOutput()], clock=clock, sleep=clock.sleep)
    loop.on_frame = lambda snapshot: seen.append((snapshot.values.copy(), snapshot.data.copy()))
    loop.swap(program(show(effect(), draft=DRAFT), Compiler(), HANGING))
    return loop, seen


def test_it_does_what_the_broken_one_would_do_and_all_is_as_before_when_it_is_given_back():
    (plain, without), (loop, seen) = started(), started()
    rig = None
    for n in range(30):
        t = 100.0 + n / 20
        if n == 10:
            loop.post(action({"do": "stand-in", "light": 1, "by": 3}))
        if n == 20:
            loop.post(action({"do": "stand-in", "light": 1}))
        plain.tick(t)
        loop.tick(t)
        (then, sent), (now, really) = without[-1], seen[-1]
        rig = loop.state.program.rig
        if not 10 <= n < 20:
            np.testing.assert_array_equal(now, then)
            np.testing.assert_array_equal(really, sent)
            continue
        np.testing.assert_array_equal(now[:, [1, 3]], then[:, [1, 3]])
        same = [row for row in range(attributes.COUNT) if row not in (PAN, TILT)]
        np.testing.assert_allclose(now[same, 2], then[same, 0], rtol=1e-6)
        assert now[INTENSITY, 0] == 0
        assert (really[0, 4], really[0, 24]) == (0, sent[0, 4]), "in its slots as well"
        hit = [
            points_of(rig, np.array([head]), values[PAN, [head]].astype(float), values[TILT, [head]].astype(float))[0]
            for head, values in ((0, then), (2, now))
        ]
        np.testing.assert_allclose(hit[0], hit[1], atol=0.05)


@pytest.mark.parametrize("attribute", ["intensity", "pan", "tilt", "position", "colour", "zoom"])
@pytest.mark.parametrize("head", ["1", "2", "3"])
def test_the_last_step_of_a_trace_is_on_stage(attribute, head):
    loop, seen = started()
    loop.post(action({"do": "stand-in", "light": 1, "by": 3}))
    loop.post(action({"do": "grand", "value": 0.5}))
    loop.tick(100.3)
    found = traced(loop.state, loop.sent, head, attribute, 100.3, 1)
    rows = [attributes.INDEX[name] for name in attributes.touched(attribute)]
    assert found.steps[-1].value == pytest.approx(seen[-1][0][rows, HEADS.index(head)].tolist(), abs=1e-3)
    says = {"1": "3 stands in for it", "2": "", "3": "stands in for 1"}[head]
    changes = says and (head == "3" or attribute == "intensity")
    assert (found.steps[-1].who == says) == bool(changes)


@pytest.mark.parametrize(
    ("before", "asked", "place", "said"),
    [
        ({}, (1, 1), "by", "cannot stand in for itself"),
        ({}, (9, 1), "light", "There is no light 9"),
        ({}, (1, 9), "by", "There is no light 9"),
        ({1: 2}, (3, 2), "by", "2 stands in for 1 already"),
        ({1: 2}, (3, 1), "by", "that one is broken itself"),
        ({1: 2}, (2, 3), "light", "2 stands in for 1. Give it back first."),
    ],
)
def test_what_cannot_stand_in_is_refused(before, asked, place, said):
    state = LiveState(program=program(show(effect()), Compiler()), stand_ins=before)
    with pytest.raises(ZarabandaError, match=said) as refused:
        act(state, action({"do": "stand-in", "light": asked[0], "by": asked[1]}), 100.0)
    assert refused.value.place == place


def test_a_restarted_engine_goes_on_with_it_unless_a_light_is_gone():
    state = LiveState(program=program(show(effect()), Compiler()), stand_ins={1: 3})
    entry = journal.entry_of(state, 5.0, 10.0, "boot")
    read = msgspec.msgpack.decode(msgspec.msgpack.encode(entry), type=journal.LiveEntry)
    assert journal.restored(read, state.program, 5.0, 10.0, "boot").stand_ins == {1: 3}
    fewer = program(show(effect()), Compiler(), RIG | {"fixtures": RIG["fixtures"][:2]})
    assert journal.restored(read, fewer, 5.0, 10.0, "boot").stand_ins == {}


def kind(cells, *whole):
    channels = [Channel(name, (n,), *ends) for n, (name, ends) in enumerate(whole)]
    channels += [Channel("red", (len(channels) + n,), cell=n + 1) for n in range(cells)]
    limits = {name: (*ends, ends[0]) for name, ends in whole}
    return ModeSpec("any", "bar", "rgb" if cells else "none", tuple(channels), 20, limits, cells=((0.0, 0.0, 0.0),) * cells)


LEVEL, TURN, WIDE = ("intensity", (0, 100)), ("tilt", (-90, 90)), ("zoom", (10, 40))


@pytest.mark.parametrize(
    ("broken", "other", "expected"),
    [
        (kind(2, LEVEL, TURN), kind(2, LEVEL, TURN), {"2": {"intensity": 80, "tilt": 30}, "2.1": {"red": 0.25, "intensity": 50}}),
        (kind(3, LEVEL), kind(2, LEVEL), {"2": {"intensity": 80}, "2.1": {"red": 0.25}, "2.2": {"red": 0.75}}),
        (kind(3), kind(0, LEVEL, TURN), {"2": {"intensity": 60, "tilt": -90}}),
        (kind(0, LEVEL, WIDE), kind(2, LEVEL), {"2": {"intensity": 80}, "2.2": {"intensity": 100, "red": 1}}),
        (kind(0, LEVEL, ("zoom", (1, 90))), kind(0, LEVEL, WIDE), {"2": {"zoom": 40}}),
    ],
    ids=["alike", "fewer cells", "one light for cells", "cells for one light", "narrower"],
)
def test_parts_stand_in_for_parts_within_what_they_can_do(broken, other, expected):
    rig = build([FixtureSpec(1, "", broken, (0, 0, 5)), FixtureSpec(2, "", other, (1, 0, 5), address=100)])
    values, index = rig.home.astype(float), rig.heads.index
    given = {"1": {"intensity": 80, "tilt": 30, "zoom": 70}}
    given |= {f"1.{n}": {"red": 0.25 * n, "intensity": (50, 60, 70)[n - 1]} for n in (1, 2, 3)}
    for key, own in given.items():
        for name, value in own.items():
            if key in index:
                values[attributes.INDEX[name], index[key]] = value
    StandIns(rig, [(1, 2)]).apply(values)
    for key, own in expected.items():
        assert {name: float(values[attributes.INDEX[name], index[key]]) for name in own} == pytest.approx(own, abs=1e-6), key
    assert not values[INTENSITY, [index[key] for key in given if key in index]].any()
