"""The canvas of a pixel map: its cells in the plane, placed by where they stand or on a drawn grid."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from zarabanda.core.rig.cells import arranged
from zarabanda.errors import ZarabandaError

Floats = NDArray[np.float64]
Singles = NDArray[np.floating[Any]]
Ints = NDArray[np.int64]

MOST_CELLS = 100_000
VIEWS: dict[str, tuple[int, int]] = {"front": (0, 2), "plan": (0, 1)}
"""Axes of the stage that run across and, the other way, down."""
_GAP = 2.0
_LOOKED_AT = 24
"""So many nearest cells are looked at for neighbours."""


@dataclass(frozen=True, eq=False)
class Canvas:
    """Cells in the plane, C of them. heads (C,): which head each is; left, top, right, bottom (C,): its area, in lengths of the
    longer side, downwards; width, height: of the whole, the longer is 1."""

    heads: Ints
    left: Floats
    top: Floats
    right: Floats
    bottom: Floats
    width: float
    height: float

    def __len__(self) -> int:
        return len(self.heads)

    @cached_property
    def u(self) -> Singles:
        """(C,) middle of each cell, across."""
        return ((self.left + self.right) / 2).astype(np.float32)

    @cached_property
    def v(self) -> Singles:
        """(C,) middle of each cell, down."""
        return ((self.top + self.bottom) / 2).astype(np.float32)

    @cached_property
    def rows(self) -> int:
        """About how many cells lie one below another."""
        heights = self.bottom - self.top
        return max(1, round(self.height / float(np.median(heights)))) if len(self) and self.height > 0 else 1

    @cached_property
    def columns(self) -> int:
        """About how many cells lie one beside another."""
        widths = self.right - self.left
        return max(1, round(self.width / float(np.median(widths)))) if len(self) and self.width > 0 else 1


def _canvas(heads: Ints, left: Floats, top: Floats, right: Floats, bottom: Floats) -> Canvas:
    """With the whole brought to the longer side 1."""
    across, down = float(right.max() - left.min()), float(bottom.max() - top.min())
    scale, x, y = 1 / max(across, down), left.min(), top.min()
    return Canvas(
        heads, (left - x) * scale, (top - y) * scale, (right - x) * scale, (bottom - y) * scale, across * scale, down * scale
    )


def of_no_cells() -> Canvas:
    """A canvas without cells."""
    nothing = np.zeros(0)
    return Canvas(nothing.astype(np.int64), nothing, nothing, nothing, nothing, 1.0, 1.0)


def evenly(width: float, height: float, most: int) -> Canvas:
    """A canvas as wide and high as another, filled with equal cells by rows from top left, `most` along the longer side: a
    picture of layers is made of it.

    >>> evenly(1.0, 0.25, 8).columns, evenly(1.0, 0.25, 8).rows
    (8, 2)
    """
    columns, rows = (max(1, round(most * side / max(width, height))) for side in (width, height))
    x, y = np.tile(np.arange(columns), rows) / columns * width, np.repeat(np.arange(rows), columns) / rows * height
    return Canvas(np.arange(columns * rows), x, y, x + width / columns, y + height / rows, width, height)


def on_stage(heads: Ints, places: Floats, view: str) -> Canvas:
    """Cells where they stand. places (C, 3): metres; view: `front` (from the audience) or `plan` (from above, upstage on top).

    The area of a cell goes half the way to its nearest neighbours; where there is none on one side, or one that is more than
    twice as far (a gap between fixtures), as far as on the other; where there is none on either, as far as in the other
    direction; a single cell is the whole canvas.
    """
    if not len(heads):
        return of_no_cells()
    across, down = VIEWS[view]
    x, y = np.round(places[:, across], 4), np.round(-places[:, down], 4)
    before_x, after_x = _halves(x, y)
    before_y, after_y = _halves(y, x)
    before_x, after_x = _filled(before_x, after_x)
    before_y, after_y = _filled(before_y, after_y)
    own_x, own_y = np.isnan(before_x), np.isnan(before_y)
    least = np.nanmin(np.concatenate([before_x, after_x, before_y, after_y])) if not (own_x & own_y).all() else 0.5
    mean_x, mean_y = (before_x + after_x) / 2, (before_y + after_y) / 2
    before_x, after_x = (np.where(own_x, np.where(own_y, least, mean_y), one) for one in (before_x, after_x))
    before_y, after_y = (np.where(own_y, np.where(own_x, least, mean_x), one) for one in (before_y, after_y))
    return _canvas(heads, x - before_x, y - before_y, x + after_x, y + after_y)


def _halves(along: Floats, beside: Floats) -> tuple[Floats, Floats]:
    """Half the way to the nearest neighbour before and after each cell, NaN where there is none. A neighbour lies more in this
    direction than beside it."""
    count = len(along)
    before, after = np.full(count, np.nan), np.full(count, np.nan)
    if count < 2:
        return before, after
    points = np.column_stack([along, beside])
    _, near = cKDTree(points).query(points, k=min(_LOOKED_AT + 1, count))
    ways, off = along[near] - along[:, None], np.abs(beside[near] - beside[:, None])
    counts = np.abs(ways) > off
    for found, side in ((before, -ways), (after, ways)):
        lengths = np.where(counts & (side > 1e-6), side, np.inf).min(axis=1)
        found[np.isfinite(lengths)] = lengths[np.isfinite(lengths)] / 2
    return before, after


def _filled(before: Floats, after: Floats) -> tuple[Floats, Floats]:
    before, after = np.where(np.isnan(before), after, before), np.where(np.isnan(after), before, after)
    return np.where(before > _GAP * after, after, before), np.where(after > _GAP * before, before, after)


def on_grid(
    heads: Ints, columns: int, rows: int, order: str = "rows from top left", gap_across: float = 0.0, gap_down: float = 0.0
) -> Canvas:
    """Cells on a drawn grid. order: see `cells.CELL_ORDERS`; gaps: shares of a box that lie between the cells, 0…0.95.

    ZarabandaError where there are more cells than boxes.

    >>> on_grid(np.arange(4), 2, 2, "rows from top left, back and forth").u.tolist()
    [0.25, 0.75, 0.75, 0.25]
    """
    if len(heads) > columns * rows:
        raise ZarabandaError(
            f"{len(heads)} cells do not fit on {columns} × {rows} boxes. Give the grid more columns or rows.", "canvas"
        )
    if not len(heads):
        return of_no_cells()
    boxes = np.arange(columns * rows)
    places = np.column_stack([boxes % columns, -(boxes // columns), np.zeros(len(boxes))]).astype(float)
    at = arranged(places, order)[: len(heads)]
    x, y = (at % columns).astype(float), (at // columns).astype(float)
    half_x, half_y = gap_across / 2, gap_down / 2
    scale = 1 / max(columns, rows)
    return Canvas(
        heads, (x + half_x) * scale, (y + half_y) * scale, (x + 1 - half_x) * scale, (y + 1 - half_y) * scale,
        columns * scale, rows * scale,
    )  # fmt: skip
