"""What an output is: it takes the bytes of all universes once a frame, and says how it is doing."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from zarabanda.messages import RouteState


class Output(ABC):
    """Sends universes to somewhere. Never blocks, never raises in `send`: troubles are counted and reported."""

    @abstractmethod
    def send(self, universes: Sequence[int], data: NDArray[np.uint8], now: float) -> None:
        """Send one frame. universes: their numbers; data: (universes, 512); now: s, monotonic."""

    @abstractmethod
    def close(self) -> None:
        """End the streams, as the standard wants it, and let go of the network."""

    @abstractmethod
    def report(self) -> list[RouteState]:
        """Where it sends to, and how that goes."""


class MemoryOutput(Output):
    """Keeps the frames it is given, for tests."""

    def __init__(self) -> None:
        self.frames: list[tuple[float, NDArray[np.uint8]]] = []
        self.closed = False

    def send(self, universes: Sequence[int], data: NDArray[np.uint8], now: float) -> None:
        self.frames.append((now, data.copy()))

    def close(self) -> None:
        self.closed = True

    def report(self) -> list[RouteState]:
        return []
