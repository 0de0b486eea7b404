"""Films for layers: decoded ahead in a thread of their own; who asks for a picture never waits."""

from __future__ import annotations

import threading
from collections import deque
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from .stills import MOST, planes

Singles = NDArray[np.floating[Any]]
_AHEAD_S, _BEHIND_S = 1.0, 0.3
_KEPT = 90


class Reader:
    """Decodes a film from where it is asked for. `picture` is for all threads."""

    def __init__(self, path: Path) -> None:
        self._path = path
        self._wanted, self._at, self._asked = 0.0, -1.0, threading.Event()
        self._frames: deque[tuple[float, NDArray[np.uint8]]] = deque(maxlen=_KEPT)
        self._turn = threading.Lock()
        self._closed = False
        self.fault = ""
        self._scaler: Any = None
        threading.Thread(target=self._run, daemon=True, name="film").start()

    def picture(self, position: float) -> NDArray[np.uint8] | None:
        """(H, W, 4) the newest picture at a position in s that is there by now; what follows is decoded ahead."""
        found = self.picture_at(position)
        return None if found is None else found[1]

    def picture_at(self, position: float) -> tuple[float, NDArray[np.uint8]] | None:
        """The same, with where in the film it is."""
        self._wanted = position
        if not self._at - _AHEAD_S < position < self._at - _AHEAD_S / 2:
            self._asked.set()  # half a second's worth at a time: a thread that is woken seldom costs others less
        with self._turn:
            before = [one for one in self._frames if one[0] <= position + 1e-3]
            return before[-1] if before else next(iter(self._frames), None)  # nothing before it: better than nothing

    def close(self) -> None:
        """Decode no more."""
        self._closed = True
        self._asked.set()

    def _run(self) -> None:
        import av
        from av.video.reformatter import VideoReformatter

        try:
            with av.open(str(self._path)) as file:
                video = file.streams.video[0]
                video.thread_type = "AUTO"
                scale = MOST / max(video.width, video.height, MOST)
                size = max(1, round(video.width * scale)), max(1, round(video.height * scale))
                self._scaler = VideoReformatter()  # one for all of them: making it takes longer than using it
                self._decode(file, video, size)
        except (av.FFmpegError, OSError, IndexError, ValueError) as error:
            self.fault = f"{type(error).__name__}: {error}"

    def _decode(self, file: Any, video: Any, size: tuple[int, int]) -> None:
        frames = file.decode(video)
        while not self._closed:
            if self._at > self._wanted + _AHEAD_S + _BEHIND_S or self._at < self._wanted - 2 * _AHEAD_S:
                with self._turn:
                    self._frames.clear()
                file.seek(max(0, int(self._wanted / video.time_base)), stream=video)
                frames = file.decode(video)
                self._at = self._wanted
                self._skip_to(frames, self._wanted, size)
            if self._at >= self._wanted + _AHEAD_S or not self._next(frames, size):
                self._asked.wait()
                self._asked.clear()

    def _skip_to(self, frames: Any, position: float, size: tuple[int, int]) -> None:
        """Decode from the key frame before a position on; only what is seen from there on is kept."""
        for frame in frames:
            if self._closed or frame.time is None or frame.time >= position - _BEHIND_S:
                self._keep(frame, size)
                return

    def _next(self, frames: Any, size: tuple[int, int]) -> bool:
        frame = next(frames, None)
        if frame is None:
            return False
        self._keep(frame, size)
        return True

    def _keep(self, frame: Any, size: tuple[int, int]) -> None:
        small = self._scaler.reformat(frame, width=size[0], height=size[1], format="rgba", interpolation="AREA")
        image = small.to_ndarray()
        with self._turn:
            self._frames.append((float(frame.time or 0.0), image))
        self._at = float(frame.time or 0.0)


class Film:
    """A source for layers. begins, ends: in and out point in s; clock: cycle, else seconds; at_end: loop, hold or dark."""

    def __init__(self, reader: Reader, begins: float, ends: float, clock: str, at_end: str) -> None:
        self._reader, self._begins, self._length = reader, begins, max(ends - begins, 1e-3)
        self._clock, self._at_end = clock, at_end
        self._latest: tuple[NDArray[np.uint8], Singles] | None = None

    def position(self, seconds: float, cycle: float) -> float | None:
        """Where in the film it is; None: it is over, and dark."""
        place = (cycle % 1) * self._length if self._clock == "cycle" else seconds
        if place >= self._length or place < 0:
            if self._at_end == "dark":
                return None
            place = place % self._length if self._at_end == "loop" else min(max(place, 0.0), self._length - 1e-3)
        return self._begins + place

    def at(self, seconds: float, cycle: float) -> Singles | None:
        """The picture that is seen then."""
        position = self.position(seconds, cycle)
        image = self._reader.picture(position) if position is not None else None
        if image is None:
            return None
        if self._latest is None or self._latest[0] is not image:
            self._latest = image, planes(image)
        return self._latest[1]


def first_picture(path: Path) -> Singles:
    """(4, H, W) the first picture of a film, small."""
    import av

    with av.open(str(path)) as file:
        frame = next(file.decode(video=0))
        scale = MOST / max(frame.width, frame.height, MOST)
        size = max(1, round(frame.width * scale)), max(1, round(frame.height * scale))
        return planes(np.asarray(frame.reformat(width=size[0], height=size[1], format="rgba").to_ndarray(), np.uint8))
