"""Slots held by hand: over everything, for as long as somebody holds them, never kept. And how the loop tells of itself."""

import pytest

from tests.engine.shows import Live, effect, program, show
from zarabanda.engine import journal
from zarabanda.engine.health import Health, Laps
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.errors import ZarabandaError
from zarabanda.messages import LetGo, Second
from zarabanda.messages import action as action_of
from zarabanda.outputs.base import MemoryOutput

INTENSITY = 5
"""The slot of fixture 1."""


def hold(slot, value=None, holder="a", universe=1):
    return action_of({"do": "hold-slot", "universe": universe, "slot": slot, "value": value, "holder": holder})


@pytest.fixture
def loop():
    running = Loop(LiveState(), [MemoryOutput()], clock=lambda: 10.0, sleep=lambda seconds: None)
    running.swap(program(show(effect())))
    running.tick(10.0)
    yield running
    running.batching.close()


def sent(loop, *actions):
    for one in actions:
        loop.post(one)
    loop.tick(10.0)
    return loop.outputs[0].frames[-1][1][0]


def test_a_held_slot_is_over_everything_and_leaves_the_others(loop):
    before = sent(loop)
    held = sent(loop, hold(INTENSITY, 255), hold(500, 7), action_of({"do": "blackout", "on": True}))
    assert (held[INTENSITY - 1], held[499]) == (255, 7)
    assert held[INTENSITY + 9] == 0  # the next fixture is dark
    back = sent(loop, hold(INTENSITY), hold(500), action_of({"do": "blackout", "on": False}))
    assert (back == before).all()


def test_it_ends_with_the_page_that_holds_it_and_is_never_kept(loop):
    sent(loop, hold(1, 9, "page 1"), hold(2, 9, "page 2"), LetGo(holders=["page 1"]))
    assert loop.state.held_slots == {(1, 2): (9, "page 2")}
    entry = journal.entry_of(loop.state, 10.0, 10.0, "")
    assert journal.restored(entry, loop.state.program, 10.0, 10.0, "").held_slots == {}
    sent(loop, LetGo(but=["page 3"]))
    assert loop.state.held_slots == {}


@pytest.mark.parametrize(
    "document", [{"universe": 9}, {"slot": 0}, {"slot": 513}, {"value": 256}, {"value": -1}, {"universe": 0}]
)
def test_what_cannot_be_held_is_refused(document):
    live = Live()
    live.swap(program(show(effect())), 0.0)
    with pytest.raises(ZarabandaError):
        live.act({"do": "hold-slot", "universe": 1, "slot": 1, "value": 1, **document}, 0.0)


def test_the_last_minute_is_told_by_seconds_with_what_the_time_goes_to():
    health, t = Health(), 0.0
    for n in range(70 * 4):  # four frames a second
        health.frame(t, 2.0 + 8 * (n % 4 == 3), {"values": 1.0, "sending": n % 2})
        if n == 200:
            health.missed(3)
        t += 0.25
    assert len(health.minute) == 60
    assert set(health.minute) == {Second(2.0, 10.0, 0), Second(2.0, 10.0, 3)}
    assert (health.late, health.frames, health.parts_ms) == (3, 280, {"values": 1.0, "sending": 0.5})
    times = iter([1.5, 4.0])
    laps = Laps(lambda: next(times), 1.0)
    assert (laps.mark("values"), laps.mark("sending"), laps.times_ms) == (1.5, 4.0, {"values": 500.0, "sending": 2500.0})
