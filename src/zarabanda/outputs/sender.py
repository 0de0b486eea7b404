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


@dataclass
class Stream:
    """The packet of one universe. number: what it is called there; slots: where its values are in the packet."""

    number: int
    packet: bytearray
    slots: NDArray[np.uint8]
    address: Address


@dataclass(frozen=True)
class Source:
    """Who we are to others. cid: 16 bytes; priority: instead of that of every route, None: theirs."""

    name: str
    cid: bytes
    priority: int | None = None


class RouteSender(ABC):
    """Sends what a route carries. Never blocks, never raises: troubles are counted.

    sequences: (64000,) by number there, kept by the caller, so that streams go on after a restart; addresses: of a universe.
    """

    def __init__(
        self, route: RoutePart, source: Source, wire: Wire, address: Callable[[int], Address], sequences: NDArray[np.uint8]
    ) -> None:
        self.route, self.source, self.wire = route, source, wire
        self._address, self._sequences = address, sequences
        self._pace = Pace(route.rate, route.always)
        self._universes: Sequence[int] | None = None
        self._rows = np.zeros(0, np.int64)
        self._streams: list[Stream] = []
        self._ending: dict[int, tuple[Stream, int]] = {}
        self.packets, self.errors, self.drops = 0, 0, 0
        self.last_error = ""
        self._failed_at = self._sent_at = float("-inf")
        self._gaps = deque[tuple[float, float]]()
        self._counted = deque[tuple[float, int]]()

    # what a protocol says

    @abstractmethod
    def highest(self) -> int:
        """The highest number of a universe there."""

    @abstractmethod
    def stream(self, number: int, address: Address) -> Stream:
        """A packet for a universe of this number there."""

    @abstractmethod
    def count(self, stream: Stream) -> None:
        """Put the next sequence number into a packet."""

    def sync(self) -> bytes | None:
        """What is sent after a frame so that receivers show it together."""
        return None

    def end(self, stream: Stream) -> bool:
        """Make a packet one that ends its stream; False where the protocol knows no such thing."""
        return False

    # sending

    def send(self, universes: Sequence[int], data: NDArray[np.uint8], now: float) -> None:
        """One frame, of which it sends what is due."""
        if universes is not self._universes and list(universes) != list(self._universes or ()):
            self._lay(universes)
        self._universes = universes
        if not self._pace.is_due(now):
            return
        sent = False
        for row in self._pace.due(data[self._rows], now):
            stream = self._streams[row]
            stream.slots[:] = data[self._rows[row]]
            if not self._transmit(stream, now):
                break
            sent = True
        self._send_endings(now)
        packet = self.sync() if sent else None
        if packet is not None:
            self._out(packet, self._address(self.route.sync), now)

    def _lay(self, universes: Sequence[int]) -> None:
        """Other universes: those that are no longer there end, those that stay go on."""
        before = {stream.number: row for row, stream in enumerate(self._streams)}
        carried = [(row, self.route.number_there(one)) for row, one in enumerate(universes) if self.route.carries(one)]
        carried = [(row, number) for row, number in carried if self._lowest() <= number <= self.highest()]
        old, self._streams = self._streams, []
        for _, number in carried:
            self._ending.pop(number, None)
            self._streams.append(old[before[number]] if number in before else self.stream(number, self._address(number)))
        self._rows = np.array([row for row, _ in carried], np.int64)
        self._pace.lay(np.array([before.get(number, -1) for _, number in carried], np.int64))
        for number in before.keys() - {number for _, number in carried}:
            if self.end(old[before[number]]):
                self._ending[number] = old[before[number]], _ENDINGS

    def _lowest(self) -> int:
        return 1

    def _transmit(self, stream: Stream, now: float) -> bool:
        self.count(stream)
        return self._out(stream.packet, stream.address, now)

    def _out(self, packet: bytes | bytearray, address: Address, now: float) -> bool:
        """Send one packet; False where no more need be tried in this frame."""
        try:
            self.wire.send(packet, address)
        except OSError as error:
            if error.errno in _NO_ROOM:
                self.drops += 1
                return True
            self.errors += 1
            self.last_error, self._failed_at = why(error, address), now
            return isinstance(error, ConnectionRefusedError)
        self.packets += 1
        if now > self._sent_at:
            if self._sent_at > float("-inf"):
                self._gaps.append((now, now - self._sent_at))
            self._sent_at = now
        return True

    def _send_endings(self, now: float) -> None:
        """One packet of each stream that ends in this frame, until there were three (E1.31, 6.2.6)."""
        for number, (stream, left) in list(self._ending.items()):
            self._transmit(stream, now)
            if left > 1:
                self._ending[number] = stream, left - 1
            else:
                del self._ending[number]

    def close(self, now: float, going_on: Collection[int] = ()) -> None:
        """End all streams, but those that another sender goes on with, and let go of the network."""
        ending = [(stream, _ENDINGS) for stream in self._streams if stream.number not in going_on and self.end(stream)]
        for stream, left in [*ending, *self._ending.values()]:
            for _ in range(left):
                self._transmit(stream, now)
        self.wire.close()

    # how it does

    def failed(self, now: float) -> bool:
        """Whether it has failed in the last two seconds."""
        return now - self._failed_at < _FAILED_FOR_S

    @property
    def numbers(self) -> list[int]:
        """The universes that it sends, by their numbers there."""
        return [stream.number for stream in self._streams]

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
            universes=len(self._streams), packets=self.packets,
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
