"""Sets of colours, evenly chosen for the eye: white, and the most saturated colours at even hues in OKLCH."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import hsv_to_rgb, rgb_to_oklch

Floats = NDArray[np.float64]

SIZES = (12, 15, 20)
NAMES: tuple[str, ...] = (
    "Madder", "Poppy", "Ember", "Marigold", "Saffron", "Gorse", "Moss", "Fern", "Jade", "Verdigris",
    "Icicle", "Harbour", "Cornflower", "Kingfisher", "Iris", "Thistle", "Foxglove", "Peony", "Raspberry",
)  # fmt: skip
"""Names of 19 hues, evenly round the circle of OKLCH from 10° on."""
WHITE = "Linen"
_FIRST_HUE = 10.0
_FINE = 3600


def even_colours(count: int) -> list[tuple[str, Floats]]:
    """Names and drives (3,) of `count` colours, one of SIZES: white, then hues in even steps, each as saturated as red, green
    and blue can make it.

    >>> [name for name, _ in even_colours(12)][:3]
    ['Linen', 'Madder', 'Ember']
    """
    circle = hsv_to_rgb(np.stack([np.linspace(0, 360, _FINE, endpoint=False), np.ones(_FINE), np.ones(_FINE)], axis=-1))
    hues = rgb_to_oklch(circle)[:, 2]
    found = [(WHITE, np.ones(3))]
    for number in range(count - 1):
        hue = _FIRST_HUE + 360 * number / (count - 1)
        away = np.abs((hues - hue + 180) % 360 - 180)
        name = NAMES[round((hue - _FIRST_HUE) / 360 * len(NAMES)) % len(NAMES)]
        found.append((name, circle[int(away.argmin())]))
    return found
