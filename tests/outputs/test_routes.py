"""Routes at work, on wires that only keep what is sent: where each packet goes, when, and what is told when it cannot."""

import errno

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.outputs.surroundings import SIMULATORS, Machine, route
from zarabanda.errors import ZarabandaError
from zarabanda.network_settings import HERE_ONLY, NetworkSettings, allow, read, write
from zarabanda.outputs.pacing import KEEP_ALIVE_S, REPEATS, Pace
from zarabanda.protocols.artnet import Dmx, Sync
from zarabanda.protocols.e131 import DataPacket, DiscoveryPacket, SyncPacket

PLACES = ("192.0.2.20", "multicast over eth0", "broadcast over eth0")


def counted(n):
    return n % 256


@pytest.mark.parametrize(
    ("parts", "places"),
    [
        ([], set()),
        ([route(on=False), route(2, "192.0.2.20", on=False)], set()),
        ([route()], {SIMULATORS["E1.31"]}),
        ([route(), route(2, protocol="Art-Net")], set(SIMULATORS.values())),
        ([route(to="127.0.0.9", port=9000)], {("127.0.0.9", 9000)}),
        ([route(to="192.0.2.20")], {("192.0.2.20", 5568)}),
        ([route(to="192.0.2.20", protocol="Art-Net")], {("192.0.2.20", 6454)}),
        ([route(to="multicast", over="eth0", first=513)], {("239.255.2.1", 5568), ("239.255.2.2", 5568)}),
        ([route(to="broadcast", protocol="Art-Net", over="eth0")], {("192.0.2.255", 6454)}),
    ],
)
def test_nothing_is_sent_but_where_a_route_that_is_on_goes(parts, places):
    for allowed in (PLACES, ()):
        machine = Machine(allowed)
        machine.routes.set(parts)
        for _ in range(30):
            machine.frames(22, value=counted)
            machine.routes.look()
        discovery = {("239.255.250.214", 5568)} if any(part.to == "multicast" for part in parts) else set()
        here = {place for place in places if place[0].startswith("127.")}
        assert {address for address, _ in machine.sent} == (places | discovery if allowed else here)
        states = [one.state for one in machine.routes.report()]
        wanted = ["off" if not part.on else "sending" if allowed or here else "not allowed" for part in parts]
        assert states == wanted


@pytest.mark.parametrize(
    ("more", "numbers"),
    [
        ({}, [1, 2, 3, 9]), ({"ranges": ((2, 3),)}, [2, 3]), ({"ranges": ((2, 3),), "first": 101}, [101, 102]),
        ({"first": 11}, [11, 12, 13, 19]), ({"ranges": ((3, 3), (9, 9)), "first": 1}, [1, 7]),
        ({"protocol": "Art-Net", "first": 0}, [0, 1, 2, 8]), ({"first": 63_998}, [63_998, 63_999]),
    ],
)  # fmt: skip
def test_a_route_carries_its_universes_by_its_own_numbers(more, numbers):
    machine = Machine()
    machine.routes.set([route(**more)])
    machine.frames(1, universes=(1, 2, 3, 9))
    there = [packet.port_address if isinstance(packet, Dmx) else packet.universe for _, packet in machine.sent]
    assert there == numbers
    assert machine.routes.report()[0].universes == len(numbers)


def plainly_due(frames, times, always):
    """Which frames of one universe are sent, read plainly from the standard."""
    sent, last, repeats, at = [], None, 0, None
    for frame, t in zip(frames, times, strict=True):
        repeats = 0 if frame != last else repeats + 1
        if always or repeats <= REPEATS or t - at >= KEEP_ALIVE_S:
            sent.append(t)
            at = t
        last = frame
    return sent


@given(
    st.lists(st.tuples(st.lists(st.integers(0, 1), min_size=3, max_size=3), st.floats(0.01, 0.7)), min_size=1, max_size=60),
    st.booleans(), st.lists(st.sets(st.integers(0, 2)), max_size=2),
)  # fmt: skip
def test_what_is_due_is_what_a_plain_reading_says(frames, always, leaving):
    pace = Pace(44, always)
    pace.lay(np.full(3, -1))
    times = np.cumsum([gap for _, gap in frames])
    got = [[], [], []]
    for n, ((values, _), t) in enumerate(zip(frames, times, strict=True)):
        if leaving and n == len(frames) // 2:
            pace.lay(np.array([0, 1, 2]))  # laid anew as it was: nothing changes
        data = np.zeros((3, 512), np.uint8)
        data[:, 7] = values
        for row in pace.due(data, t):
            got[row].append(t)
    for row in range(3):
        assert got[row] == plainly_due([values[row] for values, _ in frames], times, always)


@pytest.mark.parametrize("rate", [10.0, 30.0, 44.0])
def test_a_slower_route_sends_its_own_rate_and_the_newest_values(rate):
    machine = Machine()
    machine.routes.set([route(rate=rate)])
    machine.frames(440, universes=(1,), value=counted)
    packets = [packet for _, packet in machine.sent]
    assert len(packets) == pytest.approx(10 * rate, abs=2)
    assert [packet.sequence for packet in packets] == [(n + 1) % 256 for n in range(len(packets))]


