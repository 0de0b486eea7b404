"""Colour: spaces for fading, emitter mappings, appearance (docs/computation.md, "Colour").

Colours are arrays (..., 3) of drive 0…1 of red, green, blue, shown on screen as sRGB as they stand.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.clamp import to_unit

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

_GREY = 1e-9
_GREY_OKLCH = 1e-5


def hex_to_rgb(text: str) -> tuple[float, float, float]:
    """`#rrggbb` to drives.

    >>> hex_to_rgb("#ff0033")
    (1.0, 0.0, 0.2)
    """
    return (int(text[1:3], 16) / 255, int(text[3:5], 16) / 255, int(text[5:7], 16) / 255)


def rgb_to_hex(rgb: Floats) -> str:
    """Drives 0…1 to `#rrggbb`.

    >>> rgb_to_hex(np.array([1.0, 0.5, 0.0]))
    '#ff8000'
    """
    return "#" + "".join(f"{int(np.floor(one * 255 + 0.5)):02x}" for one in np.clip(rgb, 0, 1).tolist())


_TINY = 1e-20


def rgb_to_hsv_planes(rgb: Floats) -> tuple[Floats, Floats, Floats]:
    """Hue in degrees 0…360, saturation and value 0…1, (...) each, of planes (3, ...) of drives. A grey has hue 0."""
    hue, chroma, least = rgb_to_hue_planes(rgb)
    value = chroma + least
    return hue, chroma / np.maximum(value, _TINY), value


def hsv_to_rgb_planes(hue: Floats, saturation: Floats, value: Floats, out: Floats | None = None) -> Floats:
    """The way back, to planes (3, ...); hue in degrees, any turn. out: where the planes go, if not to a new array."""
    chroma = saturation * value
    return hue_to_rgb_planes(hue, chroma, value - chroma, out)


def rgb_to_hue_planes(rgb: Floats) -> tuple[Floats, Floats, Floats]:
    """Hue in degrees 0…360, and what stays when it turns: the chroma (largest less least drive), and the least drive.

    rgb: planes (3, ...). Sorted by swapping and without branches (after S. Hocevar): `turn` says which drives were
    swapped, in degrees.
    """
    red, green, blue = rgb
    larger, smaller = np.maximum(green, blue), np.minimum(green, blue)
    turn = (green < blue).astype(red.dtype)
    turn *= -360
    swapped = (red < larger).astype(red.dtype)
    chroma = np.maximum(red, larger)
    middle = np.minimum(red, larger, out=larger)
    least = np.minimum(middle, smaller)
    chroma -= least
    hue = middle
    hue -= smaller
    divisor = np.add(chroma, _TINY, out=smaller)
    hue /= divisor
    hue *= 60
    back = np.multiply(turn, 2, out=divisor)
    back += 120
    swapped *= back
    turn -= swapped
    hue += turn
    return np.abs(hue, out=hue), chroma, least


_CORNERS = np.array([3.0, 2.0, 4.0])
"""Sextants of the hue circle at which red is 0, and green and blue are full."""


def hue_to_rgb_planes(hue: Floats, chroma: Floats, least: Floats, out: Floats | None = None) -> Floats:
    """The way back, to planes (3, ...); hue in degrees, any turn. out: where the planes go, if not to a new array."""
    sextant = hue / 360
    sextant -= np.floor(sextant)
    sextant *= 6
    corners = _CORNERS.astype(hue.dtype).reshape(3, *[1] * hue.ndim)
    rgb = np.subtract(sextant, corners, out=out)
    np.abs(rgb, out=rgb)
    red, others = rgb[0], rgb[1:]
    red -= 1
    np.subtract(2, others, out=others)
    to_unit(rgb)
    rgb *= chroma
    rgb += least
    return rgb


def rgb_to_hsv(rgb: Floats) -> Floats:
    """`rgb_to_hsv_planes` of colours (..., 3)."""
    return np.stack(rgb_to_hsv_planes(np.moveaxis(rgb, -1, 0)), axis=-1)


def hsv_to_rgb(hsv: Floats) -> Floats:
    """`hsv_to_rgb_planes` of colours (..., 3)."""
    return np.moveaxis(hsv_to_rgb_planes(hsv[..., 0], hsv[..., 1], hsv[..., 2]), 0, -1)


_TO_LMS = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
_TO_LAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)
_FROM_LMS, _FROM_LAB = np.linalg.inv(_TO_LMS), np.linalg.inv(_TO_LAB)


def rgb_to_oklab(rgb: Floats) -> Floats:
    """Drives, read as sRGB, to OKLab (Ottosson, 2020): lightness 0…1, a, b."""
    linear = np.where(rgb <= 0.04045, rgb / 12.92, (np.maximum(rgb, 0) + 0.055) ** 2.4 / 1.055**2.4)
    result: Floats = np.cbrt(linear @ _TO_LMS.T) @ _TO_LAB.T
    return result


def oklab_to_rgb(lab: Floats) -> Floats:
    """The way back, clipped to drives 0…1."""
    linear = (lab @ _FROM_LAB.T) ** 3 @ _FROM_LMS.T
    coded = np.where(linear <= 0.0031308, linear * 12.92, 1.055 * np.maximum(linear, 0) ** (1 / 2.4) - 0.055)
    return np.clip(coded, 0, 1)


def rgb_to_oklch(rgb: Floats) -> Floats:
    """Lightness, chroma, hue in degrees 0…360."""
    lab = rgb_to_oklab(rgb)
    hue = np.degrees(np.arctan2(lab[..., 2], lab[..., 1])) % 360
    return np.stack([lab[..., 0], np.hypot(lab[..., 1], lab[..., 2]), hue], axis=-1)


def oklch_to_rgb(lch: Floats) -> Floats:
    """The way back, clipped to drives 0…1."""
    angle = np.radians(lch[..., 2])
    return oklab_to_rgb(np.stack([lch[..., 0], lch[..., 1] * np.cos(angle), lch[..., 1] * np.sin(angle)], axis=-1))


_SAME_HUE = 1e-6


def hue_step(start: Floats, end: Floats, long: bool = False) -> Floats:
    """Degrees to go on the hue circle from start to end: the short way, or the long way; exactly opposite: upwards.

    The long way between equal hues is to stay. What differs by less than a millionth of a degree is equal: a colour that has
    been computed must not go all the way round to itself.
    """
    step = (end - start) % 360
    short = np.where(step <= 180 + _SAME_HUE, step, step - 360)
    if not long:
        return short
    stays = (np.abs(short) < _SAME_HUE) | (short >= 180 - _SAME_HUE)
    return np.where(stays, short, np.where(short > 0, short - 360, short + 360))


def _without_grey(hue_a: Floats, grey_a: Bools, hue_b: Floats, grey_b: Bools) -> tuple[Floats, Floats]:
    """Hues of two ends, a grey end taking that of the other."""
    hue_a = np.where(grey_a, hue_b, hue_a)
    return hue_a, np.where(grey_b, hue_a, hue_b)


def _hsv_way(start: Floats, end: Floats, long: bool) -> tuple[Floats, Floats]:
    a, b = rgb_to_hsv(start), rgb_to_hsv(end)
    a[..., 0], b[..., 0] = _without_grey(a[..., 0], a[..., 1] * a[..., 2] <= _GREY, b[..., 0], b[..., 1] * b[..., 2] <= _GREY)
    step = b - a
    step[..., 0] = hue_step(a[..., 0], b[..., 0], long)
    return a, step


def _oklch_way(start: Floats, end: Floats) -> tuple[Floats, Floats]:
    a, b = rgb_to_oklch(start), rgb_to_oklch(end)
    a[..., 2], b[..., 2] = _without_grey(a[..., 2], a[..., 1] <= _GREY_OKLCH, b[..., 2], b[..., 1] <= _GREY_OKLCH)
    step = b - a
    step[..., 2] = hue_step(a[..., 2], b[..., 2])
    return a, step


@dataclass(frozen=True, slots=True)
class Space:
    """A space for fading. way: colours (..., 3), (..., 3) to where the way begins and how far it goes, in its coordinates;
    to_rgb: planes (3, ...) of coordinates to planes of drives."""

    way: Callable[[Floats, Floats], tuple[Floats, Floats]]
    to_rgb: Callable[[Floats], Floats]

    def __call__(self, start: Floats, end: Floats, share: Floats) -> Floats:
        """Planes (3, n) at `share` (n,) of the way from colours start (n, 3) to end (n, 3)."""
        begin, step = self.way(start, end)
        return self.to_rgb(begin.T + step.T * share)


SPACES: dict[str, Space] = {
    "rgb": Space(lambda a, b: (a, b - a), lambda at: at),
    "cmy": Space(lambda a, b: (a, b - a), lambda at: at),  # 1 − the way of 1 − a to 1 − b: the same straight line
    "hsv-short": Space(lambda a, b: _hsv_way(a, b, long=False), lambda at: hsv_to_rgb_planes(*at)),
    "hsv-long": Space(lambda a, b: _hsv_way(a, b, long=True), lambda at: hsv_to_rgb_planes(*at)),
    "oklch": Space(_oklch_way, lambda at: np.moveaxis(oklch_to_rgb(np.moveaxis(at, 0, -1)), -1, 0)),
}


def rgb_to_rgbw(rgb: Floats) -> Floats:
    """(n, 3) to (n, 4): white takes the common part, which is taken off the others."""
    white = rgb.min(axis=-1, keepdims=True)
    return np.concatenate([rgb - white, white], axis=-1)


def rgb_to_rgbaw(rgb: Floats) -> Floats:
    """(n, 3) to (n, 5), order red, green, blue, amber, white: white first, then amber takes min(r, 2g) of what is left."""
    left = rgb_to_rgbw(rgb)
    amber = np.minimum(left[..., 0], 2 * left[..., 1])
    return np.stack([left[..., 0] - amber, left[..., 1] - amber / 2, left[..., 2], amber, left[..., 3]], axis=-1)


def nearest_slot(rgb: Floats, wheel: Floats) -> tuple[NDArray[np.int64], Floats]:
    """Slot of a colour wheel nearest in OKLab, (n,), and the difference there, (n,). rgb (n, 3), wheel (slots, 3)."""
    distance = np.linalg.norm(rgb_to_oklab(rgb)[:, None] - rgb_to_oklab(wheel)[None], axis=-1)
    slot = distance.argmin(axis=1)
    return slot, distance[np.arange(len(rgb)), slot]


def subtractive_appearance(rgb: Floats) -> Floats:
    """What a CMY fixture shows for drives rgb: each band passes (1 − flag)², flag = 1 − drive."""
    return rgb * rgb
