"""Art-Net out: ArtDmx by unicast or broadcast, and ArtSync after each frame where a route wants it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.protocols import artnet

from .sender import RouteSender


class ArtnetSender(RouteSender):
    """A route of Art-Net. A stream just stops: Art-Net knows no packet that ends one."""

    lowest, highest = 0, artnet.MOST_PORT_ADDRESSES - 1
    slots_at, sequence_at = artnet.DMX_HEADER, artnet.SEQUENCE

    def packet(self, number: int) -> bytearray:
        return artnet.dmx_packet(number)

    def after(self, sequence: NDArray[np.uint8]) -> NDArray[np.uint8]:
        return sequence % np.uint8(255) + np.uint8(1)  # 0 would say that it is not counted

    def sync(self) -> bytes | None:
        return artnet.sync_packet() if self.route.sync else None
