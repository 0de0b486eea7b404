"""A simulated E1.31 node: receives UDP on 127.0.0.1, decodes by the standard, counts what a network tester would.

Started by the supervisor, or alone by `zarabanda node`.
"""

from __future__ import annotations

import contextlib
import socket
import statistics
import struct
import threading
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from zarabanda import wire
from zarabanda.errors import ZarabandaError
from zarabanda.workers import Troubles, Worker

_ACN_ID = b"ASC-E1.17\0\0\0"
_SO_TIMESTAMPNS = 35  # Linux: the kernel notes when a packet came in
_LOSS_S = 2.5  # E1.31, 6.7.1: a source that is silent for 2.5 s is lost


@dataclass(frozen=True)
class DataPacket:
    """What an E1.31 data packet says."""

    universe: int
    sequence: int
    priority: int
    source: str
    cid: bytes
    terminated: bool
    slots: bytes


def decode(data: bytes) -> DataPacket:
    """Decode a data packet, checking every length, vector and fixed field of E1.31-2018; ValueError says what is wrong."""
    if len(data) < 126:
        raise ValueError(f"{len(data)} bytes are too few for a data packet (126 at least)")
    preamble, postamble, identifier, root_length, root_vector, cid = struct.unpack_from(">HH12sHI16s", data, 0)
    if preamble != 0x0010 or postamble != 0 or identifier != _ACN_ID:
        raise ValueError("not an ACN packet: wrong preamble or identifier")
    if root_vector != 0x00000004:
        raise ValueError(f"root vector {root_vector:#x} is not data (0x4)")
    frame_length, frame_vector, name, priority, _sync, sequence, options, universe = struct.unpack_from(">HI64sBHBBH", data, 38)
    if frame_vector != 0x00000002:
        raise ValueError(f"framing vector {frame_vector:#x} is not data (0x2)")
    dmp_length, dmp_vector, types, first, increment, count = struct.unpack_from(">HBBHHH", data, 115)
    if (dmp_vector, types, first, increment) != (0x02, 0xA1, 0, 1):
        raise ValueError("the property layer is not what the standard fixes")
    size = len(data)
    lengths = (("root", root_length, 16), ("framing", frame_length, 38), ("property", dmp_length, 115))
    for what, given, before in lengths:
        wanted = size - before
        if given != 0x7000 | wanted:
            raise ValueError(f"{what} length {given & 0xFFF} does not fit {size} bytes")
    if count != size - 125:
        raise ValueError(f"property count {count} does not fit {size} bytes")
    if not 1 <= universe <= 63999 or priority > 200:
        raise ValueError(f"universe {universe} or priority {priority} is out of range")
    if data[125] != 0:
        raise ValueError(f"start code {data[125]} is not 0")
    source = name.split(b"\0")[0].decode(errors="replace")
    return DataPacket(universe, sequence, priority, source, cid, bool(options & 0x40), data[126:])


@dataclass
class _Universe:
    packets: int = 0
    sequence: int = -1
    sequence_errors: int = 0
    source: str = ""
    priority: int = 0
    terminated: bool = False
    arrived: float = 0.0
    slots: bytes = b""
    gaps: deque[float] = field(default_factory=lambda: deque(maxlen=3000))
    arrivals: deque[float] = field(default_factory=lambda: deque(maxlen=3000))
    longest_gap: float = 0.0


