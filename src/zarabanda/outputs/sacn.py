"""Streaming ACN: ANSI E1.31-2018 data packets over UDP unicast, one prepared packet a universe."""

from __future__ import annotations

import contextlib
import socket
import struct
import uuid
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.errors import ZarabandaError
from zarabanda.messages import OutputState

from .base import Output

PORT = 5568
PACKET_SIZE = 638
MOST_UNIVERSES = 64_000
"""Universes are numbered 1…63999 (E1.31, 6.2.7)."""
_SEQUENCE, _OPTIONS, _START_CODE = 111, 112, 125
_TERMINATED = 0x40
_REPEATS_BEFORE_KEEP_ALIVE = 3
KEEP_ALIVE_S = 0.9
"""A universe that stands still is sent three times more, then kept alive every 800–1000 ms (E1.31, 6.6.2)."""


def packet(universe: int, cid: bytes, source_name: str, priority: int) -> bytearray:
    """A data packet (638 bytes) with all fields but sequence, options and slots filled in.

    universe: 1…63999; cid: 16 bytes; priority: 0…200 (E1.31, tables 4-1 to 4-3).
    """
    name = source_name.encode()[:63].ljust(64, b"\0")
    root = struct.pack(">HH12sHI16s", 0x0010, 0, b"ASC-E1.17\0\0\0", 0x7000 | (PACKET_SIZE - 16), 0x00000004, cid)
    framing = struct.pack(">HI64sBHBBH", 0x7000 | (PACKET_SIZE - 38), 0x00000002, name, priority, 0, 0, 0, universe)
    dmp = struct.pack(">HBBHHHB", 0x7000 | (PACKET_SIZE - 115), 0x02, 0xA1, 0, 1, 513, 0)
    return bytearray(root + framing + dmp + bytes(512))


@dataclass
class _Stream:
    packet: bytearray
    slots: NDArray[np.uint8]
    universe: int
    last: bytes = b""
    repeats: int = 0
    sent_at: float = -1e9


class SacnOutput(Output):
    """E1.31 to one node by unicast; to this machine only unless a user sets another route.

    sequences: (64000,) the next sequence number of each universe; kept by the caller, where streams shall go on after a restart.
    """

    def __init__(
        self,
        host: str = "127.0.0.1",
        port: int = PORT,
        *,
        source_name: str = "Zarabanda",
        priority: int = 100,
        cid: bytes | None = None,
        allow_network: bool = False,
        sequences: NDArray[np.uint8] | None = None,
    ) -> None:
        if not allow_network and not host.startswith("127."):
            raise ZarabandaError(
                f"The route to {host} leaves this machine, which is off by default. Use 127.0.0.1, or set the route yourself."
            )
        self._address = (host, port)
        self._cid = cid or uuid.uuid4().bytes
        self._name, self._priority = source_name, priority
        self._streams: dict[int, _Stream] = {}
        self._sequences = np.zeros(MOST_UNIVERSES, np.uint8) if sequences is None else sequences
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self._socket.setblocking(False)
        self._packets, self._errors, self._last_error = 0, 0, ""

    def _stream(self, universe: int) -> _Stream:
        stream = self._streams.get(universe)
        if stream is None:
            data = packet(universe, self._cid, self._name, self._priority)
            stream = _Stream(data, np.frombuffer(data, np.uint8)[_START_CODE + 1 :], universe)
            self._streams[universe] = stream
        return stream

    def send(self, universes: Sequence[int], data: NDArray[np.uint8], now: float) -> None:
        if len(self._streams) > len(universes) or not self._streams.keys() <= set(universes):
            for gone in self._streams.keys() - set(universes):
                self._terminate(self._streams.pop(gone))
        for universe, row in zip(universes, data, strict=True):
            stream = self._stream(universe)
            content = row.tobytes()
            if content == stream.last:
                stream.repeats += 1
                if stream.repeats > _REPEATS_BEFORE_KEEP_ALIVE and now - stream.sent_at < KEEP_ALIVE_S:
                    continue
            else:
                stream.last, stream.repeats = content, 0
                stream.slots[:] = row
            stream.sent_at = now
            self._transmit(stream)

    def _transmit(self, stream: _Stream) -> None:
        sequence = int(self._sequences[stream.universe])
        stream.packet[_SEQUENCE] = sequence
        self._sequences[stream.universe] = (sequence + 1) & 255
        try:
            self._socket.sendto(stream.packet, self._address)
            self._packets += 1
        except OSError as error:
            self._errors += 1
            self._last_error = str(error)

    def _terminate(self, stream: _Stream) -> None:
        """Three packets with Stream_Terminated set (E1.31, 6.2.6)."""
        stream.packet[_OPTIONS] = _TERMINATED
        for _ in range(3):
            self._transmit(stream)

    def close(self, universes: Sequence[int]) -> None:
        """Terminate all streams, then close the socket."""
        for stream in self._streams.values():
            self._terminate(stream)
        with contextlib.suppress(OSError):
            self._socket.close()

    def report(self) -> OutputState:
        host, port = self._address
        return OutputState(
            "E1.31", f"{host}:{port}", self._packets, self._errors, self._last_error, self._priority,
            uuid.UUID(bytes=self._cid).hex,
        )  # fmt: skip
