"""Indexes that follow one another, taken as a slice: slices cost no copies."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray


def side_by_side(indexes: NDArray[np.int64]) -> NDArray[np.int64] | slice:
    """The indexes (n,) as a slice where each is one more than the one before; else as they are.

    >>> import numpy as np
    >>> side_by_side(np.array([4, 5, 6]))
    slice(4, 7, None)
    """
    together = len(indexes) and (np.diff(indexes) == 1).all()
    return slice(int(indexes[0]), int(indexes[-1]) + 1) if together else indexes
