"""In which order the cells of a fixture are numbered: as it was made, the other way round, or along the rows of a tile."""

from __future__ import annotations

from itertools import product

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

AS_MADE, REVERSED = "", "reversed"
_ALONG, _ROWS, _SIDES, _BACK = ("rows", "columns"), ("top", "bottom"), ("left", "right"), ("", ", back and forth")

CELL_ORDERS: dict[str, str] = {
    AS_MADE: "as it was made",
    REVERSED: "the other way round",
    **{
        (name := f"{along} from {row} {side}{back}"): name
        for along, row, side, back in product(_ALONG, _ROWS, _SIDES, _BACK)
    },
}  # fmt: skip
"""Every order of cells with its words. Of a tile: along rows or columns, from a corner, each line the same way or in turn."""


def arranged(places: Floats, order: str) -> Ints:
    """For each cell number, which of the places it has. places: (n, 3) metres beside the fixture, as it was made. (n,).

    Top is where y is largest, left where x is least, as seen when the fixture lies at home.

    >>> line = np.array([[0.0, 0, 0], [1, 0, 0], [2, 0, 0]])
    >>> arranged(line, "reversed").tolist(), arranged(line, "rows from top right").tolist()
    ([2, 1, 0], [2, 1, 0])
    """
    count = len(places)
    if order == AS_MADE or not count:
        return np.arange(count)
    if order == REVERSED:
        return np.arange(count)[::-1]
    along, _, row, rest = order.split(" ", 3)
    side, back = rest.removesuffix(_BACK[1]), rest.endswith(_BACK[1])
    column_of, row_of = _line_numbers(places[:, 0]), _line_numbers(places[:, 1])
    if row == "top":
        row_of = row_of.max() - row_of
    if side == "right":
        column_of = column_of.max() - column_of
    line, at = (row_of, column_of) if along == "rows" else (column_of, row_of)
    if back:
        at = np.where(line % 2 == 1, at.max() - at, at)
    return np.lexsort((at, line))


def _line_numbers(along: Floats) -> Ints:
    """Numbers of the lines at these places, from the least on."""
    return np.asarray(np.unique(np.round(along, 4), return_inverse=True)[1], np.int64)
