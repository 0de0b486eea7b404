"""Stops: a list of values with travel and hold, scaled to one cycle (docs/computation.md, "Stops")."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.clamp import to_unit

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_SNAP = 1e-9
"""A travel shorter than this part of a cycle is a jump."""
_FEW = 12
"""Up to so many stops, comparing with each is quicker than a search."""


def _smooth(x: Floats) -> Floats:
    eased = x * -2
    eased += 3
    eased *= x
    eased *= x
    return eased


EASES: dict[str, Callable[[Floats], Floats]] = {
    "linear": lambda x: x,
    "smooth": _smooth,
    "snap": np.ones_like,
}
EASE_INDEX = {name: number for number, name in enumerate(EASES)}


@dataclass(frozen=True, slots=True)
class StopTimes:
    """Times of stops, in cycles: when each stop's travel begins, and how far on the way a phase is: slope · p + shift.

    Arrays (stops,); ease: number of each stop's easing; eases: names of those that occur.
    A stop without travel is reached at once (slope 0, shift 1).
    """

    begin: Floats
    slope: Floats
    shift: Floats
    ease: Ints
    eases: tuple[str, ...]

    def in_precision(self, precision: DTypeLike) -> StopTimes:
        """The same, to be computed with in another precision."""
        return replace(self, slope=self.slope.astype(precision), shift=self.shift.astype(precision))


def stop_times(travels: Sequence[float], holds: Sequence[float], eases: Sequence[str]) -> StopTimes:
    """Scale travels and holds (both ≥ 0, not all 0, any unit) so that their sum is one cycle."""
    travel, hold = np.asarray(travels, float), np.asarray(holds, float)
    total = float(travel.sum() + hold.sum())
    begin = np.concatenate([[0.0], np.cumsum(travel + hold)[:-1]]) / total
    travel = travel / total
    travels_at_all = travel > _SNAP
    slope = np.where(travels_at_all, 1 / np.where(travels_at_all, travel, 1.0), 0.0)
    shift = np.where(travels_at_all, -begin * slope, 1.0)
    every = np.array([EASE_INDEX[ease] for ease in eases])
    return StopTimes(begin, slope, shift, every, tuple(sorted(set(eases))))


def stop_at(times: StopTimes, p: Floats) -> tuple[Ints, Floats]:
    """Which stop a head goes to or holds, and how far it is on the way there (0…1, eased) from the one before.

    p: (n,) phase in cycles, 0…1. At p = 0 the head leaves the last stop and travels to stop 0.
    """
    if len(times.begin) <= _FEW:
        passed = np.zeros(len(p), np.int8)
        for begin in times.begin[1:].tolist():
            passed += (p >= begin).view(np.int8)
        to = passed.astype(np.int64)
    else:
        to = np.clip(np.searchsorted(times.begin, p, side="right") - 1, 0, len(times.begin) - 1)
    way = times.slope.take(to, mode="clip")
    way *= p
    way += times.shift.take(to, mode="clip")
    return to, _eased(times, to, to_unit(way))


def _eased(times: StopTimes, to: Ints, way: Floats) -> Floats:
    if len(times.eases) == 1:
        return EASES[times.eases[0]](way)
    eases, eased = times.ease[to], way
    for name in times.eases:
        eased = np.where(eases == EASE_INDEX[name], EASES[name](way), eased)
    return eased
