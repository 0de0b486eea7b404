"""Groups made from one selection by a rule: halves, thirds, rows, sides, other orders. One row a rule."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig.heads import Heads
from zarabanda.core.selection import words
from zarabanda.errors import ZarabandaError, brief

Keys = list[str]
Derived = list[tuple[str, Keys]]
"""What each new group is called beside the one it is of, and its heads."""
_SAME_M = 0.05


@dataclass(frozen=True)
class Around:
    """What rules look at: the heads of the rig, and in which universe each fixture is."""

    heads: Heads
    universe: Mapping[int, int | None]


def _places(keys: Sequence[str], heads: Heads) -> NDArray[np.float64]:
    return heads.places[np.array([heads.index[key] for key in keys], np.int64)]


def _ordered(step: str, called: str) -> Callable[[Sequence[str], Around], Derived]:
    return lambda keys, around: [(called, words.in_order([step], keys, around.heads))]


def _every(count: int, names: Sequence[str]) -> Callable[[Sequence[str], Around], Derived]:
    return lambda keys, around: [(name, list(keys[n::count])) for n, name in enumerate(names)]


def _by_side(keys: Sequence[str], around: Around) -> Derived:
    x = _places(keys, around.heads)[:, 0]
    parts = (("left", x < -_SAME_M), ("centre", np.abs(x) <= _SAME_M), ("right", x > _SAME_M))
    return [(name, [key for key, chosen in zip(keys, mask, strict=True) if chosen]) for name, mask in parts]


def _by_row(keys: Sequence[str], around: Around) -> Derived:
    """Fixtures that stand at one depth and height are a row, from the front on and from below."""
    rows: dict[tuple[int, int], Keys] = {}
    for key, place in zip(keys, _places(keys, around.heads), strict=True):
        rows.setdefault((round(place[1] / _SAME_M), round(place[2] / _SAME_M)), []).append(key)
    return [(f"row {n + 1}", rows[at]) for n, at in enumerate(sorted(rows))]


def _by_universe(keys: Sequence[str], around: Around) -> Derived:
    found: dict[int | None, Keys] = {}
    for key in keys:
        found.setdefault(around.universe.get(int(key.partition(".")[0])), []).append(key)
    ordered = sorted(found, key=lambda number: (number is None, number))
    return [(f"universe {number}" if number is not None else "no address", found[number]) for number in ordered]


def _cells_of(count: int, names: Sequence[str]) -> Callable[[Sequence[str], Around], Derived]:
    def derive(keys: Sequence[str], around: Around) -> Derived:
        cells = [key for key in words.as_cells(keys, around.heads) if "." in key]
        return [(name, [key for key in cells if (int(key.partition(".")[2]) - 1) % count == n]) for n, name in enumerate(names)]

    return derive


@dataclass(frozen=True)
class Rule:
    """How it is called, and what it makes of heads in their order."""

    label: str
    derive: Callable[[Sequence[str], Around], Derived]


RULES: dict[str, Rule] = {
    "reversed": Rule("the other way round", _ordered("reversed", "the other way round")),
    "left-to-right": Rule("left to right", _ordered("left-to-right", "left to right")),
    "centre-out": Rule("centre out", _ordered("centre-out", "centre out")),
    "ends-in": Rule("ends in", _ordered("ends-in", "ends in")),
    "odd": Rule("odd", _every(2, ("odd",))),
    "even": Rule("even", lambda keys, around: [("even", list(keys[1::2]))]),
    "thirds": Rule("thirds", _every(3, ("third 1", "third 2", "third 3"))),
    "by-side": Rule("by side", _by_side),
    "by-row": Rule("by row", _by_row),
    "by-universe": Rule("by universe", _by_universe),
    "whole": Rule("whole", lambda keys, around: [("whole", words.as_whole(keys, around.heads))]),
    "cells": Rule("cells", lambda keys, around: [("cells", words.as_cells(keys, around.heads))]),
    "odd-and-even-cells": Rule("odd and even cells", _cells_of(2, ("odd cells", "even cells"))),
    "third-cells": Rule("every third of the cells", _cells_of(3, ("cells 1, 4, 7 …", "cells 2, 5, 8 …", "cells 3, 6, 9 …"))),
}
"""Every rule by its name."""


def derived(rule: str, keys: Sequence[str], around: Around) -> Derived:
    """The groups that a rule makes; those without heads are left out. Heads that the rig does not have are passed by."""
    if rule not in RULES:
        raise ZarabandaError(f"There is no rule {brief(rule, 40)}; use one of {', '.join(RULES)}.", "rules")
    known = [key for key in keys if key in around.heads.index]
    return [(name, heads) for name, heads in RULES[rule].derive(known, around) if heads] if known else []
