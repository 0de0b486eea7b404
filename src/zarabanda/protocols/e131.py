"""Streaming ACN: the packets of ANSI E1.31-2018, made and read."""

from __future__ import annotations

import struct
from collections.abc import Callable, Sequence
from dataclasses import dataclass

PORT = 5568
MOST_UNIVERSES = 64_000
"""Universes are numbered 1…63999 (E1.31, 6.2.7)."""
HIGHEST_PRIORITY = 200
LOSS_S = 2.5
"""A source that is silent for so long is lost (E1.31, 6.7.1)."""
DISCOVERY_UNIVERSE, DISCOVERY_EVERY_S = 64_214, 10.0
UNIVERSES_A_PAGE = 512
PACKET_SIZE, HEADER_SIZE = 638, 126
SEQUENCE, OPTIONS, SLOTS = 111, 112, 126
"""Offsets into a data packet; `SLOTS` is where slot 1 is."""
TERMINATED = 0x40

_ACN_ID = b"ASC-E1.17\0\0\0"
_ROOT_DATA, _ROOT_EXTENDED = 0x00000004, 0x00000008
_FRAME_DATA, _FRAME_SYNC, _FRAME_DISCOVERY = 0x00000002, 0x00000001, 0x00000002
_ROOT_END, _SYNC_SIZE, _DISCOVERY_HEADER = 38, 49, 120


def multicast_group(universe: int) -> str:
    """The address that a universe is sent to by multicast (E1.31, 9.3.1).

    >>> multicast_group(1), multicast_group(513)
    ('239.255.0.1', '239.255.2.1')
    """
    return f"239.255.{universe >> 8}.{universe & 255}"


def name_field(name: str) -> bytes:
    """A source name as 64 bytes of UTF-8 that end with a zero; cut between two letters, never within one (E1.31, 6.2.2).

    >>> name_field("ñ" * 40)[:62].decode() == "ñ" * 31
    True
    """
    return name.encode("utf-8", "replace")[:63].decode("utf-8", "ignore").encode().ljust(64, b"\0")


def _root(size: int, vector: int, cid: bytes) -> bytes:
    return struct.pack(">HH12sHI16s", 0x0010, 0, _ACN_ID, 0x7000 | (size - 16), vector, cid)


def data_packet(universe: int, cid: bytes, source_name: str, priority: int, sync: int = 0) -> bytearray:
    """A data packet (638 bytes) with all fields but sequence, options and slots filled in.

    universe: 1…63999; cid: 16 bytes; priority: 0…200; sync: universe of the packets that synchronise it, 0: none (E1.31,
    tables 4-1 to 4-3).
    """
    framing = struct.pack(
        ">HI64sBHBBH", 0x7000 | (PACKET_SIZE - 38), _FRAME_DATA, name_field(source_name), priority, sync, 0, 0, universe
    )
    dmp = struct.pack(">HBBHHHB", 0x7000 | (PACKET_SIZE - 115), 0x02, 0xA1, 0, 1, 513, 0)
    return bytearray(_root(PACKET_SIZE, _ROOT_DATA, cid) + framing + dmp + bytes(512))


def sync_packet(sync: int, cid: bytes, sequence: int) -> bytes:
    """What lets receivers show the data packets that wait for the universe `sync` (E1.31, table 4-4)."""
    framing = struct.pack(">HIBHH", 0x7000 | (_SYNC_SIZE - 38), _FRAME_SYNC, sequence, sync, 0)
    return _root(_SYNC_SIZE, _ROOT_EXTENDED, cid) + framing


def discovery_packets(cid: bytes, source_name: str, universes: Sequence[int]) -> list[bytes]:
    """What a source tells of itself every 10 s: its universes in pages of 512 (E1.31, 4.3 and 8)."""
    numbers = sorted(universes)
    pages = [numbers[at : at + UNIVERSES_A_PAGE] for at in range(0, len(numbers), UNIVERSES_A_PAGE)] or [[]]
    return [_discovery_page(cid, source_name, page, at, len(pages) - 1) for at, page in enumerate(pages)]


def _discovery_page(cid: bytes, source_name: str, universes: Sequence[int], page: int, last: int) -> bytes:
    size = _DISCOVERY_HEADER + 2 * len(universes)
    framing = struct.pack(">HI64sI", 0x7000 | (size - 38), _FRAME_DISCOVERY, name_field(source_name), 0)
    layer = struct.pack(f">HIBB{len(universes)}H", 0x7000 | (size - 112), 0x00000001, page, last, *universes)
    return _root(size, _ROOT_EXTENDED, cid) + framing + layer


