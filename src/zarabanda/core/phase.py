"""Phase: from running time θ to where in its cycle an effect is (docs/computation.md, "Phase")."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from . import randomness

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

RUNS = ("forward", "backward", "back-and-forth")
_BLOCK = 1024


def run_phase(theta: Floats, run: str) -> Floats:
    """θ′ in cycles for a way of running.

    >>> run_phase(np.array([0.25, 1.25, 2.25]), "back-and-forth").tolist()
    [0.25, 0.75, 0.25]
    """
    if run == "backward":
        return -theta
    if run == "back-and-forth":
        return 1 - np.abs(1 - theta % 2)
    return theta


class Drift:
    """Cycles that each go at their own pace, drawn evenly between `low` and `high` (1 = as given).

    Exact running sum, for any θ at once: the starts of all cycles of all keys are kept in a table that grows by blocks,
    and searched. keys: (k,) integers. The table only remembers what the hash gives anew: results depend on θ alone.
    """

    def __init__(self, low: float, high: float, seed: int, keys: Ints) -> None:
        self._low, self._high, self._seed = low, high, seed
        self._keys = keys
        self._rows = np.arange(len(keys))
        self._ahead = _Starts(np.zeros((len(keys), 1)))  # θ at the start of cycles 0, 1, 2 …
        self._behind = _Starts(np.zeros((len(keys), 1)))  # −θ at the start of cycles 0, −1, −2 …

    def _pace(self, cycle: Ints) -> Floats:
        drawn = randomness.unit(self._seed, self._keys[:, None], cycle)
        return self._low + (self._high - self._low) * drawn

    def _grow(self, starts: _Starts, direction: int, reach: float) -> None:
        while starts.reach <= reach:
            first = starts.at.shape[1] - 1
            cycles = np.arange(first, first + _BLOCK)
            took = 1 / self._pace(cycles if direction > 0 else -1 - cycles)
            starts.at = np.concatenate([starts.at, starts.at[:, -1:] + np.cumsum(took, axis=1)], axis=1)
            starts.reach = float(starts.at[:, -1].min())

    def __call__(self, theta: Floats) -> Floats:
        """Drifted θ, (k,), for θ of each key, (k,)."""
        theta = np.broadcast_to(theta, len(self._keys))
        if theta.min() >= 0:
            return self._passed(self._ahead, 1, theta)
        return np.where(theta >= 0, self._passed(self._ahead, 1, np.abs(theta)), -self._passed(self._behind, -1, np.abs(theta)))

    def _passed(self, starts: _Starts, direction: int, theta: Floats) -> Floats:
        """Cycles that have passed at θ ≥ 0. Most are in the cycle that they were in when last asked; the others are searched."""
        self._grow(starts, direction, float(theta.max()))
        rows, cycle = self._rows, starts.cycle
        begin, end = starts.at[rows, cycle], starts.at[rows, cycle + 1]
        (others,) = ((theta < begin) | (theta >= end)).nonzero()
        for row in others:
            cycle[row] = int(np.searchsorted(starts.at[row], theta[row], side="right")) - 1
        if len(others):
            begin, end = starts.at[rows, cycle], starts.at[rows, cycle + 1]
        return np.asarray(cycle + (theta - begin) / (end - begin))


class _Starts:
    """When cycles start, (k, cycles): `at`; how far all keys reach; and in which `cycle` each key was when last asked."""

    def __init__(self, at: Floats) -> None:
        self.at, self.reach = at, 0.0
        self.cycle = np.zeros(len(at), np.int64)
