"""Two colours that go to and fro over rows of lights, over the colours that are there (docs/computation.md, "Two colours")."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour import spaces as colour
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
Rgb = tuple[float, float, float]

_RGB = np.array([attributes.RED, attributes.GREEN, attributes.BLUE])
SPACE = "hsv-short"
"""The way between colours: round the hues, so that saturated ones never pass black, grey or white."""
REPICKED_S = 0.5
CYCLES_PER_BEAT = 0.25


@dataclass(frozen=True)
class Picked:
    """A colour that a hand picked at a stamp, on its way from the one before."""

    rgb: Rgb
    was: Rgb
    since: float = -1e9

    def at(self, t: float) -> Rgb:
        """What it is at t."""
        share = np.clip((t - self.since) / REPICKED_S, 0.0, 1.0)
        if share >= 1:
            return self.rgb
        way = colour.SPACES[SPACE](np.array([self.was]), np.array([self.rgb]), np.array([share]))[:, 0]
        red, green, blue = np.clip(way, 0, 1).tolist()
        return red, green, blue

    def to(self, rgb: Rgb, t: float) -> Picked:
        """Another, from where this is now."""
        return Picked(rgb, self.at(t), t)


@dataclass(frozen=True)
class TwoColours:
    """What is asked for. rows: that take part, by number; mix: how far it lies over the colours that are there, 0…1."""

    a: Picked = Picked((0.094, 0.722, 1.0), (0.094, 0.722, 1.0))
    b: Picked = Picked((1.0, 0.235, 0.608), (1.0, 0.235, 0.608))
    rows: frozenset[int] = frozenset()
    mix: float = 0.0

    @property
    def acts(self) -> bool:
        """Whether it is seen anywhere."""
        return self.mix > 0 and bool(self.rows)

    def with_(self, **changes: object) -> TwoColours:
        """With other parts."""
        return replace(self, **changes)  # type: ignore[arg-type]  # names are checked by replace


@dataclass(frozen=True, eq=False)
class Place:
    """Where it acts: heads (n,) that mix colours, and how far each is behind in the cycle, (n,), in cycles."""

    heads: Ints
    offset: Floats
    touched: Bools

    @classmethod
    def of(cls, rig: Rig, rows: Sequence[Ints]) -> Place:
        """On rows, heads of each in its order: a cycle goes once through every row."""
        heads, offsets = [np.zeros(0, np.int64)], [np.zeros(0)]
        for row in rows:
            mixing = rig.mixes[row]
            heads.append(row[mixing])
            offsets.append((np.arange(len(row)) / max(len(row), 1))[mixing])
        every, first = np.unique(np.concatenate(heads), return_index=True)
        touched = np.zeros(rig.home.shape, bool)
        touched[np.ix_(_RGB, every)] = True
        return cls(every, np.concatenate(offsets)[first], touched)


@dataclass(frozen=True, eq=False)
class Weaving:
    """A stage of the frame. theta: cycles; a, b: the colours as they are now; mix 0…1."""

    place: Place
    theta: float
    a: Rgb
    b: Rgb
    mix: float

    @property
    def touched(self) -> Bools:
        """Colours of all heads that take part."""
        return self.place.touched

    def apply(self, values: Floats) -> None:
        """Lay it over the colours of values (A, N): share ½ − ½ cos 2π(θ − offset) of the way from a to b."""
        share = 0.5 - 0.5 * np.cos(2 * np.pi * (self.theta - self.place.offset))
        many = (len(share), 3)
        woven = colour.SPACES[SPACE](np.broadcast_to(self.a, many).copy(), np.broadcast_to(self.b, many).copy(), share)
        base = values[np.ix_(_RGB, self.place.heads)]
        values[np.ix_(_RGB, self.place.heads)] = base + self.mix * (np.clip(woven, 0, 1) - base)
