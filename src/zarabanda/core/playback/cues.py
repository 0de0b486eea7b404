"""Cues: what each changes, when and how (docs/computation.md, "Cue lists").

Places are flat: attribute × N + head, see `looks`.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


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


@dataclass(frozen=True)
class EffectChange:
    """What a cue does to an effect of its list. do: start, change or stop; thread: which one, by its number in the list; depth:
    share of the effect's own; speed: times its own."""

    do: str
    thread: int
    depth: float = 1.0
    speed: float = 1.0


@dataclass(frozen=True)
class PixelChange:
    """What a cue does to a pixel map. do: start, change or stop; use: map and picture of the library, 0: its own layers; share:
    0…1; over: over effects, or under them; None: as the map says."""

    do: str
    use: tuple[int, int]
    share: float = 1.0
    over: bool | None = None


@dataclass(frozen=True, eq=False)
class Cue:
    """What a cue changes, and how. places, numbers, palettes (m,): what it writes, and of which palette that is (−1: none);
    stops, only_here: places; count: N, of heads; way: of colours, empty: the palette's or the show's; dark_moves: whether
    lights are prepared for it in the dark; seen_moves: heads for which not."""

    id: int
    number: float
    name: str
    places: Ints
    numbers: Floats
    palettes: Ints
    stops: Ints
    only_here: Ints
    count: int
    states_everything: bool = False
    everything_else_out: bool = False
    times: Times = field(default_factory=Times)
    ease: str = "linear"
    way: str = ""
    trigger: Trigger = field(default_factory=Trigger)
    effects: tuple[EffectChange, ...] = ()
    takes_over: bool = True
    dark_moves: bool = True
    seen_moves: Ints = field(default_factory=lambda: np.zeros(0, np.int64))
    pixels: tuple[PixelChange, ...] = ()

    @cached_property
    def lasting(self) -> NDArray[np.bool_]:
        """Which of the places that it writes are carried on, (m,)."""
        return ~np.isin(self.places, self.only_here)

    @cached_property
    def levels(self) -> tuple[Ints, Floats, NDArray[np.bool_], Ints]:
        """What it writes of intensity: heads, numbers, which are carried on; and the heads whose intensity it stops."""
        own, stopped = self._of_intensity(self.places), self._of_intensity(self.stops)
        first = attributes.INTENSITY * self.count
        return self.places[own] - first, self.numbers[own], self.lasting[own], self.stops[stopped] - first

    def _of_intensity(self, places: Ints) -> NDArray[np.bool_]:
        return np.asarray(places // max(self.count, 1) == attributes.INTENSITY)

    @cached_property
    def families(self) -> frozenset[str]:
        """Families in which it writes or stops values."""
        return frozenset(families_of(self.places, self.count) | families_of(self.stops, self.count))

    @cached_property
    def writes(self) -> int:
        """How many values it writes; a colour is one."""
        return int((~np.isin(self.places // max(self.count, 1), [attributes.GREEN, attributes.BLUE])).sum())


def families_of(places: Ints, count: int) -> set[str]:
    """Families of places. count: N."""
    there = np.zeros(len(attributes.ATTRIBUTES), bool)
    there[places // max(count, 1)] = True
    return {attributes.ATTRIBUTES[row].family for row in np.flatnonzero(there).tolist()}
