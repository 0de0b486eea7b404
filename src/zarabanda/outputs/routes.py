"""All routes of a show at work: opened and mended off the frame loop, which only sends."""

from __future__ import annotations

import threading
import time
from collections import deque
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from zarabanda.errors import ZarabandaError
from zarabanda.messages import RoutePart, RouteState
from zarabanda.network_settings import NetworkSettings
from zarabanda.protocols import artnet, e131
from zarabanda.workers import Troubles, Worker, in_words

from .artnet import ArtnetSender
from .base import Output
from .interfaces import Interface, interfaces
from .sacn import SacnSender
from .sender import RouteSender, Source, why
from .sockets import Address, Open, UdpWire, Way, Wire

_LOOK_EVERY_S = 0.5
_ALL = "255.255.255.255"
PROTOCOLS: dict[str, tuple[type[RouteSender], int]] = {
    "E1.31": (SacnSender, e131.PORT),
    "Art-Net": (ArtnetSender, artnet.PORT),
}
"""By the name of each: what sends it, and its port."""


@dataclass(frozen=True)
class Surroundings:
    """What routes need of the machine, passed in. simulators: address of the simulated node of each protocol; settings: what
    the user allows; tell: an event, in words; sequences: of a route, see `RouteSender`."""

    source: Source
    simulators: dict[str, Address]
    settings: Callable[[], NetworkSettings]
    sequences: Callable[[int], NDArray[np.uint8]] = lambda route: np.zeros(e131.MOST_UNIVERSES, np.uint8)
    tell: Callable[[str], None] = lambda text: None
    interfaces: Callable[[], list[Interface]] = interfaces
    open: Open = UdpWire
    clock: Callable[[], float] = time.monotonic


class _CannotSend(ZarabandaError):
    """A route that cannot be opened now. state: what it is instead of sending."""

    def __init__(self, state: str, text: str) -> None:
        super().__init__(text)
        self.state = state


@dataclass
class _Route:
    """A route, and what it does. way: how it was opened, None where it could not be; told: whether its failure was told."""

    part: RoutePart
    sender: RouteSender | None = None
    way: Way | None = None
    state: str = "off"
    text: str = ""
    told: bool = False


@dataclass
class _Announced:
    """What others were told of our universes, over one interface."""

    wire: Wire
    at: float = field(default=float("-inf"))


