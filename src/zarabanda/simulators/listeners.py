"""Who listens to a simulated player: lines over TCP on an address of this machine. Who is too slow is left."""

from __future__ import annotations

import contextlib
import socket
import threading

from zarabanda.errors import ZarabandaError


class Listeners:
    """Takes whoever connects. what: the player, in words."""

    def __init__(self, what: str, host: str, port: int) -> None:
        self._lines, self._ended = list[socket.socket](), threading.Event()
        try:
            self._server = socket.create_server((host, port))
        except OSError as error:
            raise ZarabandaError(f"The {what} cannot listen on {host}:{port}: {error.strerror}.") from error
        self.port: int = self._server.getsockname()[1]
        threading.Thread(target=self._accept, daemon=True, name=f"{what}, line").start()

    def __len__(self) -> int:
        return len(self._lines)

    def send(self, data: bytes) -> None:
        """To all of them."""
        for line in list(self._lines):
            try:
                line.sendall(data)
            except OSError:
                with contextlib.suppress(ValueError):
                    self._lines.remove(line)
                line.close()

    def close(self) -> None:
        """Take nobody more, and leave who is there."""
        self._ended.set()
        with contextlib.suppress(OSError):
            self._server.shutdown(socket.SHUT_RDWR)  # wakes who waits for somebody
        self._server.close()
        for line in self._lines:
            line.close()

    def _accept(self) -> None:
        while not self._ended.is_set():
            try:
                line, _ = self._server.accept()
            except OSError:
                return
            line.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
            line.settimeout(0.2)
            self._lines.append(line)
