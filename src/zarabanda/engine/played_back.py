"""Recordings laid over what is sent: byte for byte, as long as no level scales it; and what heads do then, for the screens."""

from __future__ import annotations

import threading
from collections.abc import Iterable
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.frame import Levels
from zarabanda.core.rig.read_back import ReadBack
from zarabanda.core.rig.rig import Rig
from zarabanda.core.rig.slots import Mapper
from zarabanda.errors import ZarabandaError
from zarabanda.formats.dmx_frames import FramesReader
from zarabanda.workers import Troubles, in_words

from .live.recorded import Recorded
from .recorder import ENDING, FOLDER

Floats = NDArray[np.float64]
Bytes = NDArray[np.uint8]
PLAYING = "Playing a recording"
_KEPT_OPEN = 2
"""The one that plays, and the one that is about to."""


class PlayedBack:
    """The recording that plays: its file is opened off the loop, and read frame by frame."""

    def __init__(self, data: Path | None, troubles: Troubles) -> None:
        self._folder, self._troubles = (data / FOLDER if data is not None else None), troubles
        self._readers: dict[str, FramesReader | None] = {}
        """By name, the newest last; None: it cannot be read."""
        self._turn = threading.Lock()
        self._opening = ""
        self._of_rig: tuple[Rig, ReadBack, Mapper] | None = None

    def prepare(self, name: str) -> None:
        """Open a recording, as its file is now, before it is asked for. Slow where it is long: not for the loop."""
        if self._folder is None:
            return
        reader: FramesReader | None = None
        try:
            reader = FramesReader(self._folder / f"{name}{ENDING}")
            self._troubles.clear(PLAYING)
        except (OSError, ZarabandaError) as error:
            self._tell(error)
        with self._turn:
            gone = [self._readers.pop(name, None)]
            self._readers[name] = reader
            gone += [self._readers.pop(one) for one in list(self._readers)[:-_KEPT_OPEN]]
            self._closed(gone)

    def close(self) -> None:
        """Let go of the files."""
        with self._turn:
            self._closed(self._readers.values())
            self._readers = {}

    @staticmethod
    def _closed(readers: Iterable[FramesReader | None]) -> None:
        for one in readers:
            if one is not None:
                one.close()

    def _tell(self, error: OSError | ZarabandaError) -> None:
        self._troubles.tell(PLAYING, error.message if isinstance(error, ZarabandaError) else in_words(error))

    def _frame(self, recorded: Recorded, t: float) -> tuple[list[int], Bytes] | None:
        """Universes and bytes of the recording at t; None: it is not open yet, or cannot be read."""
        if recorded.name not in self._readers:
            if self._opening != recorded.name:
                self._opening = recorded.name
                threading.Thread(target=self.prepare, args=(recorded.name,), daemon=True, name=PLAYING).start()
            return None
        with self._turn:
            reader = self._readers.get(recorded.name)
            try:
                return None if reader is None else (reader.universes, reader.at(recorded.position(t)))
            except (OSError, ZarabandaError) as error:  # damaged within: the lights go on without it
                self._tell(error)
                self._closed([reader])
                self._readers[recorded.name] = None
                return None

    def over(
        self, recorded: Recorded | None, rig: Rig, values: Floats, data: Bytes, levels: Levels, t: float
    ) -> tuple[Floats, Bytes]:
        """Values (A, N) and bytes (universes, 512) with the recording in its universes."""
        found = self._frame(recorded, t) if recorded is not None else None
        if found is None:
            return values, data
        place = {universe: row for row, universe in enumerate(rig.universes)}
        both = [(place[universe], row) for row, universe in enumerate(found[0]) if universe in place]
        laid = data.copy()
        for row, of in both:
            laid[row] = found[1][of]
        if self._of_rig is None or self._of_rig[0] is not rig:
            self._of_rig = (rig, ReadBack(rig), Mapper(rig))  # not the frame's own: what that has stays from frame to frame
        _, back, mapper = self._of_rig
        values = back.values(laid)
        if levels.act:
            levels.apply(values, rig)
            scaled = mapper.bytes(values)
            for row, _ in both:
                laid[row] = scaled[row]
        return values, laid
