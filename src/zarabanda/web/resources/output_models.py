"""What the API gives of universes and of the simulated node."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel


class UniverseView(BaseModel):
    """A universe of the show, with the fixtures in it."""

    universe: int
    used: int
    fixtures: list[dict[str, Any]]


class UniversesView(BaseModel):
    """All universes."""

    universes: list[UniverseView]


class NodeUniverse(BaseModel):
    """What the simulated node saw of a universe."""

    universe: int
    packets: int
    per_second: float
    sequence_errors: int
    source: str
    priority: int
    terminated: bool
    lost: bool
    gap_ms: float
    jitter_ms: float
    longest_gap_ms: float
    slots: list[int]


class NodeView(BaseModel):
    """The simulated node; running is false where it was not started."""

    running: bool
    port: int = 0
    bad: int = 0
    last_bad: str = ""
    universes: list[NodeUniverse] = []
