"""What the API gives of universes and of the simulated nodes."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ..parts import Part


class UniverseFixture(BaseModel):
    """A fixture in a universe: its first slot there, and what each of its slots does, from there on."""

    number: int
    name: str
    mode: str
    address: int
    channels: list[str]


class UniverseView(BaseModel):
    """A universe of the show, with the fixtures in it. used: slots."""

    universe: int
    used: int
    fixtures: list[UniverseFixture]


class UniversesView(BaseModel):
    """All universes."""

    universes: list[UniverseView]


class NodeUniverse(BaseModel):
    """What a simulated node saw of a universe. sources: how many send it; synchronised: whether it waits to be shown with
    others."""

    universe: int
    packets: int
    per_second: float
    sequence_errors: int
    source: str
    priority: int | None
    sources: int
    terminated: bool
    lost: bool
    synchronised: bool
    gap_ms: float
    jitter_ms: float
    longest_gap_ms: float
    slots: list[int]


class NodeView(BaseModel):
    """A simulated node, what it counts, and how it misbehaves. calls_itself: instead of its name, empty: nothing else;
    faults: packets that could not be decoded, by what was wrong."""

    protocol: Literal["E1.31", "Art-Net"]
    name: str
    host: str
    port: int
    bad: int
    last_bad: str
    faults: dict[str, int]
    drop: float
    delay_ms: float
    vanished: bool
    calls_itself: str
    universes: list[NodeUniverse]


class NodesView(BaseModel):
    """All simulated nodes; none where they were not started."""

    nodes: list[NodeView]


class Misbehave(Part):
    """How a simulated node shall misbehave. drop: share of packets, 0…1."""

    protocol: Literal["E1.31", "Art-Net"]
    drop: Annotated[float, Field(ge=0, le=1)] = 0.0
    delay_ms: Annotated[float, Field(ge=0, le=5000)] = 0.0
    vanished: bool = False
    name: Annotated[str, Field(max_length=60)] = ""
