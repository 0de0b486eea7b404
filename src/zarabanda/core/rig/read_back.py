"""The output mapping backwards: what heads do, of the bytes that they get. Exact for what `slots.Mapper` made, as far as bytes
go; colours of emitters come back as red, green and blue, warm and cold white as a temperature."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import hsv_to_rgb
from zarabanda.core.rig.attributes import BLUE, INTENSITY, RED, TEMPERATURE
from zarabanda.core.rig.modes import EMITTERS
from zarabanda.core.rig.rig import Rig, emitter_rows, straight_sources

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


class ReadBack:
    """For one rig, with its index arrays."""

    def __init__(self, rig: Rig) -> None:
        self._rig, self._output = rig, rig.output
        self._rows = emitter_rows(rig.emitter_heads)
        self._straight = straight_sources(len(rig), rig.emitter_heads)
        self._curved = np.flatnonzero(rig.output.source >= self._straight)

    def values(self, data: NDArray[np.uint8]) -> Floats:
        """Values (A, N) in natural units for bytes (universes, 512); home where no byte says anything."""
        rig, out = self._rig, self._output
        number = self._numbers(data)
        everything = np.zeros(self._straight)
        everything[: rig.home.size] = rig.home.ravel()
        values = everything[: rig.home.size].reshape(rig.home.shape)
        values[INTENSITY, rig.dims] = 100.0  # their colour carries it
        plain = out.source < self._straight
        share = number / (2.0**out.bits - 1)
        everything[out.source[plain]] = (out.low + share * out.span)[plain]
        for channel in self._curved.tolist():
            which = int(out.source[channel]) - self._straight
            everything[out.curved_from[which]] = self._uncurved(int(out.curved_by[which]), float(share[channel]))
        for name, (start, count) in self._rows.items():
            names, heads = EMITTERS[name], rig.emitter_heads[name]
            at = rig.home.size + start
            if count and names:
                self._colours(name, everything[at : at + count * len(names)].reshape(len(names), count), heads, values)
        return np.asarray(np.clip(values, rig.low, rig.high))

    def _numbers(self, data: NDArray[np.uint8]) -> Floats:
        flat, out = data.reshape(-1).astype(float), self._output
        number = flat[out.coarse]
        for slots in (out.middle, out.fine):
            there = slots >= 0
            number = np.where(there, number * 256 + flat[np.where(there, slots, 0)], number)
        return number

    def _uncurved(self, which: int, share: float) -> float:
        points, bits, stepped = self._output.curves[which]
        at, shares = np.array(points, float).T
        shares = shares / (2.0**bits - 1)
        if stepped:
            return float(at[np.abs(shares - share).argmin()])
        order = np.argsort(shares, kind="stable")
        return float(np.interp(share, shares[order], at[order]))

    def _colours(self, name: str, drives: Floats, heads: Ints, values: Floats) -> None:
        rig = self._rig
        if name == "level":
            led = values[INTENSITY, rig.leader[heads]] / 100
            values[INTENSITY, heads] = np.where(led > 0, 100 * drives[0] / np.where(led > 0, led, 1), rig.home[INTENSITY, heads])
            return
        if name == "warm-cold":
            both = drives.sum(axis=0)
            cold = np.where(both > 0, drives[1] / np.where(both > 0, both, 1), 0.5)
            low, high = rig.low[TEMPERATURE, heads], rig.high[TEMPERATURE, heads]
            values[TEMPERATURE, heads] = low + cold * (high - low)
            rgb = np.broadcast_to(np.where(rig.dims[heads], drives.max(axis=0), 1.0), (3, len(heads)))
        elif name == "cmy":
            rgb = 1 - drives
        elif name == "hue-saturation":
            rgb = hsv_to_rgb(np.stack([drives[0], drives[1] / 100, np.ones(len(heads))], axis=-1)).T
        elif name == "wheel":
            rgb = np.ones((3, len(heads)))
            for number, wheel in enumerate(rig.wheels):
                own = np.flatnonzero(rig.wheel_of[heads] == number)
                slots = np.clip(np.round(drives[0, own]).astype(int), 0, len(wheel) - 1)
                rgb[:, own] = wheel[slots].T
        else:
            rgb = drives[:3].copy()
            if "white" in EMITTERS[name]:
                rgb += drives[EMITTERS[name].index("white")]
            if "amber" in EMITTERS[name]:
                amber = drives[EMITTERS[name].index("amber")]
                rgb[0] += amber
                rgb[1] += amber / 2
        values[RED : BLUE + 1, heads] = rgb
