"""Incoming timecode: MIDI from the simulated player or from a port of this machine, to the loop."""

from __future__ import annotations

import contextlib
import socket
import time
from collections import deque
from collections.abc import Callable, Mapping
from typing import Any

import mido

from zarabanda.core.timecode.timeline import Timeline
from zarabanda.messages import SIMULATOR, Chased, TimecodeTold
from zarabanda.outputs.sockets import Address
from zarabanda.protocols.mtc import Decoder
from zarabanda.workers import Troubles, Worker

from .following import Followed

NAME = "Timecode"
_WAIT_S, _RETRY_S = 0.02, 0.5
_OTHER_SILENT_S = 0.5


class _Player:
    """A line from the simulated player."""

    def __init__(self, address: Address) -> None:
        self.name = "the simulated player"
        self._socket = socket.create_connection(address, 1.0)
        self._socket.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
        self._socket.settimeout(_WAIT_S)

    def read(self) -> bytes | None:
        """What came; None: nothing within a while. OSError where it is gone."""
        try:
            data = self._socket.recv(4096)
        except TimeoutError:
            return None
        if not data:
            raise OSError("the player has closed its line")
        return data

    def close(self) -> None:
        """Hear it no more."""
        with contextlib.suppress(OSError):
            self._socket.close()


class _Port:
    """A MIDI port of this machine."""

    def __init__(self, name: str) -> None:
        self.name = name
        self._port: Any = mido.open_input(name)

    def read(self) -> bytes | None:
        """As `_Player.read`."""
        message = self._port.poll()
        if message is None:
            time.sleep(_WAIT_S / 20)
            return None
        return bytes(message.bytes())

    def close(self) -> None:
        """As `_Player.close`."""
        self._port.close()


class TimecodeIn:
    """Hears timecode in a thread of its own, and tells the loop where the song is to be. `set` and `report` are for all
    threads."""

    def __init__(
        self,
        player: Address | None,
        timelines: Callable[[], Mapping[int, Timeline]],
        tell: Callable[[Chased], None],
        troubles: Troubles,
        changed: Callable[[], None],
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self._player, self._timelines, self._tell, self._troubles, self._clock = player, timelines, tell, troubles, clock
        self._changed = changed
        self._wanted = ""
        self._line: _Player | _Port | None = None
        self._open = ""
        self._decoder, self.followed = Decoder(), Followed()
        self._broken: deque[tuple[float, int]] = deque(maxlen=200)
        self._closing = self._forgets = False
        self._worker = Worker(NAME, self._step, troubles).start()

    def set(self, wanted: str) -> None:
        """Hear this from now on: the simulator, a port by its name; empty: nothing."""
        self._wanted = wanted

    def forget(self) -> None:
        """Another show is open: what was heard before means nothing to it."""
        self._forgets = True

    def close(self) -> None:
        """Hear nothing more."""
        self._closing = True
        self._worker.end()

    def report(self, now: float) -> TimecodeTold:
        """How it is."""
        return self.followed.told(now)

    def _step(self) -> bool | None:
        if self._forgets:
            self._forgets, self.followed = False, Followed()
            self._changed()
        if self._closing or self._wanted != self._open:
            self._hang_up()
            if self._closing:
                return False
            self._open = self._wanted
        if self._line is None and not self._connected():
            time.sleep(_RETRY_S)
            self._do(*self.followed.silent(self._clock(), self._timelines()))
            return None
        assert self._line is not None
        try:
            data = self._line.read()
        except OSError:
            self._hang_up()
            return None
        t, timelines = self._clock(), self._timelines()
        before = self._decoder.broken
        for one in self._decoder.read(data or b""):
            self._do(*self.followed.heard(one, t, timelines))
        self._noise(self._decoder.broken - before, t)
        self._do(*self.followed.silent(t, timelines))
        return None

    def _noise(self, broken: int, t: float) -> None:
        if broken:
            self._broken.append((t, broken))
        count = sum(number for at, number in self._broken if at > t - 1.0)
        self.followed = self.followed.with_noise(count, t)

    def _do(self, followed: Followed, actions: list[Chased]) -> None:
        before, self.followed = self.followed, followed
        if (before.state, before.text) != (followed.state, followed.text):
            self._changed()
        for action in actions:
            self._tell(action)

    def _connected(self) -> bool:
        if not self._open or (self._open == SIMULATOR and self._player is None):
            return False
        try:
            self._line = _Player(self._player) if self._open == SIMULATOR and self._player is not None else _Port(self._open)
        except OSError as error:
            self._troubles.tell(NAME, f"{self._open}: {error.strerror or error}. Choose another source of timecode in Output.")
            return False
        self._decoder = Decoder()
        self._troubles.clear(NAME)
        return True

    def _hang_up(self) -> None:
        if self._line is not None:
            self._line.close()
            self._line = None
