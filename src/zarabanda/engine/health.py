"""How the frame loop is doing: times of the newest frames, what they went to, and the last minute by seconds."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np

from zarabanda.messages import LoopHealth, Second, Trouble

_SECONDS = 60


class Laps:
    """What the time of one frame goes to. clock in s; begun: when the frame did."""

    def __init__(self, clock: Callable[[], float], begun: float) -> None:
        self._clock, self._last = clock, begun
        self.times_ms: dict[str, float] = {}

    def mark(self, name: str) -> float:
        """The time since the mark before went to this; what the clock says now."""
        now = self._clock()
        self.times_ms[name] = (now - self._last) * 1000
        self._last = now
        return now


@dataclass
class _Now:
    """The second under way."""

    since: float = float("-inf")
    times_ms: list[float] = field(default_factory=list)
    parts_ms: dict[str, float] = field(default_factory=dict)
    late: int = 0


@dataclass
class Health:
    """Times in ms of the newest frames; late: deadlines that were missed and left out; errors: frames that could not be
    computed; parts_ms: what a frame of the last second went to."""

    frames: int = 0
    late: int = 0
    errors: int = 0
    last_error: str = ""
    times_ms: deque[float] = field(default_factory=lambda: deque(maxlen=512))
    minute: deque[Second] = field(default_factory=lambda: deque(maxlen=_SECONDS))
    parts_ms: dict[str, float] = field(default_factory=dict)
    _now: _Now = field(default_factory=_Now)

    def frame(self, t: float, took_ms: float, parts_ms: dict[str, float]) -> None:
        """A frame was made at t."""
        self.frames += 1
        self.times_ms.append(took_ms)
        if t - self._now.since >= 1:
            self._end_second()
            self._now = _Now(t)
        self._now.times_ms.append(took_ms)
        for name, ms in parts_ms.items():
            self._now.parts_ms[name] = self._now.parts_ms.get(name, 0.0) + ms

    def missed(self, deadlines: int) -> None:
        """So many deadlines have passed without a frame."""
        self.late += deadlines
        self._now.late += deadlines

    def _end_second(self) -> None:
        now = self._now
        if now.times_ms:
            times = np.array(now.times_ms)
            self.minute.append(Second(float(np.median(times)), float(times.max()), now.late))
            self.parts_ms = {name: total / len(times) for name, total in now.parts_ms.items()}

    def report(self, rate: float, troubles: list[Trouble]) -> LoopHealth:
        """For the screen."""
        times = np.array(self.times_ms) if self.times_ms else np.zeros(1)
        return LoopHealth(
            rate, self.frames, self.late, self.errors, self.last_error, float(np.median(times)),
            float(np.percentile(times, 99)), self.parts_ms, list(self.minute), troubles,
        )  # fmt: skip
