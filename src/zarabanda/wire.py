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

from zarabanda.workers import Troubles, Worker, in_words

Message = Any
"""What can be encoded: one of `messages`, or of the simulators' own."""
Decoder = msgspec.msgpack.Decoder[Any]
PLAIN: Decoder = msgspec.msgpack.Decoder(dict[str, Any])
"""For messages that are not of a type of their own."""

_encoder = msgspec.msgpack.Encoder()
_MAX_PATH = 100
MAX_MESSAGE = 64 * 1024 * 1024
MOST_WAITING = 2000
"""Messages that may wait for a reader; one that lets more wait does not read, and is closed."""


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


def receive(connection: socket.socket, decoder: Decoder) -> Any:
    """The next message, or None when the other side has closed. Raises msgspec.ValidationError for one of another type."""
    head = _exactly(connection, 4)
    if head is None:
        return None
    (size,) = struct.unpack(">I", head)
    if size > MAX_MESSAGE:
        return None
    body = _exactly(connection, size)
    if body is None:
        return None
    return decoder.decode(body)


class Mailbox:
    """Messages on their way to a slow reader: a queue for those that count, and slots where the newest wins."""

    def __init__(self) -> None:
        self._condition = threading.Condition()
        self._queue: list[Message] = []
        self._newest: dict[str, Message] = {}
        self._open = True

    def post(self, message: Message) -> None:
        """Send in order, all of them. A reader that lets them pile up is closed."""
        with self._condition:
            self._queue.append(message)
            if len(self._queue) > MOST_WAITING:
                self._queue.clear()
                self._open = False
            self._condition.notify_all()

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

    def close(self) -> None:
        """End the connection."""
        self.shut()
        with contextlib.suppress(OSError):
            self.connection.shutdown(socket.SHUT_RDWR)
        self.connection.close()

    def write(self) -> None:
        """Send what is posted, until the mailbox is shut or the other side is gone; then the connection ends."""
        try:
            while (messages := self.take()) is not None:
                for message in messages:
                    send(self.connection, message)
        except OSError:
            pass
        finally:
            self.close()


class Server:
    """Listens on a local socket; calls `on_message(peer, message)` in a thread of each peer, with what `decoder` reads.

    A message that cannot be handled is told to `troubles`; the connection goes on. `on_leave` is called when a peer is gone.
    """

    def __init__(
        self,
        path: Path,
        decoder: Decoder,
        on_message: Callable[[Peer, Any], None],
        on_join: Callable[[Peer], None],
        troubles: Troubles,
        on_leave: Callable[[Peer], None] = lambda peer: None,
    ) -> None:
        self._path, self._decoder = path, decoder
        self._on_message, self._on_join, self._on_leave = on_message, on_join, on_leave
        self._troubles = troubles
        self.peers: list[Peer] = []
        if path.is_dir() and not path.is_symlink():
            path.rename(path.with_name(f"{path.name}.aside"))
        path.unlink(missing_ok=True)
        self._socket = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
        self._socket.bind(str(path))
        path.chmod(0o600)
        self._socket.listen()
        self._closed = False
        self._worker = Worker(f"Link {path.stem}", self._accept, troubles).start()

    def _accept(self) -> bool | None:
        try:
            connection, _ = self._socket.accept()
        except OSError:
            if self._closed:
                return False
            raise
        peer = Peer(connection)
        self.peers = [*self.peers, peer]
        for name, work in (("writer", peer.write), ("reader", lambda: self._read(peer))):
            threading.Thread(target=work, daemon=True, name=f"link-{name}").start()
        return None

    def _read(self, peer: Peer) -> None:
        try:
            self._on_join(peer)
            while self._handle(peer):
                pass
        except (OSError, msgspec.DecodeError, RecursionError):
            pass
        finally:
            self.peers = [other for other in self.peers if other is not peer]
            peer.close()
            self._on_leave(peer)

    def _handle(self, peer: Peer) -> bool:
        try:
            message = receive(peer.connection, self._decoder)
            if message is None:
                return False
            self._on_message(peer, message)
            self._troubles.clear("Message")
        except (OSError, RecursionError):
            raise
        except msgspec.ValidationError as error:
            self._troubles.tell("Message", in_words(error))
        except msgspec.DecodeError:
            raise
        except Exception as error:  # the next message may be a good one
            self._troubles.tell("Message", in_words(error))
        return True

    def close(self) -> None:
        """Stop listening and end all connections."""
        self._closed = True
        with contextlib.suppress(OSError):
            self._socket.shutdown(socket.SHUT_RDWR)
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
