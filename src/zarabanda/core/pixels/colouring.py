"""Colouring of a figure: stops of colour over its value, the place, or the cycle; or the colours that it has of its own."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import hsv_to_rgb, rgb_to_hsv
from zarabanda.core.colour.ways import along

from .places import Points

Singles = NDArray[np.floating[Any]]
Floats = NDArray[np.float64]

OVER: Mapping[str, str] = {
    "value": "over the value", "place": "over the place", "cycle": "over the cycle", "own": "in its own colours",
}  # fmt: skip
"""What colours go by, in words."""
_STEPS = 256
BASE = None
"""A stop that is the colour that the cell has beneath."""


@dataclass(frozen=True, eq=False)
class Colouring:
    """over: see `OVER`; stops: drives (3,), or BASE; space: in which the way between two goes; direction in degrees: of the
    place; hue_cycles: times round the hues in a cycle of the layer; tint: 0…1, how far own colours go to those of the stops by
    their brightness."""

    over: str = "value"
    stops: Sequence[Sequence[float] | None] = ((0.0, 0.0, 0.0), (1.0, 1.0, 1.0))
    space: str = "rgb"
    direction: float = 0.0
    hue_cycles: float = 0.0
    tint: float = 0.0

    @cached_property
    def ramp(self) -> Floats:
        """(256, 4): drives of red, green, blue, and how much of the base; from the first stop to the last, over the cycle back to
        the first."""
        stops = list(self.stops) or [(1.0, 1.0, 1.0)]
        if self.over == "cycle" and len(stops) > 1:
            stops.append(stops[0])
        if len(stops) == 1:
            stops.append(stops[0])
        at = np.linspace(0, len(stops) - 1, _STEPS)
        first = np.minimum(at.astype(int), len(stops) - 2)
        found = np.zeros((_STEPS, 4))
        for n in range(len(stops) - 1):
            here = first == n
            share = at[here] - n
            one, two = stops[n], stops[n + 1]
            if one is not None and two is not None:
                found[here, :3] = along(self.space, np.array(one, float), np.array(two, float), share)
                continue
            weights = (1 - share, share)
            for stop, weight in zip((one, two), weights, strict=True):
                found[here, :3] += weight[:, None] * np.array(stop if stop is not None else (0.0, 0.0, 0.0))
                found[here, 3] += weight if stop is None else 0.0
        return found

    @cached_property
    def _planes(self) -> Singles:
        """The ramp, (4, 256)."""
        return np.ascontiguousarray(self.ramp.T, np.float32)

    def colours(self, points: Points, value: Singles, theta: float, base: Singles) -> Singles:
        """Drives (3, P) for the values of a figure; base (3, P): of what is beneath."""
        if self.over == "place":
            place = np.clip(points.along(self.direction), 0, 1)
        elif self.over == "cycle":
            place = np.full(len(value), theta % 1, np.float32)
        else:
            place = value
        return self._of(place, theta, base)

    def own(self, rgb: Singles, theta: float, base: Singles) -> Singles:
        """Own colours (3, P), tinted."""
        if self.hue_cycles:
            rgb = _hue_moved(rgb.T.astype(float), self.hue_cycles * theta).T.astype(np.float32)
        if self.tint <= 0:
            return rgb
        tinted: Singles = rgb + np.float32(self.tint) * (self._of(brightness(rgb), theta, base) - rgb)
        return tinted

    def _of(self, place: Singles, theta: float, base: Singles) -> Singles:
        planes = self._planes
        if self.hue_cycles:
            planes = np.vstack([_hue_moved(self.ramp[:, :3], self.hue_cycles * theta).T, planes[3:]]).astype(np.float32)
        at = (place * np.float32(_STEPS - 0.01)).astype(np.intp)
        rgb: Singles = np.empty((3, len(at)), np.float32)
        for plane, drive in zip(planes[:3], rgb, strict=True):
            np.take(plane, at, out=drive, mode="clip")
        return rgb + planes[3, at] * base if BASE in self.stops else rgb


def _hue_moved(rgb: Floats, cycles: float) -> Floats:
    hsv = rgb_to_hsv(rgb)
    hsv[:, 0] = (hsv[:, 0] + 360 * (cycles % 1)) % 360
    return hsv_to_rgb(hsv)


_BRIGHTNESS = np.array([0.2126, 0.7152, 0.0722], np.float32)


def brightness(rgb: Singles) -> Singles:
    """0.2126 r + 0.7152 g + 0.0722 b of drives (3, …)."""
    return np.tensordot(_BRIGHTNESS, rgb, 1).astype(np.float32)
