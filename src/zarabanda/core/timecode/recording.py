"""What was recorded, reduced to what says the same: points of a fader (docs/computation.md, "Timelines")."""

from __future__ import annotations

from collections.abc import Sequence

Point = tuple[float, float]
WITHIN = 0.005
"""Share of the way of a fader by which points that are left out may differ."""


def reduced(moves: Sequence[Point], within: float = WITHIN) -> list[Point]:
    """The fewest of these points (position in s, value 0…1, in order) between which straight lines stay within so much of all of
    them: each line goes as far as it can before the next point is needed.

    >>> reduced([(0, 0.0), (1, 0.5), (2, 1.0), (3, 1.0)])
    [(0, 0.0), (2, 1.0), (3, 1.0)]
    """
    points = list(moves)
    if len(points) < 3:
        return points
    best = [0.0] + [float("inf")] * (len(points) - 1)
    before = [0] * len(points)
    for start in range(len(points) - 1):
        low, high, (at, value) = float("-inf"), float("inf"), points[start]
        for end in range(start + 1, len(points)):
            p, v = points[end]
            if p <= at:
                continue
            slope = (v - value) / (p - at)
            if low <= slope <= high and best[start] + 1 < best[end]:
                best[end], before[end] = best[start] + 1, start
            low, high = max(low, (v - within - value) / (p - at)), min(high, (v + within - value) / (p - at))
            if low > high:
                break
    kept, n = [len(points) - 1], len(points) - 1
    while n:
        n = before[n]
        kept.append(n)
    return [points[n] for n in reversed(kept)]
