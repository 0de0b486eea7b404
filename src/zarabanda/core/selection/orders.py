"""Orders of a selection: each step reorders what the one before left (docs/computation.md, "Lanes")."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


def _from_middle(count: int) -> Floats:
    middle: float = (count - 1) / 2
    distance: Floats = np.abs(np.arange(count, dtype=float) - middle)
    return distance


def _odd_then_even(count: int) -> Ints:
    return np.concatenate([np.arange(0, count, 2), np.arange(1, count, 2)])


def _shuffled(count: int, seed: int) -> Ints:
    return np.argsort(randomness.unit(seed, np.arange(count), 0), kind="stable")


def _round_the_middle(places: Floats) -> Ints:
    around = places[:, :2] - places[:, :2].mean(axis=0) if len(places) else places[:, :2]
    return np.argsort(np.arctan2(around[:, 1], around[:, 0]) % (2 * np.pi), kind="stable")


OrderStep = Callable[[Floats, int], Ints]
"""Takes the places of the heads in their order so far, (n, 3) in metres, and a seed; gives the new order, (n,)."""


@dataclass(frozen=True, slots=True)
class Order:
    """An order: how it is called, and its step."""

    label: str
    step: OrderStep


ORDERS: dict[str, Order] = {
    "as-picked": Order("as picked", lambda places, seed: np.arange(len(places))),
    "reversed": Order("the other way round", lambda places, seed: np.arange(len(places))[::-1]),
    "left-to-right": Order("left to right", lambda places, seed: np.argsort(places[:, 0], kind="stable")),
    "front-to-back": Order("front to back", lambda places, seed: np.argsort(places[:, 1], kind="stable")),
    "low-to-high": Order("low to high", lambda places, seed: np.argsort(places[:, 2], kind="stable")),
    "round-the-middle": Order("round the middle", lambda places, seed: _round_the_middle(places)),
    "centre-out": Order("centre out", lambda places, seed: np.argsort(_from_middle(len(places)), kind="stable")),
    "ends-in": Order("ends in", lambda places, seed: np.argsort(-_from_middle(len(places)), kind="stable")),
    "odd-then-even": Order("odd then even", lambda places, seed: _odd_then_even(len(places))),
    "shuffled": Order("shuffled", lambda places, seed: _shuffled(len(places), seed)),
}
"""Every order by its name: one row each. Each step reorders what the one before left. Ties keep their order."""


def ordered(steps: Sequence[str], places: Floats, seed: int = 0) -> Ints:
    """Positions in the pick order, in the order that `steps` make: `result[rank]` is the pick index of that rank.

    places: (n, 3) metres, in pick order. Returns (n,) integers.

    >>> ordered(["centre-out"], np.zeros((5, 3))).tolist()
    [2, 1, 3, 0, 4]
    """
    order = np.arange(len(places))
    for step in steps:
        order = order[ORDERS[step].step(places[order], seed)]
    return order
