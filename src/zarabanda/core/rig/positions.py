"""A set of positions for some lights, computed from where they stand: on stage, to the crowd, up, crossed, fanned, together."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.aims import aimed
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_EYES_M = 1.7
_LEAST_DEPTH_M = 6.0
_WIDE, _NARROW = 2.2, 0.4


def _beside(x: Floats, y: float, z: float) -> Floats:
    return np.stack([x, np.full_like(x, y), np.full_like(x, z)], axis=-1)


POSITIONS: dict[str, Callable[[Floats, float], Floats]] = {
    "Stage": lambda places, depth: _beside(places[:, 0], depth / 3, 0),
    "Crowd": lambda places, depth: _beside(places[:, 0], -depth, _EYES_M),
    "Up": lambda places, depth: np.asarray(places + np.array([0.0, -12.0, 7.0])),
    "Cross": lambda places, depth: _beside(-places[:, 0], depth / 3, 0),
    "Fan out": lambda places, depth: _beside(places[:, 0] * _WIDE, depth / 3, 0),
    "Fan in": lambda places, depth: _beside(places[:, 0] * _NARROW, depth / 3, 0),
    "Centre": lambda places, depth: _beside(np.zeros(len(places)), depth / 3, 0),
}
"""Where lights at places (n, 3) point, (n, 3), on a stage that is so many metres deep."""


_TILTS: dict[str, Callable[[Floats], Floats]] = {
    "Up": lambda side: np.zeros_like(side),
    "Crowd": lambda side: np.full_like(side, 60.0),
    "Back": lambda side: np.full_like(side, -60.0),
    "Fan": lambda side: 50.0 * side,
    "Cross": lambda side: np.where(np.arange(len(side)) % 2 == 0, 35.0, -35.0),
}
"""Tilt towards the audience, in degrees, of lights that only tilt: side (n,), −1…1 from the first to the last."""


def tilts(rig: Rig, lights: Ints) -> dict[str, Floats]:
    """Tilt (n,) of `lights` that only tilt, in each of _TILTS, within what each can."""
    side = np.linspace(-1, 1, len(lights)) if len(lights) > 1 else np.zeros(len(lights))
    mounting = rig.mounting[lights]
    ahead = stage.direction(np.zeros(len(lights)), np.full(len(lights), 60.0), mounting)[:, 1]
    towards = np.where(ahead < 0, 1.0, -1.0)
    low, high = rig.low[attributes.TILT, lights], rig.high[attributes.TILT, lights]
    return {name: np.clip(towards * tilt(side), low, high) for name, tilt in _TILTS.items()}


def positions(rig: Rig, lights: Ints) -> dict[str, tuple[Floats, Floats]]:
    """Pan and tilt (n,) of `lights` in each of POSITIONS: the way to turn there that is nearest to home."""
    places = rig.heads.places[lights]
    depth = max(_LEAST_DEPTH_M, float(rig.heads.places[:, 1].max(initial=0)))
    home = rig.home[[attributes.PAN, attributes.TILT]][:, lights]
    found = {}
    for name, points in POSITIONS.items():
        to = aimed(rig, lights, points(places, depth), home[0], home[1])
        found[name] = (to.pan, to.tilt)
    return found
