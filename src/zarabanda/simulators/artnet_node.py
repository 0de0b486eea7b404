"""A simulated Art-Net node: it answers polls, decodes ArtDmx for its own Port-Addresses, and waits for ArtSync once it has
seen one. Started by the supervisor, or alone by `zarabanda artnet-node`."""

from __future__ import annotations

from collections.abc import Sequence

from zarabanda.protocols import artnet
from zarabanda.protocols.artnet import Dmx, Poll, PollReply, Sync

from .node import Counts, SimulatedNode

HOST = "127.0.0.3"
_PORTS_A_REPLY = 4


class ArtnetNode(SimulatedNode):
    """Receives Art-Net on port `port` of an address of this machine. outputs: the Port-Addresses that it puts out."""

    protocol, name, loss_s = "Art-Net", "Simulated Art-Net node", artnet.SYNC_LOSS_S

    def __init__(self, port: int = artnet.PORT, host: str = HOST, outputs: Sequence[int] = range(1, 17)) -> None:
        self._outputs = frozenset(outputs)
        self._synced = float("-inf")
        self.polls, self.others = 0, 0
        super().__init__(port, host, "--artnet-port")

    def understand(self, data: bytes, arrived: float) -> list[bytes]:
        packet = artnet.decode(data)
        if isinstance(packet, Dmx):
            self._dmx(packet, arrived)
        elif isinstance(packet, Sync):
            self._synced = arrived
            for state in self._universes.values():
                state.put_out()
        elif isinstance(packet, Poll):
            self.polls += 1
            return [artnet.reply_packet(one) for one in self.replies()]
        return []

    def _dmx(self, packet: Dmx, arrived: float) -> None:
        if packet.port_address not in self._outputs:
            self.others += 1
            return
        state = self._universes.setdefault(packet.port_address, Counts())
        right = packet.sequence == 0 or packet.sequence == artnet.next_sequence(state.sequence)
        state.count(arrived, sequence=packet.sequence, right=right)
        state.pending = packet.slots
        state.synchronised = arrived - self._synced <= artnet.SYNC_LOSS_S
        if not state.synchronised:
            state.put_out()

    def replies(self) -> list[PollReply]:
        """What it says of itself: four outputs a reply, all of one net and sub-net."""
        groups: list[list[int]] = []
        for number in sorted(self._outputs):
            if not groups or len(groups[-1]) == _PORTS_A_REPLY or groups[-1][0] >> 4 != number >> 4:
                groups.append([])
            groups[-1].append(number)
        return [
            PollReply(
                self._host, self.called[:17], self.called, f"#0001 [{self.polls:04d}] Receiving", tuple(group), bind + 1,
                self._host,
            )
            for bind, group in enumerate(groups or [[]])
        ]  # fmt: skip
