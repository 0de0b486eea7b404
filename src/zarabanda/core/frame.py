"""One frame: base, effects, levels, clamp, bytes, in the order of docs/computation.md, "The order of a frame"."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import DTypeLike, NDArray

from . import attributes
from .dmx import Mapper
from .plan import Plan, Running
from .rig import Rig

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Levels:
    """What scales intensity at the end: grand master 0…1, and blackout."""

    grand: float = 1.0
    blackout: bool = False

    @property
    def factor(self) -> float:
        """Factor on all intensities."""
        return 0.0 if self.blackout else self.grand


@dataclass(frozen=True)
class Base:
    """Values before effects: home, with draft values over it. (A, N) flat, natural units."""

    values: Floats


def base_of(rig: Rig, indexes: NDArray[np.int64] | None = None, values: Floats | None = None) -> Base:
    """Home values of all heads, with `values` put at flat `indexes` (attribute × head)."""
    flat = rig.home.ravel().copy()
    if indexes is not None and values is not None and len(indexes):
        flat[indexes] = values
    return Base(np.clip(flat, rig.low.ravel(), rig.high.ravel()))


class Frame:
    """Computes frames for one rig; the arrays it returns are buffers that the next frame overwrites."""

    def __init__(self, rig: Rig, precision: DTypeLike = np.float64) -> None:
        """precision: of the values; that of the plans that it is given."""
        self.rig = rig
        self._low, self._high = rig.low.astype(precision), rig.high.astype(precision)
        self._mapper = Mapper(rig, precision)
        self._values = self._mapper.values
        self._base: Base | None = None
        self._changed: set[int] = set()
        self._circles = {row for row, attribute in enumerate(attributes.ATTRIBUTES) if attribute.circle}

    def values(self, base: Base, plan: Plan, running: Running, levels: Levels) -> Floats:
        """Values (A, N) in natural units, clamped to each head's range."""
        values = self._values
        flat = values.ravel()
        if base is not self._base:
            self._base = base
            flat[:] = base.values
        else:  # only what the last frame changed
            kept = base.values.reshape(values.shape)
            for row in self._changed:
                values[row] = kept[row]
        self._changed = {attributes.INTENSITY, *plan.rows}
        plan.apply(flat, running)
        for row in plan.rows:
            own = values[row]
            if row in self._circles:
                own -= 360 * np.floor(own / 360)
            np.maximum(own, self._low[row], out=own)
            np.minimum(own, self._high[row], out=own)
        values[attributes.INTENSITY] *= levels.factor
        return values

    def bytes(self, values: Floats) -> NDArray[np.uint8]:
        """Bytes (universes, 512) for values (A, N)."""
        return self._mapper.bytes(values)
