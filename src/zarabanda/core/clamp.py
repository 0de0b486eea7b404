"""Keeping arrays within 0…1. NumPy compares an array with an array more than twice as quickly as with one number."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


@lru_cache(maxsize=64)
def _filled(value: float, kind: str, size: int) -> Floats:
    array = np.full(size, value, kind)
    array.flags.writeable = False
    return array


def constant(value: float, like: Floats) -> Floats:
    """An array full of one value, as long as the last axis of `like` and of its kind, to be read only."""
    size = like.shape[-1]
    return _filled(value, like.dtype.char, 1 << size.bit_length())[:size]


def to_unit(array: Floats) -> Floats:
    """Clamp (..., n) to 0…1, in place."""
    np.minimum(array, constant(1.0, array), out=array)
    np.maximum(array, constant(0.0, array), out=array)
    return array


def as_constant(array: Floats) -> Floats:
    """A copy of (..., n), or its one value as a `constant` (n,), which other arrays share."""
    first = array.flat[0]
    return constant(float(first), array) if (array == first).all() else array.copy()
