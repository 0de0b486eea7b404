"""How loud a sound is in bands, from low to high, over its length: made once, and read wherever a position is."""

from __future__ import annotations

import contextlib
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from .media import opened

BANDS, PER_SECOND = 32, 50
"""Bands, and how often a second they are measured."""
LOWEST_HZ, HIGHEST_HZ = 40.0, 16_000.0
_WINDOW = 2048
_RANGE_DB = 60.0
"""So far below the loudest is 0."""
_MAGIC = b"ZSP1"
Bytes = NDArray[np.uint8]
Floats = NDArray[np.floating[Any]]


@dataclass(frozen=True, eq=False)
class Spectrum:
    """levels (frames, 32): 0…255 of each band, 50 frames a second."""

    levels: Bytes

    def at(self, seconds: float, fall_s: float, hold_s: float = 0.0) -> NDArray[np.float32]:
        """(32,) 0…1 at a position. Each level stands for `hold_s` and then falls by its whole range in `fall_s`; what is louder
        takes its place. It looks back only: the same after a jump as after playing there."""
        last = int(seconds * PER_SECOND)
        back = int((fall_s + hold_s) * PER_SECOND)
        rows = self.levels[max(0, last - back) : max(0, last + 1)]
        ago = (last - np.arange(max(0, last - back), max(0, last - back) + len(rows))) / PER_SECOND
        return fallen(rows.astype(np.float32) / 255, ago, fall_s, hold_s)

    @classmethod
    def of(cls, path: Path) -> Spectrum:
        """Of a sound in the media folder; kept beside it."""
        kept = path.with_name(f"{path.name}.bands")
        with contextlib.suppress(OSError, ValueError):
            data = kept.read_bytes()
            if data[:4] == _MAGIC:
                return cls(np.frombuffer(data, np.uint8, offset=4).reshape(-1, BANDS))
        with opened(path, "the sound") as file:
            levels = measured(file.blocks(1 << 16, dtype="float32", always_2d=True), file.samplerate)
        with contextlib.suppress(OSError):
            kept.write_bytes(_MAGIC + levels.tobytes())
        return cls(levels)


def fallen(levels: Floats, ago: Floats, fall_s: float, hold_s: float) -> NDArray[np.float32]:
    """(32,) what levels (frames, 32), each so many s ago (frames,), have fallen to: the loudest of what is left of them."""
    if not len(levels):
        return np.zeros(BANDS, np.float32)
    lost = (np.maximum(ago - hold_s, 0) / max(fall_s, 1e-3)).astype(np.float32)
    found: NDArray[np.float32] = (levels - lost[:, None]).max(axis=0).astype(np.float32)
    return np.maximum(found, 0)


class Analyser:
    """Measures bands of sound as it comes. rate: samples a second."""

    def __init__(self, rate: int) -> None:
        self._hop, self._window = rate // PER_SECOND, np.hanning(_WINDOW)
        edges = np.geomspace(LOWEST_HZ, min(HIGHEST_HZ, rate / 2), BANDS + 1) * _WINDOW / rate
        self._first = np.minimum(np.floor(edges[:-1]).astype(int), _WINDOW // 2 - 1)
        self._end = np.maximum(np.ceil(edges[1:]).astype(int), self._first + 1)
        self._rest = np.zeros(_WINDOW // 2, np.float32)

    def feed(self, samples: NDArray[np.floating[Any]]) -> NDArray[np.float64]:
        """(frames, 32) decibels of the bands, 50 a second, of what is whole with these samples (n,)."""
        self._rest = np.concatenate([self._rest, samples])
        count = max(0, (len(self._rest) - _WINDOW) // self._hop + 1)
        if not count:
            return np.zeros((0, BANDS))
        at = np.arange(count)[:, None] * self._hop + np.arange(_WINDOW)
        power = np.abs(np.fft.rfft(self._rest[at] * self._window, axis=1)) ** 2
        sums = np.concatenate([np.zeros((count, 1)), np.cumsum(power, axis=1)], axis=1)
        self._rest = self._rest[count * self._hop :]
        found: NDArray[np.float64] = 10 * np.log10(
            (sums[:, self._end] - sums[:, self._first]) / (self._end - self._first) + 1e-12
        )
        return found


def shares(decibels: NDArray[np.float64], loudest: float) -> NDArray[np.float64]:
    """Decibels as shares 0…1: the loudest is 1, what is 60 dB below it 0."""
    return np.clip(1 + (decibels - loudest) / _RANGE_DB, 0, 1)


def measured(blocks: Any, rate: int) -> Bytes:
    """(frames, 32) levels of sound in blocks (n, channels)."""
    analyser = Analyser(rate)
    decibels = np.concatenate([np.zeros((0, BANDS)), *(analyser.feed(block.mean(axis=1)) for block in blocks)])
    levels: Bytes = np.round(shares(decibels, decibels.max(initial=-120.0)) * 255).astype(np.uint8)
    return levels
