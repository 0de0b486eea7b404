"""What routes need of the machine, as doubles: nothing is sent anywhere."""

from __future__ import annotations

import errno

import msgspec
import numpy as np

from zarabanda.messages import RoutePart
from zarabanda.network_settings import NetworkSettings
from zarabanda.outputs.interfaces import Interface
from zarabanda.outputs.routes import Routes, Surroundings
from zarabanda.outputs.sender import Source
from zarabanda.outputs.sockets import MemoryWire
from zarabanda.protocols import artnet, e131

CID = bytes(range(16))
SIMULATORS = {"E1.31": ("127.0.0.2", 5568), "Art-Net": ("127.0.0.3", 6454)}
ETH0 = Interface("eth0", "192.0.2.2", "192.0.2.255")


def route(number=1, to="simulator", protocol="E1.31", on=True, **more):
    return RoutePart(id=number, ranges=more.pop("ranges", ()), protocol=protocol, to=to, on=on, **more)


class Machine:
    """A machine with one interface, a clock that is moved by hand, and wires that keep what is sent."""

    def __init__(self, allowed=(), priority=None):
        self.now, self.there, self.wires, self.told, self.cannot_open = 0.0, [ETH0], {}, [], None
        self.settings = NetworkSettings(allowed=list(allowed))
        self.sequences = {}
        self.routes = Routes(
            Surroundings(
                Source("Zarabanda", CID, priority), SIMULATORS, settings=lambda: self.settings, open=self.open,
                interfaces=lambda: self.there, clock=lambda: self.now, tell=self.told.append,
                sequences=lambda one: self.sequences.setdefault(one, np.zeros(64_000, np.uint8)),
            )
        )  # fmt: skip

    def open(self, way):
        if self.cannot_open is not None:
            raise OSError(self.cannot_open, "no")
        self.wires.setdefault(way, []).append(MemoryWire())
        return self.wires[way][-1]

    def allow(self, *places):
        self.settings = msgspec.structs.replace(self.settings, allowed=[*self.settings.allowed, *places])

    def frames(self, count, universes=(1, 2), value=None, rate=44.0):
        """Send frames; value of each: a function of its number, else all the same."""
        data = np.zeros((len(universes), 512), np.uint8)
        for n in range(count):
            if value is not None:
                data[:] = value(n)
            self.routes.send(universes, data, self.now)
            self.now += 1 / rate

    @property
    def wire(self):
        """The newest of all wires."""
        return list(self.wires.values())[-1][-1]

    @property
    def sent(self):
        """All that was sent, decoded: where to, and what."""
        found = []
        for opened in self.wires.values():
            for wire in opened:
                for address, packet in wire.sent:
                    decode = artnet.decode if packet.startswith(b"Art-Net") else e131.decode
                    found.append((address, decode(packet)))
        return found

    def fail(self, wire, number=errno.ENETUNREACH):
        wire.fault = OSError(number, "no way")
