"""Messages between the parts of Zarabanda on one machine: MessagePack with a length before it, on a local socket."""

from __future__ import annotations

import contextlib
import hashlib
import os
import socket
import struct
import tempfile
import threading
from collections.abc import Callable
from pathlib import Path
from typing import Any

import msgspec

Message = dict[str, Any]

_encoder = msgspec.msgpack.Encoder()
_decoder = msgspec.msgpack.Decoder()
_MAX_PATH = 100
MAX_MESSAGE = 64 * 1024 * 1024


def socket_path(data: Path, name: str) -> Path:
    """Path of the local socket `name` of a data folder; in the system's temporary folder when its own is too deep."""
    path = data.resolve() / f"{name}.sock"
    if len(str(path)) <= _MAX_PATH:
        return path
    digest = hashlib.sha256(str(data.resolve()).encode()).hexdigest()[:16]
    folder = Path(tempfile.gettempdir()) / f"zarabanda-{os.getuid()}-{digest}"
    folder.mkdir(mode=0o700, exist_ok=True)
    return folder / f"{name}.sock"


def send(connection: socket.socket, message: Message) -> None:
    """Send one message, whole."""
    body = _encoder.encode(message)
    connection.sendall(struct.pack(">I", len(body)) + body)


def _exactly(connection: socket.socket, size: int) -> bytes | None:
    parts = bytearray()
    while len(parts) < size:
        part = connection.recv(min(size - len(parts), 1 << 20))
        if not part:
            return None
        parts += part
    return bytes(parts)


def receive(connection: socket.socket) -> Message | None:
    """The next message, or None when the other side has closed."""
    head = _exactly(connection, 4)
    if head is None:
        return None
    (size,) = struct.unpack(">I", head)
    if size > MAX_MESSAGE:
        return None
    body = _exactly(connection, size)
    if body is None:
        return None
    message: Message = _decoder.decode(body)
    return message


class Mailbox:
    """Messages on their way to a slow reader: a queue for those that count, and slots where the newest wins."""

    def __init__(self) -> None:
        self._condition = threading.Condition()
        self._queue: list[Message] = []
        self._newest: dict[str, Message] = {}
        self._open = True

    def post(self, message: Message) -> None:
        """Send in order, all of them."""
        with self._condition:
            self._queue.append(message)
            self._condition.notify()

    def post_newest(self, slot: str, message: Message) -> None:
        """Send when there is time; a message not sent yet gives way to a newer one of its slot."""
        with self._condition:
            self._newest[slot] = message
            self._condition.notify()

    def take(self) -> list[Message] | None:
        """Wait for messages and take them all; None when the mailbox is closed."""
        with self._condition:
            self._condition.wait_for(lambda: self._queue or self._newest or not self._open)
            if not self._open:
                return None
            messages = [*self._queue, *self._newest.values()]
            self._queue.clear()
            self._newest.clear()
            return messages

    def shut(self) -> None:
        """Close: `take` gives None."""
        with self._condition:
            self._open = False
            self._condition.notify_all()


class Peer(Mailbox):
    """One connected client of a `Server`. watching: universes that it wants to see."""

    def __init__(self, connection: socket.socket) -> None:
        super().__init__()
        self.connection = connection
        self.watching: set[int] = set()
        threading.Thread(target=self._write, daemon=True, name="link-writer").start()

    def close(self) -> None:
        """End the connection."""
        self.shut()
        with contextlib.suppress(OSError):
            self.connection.shutdown(socket.SHUT_RDWR)
        self.connection.close()

    def _write(self) -> None:
        while (messages := self.take()) is not None:
            try:
                for message in messages:
                    send(self.connection, message)
            except OSError:
                return


class Server:
    """Listens on a local socket; calls `on_message(peer, message)` in a thread of each peer."""

    def __init__(self, path: Path, on_message: Callable[[Peer, Message], None], on_join: Callable[[Peer], None]) -> None:
        self._path = path
        self._on_message, self._on_join = on_message, on_join
        self.peers: list[Peer] = []
        path.unlink(missing_ok=True)
        self._socket = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
        self._socket.bind(str(path))
        path.chmod(0o600)
        self._socket.listen()
        threading.Thread(target=self._accept, daemon=True, name="link-accept").start()

    def _accept(self) -> None:
        while True:
            try:
                connection, _ = self._socket.accept()
            except OSError:
                return
            peer = Peer(connection)
            self.peers = [*self.peers, peer]
            self._on_join(peer)
            threading.Thread(target=self._read, args=(peer,), daemon=True, name="link-reader").start()

    def _read(self, peer: Peer) -> None:
        try:
            while (message := receive(peer.connection)) is not None:
                self._on_message(peer, message)
        except (OSError, msgspec.DecodeError):
            pass
        finally:
            self.peers = [other for other in self.peers if other is not peer]
            peer.close()

    def close(self) -> None:
        """Stop listening and end all connections."""
        self._socket.close()
        for peer in self.peers:
            peer.close()
        self._path.unlink(missing_ok=True)


def connect(path: Path, timeout_s: float = 1.0) -> socket.socket:
    """Connect to a server's socket; raises OSError when nobody listens."""
    connection = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
    connection.settimeout(timeout_s)
    try:
        connection.connect(str(path))
    except OSError:
        connection.close()
        raise
    return connection