def test_what_stands_still_is_repeated_then_kept_alive_and_art_net_counts_from_1():
    machine = Machine()
    machine.routes.set([route(), route(2, protocol="Art-Net")])
    machine.frames(300, universes=(1,))
    for kind in (DataPacket, Dmx):
        packets = [packet for _, packet in machine.sent if isinstance(packet, kind)]
        assert len(packets) == 4 + 7  # the first, three more, one every 0.9 s of 6.8 s
        assert [packet.sequence for packet in packets] == [*range(1, 12)]


def test_streams_end_by_the_standard_with_the_frame_the_route_or_the_program():
    machine = Machine()
    machine.routes.set([route()])
    machine.frames(5, universes=(1, 2, 3), value=counted)
    machine.frames(5, universes=(1, 2), value=counted)
    ended = [packet for _, packet in machine.sent if packet.terminated]
    assert [packet.universe for packet in ended] == [3, 3, 3]
    machine.frames(2, universes=(1, 2, 3), value=counted)
    assert not machine.sent[-1][1].terminated
    machine.routes.set([route(ranges=((2, 3),))])
    machine.frames(2, universes=(1, 2, 3), value=counted)
    machine.routes.look()
    assert [packet.universe for _, packet in machine.sent if packet.terminated] == [3, 3, 3, 1, 1, 1]
    machine.routes.close()
    assert sorted(packet.universe for _, packet in machine.sent if packet.terminated)[-6:] == [3] * 6
    for universe in (1, 2, 3):
        counts = [packet.sequence for _, packet in machine.sent if packet.universe == universe]
        assert counts == [(n + 1) % 256 for n in range(len(counts))]
    assert all(wire.closed for opened in machine.wires.values() for wire in opened)


def test_a_rig_that_is_emptied_ends_its_streams_and_a_new_one_begins_them():
    machine = Machine()
    machine.routes.set([route()])
    machine.frames(2, universes=())
    machine.frames(3, value=counted)
    machine.frames(5, universes=())
    machine.frames(2, universes=(2,), value=counted)
    assert [(packet.universe, packet.sequence) for _, packet in machine.sent if packet.terminated] == [
        (1, 4), (2, 4), (1, 5), (2, 5), (1, 6), (2, 6),
    ]  # fmt: skip
    assert [(packet.universe, packet.sequence) for _, packet in machine.sent][-2:] == [(2, 7), (2, 8)]
    assert machine.routes.report()[0].errors == 0


def test_a_route_that_fails_in_a_way_nobody_foresaw_keeps_none_of_the_others():
    machine = Machine()
    machine.routes.set([route(), route(2, protocol="Art-Net")])
    machine.frames(1)
    next(iter(machine.wires.values()))[0].fault = RuntimeError("odd")
    machine.frames(3, value=counted)
    broken, well = machine.routes.report()
    assert (broken.state, "RuntimeError" in broken.text, well.packets) == ("failed", True, 8)


def test_a_route_that_is_changed_goes_on_with_its_streams():
    machine = Machine()
    machine.routes.set([route()])
    machine.frames(3, value=counted)
    machine.routes.set([route(rate=30.0, priority=150)])
    machine.frames(3, value=counted)
    machine.routes.look()
    packets = [packet for _, packet in machine.sent]
    assert not any(packet.terminated for packet in packets)
    assert packets[-1].priority == 150


def test_a_restarted_engine_counts_on(tmp_path):
    from zarabanda.engine.identity import SequenceNumbers, stream_identity
    from zarabanda.workers import Troubles

    sequences, troubles = [], Troubles()
    for _ in range(3):
        machine = Machine()
        kept = SequenceNumbers(tmp_path, troubles)
        machine.sequences = {1: kept.of(1), 2: kept.of(2)}
        machine.routes.set([route(), route(2, protocol="Art-Net")])
        machine.frames(100, universes=(5,), value=counted)
        sequences += [packet.sequence for _, packet in machine.sent if isinstance(packet, DataPacket)]
    assert sequences == [(n + 1) % 256 for n in range(300)]
    assert stream_identity(tmp_path, troubles) == stream_identity(tmp_path, troubles)
    (tmp_path / "sequences" / "9.bin").mkdir()
    assert SequenceNumbers(tmp_path, troubles).of(9).any() == False  # noqa: E712
    assert troubles.report() == []


