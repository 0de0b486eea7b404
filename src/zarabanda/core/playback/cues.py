"""Cues and cue lists: what each cue changes, and what holds after it (docs/computation.md, "Cue lists").

Places are flat: attribute × N + head, see `looks`.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

_KEPT_EVERY = 32
"""After so many cues what holds is kept, so that a jump need not begin at the first."""


@dataclass(frozen=True)
class Times:
    """Times of a cue in s. delay: by family; fade: by family, for intensity `up` and `down`."""

    delay: Mapping[str, float] = field(default_factory=dict)
    fade: Mapping[str, float] = field(default_factory=dict)

    @classmethod
    def alike(cls, seconds: float) -> Times:
        """The same fade for all, and no delay."""
        return cls({}, dict.fromkeys(("up", "down", *attributes.FAMILIES), seconds))

    @classmethod
    def from_document(cls, document: Mapping[str, Mapping[str, float]]) -> Times:
        """From plain data: for intensity `up`, `down`, `delay`, for each other family `fade`, `delay`."""
        fade = {family: one.get("fade", 0.0) for family, one in document.items() if family != "intensity"}
        fade |= {name: document.get("intensity", {}).get(name, 0.0) for name in ("up", "down")}
        return cls({family: one.get("delay", 0.0) for family, one in document.items()}, fade)

    def delay_of(self, family: str) -> float:
        """Delay of a family."""
        return self.delay.get(family, 0.0)

    def fade_of(self, family: str, up: bool = False) -> float:
        """Fade of a family; of intensity: up or down."""
        return self.fade.get(("up" if up else "down") if family == "intensity" else family, 0.0)

    def arrives(self, families: Collection[str]) -> float:
        """When all of it has arrived: the largest delay + fade of these families, of intensity the longer of up and down."""
        return max((self.delay_of(one) + max(self.fade_of(one), self.fade_of(one, up=True)) for one in families), default=0.0)


@dataclass(frozen=True)
class Trigger:
    """What starts a cue. kind: go, with or after the one before and `wait` s, beat or bar of a tempo, or timecode."""

    kind: str = "go"
    wait: float = 0.0
    tempo: int | None = None

    @property
    def follows(self) -> bool:
        """Whether the cue comes by itself once the one before has gone."""
        return self.kind in ("with", "after", "beat", "bar")


@dataclass(frozen=True, eq=False)
class Cue:
    """What a cue changes, and how. places, numbers, palettes (m,): what it writes, and of which palette that is (−1: none);
    stops, only_here: places; way: of colours, empty: the palette's or the show's."""

    id: int
    number: float
    name: str
    places: Ints
    numbers: Floats
    palettes: Ints
    stops: Ints
    only_here: Ints
    states_everything: bool = False
    everything_else_out: bool = False
    times: Times = field(default_factory=Times)
    ease: str = "linear"
    way: str = ""
    trigger: Trigger = field(default_factory=Trigger)


@dataclass(frozen=True, eq=False)
class Tracked:
    """What holds after a cue, all (A, N). values: NaN where nothing is; palettes: of which they are, −1: none; source: which cue
    wrote it, by its place in the list, −1: none; written: what the cue itself writes."""

    values: Floats
    palettes: Ints
    source: Ints
    written: Bools

    @property
    def carried(self) -> Bools:
        """What was carried on from earlier cues."""
        return ~np.isnan(self.values) & ~self.written


@dataclass(frozen=True, eq=False)
class CueList:
    """A list: its cues in their order, and how they are played. back_s: time of going back; fader: `dims` or `uncovers`;
    shape: (A, N) of the rig."""

    id: int
    name: str
    cues: Sequence[Cue]
    shape: tuple[int, int]
    position: int = 0
    highest_wins: bool = False
    protected: bool = False
    fader: str = "dims"
    back_s: float = 1.0
    goes_round: bool = False

    @property
    def holder(self) -> str:
        """Who holds its claims."""
        return f"list:{self.id}"

    @cached_property
    def index(self) -> dict[int, int]:
        """Place of each cue by its id."""
        return {cue.id: n for n, cue in enumerate(self.cues)}

    @cached_property
    def _kept(self) -> list[_Held]:
        """What holds before every 32nd cue."""
        kept, held = [], _Held.nothing(self.shape)
        for n, cue in enumerate(self.cues):
            if n % _KEPT_EVERY == 0:
                kept.append(held.copy())
            held.take(cue, n)
        return kept

    def prepare(self) -> None:
        """Look at all cues once; done off the loop, since it takes its time."""
        _ = self._kept, self.index

    def after(self, n: int) -> Tracked:
        """What holds after the cue at a place."""
        held = self._kept[n // _KEPT_EVERY].copy()
        for place in range(n - n % _KEPT_EVERY, n):
            held.take(self.cues[place], place)
        return held.shown(self.cues[n], n)


@dataclass(eq=False)
class _Held:
    """What is carried on, while cues are folded one after another; all flat."""

    shape: tuple[int, int]
    values: Floats
    palettes: Ints
    source: Ints

    @classmethod
    def nothing(cls, shape: tuple[int, int]) -> _Held:
        size = shape[0] * shape[1]
        return cls(shape, np.full(size, np.nan), np.full(size, -1, np.int64), np.full(size, -1, np.int64))

    def copy(self) -> _Held:
        return _Held(self.shape, self.values.copy(), self.palettes.copy(), self.source.copy())

    def take(self, cue: Cue, n: int) -> None:
        """Fold a cue in; what holds only there is not carried on."""
        lasting = ~np.isin(cue.places, cue.only_here)
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
        return Tracked(*(array.reshape(self.shape) for array in (held.values, held.palettes, held.source, written)))

    def _begin(self, cue: Cue, n: int) -> None:
        """What a cue stops ends; what it states again comes from it."""
        self.values[cue.stops] = np.nan
        self.palettes[cue.stops] = self.source[cue.stops] = -1
        if cue.states_everything:
            self.source[~np.isnan(self.values)] = n

    def _write(self, places: Ints, numbers: Floats, palettes: Ints, n: int) -> None:
        self.values[places], self.palettes[places], self.source[places] = numbers, palettes, n


def families_of(places: Ints, count: int) -> set[str]:
    """Families of places. count: N."""
    return {attributes.ATTRIBUTES[row].family for row in np.unique(places // max(count, 1)).tolist()}
