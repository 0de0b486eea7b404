"""One frame: base, effects, levels, clamp, bytes, in the order of docs/computation.md, "The order of a frame"."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import groupby
from typing import Protocol

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.clamp import as_constant
from zarabanda.core.effects.batch.plan import Running
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.core.rig.slots import Mapper, Part

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


@dataclass(frozen=True)
class _Stretch:
    """Neighbouring heads of neighbouring attributes that the plan may change, and what their values may be."""

    at: tuple[slice, slice]
    low: Floats
    high: Floats
    base: Floats
    circle: bool


class Acting(Protocol):
    """What acts on values: a plan, or some of them one after another."""

    touched: NDArray[np.bool_]

    def apply(self, values: Floats, running: Running) -> None:
        """As `Plan.apply`."""


class Frame:
    """Computes frames for one rig; the arrays it returns are buffers that the next frame overwrites.

    What stays from frame to frame (base, plan, level) is looked at once; then only what the plan can change is computed.
    """

    def __init__(self, rig: Rig, precision: DTypeLike = np.float64) -> None:
        """precision: of the values; that of the plans that it is given."""
        self.rig = rig
        self._precision = precision
        self._mapper = Mapper(rig, precision)
        self._values = self._mapper.values
        self._base: Base | None = None
        self._plan: Acting | None = None
        self._factor = 1.0
        self._stretches: list[_Stretch] = []
        self._moving: Part | None = None
        self._all_new = True

    def values(self, base: Base, plan: Acting, running: Running, levels: Levels) -> Floats:
        """Values (A, N) in natural units, clamped to each head's range."""
        values = self._values
        flat = values.ravel()
        self._all_new = base is not self._base or plan is not self._plan or levels.factor != self._factor
        if self._all_new:
            self._base = None  # until all of it is taken: a fault in between must not be forgotten
            self._take(base, plan, levels)
            flat[:] = base.values
            self._base = base
        else:
            for stretch in self._stretches:
                values[stretch.at] = stretch.base
        plan.apply(flat, running)
        for stretch in self._stretches:
            own = values[stretch.at]
            if stretch.circle:
                own -= 360 * np.floor(own / 360)
            np.maximum(own, stretch.low, out=own)
            np.minimum(own, stretch.high, out=own)
        if self._factor != 1:
            values[attributes.INTENSITY] *= self._factor
        return values

    def bytes(self, values: Floats) -> NDArray[np.uint8]:
        """Bytes (universes, 512) for values (A, N)."""
        known = values is self._values and not self._all_new
        return self._mapper.bytes(values, self._moving if known else None)

    def _take(self, base: Base, plan: Acting, levels: Levels) -> None:
        """Look at what will stay: where the plan can change values, and which channels follow these."""
        if plan is not self._plan:
            self._moving = self._mapper.part(plan.touched)
        self._plan, self._factor = plan, levels.factor
        restored = plan.touched.copy()
        if levels.factor != 1:  # the intensity of every head is scaled anew in each frame
            restored[attributes.INTENSITY] = True
        limits = (self.rig.low.astype(self._precision), self.rig.high.astype(self._precision))
        whole = base.values.astype(self._precision).reshape(restored.shape)
        self._stretches = []
        for at, circle in _blocks(restored):
            low, high, rest = (as_constant(array[at]) for array in (*limits, whole))
            self._stretches.append(_Stretch(at, low, high, rest, circle))


def _blocks(restored: NDArray[np.bool_]) -> Iterator[tuple[tuple[slice, slice], bool]]:
    """Neighbouring attributes of which the same neighbouring heads are restored, and whether they are circles."""

    def alike(row: int) -> tuple[int, int, bool]:
        heads = np.flatnonzero(restored[row])
        return int(heads[0]), int(heads[-1]) + 1, attributes.ATTRIBUTES[row].circle

    rows = [int(row) for row in np.flatnonzero(restored.any(axis=1))]
    for (_, (first, end, circle)), found in groupby(rows, lambda row: (row - rows.index(row), alike(row))):
        block = list(found)
        yield (slice(block[0], block[-1] + 1), slice(first, end)), circle
