"""One frame: base, effects, levels, clamp, bytes, as stages in the order of docs/computation.md, "The order of a frame".

Each stage says which values it touches. What no stage touches is put there once, and stays from frame to frame.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Protocol

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.clamp import as_constant
from zarabanda.core.effects.batch.batches import Running
from zarabanda.core.playback.ground import Base
from zarabanda.core.playback.stand_ins import StandIns
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.core.rig.slots import Mapper, Part

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]


class Acting(Protocol):
    """Effects that act on values: as batches, or several sets of them one after another."""

    touched: Bools

    def apply(self, values: Floats, running: Running) -> None:
        """As `Batches.apply`."""


class Stage(Protocol):
    """A step of a frame. Later ones act on what earlier ones left, and may leave the ranges of the heads."""

    @property
    def touched(self) -> Bools:
        """(A, N) true where it may change a value in any frame; the same array as long as that stays."""

    def apply(self, values: Floats) -> None:
        """Act on values (A, N)."""


@dataclass(frozen=True)
class Effects:
    """Effects of the draft and of controls, oldest first."""

    acting: Acting
    running: Running

    @property
    def touched(self) -> Bools:
        """What any of them moves."""
        return self.acting.touched

    def apply(self, values: Floats) -> None:
        """Add them."""
        self.acting.apply(values.reshape(-1), self.running)


class Closing(Protocol):
    """A step of a frame on values in range, before levels: specials."""

    @property
    def touched(self) -> Bools:
        """(A, N) true where it may change a value in any frame."""

    def apply(self, values: Floats, t: float) -> None:
        """Act on values (A, N) at t."""

    def whose(self, head: int) -> str:
        """What a head shows, in words."""

    def share(self, head: int, t: float) -> float:
        """The share of the level of what a head shows, 0…1."""


@dataclass(frozen=True)
class GroupLevel:
    """The level of a group, 0…1. heads: those that it scales: not cells of a fixture whose own level it scales."""

    name: str
    heads: tuple[int, ...]
    level: float


@dataclass(frozen=True)
class Levels:
    """What scales intensity at the end: groups, grand master 0…1, blackout. apart: heads in specials, not scaled by groups."""

    grand: float = 1.0
    blackout: bool = False
    groups: tuple[GroupLevel, ...] = ()
    apart: frozenset[int] = frozenset()

    @property
    def factor(self) -> float:
        """Factor on all intensities."""
        return 0.0 if self.blackout else self.grand

    @property
    def act(self) -> bool:
        """Whether they change anything."""
        return self.factor != 1 or bool(self.groups)

    def scaled(self, group: GroupLevel) -> list[int]:
        """Heads that a group scales now."""
        return [head for head in group.heads if head not in self.apart]

    def apply(self, values: Floats, rig: Rig) -> None:
        """Scale what was brought into range before; of a fixture with cells its own level alone, which scales theirs."""
        for group in self.groups:
            values[attributes.INTENSITY, self.scaled(group)] *= group.level
        if self.factor != 1:
            values[attributes.INTENSITY, rig.unled] *= self.factor


@dataclass(frozen=True)
class _Stretch:
    """Neighbouring heads of neighbouring attributes that stages touch, and what their values may be."""

    at: tuple[slice, slice]
    low: Floats
    high: Floats
    circle: bool


class Reach:
    """What a stage touches, looked at once: what must be put back before a frame, kept in range after it, and sent."""

    def __init__(self, rig: Rig, mapper: Mapper, touched: Bools, precision: DTypeLike) -> None:
        self.part: Part = mapper.part(touched)
        low, high = rig.low.astype(precision), rig.high.astype(precision)
        scaled = touched.copy()
        scaled[attributes.INTENSITY] = True
        self.stretches = _stretches(touched, low, high)
        self.stretches_scaled = _stretches(scaled, low, high)
        """The same while levels scale the intensity of every head."""


class Frame:
    """Computes frames for one rig; the arrays it returns are buffers that the next frame overwrites."""

    def __init__(self, rig: Rig, precision: DTypeLike = np.float64) -> None:
        """precision: of the values; that of the batches that it is given."""
        self.rig, self._precision = rig, precision
        self._mapper = Mapper(rig, precision)
        self._values = self._mapper.values
        self._before: tuple[object, ...] = ()
        everything = np.ones(rig.home.shape, bool)
        self._everything = Reach(rig, self._mapper, everything, precision)
        self._reaches: dict[int, tuple[Bools, Reach]] = {}
        self._only: Part | None = None

    def prepare(self, touched: Bools) -> None:
        """Look at what a stage touches before a frame needs it; slow, so that it is done off the loop."""
        if id(touched) not in self._reaches:
            reaches = {**self._reaches, id(touched): (touched, Reach(self.rig, self._mapper, touched, self._precision))}
            self._reaches = dict(list(reaches.items())[-_REACHES_KEPT:])

    def values(
        self,
        base: Base,
        stages: Sequence[Stage],
        levels: Levels,
        t: float = 0.0,
        closing: Closing | None = None,
        stand_ins: StandIns | None = None,
    ) -> Floats:
        """Values (A, N) in natural units, each within its head's range. t: of what claims are moving;
        closing: what acts on values in range; stand_ins: the last step, with which every value is put there anew.

        What nobody looked at before is taken as if it touched everything.
        """
        values, touched = self._values, [stage.touched for stage in stages]
        if closing is not None:
            touched.append(closing.touched)
        known = [self._reaches.get(id(one)) for one in touched]
        reaches = [one[1] for one in known if one is not None]
        if len(reaches) < len(touched):
            reaches = [self._everything]
        now = (base, levels, stand_ins, *map(id, touched))
        all_new = stand_ins is not None or base.moving is not None or now != self._before or reaches == [self._everything]
        self._before = ()  # until all of it is taken: a fault in between must not be forgotten
        stretches = [one for reach in reaches for one in (reach.stretches_scaled if levels.act else reach.stretches)]
        if all_new:
            values[:] = base.still
            if base.moving is not None:
                values.reshape(-1)[base.moving.places] = base.moving.at(t)
        else:
            for stretch in stretches:
                values[stretch.at] = base.still[stretch.at]
        for stage in stages:
            stage.apply(values)
        for stretch in stretches:
            _bring_into_range(values[stretch.at], stretch)
        if closing is not None:
            closing.apply(values, t)
        levels.apply(values, self.rig)
        if stand_ins is not None:
            stand_ins.apply(values)
        self._before = now
        self._only = reaches[0].part if len(reaches) == 1 and not all_new else None
        return values

    def bytes(self, values: Floats) -> NDArray[np.uint8]:
        """Bytes (universes, 512) for values (A, N)."""
        return self._mapper.bytes(values, self._only if values is self._values else None)


_REACHES_KEPT = 64


def _bring_into_range(own: Floats, stretch: _Stretch) -> None:
    if stretch.circle:
        own -= 360 * np.floor(own / 360)
    np.maximum(own, stretch.low, out=own)
    np.minimum(own, stretch.high, out=own)


def _stretches(touched: Bools, low: Floats, high: Floats) -> list[_Stretch]:
    return [_Stretch(at, as_constant(low[at]), as_constant(high[at]), circle) for at, circle in _blocks(touched)]


def _blocks(restored: Bools) -> Iterator[tuple[tuple[slice, slice], bool]]:
    """Neighbouring attributes of which the same neighbouring heads are restored, and whether they are circles."""

    def alike(row: int) -> tuple[int, int, bool]:
        heads = np.flatnonzero(restored[row])
        return int(heads[0]), int(heads[-1]) + 1, attributes.ATTRIBUTES[row].circle

    rows = [int(row) for row in np.flatnonzero(restored.any(axis=1))]
    for (_, (first, end, circle)), found in groupby(rows, lambda row: (row - rows.index(row), alike(row))):
        block = list(found)
        yield (slice(block[0], block[-1] + 1), slice(first, end)), circle
