"""Places of several fixtures at once: along a line, an arc, a grid or a circle; aligned, spread evenly, mirrored."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.errors import ZarabandaError

Floats = NDArray[np.float64]
_AXES = ("x", "y", "z")


def _shares(count: int) -> Floats:
    return np.linspace(0, 1, count) if count > 1 else np.array([0.5] * count)


def line(count: int, start: Floats, end: Floats) -> Floats:
    """(count, 3) evenly from start to end; a single one in the middle."""
    return np.asarray(start + _shares(count)[:, None] * (end - start), float)


def arc(count: int, middle: Floats, radius: float, from_deg: float, to_deg: float) -> Floats:
    """(count, 3) on the floor plan round a middle: 0° is to the right, 90° upstage."""
    turns = np.radians(from_deg + _shares(count) * (to_deg - from_deg))
    return np.asarray(middle + radius * np.stack([np.cos(turns), np.sin(turns), np.zeros(count)], axis=1), float)


def circle(count: int, middle: Floats, radius: float, from_deg: float = 90.0) -> Floats:
    """(count, 3) evenly round a middle, on the floor plan, counter-clockwise from `from_deg` on."""
    return arc(count, middle, radius, from_deg, from_deg + 360 * (1 - 1 / max(count, 1)))


def grid(count: int, start: Floats, columns: int, across_m: float, along_m: float) -> Floats:
    """(count, 3) in rows of so many columns, from start on: to the right, then upstage."""
    number = np.arange(count)
    zero = np.zeros(count)
    return np.asarray(start + np.stack([number % columns * across_m, number // columns * along_m, zero], axis=1), float)


def aligned(places: Floats, axis: str) -> Floats:
    """All at the mean of their places on one axis."""
    moved = places.copy()
    moved[:, _AXES.index(axis)] = places[:, _AXES.index(axis)].mean()
    return moved


def spread(places: Floats, axis: str) -> Floats:
    """The outermost stay, those between stand evenly, in the order in which they stand. On one axis."""
    column = _AXES.index(axis)
    moved, order = places.copy(), np.argsort(places[:, column], kind="stable")
    moved[order, column] = line(len(places), places[order[:1]].ravel(), places[order[-1:]].ravel())[:, column]
    return moved


def mirrored(places: Floats) -> Floats:
    """On the other side of the centre line, x = 0."""
    return np.asarray(places * np.array([-1.0, 1, 1]), float)


def mirrored_turn(rotation_deg: tuple[float, float, float]) -> tuple[float, float, float]:
    """The rotation of a fixture that hangs as in a mirror at the centre line."""
    x, y, z = rotation_deg
    return (x, -y or 0.0, -z or 0.0)


@dataclass(frozen=True)
class Shape:
    """A way to arrange: how it is called, the numbers that it takes with their units, and what it does with places."""

    label: str
    asks: tuple[str, ...]
    make: Callable[[Floats, Mapping[str, float]], Floats]


def _at(given: Mapping[str, float], prefix: str = "") -> Floats:
    return np.array([given[prefix + axis] for axis in _AXES])


_START, _END = tuple("from_" + axis for axis in _AXES), tuple("to_" + axis for axis in _AXES)
SHAPES: dict[str, Shape] = {
    "line": Shape("along a line", (*_START, *_END), lambda p, g: line(len(p), _at(g, "from_"), _at(g, "to_"))),
    "arc": Shape("along an arc", (*_AXES, "radius", "from_deg", "to_deg"),
                 lambda p, g: arc(len(p), _at(g), g["radius"], g["from_deg"], g["to_deg"])),
    "grid": Shape("as a grid", (*_START, "columns", "across", "along"),
                  lambda p, g: grid(len(p), _at(g, "from_"), max(int(g["columns"]), 1), g["across"], g["along"])),
    "circle": Shape("round a circle", (*_AXES, "radius", "from_deg"),
                    lambda p, g: circle(len(p), _at(g), g["radius"], g["from_deg"])),
    **{f"align {axis}": Shape(f"in line, {axis}", (), lambda p, g, a=axis: aligned(p, a)) for axis in _AXES},  # type: ignore[misc]
    **{f"spread {axis}": Shape(f"evenly, {axis}", (), lambda p, g, a=axis: spread(p, a)) for axis in _AXES},  # type: ignore[misc]
    "mirror": Shape("mirrored about the centre line", (), lambda p, g: mirrored(p)),
}  # fmt: skip
"""Every way to arrange by its name."""


def arranged(shape: str, places: Floats, given: Mapping[str, float]) -> Floats:
    """Places (n, 3) in m, in the order of the selection, in another arrangement. ZarabandaError says which number lacks."""
    if shape not in SHAPES:
        raise ZarabandaError(f"There is no arrangement {shape[:40]}; use one of {', '.join(SHAPES)}.", "shape")
    missing = [name for name in SHAPES[shape].asks if name not in given]
    if missing:
        raise ZarabandaError(f"To arrange {SHAPES[shape].label}, {missing[0].replace('_', ' ')} is needed.", missing[0])
    return SHAPES[shape].make(places, given)
