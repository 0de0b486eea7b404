"""Packets byte by byte: E1.31 and Art-Net against independent libraries and the standards' tables; both against garbage."""

import random

import pytest
from sacn.messages.data_packet import DataPacket as JudgeData
from sacn.messages.sync_packet import SyncPacket as JudgeSync
from sacn.messages.universe_discovery import UniverseDiscoveryPacket as JudgeDiscovery
from stupidArtnet import StupidArtnet

from zarabanda.protocols import artnet, e131

CID = bytes(range(16))
SLOTS = bytes(range(256)) * 2


def a_data_packet(universe=7, sequence=9, name="Zarabanda", priority=100, sync=0, slots=SLOTS):
    data = e131.data_packet(universe, CID, name, priority, sync)
    data[e131.SEQUENCE] = sequence
    data[e131.SLOTS :] = slots
    return bytes(data)


def a_dmx(port_address=0x1234, sequence=9, slots=SLOTS):
    data = artnet.dmx_packet(port_address)
    data[artnet.SEQUENCE] = sequence
    data[artnet.DMX_HEADER :] = slots
    return bytes(data)


REPLY = artnet.PollReply("127.0.0.3", "Node", "A longer name", "#0001 [0003] fine", (0x121, 0x122, 0x12F), 2, "127.0.0.9")


@pytest.mark.parametrize(("universe", "priority", "sync"), [(1, 0, 0), (7, 100, 0), (63_999, 200, 7000)])
def test_data_has_the_bytes_of_an_independent_library(universe, priority, sync):
    judge = JudgeData(
        cid=tuple(CID), sourceName="Zarabanda", universe=universe, dmxData=tuple(SLOTS), priority=priority, sequence=9
    )
    judge.syncAddr = sync
    assert a_data_packet(universe, priority=priority, sync=sync) == bytes(judge.getBytes())


def test_synchronisation_and_discovery_have_the_bytes_of_an_independent_library():
    assert e131.sync_packet(7000, CID, 5) == bytes(JudgeSync(tuple(CID), 7000, 5).getBytes())
    numbers = [*range(1, 513), 600, 601]
    first, second = e131.discovery_packets(CID, "Zarabanda", numbers[::-1])
    assert first == bytes(JudgeDiscovery(tuple(CID), "Zarabanda", tuple(numbers[:512]), 0, 1).getBytes())
    assert second == bytes(JudgeDiscovery(tuple(CID), "Zarabanda", (600, 601), 1, 1).getBytes())


@pytest.mark.parametrize("universe", [1, 256, 32_767])
def test_artdmx_has_the_bytes_of_an_independent_library(universe):
    judge = StupidArtnet("127.0.0.1", universe, 512)
    try:
        assert a_dmx(universe, sequence=0) == bytes(judge.packet_header) + SLOTS
    finally:
        judge.close()


def test_art_net_has_the_bytes_of_the_standards_tables():
    # Art-Net 4: each packet's table, field by field
    assert a_dmx()[:18] == b"Art-Net\0" + bytes([0x00, 0x50, 0, 14, 9, 0, 0x34, 0x12, 0x02, 0x00])
    assert artnet.sync_packet() == b"Art-Net\0" + bytes([0x00, 0x52, 0, 14, 0, 0])
    assert artnet.poll_packet() == b"Art-Net\0" + bytes([0x00, 0x20, 0, 14, 0, 0])
    reply = artnet.reply_packet(REPLY)
    fields = {
        (0, 8): b"Art-Net\0", (8, 10): b"\x00\x21", (10, 14): bytes([127, 0, 0, 3]), (14, 16): bytes([0x36, 0x19]),
        (18, 20): bytes([1, 2]), (26, 31): b"Node\0", (44, 58): b"A longer name\0", (108, 126): b"#0001 [0003] fine\0",
        (172, 174): bytes([0, 3]), (174, 178): bytes([0x80, 0x80, 0x80, 0]), (190, 194): bytes([1, 2, 15, 0]),
        (207, 211): bytes([127, 0, 0, 9]), (211, 212): bytes([2]),
    }  # fmt: skip
    assert len(reply) == 239
    assert {place: reply[slice(*place)] for place in fields} == fields


def test_what_is_made_is_read_again():
    packet = e131.decode(a_data_packet(sync=7000))
    assert (packet.universe, packet.sequence, packet.priority, packet.source, packet.sync) == (7, 9, 100, "Zarabanda", 7000)
    assert (packet.slots, packet.terminated, packet.cid) == (SLOTS, False, CID)
    assert e131.decode(e131.sync_packet(7, CID, 3)) == e131.SyncPacket(7, 3, CID)
    (page,) = e131.discovery_packets(CID, "Zarabanda", [])
    assert e131.decode(page) == e131.DiscoveryPacket("Zarabanda", CID, 0, 0, ())
    assert artnet.decode(a_dmx()) == artnet.Dmx(0x1234, 9, 0, SLOTS)
    assert artnet.decode(artnet.reply_packet(REPLY)) == REPLY
    assert artnet.decode(artnet.sync_packet()) == artnet.Sync()
    assert artnet.decode(b"Art-Net\0" + bytes([0x00, 0x97, 0, 14])) is None  # a kind that lighting does not need


@pytest.mark.parametrize("name", ["ñ" * 40, "照明" * 20, "Zarabanda", "", "a" * 63 + "ñ"])
def test_names_in_other_alphabets_are_cut_between_letters(name):
    read = e131.decode(a_data_packet(name=name)).source
    assert name.startswith(read)
    assert len(read.encode()) > 59 or read == name
    reply = artnet.decode(artnet.reply_packet(artnet.PollReply("127.0.0.3", name, name, "", ())))
    assert name.startswith(reply.short_name)


@pytest.mark.parametrize("place", [0, 4, 16, 18, 38, 40, 115, 117, 118, 123, 125])
def test_a_broken_field_of_e131_is_refused(place):
    data = bytearray(a_data_packet())
    data[place] ^= 0x55
    with pytest.raises(ValueError, match=r"\w"):
        e131.decode(bytes(data))


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({0: 66}, "identifier"),
        ({11: 13}, "version"),
        ({16: 3}, "length"),
        ({15: 0x80}, "Port-Address"),
        ({17: 1, 16: 0}, "length"),
    ],
)
def test_a_broken_field_of_art_net_is_refused(change, said):
    data = bytearray(a_dmx())
    for place, value in change.items():
        data[place] = value
    with pytest.raises(ValueError, match=said):
        artnet.decode(bytes(data))


@pytest.mark.parametrize("decode", [e131.decode, artnet.decode])
def test_garbage_never_raises_anything_but_valueerror(decode):
    chance = random.Random(3)
    good = [
        a_data_packet(), e131.sync_packet(7, CID, 1), *e131.discovery_packets(CID, "x", [1, 2]), a_dmx(), artnet.poll_packet(),
        artnet.reply_packet(REPLY), artnet.sync_packet(),
    ]  # fmt: skip
    for _ in range(10_000):
        data = bytearray(chance.choice(good))[: chance.randrange(0, 700)]
        for _ in range(chance.randrange(0, 6)):
            if data:
                data[chance.randrange(len(data))] = chance.randrange(256)
        try:
            decode(bytes(data))
        except ValueError:
            continue
