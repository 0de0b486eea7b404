"""Listens: opens what is to be listened on, asks nodes to answer, and reads what comes in, at a bounded pace."""

from __future__ import annotations

import contextlib
import selectors
import socket
import threading
import time
from collections.abc import Callable
from pathlib import Path

from zarabanda import network_settings, wire
from zarabanda.network_settings import NetworkSettings
from zarabanda.outputs.interfaces import Interface, interfaces
from zarabanda.protocols import artnet
from zarabanda.workers import Troubles, Worker

from .ears import Ear, opened, wanted
from .heard import Found, Heard

_WAIT_S, _LOOK_EVERY_S = 0.1, 1.0
MOST_A_SECOND = 5_000
"""Packets that are read in a second; of a storm the others are left to the system, which drops them."""


def looks_on(name: str) -> str:
    """What a user must agree to before nodes are looked for on an interface."""
    return f"looking for nodes over {name}"


class Listener:
    """All that is listened on. open, clock and there (the interfaces) are passed in."""

    def __init__(
        self,
        settings: Callable[[], NetworkSettings],
        ports: dict[str, int],
        simulator: tuple[str, int],
        *,
        open: Callable[[Ear], socket.socket] = opened,
        there: Callable[[], list[Interface]] = interfaces,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self._settings, self._ports, self._simulator = settings, ports, simulator
        self._open, self._there, self._clock = open, there, clock
        self._ears: dict[Ear, socket.socket] = {}
        self._selector = selectors.DefaultSelector()
        self._heard, self._own = Heard(), b""
        self._universes: frozenset[int] = frozenset()
        self._wrong: list[str] = []
        self._ports_open: list[str] = []
        self._listening = False
        self._looked = self._polled = self._second = float("-inf")
        self._read = 0
        self._lock = threading.Lock()

    def told(self, universes: list[int], own: bytes) -> None:
        """Which universes are ours, and our CID."""
        self._universes, self._own = frozenset(universes), own

    def found(self) -> Found:
        """What is heard now."""
        with self._lock:
            found = self._heard.found(self._clock())
        found.listening = self._listening
        found.ports = list(self._ports_open)
        found.troubles = list(self._wrong)
        return found

    def step(self) -> None:
        """Look after the sockets, poll when it is time, and read what comes in within a tenth of a second."""
        now = self._clock()
        if now - self._looked >= _LOOK_EVERY_S:
            self._looked = now
            self._look()
        if now - self._polled >= artnet.POLL_EVERY_S:
            self._polled = now
            self._poll()
        if now - self._second >= 1:
            self._second, self._read = now, 0
        if not self._ears or self._read > MOST_A_SECOND:
            time.sleep(_WAIT_S)
            return
        for key, _ in self._selector.select(_WAIT_S):
            self._hear(key.data, self._ears.get(key.data))

    def _look(self) -> None:
        settings, wrong = self._settings(), list[str]()
        self._listening = settings.listen
        ears = wanted(self._ports, self._simulator, self._looked_on(settings, wrong), self._universes) if settings.listen else []
        for gone in self._ears.keys() - set(ears):
            self._shut(gone)
        for ear in ears:
            if ear not in self._ears:
                try:
                    made = self._open(ear)
                except OSError as error:
                    wrong.append(f"{ear.protocol} cannot be listened to on {ear.address}:{ear.port}: {error.strerror}. Another "
                                 "program may use this port.")  # fmt: skip
                    continue
                self._ears[ear] = made
                self._selector.register(made, selectors.EVENT_READ, ear)
        self._wrong = wrong
        self._ports_open = [f"{ear.protocol} {':'.join(map(str, made.getsockname()))}" for ear, made in self._ears.items()]

    def _looked_on(self, settings: NetworkSettings, wrong: list[str]) -> Interface | None:
        name = settings.look_on
        if not name or looks_on(name) not in settings.allowed:
            return None
        found = next((one for one in self._there() if one.name == name and one.up), None)
        if found is None:
            wrong.append(f"The interface {name} is not there, or down: nothing is looked for on it.")
        return found

    def _shut(self, ear: Ear) -> None:
        made = self._ears.pop(ear)
        self._selector.unregister(made)
        made.close()

    def _poll(self) -> None:
        """Ask nodes to answer (Art-Net 4, "ArtPoll")."""
        for ear, made in list(self._ears.items()):
            if ear.polls is not None:
                with contextlib.suppress(OSError):
                    made.sendto(artnet.poll_packet(), ear.polls)

    def _hear(self, ear: Ear, made: socket.socket | None) -> None:
        """Read what waits on one socket."""
        while made is not None and self._read <= MOST_A_SECOND:
            try:
                data, sender = made.recvfrom(2048)
            except ConnectionRefusedError:
                continue  # a poll found nobody
            except OSError:
                return
            self._read += 1
            with self._lock:
                if self._read > MOST_A_SECOND:
                    self._heard.skipped += 1
                else:
                    self._heard.take(ear.protocol, data, sender[0], self._clock(), self._own)

    def close(self) -> None:
        """Listen no more."""
        for ear in list(self._ears):
            self._shut(ear)
        self._selector.close()


def serve(data: Path, ports: dict[str, int], simulator: tuple[str, int]) -> tuple[Worker, wire.Server]:
    """Listen for a data folder, and answer `{"type": "found", "universes": …, "cid": …}` on its local socket."""
    listener = Listener(lambda: network_settings.read(data), ports, simulator)

    def answer(peer: wire.Peer, message: wire.Message) -> None:
        listener.told([int(one) for one in message.get("universes", [])], bytes.fromhex(message.get("cid", "")))
        peer.post(listener.found())

    server = wire.Server(wire.socket_path(data, "listener"), wire.PLAIN, answer, lambda peer: None, Troubles())
    return Worker("Listener", listener.step, Troubles()).start(), server