class Routes(Output):
    """Sends by all routes that are on. `set` is for other threads than the loop's."""

    def __init__(self, around: Surroundings, troubles: Troubles | None = None) -> None:
        self._around = around
        self._routes: dict[int, _Route] = {}
        self._sending: tuple[RouteSender, ...] = ()
        self._fresh = deque[tuple[RouteSender, ...]]()
        self._retired = deque[RouteSender]()
        self._announced: dict[str, _Announced] = {}
        self._turn = threading.Lock()
        self._worker = Worker("Routes", self._look, troubles or Troubles())

    def start(self) -> None:
        """Look after them, in a thread of its own."""
        self._worker.start()

    # the loop's thread

    def send(self, universes: Sequence[int], data: NDArray[np.uint8], now: float) -> None:
        retired = set[RouteSender]()
        while self._fresh:
            retired |= set(self._sending)
            self._sending = self._fresh.popleft()
        for sender in self._sending:
            try:
                sender.send(universes, data, now)
            except Exception as error:  # one that fails must not keep the others
                sender.fails(in_words(error), now)
        self._retired.extend(retired.difference(self._sending))

    def close(self) -> None:
        self._worker.end()
        for sender in self._sending:
            sender.close(self._around.clock())
        self._sending = ()

    def report(self) -> list[RouteState]:
        now = self._around.clock()
        found = []
        for one in list(self._routes.values()):
            if one.sender is not None and one.state == "sending":
                found.append(one.sender.state(now))
            else:
                found.append(RouteState(one.part.id, one.part.protocol, one.part.to, one.state, one.text))
        return found

    # other threads

    def set(self, parts: Sequence[RoutePart]) -> None:
        """Exactly these routes from the next frame on. What stays the same goes on as it is."""
        with self._turn:
            routes = {}
            for part in parts:
                known = self._routes.get(part.id)
                stays = known is not None and known.part == part and known.state != "not allowed"
                routes[part.id] = known if known is not None and stays else _Route(part)
            self._routes = routes
            for one in routes.values():
                if one.sender is None:
                    self._start(one)
            self._hand_over()

    def _hand_over(self) -> None:
        self._fresh.append(tuple(one.sender for one in self._routes.values() if one.sender is not None))

    def _start(self, one: _Route) -> None:
        """Open a route, or say why it cannot be."""
        if not one.part.on:
            one.state, one.text = "off", ""
            return
        try:
            way = self._way(one.part)
            wire = self._around.open(way)
        except _CannotSend as error:
            one.state, one.text = error.state, error.message
        except OSError as error:
            one.state, one.text = "failed", why(error, (way.source or one.part.to, one.part.port))
        else:
            sends, port = PROTOCOLS[one.part.protocol]
            sequences = self._around.sequences(one.part.id)
            one.sender = sends(one.part, self._around.source, wire, _addresses(one.part, way, port), sequences)
            one.way, one.state, one.text = way, "sending", ""

    def _way(self, part: RoutePart) -> Way:
        if part.to == "simulator":
            return Way("unicast", self._around.simulators[part.protocol])
        if not self._around.settings().allows(part.destination):
            raise _CannotSend(
                "not allowed", f"Nothing is sent to {part.destination} before you have agreed to it on this machine: switch the "
                "route off, and on again."
            )  # fmt: skip
        interface = self._interface(part.over) if part.over else None
        source = interface.address if interface else ""
        port = part.port or PROTOCOLS[part.protocol][1]
        if part.kind == "multicast":
            return Way("multicast", None, source)
        if part.kind == "broadcast":
            address = interface.broadcast if interface else _ALL
            if not address:
                raise _CannotSend("failed", f"{part.over} knows no broadcast. Choose another interface, or send to an address.")
            return Way("broadcast", (address, port), source)
        return Way("unicast", (part.to, port), source)

    def _interface(self, name: str) -> Interface:
        there = self._around.interfaces()
        found = next((one for one in there if one.name == name and one.up), None)
        if found is None:
            names = ", ".join(one.name for one in there if one.up) or "none"
            raise _CannotSend("failed", f"The interface {name} is not there, or down. Plug it in, or choose another: {names}.")
        return found

    # looking after them

    def _look(self) -> None:
        time.sleep(_LOOK_EVERY_S)
        self.look()

    def look(self) -> None:
        """Mend what can be, end what was retired, tell what has failed or is back, and announce what goes by multicast."""
        while self._retired:
            self._end(self._retired.popleft())
        with self._turn:  # not while another thread gives other routes
            changed = [self._mend(one) for one in self._routes.values()]
            if any(changed):
                self._hand_over()
            for one in self._routes.values():
                self._tell(one)
            self._announce()

    def _end(self, sender: RouteSender) -> None:
        """End the streams that no other route to the same place goes on with."""
        others = [one for one in self._sending if _place(one.route) == _place(sender.route)]
        sender.close(self._around.clock(), going_on={number for one in others for number in one.numbers})

    def _mend(self, one: _Route) -> bool:
        """Open a route anew whose interface went away or came back; whether it changed."""
        before = one.sender
        if before is not None:
            try:
                if self._way(one.part) == one.way:
                    return False
            except _CannotSend as error:
                one.sender, one.state, one.text = None, error.state, error.message
                return True
        one.sender = None
        self._start(one)
        return one.sender is not before

    def _tell(self, one: _Route) -> None:
        failed = one.sender.failed(self._around.clock()) if one.sender is not None else one.state == "failed"
        if failed and not one.told:
            self._around.tell(f"The route to {one.part.to} failed: {one.text or (one.sender.last_error if one.sender else '')}")
        elif one.told and not failed and one.sender is not None:
            self._around.tell(f"The route to {one.part.to} is back.")
        one.told = failed or (one.told and one.sender is None)

    def _announce(self) -> None:
        """Tell receivers of multicast which universes we send, every 10 s (E1.31, 4.3)."""
        by_source: dict[str, set[int]] = {}
        for one in self._routes.values():
            if one.sender is not None and one.way is not None and one.part.protocol == "E1.31" and one.way.kind == "multicast":
                by_source.setdefault(one.way.source, set()).update(one.sender.numbers)
        for gone in self._announced.keys() - by_source.keys():
            self._announced.pop(gone).wire.close()
        now, source = self._around.clock(), self._around.source
        for address, universes in by_source.items():
            if address not in self._announced:
                self._announced[address] = _Announced(self._around.open(Way("multicast", None, address)))
            announced = self._announced[address]
            if now - announced.at >= e131.DISCOVERY_EVERY_S:
                announced.at = now
                for packet in e131.discovery_packets(source.cid, source.name, sorted(universes)):
                    announced.wire.send(packet, (e131.multicast_group(e131.DISCOVERY_UNIVERSE), e131.PORT))


def _addresses(part: RoutePart, way: Way, port: int) -> Callable[[int], Address]:
    """Where each universe goes, by its number there."""
    if way.to is not None:
        to = way.to
        return lambda number: to
    return lambda number: (e131.multicast_group(number), part.port or port)


def _place(part: RoutePart) -> tuple[str, str, int, str]:
    """Where a route goes: another one to the same place can go on with its streams."""
    return part.protocol, part.to, part.port, part.over
