"""An effect written out over one closing cycle: as frames at a rate, or as the fewest steps within a stated error."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.effect import Effect
from zarabanda.core.effects.placement import place
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
_FIRST_LOOK = 64
"""So many frames are looked at first for how far a line goes; then four times as many, and so on."""


@dataclass(frozen=True)
class Frames:
    """Values at even times. times (T,) s; values (T, heads) by attribute, natural units; seconds: length of the cycle."""

    times: Floats
    values: dict[str, Floats]
    seconds: float


@dataclass(frozen=True)
class Steps:
    """Steps of one attribute on one head: times (S,) s and values (S,), joined by straight lines; error reached, in its unit."""

    times: Floats
    values: Floats
    error: float


def frames(effect: Effect, head_set: weave.HeadSet, bpm: float, rate: float) -> Frames:
    """One closing cycle of an effect (64 cycles at most), a frame every 1/rate s, both ends included."""
    placed = place(effect, np.arange(len(head_set.heads)), head_set.heads)
    seconds = weave.closing_cycles(effect, placed) * weave.cycle_seconds(effect, bpm)
    count = max(int(np.ceil(seconds * rate - 1e-9)), 1)
    times = np.linspace(0, seconds, count + 1)
    values = weave.over_time(effect, head_set, weave.theta_at(effect, times, bpm), placed=placed).values
    return Frames(times, {name: values[:, attributes.INDEX[name]] for name in weave.moved(effect, head_set)}, seconds)


def kept_frames(times: Floats, values: Floats, errors: Floats) -> Ints:
    """The fewest of the frames (T,) whose straight lines stay within `errors` (K,) of every frame of values (T, K): their
    numbers, first and last among them.

    The points that are kept lie on frames; of all ways to choose them so, this is one with the fewest (a shortest path over
    the lines that are good enough).
    """
    count = len(times)
    best = np.full(count, count + 1)
    came = np.zeros(count, np.int64)
    best[0] = 0
    for start in range(count - 1):
        if (best[start + 1 :] <= best[start] + 1).all():
            continue
        ends = _reached(times, values, errors, start)
        better = ends[best[start] + 1 < best[ends]]
        best[better], came[better] = best[start] + 1, start
    kept = [count - 1]
    while kept[-1]:
        kept.append(int(came[kept[-1]]))
    return np.array(kept[::-1], np.int64)


def _reached(times: Floats, values: Floats, errors: Floats, start: int) -> Ints:
    """Frames to which a straight line from a frame is good enough. A line to frame j is within the error of all frames between
    if its slope lies in all their slope windows."""
    count, size = len(times), _FIRST_LOOK
    while True:
        stop = min(start + 1 + size, count)
        run = (times[start + 1 : stop] - times[start])[:, None]
        rise = values[start + 1 : stop] - values[start]
        slope, edge = rise / run, np.full((1, values.shape[1]), np.inf)
        low = np.maximum.accumulate(np.concatenate([-edge, ((rise - errors) / run)[:-1]]))
        high = np.minimum.accumulate(np.concatenate([edge, ((rise + errors) / run)[:-1]]))
        closed = np.flatnonzero((low > high).any(axis=1))
        if len(closed) or stop == count:
            break
        size *= 4
    good = np.flatnonzero(((slope >= low - 1e-12) & (slope <= high + 1e-12)).all(axis=1))
    return (good[good <= closed[0]] if len(closed) else good) + start + 1


def off_by(times: Floats, values: Floats, kept: Ints) -> Floats:
    """The largest difference (K,) at any frame of values (T, K) from straight lines between the frames that are kept."""
    played = np.stack([np.interp(times, times[kept], column[kept]) for column in values.T], axis=1)
    return np.asarray(np.abs(played - values).max(axis=0, initial=0.0))


def steps(times: Floats, values: Floats, max_error: float) -> Steps:
    """The fewest of the frames (T,) whose straight lines stay within `max_error` of every frame, first and last kept. Error: the
    largest difference at a frame, in the attribute's unit."""
    column = np.asarray(values, float)[:, None]
    kept = kept_frames(times, column, np.array([max_error]))
    return Steps(times[kept], column[kept, 0], float(off_by(times, column, kept)[0]))


def nearest_close(values: Floats, spans: Floats) -> tuple[int, float]:
    """Of the frames 1… of values (T, K), the one that is most like the first, and how far off it is: the largest difference, as a
    share of spans (K,)."""
    off = (np.abs(values[1:] - values[0]) / spans).max(axis=1)
    best = int(off.argmin())
    return best + 1, float(off[best])
