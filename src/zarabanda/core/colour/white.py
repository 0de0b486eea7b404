"""White light by its temperature and tint, and colour mixed with it (docs/computation.md, "White")."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

WARMEST_K, COLDEST_K = 1_667.0, 25_000.0
"""Where the formula holds."""
NEUTRAL_K = 6_500.0
"""White of this temperature is full drive of red, green and blue."""
_TINT = 0.3
"""Share of the light that is taken off at full tint."""
_TO_RGB = np.array([[3.2406, -1.5372, -0.4986], [-0.9689, 1.8758, 0.0415], [0.0557, -0.2040, 1.0570]])


def chromaticity(kelvin: Floats) -> tuple[Floats, Floats]:
    """x and y of a black body: the cubic fit of B. Kim and others (2002), 1,667 K to 25,000 K."""
    k = 1000 / kelvin
    x = np.where(
        kelvin <= 4000,
        np.polyval([-0.2661239, -0.2343589, 0.8776956, 0.179910], k),
        np.polyval([-3.0258469, 2.1070379, 0.2226347, 0.240390], k),
    )
    y = np.select(
        [kelvin <= 2222, kelvin <= 4000],
        [
            np.polyval([-1.1063814, -1.34811020, 2.18555832, -0.20219683], x),
            np.polyval([-0.9549476, -1.37418593, 2.09137015, -0.16748867], x),
        ],
        np.polyval([3.0817580, -5.87338670, 3.75112997, -0.37001483], x),
    )
    return x, y


def chromaticity_to_drives(x: Floats, y: Floats) -> Floats:
    """Drives (..., 3), not brought to a common largest, of light of CIE 1931 chromaticity x, y, each (...); y above 0."""
    linear = np.stack([x / y, np.ones_like(x), (1 - x - y) / y], axis=-1) @ _TO_RGB.T
    linear = np.clip(linear, 0, None)
    return np.asarray(np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * np.power(linear, 1 / 2.4) - 0.055), float)


def drives_to_chromaticity(drives: Floats) -> tuple[float, float, float]:
    """CIE 1931 x, y and luminance 0…1 of light of these drives (3,); of none: those of neutral white, and nought."""
    linear = np.where(drives <= 0.04045, drives / 12.92, ((drives + 0.055) / 1.055) ** 2.4)
    x, y, z = (float(one) for one in np.linalg.solve(_TO_RGB, linear))
    total = x + y + z
    return (x / total, y / total, y) if total > 1e-9 else (0.3127, 0.3290, 0.0)


def _drives(kelvin: Floats) -> Floats:
    return chromaticity_to_drives(*chromaticity(np.clip(kelvin, WARMEST_K, COLDEST_K)))


_NEUTRAL = _drives(np.array([NEUTRAL_K]))[0]


def white(kelvin: Floats, tint: Floats) -> Floats:
    """Drives (..., 3) of red, green and blue of white light, the largest of them 1.

    kelvin: temperature, (...), kept within the formula's range; tint: −100 to 100 %, towards green or towards magenta.
    """
    drives = _drives(np.asarray(kelvin, float)) / _NEUTRAL
    share = np.asarray(tint, float)[..., None] / 100 * _TINT
    drives = drives * (1 - np.where([False, True, False], np.maximum(share, 0), np.maximum(-share, 0)))
    return np.asarray(drives / drives.max(axis=-1, keepdims=True), float)


def with_white(rgb: Floats, kelvin: Floats, tint: Floats, mix: Floats) -> Floats:
    """Colour (n, 3) that goes over into white: mix 0 % is the colour, 100 % the white; NaN: none is mixed, and the white
    filters the colour."""
    light = white(kelvin, tint)
    share = np.nan_to_num(mix)[:, None] / 100
    return np.asarray(np.where(np.isnan(mix)[:, None], rgb * light, rgb + (light - rgb) * share), float)


def warm_and_cold(kelvin: Floats, warmest: Floats, coldest: Floats) -> Floats:
    """Drives (n, 2) of a warm and a cold emitter, together 1, evenly by mired (1,000,000 / K). warmest, coldest: theirs, in K."""
    span = 1 / coldest - 1 / warmest
    share = np.clip((1 / np.asarray(kelvin, float) - 1 / warmest) / np.where(span == 0, -1e-12, span), 0, 1)
    return np.stack([1 - share, share], axis=-1)
