"""Letters as a raster, in the font that ships with the program."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

Singles = NDArray[np.floating[Any]]
_FONT = Path(__file__).parent / "fonts" / "atkinson-hyperlegible-next-latin-wght-normal.woff2"
_SIZE = 64
_WIDEST = 8192


@lru_cache(maxsize=64)
def lettering(text: str, weight: int) -> Singles:
    """(2, H, W): a value of 1, and the cover of a text; as tall as its ink. weight: 200…800. A text without ink: one empty
    point."""
    from PIL import Image, ImageDraw, ImageFont  # only where letters are drawn

    font = ImageFont.truetype(str(_FONT), _SIZE)
    font.set_variation_by_axes([weight])
    left, top, right, bottom = font.getbbox(text)
    width, height = min(int(right - left), _WIDEST), int(bottom - top)
    if width <= 0 or height <= 0:
        return np.zeros((2, 1, 1), np.float32)
    image = Image.new("L", (width, height))
    ImageDraw.Draw(image).text((-left, -top), text, font=font, fill=255)
    cover = np.asarray(image, np.float32) / 255
    return np.stack([np.ones_like(cover), cover])


class Letters:
    """A source for layers: a text."""

    def __init__(self, text: str, weight: int) -> None:
        self._image = lettering(text, weight)

    def at(self, seconds: float, cycle: float) -> Singles | None:
        """The text."""
        return self._image
