"""Sockets that are listened on; on this machine alone, or also on an interface that the user chose."""

from __future__ import annotations

import contextlib
import socket
from collections.abc import Collection
from dataclasses import dataclass

from zarabanda.outputs.interfaces import Interface
from zarabanda.protocols import artnet, e131

HERE = "127.0.0.1"
_RECEIVE_BUFFER = 1 << 20


@dataclass(frozen=True)
class Ear:
    """Something to listen on. group: a multicast group to be joined over `source`; polls: where ArtPolls go from here."""

    protocol: str
    address: str
    port: int
    source: str = ""
    polls: tuple[str, int] | None = None

    @property
    def is_group(self) -> bool:
        """Whether it is joined, not only bound."""
        return bool(self.source)


def wanted(ports: dict[str, int], simulator: tuple[str, int], look_on: Interface | None, universes: Collection[int]) -> list[Ear]:
    """What to listen on. ports: of each protocol; simulator: the simulated Art-Net node; look_on: beside this machine."""
    ears = [Ear("E1.31", HERE, ports["E1.31"]), Ear("Art-Net", HERE, ports["Art-Net"], polls=simulator)]
    if look_on is None:
        return ears
    everywhere = (look_on.broadcast, artnet.PORT) if look_on.broadcast else None
    ears += [Ear("E1.31", look_on.address, e131.PORT), Ear("Art-Net", look_on.address, artnet.PORT, polls=everywhere)]
    if look_on.broadcast:
        ears.append(Ear("Art-Net", look_on.broadcast, artnet.PORT))
    for universe in (e131.DISCOVERY_UNIVERSE, *sorted(universes)):
        ears.append(Ear("E1.31", e131.multicast_group(universe), e131.PORT, look_on.address))
    return ears


def opened(ear: Ear) -> socket.socket:
    """Its socket; OSError says why it cannot be opened. One a group: the system lets a socket join few of them."""
    made = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
    try:
        made.setblocking(False)
        with contextlib.suppress(OSError):
            made.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, _RECEIVE_BUFFER)
        if ear.is_group:
            made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)  # several on one machine may listen to a group
        if ear.polls is not None and not ear.polls[0].startswith("127."):
            made.setsockopt(socket.SOL_SOCKET, socket.SO_BROADCAST, 1)
        made.bind((ear.address, ear.port))
        if ear.is_group:
            member = socket.inet_aton(ear.address) + socket.inet_aton(ear.source)
            made.setsockopt(socket.IPPROTO_IP, socket.IP_ADD_MEMBERSHIP, member)
    except OSError:
        made.close()
        raise
    return made
