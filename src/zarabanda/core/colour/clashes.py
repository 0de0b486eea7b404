"""Pairs of colours that are hard on the eye, by distances in OKLCH (docs/computation.md, "Clashes of colours")."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import rgb_to_oklch

Floats = NDArray[np.float64]

HARD = 0.6
"""From this discord on a pair is told."""
_VIVID = 0.12
_LIGHTNESS = 0.3
_OPPOSITE = (180.0, 30.0)
_LEANING = (45.0, 35.0)
"""Differences of hue that are hard, and how far around them, in degrees."""
_AXES = (12.0, 150.0)
"""Pure red and pure green: colours that lean to either side of one of them are two sorts of it."""
_REACH = 60.0


def _bump(angle: Floats, at: float, around: float) -> Floats:
    return np.asarray(np.clip(1 - np.abs(angle - at) / around, 0, 1))


def _signed(hue: Floats, axis: float | Floats) -> Floats:
    return np.asarray((hue - axis + 180) % 360 - 180)


def discord(a: Floats, b: Floats) -> Floats:
    """How hard pairs of colours are on the eye, (...), 0…1. a, b: drives (..., 3).

    The product of three factors, each 0…1: both are vivid (the smaller chroma against 0.12); they are about equally light (the
    root of 1 − ΔL / 0.3); and their hues are hard (the root of the larger of two): they are opposite, 180° ± 30°, which flickers
    where they meet, or they are two sorts of red or of green, which lean to either side of it (12°, 150°; each by at most 60°)
    and are 45° ± 35° apart.

    >>> red, pink, blue, violet = (np.array(rgb) for rgb in ((1, 0.2, 0.1), (1, 0.1, 0.6), (0.1, 0.2, 1), (0.6, 0.3, 1)))
    >>> bool(discord(red, pink) > HARD), bool(discord(blue, violet) > HARD), float(discord(red, red))
    (True, False, 0.0)
    """
    first, second = rgb_to_oklch(a), rgb_to_oklch(b)
    vivid = np.clip(np.minimum(first[..., 1], second[..., 1]) / _VIVID, 0, 1)
    alike = np.clip(1 - np.abs(first[..., 0] - second[..., 0]) / _LIGHTNESS, 0, 1)
    hard = _bump(np.abs(_signed(first[..., 2], second[..., 2])), *_OPPOSITE)
    for axis in _AXES:
        lean, other = _signed(first[..., 2], axis), _signed(second[..., 2], axis)
        both = (lean * other < 0) & (np.maximum(np.abs(lean), np.abs(other)) <= _REACH)
        hard = np.maximum(hard, np.where(both, _bump(np.abs(lean - other), *_LEANING), 0.0))
    return np.asarray(vivid * np.sqrt(alike) * np.sqrt(hard))
