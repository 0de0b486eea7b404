"""From a raster to cells: each takes the mean over its area, by weights that are made once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_array

from .canvas import Canvas

Ints = NDArray[np.int64]
Floats = NDArray[np.float64]
Singles = NDArray[np.floating[Any]]

MOST = 256
"""Points of a raster along its longer side."""


@dataclass(frozen=True, eq=False)
class Raster:
    """A grid of points over a canvas, and how much of each is in each cell."""

    canvas: Canvas
    most: int = MOST

    @cached_property
    def shape(self) -> tuple[int, int]:
        """Rows and columns."""
        canvas = self.canvas
        return max(1, round(self.most * canvas.height)), max(1, round(self.most * canvas.width))

    @cached_property
    def places(self) -> tuple[Singles, Singles]:
        """u and v of all points, row after row."""
        rows, columns = self.shape
        u = (np.arange(columns, dtype=np.float32) + 0.5) * np.float32(self.canvas.width / columns)
        v = (np.arange(rows, dtype=np.float32) + 0.5) * np.float32(self.canvas.height / rows)
        return np.tile(u, rows), np.repeat(v, columns)

    @cached_property
    def weights(self) -> csr_array:
        """(C, points), each row sums to 1."""
        rows, columns = self.shape
        canvas = self.canvas
        first_x, last_x, left, right = _span(canvas.left, canvas.right, columns / canvas.width, columns)
        first_y, last_y, top, bottom = _span(canvas.top, canvas.bottom, rows / canvas.height, rows)
        wide = last_x - first_x
        count = wide * (last_y - first_y)
        cell = np.repeat(np.arange(len(canvas)), count)
        n = np.arange(count.sum()) - np.repeat(np.cumsum(count) - count, count)
        x, y = first_x[cell] + n % wide[cell], first_y[cell] + n // wide[cell]
        share = (np.minimum(right[cell], x + 1) - np.maximum(left[cell], x)) * (
            np.minimum(bottom[cell], y + 1) - np.maximum(top[cell], y)
        )
        share /= np.bincount(cell, share, len(canvas))[cell]
        return csr_array((share.astype(np.float32), (cell, y * columns + x)), shape=(len(canvas), rows * columns))

    def sampled(self, planes: Singles) -> Singles:
        """Planes (k, points) at the cells, (k, C)."""
        return np.stack([self.weights @ plane for plane in planes]).astype(np.float32, copy=False)


def _span(low: Floats, high: Floats, scale: float, count: int) -> tuple[Ints, Ints, Floats, Floats]:
    """First and end point that a stretch of each cell covers, and the stretch itself in points."""
    low, high = np.clip(low * scale, 0, count), np.clip(high * scale, 0, count)
    high = np.maximum(high, low + 1e-6)
    first = np.clip(np.floor(low).astype(np.int64), 0, count - 1)
    end = np.clip(np.ceil(high - 1e-9).astype(np.int64), first + 1, count)
    return first, end, low, high
