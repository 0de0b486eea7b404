"""Output mapping: natural values to emitter drives to DMX bytes, all heads at once (docs/computation.md, "Output")."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.colour import spaces as colour
from zarabanda.core.colour.white import warm_and_cold, white, with_white
from zarabanda.core.neighbours import side_by_side
from zarabanda.core.rig import attributes
from zarabanda.core.rig.curves import CurveTable
from zarabanda.core.rig.modes import EMITTERS
from zarabanda.core.rig.rig import Output, Rig, emitter_rows, straight_sources

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bytes = NDArray[np.uint8]

_RGB = [attributes.RED, attributes.GREEN, attributes.BLUE]
_WHITE = [attributes.TEMPERATURE, attributes.TINT, attributes.WHITE_MIX]


_CUTS = {8: ("u1", 1), 16: (">u2", 2), 24: (">u4", 3)}
"""How a level becomes bytes, by bits: as which number, most significant byte first, and how many of its bytes are used."""

_FEW = 24
"""Up to so many stretches, going through them is quicker than looking up each channel."""
_HALF_UP_MARGIN = {"d": 1e-10, "f": 3e-7}
"""Share of the full level by which a half may come out too small, and still is rounded up, by precision."""

_FAR_IN = 0.1
"""Share of a step by which levels must lie within their number for sure, so that they need not be kept in."""


class _Channels:
    """Some channels of a rig: where each comes from, how it becomes a number, and where its bytes go."""

    def __init__(
        self, output: Output, chosen: NDArray[np.bool_], limits: tuple[Floats, Floats], into: Bytes, precision: DTypeLike
    ) -> None:
        """limits: least and largest value of all that channels come from, flat. into: (universes · 512,)."""
        order = np.flatnonzero(chosen)[np.lexsort((output.source[chosen], output.bits[chosen]))]
        bits = output.bits[order]
        full = np.asarray(2.0**bits - 1, float)
        exact = np.float64 if (bits > 16).any() else precision
        scale = full / np.where(output.span == 0, 1, output.span)[order]
        half_up = 0.5 + full * _HALF_UP_MARGIN[np.dtype(precision).char]
        self._source = output.source[order]
        breaks = np.flatnonzero(np.diff(self._source) != 1) + 1
        ends = list(pairwise([0, *breaks.tolist(), len(order)]))
        self._stretches: list[tuple[slice, slice]] = []  # neighbours that come from neighbours: copied without an index
        if len(ends) <= _FEW:
            for a, b in ends:
                first = int(self._source[a]) if b > a else 0
                self._stretches.append((slice(a, b), slice(first, first + b - a)))
        self._scale = scale.astype(exact)
        shift = half_up - output.low[order] * scale
        self._shift = shift.astype(exact)
        self._level = np.zeros(len(order), exact)
        self._kept_in = _kept_in([limit[self._source] * scale + shift for limit in limits], full)
        self._full = (full + 0.75).astype(exact)[self._kept_in]
        self._none = np.zeros_like(self._full)
        self._runs: list[tuple[slice, slice, str, int]] = []  # of the channels, of their bytes, how these are cut out
        slots: list[Ints] = []
        for size, (bytes_as, used) in _CUTS.items():
            own = np.flatnonzero(bits == size)
            if not len(own):
                continue
            columns = ("coarse", "middle", "fine")[:used]
            at = sum(map(len, slots))
            slots.append(np.stack([getattr(output, name)[order][own] for name in columns], axis=1).ravel())
            self._runs.append((slice(int(own[0]), int(own[-1]) + 1), slice(at, at + len(slots[-1])), bytes_as, used))
        self._slot = np.concatenate(slots) if slots else np.zeros(0, np.int64)
        self._parts, self._into = np.zeros(len(self._slot), np.uint8), into

    def write(self, values: Floats) -> None:
        """Put the bytes of these channels in their slots. values: all that channels come from, flat."""
        level = self._level
        if self._stretches:
            for to, come_from in self._stretches:
                np.multiply(values[come_from], self._scale[to], out=level[to])
        else:
            np.multiply(values.take(self._source, mode="clip"), self._scale, out=level)
        level += self._shift
        if len(self._full):
            own = level[self._kept_in]
            np.maximum(own, self._none, out=own)
            np.minimum(own, self._full, out=own)
        for channels, at, bytes_as, used in self._runs:
            cut = level[channels].astype(bytes_as).view(np.uint8)
            self._parts[at] = cut if used < 3 else cut.reshape(-1, 4)[:, 1:].ravel()
        self._into[self._slot] = self._parts


def _kept_in(ends: list[Floats], full: Floats) -> slice:
    """From the first to the last channel whose level can leave its number. ends: levels at both limits; full: largest number."""
    (leaves,) = np.any([(level < _FAR_IN) | (level > full + 1 - _FAR_IN) for level in ends], axis=0).nonzero()
    return slice(int(leaves[0]), int(leaves[-1]) + 1) if len(leaves) else slice(0)


@dataclass(frozen=True)
class Part:
    """The emitters and channels that follow certain values, from `Mapper.part`."""

    emitters: tuple[str, ...]
    channels: _Channels


_NOT_DRIVES = ("hue-saturation", "wheel")
"""Emitters whose numbers are not drives 0…1."""


class Mapper:
    """Maps values (A, N) to bytes (universes, 512); keeps its index arrays and buffers between frames."""

    def __init__(self, rig: Rig, precision: DTypeLike = np.float64) -> None:
        self._rig = rig
        self._precision = precision
        self._rows = emitter_rows(rig.emitter_heads)
        self._places = {name: side_by_side(heads) for name, heads in rig.emitter_heads.items()}
        self._dims = {name: (bool(rig.dims[heads].any()), bool(rig.dims[heads].all())) for name, heads in self._places.items()}
        self._levelled = np.where(rig.led & rig.dims & rig.dims[rig.leader], rig.leader, -1)
        """(N,) the head whose level, without a channel, scales the colour of a cell."""
        self._scaled = {name: bool((self._levelled[heads] >= 0).any()) for name, heads in self._places.items()}
        self._white = {name: np.flatnonzero(rig.whitened[heads]) for name, heads in self._places.items()}
        self._size = attributes.COUNT * len(rig)
        self._straight = straight_sources(len(rig), rig.emitter_heads)
        self._curves = CurveTable(rig.output.curves)
        self._curved = [np.flatnonzero(rig.output.curved_by == n) for n in range(len(rig.output.curves))]
        self._all = np.zeros(self._straight + len(rig.output.curved_from), precision)
        self.values = self._all[: self._size].reshape(attributes.COUNT, len(rig))
        """Values (A, N), followed by the emitters' drives: what is put here need not be copied."""
        self._bytes = np.zeros((len(rig.universes), 512), np.uint8)
        at, byte = rig.output.rests
        self._bytes.reshape(-1)[at] = byte
        self._ends = (np.full(len(self._all), -np.inf), np.full(len(self._all), np.inf))
        for end, limit, drive in zip(self._ends, (rig.low, rig.high), (0.0, 1.0), strict=True):
            end[: self._size] = limit.ravel()
            for name, (start, count) in self._rows.items():
                if name not in _NOT_DRIVES:
                    end[self._size + start : self._size + start + count * len(EMITTERS[name])] = drive
        for end, share in zip(self._ends, (0.0, 1.0), strict=True):
            end[self._straight :] = share
        self._whole = self.part(np.ones(self.values.shape, bool))

    def part(self, touched: NDArray[np.bool_]) -> Part:
        """What follows the touched values, (A, N) true where a value can change."""
        follows, emitters = [touched.ravel()], []
        for name, heads in self._places.items():
            if EMITTERS[name]:
                drive = touched[_RGB][:, heads].any(axis=0) | (touched[attributes.INTENSITY, heads] & self._rig.dims[heads])
                drive |= touched[_WHITE][:, heads].any(axis=0) & self._rig.whitened[heads]
                leader = (self._rig.leader if name == "level" else self._levelled)[heads]
                drive |= touched[attributes.INTENSITY, leader] & (leader >= 0)
                if name == "level":
                    drive |= touched[attributes.INTENSITY, heads]
                follows.append(np.tile(drive, len(EMITTERS[name])))
                emitters += [name] if drive.any() else []
        straight = np.concatenate(follows)
        chosen = np.concatenate([straight, straight[self._rig.output.curved_from]])[self._rig.output.source]
        return Part(tuple(emitters), _Channels(self._rig.output, chosen, self._ends, self._bytes.reshape(-1), self._precision))

    def bytes(self, values: Floats, part: Part | None = None) -> Bytes:
        """Bytes (universes, 512), in a buffer that the next call overwrites. values: (A, N), clamped, levels applied.

        part: only its channels are written; the others keep their bytes.
        """
        if values is not self.values:
            self.values[:] = values
        part = part or self._whole
        self._emitters(values, part.emitters)
        for n, own in enumerate(self._curved):
            self._all[self._straight + own] = self._curves.shares(n, self._all[self._rig.output.curved_from[own]])
        part.channels.write(self._all)
        return self._bytes

    def _emitters(self, values: Floats, which: tuple[str, ...]) -> None:
        for name in which:
            heads, names = self._places[name], EMITTERS[name]
            start, count = self._rows[name]
            planes = values[attributes.RED : attributes.BLUE + 1, heads]
            at = self._size + start
            drives = self._all[at : at + count * len(names)].reshape(len(names), count)
            if name == "level":
                drives[0] = values[attributes.INTENSITY, heads] * values[attributes.INTENSITY, self._rig.leader[heads]] / 10_000
                continue
            if len(own := self._white[name]):
                planes = self._whitened(name, values, planes, own)
            some, every = self._dims[name]
            if some:
                level = values[attributes.INTENSITY, heads] / 100
                if not every:
                    level = np.where(self._rig.dims[heads], level, 1.0)
                if self._scaled[name]:
                    leader = self._levelled[heads]
                    level = level * np.where(leader >= 0, values[attributes.INTENSITY, leader] / 100, 1.0)
                planes = np.multiply(planes, level, out=drives if name == "rgb" else None)
            if planes is not drives:
                drives[:] = self._drives(name, planes, heads)

    def _whitened(self, name: str, values: Floats, planes: Floats, own: Ints) -> Floats:
        """Planes with the white that these heads (numbers among those of the emitters) make; of warm and cold: their drives."""
        heads = self._rig.emitter_heads[name][own]
        planes = planes.copy()
        if name == "warm-cold":
            ends = self._rig.low[attributes.TEMPERATURE, heads], self._rig.high[attributes.TEMPERATURE, heads]
            planes[:2, own] = warm_and_cold(values[attributes.TEMPERATURE, heads], *ends).T
        else:
            planes[:, own] = with_white(planes[:, own].T, *_white_of(self._rig, values, heads)).T
        return planes

    def _drives(self, name: str, planes: Floats, heads: Ints | slice) -> Floats | list[Floats]:
        """Drives (names, heads) for planes (3, heads) of red, green and blue."""
        if name == "rgb":
            return planes
        if name == "cmy":
            return 1 - planes
        if name == "warm-cold":
            return planes[:2]
        rgb = planes.T
        if name == "rgbw":
            return colour.rgb_to_rgbw(rgb).T
        if name == "rgbaw":
            return colour.rgb_to_rgbaw(rgb).T
        if name == "hue-saturation":
            hue, saturation, _ = colour.rgb_to_hsv_planes(planes)
            return [hue, saturation * 100]
        slots = np.zeros((1, len(rgb)))
        for number, wheel in enumerate(self._rig.wheels):
            own = self._rig.wheel_of[heads] == number
            if own.any():
                slots[0, own] = colour.nearest_slot(rgb[own], wheel)[0]
        return slots