@dataclass(frozen=True)
class DataPacket:
    """What a data packet says."""

    universe: int
    sequence: int
    priority: int
    source: str
    cid: bytes
    sync: int
    terminated: bool
    slots: bytes


@dataclass(frozen=True)
class SyncPacket:
    """What a synchronisation packet says."""

    sync: int
    sequence: int
    cid: bytes


@dataclass(frozen=True)
class DiscoveryPacket:
    """A page of what a source says of itself."""

    source: str
    cid: bytes
    page: int
    last: int
    universes: tuple[int, ...]


Packet = DataPacket | SyncPacket | DiscoveryPacket


def decode(data: bytes) -> Packet:
    """Read a packet, checking every length, vector and fixed field of E1.31-2018; ValueError says what is wrong."""
    if len(data) < 44:
        raise ValueError(f"{len(data)} bytes are too few for an E1.31 packet")
    preamble, postamble, identifier, length, vector, cid = struct.unpack_from(">HH12sHI16s", data, 0)
    if preamble != 0x0010 or postamble != 0 or identifier != _ACN_ID:
        raise ValueError("not an ACN packet: wrong preamble or identifier")
    _check_length("root", length, len(data) - 16)
    _check_length("framing", struct.unpack_from(">H", data, _ROOT_END)[0], len(data) - 38)
    frame = struct.unpack_from(">I", data, _ROOT_END + 2)[0]
    reader = _READERS.get((vector, frame))
    if reader is None:
        raise ValueError(f"vectors {vector:#x} and {frame:#x} are none that the standard fixes")
    return reader(data, cid)


def _check_length(what: str, given: int, wanted: int) -> None:
    if given != 0x7000 | wanted:
        raise ValueError(f"{what} length {given & 0xFFF} does not fit: it must be {wanted}")


def _text(field: bytes) -> str:
    return field.split(b"\0")[0].decode(errors="replace")


def _read_data(data: bytes, cid: bytes) -> DataPacket:
    if len(data) < HEADER_SIZE:
        raise ValueError(f"{len(data)} bytes are too few for a data packet ({HEADER_SIZE} at least)")
    name, priority, sync, sequence, options, universe = struct.unpack_from(">64sBHBBH", data, 44)
    length, vector, types, first, increment, count = struct.unpack_from(">HBBHHH", data, 115)
    if (vector, types, first, increment) != (0x02, 0xA1, 0, 1):
        raise ValueError("the property layer is not what the standard fixes")
    _check_length("property", length, len(data) - 115)
    if count != len(data) - 125 or count > 513:
        raise ValueError(f"property count {count} does not fit {len(data)} bytes")
    if not 1 <= universe <= 63_999 or priority > HIGHEST_PRIORITY:
        raise ValueError(f"universe {universe} or priority {priority} is out of range")
    if data[125] != 0:
        raise ValueError(f"start code {data[125]} is not 0")
    return DataPacket(universe, sequence, priority, _text(name), cid, sync, bool(options & TERMINATED), data[SLOTS:])


def _read_sync(data: bytes, cid: bytes) -> SyncPacket:
    if len(data) != _SYNC_SIZE:
        raise ValueError(f"{len(data)} bytes are not the {_SYNC_SIZE} of a synchronisation packet")
    sequence, sync = struct.unpack_from(">BH", data, 44)
    if not 1 <= sync <= 63_999:
        raise ValueError(f"synchronisation universe {sync} is out of range")
    return SyncPacket(sync, sequence, cid)


def _read_discovery(data: bytes, cid: bytes) -> DiscoveryPacket:
    if len(data) < _DISCOVERY_HEADER or len(data) % 2:
        raise ValueError(f"{len(data)} bytes are no discovery packet")
    length, vector, page, last = struct.unpack_from(">HIBB", data, 112)
    _check_length("list", length, len(data) - 112)
    count = (len(data) - _DISCOVERY_HEADER) // 2
    if vector != 0x00000001 or page > last or count > UNIVERSES_A_PAGE:
        raise ValueError(f"page {page} of {last} with {count} universes is no list of universes")
    universes = struct.unpack_from(f">{count}H", data, _DISCOVERY_HEADER)
    return DiscoveryPacket(_text(data[44:108]), cid, page, last, universes)


_READERS: dict[tuple[int, int], Callable[[bytes, bytes], Packet]] = {
    (_ROOT_DATA, _FRAME_DATA): _read_data,
    (_ROOT_EXTENDED, _FRAME_SYNC): _read_sync,
    (_ROOT_EXTENDED, _FRAME_DISCOVERY): _read_discovery,
}
