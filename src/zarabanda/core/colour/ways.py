"""Ways between two colours, space by space, and what is seen on each (docs/computation.md, "Colour")."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.naming import hue_word
from zarabanda.core.colour.spaces import SPACES, rgb_to_oklch, subtractive_appearance

Floats = NDArray[np.float64]

LABELS: dict[str, str] = {
    "rgb": "straight, RGB",
    "cmy": "straight, CMY",
    "hsv-short": "hue, the short way",
    "hsv-long": "hue, the long way",
    "oklch": "even to the eye",
}
_STEPS = 97
_HUE_SEEN = 0.09
"""Chroma from which on a hue is seen."""


@dataclass(frozen=True)
class Seen:
    """What is seen on a way. colours (n, 3): on the way; passes: hues between those of the two ends, in words; dip: how far
    lightness falls below the darker end, in % of white."""

    colours: Floats
    passes: tuple[str, ...]
    dip: float


def along(space: str, start: Floats, end: Floats, shares: Floats) -> Floats:
    """Drives (n, 3) at `shares` (n,) of the way from start (3,) to end (3,)."""
    many = (len(shares), 3)
    return np.clip(SPACES[space](np.broadcast_to(start, many).copy(), np.broadcast_to(end, many).copy(), shares).T, 0, 1)


def seen(space: str, start: Floats, end: Floats, *, subtractive: bool) -> Seen:
    """What is seen on the way from start (3,) to end (3,), on lights that add light or, with flags, take it away."""
    colours = along(space, start, end, np.linspace(0, 1, _STEPS))
    if subtractive:
        colours = subtractive_appearance(colours)
    lch = rgb_to_oklch(colours)
    words = [hue_word(hue) if chroma >= _HUE_SEEN else "" for _, chroma, hue in lch.tolist()]
    passes = tuple(word for word in dict.fromkeys(words) if word and word not in (words[0], words[-1]))
    dip = max(0.0, float(min(lch[0, 0], lch[-1, 0]) - lch[:, 0].min())) * 100
    return Seen(colours, passes, dip)
