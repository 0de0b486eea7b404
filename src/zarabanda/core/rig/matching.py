"""Which light of one rig stands for which of another: rows of fixtures of unlike length, and the heads inside them.

A match of n to m is an array (m,) of indices 0…n − 1: where each light of the other rig comes from.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial.distance import cdist

from zarabanda.core.rig.modes import ModeSpec

_SAME_M = 0.15
Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


def from_the_middle(n: int, m: int, *, repeats: bool = False) -> Ints:
    """Fewer: the inner ones. More: they are spread, or the row is repeated from its middle on to both sides. What was
    symmetrical stays so: the right half is always the mirror image of the left one.

    >>> from_the_middle(10, 8).tolist()
    [1, 2, 3, 4, 5, 6, 7, 8]
    >>> from_the_middle(4, 6).tolist(), from_the_middle(4, 6, repeats=True).tolist()
    ([0, 1, 1, 2, 2, 3], [3, 0, 1, 2, 3, 0])
    """
    _some(n, m)
    left = np.arange(m // 2)
    if m <= n:
        outer = left + (n // 2 - m // 2)
        if m % 2 and not n % 2:  # the one in the middle takes the left one of two
            outer -= 1
    elif repeats:
        outer = (left - m // 2 + n // 2) % n
    else:
        outer = np.floor((left + 0.5) * n / m).astype(np.int64)
    middle = [(n - 1) // 2] if m % 2 else []
    return np.concatenate([outer, np.array(middle, np.int64), n - 1 - outer[::-1]])


def by_order(n: int, m: int, *, repeats: bool = False) -> Ints:
    """The first ones, in their order. More: each is spread over its neighbours, or the row begins again.

    >>> by_order(2, 5).tolist(), by_order(2, 5, repeats=True).tolist()
    ([0, 0, 1, 1, 1], [0, 1, 0, 1, 0])
    """
    _some(n, m)
    if m <= n or repeats:
        return np.arange(m) % n
    return np.floor((np.arange(m) + 0.5) * n / m).astype(np.int64)


def by_place(places: Floats, others: Floats) -> Ints:
    """Nearest on stage: so that all together move least, each of the first rig once; where there are more of the other, those
    that are left take the nearest. places: (n, 3), others: (m, 3), m."""
    _some(len(places), len(others))
    far = cdist(others, places)
    found = far.argmin(axis=1)
    rows, columns = _assigned(far)
    found[rows] = columns
    return np.asarray(found, np.int64)


@dataclass(frozen=True)
class Ranks:
    """Lights (n,) that stand in rows and columns on stage, each place taken once. row, column: of each, from below and from the
    left."""

    row: Ints
    column: Ints

    @property
    def shape(self) -> tuple[int, int]:
        """How many rows, how many columns."""
        return int(self.row.max()) + 1, int(self.column.max()) + 1

    def at(self, row: Ints, column: Ints) -> Ints:
        """Which light is at these places."""
        found = np.zeros(self.shape, np.int64)
        found[self.row, self.column] = np.arange(len(self.row))
        return np.asarray(found[row, column], np.int64)


def ranks_of(places: Floats) -> Ranks | None:
    """The rows and columns in which lights at places (n, 3) stand, seen from the front; None where they do not, or in one row
    alone.

    >>> ranks_of(np.array([[-1, 0, 1], [-1, 0, 2], [1, 0, 1], [1, 0, 2]])).shape
    (2, 2)
    """
    column, row = (_levels(places[:, axis]) for axis in (0, 2))
    rows, columns = int(row.max()) + 1, int(column.max()) + 1
    once = len(np.unique(row * columns + column)) == len(places) == rows * columns
    return Ranks(row, column) if once and rows > 1 and columns > 1 else None


def _levels(values: Floats) -> Ints:
    """Which level each of the values is at: a new one begins where there is more than a hand between two."""
    order = np.argsort(values, kind="stable")
    steps = np.concatenate([[0], np.diff(values[order]) > _SAME_M]).cumsum()
    found = np.empty(len(values), np.int64)
    found[order] = steps
    return found


def from_the_middle_on_stage(places: Floats, others: Floats, *, repeats: bool = False) -> Ints:
    """From the middle of their rows and of their columns, where lights at places (n, 3) and others (m, 3) both stand in such, in
    whatever order they are chosen; a row and columns: those that face each other for those that do; else from the middle of
    their order."""
    here, there = ranks_of(places), ranks_of(others)
    if here is None or there is None:
        old, new = (_facing_order(one, len(of)) for one, of in ((here, places), (there, others)))
        found = np.empty(len(others), np.int64)
        found[new] = old[from_the_middle(len(places), len(others), repeats=repeats)]
        return found
    rows, columns = (from_the_middle(n, m, repeats=repeats) for n, m in zip(here.shape, there.shape, strict=True))
    return here.at(rows[there.row], columns[there.column])


def _facing_order(ranks: Ranks | None, count: int) -> Ints:
    """Lights so that those that face each other are as far from both ends: of a row its own order; of columns the left ones from
    below, then those that face them. An odd column in the middle faces itself: then the order is as it is."""
    if ranks is None or ranks.shape[1] % 2:
        return np.arange(count)
    rows, columns = ranks.shape
    left = ranks.at(np.tile(np.arange(rows), columns // 2), np.repeat(np.arange(columns // 2), rows))
    return np.concatenate([left, ranks.at(ranks.row[left], columns - 1 - ranks.column[left])[::-1]])


def partners(places: Floats) -> Ints:
    """Which light faces each of those at places (n, 3): across its row, or from the other end of their order. (n,)"""
    ranks = ranks_of(places)
    if ranks is None:
        return np.arange(len(places))[::-1].copy()
    return ranks.at(ranks.row, ranks.shape[1] - 1 - ranks.column)


def is_mirrored(match: Ints, here: Ints, there: Ints) -> bool:
    """Whether what was symmetrical stays so. here (n,), there (m,): which light faces each, see `partners`."""
    return bool(((match[there] == here[match]) | (match[there] == match)).all())


Parts = dict[int, tuple[int, ...]]
"""Parts of a fixture (0: the whole, 1…: its cells), each with those of another fixture that follow it."""


def parts_in_lists(before: ModeSpec, after: ModeSpec) -> Parts:
    """Inside a pair of fixtures: which parts of the new one stand in a selection for each part of the old one. Cells for cells
    from their middle; all cells for a light without; a light without cells for the one in the middle."""
    lit = tuple(part for part in after.parts if part or not after.cells)
    if not before.cells:
        return {0: lit}
    found = _cells(before, after)
    if 0 in before.parts:
        found[0] = (0,) if 0 in after.parts else lit
    return found


def parts_in_values(before: ModeSpec, after: ModeSpec, attribute: str) -> Parts:
    """The same for values of an attribute: those that have it, the whole where that has it, else cells. Values that did nothing
    go where lists go."""
    able = {part for part in after.parts if attribute in after.attributes_of(part)}
    whole = (0,) if 0 in able else tuple(part for part in after.parts if part in able)
    found = (
        {0: whole}
        if not before.cells
        else {part: tuple(one for one in now if one in able) for part, now in _cells(before, after).items()}
    )
    if 0 in before.parts:
        found[0] = whole
    idle = [part for part in found if attribute not in before.attributes_of(part)]
    return found | {part: now for part, now in parts_in_lists(before, after).items() if part in idle}


def _cells(before: ModeSpec, after: ModeSpec) -> Parts:
    old, new = [part for part in before.parts if part], [part for part in after.parts if part]
    found: dict[int, list[int]] = {part: [] for part in old}
    for part, at in zip(new or [0], from_the_middle(len(old), len(new) or 1), strict=True):
        found[old[at]].append(part)
    return {part: tuple(now) for part, now in found.items()}


def _some(n: int, m: int) -> None:
    if n < 1 or m < 1:
        raise ValueError(f"a match needs lights on both sides, not {n} and {m}")


def _assigned(costs: Floats) -> tuple[Ints, Ints]:
    """Rows and columns of costs (n, m), each once, whose sum is least."""
    from scipy.optimize import linear_sum_assignment  # loads for most of a second: only where lights are matched

    rows, columns = linear_sum_assignment(costs)
    return rows, columns


def by_score(scores: Floats, least: float) -> list[int]:
    """Which column each row of scores (n, m) is matched with, each column once, so that the sum is largest; −1 where that would
    score less than `least`.

    >>> by_score(np.array([[3.0, 2.9], [3.0, 0.2]]), 1.0)
    [1, 0]
    """
    found = [-1] * len(scores)
    if scores.size:
        for row, column in zip(*_assigned(-scores), strict=True):
            if scores[row, column] >= least:
                found[row] = int(column)
    return found
