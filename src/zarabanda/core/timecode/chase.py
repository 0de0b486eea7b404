"""Following timecode: a straight way that is fitted to the stamps of arriving frames (docs/computation.md, "Timelines")."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from .transport import Transport

LOCK_S = 0.4
"""Frames of so long a time are fitted before it counts as followed."""
FREE_RUN_S = 2.0
"""So long it goes on by itself after the last frame."""
_WINDOW_S, _SHORT_S = 4.0, 0.5
_JUMP_FRAMES = 4
_LOST_S, _BENT_S = 0.15, 0.012
_JITTER_S, _SPEED_OFF = 0.012, 0.004
"""Jitter and error of speed that are expected of a player before it is known."""


@dataclass(frozen=True)
class Chase:
    """What was heard of a clock that runs. times, positions: of its frames, s, oldest first; way: fitted to them; jumped: how
    often it has jumped; frame_s: length of a frame."""

    frame_s: float = 0.04
    times: tuple[float, ...] = ()
    positions: tuple[float, ...] = ()
    way: Transport | None = None
    jumped: int = 0

    @property
    def heard_at(self) -> float:
        """Stamp of the last frame."""
        return self.times[-1] if self.times else float("-inf")

    def heard(self, position: float, t: float) -> Chase:
        """After a frame that came at t."""
        if self.way is not None and abs(position - self.way.position_at(t)) > _JUMP_FRAMES * self.frame_s:
            begun = replace(self, times=(t,), positions=(position,), way=Transport(t, position, 1.0), jumped=self.jumped + 1)
            return begun
        first = next((n for n, one in enumerate(self.times) if one > t - _WINDOW_S), len(self.times))
        times, positions = (*self.times[first:], t), (*self.positions[first:], position)
        way = fitted(np.array(times), np.array(positions))
        recent = [p - way.position_at(at) for at, p in zip(times, positions, strict=True) if at > t - _SHORT_S / 2]
        if len(recent) > 10 and abs(sum(recent) / len(recent)) > _BENT_S:  # its speed has changed: what is older says nothing
            later = [n for n, one in enumerate(times) if one > t - _SHORT_S]
            times, positions = times[later[0] :], positions[later[0] :]
            way = fitted(np.array(times), np.array(positions))
        return replace(self, times=times, positions=positions, way=way)

    def state(self, t: float) -> str:
        """none, locking, chasing, free (running), lost."""
        if self.way is None:
            return "none"
        silent = t - self.heard_at
        if silent > FREE_RUN_S:
            return "lost"
        if silent > _LOST_S:
            return "free"
        return "chasing" if self.times[-1] - self.times[0] >= LOCK_S else "locking"


def fitted(times: np.ndarray, positions: np.ndarray) -> Transport:
    """The way that fits frames best, at the stamp of the last: least squares, with what is expected of the speed beside them."""
    end = times[-1]
    back, ahead = times - end, positions - positions[-1] - (times - end)  # what is left once it goes at the speed of time
    mean = back.mean()
    spread = float(((back - mean) ** 2).sum())
    expected = (_JITTER_S / _SPEED_OFF) ** 2
    slope = float(((back - mean) * (ahead - ahead.mean())).sum()) / (spread + expected)
    return Transport(float(end), float(positions[-1] + ahead.mean() - slope * mean), 1 + slope)


SILENT = Chase()
"""Nothing was heard."""
