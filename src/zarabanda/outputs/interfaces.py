"""The network interfaces that this machine has."""

from __future__ import annotations

import socket
from dataclasses import dataclass

import psutil


@dataclass(frozen=True)
class Interface:
    """An interface with an IPv4 address. broadcast: the address that reaches all on its network, empty where there is none."""

    name: str
    address: str
    broadcast: str = ""
    up: bool = True

    @property
    def in_words(self) -> str:
        """With its address."""
        return f"{self.name} ({self.address})" + ("" if self.up else ", down")


def interfaces() -> list[Interface]:
    """All that have an IPv4 address, this machine's own (loopback) first."""
    states = psutil.net_if_stats()
    found = [
        Interface(name, one.address, one.broadcast or "", name not in states or states[name].isup)
        for name, addresses in psutil.net_if_addrs().items()
        for one in addresses
        if one.family == socket.AF_INET
    ]
    return sorted(found, key=lambda one: (not one.address.startswith("127."), one.name, one.address))
