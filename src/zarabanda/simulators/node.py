"""What simulated nodes are made of: a socket on this machine, the faults they can be told to have, and what they count."""

from __future__ import annotations

import contextlib
import random
import socket
import statistics
import struct
import threading
import time
from abc import ABC, abstractmethod
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.protocols.faults import FaultCounts
from zarabanda.workers import Troubles, Worker

_SO_TIMESTAMPNS = 35  # Linux: the kernel notes when a packet came in
_SO_RCVBUFFORCE = 33  # Linux: beyond what the system allows everybody, with the right to
_ROOM = 1 << 23
_WAIT_S, _LEAVES_S = 0.05, 5.0
_MOST_WAITING = 100_000
Address = tuple[str, int]


@dataclass(frozen=True)
class Faults:
    """How a node misbehaves. drop: share of packets that it does not see, 0…1; delay_ms: how late it sees the others;
    vanished: it is not there at all; name: what it calls itself instead, empty: its own name."""

    drop: float = 0.0
    delay_ms: float = 0.0
    vanished: bool = False
    name: str = ""

    def __post_init__(self) -> None:
        if not 0 <= self.drop <= 1 or not 0 <= self.delay_ms <= 5000:
            raise ZarabandaError("A node drops 0 to 100 % of its packets, and is 0 to 5,000 ms late.")


@dataclass
class Counts:
    """What was seen of one universe. value: what the node puts out; pending: what waits for a synchronisation."""

    packets: int = 0
    sequence: int = -1
    sequence_errors: int = 0
    source: str = ""
    priority: int | None = None
    sources: int = 1
    terminated: bool = False
    synchronised: bool = False
    arrived: float = 0.0
    slots: bytes = b""
    pending: bytes = b""
    gaps: deque[float] = field(default_factory=lambda: deque(maxlen=3000))
    arrivals: deque[float] = field(default_factory=lambda: deque(maxlen=3000))
    longest_gap: float = 0.0

    def count(self, arrived: float, *, sequence: int, right: bool) -> None:
        """A packet. right: whether its sequence number follows the one before."""
        if self.packets and not self.terminated:
            self.sequence_errors += not right
            gap = arrived - self.arrived
            self.gaps.append(gap)
            self.longest_gap = max(self.longest_gap, gap)
        self.packets += 1
        self.sequence, self.arrived = sequence, arrived
        self.arrivals.append(arrived)

    def put_out(self) -> None:
        """What waited is put out."""
        self.slots = self.pending

    def forget(self) -> None:
        """Count from now on."""
        self.packets = min(self.packets, 1)
        self.sequence_errors, self.longest_gap = 0, 0.0
        self.gaps.clear()
        self.arrivals.clear()

    def row(self, universe: int, now: float, loss_s: float) -> dict[str, Any]:
        """For the screen."""
        recent = [arrived for arrived in self.arrivals if now - arrived <= 2]
        gaps = list(self.gaps)[-300:]
        middle = statistics.median(gaps) if gaps else 0.0
        off = sorted(abs(gap - middle) for gap in gaps)
        return {
            "universe": universe, "packets": self.packets, "per_second": len(recent) / 2,
            "sequence_errors": self.sequence_errors, "source": self.source, "priority": self.priority, "sources": self.sources,
            "terminated": self.terminated, "lost": now - self.arrived > loss_s and not self.terminated,
            "synchronised": self.synchronised, "gap_ms": middle * 1000,
            "jitter_ms": (off[int(len(off) * 0.99)] if off else 0.0) * 1000, "longest_gap_ms": self.longest_gap * 1000,
            "slots": self.slots,
        }  # fmt: skip


