"""Simulated nodes: who holds a universe, what waits to be shown together, and how they misbehave when they are told to."""

import contextlib
import random
import socket
import time

import pytest

from tests.protocols.test_packets import SLOTS, a_data_packet, a_dmx
from tests.waiting import until
from zarabanda import wire
from zarabanda.errors import ZarabandaError
from zarabanda.protocols import artnet, e131
from zarabanda.protocols.faults import MOST_KINDS
from zarabanda.simulators.artnet_node import ArtnetNode
from zarabanda.simulators.e131_node import E131Node
from zarabanda.simulators.node import Faults
from zarabanda.simulators.serving import serve


@pytest.fixture
def node():
    receiver = E131Node(0)
    yield receiver
    receiver.close()


@pytest.fixture
def artnet_node():
    receiver = ArtnetNode(0, outputs=[1, 2, 17])
    yield receiver
    receiver.close()


def from_source(cid, priority, value, sequence=0, terminated=False, sync=0):
    data = e131.data_packet(3, cid * 16, cid.decode(), priority, sync)
    data[e131.SEQUENCE], data[e131.SLOTS] = sequence, value
    if terminated:
        data[e131.OPTIONS] = e131.TERMINATED
    return bytes(data)


def test_the_node_counts_lost_and_bad_packets(node):
    for sequence in (1, 2, 4, 5):
        node.take(a_data_packet(sequence=sequence), arrived=sequence / 44)
    node.take(b"nonsense", 1.0)
    status = node.status()
    assert status["universes"][0]["sequence_errors"] == 1
    assert (status["bad"], "too few" in status["last_bad"]) == (1, True)


def test_the_highest_priority_holds_a_universe_until_it_is_silent(node):
    told = []
    for t, packet in (
        (0.0, from_source(b"a", 100, 1)), (0.1, from_source(b"b", 90, 2)), (0.2, from_source(b"a", 100, 3, 1)),
        (1.0, from_source(b"b", 90, 4, 1)), (2.8, from_source(b"b", 90, 5, 2)), (2.9, from_source(b"a", 100, 6, 9)),
        (3.0, from_source(b"c", 100, 7)), (3.1, from_source(b"a", 100, 8, 10, terminated=True)),
        (3.2, from_source(b"c", 100, 9, 1)),
    ):  # fmt: skip
        node.take(packet, t)
        told.append(node.slots(3)[0])
    #       a  b no a  b no  a lost: b  a again  equal: a stays  a ended   c
    assert told == [1, 1, 3, 3, 5, 6, 6, 6, 9]
    assert node.status()["universes"][0]["sequence_errors"] == 0


def test_what_asks_for_it_waits_for_synchronisation_but_not_for_ever(node):
    def value(t, number, sequence):
        node.take(from_source(b"a", 100, number, sequence, sync=7000), t)
        return node.slots(3)[0]

    assert value(0.0, 1, 0) == 1  # nothing has synchronised yet
    node.take(e131.sync_packet(7000, b"a" * 16, 0), 0.1)
    assert value(0.2, 2, 1) == 1
    node.take(e131.sync_packet(7000, b"a" * 16, 1), 0.3)
    assert node.slots(3)[0] == 2
    assert value(3.0, 3, 2) == 3  # the synchronisation is lost


def test_the_art_net_node_takes_its_own_universes_and_waits_for_artsync(artnet_node):
    artnet_node.take(a_dmx(1, 1), 0.0)
    artnet_node.take(a_dmx(9, 1), 0.0)
    assert (artnet_node.slots(1), artnet_node.slots(9), artnet_node.others) == (SLOTS, b"", 1)
    artnet_node.take(artnet.sync_packet(), 0.1)
    artnet_node.take(a_dmx(1, 2, bytes(512)), 0.2)
    assert artnet_node.slots(1) == SLOTS
    artnet_node.take(artnet.sync_packet(), 0.3)
    assert artnet_node.slots(1) == bytes(512)
    artnet_node.take(a_dmx(1, 4), 9.0)
    assert artnet_node.slots(1) == SLOTS  # 4 s without ArtSync
    assert artnet_node.status()["universes"][0]["sequence_errors"] == 1


