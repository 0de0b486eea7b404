"""Art-Net out: ArtDmx by unicast or broadcast, and ArtSync after each frame where a route wants it."""

from __future__ import annotations

import numpy as np

from zarabanda.protocols import artnet

from .sender import RouteSender, Stream
from .sockets import Address


class ArtnetSender(RouteSender):
    """A route of Art-Net. A stream just stops: Art-Net knows no packet that ends one."""

    def highest(self) -> int:
        return artnet.MOST_PORT_ADDRESSES - 1

    def stream(self, number: int, address: Address) -> Stream:
        packet = artnet.dmx_packet(number)
        return Stream(number, packet, np.frombuffer(packet, np.uint8)[artnet.DMX_HEADER :], address)

    def count(self, stream: Stream) -> None:
        sequence = artnet.next_sequence(int(self._sequences[stream.number]))
        self._sequences[stream.number] = sequence
        stream.packet[artnet.SEQUENCE] = sequence

    def sync(self) -> bytes | None:
        return artnet.sync_packet() if self.route.sync else None

    def _lowest(self) -> int:
        return 0
