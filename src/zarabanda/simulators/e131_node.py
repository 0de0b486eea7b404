"""A simulated E1.31 node: of several sources the one with the highest priority holds a universe, and it waits for
synchronisation where packets ask for it. Started by the supervisor, or alone by `zarabanda node`."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from zarabanda.protocols import e131
from zarabanda.protocols.e131 import DataPacket, SyncPacket

from .node import Counts, SimulatedNode

HOST = "127.0.0.2"


@dataclass
class _Heard:
    """A source of a universe."""

    priority: int
    arrived: float


class E131Node(SimulatedNode):
    """Receives E1.31 on port `port` of an address of this machine."""

    protocol, name, loss_s = "E1.31", "Simulated E1.31 node", e131.LOSS_S

    def __init__(self, port: int = e131.PORT, host: str = HOST) -> None:
        self._heard: dict[int, dict[bytes, _Heard]] = {}
        self._holds: dict[int, bytes] = {}
        self._waiting: dict[int, set[int]] = {}
        self._synced: dict[int, float] = {}
        self.on_packet: Callable[[DataPacket, float], None] = lambda packet, arrived: None
        super().__init__(port, host, "--node-port")

    def understand(self, data: bytes, arrived: float) -> list[bytes]:
        packet = e131.decode(data)
        if isinstance(packet, DataPacket):
            self.on_packet(packet, arrived)
            self._data(packet, arrived)
        elif isinstance(packet, SyncPacket):
            self._synced[packet.sync] = arrived
            for universe in self._waiting.pop(packet.sync, ()):
                self._universes[universe].put_out()
        return []

    def _data(self, packet: DataPacket, arrived: float) -> None:
        heard = self._heard.setdefault(packet.universe, {})
        if packet.terminated:
            heard.pop(packet.cid, None)
        else:
            heard[packet.cid] = _Heard(packet.priority, arrived)
        for cid in [cid for cid, one in heard.items() if arrived - one.arrived > self.loss_s]:
            del heard[cid]
        state = self._universes.setdefault(packet.universe, Counts())
        state.sources = len(heard)
        before = self._holds.get(packet.universe)
        holds = self._holder(packet, heard, before)
        if packet.cid != holds and heard:
            return
        if holds != before:
            self._holds[packet.universe] = holds
            state.terminated, state.sequence = False, (packet.sequence - 1) & 255  # another source counts for itself
        state.count(arrived, sequence=packet.sequence, right=(packet.sequence - state.sequence) & 255 == 1)
        state.source, state.priority, state.terminated = packet.source, packet.priority, packet.terminated
        if not packet.terminated:
            self._value(state, packet, arrived)

    def _holder(self, packet: DataPacket, heard: dict[bytes, _Heard], before: bytes | None) -> bytes:
        """Who holds the universe: the highest priority; of equals the one that had it (E1.31, 6.2.3)."""
        if not heard:
            return packet.cid
        highest = max(one.priority for one in heard.values())
        able = [cid for cid, one in heard.items() if one.priority == highest]
        return before if before in able else able[0]

    def _value(self, state: Counts, packet: DataPacket, arrived: float) -> None:
        """Put values out, or keep them for the synchronisation; without one for 2.5 s they are not waited for (11.1.2)."""
        state.pending = packet.slots
        synced = self._synced.get(packet.sync, float("-inf"))
        state.synchronised = packet.sync > 0 and arrived - synced <= self.loss_s
        if state.synchronised:
            self._waiting.setdefault(packet.sync, set()).add(packet.universe)
        else:
            state.put_out()
