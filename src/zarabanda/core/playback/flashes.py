"""Flashes: what hands hold over everything but specials, while they hold it (docs/computation.md, "Flashes")."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

KINDS: tuple[str, ...] = ("white", "odd", "even", "strobe", "dark")
_STROBE = attributes.INDEX["strobe"]
_WHITE = {"red": 1.0, "green": 1.0, "blue": 1.0, "saturation": 0.0, "strobe": 0.0}


@dataclass(frozen=True, eq=False)
class Flash:
    """What a flash sets. places (n,): flat cells; targets (n,); blinking (m,): cells of intensities that go on and off at a rate,
    since their heads have no strobe of their own."""

    places: Ints
    targets: Floats
    blinking: Ints

    def apply(self, values: Floats, share: float, since: float, rate_hz: float) -> None:
        """Lay it over flat values: from what they are to its targets, by its share 0…1. since: s that it has been held."""
        values[self.places] += share * (self.targets - values[self.places])
        if len(self.blinking) and (since * rate_hz) % 1 >= 0.5:
            values[self.blinking] *= 1 - share


def flash(rig: Rig, kind: str, heads: Ints, lit: Ints, rate_hz: float) -> Flash:
    """A flash of a kind on a row. heads: all of the row with those that lead its cells; lit: those of the row, in its order."""
    intensity, count = attributes.INTENSITY, len(rig)
    found: dict[int, float] = {}

    def put(row: int, those: Ints, target: float) -> None:
        able = those[rig.heads.has[row, those]]
        found.update(dict.fromkeys((row * count + able).tolist(), min(target, float(rig.high[row, able].min(initial=target)))))

    unled = heads[~rig.led[heads]]
    if kind == "dark":
        put(intensity, unled, 0.0)
    else:
        put(intensity, heads, 100.0)
    if kind in ("odd", "even"):
        put(intensity, lit[1::2] if kind == "odd" else lit[::2], 0.0)
    if kind == "white":
        for name, value in _WHITE.items():
            put(attributes.INDEX[name], heads, value)
    blinking = np.zeros(0, np.int64)
    if kind == "strobe":
        put(_STROBE, heads, rate_hz)
        able = rig.heads.has[_STROBE]
        those = unled[~able[unled] & rig.heads.has[intensity, unled]]
        blinking = intensity * count + those
    places = np.array(sorted(found), np.int64)
    return Flash(places, np.array([found[place] for place in places.tolist()]), blinking)


@dataclass(frozen=True, eq=False)
class Flashes:
    """A stage of the frame: all that are held or go out, in the order in which they were pressed."""

    each: Sequence[tuple[Flash, float, float]]
    """Each with its share and for how long it has been held, in s."""
    touched: Bools
    rate_hz: float

    def apply(self, values: Floats) -> None:
        """Lay them over the values (A, N)."""
        flat = values.reshape(-1)
        for one, share, since in self.each:
            one.apply(flat, share, since, self.rate_hz)


def touched_by(rig: Rig, flashes: Sequence[Flash]) -> Bools:
    """(A, N) where flashes act."""
    touched = np.zeros(rig.home.shape, bool)
    for one in flashes:
        touched.reshape(-1)[one.places] = True
        touched.reshape(-1)[one.blinking] = True
    return touched