def slots_of(rig: Rig, head: int, rows: Sequence[int]) -> list[tuple[int, int]]:
    """Universe and slot (1…512) of every byte that attributes (row numbers) of a head come out at, coarse first; colours by the
    emitters that make them, and a level without a channel of its own likewise."""
    count, sources = len(rig), [row * len(rig) + head for row in rows]
    if set(rows) & {*_RGB, *_WHITE} or (attributes.INTENSITY in rows and rig.dims[head]):
        behind = attributes.COUNT * count
        for name, (start, those) in emitter_rows(rig.emitter_heads).items():
            for place in np.flatnonzero(rig.emitter_heads[name] == head).tolist():
                sources += [behind + start + drive * those + place for drive in range(len(EMITTERS[name]))]
    behind = straight_sources(count, rig.emitter_heads)
    sources += (behind + np.flatnonzero(np.isin(rig.output.curved_from, sources))).tolist()
    chosen = np.flatnonzero(np.isin(rig.output.source, sources))
    channels = chosen[np.argsort(rig.output.coarse[chosen], kind="stable")]
    flat = np.stack([rig.output.coarse[channels], rig.output.middle[channels], rig.output.fine[channels]], axis=1).ravel()
    return [(rig.universes[one // 512], one % 512 + 1) for one in flat.tolist() if one >= 0]


def _white_of(rig: Rig, values: Floats, heads: Ints) -> tuple[Floats, Floats, Floats]:
    """Temperature, tint and mix of heads, (n,) each; the mix NaN where none is mixed."""
    mix = np.where(rig.heads.has[attributes.WHITE_MIX, heads], values[attributes.WHITE_MIX, heads], np.nan)
    return values[attributes.TEMPERATURE, heads], values[attributes.TINT, heads], mix


def levels(rig: Rig, values: Floats) -> Floats:
    """How bright each head is, (N,) 0…1: its level, and that of its fixture where it has one."""
    level = np.clip(values[attributes.INTENSITY] / 100, 0, 1)
    led = np.flatnonzero(rig.led)
    level[led] *= level[rig.leader[led]]
    return np.asarray(level, float)


def appearance(rig: Rig, values: Floats) -> Floats:
    """What is seen of each head, (N, 3) drive 0…1 at its intensity, for pictures on screen. values: (A, N)."""
    rgb = np.where(rig.mixes[:, None], values[_RGB].T, rig.light)
    rgb = np.where(rig.subtractive[:, None], colour.subtractive_appearance(rgb), rgb)
    for number, wheel in enumerate(rig.wheels):
        own = np.flatnonzero(rig.wheel_of == number)
        rgb[own] = wheel[colour.nearest_slot(values[_RGB][:, own].T, wheel)[0]]
    whitened = np.flatnonzero(rig.heads.has[_WHITE].any(axis=0))
    if len(whitened):
        mixes = rig.mixes[whitened]
        light = white(values[attributes.TEMPERATURE, whitened], values[attributes.TINT, whitened])
        rgb[whitened] = np.where(mixes[:, None], with_white(rgb[whitened], *_white_of(rig, values, whitened)), light)
    return np.asarray(np.clip(rgb * levels(rig, values)[:, None], 0, 1), float)
