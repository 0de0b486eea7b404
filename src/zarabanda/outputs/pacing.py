"""Which universes of a route are due in a frame: what changed, what is repeated, what is kept alive."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

REPEATS = 3
"""A universe that stands still is sent so many times more …"""
KEEP_ALIVE_S = 0.9
"""… and then every 800–1000 ms (E1.31, 6.6.2; Art-Net 4, "ArtDmx")."""
_SLACK = 0.25
"""Of a period: frames come a little early or late."""


class Pace:
    """Of one route. rate: frames a second at the most; always: every frame is sent whole, changed or not."""

    def __init__(self, rate: float, always: bool = False) -> None:
        self._period, self._always = 1 / rate, always
        self._next = float("-inf")
        self._last = np.zeros((0, 512), np.uint8)
        self._repeats = np.zeros(0, np.int64)
        self._sent_at = np.zeros(0)

    def lay(self, kept: NDArray[np.int64]) -> None:
        """Other universes. kept: of each, its row before, −1 where it is new."""
        stays = kept >= 0
        last, repeats, sent_at = self._last, self._repeats, self._sent_at
        self._last = np.zeros((len(kept), 512), np.uint8)
        self._repeats = np.full(len(kept), -1)  # nothing was sent of it
        self._sent_at = np.full(len(kept), float("-inf"))
        for now, before in ((self._last, last), (self._repeats, repeats), (self._sent_at, sent_at)):
            now[stays] = before[kept[stays]]

    def is_due(self, now: float) -> bool:
        """Whether this frame is one of the route's."""
        if now < self._next - _SLACK * self._period:
            return False
        self._next = max(self._next + self._period, now)
        return True

    def due(self, data: NDArray[np.uint8], now: float) -> NDArray[np.int64]:
        """Rows of `data` (universes, 512) to be sent in this frame, which are then taken as sent."""
        changed = (data != self._last).any(axis=1) | (self._repeats < 0)
        self._repeats = np.where(changed, 0, self._repeats + 1)
        due = changed | (self._repeats <= REPEATS) | (now - self._sent_at >= KEEP_ALIVE_S)
        if self._always:
            due[:] = True
        self._last[changed] = data[changed]
        self._sent_at[due] = now
        return np.flatnonzero(due)

    def not_sent(self, rows: NDArray[np.int64]) -> None:
        """These rows could not be sent: they are due in the next frame."""
        self._repeats[rows] = -1
