"""Channels that do not run straight from a natural value to a level: parts of a channel's range, and slots of wheels."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Point = tuple[float, int]
"""A natural value, and the level of the channel there, as a number of all its bits."""
Curve = tuple[Point, ...]
"""Points in the order of their values, joined by straight lines; before the first and after the last it stays."""


class CurveTable:
    """The curves of a rig: which share of their channel's range belongs to a value."""

    def __init__(self, curves: Sequence[tuple[Curve, int, bool]]) -> None:
        """curves: each with the bits of its channel, and whether it is of slots: then there is nothing between its points."""
        self._tables = []
        for points, bits, stepped in curves:
            values, levels = np.array(points, float).T
            self._tables.append((values, levels / (2.0**bits - 1), stepped))

    def shares(self, which: int, values: Floats) -> Floats:
        """Shares 0…1 (n,) of a channel's range for values (n,).

        >>> CurveTable([(((0, 10), (1, 20), (25, 220)), 8, False)]).shares(0, np.array([0, 0.5, 13])) * 255
        array([ 10.,  15., 120.])
        """
        at, share, stepped = self._tables[which]
        if not stepped:
            return np.asarray(np.interp(values, at, share))
        nearest = np.searchsorted((at[1:] + at[:-1]) / 2, values, side="right")
        return np.asarray(share[nearest])
