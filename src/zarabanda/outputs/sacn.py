"""E1.31 out: data packets by unicast or multicast, synchronisation, streams that end as the standard wants it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.protocols import e131

from .sender import RouteSender


class SacnSender(RouteSender):
    """A route of E1.31."""

    lowest, highest = 1, e131.MOST_UNIVERSES - 1
    slots_at, sequence_at = e131.SLOTS, e131.SEQUENCE

    def packet(self, number: int) -> bytearray:
        return e131.data_packet(number, self.source.cid, self.source.name, self.priority, self.route.sync)

    def after(self, sequence: NDArray[np.uint8]) -> NDArray[np.uint8]:
        return sequence + np.uint8(1)

    def sync(self) -> bytes | None:
        """Counted apart from data: a universe that synchronises carries none (E1.31, 6.3.3.1)."""
        sync = self.route.sync
        if not sync:
            return None
        sequence = self._sequences[sync : sync + 1]
        sequence[:] = self.after(sequence)
        return e131.sync_packet(sync, self.source.cid, int(sequence[0]))

    def ending(self, number: int) -> bytearray | None:
        packet = self.packet(number)
        packet[e131.OPTIONS] = e131.TERMINATED
        return packet
