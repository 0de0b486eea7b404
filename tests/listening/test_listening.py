"""What is heard: nodes, sources, rivals; bounded whatever others send; on this machine alone unless a user says so."""

import random
import socket

import msgspec
import pytest

from tests.outputs.surroundings import ETH0
from tests.protocols.test_packets import CID, REPLY, a_data_packet, a_dmx
from tests.waiting import until
from zarabanda.listening.ears import HERE, opened, wanted
from zarabanda.listening.heard import MOST_NODES, MOST_SOURCES, Heard
from zarabanda.listening.listener import MOST_A_SECOND, Listener, looks_on
from zarabanda.network_settings import NetworkSettings
from zarabanda.protocols import artnet, e131
from zarabanda.protocols.faults import MOST_KINDS
from zarabanda.simulators.artnet_node import ArtnetNode
from zarabanda.simulators.node import Faults

PORTS = {"E1.31": 0, "Art-Net": 0}


def others(cid=b"b" * 16, name="Other desk", universe=3, priority=120, terminated=False):
    data = e131.data_packet(universe, cid, name, priority)
    if terminated:
        data[e131.OPTIONS] = e131.TERMINATED
    return bytes(data)


def test_a_node_is_known_by_all_its_replies_and_falls_silent():
    heard = Heard()
    for bind, outputs in ((1, (1, 2)), (2, (17,)), (1, (1, 3))):
        reply = artnet.PollReply("9.9.9.9", "Node", "Nodo señal", "fine", outputs, bind)
        heard.take("Art-Net", artnet.reply_packet(reply), "192.0.2.20", 1.0)
    (node,) = heard.found(5.0).nodes
    assert (node.address, node.name, node.long_name, node.outputs, node.silent) == (
        "192.0.2.20",
        "Node",
        "Nodo señal",
        [1, 3, 17],
        False,
    )
    assert heard.found(12.0).nodes[0].silent
    assert heard.found(400.0).nodes == []


def test_sources_are_known_by_their_pages_and_streams_by_priority():
    heard = Heard()
    for packet in e131.discovery_packets(b"b" * 16, "Other desk", range(1, 700)):
        heard.take("E1.31", packet, "192.0.2.50", 1.0, own=CID)
    for packet in (others(universe=3), others(universe=4), others(universe=9, priority=90), a_data_packet()):
        heard.take("E1.31", packet, "192.0.2.50", 1.0, own=CID)
    found = heard.found(2.0)
    assert [(one.name, len(one.universes), one.silent) for one in found.sources] == [("Other desk", 699, False)]
    assert [(one.name, one.priority, one.universes) for one in found.streams] == [
        ("Other desk", 120, [3, 4]),
        ("Other desk", 90, [9]),
    ]
    for packet in e131.discovery_packets(b"b" * 16, "Other desk", [5]):
        heard.take("E1.31", packet, "192.0.2.50", 3.0)
    heard.take("E1.31", others(universe=3, terminated=True), "192.0.2.50", 3.0)
    assert (heard.found(3.1).sources[0].universes, heard.found(3.1).streams[0].universes) == ([5], [4])
    assert heard.found(5.0).streams == []


def test_garbage_and_storms_are_counted_by_kind_and_bounded():
    heard, chance = Heard(), random.Random(5)
    good = [others(), *e131.discovery_packets(CID, "x", [1]), artnet.reply_packet(REPLY), a_dmx()]
    for n in range(10_000):
        data = bytearray(chance.choice(good))[: chance.randrange(0, 700)]
        for _ in range(chance.randrange(0, 6)):
            if data:
                data[chance.randrange(len(data))] = chance.randrange(256)
        heard.take(chance.choice(["E1.31", "Art-Net"]), bytes(data), f"192.0.2.{n % 250}", n / 1000)
    for n in range(2_000):
        sender = f"198.51.{n // 250}.{n % 250}"
        heard.take("Art-Net", artnet.reply_packet(REPLY), sender, 10.0)
        heard.take("E1.31", e131.discovery_packets(n.to_bytes(16), "x", [1])[0], sender, 10.0)
    found = heard.found(10.0)
    assert (len(found.nodes), len(found.sources)) == (MOST_NODES, MOST_SOURCES)
    assert found.skipped > 2_000
    assert 5 < len(found.faults) <= MOST_KINDS + 1
    assert sum(found.faults.values()) > 5_000
    msgspec.msgpack.encode(found)