def test_frames_are_shown_together_where_a_route_says_so():
    machine = Machine(PLACES)
    machine.routes.set([
        route(sync=7000), route(2, "multicast", sync=7000, over="eth0"), route(3, protocol="Art-Net", sync=1),
    ])  # fmt: skip
    machine.frames(2, value=counted)
    kinds = [type(packet) for _, packet in machine.sent]
    assert kinds == [DataPacket, DataPacket, SyncPacket] * 4 + [Dmx, Dmx, Sync] * 2
    syncs = [(address, packet) for address, packet in machine.sent if isinstance(packet, SyncPacket)]
    assert [address for address, _ in syncs] == [SIMULATORS["E1.31"]] * 2 + [("239.255.27.88", 5568)] * 2
    assert [packet.sequence for _, packet in syncs] == [1, 2, 1, 2]
    assert {packet.sync for _, packet in machine.sent if isinstance(packet, DataPacket | SyncPacket)} == {7000}


def test_receivers_of_multicast_are_told_of_our_universes_every_10_s():
    machine = Machine(PLACES)
    machine.routes.set([route(to="multicast", over="eth0", ranges=((1, 2),)), route(2, "multicast", over="eth0", first=10)])
    for _ in range(50):
        machine.frames(22, universes=(1, 2, 3))
        machine.routes.look()
    told = [packet.universes for _, packet in machine.sent if isinstance(packet, DiscoveryPacket)]
    assert told == [(1, 2, 10, 11, 12)] * 3  # of 25 s
    machine.routes.set([])
    machine.frames(1)
    machine.routes.look()
    assert all(wire.closed for opened in machine.wires.values() for wire in opened)


def test_another_priority_stands_by_for_another_machine():
    machine = Machine(priority=50)
    machine.routes.set([route(priority=120)])
    machine.frames(1)
    assert {packet.priority for _, packet in machine.sent} == {50}
    assert machine.routes.report()[0].priority == 50


@pytest.mark.parametrize(
    ("number", "said", "errors", "drops"),
    [
        (errno.ENETUNREACH, "cable", 1, 2), (errno.ECONNREFUSED, "nobody listens", 1, 2), (errno.EAGAIN, "", 0, 2),
        (errno.EPERM, "firewall", 1, 2),
    ],
)  # fmt: skip
def test_what_cannot_be_sent_is_counted_and_told_and_the_others_go_on(number, said, errors, drops):
    machine = Machine(PLACES)
    machine.routes.set([route(to="192.0.2.20"), route(2)])
    machine.frames(3, value=counted)
    first = machine.wires[next(iter(machine.wires))][0]
    machine.fail(first, number)
    machine.frames(1, value=lambda n: 99)
    broken, well = machine.routes.report()
    assert (broken.errors, broken.drops, well.errors, well.packets) == (errors, drops, 0, 8)
    assert said in broken.text
    assert broken.state == ("failed" if errors else "sending")
    machine.routes.look()
    first.fault = None
    machine.frames(3 * 44, value=counted)
    machine.routes.look()
    assert machine.routes.report()[0].state == "sending"
    assert len(machine.told) == (2 if errors else 0)


def test_an_interface_that_goes_away_and_comes_back():
    machine = Machine(PLACES)
    machine.routes.set([route(to="192.0.2.20", over="eth0"), route(2)])
    machine.frames(2, value=counted)
    there, machine.there = machine.there, []
    machine.routes.look()
    machine.frames(2, value=counted)
    machine.routes.look()
    gone, well = machine.routes.report()
    assert (gone.state, well.state, well.packets) == ("failed", "sending", 8)
    assert "eth0 is not there" in gone.text
    machine.there = there
    machine.routes.look()
    machine.frames(2, value=counted)
    machine.routes.look()
    assert machine.routes.report()[0].state == "sending"
    assert ["failed" in text for text in machine.told] == [True, False]


def test_a_route_that_cannot_be_opened_is_tried_again():
    machine = Machine(PLACES)
    machine.cannot_open = errno.EADDRNOTAVAIL
    machine.routes.set([route(to="192.0.2.20", over="eth0")])
    assert "interface" in machine.routes.report()[0].text
    machine.cannot_open = None
    machine.routes.look()
    machine.frames(1)
    assert len(machine.sent) == 2


def test_what_was_agreed_to_belongs_to_the_machine_and_survives(tmp_path, monkeypatch):
    with pytest.raises(ZarabandaError, match="--here-only"):
        allow(tmp_path, "192.0.2.20")
    monkeypatch.delenv(HERE_ONLY)
    assert read(tmp_path) == NetworkSettings()
    allow(tmp_path, "192.0.2.20")
    allow(tmp_path, "192.0.2.20")
    allow(tmp_path, "127.0.0.9")
    assert read(tmp_path).allowed == ["192.0.2.20"]
    write(tmp_path, NetworkSettings(allowed=["multicast over eth0"], listen=False))
    assert [read(tmp_path).allows(one) for one in ("multicast over eth0", "192.0.2.20", "127.1.2.3")] == [True, False, True]
    monkeypatch.setenv(HERE_ONLY, "1")
    assert (read(tmp_path).allowed, read(tmp_path).listen) == ([], False)
    (tmp_path / "network.json").write_text("{")
    told = []
    assert read(tmp_path, told.append) == NetworkSettings()
    assert "put aside" in told[0]
