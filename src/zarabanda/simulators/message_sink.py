"""Simulated devices that cues send messages to: a pixel server that is told by OSC what to play, and a caption screen that is
turned by MIDI. They keep what they got, and when."""

from __future__ import annotations

import socketserver
import threading
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.protocols import midi, osc

PIXEL_SERVER, CAPTION_SCREEN = "127.0.0.4", "127.0.0.5"
"""Addresses on which they listen."""
KEPT = 500
MIDI_READ = 4096


@dataclass(frozen=True)
class Received:
    """A message that came. at: s since 1970."""

    at: float
    words: str


class MessageSink:
    """A simulated device that listens on an address of this machine.

    `vanished` is one that is unplugged: nobody listens on its port, until it is back.
    """

    def __init__(self, name: str, speaks: str, host: str, serve: Callable[[MessageSink, int], Any], port: int = 0) -> None:
        self.name, self.speaks, self.host = name, speaks, host
        self._serve, self._lock = serve, threading.Lock()
        self._arrived = threading.Condition(self._lock)
        self._received: deque[Received] = deque(maxlen=KEPT)
        self.count, self.bad, self.last_bad, self.vanished = 0, 0, "", False
        self._server = self._opened(port)
        self.port: int = self._server.server_address[1]

    def _opened(self, port: int) -> Any:
        try:
            server = self._serve(self, port)
        except OSError as error:
            raise ZarabandaError(f"The {self.name} cannot listen on {self.host}:{port}: {error.strerror}.") from error
        threading.Thread(target=server.serve_forever, args=(0.05,), daemon=True, name=self.name).start()
        return server

    def take(self, data: bytes, in_words: Callable[[bytes], list[str]]) -> None:
        """What came in, as bytes."""
        now = time.time()
        with self._arrived:
            try:
                words = in_words(data)
            except ValueError as error:
                self.bad, self.last_bad = self.bad + 1, str(error)
                return
            self.count += len(words)
            self._received.extend(Received(now, one) for one in words)
            self._arrived.notify_all()

    def received(self) -> list[Received]:
        """What came, oldest first."""
        with self._lock:
            return list(self._received)

    def wait_for(self, words: str, timeout_s: float = 5.0) -> bool:
        """Wait until a message of these words has come."""
        with self._arrived:
            return self._arrived.wait_for(lambda: any(one.words == words for one in self._received), timeout_s)

    def vanish(self, gone: bool) -> None:
        """Unplug it, or plug it in again."""
        if gone and not self.vanished:
            self.close()
        elif self.vanished and not gone:
            self._server = self._opened(self.port)
        self.vanished = gone

    def reset(self) -> None:
        """Forget what came."""
        with self._lock:
            self._received.clear()
            self.count, self.bad, self.last_bad = 0, 0, ""

    def status(self) -> dict[str, Any]:
        """What it is, and what came, newest first."""
        with self._lock:
            return {
                "name": self.name, "speaks": self.speaks, "host": self.host, "port": self.port, "vanished": self.vanished,
                "count": self.count, "bad": self.bad, "last_bad": self.last_bad,
                "received": [{"at": one.at, "words": one.words} for one in reversed(self._received)],
            }  # fmt: skip

    def close(self) -> None:
        """Listen no more."""
        self._server.shutdown()
        self._server.server_close()


def pixel_server(port: int = 0) -> MessageSink:
    """A device that hears OSC by UDP."""

    def serve(sink: MessageSink, port: int) -> socketserver.UDPServer:
        class Handler(socketserver.BaseRequestHandler):
            def handle(self) -> None:
                sink.take(self.request[0], osc.in_words)

        return socketserver.UDPServer((sink.host, port), Handler)

    return MessageSink("Pixel server", "OSC", PIXEL_SERVER, serve, port)


def caption_screen(port: int = 0) -> MessageSink:
    """A device that hears MIDI by TCP."""

    def serve(sink: MessageSink, port: int) -> socketserver.TCPServer:
        class Handler(socketserver.BaseRequestHandler):
            def handle(self) -> None:
                self.request.settimeout(0.1)
                reads = midi.Reader()
                while not server.ended:
                    try:
                        data = self.request.recv(MIDI_READ)
                    except TimeoutError:
                        continue
                    except OSError:
                        return
                    if not data:
                        return
                    sink.take(data, reads.in_words)

        class Server(socketserver.ThreadingTCPServer):
            daemon_threads, allow_reuse_address = True, True
            ended = False

            def server_close(self) -> None:
                self.ended = True
                super().server_close()

        server = Server((sink.host, port), Handler)
        return server

    return MessageSink("Caption screen", "MIDI", CAPTION_SCREEN, serve, port)
