"""The web process's end of the listener: asks it what it hears, and tells what others send on our universes."""

from __future__ import annotations

import contextlib
import time
from pathlib import Path

import msgspec

from zarabanda import wire
from zarabanda.formats.route_document import as_text, in_ranges
from zarabanda.listening.heard import Found, StreamHeard
from zarabanda.messages import E131, RoutePart
from zarabanda.workers import Troubles, Worker

from .link import EngineLink

_EVERY_S = 1.0
_ANSWER_S = 2.0
OTHERS = "Other source"
_decoder = msgspec.msgpack.Decoder(Found)


class Hearing:
    """Asks once a second, in a thread of its own. found: the newest answer."""

    def __init__(self, data: Path, link: EngineLink, troubles: Troubles) -> None:
        self._data, self._link, self._troubles = data, link, troubles
        self.found = Found()
        self._worker = Worker("Listener link", self._step, Troubles())

    def start(self) -> None:
        """Begin to ask."""
        self._worker.start()

    def stop(self) -> None:
        """Ask no more."""
        self._worker.end()

    def _step(self) -> None:
        self.ask()
        time.sleep(_EVERY_S)

    def ask(self) -> None:
        """Once. Without a listener nothing is found."""
        found, state = Found(), self._link.state
        with contextlib.suppress(OSError, msgspec.DecodeError):
            universes = sorted({number for route in self._link.routes if route.on for number in there(self._link, route)})
            with wire.connect(wire.socket_path(self._data, "listener"), _ANSWER_S) as connection:
                wire.send(connection, {"type": "found", "universes": universes, "cid": state.source if state else ""})
                found = wire.receive(connection, _decoder) or found
        self.found = found
        said = [one for one in rivals(self._link, found.streams) if one.holds]
        if said:
            self._troubles.tell(OTHERS, " ".join(one.text for one in said[:3]))
        else:
            self._troubles.clear(OTHERS)


class Rival(msgspec.Struct, frozen=True):
    """Another source on universes of ours. holds: whether receivers take it instead of us, or beside us."""

    text: str
    holds: bool


def there(link: EngineLink, route: RoutePart) -> list[int]:
    """The universes of the rig that a route carries, by their numbers there."""
    return [route.number_there(one) for one in link.rig.universes if route.carries(one)]


def rivals(link: EngineLink, streams: list[StreamHeard]) -> list[Rival]:
    """Others that send universes which we send as E1.31, in words."""
    state = link.state
    ours: dict[int, int] = {}
    stands_by = False
    told = {one.id: one.priority for one in state.routes} if state is not None else {}
    for route in link.routes:
        if route.on and route.protocol == E131:
            priority = told.get(route.id)
            priority = route.priority if priority is None else priority
            stands_by |= priority < route.priority
            for number in there(link, route):
                ours[number] = max(priority, ours.get(number, 0))
    found = []
    for one in streams:
        shared = [number for number in one.universes if number in ours]
        if not shared:
            continue
        lowest = min(ours[number] for number in shared)
        which = as_text(in_ranges(shared))
        who = f"Another source, “{one.name}” at {one.address}, with priority {one.priority}"
        plural = len(shared) > 1
        what = f"universe{'s' if plural else ''} {which}"
        if one.priority > lowest:
            found.append(Rival(f"{who} holds {what}: ours is {lowest}.", not stands_by))
        elif one.priority == lowest:
            found.append(Rival(f"{who} sends {what} as well: receivers mix both, or refuse one.", True))
        else:
            found.append(Rival(f"{who} stands by for {what}: ours is {lowest}.", False))
    return found
