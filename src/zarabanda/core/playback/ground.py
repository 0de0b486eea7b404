"""Home and claims as arrays for frames: what stands still is one array, kept until something changes; the rest is laid anew."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.neighbours import side_by_side
from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.looks import places
from zarabanda.core.playback.shares import INFINITY, altered
from zarabanda.core.playback.strips import Laid, arranged, lay_all
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Layer = tuple[Claims, float]
"""Claims, and the time at which they are looked at."""


@dataclass(frozen=True, eq=False)
class Cut(Laid):
    """A strip cut to the cells that move, all values of which move alike and straight: where they are among these, side by
    side (m,), and their targets."""

    straight: Ints | slice = field(default_factory=lambda: slice(0))
    targets: Floats = field(default_factory=lambda: np.zeros(0))

    def lay(self, values: Floats, t: float) -> None:
        """As `Laid.lay`."""
        share = self.strip.timing.share(t)
        if share > 0:
            step = self.targets - values[self.straight]
            step *= share
            values[self.straight] += step


def _cut(laid: Laid, precision: DTypeLike) -> Laid:
    """Quicker where that can be done."""
    strip, manner = laid.strip, laid.manner
    if not strip.straight or strip.was is not None or (manner.uncovers and manner.level != 1):
        return laid
    places_of, targets = laid.at.T.ravel(), strip.targets.T.ravel()
    if not (places_of[1:] > places_of[:-1]).all():
        order = np.argsort(places_of, kind="stable")
        places_of, targets = places_of[order], targets[order]
    targets = targets * (manner.dimming if strip.family == "intensity" else 1.0)
    return Cut(strip, laid.at, manner, (), side_by_side(places_of), targets.astype(precision))


@dataclass(frozen=True)
class Moving:
    """Cells that claims are moving: flat places (m,), what is beneath all claims there, and the strips of each layer cut to them;
    beneath: times of the layers below the last."""

    places: Ints
    home: Floats
    low: Floats
    high: Floats
    cuts: tuple[Sequence[Laid], ...]
    beneath: tuple[float, ...] = ()

    def at(self, t: float) -> Floats:
        """Their values at t, (m,)."""
        values = self.home.copy()
        lay_all(values, list(zip(self.cuts, (*self.beneath, t), strict=True)))
        return np.asarray(np.clip(values, self.low, self.high))


@dataclass(frozen=True, eq=False)
class Base:
    """What effects act on: `still` (A, N), another object whenever something of it has changed, and what claims are moving."""

    still: Floats
    moving: Moving | None = None


class Ground:
    """Keeps the base between frames: home, and all claims over it, within the ranges of the heads. For one rig."""

    def __init__(self, rig: Rig, precision: DTypeLike = np.float64) -> None:
        self.rig, self._precision = rig, precision
        self._known: list[tuple[Claims, float, float]] = []
        self._base = Base(np.zeros(0))

    def at(self, claims: Claims, t: float, beneath: Sequence[Layer] = ()) -> Base:
        """The base at t: `still` the same object as long as nothing begins, ends or jumps. beneath: what songs hold there,
        each at its own time."""
        layers = [*beneath, (claims, t)]
        if len(layers) == len(self._known) and all(
            one is known and begin <= time < end for (one, time), (known, begin, end) in zip(layers, self._known, strict=True)
        ):
            moving = self._base.moving
            if beneath and moving is not None:
                self._base = Base(self._base.still, altered(moving, beneath=tuple(time for _, time in beneath)))
            return self._base
        base = Base(base_at(self.rig, claims, t, beneath).astype(self._precision), self._moving(layers))
        known = [(one, *_stretch(one, time)) for one, time in layers]
        self._base, self._known = base, known  # both or neither: a fault on the way leaves what fits together
        return base

    def _moving(self, layers: Sequence[Layer]) -> Moving | None:
        moving = [strip for claims, t in layers for strip in claims.strips if strip.moves(t)]
        if not moving:
            return None
        marked = np.zeros(self.rig.home.size, bool)
        for strip in moving:
            marked[places(strip.cells, strip.kind, strip.count)] = True
        chosen = np.flatnonzero(marked)
        number = np.cumsum(marked) - 1
        cuts = []
        for claims, _ in layers:
            parts = [strip.part(marked[strip.cells]) for strip in claims.strips if marked[strip.cells].any()]
            laid = arranged(parts, claims.manners)
            cuts.append([_cut(altered(one, at=number[one.at]), self._precision) for one in laid])
        home, low, high = (
            array.reshape(-1)[chosen].astype(self._precision) for array in (self.rig.home, self.rig.low, self.rig.high)
        )
        return Moving(chosen, home, low, high, tuple(cuts), tuple(t for _, t in layers[:-1]))


def _stretch(claims: Claims, t: float) -> tuple[float, float]:
    """From when to when nothing begins, ends or jumps."""
    events = [time for strip in claims.strips for time in strip.events()]
    return max([-INFINITY, *(time for time in events if time <= t)]), min([INFINITY, *(time for time in events if time > t)])


def base_at(rig: Rig, claims: Claims, t: float, beneath: Sequence[Layer] = ()) -> Floats:
    """The base (A, N) at t, all of it: for one look, and what the quick way of `Ground` is compared with."""
    values = rig.home.astype(float)
    lay_all(values.reshape(-1), [(arranged(one.strips, one.manners), time) for one, time in (*beneath, (claims, t))])
    return np.asarray(np.clip(values, rig.low, rig.high))
