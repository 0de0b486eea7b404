"""Art-Net 4: the packets that lighting needs, made and read. Art-Net is a protocol of Artistic Licence."""

from __future__ import annotations

import struct
from collections.abc import Callable
from dataclasses import dataclass
from ipaddress import IPv4Address

PORT = 6454
MOST_PORT_ADDRESSES = 32_768
"""Port-Addresses are 15 bits: net, sub-net and universe; 0 is to be avoided (Art-Net 4, "Universe Addressing")."""
POLL_EVERY_S = 3.0
"""Controllers poll every 2.5 to 3 s ("Poll")."""
SYNC_LOSS_S = 4.0
"""Without an ArtSync for so long a node shows what comes at once again ("ArtSync")."""
DMX_HEADER = 18
SEQUENCE = 12
"""Offset of the sequence number in an ArtDmx; it counts 1…255, 0 means that it is not counted."""

_ID = b"Art-Net\0"
_POLL, _POLL_REPLY, _DMX, _SYNC = 0x2000, 0x2100, 0x5000, 0x5200
_PROTOCOL = 14
_REPLY_SIZE, _SHORTEST_REPLY = 239, 207
_OUTPUTS = 0x80


def _header(code: int) -> bytes:
    return _ID + struct.pack("<H", code) + struct.pack(">H", _PROTOCOL)


def dmx_packet(port_address: int) -> bytearray:
    """An ArtDmx with 512 slots (530 bytes), all fields but sequence and slots filled in. port_address: 0…32767."""
    return bytearray(_header(_DMX) + struct.pack("<BBH", 0, 0, port_address) + struct.pack(">H", 512) + bytes(512))


def next_sequence(sequence: int) -> int:
    """The sequence number after another.

    >>> next_sequence(0), next_sequence(254), next_sequence(255)
    (1, 255, 1)
    """
    return sequence % 255 + 1


def sync_packet() -> bytes:
    """An ArtSync (14 bytes): nodes show what they were sent."""
    return _header(_SYNC) + bytes(2)


def poll_packet() -> bytes:
    """An ArtPoll (14 bytes) that asks for replies, without diagnostics."""
    return _header(_POLL) + bytes(2)


@dataclass(frozen=True)
class Dmx:
    """What an ArtDmx says."""

    port_address: int
    sequence: int
    physical: int
    slots: bytes


@dataclass(frozen=True)
class Sync:
    """An ArtSync."""


@dataclass(frozen=True)
class Poll:
    """An ArtPoll."""

    flags: int


@dataclass(frozen=True)
class PollReply:
    """What a node says of itself. outputs: Port-Addresses that it puts out, four at the most; bind: which of its replies."""

    address: str
    short_name: str
    long_name: str
    report: str
    outputs: tuple[int, ...]
    bind: int = 1
    root: str = ""
    """Address of the device that this is a part of, if it has more than four ports."""

    @property
    def device(self) -> str:
        """The address that tells devices apart."""
        return self.root or self.address


Packet = Dmx | Sync | Poll | PollReply


def reply_packet(reply: PollReply) -> bytes:
    """An ArtPollReply (239 bytes). All outputs of one reply have the same net and sub-net."""
    first = reply.outputs[0] if reply.outputs else 0
    count = len(reply.outputs)
    packet = bytearray(_REPLY_SIZE)
    packet[0:10] = _ID + struct.pack("<H", _POLL_REPLY)
    packet[10:16] = IPv4Address(reply.address).packed + struct.pack("<H", PORT)
    packet[18:20] = bytes((first >> 8, (first >> 4) & 15))
    packet[23] = 0xD0  # indicators normal, addresses set by the network
    packet[26:44] = _field(reply.short_name, 18)
    packet[44:108] = _field(reply.long_name, 64)
    packet[108:172] = _field(reply.report, 64)
    packet[172:174] = struct.pack(">H", count)
    packet[174 : 174 + count] = bytes([_OUTPUTS]) * count
    packet[182 : 182 + count] = b"\x80" * count
    packet[190 : 190 + count] = bytes(one & 15 for one in reply.outputs)
    packet[207:211] = IPv4Address(reply.root or reply.address).packed
    packet[211] = reply.bind
    packet[212] = 0x08  # 15-bit Port-Addresses
    return bytes(packet)


def _field(text: str, size: int) -> bytes:
    return text.encode("utf-8", "replace")[: size - 1].decode("utf-8", "ignore").encode().ljust(size, b"\0")


def _text(field: bytes) -> str:
    """Names are ASCII by the standard; what other alphabets come as is shown as well as it can be."""
    return field.split(b"\0")[0].decode("utf-8", "replace")


def decode(data: bytes) -> Packet | None:
    """Read a packet; None for one of a kind that lighting does not need. ValueError says what is wrong."""
    if len(data) < 10 or data[:8] != _ID:
        raise ValueError("not an Art-Net packet: wrong identifier")
    (code,) = struct.unpack_from("<H", data, 8)
    reader = _READERS.get(code)
    if reader is None:
        return None
    if code != _POLL_REPLY:
        if len(data) < 12:
            raise ValueError(f"{len(data)} bytes are too few for an Art-Net packet")
        (protocol,) = struct.unpack_from(">H", data, 10)
        if protocol < _PROTOCOL:
            raise ValueError(f"protocol version {protocol} is older than {_PROTOCOL}")
    return reader(data)


def _read_dmx(data: bytes) -> Dmx:
    if len(data) < DMX_HEADER + 2:
        raise ValueError(f"{len(data)} bytes are too few for an ArtDmx")
    sequence, physical, port_address = struct.unpack_from("<BBH", data, 12)
    (length,) = struct.unpack_from(">H", data, 16)
    if not 2 <= length <= 512 or length > len(data) - DMX_HEADER:
        raise ValueError(f"length {length} does not fit {len(data)} bytes")
    if port_address >= MOST_PORT_ADDRESSES:
        raise ValueError(f"Port-Address {port_address} is more than {MOST_PORT_ADDRESSES - 1}")
    return Dmx(port_address, sequence, physical, data[DMX_HEADER : DMX_HEADER + length])


def _read_poll(data: bytes) -> Poll:
    if len(data) < 14:
        raise ValueError(f"{len(data)} bytes are too few for an ArtPoll")
    return Poll(data[12])


def _read_reply(data: bytes) -> PollReply:
    if len(data) < _SHORTEST_REPLY:
        raise ValueError(f"{len(data)} bytes are too few for an ArtPollReply ({_SHORTEST_REPLY} at least)")
    count = min(struct.unpack_from(">H", data, 172)[0], 4)
    base = (data[18] & 127) << 8 | (data[19] & 15) << 4
    outputs = tuple(base | data[190 + n] & 15 for n in range(count) if data[174 + n] & _OUTPUTS)
    root = str(IPv4Address(data[207:211])) if len(data) > 211 and any(data[207:211]) else ""
    bind = data[211] if len(data) > 211 else 1
    return PollReply(
        str(IPv4Address(data[10:14])), _text(data[26:44]), _text(data[44:108]), _text(data[108:172]), outputs, bind or 1, root
    )


_READERS: dict[int, Callable[[bytes], Packet]] = {
    _POLL: _read_poll,
    _POLL_REPLY: _read_reply,
    _DMX: _read_dmx,
    _SYNC: lambda data: Sync(),
}
