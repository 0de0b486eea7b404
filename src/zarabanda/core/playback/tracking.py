"""Tracking: what holds after a cue, from the changes of all cues up to it (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.cues import Cue

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True, eq=False)
class Tracked:
    """What holds after a cue, all (A, N). values: NaN where nothing is; palettes: of which they are, −1: none; source: which cue
    wrote it, by its place in the list, −1: none; written: what the cue itself writes; place: of the cue."""

    values: Floats
    palettes: Ints
    source: Ints
    written: Bools
    place: int = 0

    @property
    def carried(self) -> Bools:
        """What was carried on from earlier cues."""
        return ~np.isnan(self.values) & ~self.written


@dataclass(eq=False)
class Held:
    """What is carried on, while cues are folded one after another; all flat."""

    shape: tuple[int, int]
    values: Floats
    palettes: Ints
    source: Ints

    @classmethod
    def nothing(cls, shape: tuple[int, int]) -> Held:
        """Before the first cue."""
        size = shape[0] * shape[1]
        return cls(shape, np.full(size, np.nan), np.full(size, -1, np.int64), np.full(size, -1, np.int64))

    def copy(self) -> Held:
        """One of its own."""
        return Held(self.shape, self.values.copy(), self.palettes.copy(), self.source.copy())

    def take(self, cue: Cue, n: int) -> None:
        """Fold a cue in; what holds only there is not carried on."""
        lasting = cue.lasting
        self._begin(cue, n)
        self._write(cue.places[lasting], cue.numbers[lasting], cue.palettes[lasting], n)

    def shown(self, cue: Cue, n: int) -> Tracked:
        """What holds after a cue, with what holds only there."""
        held = self.copy()
        held._begin(cue, n)
        held._write(cue.places, cue.numbers, cue.palettes, n)
        written = np.zeros(len(held.values), bool)
        written[cue.places] = True
        if cue.states_everything:
            written |= ~np.isnan(held.values)
        shape = self.shape
        return Tracked(
            held.values.reshape(shape), held.palettes.reshape(shape), held.source.reshape(shape), written.reshape(shape), n
        )

    def _begin(self, cue: Cue, n: int) -> None:
        """What a cue stops ends; what it states again comes from it."""
        self.values[cue.stops] = np.nan
        self.palettes[cue.stops] = self.source[cue.stops] = -1
        if cue.states_everything:
            self.source[~np.isnan(self.values)] = n

    def _write(self, places: Ints, numbers: Floats, palettes: Ints, n: int) -> None:
        self.values[places], self.palettes[places], self.source[places] = numbers, palettes, n


@dataclass(frozen=True)
class RunningEffect:
    """An effect that runs after a cue. began: place of the cue that started it."""

    thread: int
    depth: float
    speed: float
    began: int


def effects_after(cues: Sequence[Cue]) -> dict[int, RunningEffect]:
    """The effects that run after the last of these cues, by thread, in the order in which they began."""
    found: dict[int, RunningEffect] = {}
    for place, cue in enumerate(cues):
        for one in cue.effects:
            if one.do == "change" and one.thread in found:
                found[one.thread] = replace(found[one.thread], depth=one.depth, speed=one.speed)
            elif one.do != "change":
                found.pop(one.thread, None)
            if one.do == "start":
                found[one.thread] = RunningEffect(one.thread, one.depth, one.speed, place)
    return found
