"""From ordered heads to lanes: order, parts, mirror, packs, repeat, travel (docs/computation.md, "Lanes")."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class LaneMap:
    """Where each head stands in the pattern, by rank (the order is applied before).

    lane: (n,) in 0…count−1; key: (n,) for random numbers, alike for heads that act as one; backward: (n,) true for heads
    of parts that are counted from their other end; count: the number of lanes L.
    """

    lane: Ints
    key: Ints
    backward: NDArray[np.bool_]
    part: Ints
    count: int


def lane_map(
    heads: int, *, parts: int = 1, mirror: bool = False, pack: int = 1, repeat: int = 0, reverse: bool = False
) -> LaneMap:
    """Lanes of `heads` ordered heads.

    >>> lane_map(9, parts=2, mirror=True, pack=2).lane.tolist()
    [0, 0, 1, 1, 2, 1, 1, 0, 0]
    >>> lane_map(5, parts=2, mirror=True).lane.tolist()
    [0, 1, 2, 1, 0]
    """
    rank = np.arange(heads)
    part = rank * parts // heads if heads else rank
    sizes = np.bincount(part, minlength=parts)
    index = rank - (np.cumsum(sizes) - sizes)[part]
    backward = (part % 2 == 1) if mirror else np.zeros(heads, bool)
    index = np.where(backward, sizes[part] - 1 - index, index)
    packed = index // pack
    count = -(-int(sizes.max(initial=1)) // pack)
    lane = packed
    if repeat:
        lane = packed % repeat
        count = min(count, repeat)
    if reverse:
        lane = count - 1 - lane
    key = packed if mirror else packed + part * 65_537
    return LaneMap(lane=lane, key=key, backward=backward, part=part, count=count)
