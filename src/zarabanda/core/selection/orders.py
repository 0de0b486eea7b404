"""Orders of a selection: each step reorders what the one before left (docs/computation.md, "Lanes")."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


def _from_middle(count: int) -> Floats:
    middle: float = (count - 1) / 2
    distance: Floats = np.abs(np.arange(count, dtype=float) - middle)
    return distance


def _round_the_middle(places: Floats) -> Ints:
    around = places[:, :2] - places[:, :2].mean(axis=0) if len(places) else places[:, :2]
    return np.argsort(np.arctan2(around[:, 1], around[:, 0]) % (2 * np.pi), kind="stable")


OrderStep = Callable[[Floats, int], Ints]
"""Takes the places of the heads in their order so far, (n, 3) in metres, and a seed; gives the new order, (n,)."""

ORDERS: dict[str, OrderStep] = {
    "as-picked": lambda places, seed: np.arange(len(places)),
    "reversed": lambda places, seed: np.arange(len(places))[::-1],
    "left-to-right": lambda places, seed: np.argsort(places[:, 0], kind="stable"),
    "front-to-back": lambda places, seed: np.argsort(places[:, 1], kind="stable"),
    "low-to-high": lambda places, seed: np.argsort(places[:, 2], kind="stable"),
    "round-the-middle": lambda places, seed: _round_the_middle(places),
    "centre-out": lambda places, seed: np.argsort(_from_middle(len(places)), kind="stable"),
    "ends-in": lambda places, seed: np.argsort(-_from_middle(len(places)), kind="stable"),
    "odd-then-even": lambda places, seed: np.concatenate([np.arange(0, len(places), 2), np.arange(1, len(places), 2)]),
    "shuffled": lambda places, seed: np.argsort(randomness.unit(seed, np.arange(len(places)), 0), kind="stable"),
}
"""Every order by its name; each step reorders what the one before left. Ties keep their order."""


def ordered(steps: Sequence[str], places: Floats, seed: int = 0) -> Ints:
    """Positions in the pick order, in the order that `steps` make: `result[rank]` is the pick index of that rank.

    places: (n, 3) metres, in pick order. Returns (n,) integers.

    >>> ordered(["centre-out"], np.zeros((5, 3))).tolist()
    [2, 1, 3, 0, 4]
    """
    order = np.arange(len(places))
    for step in steps:
        order = order[ORDERS[step](places[order], seed)]
    return order
