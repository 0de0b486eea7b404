"""Sockets that packets leave by: they never block, and belong to one interface."""

from __future__ import annotations

import socket
from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

Address = tuple[str, int]
_SEND_BUFFER = 1 << 21
_TTL = 8
"""Routers that a multicast packet may pass."""


@dataclass(frozen=True)
class Way:
    """How packets leave. to: the one address that they go to, None: each has its own; source: address of the interface that
    they leave by, empty: the system chooses; kind: unicast, multicast or broadcast."""

    kind: str
    to: Address | None = None
    source: str = ""


class Wire(Protocol):
    """Something that packets leave by."""

    def send(self, packet: bytes | bytearray | memoryview, address: Address) -> None:
        """Send, at once or not at all; OSError says why not."""

    def close(self) -> None:
        """Let go of it."""


Open = Callable[[Way], Wire]
"""Opens a wire; OSError says why it cannot."""


class UdpWire:
    """A UDP socket. One to a single address is connected, so that the system tells when nobody listens there (ICMP)."""

    def __init__(self, way: Way) -> None:
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        try:
            self._socket.setblocking(False)
            self._socket.setsockopt(socket.SOL_SOCKET, socket.SO_SNDBUF, _SEND_BUFFER)
            if way.source:
                self._socket.bind((way.source, 0))
            if way.kind == "multicast":
                self._socket.setsockopt(socket.IPPROTO_IP, socket.IP_MULTICAST_TTL, _TTL)
                if way.source:
                    self._socket.setsockopt(socket.IPPROTO_IP, socket.IP_MULTICAST_IF, socket.inet_aton(way.source))
            elif way.kind == "broadcast":
                self._socket.setsockopt(socket.SOL_SOCKET, socket.SO_BROADCAST, 1)
            self._connected = way.kind == "unicast" and way.to is not None
            if self._connected and way.to is not None:
                self._socket.connect(way.to)
        except OSError:
            self._socket.close()
            raise

    def send(self, packet: bytes | bytearray | memoryview, address: Address) -> None:
        """Send, at once or not at all."""
        if self._connected:
            self._socket.send(packet)
        else:
            self._socket.sendto(packet, address)

    def close(self) -> None:
        """Let go of the network."""
        self._socket.close()


class MemoryWire:
    """Keeps what is sent, and where to, for tests. fault: raised by every send, while it is set."""

    def __init__(self) -> None:
        self.sent: list[tuple[Address, bytes]] = []
        self.fault: OSError | None = None
        self.closed = False

    def send(self, packet: bytes | bytearray | memoryview, address: Address) -> None:
        """Keep it."""
        if self.fault is not None:
            raise self.fault.with_traceback(None)
        self.sent.append((address, bytes(packet)))

    def close(self) -> None:
        """Be closed."""
        self.closed = True
