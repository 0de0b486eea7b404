"""Phase: from running time θ to where in its cycle an effect is (docs/computation.md, "Phase")."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

RUNS = ("forward", "backward", "back-and-forth")
_BLOCK = 256


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

    The exact running sum, for any θ: of every 256th cycle of all keys it is kept when it starts (a *mark*), and of the 256
    cycles that each key is in now, all of them. So it costs the same after hours as in the first minute. keys: (k,) integers.
    It only remembers what the hash gives anew: results depend on θ alone. For one thread.
    """

    def __init__(self, low: float, high: float, seed: int, keys: Ints) -> None:
        self._low, self._high, self._seed, self._keys = low, high, seed, keys
        self._ahead, self._behind = _Way(self._took, 1, len(keys)), _Way(self._took, -1, len(keys))

    def _took(self, rows: Ints, cycles: Ints) -> Floats:
        """How long cycles take, in θ: (rows, cycles) of some keys."""
        drawn = randomness.unit(self._seed, self._keys[rows][:, None], cycles)
        return 1 / (self._low + (self._high - self._low) * drawn)

    def __call__(self, theta: Floats) -> Floats:
        """Drifted θ, (k,), for θ of each key, (k,)."""
        theta = np.broadcast_to(theta, len(self._keys))
        if theta.min() >= 0:
            return self._ahead.passed(theta)
        return np.where(theta >= 0, self._ahead.passed(np.maximum(theta, 0)), -self._behind.passed(np.maximum(-theta, 0)))


_CYCLES = np.arange(_BLOCK)
_MOST_BLOCKS = 64


class _Way:
    """One way from θ = 0: `sign` 1 through the cycles 0, 1, 2 …, −1 through the cycles −1, −2, −3 …"""

    def __init__(self, took: Callable[[Ints, Ints], Floats], sign: int, keys: int) -> None:
        self._took, self._sign, self._rows = took, sign, np.arange(keys)
        self._marks = np.zeros((keys, 1))  # when the cycles 0, 256, 512 … start
        self._block = np.full(keys, -1)  # of 256 cycles, that each key was in when last asked
        self._starts = np.zeros((keys, _BLOCK + 1))  # when the cycles of that block start
        self._cycle = np.zeros(keys, np.int64)  # within that block

    def _number(self, cycle: Ints) -> Ints:
        return cycle if self._sign > 0 else -1 - cycle

    def _reach(self, theta: float) -> None:
        while (reached := float(self._marks[:, -1].min())) <= theta:
            done = self._marks.shape[1] - 1
            speed = reached / done if done else 1.0
            blocks = int(np.clip((theta - reached) / max(speed, 1e-9) + 1, 1, _MOST_BLOCKS)) if done else 1
            cycles = self._number(done * _BLOCK + np.arange(blocks * _BLOCK))
            sums = self._took(self._rows, cycles).reshape(len(self._rows), blocks, _BLOCK).sum(axis=2)
            sums[:, 0] += self._marks[:, -1]
            self._marks = np.concatenate([self._marks, np.cumsum(sums, axis=1)], axis=1)

    def _enter(self, rows: Ints, theta: Floats) -> None:
        """Find the block that some keys are in, and when its cycles start."""
        self._reach(float(theta.max()))
        for row, at in zip(rows, theta, strict=True):
            self._block[row] = np.searchsorted(self._marks[row], at, side="right") - 1
        cycles = self._number(self._block[rows][:, None] * _BLOCK + _CYCLES)
        begin = self._marks[rows, self._block[rows]][:, None]
        self._starts[rows] = np.concatenate([begin, begin + np.cumsum(self._took(rows, cycles), axis=1)], axis=1)
        self._starts[rows, -1] = self._marks[rows, self._block[rows] + 1]  # however the sum was rounded

    def passed(self, theta: Floats) -> Floats:
        """Cycles that have passed at θ ≥ 0, (k,). Most keys are in the cycle that they were in when last asked."""
        rows, cycle = self._rows, self._cycle
        begin, end = self._starts[rows, cycle], self._starts[rows, cycle + 1]
        (others,) = ((theta < begin) | (theta >= end)).nonzero()
        if len(others):
            outside = others[(theta[others] < self._starts[others, 0]) | (theta[others] >= self._starts[others, -1])]
            if len(outside):
                self._enter(outside, theta[outside])
            cycle[others] = np.minimum((self._starts[others, :-1] <= theta[others, None]).sum(axis=1) - 1, _BLOCK - 1)
            begin, end = self._starts[rows, cycle], self._starts[rows, cycle + 1]
        return np.asarray(self._block * _BLOCK + cycle + (theta - begin) / (end - begin))


class Drifts:
    """The drifts of an effect where it plays: kept over edits, so that none begins to count from θ = 0 again."""

    def __init__(self) -> None:
        self._known: dict[tuple[float, float, int, bytes], Drift] = {}

    def of(self, low: float, high: float, seed: int, keys: Ints) -> Drift:
        """The drift between two paces (1 = as given); the one that was asked for before, where there is one."""
        key = (low, high, seed, keys.tobytes())
        if key not in self._known:
            self._known[key] = Drift(low, high, seed, keys)
        return self._known[key]
