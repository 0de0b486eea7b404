"""Ways to outside devices: OSC by UDP, MIDI by TCP, MIDI by a port of this machine. Each is used by one thread alone."""

from __future__ import annotations

import contextlib
import socket
import sys
from abc import ABC, abstractmethod
from collections.abc import Callable
from pathlib import Path
from typing import Any

import mido

from zarabanda.errors import ZarabandaError

from .sockets import Address

CONNECT_S = 1.0
_SEQUENCER = Path("/dev/snd/seq")


class Line(ABC):
    """Sends bytes to a device. Raises OSError or ZarabandaError where they cannot go."""

    @abstractmethod
    def send(self, data: bytes) -> None:
        """Send one message."""

    def check(self) -> None:
        """Raise what has become known since about what was sent."""
        return

    @abstractmethod
    def close(self) -> None:
        """Let go of it."""


class OscLine(Line):
    """OSC packets by UDP. That nobody listens is told by the other machine, a little later: see `check`."""

    def __init__(self, address: Address) -> None:
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self._socket.connect(address)

    def send(self, data: bytes) -> None:
        self.check()
        self._socket.send(data)

    def check(self) -> None:
        code = self._socket.getsockopt(socket.SOL_SOCKET, socket.SO_ERROR)
        if code:
            raise OSError(code, "")

    def close(self) -> None:
        self._socket.close()


class MidiOverNetwork(Line):
    """MIDI bytes by TCP. A connection that was closed is made again, once for each message."""

    def __init__(self, address: Address) -> None:
        self._address = address
        self._socket: socket.socket | None = None

    def send(self, data: bytes) -> None:
        if self._socket is not None and self._was_closed(self._socket):
            self.close()
        if self._socket is None:
            self._socket = socket.create_connection(self._address, CONNECT_S)
            self._socket.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
        try:
            self._socket.sendall(data)
        except OSError:
            self.close()
            raise

    @staticmethod
    def _was_closed(connection: socket.socket) -> bool:
        try:
            return connection.recv(1, socket.MSG_PEEK | socket.MSG_DONTWAIT) == b""
        except BlockingIOError:
            return False
        except OSError:
            return True

    def close(self) -> None:
        if self._socket is not None:
            with contextlib.suppress(OSError):
                self._socket.close()
            self._socket = None


class MidiPort(Line):
    """A MIDI port of this machine, by its name."""

    def __init__(self, name: str) -> None:
        there = midi_ports()
        if name not in there:
            names = ", ".join(there) or "none"
            raise ZarabandaError(f"There is no MIDI port “{name}” now. Plug it in, or choose another: {names}.")
        self._port: Any = mido.open_output(name)

    def send(self, data: bytes) -> None:
        for message in mido.parse_all(data):
            self._port.send(message)

    def close(self) -> None:
        self._port.close()


def midi_ports() -> list[str]:
    """Names of the MIDI ports of this machine that can be sent to; none where the system has no MIDI."""
    return _ports(lambda: mido.get_output_names())


def midi_inputs() -> list[str]:
    """Names of those that can be heard."""
    return _ports(lambda: mido.get_input_names())


def _ports(names: Callable[[], list[Any]]) -> list[str]:
    if sys.platform == "linux" and not _SEQUENCER.exists():
        return []  # to ask the library would print a complaint each time
    try:
        return [str(name) for name in dict.fromkeys(names())]
    except Exception:  # whatever the system's MIDI raises where it is not there
        return []