class Node:
    """Receives on 127.0.0.1:port in a thread of its own."""

    def __init__(self, port: int = 5568) -> None:
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self._socket.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 1 << 22)
        with contextlib.suppress(OSError):
            self._socket.setsockopt(socket.SOL_SOCKET, _SO_TIMESTAMPNS, 1)
        try:
            self._socket.bind(("127.0.0.1", port))
        except OSError as error:
            self._socket.close()
            raise ZarabandaError(
                f"The simulated node cannot listen on 127.0.0.1:{port}: {error.strerror}. Stop what uses this port, or "
                "choose another with --node-port."
            ) from error
        self.port: int = self._socket.getsockname()[1]
        self._universes: dict[int, _Universe] = {}
        self._bad, self._last_bad = 0, ""
        self.on_packet: Callable[[DataPacket, float], None] = lambda packet, arrived: None
        self._lock = threading.Lock()
        self._changed = threading.Condition(self._lock)
        self._closed = False
        self._worker = Worker("Node", self._receive, Troubles()).start()

    def _receive(self) -> bool | None:
        try:
            data, extra, _, _ = self._socket.recvmsg(2048, 64)
        except OSError:
            if self._closed:
                return False
            raise
        arrived = time.time()
        for level, kind, content in extra:
            if level == socket.SOL_SOCKET and kind == _SO_TIMESTAMPNS:
                seconds, nanoseconds = struct.unpack("@qq", content[:16])
                arrived = seconds + nanoseconds * 1e-9
        if not self._closed:
            self.take(data, arrived)
        return None

    def take(self, data: bytes, arrived: float) -> None:
        """Take one packet that came in at `arrived` (s)."""
        try:
            packet = decode(data)
        except ValueError as error:
            with self._lock:
                self._bad += 1
                self._last_bad = str(error)
            return
        self.on_packet(packet, arrived)
        with self._changed:
            state = self._universes.setdefault(packet.universe, _Universe())
            if state.packets and not state.terminated:
                step = (packet.sequence - state.sequence) & 255
                state.sequence_errors += step != 1
                gap = arrived - state.arrived
                state.gaps.append(gap)
                state.longest_gap = max(state.longest_gap, gap)
            state.packets += 1
            state.sequence, state.source, state.priority = packet.sequence, packet.source, packet.priority
            state.terminated, state.arrived = packet.terminated, arrived
            state.arrivals.append(arrived)
            if not packet.terminated:
                state.slots = packet.slots
            self._changed.notify_all()

    def slots(self, universe: int) -> bytes:
        """Last slots decoded for a universe (empty when it was never seen)."""
        with self._lock:
            state = self._universes.get(universe)
            return state.slots if state else b""

    def wait_for(self, condition: Callable[[Callable[[int], bytes]], bool], timeout_s: float = 5.0) -> bool:
        """Wait until `condition(node's slots function)` holds after some packet; False when time runs out."""
        with self._changed:
            return self._changed.wait_for(
                lambda: condition(lambda u: self._universes[u].slots if u in self._universes else b""), timeout_s
            )

    def reset(self) -> None:
        """Forget the counts (not the sequence), so that a measurement begins now."""
        with self._lock:
            for state in self._universes.values():
                state.packets = min(state.packets, 1)
                state.sequence_errors, state.longest_gap = 0, 0.0
                state.gaps.clear()
                state.arrivals.clear()

    def status(self) -> dict[str, Any]:
        """Counts by universe: packets, packets per second, sequence errors, jitter in ms, and the slots' values."""
        now = time.time()
        with self._lock:
            rows = [self._row(number, state, now) for number, state in sorted(self._universes.items())]
            return {"type": "node", "port": self.port, "bad": self._bad, "last_bad": self._last_bad, "universes": rows}

    def _row(self, number: int, state: _Universe, now: float) -> dict[str, Any]:
        recent = [arrived for arrived in state.arrivals if now - arrived <= 2]
        gaps = list(state.gaps)[-300:]
        middle = statistics.median(gaps) if gaps else 0.0
        off = sorted(abs(gap - middle) for gap in gaps)
        return {
            "universe": number, "packets": state.packets, "per_second": len(recent) / 2,
            "sequence_errors": state.sequence_errors, "source": state.source, "priority": state.priority,
            "terminated": state.terminated, "lost": now - state.arrived > _LOSS_S and not state.terminated,
            "gap_ms": middle * 1000, "jitter_ms": (off[int(len(off) * 0.99)] if off else 0.0) * 1000,
            "longest_gap_ms": state.longest_gap * 1000, "slots": state.slots,
        }  # fmt: skip

    def gaps(self, universe: int) -> list[float]:
        """Times between packets of a universe since the last reset, s (the newest 3000)."""
        with self._lock:
            state = self._universes.get(universe)
            return list(state.gaps) if state else []

    def close(self) -> None:
        """Stop receiving."""
        self._closed = True
        with contextlib.suppress(OSError):
            self._socket.shutdown(socket.SHUT_RDWR)
        self._socket.close()


def serve_status(node: Node, path: Path) -> wire.Server:
    """Answer `{"type": "status"}`, `gaps` and `reset` on a local socket, for the Output view and for measurements."""

    def answer(peer: wire.Peer, message: wire.Message) -> None:
        if message.get("type") == "reset":
            node.reset()
            peer.post({"type": "reset"})
        elif message.get("type") == "gaps":
            peer.post({"type": "gaps", "gaps": node.gaps(int(message.get("universe", 1)))})
        else:
            peer.post(node.status())

    return wire.Server(path, wire.PLAIN, answer, lambda peer: None, Troubles())