class SimulatedNode(ABC):
    """Receives UDP on an address of this machine, in a thread of its own."""

    protocol: str
    name: str
    loss_s: float

    def __init__(self, port: int, host: str, option: str) -> None:
        self._host, self._option = host, option
        self._socket = self._bound(port)
        self.port: int = self._socket.getsockname()[1]
        self.faults = Faults()
        self._chance = random.Random(1)
        self._late = deque[tuple[float, bytes, float, Address]]()
        self._universes: dict[int, Counts] = {}
        self._faults = FaultCounts()
        self._lock = threading.RLock()
        self._changed = threading.Condition(self._lock)
        self._closed, self._away = False, threading.Event()
        Worker(self.name, self._receive, Troubles()).start()

    @property
    def address(self) -> Address:
        """Where it listens."""
        return self._host, self.port

    @property
    def called(self) -> str:
        """The name that it gives itself."""
        return self.faults.name or self.name

    def _bound(self, port: int) -> socket.socket:
        made = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        _with_room(made)
        made.settimeout(_WAIT_S)
        with contextlib.suppress(OSError):
            made.setsockopt(socket.SOL_SOCKET, _SO_TIMESTAMPNS, 1)
        try:
            made.bind((self._host, port))
        except OSError as error:
            made.close()
            raise ZarabandaError(
                f"The {self.name} cannot listen on {self._host}:{port}: {error.strerror}. Stop what uses this port, or choose "
                f"another with {self._option}."
            ) from error
        return made

    # receiving

    def _receive(self) -> bool | None:
        while self._late and self._late[0][0] <= time.monotonic():
            _, data, arrived, sender = self._late.popleft()
            self._taken(data, arrived + self.faults.delay_ms / 1000, sender)
        if self.faults.vanished:
            self._socket.close()  # by this thread alone: a number of a file that another closes may be another file's by now
            self._away.set()
            time.sleep(_WAIT_S)
            return False if self._closed else None
        try:
            data, extra, _, sender = self._socket.recvmsg(2048, 64)
        except TimeoutError:
            return False if self._closed else None
        except OSError:
            if self._closed:
                return False
            raise
        if not self._closed:
            self._arrived(data, _stamp(extra), sender)
        return None

    def _arrived(self, data: bytes, arrived: float, sender: Address) -> None:
        faults = self.faults
        if faults.drop and self._chance.random() < faults.drop:
            return
        if faults.delay_ms and len(self._late) < _MOST_WAITING:
            self._late.append((time.monotonic() + faults.delay_ms / 1000, data, arrived, sender))
            return
        self._taken(data, arrived, sender)

    def _taken(self, data: bytes, arrived: float, sender: Address) -> None:
        reply = self.take(data, arrived)
        for packet in reply:
            with contextlib.suppress(OSError):
                self._socket.sendto(packet, sender)

    def take(self, data: bytes, arrived: float) -> list[bytes]:
        """Take one packet that came in at `arrived` (s); what is to be replied."""
        try:
            with self._changed:
                reply = self.understand(data, arrived)
                self._changed.notify_all()
                return reply
        except ValueError as error:
            with self._lock:
                self._faults.count(str(error))
            return []

    @abstractmethod
    def understand(self, data: bytes, arrived: float) -> list[bytes]:
        """Read a packet and count it; ValueError says what is wrong with it."""

    # what it is told

    def misbehave(self, faults: Faults) -> None:
        """Have these faults from now on. One that vanishes closes its port, as one does that is unplugged."""
        before = self.faults
        if before.vanished and not faults.vanished:
            self._socket = self._bound(self.port)
        self._away.clear()
        self.faults = faults
        if faults.vanished and not before.vanished:
            self._away.wait(_LEAVES_S)

    # what it knows

    def slots(self, universe: int) -> bytes:
        """What it puts out of a universe (empty when it was never seen)."""
        with self._lock:
            state = self._universes.get(universe)
            return state.slots if state else b""

    def wait_for(self, condition: Callable[[Callable[[int], bytes]], bool], timeout_s: float = 5.0) -> bool:
        """Wait until `condition(node's slots function)` holds after some packet; False when time runs out."""
        with self._changed:
            return self._changed.wait_for(lambda: condition(self.slots), timeout_s)

    def reset(self) -> None:
        """Forget the counts (not the sequence), so that a measurement begins now."""
        with self._lock:
            for state in self._universes.values():
                state.forget()

    def gaps(self, universe: int) -> list[float]:
        """Times between packets of a universe since the last reset, s (the newest 3000)."""
        with self._lock:
            state = self._universes.get(universe)
            return list(state.gaps) if state else []

    def status(self) -> dict[str, Any]:
        """Counts by universe: packets, packets per second, sequence errors, jitter in ms, and the slots' values."""
        now, faults = time.time(), self.faults
        with self._lock:
            rows = [state.row(number, now, self.loss_s) for number, state in sorted(self._universes.items())]
            return {
                "protocol": self.protocol, "name": self.called, "host": self._host, "port": self.port, "bad": self._faults.total,
                "last_bad": self._faults.last, "faults": dict(self._faults.by_kind),
                "drop": faults.drop, "delay_ms": faults.delay_ms, "vanished": faults.vanished,
                "calls_itself": faults.name,
                "universes": rows,
            }  # fmt: skip

    def close(self) -> None:
        """Stop receiving."""
        self._closed = True
        with contextlib.suppress(OSError):
            self._socket.shutdown(socket.SHUT_RDWR)
        self._socket.close()


def _with_room(made: socket.socket) -> None:
    """Room for the packets of some frames: more than the system gives everybody, where it lets us."""
    try:
        made.setsockopt(socket.SOL_SOCKET, _SO_RCVBUFFORCE, _ROOM)
    except OSError:
        made.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, _ROOM)


def _stamp(extra: list[tuple[int, int, bytes]]) -> float:
    """When a packet came in, by the kernel where it says so, in s since 1970."""
    for level, kind, content in extra:
        if level == socket.SOL_SOCKET and kind == _SO_TIMESTAMPNS:
            seconds, nanoseconds = struct.unpack("@qq", content[:16])
            return float(seconds + nanoseconds * 1e-9)
    return time.time()
