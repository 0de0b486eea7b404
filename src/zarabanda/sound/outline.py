"""The outline of a sound, for pictures: its lowest and highest value in blocks, at every zoom."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

BLOCK, FACTOR = 256, 4
"""Samples in a block of the finest level; so many blocks of a level are one of the next."""
_FEWEST = 256
_MAGIC = b"ZOL1"
Bytes = NDArray[np.int8]


@dataclass(frozen=True)
class Outline:
    """rate: samples a second; frames: samples; levels: (blocks, 2) lowest and highest, −127 to 127, each level coarser."""

    rate: int
    frames: int
    levels: tuple[Bytes, ...]

    @property
    def seconds(self) -> float:
        """Its length."""
        return self.frames / self.rate

    @property
    def loudest(self) -> float:
        """The highest value, 0…1."""
        return float(np.abs(self.levels[0].astype(np.int16)).max(initial=0)) / 127

    def block_s(self, level: int) -> float:
        """How long a block of a level is."""
        return float(BLOCK * FACTOR**level / self.rate)

    def write(self, path: Path) -> None:
        """Keep it in a file."""
        head = np.array([self.rate, self.frames, len(self.levels), *(len(one) for one in self.levels)], "<i8")
        path.write_bytes(_MAGIC + head.tobytes() + b"".join(one.tobytes() for one in self.levels))

    @classmethod
    def read(cls, path: Path) -> Outline:
        """From its file. ValueError where it is none."""
        data = path.read_bytes()
        if data[:4] != _MAGIC or len(data) < 28:
            raise ValueError("this is no outline")
        rate, frames, count = np.frombuffer(data, "<i8", 3, 4).tolist()
        lengths = np.frombuffer(data, "<i8", count, 28).tolist()
        at, levels = 28 + 8 * count, list[Bytes]()
        for length in lengths:
            levels.append(np.frombuffer(data, np.int8, 2 * length, at).reshape(-1, 2))
            at += 2 * length
        return cls(rate, frames, tuple(levels))


def outline_of(blocks: Iterable[NDArray[np.float32]], rate: int) -> Outline:
    """The outline of samples as they come, each (frames, channels), −1 to 1: all channels together, none is hidden by another."""
    rest: NDArray[np.float32] | None = None
    parts, frames = list[Bytes](), 0
    for samples in blocks:
        frames += len(samples)
        joined = samples if rest is None else np.concatenate([rest, samples])
        whole = len(joined) // BLOCK * BLOCK
        if whole:
            parts.append(_ends(joined[:whole].reshape(whole // BLOCK, -1)))
        rest = joined[whole:]
    if rest is not None and len(rest):
        parts.append(_ends(rest.reshape(1, -1)))
    finest = np.concatenate(parts) if parts else np.zeros((0, 2), np.int8)
    levels = [finest]
    while len(levels[-1]) > _FEWEST:
        below = levels[-1]
        padded = np.concatenate([below, np.repeat(below[-1:], -len(below) % FACTOR, axis=0)])
        levels.append(_blocks(padded, FACTOR))
    return Outline(rate, frames, tuple(levels))


def _blocks(ends: Bytes, size: int) -> Bytes:
    grouped = ends.reshape(-1, size, 2)
    return np.column_stack([grouped[:, :, 0].min(axis=1), grouped[:, :, 1].max(axis=1)])


def _ends(blocks: NDArray[np.float32]) -> Bytes:
    """Lowest and highest of each block (blocks, samples), away from 0, so that what can be heard is seen."""
    ends = np.column_stack([blocks.min(axis=1), blocks.max(axis=1)])
    scaled: NDArray[Any] = np.clip(ends, -1, 1) * 127
    return np.asarray(np.where(scaled < 0, np.floor(scaled), np.ceil(scaled)), np.int8)
