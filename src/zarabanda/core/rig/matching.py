"""Which light of one rig stands for which of another: rows of fixtures of unlike length, and the heads inside them.

A match of n to m is an array (m,) of indices 0…n − 1: where each light of the other rig comes from.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linear_sum_assignment
from scipy.spatial.distance import cdist

from zarabanda.core.rig.modes import ModeSpec

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
    rows, columns = linear_sum_assignment(far)
    found[rows] = columns
    return np.asarray(found, np.int64)


def is_mirrored(match: Ints, n: int) -> bool:
    """Whether what was symmetrical over the n lights is so over those that were matched."""
    there = match[::-1]
    return bool(((match == there) | (match + there == n - 1)).all())


def heads_of(before: ModeSpec, after: ModeSpec) -> list[tuple[int, int]]:
    """Inside a pair of fixtures: each part of the new one, and the part of the old one that it stands for. The whole stands for
    the whole, cells for cells from their middle; a light without cells for all cells, or for the one in the middle."""
    old, new = [part for part in before.parts if part], [part for part in after.parts if part]
    whole = before.parts[0]
    found = []
    if new and old:
        found = [(part, old[at]) for part, at in zip(new, from_the_middle(len(old), len(new)), strict=True)]
    elif new:
        found = [(part, whole) for part in new]
    if 0 in after.parts:
        found.insert(0, (0, 0 if 0 in before.parts else old[(len(old) - 1) // 2]))
    return found


def _some(n: int, m: int) -> None:
    if n < 1 or m < 1:
        raise ValueError(f"a match needs lights on both sides, not {n} and {m}")
