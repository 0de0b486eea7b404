"""Colours in plain words, by their hue, lightness and chroma in OKLCH."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import rgb_to_oklch

Floats = NDArray[np.float64]

HUES: tuple[tuple[float, str], ...] = (
    (18, "rose"), (40, "red"), (58, "orange"), (80, "amber"), (112, "yellow"), (134, "lime"), (153, "green"), (172, "sea green"),
    (188, "turquoise"), (208, "cyan"), (248, "sky blue"), (270, "blue"), (300, "indigo"), (322, "violet"), (342, "magenta"),
    (360, "pink"),
)  # fmt: skip
"""Words for hues: each up to this angle in OKLCH, in degrees."""
GREY_CHROMA = 0.03
_GREYS = ((0.93, "white"), (0.75, "light grey"), (0.38, "grey"), (0.0, "dark grey"))
_PALE_CHROMA, _PALE = 0.11, 0.75


def hue_word(degrees: float) -> str:
    """The word of a hue in OKLCH.

    >>> hue_word(29.2), hue_word(264.1), hue_word(355)
    ('red', 'blue', 'pink')
    """
    return next(word for end, word in HUES if degrees % 360 <= end)


def in_words(rgb: Floats) -> str:
    """A colour (3,) of drives 0…1 in words.

    >>> in_words(np.array([1.0, 0.0, 0.0])), in_words(np.array([1.0, 1.0, 1.0])), in_words(np.array([0.0, 0.0, 0.3]))
    ('red', 'white', 'dark blue')
    """
    lightness, chroma, hue = rgb_to_oklch(np.asarray(rgb, float)).tolist()
    if lightness < 0.12:
        return "black"
    if chroma < GREY_CHROMA:
        return next(word for least, word in _GREYS if lightness > least)
    word = hue_word(hue)
    if lightness < 0.45 and chroma < 0.2:
        return f"dark {word}"
    if chroma < _PALE_CHROMA:
        return f"{'pale' if lightness > _PALE else 'dull'} {word}"
    return word
