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
        self._ahead = np.zeros((len(keys), 1))  # θ at the start of cycles 0, 1, 2 …
        self._behind = np.zeros((len(keys), 1))  # −θ at the start of cycles 0, −1, −2 …

    def _pace(self, cycle: Ints) -> Floats:
        drawn = randomness.unit(self._seed, self._keys[:, None], cycle)
        return self._low + (self._high - self._low) * drawn

    def _grown(self, starts: Floats, direction: int, reach: float) -> Floats:
        while float(starts[:, -1].min()) <= reach:
            first = starts.shape[1] - 1
            cycles = np.arange(first, first + _BLOCK)
            took = 1 / self._pace(cycles if direction > 0 else -1 - cycles)
            starts = np.concatenate([starts, starts[:, -1:] + np.cumsum(took, axis=1)], axis=1)
        return starts

    def __call__(self, theta: Floats) -> Floats:
        """Drifted θ, (k,), for θ of each key, (k,)."""
        result = np.empty(len(self._keys))
        for number, value in enumerate(np.broadcast_to(theta, len(self._keys))):
            result[number] = self._one(number, float(value))
        return result

    def _one(self, number: int, theta: float) -> float:
        if theta >= 0:
            self._ahead = starts = self._grown(self._ahead, 1, theta)
            cycle = int(np.searchsorted(starts[number], theta, side="right")) - 1
            into, length = theta - starts[number, cycle], starts[number, cycle + 1] - starts[number, cycle]
            return float(cycle + into / length)
        self._behind = starts = self._grown(self._behind, -1, -theta)
        cycle = int(np.searchsorted(starts[number], -theta, side="left")) - 1
        into, length = -theta - starts[number, cycle], starts[number, cycle + 1] - starts[number, cycle]
        return float(-cycle - into / length)
