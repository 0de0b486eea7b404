"""Specials: lights taken out of the look for a person or a spot, through the dark (docs/computation.md, "Specials").

A head has a side, the look or a special, and a gate that scales its level; it changes sides only where its level is 0.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.looks import Look, base_of, held
from zarabanda.core.rig import attributes
from zarabanda.core.rig.abilities import numbers, whole
from zarabanda.core.rig.aims import pointed
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
Point = tuple[float, float]
"""Pan and tilt in degrees."""

LOOK = 0
"""The side on which a head shows the look; all others are specials, by number."""
LEAST_DARK_S = 0.3
SLOWER = 1.2
"""A way takes so many times what the kind's speed says."""


@dataclass(frozen=True, eq=False)
class Special:
    """A special on a rig. heads: keys; values (A, N): what it is, home where it sets nothing; times in s."""

    id: int
    name: str
    heads: tuple[str, ...]
    values: Floats
    out: float = 1.0
    move: float = 0.0
    up: float = 1.0


def made(
    rig: Rig, number: int, name: str, heads: Sequence[str], look: Look, aim: tuple[float, float, float] | None,
    *, out: float, move: float, up: float,
) -> Special:  # fmt: skip
    """A special of these heads and of what leads or turns them. look: what it sets, on the heads that can; aim: the point that it
    is aimed at, in m; None: what the look says, else home."""
    own = numbers(rig, heads)
    every = [*own.tolist(), *(head for head in whole(rig, own).tolist() if head not in own)]
    values = np.where(rig.heads.has, held(rig, look), np.nan)
    others = [head for head in every if head not in own]
    if others and len(own):
        values[attributes.INTENSITY, others] = np.where(
            rig.heads.has[attributes.INTENSITY, others], np.nanmax(values[attributes.INTENSITY, own], initial=0.0), np.nan
        )
        values[attributes.INTENSITY, own] = np.where(rig.led[own], 100.0, values[attributes.INTENSITY, own])
    if aim is not None and len(own):
        at = pointed(rig, own, aim)
        values[attributes.PAN, at.lights], values[attributes.TILT, at.lights] = at.pan, at.tilt
    return Special(number, name, tuple(rig.heads.keys[head] for head in every), base_of(rig, values), out, move, up)


@dataclass(frozen=True)
class Gate:
    """A head on its way between two sides.

    side: where it is; wanted: where it is asked to; from the share `level` at `at` it falls at 1 / out a second, or rises at
    1 / up; in the dark it waits until `opens`, for what it comes to, `goal`. Times in s. came_from: the side that it left last.
    """

    side: int = LOOK
    wanted: int = LOOK
    level: float = 1.0
    at: float = 0.0
    out: float = 1.0
    move: float = 0.0
    up: float = 1.0
    opens: float | None = None
    goal: Point = (0.0, 0.0)
    came_from: int = LOOK

    @property
    def falls(self) -> bool:
        """Whether it goes out, to change sides."""
        return self.wanted != self.side

    def share(self, t: float) -> float:
        """The share of the level that it lets through at t."""
        if self.opens is not None:
            return 0.0
        passed = max(t - self.at, 0.0)
        if self.falls:
            return max(self.level - passed / self.out, 0.0) if self.out > 0 else 0.0
        return min(self.level + passed / self.up, 1.0) if self.up > 0 else 1.0

    @property
    def due(self) -> float:
        """When something happens by itself: it comes to the dark and crosses, or begins to rise."""
        if self.opens is not None:
            return self.opens
        return self.at + self.level * self.out if self.falls else float("inf")

    def asked(self, wanted: int, special: Special, t: float) -> Gate:
        """Asked to a side by a press or a release of a special; from its present share."""
        timed = replace(self, wanted=wanted, out=special.out, move=special.move, up=special.up)
        if self.opens is not None and wanted == self.side:
            return timed
        return replace(timed, level=self.share(t), at=t, opens=None)

    def crossed(self, t: float, left: Point, goal: Point, speed: Point) -> Gate:
        """On the other side, in the dark. left: what the side it left commands; goal: what the new one comes to; speed: °/s."""
        dark = max(LEAST_DARK_S, self.move, SLOWER * way_s(left, goal, speed))
        return replace(self, side=self.wanted, level=0.0, at=t, opens=t + dark, goal=goal, came_from=self.side)

    def going_to(self, goal: Point, speed: Point) -> Gate:
        """While it waits in the dark: with another goal, if that has changed."""
        if self.opens is None or goal == self.goal:
            return self
        return replace(self, opens=self.opens + SLOWER * way_s(self.goal, goal, speed), goal=goal)

    def opened(self, t: float) -> Gate:
        """Rising on its side."""
        return replace(self, level=0.0, at=t, opens=None)

    @property
    def at_rest(self) -> bool:
        """Whether it is on the look and shall stay there: nothing of it needs to be kept once it is open."""
        return self.side == self.wanted == LOOK and self.opens is None


def way_s(start: Point, end: Point, speed: Point) -> float:
    """Time of the longer of the ways in pan and tilt, in s. speed: °/s of both."""
    return max(abs(b - a) / by for a, b, by in zip(start, end, speed, strict=True))


@dataclass(frozen=True)
class Specials:
    """All heads that are not simply in the look. on: specials that are on, the one pressed last at the end; level: of all."""

    on: tuple[int, ...] = ()
    gates: Mapping[str, Gate] = field(default_factory=dict)
    level: float = 1.0

    def gate(self, head: str) -> Gate:
        """Of a head."""
        return self.gates.get(head, Gate())


class Crossing:
    """A stage of the frame: heads on the side of a special show it, gates and the level of all specials scale."""

    def __init__(self, rig: Rig, specials: Specials, defined: Mapping[int, Special]) -> None:
        """defined: specials by number; a head of one that is gone shows the look."""
        self._rig, self._level = rig, specials.level
        self._gates = [(rig.heads.index[key], gate) for key, gate in specials.gates.items() if key in rig.heads.index]
        self._sides = {
            number: [head for head, gate in self._gates if gate.side == number]
            for number in {gate.side for _, gate in self._gates} & defined.keys()
        }
        self._defined = defined
        gated = {head for head, _ in self._gates}
        self._scaled = [(head, gate) for head, gate in self._gates if int(rig.leader[head]) not in gated]
        """Heads that a gate scales: what leads a cell scales it too."""
        self._touched = np.zeros(rig.home.shape, bool)
        self._touched[attributes.INTENSITY, list(gated)] = True
        for heads in self._sides.values():
            self._touched[:, heads] = True

    @property
    def touched(self) -> Bools:
        """The level of heads with a gate, and all of those in a special."""
        return self._touched

    def whose(self, head: int) -> str:
        """The special that a head shows, else the look."""
        return next((self._defined[number].name for number, heads in self._sides.items() if head in heads), "the look")

    def share(self, head: int, t: float) -> float:
        """The share of its level that a head's gate lets through."""
        return next((gate.share(t) for one, gate in self._gates if one == head), 1.0)

    def apply(self, values: Floats, t: float) -> None:
        """Act on values (A, N) in range."""
        for number, heads in self._sides.items():
            values[:, heads] = self._defined[number].values[:, heads]
        for head, gate in self._scaled:
            level = self._level if gate.side in self._defined else 1.0
            values[attributes.INTENSITY, head] *= gate.share(t) * level
