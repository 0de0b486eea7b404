"""E1.31 out: data packets by unicast or multicast, synchronisation, streams that end as the standard wants it."""

from __future__ import annotations

import numpy as np

from zarabanda.protocols import e131

from .sender import RouteSender, Stream
from .sockets import Address


class SacnSender(RouteSender):
    """A route of E1.31."""

    def highest(self) -> int:
        return e131.MOST_UNIVERSES - 1

    def stream(self, number: int, address: Address) -> Stream:
        packet = e131.data_packet(number, self.source.cid, self.source.name, self.priority, self.route.sync)
        return Stream(number, packet, np.frombuffer(packet, np.uint8)[e131.SLOTS :], address)

    def count(self, stream: Stream) -> None:
        stream.packet[e131.SEQUENCE] = self._next(stream.number)

    def _next(self, number: int) -> int:
        sequence = int(self._sequences[number])
        self._sequences[number] = (sequence + 1) & 255
        return sequence

    def sync(self) -> bytes | None:
        """Counted apart from data of the same universe: nothing carries data and synchronises (E1.31, 6.3.3.1)."""
        if not self.route.sync:
            return None
        return e131.sync_packet(self.route.sync, self.source.cid, self._next(self.route.sync))

    def end(self, stream: Stream) -> bool:
        stream.packet[e131.OPTIONS] = e131.TERMINATED
        return True