def test_it_answers_polls_four_outputs_a_reply(artnet_node):
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as asker:
        asker.settimeout(20)
        asker.bind(("127.0.0.1", 0))
        asker.sendto(artnet.poll_packet(), artnet_node.address)
        replies = [artnet.decode(asker.recv(1000)) for _ in range(2)]
    assert [(one.address, one.outputs, one.bind) for one in replies] == [("127.0.0.3", (1, 2), 1), ("127.0.0.3", (17,), 2)]


def test_one_that_vanishes_lets_its_port_go_and_comes_back(node):
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as sender:
        sender.connect(node.address)
        node.misbehave(Faults(vanished=True))

        def refused():
            with contextlib.suppress(ConnectionRefusedError):
                sender.send(a_data_packet())
                return False
            return True

        until(refused)
        node.misbehave(Faults())
        until(lambda: refused() or node.slots(7))
        assert node.wait_for(lambda slots: slots(7) == SLOTS)


def test_one_whose_port_was_taken_meanwhile_stays_away(node):
    node.misbehave(Faults(vanished=True))
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as other:
        other.bind(node.address)
        with pytest.raises(ZarabandaError, match="cannot listen"):
            node.misbehave(Faults())
        assert node.status()["vanished"]
    node.misbehave(Faults())


def test_it_loses_and_delays_what_it_is_told_to(node):
    node.misbehave(Faults(drop=1.0))
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as sender:
        sender.sendto(a_data_packet(1), node.address)
        node.misbehave(Faults(delay_ms=30, name="Señor nodo"))
        sender.sendto(a_data_packet(2, slots=bytes([5]) * 512), node.address)
        assert node.wait_for(lambda slots: slots(2)[:1] == b"\5")
    assert node.status()["name"] == "Señor nodo"
    with pytest.raises(ZarabandaError, match="0 to 100 %"):
        node.misbehave(Faults(drop=2))


def test_ten_thousand_hostile_packets_are_counted_by_kind_and_stop_nothing(node, artnet_node):
    chance = random.Random(7)
    good = [a_data_packet(), a_dmx(1), artnet.sync_packet(), e131.sync_packet(7, bytes(16), 1), bytes(700)]
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as sender:
        for n in range(10_000):
            data = bytearray(chance.choice(good))[: chance.randrange(0, 700)]
            for _ in range(chance.randrange(0, 6) if data else 0):
                data[chance.randrange(len(data))] = chance.randrange(256)
            sender.sendto(data, (node, artnet_node)[n % 2].address)
            if n % 200 == 0:
                time.sleep(0)  # let them read
        for receiver, packet in ((node, a_data_packet(9)), (artnet_node, a_dmx(2))):
            until(lambda: sender.sendto(packet, receiver.address) and receiver.slots(9 if receiver is node else 2) == SLOTS)  # noqa: B023
    for receiver in (node, artnet_node):
        status = receiver.status()
        assert 3 <= len(status["faults"]) <= MOST_KINDS + 1
        assert status["bad"] == sum(status["faults"].values()) > 1000


def test_a_taken_port_is_told(node):
    with pytest.raises(ZarabandaError, match="--node-port"):
        E131Node(node.port)


def test_nodes_are_asked_over_a_local_socket(node, artnet_node, tmp_path):
    server = serve([node, artnet_node], [], tmp_path / "n.sock")
    try:
        with wire.connect(tmp_path / "n.sock", 10) as connection:

            def ask(**message):
                wire.send(connection, message)
                return wire.receive(connection, wire.PLAIN)

            assert [one["protocol"] for one in ask(type="where")["nodes"]] == ["E1.31", "Art-Net"]
            assert ask(type="misbehave", protocol="Art-Net", faults={"drop": 0.5})["type"] == "misbehaves"
            assert [one["drop"] for one in ask(type="status")["nodes"]] == [0.0, 0.5]
            for wrong in (
                {"type": "dance"},
                {},
                {"type": "misbehave", "faults": {"drop": 9}},
                {"type": "misbehave", "faults": {"x": 1}},
            ):
                assert ask(**wrong)["type"] == "refused"
    finally:
        server.close()
