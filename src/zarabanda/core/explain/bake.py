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


def steps(times: Floats, values: Floats, max_error: float) -> Steps:
    """The fewest of the frames (T,) whose straight lines stay within `max_error` of every frame, first and last kept.

    The points that are kept lie on frames; of all ways to choose them so, this is one with the fewest (a shortest path over
    the lines that are good enough). Error: the largest difference at a frame, in the attribute's unit.
    """
    count = len(times)
    best = np.full(count, count + 1)
    came = np.zeros(count, np.int64)
    best[0] = 0
    for start in range(count - 1):
        if best[start] > count:
            continue
        run = times[start + 1 :] - times[start]
        rise = values[start + 1 :] - values[start]
        slope = rise / run
        # a line to frame j is within the error of all frames between if its slope lies in all their slope windows
        low = np.maximum.accumulate(np.concatenate([[-np.inf], ((rise - max_error) / run)[:-1]]))
        high = np.minimum.accumulate(np.concatenate([[np.inf], ((rise + max_error) / run)[:-1]]))
        ends = np.flatnonzero((slope >= low - 1e-12) & (slope <= high + 1e-12)) + start + 1
        closed = np.flatnonzero(low > high)
        if len(closed):
            ends = ends[ends <= start + 1 + closed[0]]
        better = ends[best[start] + 1 < best[ends]]
        best[better], came[better] = best[start] + 1, start
    kept = [count - 1]
    while kept[-1]:
        kept.append(int(came[kept[-1]]))
    chosen = np.array(kept[::-1])
    played = np.interp(times, times[chosen], values[chosen])
    return Steps(times[chosen], values[chosen], float(np.abs(played - values).max(initial=0.0)))
