"""Looks: values for heads and attributes, as arrays of cells. A cell is one attribute of one head; a colour is one cell."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import hex_to_rgb
from zarabanda.core.effects.palette import Palette
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
Kind = Literal["number", "hue", "colour", "step"]
Value = float | str | Palette
"""A number in natural units, a colour `#rrggbb`, or a palette."""
Look = Mapping[str, Mapping[str, Value]]
"""Values by attribute (`colour` and `position` stand for their parts) and head key."""

_RGB = (attributes.RED, attributes.GREEN, attributes.BLUE)


def kind_of(row: int) -> Kind:
    """How cells of an attribute move."""
    attribute = attributes.ATTRIBUTES[row]
    if row in _RGB:
        return "colour"
    return "step" if attribute.stepped else "hue" if attribute.circle else "number"


@dataclass(frozen=True, eq=False)
class Cells:
    """Cells of one family and kind, with a value each. cells (n,): attribute × N + head (a colour: that of its red);
    targets (n, 1), or (n, 3) for colours."""

    family: str
    kind: Kind
    cells: Ints
    targets: Floats


def held(rig: Rig, look: Look) -> Floats:
    """Values (A, N) that a look holds, NaN where it holds none. Heads that the rig does not have are left out.

    A colour of which only some parts are given has the others from home.
    """
    values = np.full(rig.home.shape, np.nan)
    index = rig.heads.index
    for name, heads in look.items():
        rows = [attributes.INDEX[one] for one in attributes.touched(name)]
        at: dict[Palette, list[int]] = {}
        plain, numbers = list[int](), list[tuple[float, ...]]()
        for key, value in heads.items():
            if key not in index:
                continue
            if isinstance(value, Palette):
                at.setdefault(value, []).append(index[key])
            else:
                plain.append(index[key])
                numbers.append(hex_to_rgb(value) if isinstance(value, str) else (value,) * len(rows))
        if plain:
            values[np.ix_(rows, plain)] = np.array(numbers).T
        for palette, chosen in at.items():
            values[np.ix_(rows, chosen)] = palette.on(rig.heads, chosen, attributes.touched(name)).T
    colours = values[list(_RGB)]
    partly = np.isnan(colours).any(axis=0) & ~np.isnan(colours).all(axis=0)
    values[list(_RGB)] = np.where(partly & np.isnan(colours), rig.home[list(_RGB)], colours)
    return values


def numbers(rig: Rig, look: Look) -> dict[str, dict[str, float]]:
    """What a look holds by plain attribute and head key, in natural units. Heads that the rig does not have are left out, and
    what a palette does not act on."""
    values, index = held(rig, look), rig.heads.index
    found: dict[str, dict[str, float]] = {}
    for name, heads in look.items():
        for one in attributes.touched(name):
            row = values[attributes.INDEX[one]]
            known = [(key, float(row[index[key]])) for key in heads if key in index]
            found.setdefault(one, {}).update((key, value) for key, value in known if value == value)
    return found


def base_of(rig: Rig, values: Floats | None = None) -> Floats:
    """What a head shows before effects, (A, N): home, and over it `values` (A, N) where they are not NaN; within its range."""
    base = rig.home if values is None else np.where(np.isnan(values), rig.home, values)
    return np.asarray(np.clip(base, rig.low, rig.high))


def cells_of(values: Floats, chosen: Bools) -> Iterator[Cells]:
    """The chosen values (A, N), grouped by family and kind; a colour is chosen when its red is."""
    count = values.shape[1]
    groups: dict[tuple[str, Kind], list[int]] = {}
    for row in range(len(values)):
        if row not in _RGB[1:] and chosen[row].any():
            groups.setdefault((attributes.ATTRIBUTES[row].family, kind_of(row)), []).append(row)
    for (family, kind), rows in groups.items():
        cells = np.concatenate([np.flatnonzero(chosen[row]) + row * count for row in rows])
        yield Cells(family, kind, cells, values.reshape(-1)[places(cells, kind, count)])


def places(cells: Ints, kind: Kind, count: int) -> Ints:
    """Where the values of cells are in (A · N): (n, 1), or (n, 3) for colours. count: N."""
    return cells[:, None] + (np.arange(3) * count if kind == "colour" else np.zeros(1, np.int64))


def changed(before: Floats, now: Floats) -> tuple[Bools, Bools]:
    """Where values (A, N) are new or others than before, and where they are gone; colours as a whole, told at their red."""
    new = ~np.isnan(now) & ~(before == now)
    gone = ~np.isnan(before) & np.isnan(now)
    new[attributes.RED] = new[list(_RGB)].any(axis=0)
    return new, gone
