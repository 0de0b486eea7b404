"""Frames of DMX universes in a file: what a bake, or a recording, sends. Plain binary, see docs/formats.md.

Header: the letters `ZBFRAMES`, version 1, the number of universes n, and n numbers of universes (all 16 bit). Then a record a
frame: its time in s (float64), how many universes it has anew (16 bit), and for each of them its place in the header (16 bit) and
512 bytes. All numbers are little-endian. The first frame, and one at least every 10 s, has all universes.
"""

from __future__ import annotations

import struct
from bisect import bisect_right
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import IO

import numpy as np
from numpy.typing import NDArray

from zarabanda.errors import ZarabandaError

Bytes = NDArray[np.uint8]

MAGIC, VERSION, SLOTS = b"ZBFRAMES", 1, 512
MOST_UNIVERSES = 1024
WHOLE_EVERY_S = 10.0
_HEAD, _RECORD, _PLACE = struct.Struct("<8sHH"), struct.Struct("<dH"), struct.Struct("<H")
_PART = _PLACE.size + SLOTS


class FramesWriter:
    """Writes frames into an open file, one after another; nothing of them is kept but the one before."""

    def __init__(self, file: IO[bytes], universes: Sequence[int]) -> None:
        self._file, self._count = file, len(universes)
        self._before: Bytes | None = None
        self._whole_at = 0.0
        self.frames = 0
        file.write(_HEAD.pack(MAGIC, VERSION, len(universes)))
        file.write(np.array(universes, "<u2").tobytes())

    def write(self, t: float, data: Bytes) -> None:
        """A frame at t, s since the beginning, later than the one before. data: (universes, 512)."""
        whole = self._before is None or t - self._whole_at >= WHOLE_EVERY_S
        new = np.arange(self._count) if whole else np.flatnonzero((data != self._before).any(axis=1))
        parts = [_RECORD.pack(t, len(new))]
        for place in new.tolist():
            parts += [_PLACE.pack(place), data[place].tobytes()]
        self._file.write(b"".join(parts))
        if whole:
            self._whole_at = t
        self._before = data.copy()
        self.frames += 1


class FramesReader:
    """Frames of a file: in their order, or at a time. ZarabandaError says what is wrong with it, and where."""

    def __init__(self, path: Path) -> None:
        self._file = path.open("rb")
        try:
            self.universes = self._header()
            self._times, self._whole = self._index()
        except Exception:
            self._file.close()
            raise
        self._now: tuple[int, Bytes] | None = None

    def close(self) -> None:
        """Let go of the file."""
        self._file.close()

    @property
    def frames(self) -> int:
        """How many there are."""
        return len(self._times)

    @property
    def seconds(self) -> float:
        """From the first frame to the last."""
        return float(self._times[-1][0] - self._times[0][0])

    def _header(self) -> list[int]:
        head = self._file.read(_HEAD.size)
        if len(head) < _HEAD.size or head[:8] != MAGIC:
            raise ZarabandaError("This is no file of frames: it does not begin with ZBFRAMES. Choose another file.", "file")
        _, version, count = _HEAD.unpack(head)
        if version != VERSION:
            raise ZarabandaError(f"These frames are of version {version}, and this program reads {VERSION}.", "version")
        rest = self._file.read(2 * count)
        if not 1 <= count <= MOST_UNIVERSES or len(rest) < 2 * count:
            raise ZarabandaError(
                f"The header says {count} universes; 1 to {MOST_UNIVERSES} are possible, and all named.", "header"
            )
        return [int(one) for one in np.frombuffer(rest, "<u2")]

    def _index(self) -> tuple[list[tuple[float, int]], list[int]]:
        """Time and place in the file of each frame, and the numbers of those that have all universes. A last frame that is cut
        off, as by a full disk, is left out."""
        times, whole = list[tuple[float, int]](), list[int]()
        at, end = self._file.tell(), self._file.seek(0, 2)
        while at + _RECORD.size <= end:
            self._file.seek(at)
            t, count = _RECORD.unpack(self._file.read(_RECORD.size))
            if count > len(self.universes) or not np.isfinite(t) or (times and t <= times[-1][0]):
                raise ZarabandaError(
                    f"Frame {len(times) + 1} is damaged: {count} universes at {t:g} s. Use another copy.", "frames"
                )
            after = at + _RECORD.size + count * _PART
            if after > end:
                break
            if count == len(self.universes):
                whole.append(len(times))
            times.append((t, at))
            at = after
        if not times or whole[:1] != [0]:
            raise ZarabandaError("There is no whole frame in this file. Use another copy.", "frames")
        return times, whole

    def frame(self, number: int) -> tuple[float, Bytes]:
        """Time since the first frame, and bytes (universes, 512), of a frame, from 0 on."""
        begin, data = self._whole[bisect_right(self._whole, number) - 1], np.zeros((len(self.universes), SLOTS), np.uint8)
        if self._now is not None and begin <= self._now[0] <= number:
            begin, data = self._now[0] + 1, self._now[1]
        for one in range(begin, number + 1):
            self._apply(one, data)
        self._now = (number, data)
        return self._times[number][0] - self._times[0][0], data

    def _apply(self, number: int, data: Bytes) -> None:
        self._file.seek(self._times[number][1])
        _, count = _RECORD.unpack(self._file.read(_RECORD.size))
        content = self._file.read(count * _PART)
        for n in range(count):
            (place,) = _PLACE.unpack_from(content, n * _PART)
            if place >= len(self.universes):
                raise ZarabandaError(f"Frame {number + 1} names universe {place + 1} of {len(self.universes)}.", "frames")
            data[place] = np.frombuffer(content, np.uint8, SLOTS, n * _PART + _PLACE.size)

    def at(self, t: float) -> Bytes:
        """Bytes (universes, 512) at t s since the first frame: of the newest frame by then."""
        return self.frame(max(0, bisect_right(self._times, (t + self._times[0][0] + 1e-9, 1 << 62)) - 1))[1]

    def __iter__(self) -> Iterator[tuple[float, Bytes]]:
        return (self.frame(number) for number in range(self.frames))
