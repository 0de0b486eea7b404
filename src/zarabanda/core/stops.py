"""Stops: a list of values with travel and hold, scaled to one cycle (docs/computation.md, "Stops")."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_SNAP = 1e-9
"""A travel shorter than this part of a cycle is a jump."""
EASES: dict[str, Callable[[Floats], Floats]] = {
    "linear": lambda x: x,
    "smooth": lambda x: x * x * (3 - 2 * x),
    "snap": np.ones_like,
}
EASE_INDEX = {name: number for number, name in enumerate(EASES)}


@dataclass(frozen=True, slots=True)
class StopTimes:
    """Times of stops, in cycles: when each stop's travel begins, how long it takes, and how it eases. Arrays (stops,)."""

    begin: Floats
    travel: Floats
    ease: Ints


def stop_times(travels: Sequence[float], holds: Sequence[float], eases: Sequence[str]) -> StopTimes:
    """Scale travels and holds (both ≥ 0, not all 0, any unit) so that their sum is one cycle."""
    travel, hold = np.asarray(travels, float), np.asarray(holds, float)
    total = float(travel.sum() + hold.sum())
    begin = np.concatenate([[0.0], np.cumsum(travel + hold)[:-1]]) / total
    return StopTimes(begin, travel / total, np.array([EASE_INDEX[ease] for ease in eases]))


def stop_at(times: StopTimes, p: Floats) -> tuple[Ints, Ints, Floats]:
    """Which stop a head has left, which it goes to or holds, and how far it is on the way (0…1, eased).

    p: (n,) phase in cycles, 0…1. At p = 0 the head leaves the last stop and travels to stop 0.
    """
    to = np.searchsorted(times.begin, p, side="right") - 1
    np.clip(to, 0, len(times.begin) - 1, out=to)
    travel = times.travel[to]
    way = np.where(travel > _SNAP, np.minimum((p - times.begin[to]) / np.maximum(travel, _SNAP), 1.0), 1.0)
    eases = times.ease[to]
    eased = way
    for name, number in EASE_INDEX.items():
        if name != "linear" and (times.ease == number).any():
            eased = np.where(eases == number, EASES[name](way), eased)
    return (to - 1) % len(times.begin), to, eased
