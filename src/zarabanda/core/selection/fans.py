"""Fans: values spread over an ordered selection, by a rule (docs/computation.md, "Fans")."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.eases import EASES

Floats = NDArray[np.float64]
_NONE = 1e-9
_FARTHEST = 10.0
"""So many times as far as a hand pulls can an end go that lies far beyond: a head beside the fixed point moves little."""


def _from_middle(x: Floats, ease: Callable[[Floats], Floats]) -> Floats:
    return 0.5 + 0.5 * np.sign(2 * x - 1) * ease(np.abs(2 * x - 1))


FIXED: dict[str, Callable[[Floats, Callable[[Floats], Floats]], Floats]] = {
    "first": lambda x, ease: ease(x),
    "last": lambda x, ease: 1 - ease(1 - x),
    "middle": _from_middle,
    "both ends": lambda x, ease: x,
}
"""How far from `start` to `end` a head at x (0: first, 1: last) is, by what stays where it is when the others are dragged:
the ease begins at the fixed point."""


@dataclass(frozen=True)
class Fan:
    """start, end: values of the first and the last head, in the attribute's unit; bow: what the middle has beside the straight
    line, where both ends are fixed; fixed: a name from FIXED; ease: one from EASES; parts: each has the fan, 1…;
    mirror: every second one the other way round."""

    start: float
    end: float
    bow: float = 0.0
    fixed: str = "middle"
    ease: str = "linear"
    parts: int = 1
    mirror: bool = False

    def places(self, count: int) -> Floats:
        """Where each of `count` heads is in its part, (count,): 0 the first, 1 the last of the largest part.

        >>> Fan(0, 1, parts=2, mirror=True).places(5).tolist()
        [0.0, 0.5, 1.0, 0.5, 0.0]
        """
        rank = np.arange(count)
        part = rank * self.parts // max(count, 1)
        first = np.searchsorted(part, part)
        size = np.searchsorted(part, part, side="right") - first
        index = rank - first
        if self.mirror:
            index = np.where(part % 2 == 1, size - 1 - index, index)
        longest = int(size.max()) if count else 0
        alone = {"last": 1.0, "middle": 0.5}.get(self.fixed, 0.0)
        return index / (longest - 1) if longest > 1 else np.full(count, alone)

    def values(self, count: int) -> Floats:
        """What each of `count` heads has, in their order, (count,). Not limited to any range, nor to one turn of a circle.

        >>> Fan(-20, 20).values(5).tolist()
        [-20.0, -10.0, 0.0, 10.0, 20.0]
        """
        x = self.places(count)
        return self.start + (self.end - self.start) * self._along(x) + self.bow * self._across(x)

    def _along(self, x: Floats) -> Floats:
        return np.asarray(FIXED[self.fixed](x, EASES[self.ease]))

    def _across(self, x: Floats) -> Floats:
        return np.asarray(EASES[self.ease](1 - np.abs(2 * x - 1))) if self.fixed == "both ends" else np.zeros_like(x)

    def dragged(self, count: int, rank: int, value: float) -> Fan:
        """The fan whose head at `rank` (0…) has this value. The fixed point stays; dragged itself, all move with it."""
        x = self.places(count)[rank : rank + 1]
        along, across, difference = float(self._along(x)[0]), float(self._across(x)[0]), value - float(self.values(count)[rank])
        if self.fixed == "both ends":
            return self._bent(float(x[0]), across, difference)
        anchor = {"first": 0.0, "last": 1.0, "middle": 0.5}[self.fixed]
        reach = along - anchor
        if abs(reach) < _NONE:
            return replace(self, start=self.start + difference, end=self.end + difference)
        wider = difference / reach
        farthest = _FARTHEST * abs(difference)
        wider = float(np.clip(wider, -farthest, farthest))
        return replace(self, start=self.start - wider * anchor, end=self.end + wider * (1 - anchor))

    def _bent(self, x: float, across: float, difference: float) -> Fan:
        if x < _NONE:
            return replace(self, start=self.start + difference)
        if x > 1 - _NONE:
            return replace(self, end=self.end + difference)
        farthest = _FARTHEST * abs(difference)
        return replace(self, bow=self.bow + float(np.clip(difference / max(across, _NONE), -farthest, farthest)))


def spread(values: Floats, fixed: str, amount: float) -> Fan:
    """A fan over heads that have `values` (n,) now: its fixed point is what stands there, `amount` is from first to last.

    >>> spread(np.array([10.0, 10.0, 10.0]), "first", 30)
    Fan(start=10.0, end=40.0, bow=0.0, fixed='first', ease='linear', parts=1, mirror=False)
    """
    if fixed == "both ends":
        return Fan(float(values[0]), float(values[-1]), bow=amount, fixed=fixed)
    if fixed == "first":
        return Fan(float(values[0]), float(values[0]) + amount, fixed=fixed)
    if fixed == "last":
        return Fan(float(values[-1]) - amount, float(values[-1]), fixed=fixed)
    middle = (float(values[0]) + float(values[-1])) / 2
    return Fan(middle - amount / 2, middle + amount / 2, fixed=fixed)
