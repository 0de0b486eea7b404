"""One colour in every way it can be picked and read: drives, flags, hue, even to the eye, white light."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.naming import in_words
from zarabanda.core.colour.spaces import hsv_to_rgb, oklch_to_rgb, rgb_to_hex, rgb_to_hsv, rgb_to_oklab, rgb_to_oklch
from zarabanda.core.colour.white import white

Floats = NDArray[np.float64]

WARMEST_K, COLDEST_K = 1_800.0, 20_000.0


@dataclass(frozen=True)
class Part:
    """One number of a way to pick: label, unit, range; circle: the range closes on itself."""

    label: str
    unit: str
    low: float
    high: float
    circle: bool = False


@dataclass(frozen=True)
class Picker:
    """A way to pick a colour. parts: its numbers; to_rgb: these, (n,), to drives (3,); of: drives to these."""

    label: str
    parts: tuple[Part, ...]
    to_rgb: Callable[[Floats], Floats]
    of: Callable[[Floats], Floats]


def _percent(*labels: str) -> tuple[Part, ...]:
    return tuple(Part(label, "%", 0, 100) for label in labels)


_HUE = Part("Hue", "°", 0, 360, circle=True)
_HSV_SCALE = np.array([1.0, 0.01, 0.01])
_OKLCH_SCALE = np.array([0.01, 1.0, 1.0])


def nearest_white(rgb: Floats) -> Floats:
    """Temperature in K and tint in % of the white light nearest to a colour (3,) in OKLab, at the colour's own brightness."""
    peak = float(rgb.max())
    aim = rgb_to_oklab(rgb / peak if peak > 0 else np.ones(3))
    mireds, tints = np.linspace(1e6 / COLDEST_K, 1e6 / WARMEST_K, 60), np.linspace(-100, 100, 41)
    for _ in range(3):
        mired, tint = (grid.ravel() for grid in np.meshgrid(mireds, tints))
        best = int(np.linalg.norm(rgb_to_oklab(white(1e6 / mired, tint)) - aim, axis=-1).argmin())
        step, slant = mireds[1] - mireds[0], tints[1] - tints[0]
        mireds = np.clip(np.linspace(mired[best] - step, mired[best] + step, 21), 1e6 / COLDEST_K, 1e6 / WARMEST_K)
        tints = np.clip(np.linspace(tint[best] - slant, tint[best] + slant, 21), -100, 100)
    return np.array([1e6 / mired[best], tint[best]])


PICKERS: dict[str, Picker] = {
    "rgb": Picker("RGB", _percent("Red", "Green", "Blue"), lambda v: v / 100, lambda rgb: rgb * 100),
    "cmy": Picker("CMY", _percent("Cyan", "Magenta", "Yellow"), lambda v: 1 - v / 100, lambda rgb: (1 - rgb) * 100),
    "hsv": Picker(
        "HSV", (_HUE, *_percent("Saturation", "Value")),
        lambda v: hsv_to_rgb((v * _HSV_SCALE)[None])[0], lambda rgb: rgb_to_hsv(rgb[None])[0] / _HSV_SCALE,
    ),
    "oklch": Picker(
        "OKLCH", (Part("Lightness", "%", 0, 100), Part("Chroma", "", 0, 0.4), _HUE),
        lambda v: oklch_to_rgb(v * _OKLCH_SCALE), lambda rgb: rgb_to_oklch(rgb) / _OKLCH_SCALE,
    ),
    "white": Picker(
        "White", (Part("Temperature", "K", WARMEST_K, COLDEST_K), Part("Tint", "%", -100, 100)),
        lambda v: white(v[0], v[1]), nearest_white,
    ),
}  # fmt: skip
"""Ways to pick a colour. White light is at full; a tint is towards green (−) or magenta (+)."""


def picked(picker: str, numbers: Sequence[float]) -> Floats:
    """Drives (3,) of what was picked, 0…1. ValueError says which number is out of range, or how many are needed."""
    way = PICKERS[picker]
    if len(numbers) != len(way.parts):
        raise ValueError(f"{way.label} needs {len(way.parts)} numbers: {', '.join(part.label for part in way.parts)}")
    for part, number in zip(way.parts, numbers, strict=True):
        if not part.low <= number <= part.high:
            limits = f"{part.low:g} to {part.high:g} {part.unit}".strip()
            raise ValueError(f"{part.label} {number:g} is out of range; it goes from {limits}")
    return np.clip(way.to_rgb(np.array(numbers, float)), 0, 1)


def read(rgb: Floats) -> dict[str, list[float]]:
    """A colour (3,) as numbers of every picker."""
    return {name: [round(one, 4) for one in picker.of(np.asarray(rgb, float)).tolist()] for name, picker in PICKERS.items()}


def told(rgb: Floats) -> str:
    """A colour (3,) in words and numbers: `coral red, #ff4f3a`."""
    return f"{in_words(rgb)}, {rgb_to_hex(rgb)}"
