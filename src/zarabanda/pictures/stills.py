"""Pictures for layers: small, with their cover; moving ones frame by frame."""

from __future__ import annotations

from bisect import bisect_right
from itertools import accumulate
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

Singles = NDArray[np.floating[Any]]
MOST = 256
"""Points along the longer side."""
_MOST_FRAMES = 600


def planes(image: NDArray[np.uint8]) -> Singles:
    """(4, H, W) shares of bytes (H, W, 4)."""
    found = np.empty((4, *image.shape[:2]), np.float32)
    np.multiply(image.transpose(2, 0, 1), np.float32(1 / 255), out=found)
    return found


class Still:
    """A source for layers: a picture, or a moving one that goes round in its own time."""

    def __init__(self, path: Path) -> None:
        from PIL import Image

        self._frames, lengths = list[NDArray[np.uint8]](), list[float]()
        with Image.open(path) as image:
            for n in range(min(getattr(image, "n_frames", 1), _MOST_FRAMES)):
                image.seek(n)
                lengths.append(max(float(image.info.get("duration", 100)), 20.0) / 1000)
                small = image.convert("RGBA")
                small.thumbnail((MOST, MOST), Image.Resampling.BOX)
                self._frames.append(np.asarray(small))
        self._ends = list(accumulate(lengths))
        self._first = planes(self._frames[0])

    def at(self, seconds: float, cycle: float) -> Singles | None:
        """The picture that is seen then."""
        if len(self._frames) == 1:
            return self._first
        number = bisect_right(self._ends, seconds % self._ends[-1])
        return planes(self._frames[min(number, len(self._frames) - 1)])
