"""What a user allows this machine to do on networks: kept with the data folder, never with the show, and never undone."""

from __future__ import annotations

import os
from collections.abc import Callable
from ipaddress import IPv4Address
from pathlib import Path

import msgspec

from zarabanda.errors import InUse
from zarabanda.kept_file import put_aside

FILE = "network.json"
HERE_ONLY = "ZARABANDA_HERE_ONLY"
"""In the environment: nothing leaves this machine, whatever was agreed to. Set by `--here-only`, and by all our own tools."""


class NetworkSettings(msgspec.Struct, frozen=True):
    """allowed: where packets may go, beside this machine itself; listen: whether others are listened to; look_on: the
    interface on which nodes are looked for, empty: on this machine alone."""

    allowed: list[str] = []
    listen: bool = True
    look_on: str = ""

    def allows(self, destination: str) -> bool:
        """Whether packets may go there. This machine itself is always allowed."""
        return is_here(destination) or destination in self.allowed


def is_here(address: str) -> bool:
    """Whether an address is one of this machine alone (127.0.0.0/8).

    >>> is_here("127.0.0.2"), is_here("192.0.2.1"), is_here("multicast")
    (True, False, False)
    """
    try:
        return IPv4Address(address).is_loopback
    except ValueError:
        return False


def here_only() -> bool:
    """Whether nothing may leave this machine, whatever was agreed to."""
    return bool(os.environ.get(HERE_ONLY))


def read(data: Path, told: Callable[[str], None] = lambda text: None) -> NetworkSettings:
    """Of a data folder. A file that cannot be read is put aside: then nothing is allowed, and `told` says so."""
    kept = _kept(data / FILE, told)
    return msgspec.structs.replace(kept, allowed=[], look_on="") if here_only() else kept


def _kept(path: Path, told: Callable[[str], None]) -> NetworkSettings:
    try:
        return msgspec.json.decode(path.read_bytes(), type=NetworkSettings)
    except FileNotFoundError:
        return NetworkSettings()
    except (OSError, msgspec.DecodeError, UnicodeError) as error:
        try:
            there = put_aside(path)
            told(f"{path} cannot be used ({error}). It was put aside as {there}; switch routes on again to allow them.")
        except OSError:
            told(f"{path} cannot be used ({error}): nothing but this machine is sent to.")
        return NetworkSettings()


def write(data: Path, settings: NetworkSettings) -> None:
    """Keep them. Raises OSError where they cannot be, ZarabandaError where nothing may leave this machine."""
    if here_only() and (settings.allowed or settings.look_on):
        raise InUse("Zarabanda was started with --here-only: nothing leaves this machine. Start it without, to send elsewhere.")
    fresh = data / f"{FILE}.new"
    fresh.write_bytes(msgspec.json.format(msgspec.json.encode(settings)))
    os.replace(fresh, data / FILE)


def allow(data: Path, destination: str) -> None:
    """Packets may go there from now on."""
    now = read(data)
    if not now.allows(destination):
        write(data, msgspec.structs.replace(now, allowed=[*now.allowed, destination]))
