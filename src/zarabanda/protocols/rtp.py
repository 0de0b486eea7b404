"""Sound over a line: RTP (RFC 3550) with 16-bit linear samples (L16, RFC 3551), packet after packet on a stream (RFC 4571)."""

from __future__ import annotations

import struct
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

Singles = NDArray[np.floating[Any]]

RATE = 44_100
"""Samples a second of both payload types."""
_CHANNELS = {10: 2, 11: 1}
"""Payload types of L16 (RFC 3551, table 4)."""
_MONO = 11
_HEADER = struct.Struct("!BBHII")
_VERSION, _EXTENSION, _PADDING = 0x80, 0x10, 0x20


def packet(samples: Singles, sequence: int, timestamp: int, source: int) -> bytes:
    """Samples (n,) −1…1 of one channel as a packet, with its length before it.

    >>> packet(np.array([0.0, 1.0]), 1, 2, 3).hex(" ")
    '00 10 80 0b 00 01 00 00 00 02 00 00 00 03 00 00 7f ff'
    """
    body = np.round(np.clip(samples, -1, 1) * 32_767).astype(">i2").tobytes()
    head = _HEADER.pack(_VERSION, _MONO, sequence & 0xFFFF, timestamp & 0xFFFFFFFF, source)
    return struct.pack("!H", len(head) + len(body)) + head + body


def samples_of(data: bytes) -> Singles | None:
    """(n,) −1…1 of a packet, the mean of its channels; None: it is no sound that can be read."""
    if len(data) < _HEADER.size or data[0] & 0xC0 != _VERSION:
        return None
    channels, begins = _CHANNELS.get(data[1] & 0x7F), _HEADER.size + 4 * (data[0] & 0x0F)
    if data[0] & _EXTENSION:
        if len(data) < begins + 4:
            return None
        begins += 4 + 4 * int.from_bytes(data[begins + 2 : begins + 4], "big")
    ends = len(data) - (data[-1] if data[0] & _PADDING else 0)
    if channels is None or begins > ends or (ends - begins) % (2 * channels):
        return None
    found: Singles = np.frombuffer(data[begins:ends], ">i2").astype(np.float32).reshape(-1, channels).mean(axis=1) / 32_768
    return found


@dataclass
class Unframer:
    """Takes a stream apart into what packets hold. broken: how many could not be read."""

    broken: int = 0
    _rest: bytearray = field(default_factory=bytearray)

    def read(self, data: bytes) -> Iterator[Singles]:
        """Samples of the packets that are whole by now."""
        self._rest += data
        while len(self._rest) >= 2 and len(self._rest) >= (size := 2 + int.from_bytes(self._rest[:2], "big")):
            whole = bytes(self._rest[2:size])
            del self._rest[:size]
            found = samples_of(whole)
            if found is None:
                self.broken += 1
            else:
                yield found
