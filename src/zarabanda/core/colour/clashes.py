"""Pairs of colours that are hard on the eye, by a distance in OKLCH (docs/computation.md, "Clashes of colours")."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import rgb_to_oklch

Floats = NDArray[np.float64]

HARD = 0.5
"""From this discord on a pair is told."""
_VIVID = 0.12
_LIGHTNESS = 0.3
_NEAR_MISS, _OPPOSITE = (42.0, 24.0), (180.0, 30.0)
"""Differences of hue that are hard, and how far around them, in degrees."""


def discord(a: Floats, b: Floats) -> Floats:
    """How hard pairs of colours are on the eye, (...), 0…1. a, b: drives (..., 3).

    Three factors, each 0…1: both are vivid (the smaller chroma against 0.12); they are about equally light (1 − ΔL / 0.3); and
    their hues are hard: a near miss about 42° apart (neither one colour nor two), or opposites about 180° apart, which flicker
    at their edge.

    >>> red, pink, blue = (np.array(rgb) for rgb in ((1, 0.2, 0.1), (1, 0.1, 0.6), (0.1, 0.2, 1)))
    >>> bool(discord(red, pink) > HARD), bool(discord(red, blue) > HARD), float(discord(red, red))
    (True, False, 0.0)
    """
    first, second = rgb_to_oklch(a), rgb_to_oklch(b)
    vivid = np.clip(np.minimum(first[..., 1], second[..., 1]) / _VIVID, 0, 1)
    alike = np.clip(1 - np.abs(first[..., 0] - second[..., 0]) / _LIGHTNESS, 0, 1)
    apart = np.abs((first[..., 2] - second[..., 2] + 180) % 360 - 180)
    hard = [np.clip(1 - np.abs(apart - at) / around, 0, 1) for at, around in (_NEAR_MISS, _OPPOSITE)]
    return np.asarray(vivid * np.sqrt(alike) * np.sqrt(np.maximum(*hard)))
