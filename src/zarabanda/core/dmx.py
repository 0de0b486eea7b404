"""Output mapping: natural values to emitter drives to DMX bytes, all heads at once (docs/computation.md, "Output")."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from . import attributes, colour
from .rig import EMITTERS, Rig, emitter_rows

Floats = NDArray[np.float64]

_RGB = [attributes.RED, attributes.GREEN, attributes.BLUE]


def _hue_saturation(rgb: Floats) -> Floats:
    hsv = colour.rgb_to_hsv(rgb)
    return np.stack([hsv[:, 0], hsv[:, 1] * 100], axis=-1)


class Mapper:
    """Maps values (A, N) to bytes (universes, 512); keeps its index arrays and buffers between frames."""

    def __init__(self, rig: Rig) -> None:
        self._rig = rig
        rows = emitter_rows(rig.emitter_heads)
        drives = sum(len(EMITTERS[name]) * count for name, (_, count) in rows.items())
        self._rows = rows
        self._size = attributes.COUNT * len(rig)
        self._all = np.zeros(self._size + drives)
        output = rig.output
        self._full = 2.0**output.bits - 1
        self._span = np.where(output.span == 0, 1, output.span)
        self._bytes = np.zeros((len(rig.universes), 512), np.uint8)
        # one entry a byte: which channel it is of, how far its bits are shifted down, where it goes
        columns = (output.coarse, output.middle, output.fine)
        channel = [np.flatnonzero(column >= 0) for column in columns]
        self._channel = np.concatenate(channel)
        self._shift = np.concatenate([output.bits[c] - 8 * (n + 1) for n, c in enumerate(channel)])
        self._slot = np.concatenate([column[c] for column, c in zip(columns, channel, strict=True)])

    def bytes(self, values: Floats) -> NDArray[np.uint8]:
        """Bytes (universes, 512), in a buffer that the next call overwrites. values: (A, N), clamped, levels applied."""
        self._all[: self._size] = values.ravel()
        self._emitters(values)
        output = self._rig.output
        level = (self._all[output.source] - output.low) / self._span * self._full
        np.clip(level, 0, self._full, out=level)
        whole = (level + 0.5).astype(np.int64)
        self._bytes.ravel()[self._slot] = (whole[self._channel] >> self._shift) & 255
        return self._bytes

    def _emitters(self, values: Floats) -> None:
        rig = self._rig
        for name, heads in rig.emitter_heads.items():
            start, count = self._rows[name]
            names = EMITTERS[name]
            if not names:
                continue
            rgb = values[_RGB][:, heads].T
            if rig.dims[heads].any():
                level = np.where(rig.dims[heads], values[attributes.INTENSITY, heads] / 100, 1.0)
                rgb = rgb * level[:, None]
            drives = self._drives(name, rgb, heads)
            at = self._size + start
            self._all[at : at + count * len(names)] = drives.T.ravel()

    def _drives(self, name: str, rgb: Floats, heads: NDArray[np.int64]) -> Floats:
        if name == "rgb":
            return rgb
        if name == "rgbw":
            return colour.rgb_to_rgbw(rgb)
        if name == "rgbaw":
            return colour.rgb_to_rgbaw(rgb)
        if name == "cmy":
            return np.asarray(1 - rgb, float)
        if name == "hue-saturation":
            return _hue_saturation(rgb)
        slots = np.zeros((len(heads), 1))
        for number, wheel in enumerate(self._rig.wheels):
            own = self._rig.wheel_of[heads] == number
            if own.any():
                slots[own, 0] = colour.nearest_slot(rgb[own], wheel)[0]
        return slots


def appearance(rig: Rig, values: Floats) -> Floats:
    """What is seen of each head, (N, 3) drive 0…1 at its intensity, for pictures on screen. values: (A, N)."""
    level = np.clip(values[attributes.INTENSITY] / 100, 0, 1)
    rgb = np.where(rig.mixes[:, None], values[_RGB].T, rig.light)
    rgb = np.where(rig.subtractive[:, None], colour.subtractive_appearance(rgb), rgb)
    for number, wheel in enumerate(rig.wheels):
        own = np.flatnonzero(rig.wheel_of == number)
        rgb[own] = wheel[colour.nearest_slot(values[_RGB][:, own].T, wheel)[0]]
    return np.asarray(np.clip(rgb * level[:, None], 0, 1), float)
