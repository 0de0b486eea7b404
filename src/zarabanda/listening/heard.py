"""What packets that came in say: nodes that answered, sources that told of themselves, others that send universes."""

from __future__ import annotations

from dataclasses import dataclass, field

import msgspec

from zarabanda.protocols import artnet, e131
from zarabanda.protocols.artnet import PollReply
from zarabanda.protocols.e131 import DataPacket, DiscoveryPacket
from zarabanda.protocols.faults import FaultCounts

MOST_NODES, MOST_SOURCES, MOST_STREAMS = 500, 500, 20_000
SILENT_S = 3 * artnet.POLL_EVERY_S + 1
"""A node that has left three polls unanswered is silent."""
FORGOTTEN_S = 300.0
SOURCE_SILENT_S = 2.5 * e131.DISCOVERY_EVERY_S


class NodeHeard(msgspec.Struct):
    """An Art-Net node, by its address. outputs: Port-Addresses; ago_s: since it last answered."""

    address: str
    name: str
    long_name: str
    report: str
    outputs: list[int]
    ago_s: float
    silent: bool


class SourceHeard(msgspec.Struct):
    """A source of E1.31 that told of its universes."""

    cid: str
    name: str
    address: str
    universes: list[int]
    ago_s: float
    silent: bool


class StreamHeard(msgspec.Struct):
    """Somebody who sends universes: by source, name and priority."""

    cid: str
    name: str
    address: str
    priority: int
    universes: list[int]


class Found(msgspec.Struct):
    """All that is heard now. faults: packets that could not be read, by what is wrong; skipped: those there was no time for;
    troubles: why something is not listened to."""

    listening: bool = False
    ports: list[str] = []
    nodes: list[NodeHeard] = []
    sources: list[SourceHeard] = []
    streams: list[StreamHeard] = []
    faults: dict[str, int] = {}
    skipped: int = 0
    troubles: list[str] = []


@dataclass
class _Node:
    replies: dict[int, PollReply] = field(default_factory=dict)
    at: float = 0.0


@dataclass
class _Source:
    name: str
    address: str
    pages: dict[int, tuple[int, ...]] = field(default_factory=dict)
    at: float = 0.0


@dataclass
class _Stream:
    packet: DataPacket
    address: str
    at: float


class Heard:
    """Takes packets in, and forgets what is silent. Bounded in everything that others can make it remember."""

    def __init__(self) -> None:
        self._nodes: dict[str, _Node] = {}
        self._sources: dict[bytes, _Source] = {}
        self._streams: dict[tuple[bytes, int], _Stream] = {}
        self._faults = FaultCounts()
        self.skipped = 0

    def take(self, protocol: str, data: bytes, sender: str, now: float, own: bytes = b"") -> None:
        """One packet of a protocol from an address. own: our CID, whose packets are not others'."""
        try:
            packet = e131.decode(data) if protocol == "E1.31" else artnet.decode(data)
        except ValueError as error:
            self._faults.count(f"{protocol}: {error}")
            return
        match packet:
            case PollReply():
                self._reply(packet, sender, now)
            case DiscoveryPacket(cid=cid) if cid != own:
                self._discovered(packet, sender, now)
            case DataPacket(cid=cid) if cid != own:
                self._stream(packet, sender, now)

    def _reply(self, reply: PollReply, sender: str, now: float) -> None:
        """By the address that it came from: what stands in a reply may be anything."""
        node = self._nodes.get(sender)
        if node is None:
            if len(self._nodes) >= MOST_NODES:
                self.skipped += 1
                return
            node = self._nodes[sender] = _Node()
        node.replies[reply.bind] = reply
        node.at = now

    def _discovered(self, packet: DiscoveryPacket, sender: str, now: float) -> None:
        source = self._sources.get(packet.cid)
        if source is None:
            if len(self._sources) >= MOST_SOURCES:
                self.skipped += 1
                return
            source = self._sources[packet.cid] = _Source(packet.source, sender)
        source.name, source.address, source.at = packet.source, sender, now
        source.pages[packet.page] = packet.universes
        source.pages = {page: universes for page, universes in source.pages.items() if page <= packet.last}

    def _stream(self, packet: DataPacket, sender: str, now: float) -> None:
        place = packet.cid, packet.universe
        if packet.terminated:
            self._streams.pop(place, None)
        elif place in self._streams or len(self._streams) < MOST_STREAMS:
            self._streams[place] = _Stream(packet, sender, now)
        else:
            self.skipped += 1

    def found(self, now: float) -> Found:
        """What is there now."""
        self._nodes = {key: one for key, one in self._nodes.items() if now - one.at <= FORGOTTEN_S}
        self._sources = {key: one for key, one in self._sources.items() if now - one.at <= FORGOTTEN_S}
        self._streams = {key: one for key, one in self._streams.items() if now - one.at <= e131.LOSS_S}
        return Found(
            nodes=[_node(address, one, now) for address, one in sorted(self._nodes.items())],
            sources=[
                SourceHeard(
                    cid.hex(), one.name, one.address, sorted({number for page in one.pages.values() for number in page}),
                    now - one.at, now - one.at > SOURCE_SILENT_S,
                )
                for cid, one in self._sources.items()
            ],
            streams=self._by_source(), faults=dict(self._faults.by_kind), skipped=self.skipped,
        )  # fmt: skip

    def _by_source(self) -> list[StreamHeard]:
        found: dict[tuple[bytes, int], StreamHeard] = {}
        for (cid, universe), one in sorted(self._streams.items()):
            key = cid, one.packet.priority
            if key not in found:
                found[key] = StreamHeard(cid.hex(), one.packet.source, one.address, one.packet.priority, [])
            found[key].universes.append(universe)
        return list(found.values())


def _node(address: str, node: _Node, now: float) -> NodeHeard:
    replies = [node.replies[bind] for bind in sorted(node.replies)]
    first = replies[0]
    outputs = sorted({number for one in replies for number in one.outputs})
    name = first.short_name or first.long_name or address
    return NodeHeard(address, name, first.long_name, first.report, outputs, now - node.at, now - node.at > SILENT_S)
