"""What is sent, recorded into a file of frames: off the loop, in bounded memory, until it is ended or there is no room."""

from __future__ import annotations

import contextlib
import os
import queue
import threading
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import IO

import numpy as np
from numpy.typing import NDArray

from zarabanda.formats.dmx_frames import FramesWriter
from zarabanda.messages import RecorderTold, RouteState
from zarabanda.outputs.base import Output
from zarabanda.workers import Troubles, in_words

FOLDER, ENDING, MAKING = "recordings", ".frames", ".frames-making"
RECORDER = "Recording what is sent"
MOST_WAITING = 256
"""So many frames wait for the disk at the most, about 6 s of them; more are lost, and counted."""
_WAIT_S = 0.5


@dataclass
class _Job:
    """A recording under way. frames wait in `waiting`; None ends it."""

    name: str
    path: Path
    universes: Sequence[int]
    began: float
    waiting: queue.Queue[tuple[float, NDArray[np.uint8]] | None]
    seconds: float = 0.0
    frames: int = 0
    lost: int = 0
    size: int = 0


class Recorder(Output):
    """Takes every frame that is sent, and writes it where a recording is under way. folder: of the data."""

    def __init__(self, data: Path, troubles: Troubles, opened: Callable[[Path], IO[bytes]] | None = None) -> None:
        """opened: opens a file to write in; a plain one, unless said otherwise."""
        self._folder, self._troubles = data / FOLDER, troubles
        self._opened = opened or (lambda path: path.open("wb"))
        self._job: _Job | None = None
        self._asked = ""
        self.ended = ""
        """How the last recording ended, in words."""

    def start(self, name: str) -> None:
        """Record from the next frame on, under a name."""
        self.stop()
        self._asked, self.ended = name, ""

    def stop(self) -> None:
        """End the recording; what waits is written yet."""
        self._asked = ""
        self._end("")

    def _end(self, why: str) -> None:
        job, self._job = self._job, None
        if job is not None:
            self.ended = why
            with contextlib.suppress(queue.Full):
                job.waiting.put(None, timeout=_WAIT_S)

    def told(self) -> RecorderTold | None:
        """What is under way; None: nothing, and nothing to tell of the last."""
        job = self._job
        if job is None:
            return RecorderTold("", 0.0, 0, 0, 0, self.ended) if self.ended else None
        return RecorderTold(job.name, job.seconds, job.frames, job.size, job.lost, "")

    # as an output

    def send(self, universes: Sequence[int], data: NDArray[np.uint8], now: float) -> None:
        if self._asked:
            self._begin(universes, now)
        job = self._job
        if job is None:
            return
        if job.universes is not universes and list(job.universes) != list(universes):
            self._end("The universes of the rig have changed: the recording ends with the ones before.")
            return
        job.seconds = now - job.began
        try:
            job.waiting.put_nowait((job.seconds, data.copy()))
        except queue.Full:
            job.lost += 1

    def _begin(self, universes: Sequence[int], now: float) -> None:
        name, self._asked = self._asked, ""
        job = _Job(name, self._folder / f"{name}{ENDING}", tuple(universes), now, queue.Queue(MOST_WAITING))
        self._job = job
        threading.Thread(target=self._write, args=(job,), daemon=True, name=RECORDER).start()

    def _write(self, job: _Job) -> None:
        """In a thread of its own, until the recording ends or cannot go on; what is whole is kept."""
        making = job.path.with_suffix(MAKING)
        try:
            self._folder.mkdir(exist_ok=True)
            with self._opened(making) as file:
                writer = FramesWriter(file, job.universes)
                while (found := job.waiting.get()) is not None:
                    writer.write(*found)
                    job.frames, job.size = writer.frames, file.tell()
            self._troubles.clear(RECORDER)
        except Exception as error:
            full = isinstance(error, OSError)
            why = (error.strerror or str(error)) if isinstance(error, OSError) else in_words(error)
            text = f"The recording has ended after {job.seconds:.0f} s: {why}. What was written is kept."
            if self._job is job:
                self._job, self.ended = None, text
            self._troubles.tell(RECORDER, f"{text} Make room on the disk." if full else text)  # what is told has happened
        if job.frames:
            with contextlib.suppress(OSError):
                os.replace(making, job.path)
        else:
            with contextlib.suppress(OSError):
                making.unlink()

    def close(self) -> None:
        self.stop()

    def report(self) -> list[RouteState]:
        return []
