"""Smooth value noise in the plane that changes with time: seeded, the same everywhere and at every jump."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness

Singles = NDArray[np.floating[Any]]

_ROW, _LAYER = 65_537, 1_000_003
"""A point of the lattice is numbered x + _ROW · y, in layer z."""
PERIOD = 256
"""Steps of the lattice after which it repeats, across and down: a picture seen from afar has no more of it than that."""


def smooth(share: Singles) -> Singles:
    """3x² − 2x³."""
    return share * share * (3 - 2 * share)


def noise(x: Singles, y: Singles, z: float, seed: int) -> Singles:
    """(P,) 0…1 at places (P,) and a time z: random at whole numbers, smooth between them (3x² − 2x³ in all three); it repeats
    after `PERIOD` across and down."""
    if not len(x):
        return np.zeros(0, np.float32)
    column, row = np.floor(x), np.floor(y)
    across, down = smooth(x - column), smooth(y - row)
    column, row = _near(column), _near(row)
    first_x, first_y = int(column.min()), int(row.min())
    wide, tall = int(column.max()) - first_x + 2, int(row.max()) - first_y + 2
    lattice = _lattice(first_x, first_y, wide, tall, z, seed)
    to_the_right: Singles = np.append(lattice[1:] - lattice[:-1], np.float32(0)).astype(np.float32)
    at = ((row - np.float32(first_y)) * np.float32(wide) + (column - np.float32(first_x))).astype(np.intp)
    upper = lattice[at] + across * to_the_right[at]
    at += wide
    lower = lattice[at] + across * to_the_right[at]
    found: Singles = upper + down * (lower - upper)
    return found


def _near(steps: Singles) -> Singles:
    """Whole numbers (P,), those that lie farther apart than the lattice repeats brought into its first period."""
    return steps if np.ptp(steps) < PERIOD else np.mod(steps, np.float32(PERIOD))


def _lattice(first_x: int, first_y: int, wide: int, tall: int, z: float, seed: int) -> Singles:
    """Random values of the lattice at a time, row after row."""
    layer = int(np.floor(z))
    before, after = _drawn(first_x % PERIOD, first_y % PERIOD, wide, tall, layer, seed)
    share = z - layer
    now: Singles = (before + share * share * (3 - 2 * share) * (after - before)).astype(np.float32)
    return now


@lru_cache(maxsize=32)
def _drawn(first_x: int, first_y: int, wide: int, tall: int, layer: int, seed: int) -> NDArray[np.float64]:
    """(2, wide · tall) random values of the lattice at a whole time, and at the next."""
    x, y = np.arange(first_x, first_x + wide) % PERIOD, np.arange(first_y, first_y + tall) % PERIOD
    key = (x + _ROW * y[:, None]).reshape(-1)
    return randomness.unit(seed, key, np.array([[layer % _LAYER], [(layer + 1) % _LAYER]]))


def octaves(x: Singles, y: Singles, z: float, coarseness: float, seed: int) -> Singles:
    """Two layers of noise, the finer one by as much as it is not coarse (1: the coarse one alone). (P,) 0…1."""
    coarse = noise(x, y, z, seed)
    if coarseness >= 1:
        return coarse
    fine = noise(2.7 * x + 19.3, 2.7 * y + 7.1, 1.7 * z, seed + 1)
    share = (1 - coarseness) / 2
    return coarse + share * (fine - coarse)


def path(theta: float, seed: int) -> tuple[float, float]:
    """A place that wanders in −1…1 each way, smoothly: for drift."""
    cycle = int(np.floor(theta))
    share = theta - cycle
    before, after = randomness.unit(seed, np.array([3, 4]), np.array([[cycle], [cycle + 1]]))
    x, y = (2 * (before + share * share * (3 - 2 * share) * (after - before)) - 1).tolist()
    return x, y
