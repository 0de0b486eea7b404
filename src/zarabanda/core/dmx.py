"""Output mapping: natural values to emitter drives to DMX bytes, all heads at once (docs/computation.md, "Output")."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import DTypeLike, NDArray

from . import attributes, colour
from .neighbours import side_by_side
from .rig import EMITTERS, Output, Rig, emitter_rows

Floats = NDArray[np.float64]

_RGB = [attributes.RED, attributes.GREEN, attributes.BLUE]


_CUTS = {8: ("u1", 1), 16: (">u2", 2), 24: (">u4", 3)}
"""How a level becomes bytes, by bits: as which number, most significant byte first, and how many of its bytes are used."""

_FEW = 24
"""Up to so many stretches, going through them is quicker than looking up each channel."""
_HALF_UP_MARGIN = {"d": 1e-10, "f": 3e-7}
"""Share of the full level by which a half may come out too small, and still is rounded up, by precision."""


class _Channels:
    """Some channels of a rig: where each comes from, how it becomes a number, and where its bytes go."""

    def __init__(self, output: Output, chosen: NDArray[np.bool_], precision: DTypeLike) -> None:
        order = np.flatnonzero(chosen)[np.lexsort((output.source[chosen], output.bits[chosen]))]
        bits = output.bits[order]
        full = 2.0**bits - 1
        exact = np.float64 if (bits > 16).any() else precision
        scale = full / np.where(output.span == 0, 1, output.span)[order]
        half_up = 0.5 + full * _HALF_UP_MARGIN[np.dtype(precision).char]
        self._source = output.source[order]
        breaks = np.flatnonzero(np.diff(self._source) != 1) + 1
        ends = [0, *breaks.tolist(), len(order)]
        self._stretches: list[tuple[slice, slice]] = []  # neighbours that come from neighbours: copied without an index
        if len(ends) <= _FEW:
            for a, b in pairwise(ends):
                first = int(self._source[a]) if b > a else 0
                self._stretches.append((slice(a, b), slice(first, first + b - a)))
        self._scale = scale.astype(exact)
        self._shift = (half_up - output.low[order] * scale).astype(exact)
        self._full = (full + 0.75).astype(exact)
        self._none = np.zeros_like(self._full)
        self._exact: DTypeLike = exact
        self._runs: list[tuple[slice, slice, str, int]] = []  # of the channels, of their bytes, how these are cut out
        slots: list[NDArray[np.int64]] = []
        for size, (bytes_as, used) in _CUTS.items():
            own = np.flatnonzero(bits == size)
            if not len(own):
                continue
            columns = ("coarse", "middle", "fine")[:used]
            at = sum(map(len, slots))
            slots.append(np.stack([getattr(output, name)[order][own] for name in columns], axis=1).ravel())
            self._runs.append((slice(int(own[0]), int(own[-1]) + 1), slice(at, at + len(slots[-1])), bytes_as, used))
        self._slot = np.concatenate(slots) if slots else np.zeros(0, np.int64)
        self._parts = np.zeros(len(self._slot), np.uint8)

    def write(self, values: Floats, into: NDArray[np.uint8]) -> None:
        """Put the bytes of these channels into `into` (universes · 512,). values: all that channels come from, flat."""
        if self._stretches:
            level = np.empty(len(self._source), self._exact)
            for to, come_from in self._stretches:
                np.multiply(values[come_from], self._scale[to], out=level[to])
        else:
            level = values.take(self._source, mode="clip") * self._scale
        level += self._shift
        np.maximum(level, self._none, out=level)
        np.minimum(level, self._full, out=level)
        for channels, at, bytes_as, used in self._runs:
            cut = level[channels].astype(bytes_as).view(np.uint8)
            self._parts[at] = cut if used < 3 else cut.reshape(-1, 4)[:, 1:].ravel()
        into[self._slot] = self._parts


@dataclass(frozen=True)
class Part:
    """The emitters and channels that follow certain values, from `Mapper.part`."""

    emitters: tuple[str, ...]
    channels: _Channels


class Mapper:
    """Maps values (A, N) to bytes (universes, 512); keeps its index arrays and buffers between frames."""

    def __init__(self, rig: Rig, precision: DTypeLike = np.float64) -> None:
        self._rig = rig
        self._precision = precision
        self._rows = emitter_rows(rig.emitter_heads)
        self._places = {name: side_by_side(heads) for name, heads in rig.emitter_heads.items()}
        self._dims = {name: (bool(rig.dims[heads].any()), bool(rig.dims[heads].all())) for name, heads in self._places.items()}
        drives = sum(len(EMITTERS[name]) * count for name, (_, count) in self._rows.items())
        self._size = attributes.COUNT * len(rig)
        self._all = np.zeros(self._size + drives, precision)
        self.values = self._all[: self._size].reshape(attributes.COUNT, len(rig))
        """Values (A, N), followed by the emitters' drives: what is put here need not be copied."""
        self._bytes = np.zeros((len(rig.universes), 512), np.uint8)
        self._whole = self.part(np.ones(self.values.shape, bool))

    def part(self, touched: NDArray[np.bool_]) -> Part:
        """What follows the touched values, (A, N) true where a value can change."""
        follows, emitters = [touched.ravel()], []
        for name, heads in self._places.items():
            if EMITTERS[name]:
                drive = touched[_RGB][:, heads].any(axis=0) | (touched[attributes.INTENSITY, heads] & self._rig.dims[heads])
                follows.append(np.tile(drive, len(EMITTERS[name])))
                emitters += [name] if drive.any() else []
        chosen = np.concatenate(follows)[self._rig.output.source]
        return Part(tuple(emitters), _Channels(self._rig.output, chosen, self._precision))

    def bytes(self, values: Floats, part: Part | None = None) -> NDArray[np.uint8]:
        """Bytes (universes, 512), in a buffer that the next call overwrites. values: (A, N), clamped, levels applied.

        part: only its channels are written; the others keep their bytes.
        """
        if values is not self.values:
            self.values[:] = values
        part = part or self._whole
        self._emitters(values, part.emitters)
        part.channels.write(self._all, self._bytes.ravel())
        return self._bytes

    def _emitters(self, values: Floats, which: tuple[str, ...]) -> None:
        for name in which:
            heads, names = self._places[name], EMITTERS[name]
            start, count = self._rows[name]
            planes = [values[row, heads] for row in _RGB]
            some, every = self._dims[name]
            if some:
                level = values[attributes.INTENSITY, heads] / 100
                if not every:
                    level = np.where(self._rig.dims[heads], level, 1.0)
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
