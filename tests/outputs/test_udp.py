"""The real socket, on this machine alone."""

import contextlib
import socket

import numpy as np
import pytest

from tests.outputs.surroundings import CID, route
from tests.waiting import until
from zarabanda.network_settings import NetworkSettings
from zarabanda.outputs.interfaces import interfaces
from zarabanda.outputs.routes import Routes, Surroundings
from zarabanda.outputs.sender import Source
from zarabanda.outputs.sockets import UdpWire, Way
from zarabanda.simulators.e131_node import E131Node
from zarabanda.simulators.node import Faults


@pytest.fixture
def node():
    receiver = E131Node(0)
    yield receiver
    receiver.close()


def test_packets_reach_a_node_and_its_going_and_coming_are_told(node):
    told = []
    now = [0.0]
    routes = Routes(
        Surroundings(Source("Señal", CID), {"E1.31": node.address}, NetworkSettings, tell=told.append, clock=lambda: now[0])
    )
    routes.set([route()])

    def a_frame():
        now[0] += 1 / 44
        routes.send((1, 2), np.full((2, 512), int(now[0] * 44) % 256, np.uint8), now[0])
        routes.look()
        return routes.report()[0].state

    a_frame()
    assert node.wait_for(lambda slots: slots(2)[:1] == b"\1")
    assert {row["source"] for row in node.status()["universes"]} == {"Señal"}
    node.misbehave(Faults(vanished=True))
    until(lambda: a_frame() == "failed")
    node.misbehave(Faults())
    until(lambda: a_frame() == "sending")
    assert ["nobody listens there" in text for text in told] == [True, False]
    routes.close()
    until(lambda: all(row["terminated"] for row in node.status()["universes"]))


def test_a_wire_never_waits_for_room():
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as nobody:
        nobody.bind(("127.0.0.1", 0))
        wire = UdpWire(Way("unicast", nobody.getsockname()))
        assert not wire._socket.getblocking(), "where there is no room it refuses at once"
        sent = 0
        for _ in range(20_000):  # far more than any buffer holds
            with contextlib.suppress(OSError):
                wire.send(bytes(638), nobody.getsockname())
                sent += 1
        assert sent
        assert nobody.recv(1000) == bytes(638)
        wire.close()


def test_the_interfaces_of_this_machine_are_there_with_their_addresses():
    found = interfaces()
    assert (found[0].address, found[0].broadcast) == ("127.0.0.1", "")
    assert "127.0.0.1" in found[0].in_words
