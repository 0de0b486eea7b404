"""Output mapping: natural values to emitter drives to DMX bytes, all heads at once (docs/computation.md, "Output")."""

from __future__ import annotations

import numpy as np
from numpy.typing import DTypeLike, NDArray

from . import attributes, colour
from .rig import EMITTERS, Rig, emitter_rows

Floats = NDArray[np.float64]

_RGB = [attributes.RED, attributes.GREEN, attributes.BLUE]


_HALF_UP_MARGIN = {"d": 1e-10, "f": 3e-7}
"""Share of the full level by which a half may come out too small, and still is rounded up, by precision."""


def _side_by_side(heads: NDArray[np.int64]) -> NDArray[np.int64] | slice:
    """The heads as a slice where they follow one another: slices cost no copies."""
    together = len(heads) and (np.diff(heads) == 1).all()
    return slice(int(heads[0]), int(heads[-1]) + 1) if together else heads


class Mapper:
    """Maps values (A, N) to bytes (universes, 512); keeps its index arrays and buffers between frames."""

    def __init__(self, rig: Rig, precision: DTypeLike = np.float64) -> None:
        self._rig = rig
        self._rows = emitter_rows(rig.emitter_heads)
        self._places = {name: _side_by_side(heads) for name, heads in rig.emitter_heads.items()}
        drives = sum(len(EMITTERS[name]) * count for name, (_, count) in self._rows.items())
        self._size = attributes.COUNT * len(rig)
        self._all = np.zeros(self._size + drives, precision)
        self.values = self._all[: self._size].reshape(attributes.COUNT, len(rig))
        """Values (A, N), followed by the emitters' drives: what is put here need not be copied."""
        output = rig.output
        order = np.argsort(output.bits, kind="stable")  # channels of one byte first
        full = (2.0**output.bits - 1)[order]
        span = np.where(output.span == 0, 1, output.span)[order]
        self._source = output.source[order]
        exact = np.float64 if (output.bits > 16).any() else precision
        scale = full / span
        half_up = 0.5 + full * _HALF_UP_MARGIN[np.dtype(precision).char]
        self._scale = scale.astype(exact)
        self._shift = (half_up - output.low[order] * scale).astype(exact)
        self._full = (full + 0.75).astype(exact)
        self._exact: DTypeLike = exact
        # every byte of every channel, by where it comes from in `parts` and where it goes
        self._single = int((output.bits == 8).sum())
        self._longer = [
            (np.flatnonzero(output.bits[order] == bits), [bits - 8 * (n + 1) for n in range(bits // 8)]) for bits in (16, 24)
        ]
        columns = (output.coarse[order], output.middle[order], output.fine[order])
        slots = [columns[0][: self._single]]
        for channels, shifts in self._longer:
            slots += [columns[n][channels] for n in range(len(shifts))]
        self._slot = np.concatenate(slots)
        self._parts = np.zeros(len(self._slot), np.uint8)
        self._bytes = np.zeros((len(rig.universes), 512), np.uint8)

    def bytes(self, values: Floats) -> NDArray[np.uint8]:
        """Bytes (universes, 512), in a buffer that the next call overwrites. values: (A, N), clamped, levels applied."""
        if values is not self.values:
            self.values[:] = values
        self._emitters(values)
        level = self._all[self._source].astype(self._exact, copy=False)
        level *= self._scale
        level += self._shift
        np.maximum(level, 0.0, out=level)
        np.minimum(level, self._full, out=level)
        whole = level.astype(np.int32)
        at = self._single
        self._parts[:at] = whole[:at]
        for channels, shifts in self._longer:
            if len(channels):
                own = whole[channels]
                for shift in shifts:
                    self._parts[at : at + len(channels)] = own >> shift
                    at += len(channels)
        self._bytes.ravel()[self._slot] = self._parts
        return self._bytes

    def _emitters(self, values: Floats) -> None:
        rig = self._rig
        for name, heads in self._places.items():
            start, count = self._rows[name]
            names = EMITTERS[name]
            if not names:
                continue
            planes = [values[row, heads] for row in _RGB]
            if rig.dims[heads].any():
                level = values[attributes.INTENSITY, heads] / 100
                if not rig.dims[heads].all():
                    level = np.where(rig.dims[heads], level, 1.0)
                planes = [plane * level for plane in planes]
            at = self._size + start
            self._all[at : at + count * len(names)].reshape(len(names), count)[:] = self._drives(name, planes, heads)

    def _drives(self, name: str, planes: list[Floats], heads: NDArray[np.int64] | slice) -> Floats | list[Floats]:
        """Drives (names, heads) for planes of red, green and blue."""
        if name == "rgb":
            return planes
        if name == "cmy":
            return [1 - plane for plane in planes]
        rgb = np.stack(planes, axis=-1)
        if name == "rgbw":
            return colour.rgb_to_rgbw(rgb).T
        if name == "rgbaw":
            return colour.rgb_to_rgbaw(rgb).T
        if name == "hue-saturation":
            hue, saturation, _ = colour.rgb_to_hsv_planes(*planes)
            return [hue, saturation * 100]
        slots = np.zeros((1, len(rgb)))
        for number, wheel in enumerate(self._rig.wheels):
            own = self._rig.wheel_of[heads] == number
            if own.any():
                slots[0, own] = colour.nearest_slot(rgb[own], wheel)[0]
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
