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
        if not len(rows) or last - back >= len(self.levels):
            return np.zeros(BANDS, np.float32)
        ago = (last - np.arange(max(0, last - back), max(0, last - back) + len(rows))) / PER_SECOND
        fallen = np.maximum(ago - hold_s, 0) / max(fall_s, 1e-3)
        found: NDArray[np.float32] = (rows.astype(np.float32) / 255 - fallen[:, None].astype(np.float32)).max(axis=0)
        return np.maximum(found, 0)

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


def measured(blocks: Any, rate: int) -> Bytes:
    """(frames, 32) levels of sound in blocks (n, channels)."""
    hop, window = rate // PER_SECOND, np.hanning(_WINDOW)
    edges = np.geomspace(LOWEST_HZ, min(HIGHEST_HZ, rate / 2), BANDS + 1) * _WINDOW / rate
    first = np.minimum(np.floor(edges[:-1]).astype(int), _WINDOW // 2 - 1)
    end = np.maximum(np.ceil(edges[1:]).astype(int), first + 1)
    rest, rows = np.zeros(_WINDOW // 2, np.float32), list[NDArray[np.float64]]()
    for block in blocks:
        rest = np.concatenate([rest, block.mean(axis=1)])
        count = max(0, (len(rest) - _WINDOW) // hop + 1)
        if not count:
            continue
        at = np.arange(count)[:, None] * hop + np.arange(_WINDOW)
        power = np.abs(np.fft.rfft(rest[at] * window, axis=1)) ** 2
        sums = np.concatenate([np.zeros((count, 1)), np.cumsum(power, axis=1)], axis=1)
        rows.append((sums[:, end] - sums[:, first]) / (end - first))
        rest = rest[count * hop :]
    if not rows:
        return np.zeros((0, BANDS), np.uint8)
    decibels = 10 * np.log10(np.concatenate(rows) + 1e-12)
    share = 1 + (decibels - decibels.max()) / _RANGE_DB
    levels: Bytes = np.round(np.clip(share, 0, 1) * 255).astype(np.uint8)
    return levels