@pytest.mark.parametrize("look_on", [None, ETH0])
def test_what_is_listened_on_and_where_questions_go(look_on):
    ears = wanted(PORTS, ("127.0.0.3", 6454), look_on, [1, 300])
    polls = {ear.polls for ear in ears if ear.polls}
    assert polls == {("127.0.0.3", 6454)} | ({("192.0.2.255", 6454)} if look_on else set())
    groups = [ear.address for ear in ears if ear.is_group]
    assert groups == (["239.255.250.214", "239.255.0.1", "239.255.1.44"] if look_on else [])
    assert {ear.address for ear in ears if not ear.is_group} == {HERE} | ({"192.0.2.2", "192.0.2.255"} if look_on else set())


class Ears:
    """Sockets that are none: they remember what was opened and sent."""

    def __init__(self):
        self.opened, self.polled = [], []

    def open(self, ear):
        self.opened.append(ear)
        if ear.address != HERE:
            raise OSError(98, "Address already in use")
        made = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        made.bind((HERE, 0))
        made.setblocking(False)
        return made


@pytest.mark.parametrize(
    ("settings", "elsewhere", "said"),
    [
        (NetworkSettings(), False, ""), (NetworkSettings(look_on="eth0"), False, ""), (NetworkSettings(listen=False), False, ""),
        (NetworkSettings(look_on="eth0", allowed=[looks_on("eth0")]), True, "Another program may use this port"),
        (NetworkSettings(look_on="eth7", allowed=[looks_on("eth7")]), False, "eth7 is not there"),
    ],
)  # fmt: skip
def test_nothing_but_this_machine_is_listened_to_unless_a_user_agreed(settings, elsewhere, said):
    ears, now = Ears(), [0.0]
    listener = Listener(lambda: settings, PORTS, ("127.0.0.3", 6454), open=ears.open, there=lambda: [ETH0], clock=lambda: now[0])
    listener._poll = lambda: None
    listener.step()
    found = listener.found()
    assert bool([ear for ear in ears.opened if ear.address != HERE]) == elsewhere
    assert (len(found.ports), found.listening) == ((2, True) if settings.listen else (0, False))
    assert said in " ".join(found.troubles)
    settings = NetworkSettings(listen=False)
    now[0] = 2.0
    listener._settings = lambda: settings
    listener.step()
    assert listener.found().ports == []
    listener.close()


def test_a_node_on_this_machine_is_found_and_a_storm_does_not_stop_the_listener():
    node = ArtnetNode(0)
    here = []
    listener = Listener(NetworkSettings, PORTS, node.address, open=lambda ear: here.append(opened(ear)) or here[-1])
    try:

        def nodes():
            listener.step()
            return listener.found().nodes

        until(nodes)
        node.misbehave(Faults(name="Nodo de prueba"))
        listener._polled = float("-inf")
        until(lambda: nodes()[0].long_name == "Nodo de prueba")
        where = {made.getsockname() for made in here}
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as storm:
            for n in range(3_000):
                for address in where:
                    storm.sendto(bytes(n % 600), address)
                if n % 100 == 0:
                    listener.step()
        listener.step()
        assert listener._read <= MOST_A_SECOND + 1
        assert sum(listener.found().faults.values()) > 100
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as other:

            def heard():
                for address in where:
                    other.sendto(others(), address)
                listener.step()
                return listener.found().streams

            (stream,) = until(heard)
        assert (stream.name, stream.priority, stream.universes, stream.address) == ("Other desk", 120, [3], "127.0.0.1")
    finally:
        listener.close()
        node.close()
