"""The line input: sound from the simulated player or from an input of this machine, as bands that layers hear as it comes."""

from __future__ import annotations

import contextlib
import queue
import socket
import time
from collections import deque
from collections.abc import Callable
from typing import Any, Protocol

import numpy as np
from numpy.typing import NDArray

from zarabanda.messages import SIMULATOR, LineTold
from zarabanda.outputs.sockets import Address
from zarabanda.protocols import rtp
from zarabanda.sound.inputs import sound_input
from zarabanda.sound.spectrum import BANDS, PER_SECOND, Analyser, fallen, shares
from zarabanda.workers import Troubles, Worker

NAME = "Line input"
_WAIT_S, _RETRY_S = 0.1, 0.5
_KEPT_S = 15.0
"""Longer than any layer looks back."""
_SILENT_S = 0.3
_LEAST_DB, _FORGETS_DB = -10.0, 1.0
"""What is quieter than this is never taken for loud, and how fast the loudest is forgotten, a second."""
Singles = NDArray[np.float32]


class _Line(Protocol):
    """rate: samples a second; name: in words."""

    rate: int
    name: str

    def read(self) -> list[NDArray[np.floating[Any]]]:
        """Samples (n,) that came within a while; none: silence. OSError where it is gone."""

    def close(self) -> None:
        """Hear it no more."""


class _Player:
    """A line from the simulated player of sound."""

    rate, name = rtp.RATE, "the simulated line"

    def __init__(self, address: Address) -> None:
        self._socket = socket.create_connection(address, 1.0)
        self._socket.settimeout(_WAIT_S)
        self._unframer = rtp.Unframer()

    def read(self) -> list[NDArray[np.floating[Any]]]:
        """As `_Line.read`."""
        try:
            data = self._socket.recv(1 << 16)
        except TimeoutError:
            return []
        if not data:
            raise OSError("it has closed its line")
        return list(self._unframer.read(data))

    def close(self) -> None:
        """As `_Line.close`."""
        with contextlib.suppress(OSError):
            self._socket.close()


class _Input:
    """A sound input of this machine."""

    def __init__(self, name: str) -> None:
        self._came: queue.Queue[NDArray[np.floating[Any]]] = queue.Queue(maxsize=200)
        self._stream, self.rate = sound_input(name, self._take)
        self.name = name

    def _take(self, samples: NDArray[np.floating[Any]]) -> None:
        with contextlib.suppress(queue.Full):
            self._came.put_nowait(samples)

    def read(self) -> list[NDArray[np.floating[Any]]]:
        """As `_Line.read`."""
        with contextlib.suppress(queue.Empty):
            return [self._came.get(timeout=_WAIT_S)]
        return []

    def close(self) -> None:
        """As `_Line.close`."""
        self._stream.close()


class HeardLine:
    """What was heard last, for all threads."""

    def __init__(self) -> None:
        self._rows: deque[tuple[float, Singles]] = deque(maxlen=int(_KEPT_S * PER_SECOND))
        self._loudest, self._at = _LEAST_DB, 0.0

    def add(self, decibels: NDArray[np.float64], t: float) -> None:
        """Bands (frames, 32), the last of them at t. The loudest of late is 1; it is forgotten by 1 dB a second."""
        if not len(decibels):
            return
        loudest = max(self._loudest - _FORGETS_DB * max(t - self._at, 0.0), _LEAST_DB, float(decibels.max()))
        self._loudest, self._at = loudest, t
        for n, row in enumerate(shares(decibels, loudest).astype(np.float32)):
            self._rows.append((t - (len(decibels) - 1 - n) / PER_SECOND, row))

    def at(self, t: float, fall_s: float, hold_s: float = 0.0) -> Singles:
        """(32,) 0…1 at t: as `Spectrum.at`, of what has come by then."""
        rows = [one for one in list(self._rows) if t - fall_s - hold_s <= one[0] <= t]
        if not rows:
            return np.zeros(BANDS, np.float32)
        return fallen(np.stack([levels for _, levels in rows]), t - np.array([at for at, _ in rows]), fall_s, hold_s)

    @property
    def newest(self) -> float:
        """When something came last."""
        rows = self._rows
        return rows[-1][0] if rows else float("-inf")


class LineIn:
    """Hears a line in a thread of its own. `set` and `report` are for all threads."""

    def __init__(self, player: Address | None, troubles: Troubles, clock: Callable[[], float] = time.monotonic) -> None:
        self._player, self._troubles, self._clock = player, troubles, clock
        self.heard = HeardLine()
        self._wanted = self._open = ""
        self._line: _Line | None = None
        self._analyser = Analyser(rtp.RATE)
        self._closing = False
        self._worker = Worker(NAME, self._step, troubles).start()

    def set(self, wanted: str) -> None:
        """Hear this from now on: the simulator, an input by its name; empty: nothing."""
        self._wanted = wanted

    def close(self) -> None:
        """Hear nothing more."""
        self._closing = True
        self._worker.end()

    def report(self, now: float) -> LineTold:
        """How it is."""
        sounds = now - self.heard.newest < _SILENT_S
        bands = [round(float(one), 2) for one in self.heard.at(now, 0.3)] if sounds else []
        return LineTold(self._line is not None, sounds, bands)

    def _step(self) -> bool | None:
        if self._closing or self._wanted != self._open:
            self._hang_up()
            if self._closing:
                return False
            self._open = self._wanted
            self._troubles.clear(NAME)
        if self._line is None and not self._connected():
            time.sleep(_RETRY_S)
            return None
        assert self._line is not None
        try:
            came = self._line.read()
        except OSError:
            self._hang_up()
            return None
        for samples in came:
            self.heard.add(self._analyser.feed(samples), self._clock())
        return None

    def _connected(self) -> bool:
        if not self._open or (self._open == SIMULATOR and self._player is None):
            return False
        try:
            self._line = _Player(self._player) if self._open == SIMULATOR and self._player is not None else _Input(self._open)
        except OSError as error:
            self._troubles.tell(
                NAME, f"{self._open}: {error.strerror or error}. Choose another line input in Output, Timecode, sound."
            )
            return False
        self._analyser = Analyser(self._line.rate)
        self._troubles.clear(NAME)
        return True

    def _hang_up(self) -> None:
        if self._line is not None:
            self._line.close()
            self._line = None
