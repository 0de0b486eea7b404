"""Selections from plain words: `101-110, 205, spots, odd, every 3, centre out` (docs/architecture.md, "Selections")."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

import numpy as np

from zarabanda.core.rig.heads import Heads
from zarabanda.core.selection import orders
from zarabanda.errors import ZarabandaError, brief

_RANGE = re.compile(r"^([0-9]{1,9})(?:\.([0-9]{1,9}))?(?:\s*(?:-|–|to)\s*([0-9]{1,9})(?:\.([0-9]{1,9}))?)?$")
_EVERY = re.compile(r"^every ([0-9]{1,9})$")
ORDER_WORDS = {name.replace("-", " "): name for name in orders.ORDERS}


def parse(
    text: str, heads: Heads, groups: Mapping[str, Sequence[str]], current: Sequence[str] = (), *, cells: bool = False
) -> list[str]:
    """Keys of the heads that `text` names, in order, each once.

    Parts are separated by commas. Ranges and group names add heads; `odd`, `even`, `every N` and orders work on what
    the parts before gave (at the beginning: on `current`). `all` is every fixture. A number without a cell is the fixture as
    one light: its own head where it has one, else its cells together; with `cells`, it is its cells. The words `cells` and
    `whole` change what the parts before gave.
    groups: head keys by lower-case name; a part of a group's name is enough when only one group has it.
    """
    parts = [part.strip().lower() for part in text.split(",") if part.strip()]
    if not parts:
        raise ZarabandaError("Type a selection, such as 101-110, spots, or odd.")
    chosen: list[str] = []
    for number, part in enumerate(parts):
        added = _added(part, heads, groups, cells)
        if added is not None:
            chosen += [key for key in added if key not in set(chosen)]
            continue
        if number == 0:
            chosen = list(current)
        chosen = _changed(part, chosen, heads, groups)
    return chosen


def _added(part: str, heads: Heads, groups: Mapping[str, Sequence[str]], cells: bool) -> list[str] | None:
    if part == "all":
        return as_cells(heads.keys, heads) if cells else as_whole(heads.keys, heads)
    match = _RANGE.match(part)
    if match:
        return _range(part, match, heads, cells)
    if part in groups:
        return list(groups[part])
    near = [name for name in groups if part in name.split() or name.startswith(part)]
    near = near or [name for name in groups if part in name]
    if len(near) == 1:
        return list(groups[near[0]])
    if len(near) > 1:
        raise ZarabandaError(f"“{brief(part)}” fits several groups: {', '.join(near)}. Type more of the name.")
    return None


def as_whole(keys: Sequence[str], heads: Heads) -> list[str]:
    """Fixtures of these heads, each as one light: its own head where it has one beside its cells, else its cells together."""
    found = []
    for number in dict.fromkeys(key.partition(".")[0] for key in keys):
        found += [number] if number in heads.index else _cells(number, heads)
    return found


def as_cells(keys: Sequence[str], heads: Heads) -> list[str]:
    """The same with every fixture that has cells as its cells; single cells stay what they are."""
    found: list[str] = []
    for key in keys:
        found += _cells(key, heads) or [key]
    return list(dict.fromkeys(found))


def _cells(number: str, heads: Heads) -> list[str]:
    return heads.cells.get(number, [])


def _range(part: str, match: re.Match[str], heads: Heads, cells: bool) -> list[str]:
    first, first_cell, last, last_cell = (int(x) if x else None for x in match.groups())
    assert first is not None
    end = first if last is None else last
    step_down = end < first
    low, high = min(first, end), max(first, end)
    found = []
    for key in heads.keys:
        number, _, cell_text = key.partition(".")
        if not low <= int(number) <= high:
            continue
        cell = int(cell_text) if cell_text else 0
        if first_cell is not None:
            final = (first, first_cell) if last is None else (end, last_cell or first_cell)
            if not (first, first_cell) <= (int(number), cell) <= final:
                continue
        found.append(key)
    if not found:
        numbers = sorted({int(key.partition(".")[0]) for key in heads.keys})
        span = f"{numbers[0]} to {numbers[-1]}" if numbers else "empty"
        raise ZarabandaError(f"“{brief(part)}”: no head has this number. The rig's numbers go from {span}.")
    if first_cell is None:
        found = as_cells(found, heads) if cells else as_whole(found, heads)
    return found[::-1] if step_down else found


def _changed(part: str, chosen: list[str], heads: Heads, groups: Mapping[str, Sequence[str]]) -> list[str]:
    every = _EVERY.match(part)
    if part in ("cells", "whole") and chosen:
        return as_cells(chosen, heads) if part == "cells" else as_whole(chosen, heads)
    if part not in ("odd", "even", "cells", "whole") and not every and part not in ORDER_WORDS:
        names = ", ".join(list(groups)[:6])
        raise ZarabandaError(
            f"“{brief(part)}” means nothing here. Type numbers (101-110), a group ({names}), odd, even, every 3, or an order "
            "such as centre out, cells or whole."
        )
    if not chosen:
        raise ZarabandaError(f"“{brief(part)}” needs heads to work on: put them before it, as in 101-110, {brief(part, 40)}.")
    if part in ("odd", "even"):
        return chosen[0 if part == "odd" else 1 :: 2]
    if every:
        step = int(every.group(1))
        if step < 1:
            raise ZarabandaError("“every 0” leaves nothing: type every 2, every 3 and so on.")
        return chosen[::step]
    return in_order([ORDER_WORDS[part]], chosen, heads)


def in_order(steps: Sequence[str], keys: Sequence[str], heads: Heads) -> list[str]:
    """`keys` in the order that the steps make of them."""
    places = heads.places[np.array([heads.index[key] for key in keys], np.int64)]
    return [keys[number] for number in orders.ordered(steps, places)]
