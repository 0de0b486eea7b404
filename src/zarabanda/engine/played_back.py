"""Recordings laid over what is sent: byte for byte, as long as no level scales it; and what heads do then, for the screens."""

from __future__ import annotations

import threading
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.frame import Frame, Levels
from zarabanda.core.rig.read_back import ReadBack
from zarabanda.core.rig.rig import Rig
from zarabanda.errors import ZarabandaError
from zarabanda.formats.dmx_frames import FramesReader
from zarabanda.workers import Troubles, in_words

from .live.recorded import Recorded
from .recorder import ENDING, FOLDER

Floats = NDArray[np.float64]
Bytes = NDArray[np.uint8]
PLAYING = "Playing a recording"


class PlayedBack:
    """The recording that plays: its file is opened off the loop, and read frame by frame."""

    def __init__(self, data: Path | None, troubles: Troubles) -> None:
        self._folder, self._troubles = (data / FOLDER if data is not None else None), troubles
        self._open: tuple[str, FramesReader | None] | None = None
        self._opening = ""
        self._of_rig: tuple[Rig, ReadBack] | None = None

    def prepare(self, name: str) -> None:
        """Open a recording before it is asked for. Slow where it is long: not for the loop."""
        if self._folder is None or (self._open is not None and self._open[0] == name):
            return
        try:
            reader: FramesReader | None = FramesReader(self._folder / f"{name}{ENDING}")
            self._troubles.clear(PLAYING)
        except (OSError, ZarabandaError) as error:
            reader = None
            self._troubles.tell(PLAYING, error.message if isinstance(error, ZarabandaError) else in_words(error))
        before, self._open = self._open, (name, reader)
        if before is not None and before[1] is not None:
            before[1].close()

    def close(self) -> None:
        """Let go of the file."""
        before, self._open = self._open, None
        if before is not None and before[1] is not None:
            before[1].close()

    def _frame(self, recorded: Recorded, t: float) -> tuple[list[int], Bytes] | None:
        """Universes and bytes of the recording at t; None: it is not open yet, or cannot be read."""
        if self._open is None or self._open[0] != recorded.name:
            if self._opening != recorded.name:
                self._opening = recorded.name
                threading.Thread(target=self.prepare, args=(recorded.name,), daemon=True, name=PLAYING).start()
            return None
        reader = self._open[1]
        return None if reader is None else (reader.universes, reader.at(recorded.position(t)))

    def over(
        self, recorded: Recorded | None, frame: Frame, values: Floats, data: Bytes, levels: Levels, t: float
    ) -> tuple[Floats, Bytes]:
        """Values (A, N) and bytes (universes, 512) with the recording in its universes."""
        found = self._frame(recorded, t) if recorded is not None else None
        if found is None:
            return values, data
        rig = frame.rig
        place = {universe: row for row, universe in enumerate(rig.universes)}
        both = [(place[universe], row) for row, universe in enumerate(found[0]) if universe in place]
        laid = data.copy()
        for row, of in both:
            laid[row] = found[1][of]
        if self._of_rig is None or self._of_rig[0] is not rig:
            self._of_rig = (rig, ReadBack(rig))
        values = self._of_rig[1].values(laid)
        if levels.act:
            levels.apply(values, rig)
            scaled = frame.bytes(values)
            for row, _ in both:
                laid[row] = scaled[row]
        return values, laid
