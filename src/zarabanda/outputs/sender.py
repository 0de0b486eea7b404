"""One route at work: it picks its universes, paces them, makes packets of them and counts. What a packet is, `sacn` and
`artnet` say."""

from __future__ import annotations

import errno
from abc import ABC, abstractmethod
from collections import deque
from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.messages import RoutePart, RouteState

from .pacing import Pace
from .sockets import Address, Wire

_ENDINGS = 3
_NO_ROOM = (errno.EAGAIN, errno.ENOBUFS, errno.ENOMEM)
_FAILED_FOR_S = 2.0
"""So long after an error a route counts as failed: a universe that stands still shows its next one within a second."""
_COUNTED_S = 60.0


@dataclass(frozen=True)
class Source:
    """Who we are to others. cid: 16 bytes; priority: instead of that of every route, None: theirs."""

    name: str
    cid: bytes
    priority: int | None = None


class RouteSender(ABC):
    """Sends what a route carries. Never blocks, never raises: troubles are counted.

    sequences: (64000,) the last sequence number of each universe, by its number there; kept by the caller, so that streams go
    on after a restart; address: of a universe, by its number there.
    """

    lowest: int
    highest: int
    """Numbers that universes can have there."""
    slots_at: int
    sequence_at: int
    """Offsets into a packet."""

    def __init__(
        self, route: RoutePart, source: Source, wire: Wire, address: Callable[[int], Address], sequences: NDArray[np.uint8]
    ) -> None:
        self.route, self.source, self.wire = route, source, wire
        self._address, self._sequences = address, sequences
        self._pace = Pace(route.rate, route.always)
        self._universes: Sequence[int] | None = None
        self._rows = self._numbers = np.zeros(0, np.int64)
        self.numbers: list[int] = []
        """The universes that it sends, by their numbers there."""
        self._packets = np.zeros((0, self.slots_at + 512), np.uint8)
        self._views: list[memoryview] = []
        self._addresses: list[Address] = []
        self._ending: dict[int, int] = {}
        self.packets, self.errors, self.drops = 0, 0, 0
        self.last_error = ""
        self._failed_at = self._sent_at = float("-inf")
        self._gaps = deque[tuple[float, float]]()
        self._counted = deque[tuple[float, int]]()

    # what a protocol says

    @abstractmethod
    def packet(self, number: int) -> bytearray:
        """A packet for a universe of this number there, but for its sequence number and slots."""

    @abstractmethod
    def after(self, sequence: NDArray[np.uint8]) -> NDArray[np.uint8]:
        """The sequence numbers after these."""

    def sync(self) -> bytes | None:
        """What is sent after a frame so that receivers show it together."""
        return None

    def ending(self, number: int) -> bytearray | None:
        """A packet that ends a stream; None where the protocol knows no such thing."""
        return None

    # sending

    def send(self, universes: Sequence[int], data: NDArray[np.uint8], now: float) -> None:
        """One frame, of which it sends what is due."""
        if universes is not self._universes and list(universes) != list(self._universes or ()):
            self._lay(universes)
        self._universes = universes
        if not self._pace.is_due(now):
            return
        sent = self._send_due(data[self._rows], now)
        for number in list(self._ending):
            self._send_ending(number, now)
        packet = self.sync() if sent else None
        if packet is not None:
            self._out(packet, self._address(self.route.sync), now)

    def _send_due(self, data: NDArray[np.uint8], now: float) -> int:
        """Send the rows that are due; how many went out. What did not is due again in the next frame."""
        due = self._pace.due(data, now)
        numbers = self._numbers[due]
        self._packets[due, self.slots_at :] = data[due]
        sequences = self.after(self._sequences[numbers])
        self._packets[due, self.sequence_at] = sequences
        sent = 0
        for row in due.tolist():
            if not self._out(self._views[row], self._addresses[row], now):
                self._pace.not_sent(due[sent:])
                self.drops += len(due) - sent
                break
            sent += 1
        self._sequences[numbers[:sent]] = sequences[:sent]
        return sent

    def _lay(self, universes: Sequence[int]) -> None:
        """Other universes: those that are no longer there end, those that stay go on."""
        before = {number: row for row, number in enumerate(self.numbers)}
        carried = [(row, self.route.number_there(one)) for row, one in enumerate(universes) if self.route.carries(one)]
        carried = [(row, number) for row, number in carried if self.lowest <= number <= self.highest]
        self.numbers = [number for _, number in carried]
        self._numbers = np.array(self.numbers, np.int64)
        self._rows = np.array([row for row, _ in carried], np.int64)
        self._pace.lay(np.array([before.get(number, -1) for number in self.numbers], np.int64))
        self._packets = np.zeros((len(self.numbers), self.slots_at + 512), np.uint8)
        for packet, number in zip(self._packets, self.numbers, strict=True):
            packet[:] = np.frombuffer(self.packet(number), np.uint8)
        self._views = [memoryview(packet) for packet in self._packets]  # type: ignore[arg-type]  # an array is a buffer
        self._addresses = [self._address(number) for number in self.numbers]
        for number in self.numbers:
            self._ending.pop(number, None)
        for number in before.keys() - set(self.numbers):
            self._ending[number] = _ENDINGS

    def _send_ending(self, number: int, now: float) -> None:
        """One packet of a stream that ends, until there were three (E1.31, 6.2.6)."""
        packet = self.ending(number)
        if packet is not None:
            sequence = self.after(self._sequences[number : number + 1])
            packet[self.sequence_at] = int(sequence[0])
            self._sequences[number] = sequence[0]
            self._out(packet, self._address(number), now)
        self._ending[number] -= 1
        if not self._ending[number]:
            del self._ending[number]

    def _out(self, packet: bytes | bytearray | memoryview, address: Address, now: float) -> bool:
        """Send one packet; False where no more need be tried in this frame."""
        try:
            self.wire.send(packet, address)
        except OSError as error:
            if error.errno not in _NO_ROOM:
                self.errors += 1
                self.last_error, self._failed_at = why(error, address), now
            return False
        self.packets += 1
        if now > self._sent_at:
            if self._sent_at > float("-inf"):
                self._gaps.append((now, now - self._sent_at))
            self._sent_at = now
        return True

    def fails(self, text: str, now: float) -> None:
        """Something went wrong that nobody foresaw."""
        self.errors += 1
        self.last_error, self._failed_at = text, now

    def close(self, now: float, going_on: Collection[int] = ()) -> None:
        """End all streams, but those that another sender goes on with, and let go of the network."""
        self._ending |= {number: _ENDINGS for number in self.numbers if number not in going_on}
        while self._ending:
            for number in list(self._ending):
                self._send_ending(number, now)
        self.wire.close()

    # how it does

    def failed(self, now: float) -> bool:
        """Whether it has failed in the last two seconds."""
        return now - self._failed_at < _FAILED_FOR_S

    def state(self, now: float) -> RouteState:
        """For the screen."""
        while self._gaps and now - self._gaps[0][0] > _COUNTED_S:
            self._gaps.popleft()
        self._counted.append((now, self.packets))
        while len(self._counted) > 2 and now - self._counted[1][0] >= 1:
            self._counted.popleft()
        since, packets = self._counted[0]
        failed, part = self.failed(now), self.route
        return RouteState(
            part.id, part.protocol, part.to, "failed" if failed else "sending", self.last_error if failed else "",
            universes=len(self.numbers), packets=self.packets,
            per_second=(self.packets - packets) / (now - since) if now > since else 0.0,
            errors=self.errors, drops=self.drops,
            since_last_s=max(0.0, now - self._sent_at) if self._sent_at > float("-inf") else None,
            longest_gap_s=max((gap for _, gap in list(self._gaps)), default=0.0),
            priority=self.priority if part.protocol == "E1.31" else None,
        )  # fmt: skip

    @property
    def priority(self) -> int:
        """Of its E1.31 streams."""
        return self.route.priority if self.source.priority is None else self.source.priority


_REASONS = {
    errno.ECONNREFUSED: "nobody listens there. Start the node, or look at the address and port",
    errno.ENETUNREACH: "there is no way to that network. Look at the cable and the address of the interface",
    errno.EHOSTUNREACH: "it does not answer. Look at its power and cable, and at the address",
    errno.ENETDOWN: "the network is down. Look at the cable",
    errno.EADDRNOTAVAIL: "the interface has no such address any more. Choose another interface",
    errno.EACCES: "the system does not let packets go there. Choose the interface's own broadcast address",
    errno.EPERM: "the system does not let packets go there (a firewall?)",
    errno.EINVAL: "this address cannot be reached from this interface. Choose another one of the two",
}


def why(error: OSError, address: Address) -> str:
    """Why a packet did not go out, in words, and what to do."""
    reason = _REASONS.get(error.errno or 0, error.strerror or str(error))
    return f"{address[0]}:{address[1]}: {reason}."
