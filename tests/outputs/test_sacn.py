"""E1.31: our packets against an independent library and our node, and the node against bad packets."""

import random
import time

import numpy as np
import pytest
from sacn.messages.data_packet import DataPacket as Judge

from tests.waiting import until
from zarabanda.errors import ZarabandaError
from zarabanda.outputs import sacn
from zarabanda.outputs.sacn import SacnOutput
from zarabanda.simulators.node import Node, decode

CID = bytes(range(16))


def a_packet(universe=7, sequence=9, slots=bytes(range(256)) * 2):
    data = sacn.packet(universe, CID, "Zarabanda", 100)
    data[111] = sequence
    data[126:] = slots
    return bytes(data)


def test_bytes_are_those_of_an_independent_library():
    judge = Judge(cid=tuple(CID), sourceName="Zarabanda", universe=7, dmxData=tuple(range(256)) * 2, priority=100, sequence=9)
    assert a_packet() == bytes(judge.getBytes())


def test_the_node_decodes_what_was_meant():
    packet = decode(a_packet())
    assert (packet.universe, packet.sequence, packet.priority, packet.source) == (7, 9, 100, "Zarabanda")
    assert packet.slots == bytes(range(256)) * 2
    assert not packet.terminated


@pytest.mark.parametrize("place", [0, 4, 18, 40, 115, 117, 118, 123, 125])
def test_a_broken_field_is_refused(place):
    data = bytearray(a_packet())
    data[place] ^= 0x55
    with pytest.raises(ValueError, match=r"\w"):
        decode(bytes(data))


def test_garbage_never_raises_anything_but_valueerror():
    chance = random.Random(3)
    for _ in range(500):
        data = bytearray(a_packet())[: chance.randrange(0, 700)]
        for _ in range(chance.randrange(0, 6)):
            if data:
                data[chance.randrange(len(data))] = chance.randrange(256)
        try:
            decode(bytes(data))
        except ValueError:
            continue


@pytest.fixture
def node():
    receiver = Node(0)
    yield receiver
    receiver.close()


def test_sequence_keep_alive_and_termination(node):
    output = sacn.SacnOutput(port=node.port, cid=CID)
    data = np.zeros((2, 512), np.uint8)
    for frame in range(300):
        data[0, 0] = frame % 256
        output.send([1, 2], data, frame / 44)
    assert node.wait_for(lambda slots: slots(1)[:1] == bytes([299 % 256]))
    rows = {row["universe"]: row for row in node.status()["universes"]}
    assert rows[1]["packets"] == 300
    assert rows[1]["sequence_errors"] == rows[2]["sequence_errors"] == 0
    # standing still: the first, three more, then one every 0.9 s of 6.8 s
    assert rows[2]["packets"] == 4 + 7
    output.close([1, 2])
    end = time.monotonic() + 5
    while time.monotonic() < end and not all(row["terminated"] for row in node.status()["universes"]):
        node.wait_for(lambda slots: True, 0.1)
    assert all(row["terminated"] for row in node.status()["universes"])
    assert output.report().errors == 0


def test_the_node_counts_lost_packets(node):
    for sequence in (1, 2, 4, 5):
        node.take(a_packet(sequence=sequence), arrived=sequence / 44)
    node.take(b"nonsense", 1.0)
    status = node.status()
    assert status["universes"][0]["sequence_errors"] == 1
    assert status["bad"] == 1
    assert "too few" in status["last_bad"]


def test_other_hosts_are_refused_unless_a_user_sets_them():
    with pytest.raises(ZarabandaError, match="leaves this machine"):
        sacn.SacnOutput("192.0.2.1")


def test_a_taken_port_is_told(node):
    with pytest.raises(ZarabandaError, match="--node-port"):
        Node(node.port)


def test_a_universe_that_leaves_the_rig_ends_its_stream_at_once():
    node = Node(0)
    try:
        output = SacnOutput(port=node.port)
        output.send([1, 2], np.ones((2, 512), np.uint8), 0.0)
        output.send([2], np.full((1, 512), 7, np.uint8), 0.1)
        rows = until(lambda: (seen := node.status()["universes"]) and seen[0]["packets"] == 4 and seen, 5)
        assert [row["terminated"] for row in rows] == [True, False]
        output.send([1, 2], np.ones((2, 512), np.uint8), 0.2)
        until(lambda: not node.status()["universes"][0]["terminated"], 5)
        output.close([1, 2])
    finally:
        node.close()


def test_a_restarted_output_goes_on_at_the_next_sequence_number():
    node, kept = Node(0), np.zeros(64_000, np.uint8)
    try:
        sent = 0
        for _ in range(3):
            output = SacnOutput(port=node.port, sequences=kept)
            for n in range(100):
                output.send([5], np.full((1, 512), n, np.uint8), n / 44)
                sent += 1
                if sent % 20 == 0:  # no more at once than a busy machine's socket holds
                    row = until(lambda: (seen := node.status()["universes"]) and seen[0]["packets"] == sent and seen[0], 5)  # noqa: B023
            output._socket.close()  # as one that is killed
        assert row["sequence_errors"] == 0
    finally:
        node.close()
