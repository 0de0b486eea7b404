"""Random numbers without state: a hash of (seed, key, cycle), the same on every machine.

The mixing function is the finaliser of SplitMix64 (Steele, Lea, Flood, 2014), applied after each of the three words.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

_GOLDEN = np.uint64(0x9E3779B97F4A7C15)
_MIX_1 = np.uint64(0xBF58476D1CE4E5B9)
_MIX_2 = np.uint64(0x94D049BB133111EB)


def _mixed(words: NDArray[np.uint64]) -> NDArray[np.uint64]:
    words = words + _GOLDEN
    words ^= words >> np.uint64(30)
    words *= _MIX_1
    words ^= words >> np.uint64(27)
    words *= _MIX_2
    words ^= words >> np.uint64(31)
    return words


def _words(values: ArrayLike) -> NDArray[np.uint64]:
    return np.atleast_1d(np.asarray(values)).astype(np.int64).view(np.uint64)


def unit(seed: ArrayLike, key: ArrayLike, cycle: ArrayLike) -> NDArray[np.float64]:
    """Random numbers in [0, 1), evenly drawn, for broadcast integer arrays `seed`, `key` and `cycle`.

    >>> bool((unit(1, [0, 1, 2], 5) == unit(1, [0, 1, 2], 5)).all())
    True
    """
    return unit_of(mixed_key(seed, key), cycle)


def mixed_key(seed: ArrayLike, key: ArrayLike) -> NDArray[np.uint64]:
    """The part of the hash that does not change with the cycle, for `unit_of`."""
    return _mixed(_mixed(_words(seed)) ^ _words(key))


def unit_of(mixed: NDArray[np.uint64], cycle: ArrayLike) -> NDArray[np.float64]:
    """`unit` for keys that were mixed before. Their shapes broadcast."""
    numbers = _mixed(mixed ^ np.asarray(cycle).astype(np.int64).view(np.uint64))
    numbers >>= np.uint64(11)
    return numbers.astype(np.float64) * 2.0**-53
