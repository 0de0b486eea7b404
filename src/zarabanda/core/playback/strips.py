"""Strips: claims of one action of a holder that move alike, and how they are laid over one another.

docs/computation.md, "Claims". Everything is a pure function of actions and time: nothing depends on when frames are made.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour import spaces as colour
from zarabanda.core.playback.looks import Kind, places
from zarabanda.core.playback.shares import INFINITY, Timing, altered

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

DRAFT = "draft"
"""The holder that lies over all others."""
STRAIGHT = ("rgb", "cmy")
"""Spaces of colours in which they go straight from what is beneath."""
RETARGET_S = 0.2
"""So long a claim takes to follow a palette that was edited."""


@dataclass(frozen=True)
class Manner:
    """How a holder acts on stage. level: of its fader, 0…1; uncovers: whether the fader lets its claims cover so much of what
    they would, else it dims their intensities; highest: whether its intensities are apart from all others, and the highest
    wins."""

    level: float = 1.0
    uncovers: bool = False
    highest: bool = False

    @property
    def dimming(self) -> float:
        """Factor on the targets of intensities."""
        return 1.0 if self.uncovers else self.level


PLAIN = Manner()
NO_MANNERS: Mapping[str, Manner] = {}


@dataclass(frozen=True, eq=False)
class Strip:
    """Claims of a holder that move alike. cells (n,), targets (n, k): see `looks.Cells`; count: N.

    laid: stamp of the action by which it lies over others; rank: order in the show, for claims of one stamp; origin (n, k):
    what was beneath when the claim was made, for ways round a hue; was, retargeted: where the targets come from and since
    when, after an edit of a palette; early: claimed in the dark, before its cue.
    """

    holder: str
    laid: float
    rank: int
    kind: Kind
    family: str
    cells: Ints
    targets: Floats
    count: int
    timing: Timing
    space: str = "rgb"
    origin: Floats | None = None
    was: Floats | None = None
    retargeted: float = -INFINITY
    early: bool = False

    @property
    def order(self) -> tuple[bool, float, int]:
        """Later strips lie over earlier ones."""
        return self.holder == DRAFT, self.laid, self.rank

    @property
    def straight(self) -> bool:
        """Whether its values go straight from what is beneath to their targets."""
        return self.kind == "number" or (self.kind == "colour" and (self.space in STRAIGHT or self.origin is None))

    def part(self, chosen: Bools) -> Strip:
        """The strip of some of its cells."""
        if chosen.all():
            return self
        return altered(
            self,
            cells=self.cells[chosen],
            targets=self.targets[chosen],
            origin=None if self.origin is None else self.origin[chosen],
            was=None if self.was is None else self.was[chosen],
        )

    def divided(self, chosen: Bools) -> tuple[list[Strip], Strip]:
        """The strip of the cells that are not chosen, none where all are, and that of the chosen ones."""
        return [] if chosen.all() else [self.part(~chosen)], self.part(chosen)

    def target(self, t: float) -> Floats:
        """Where it goes, at t."""
        if self.was is None or t >= self.retargeted + RETARGET_S:
            return self.targets
        return self.was + (self.targets - self.was) * ((t - self.retargeted) / RETARGET_S)

    def lay(self, values: Floats, at: Ints | slice, t: float, manner: Manner = PLAIN, covered: Floats | None = None) -> None:
        """Lay it over flat values, where `at` (n, k) says that its cells are. covered: see `share`."""
        if self.kind == "step":
            if self.timing.shows_step(t) and not (manner.uncovers and manner.level == 0):
                values[at] = self.target(t)
            return
        share = self.share(t, manner, covered)
        if not np.any(share > 0):
            return
        beneath, target = values[at], self.target(t)
        if self.family == "intensity":
            target = target * manner.dimming
        if isinstance(share, float) and share >= 1:
            values[at] = target
        else:
            values[at] = mixed(self.kind, beneath, target, share, self.space, self.origin)

    def share(self, t: float, manner: Manner = PLAIN, covered: Floats | None = None) -> float | Floats:
        """How far it has come, 0…1; (n, 1) where newer claims of a holder that uncovers cover it: covered (n, 1), 0…1."""
        share = self.timing.share(t)
        if not manner.uncovers or manner.level == 1:
            return share
        if covered is None:
            return manner.level * share
        beneath = manner.level * share * (1 - covered)
        return np.asarray(beneath / (1 - manner.level * covered))

    def moves(self, t: float) -> bool:
        """Whether its values are changing, by its share or its target. Steps only jump."""
        if self.kind == "step":
            return False
        on_the_way = any(begin <= t < end for begin, end in self.timing.ways())
        return on_the_way or (self.was is not None and t < self.retargeted + RETARGET_S)

    def rests(self, t: float) -> bool:
        """Whether it has arrived by t and is current, as a claim of its cue: until something is done to it, it stays so."""
        timing = self.timing
        there = timing.arrives <= t and timing.is_current and timing.paused_at == INFINITY
        return there and not self.early and t >= self.retargeted + RETARGET_S

    def events(self) -> list[float]:
        """When something of it begins, ends or jumps."""
        return [*self.timing.events(), self.retargeted + RETARGET_S]

    def same(self, them: Strip) -> bool:
        """Whether it says the same as another."""
        plain = all(getattr(self, name) == getattr(them, name) for name in ("holder", "laid", "rank", "kind", "space", "timing"))
        return plain and np.array_equal(self.cells, them.cells) and np.array_equal(self.targets, them.targets)


def mixed(
    kind: Kind, beneath: Floats, target: Floats, share: float | Floats, space: str = "rgb", origin: Floats | None = None
) -> Floats:
    """So much of the way from what is beneath to targets, (n, k). share: 0…1, or (n, 1); space: way of colours; origin (n, k):
    what was beneath when it began, for ways round a hue; None: all go straight."""
    if origin is not None and kind == "colour" and space not in STRAIGHT:
        shares = np.broadcast_to(share, (len(target), 1))
        way = colour.SPACES[space](origin, target, shares[:, 0]).T
        return np.asarray(np.clip(way + (1 - shares) * (beneath - origin), 0, 1))
    if origin is not None and kind == "hue":
        way = origin + colour.hue_step(origin, target) * share
        return np.asarray((way + (1 - share) * (beneath - origin)) % 360)
    return np.asarray(beneath + share * (target - beneath))


def joined(strips: Sequence[Strip]) -> Strip:
    """One in the place of some that rest, side by side in their order."""
    last = strips[-1]
    if len(strips) == 1:
        return last
    origins = [strip.origin for strip in strips if strip.origin is not None]
    return altered(
        last,
        cells=np.concatenate([strip.cells for strip in strips]),
        targets=np.concatenate([strip.targets for strip in strips]),
        origin=np.concatenate(origins) if origins else None,
        was=None,
    )


@dataclass(frozen=True, eq=False)
class Laid:
    """A strip as it lies among others. at: where its values are, (n, k); manner: of its holder; above: newer strips of a
    holder that uncovers, each with the cells of this one that it covers, by number."""

    strip: Strip
    at: Ints
    manner: Manner = PLAIN
    above: tuple[tuple[Ints, Timing], ...] = ()

    @property
    def apart(self) -> bool:
        """Whether it is an intensity of which the highest wins."""
        return self.manner.highest and self.strip.family == "intensity"

    def lay(self, values: Floats, t: float) -> None:
        """Lay it over flat values."""
        covered = None
        if self.above:
            uncovered = np.ones((len(self.strip.cells), 1))
            for cells, timing in self.above:
                uncovered[cells] *= 1 - timing.share(t)
            covered = 1 - uncovered
        self.strip.lay(values, self.at, t, self.manner, covered)


def arranged(strips: Sequence[Strip], manners: Mapping[str, Manner]) -> list[Laid]:
    """Strips, oldest first, each with what it has to know of its holder and of the others."""
    laid = []
    for number, strip in enumerate(strips):
        manner, above = manners.get(strip.holder, PLAIN), []
        if manner.uncovers and manner.level != 1:
            for newer in strips[number + 1 :]:
                cells = np.flatnonzero(np.isin(strip.cells, newer.cells)) if newer.holder == strip.holder else ()
                if len(cells):
                    above.append((np.asarray(cells), newer.timing))
        laid.append(Laid(strip, places(strip.cells, strip.kind, strip.count), manner, tuple(above)))
    return laid


def lay_all(values: Floats, layers: Sequence[tuple[Sequence[Laid], float]]) -> None:
    """Lay strips over flat values, in layers that each have a time; then those of which the highest wins, each holder's over one
    another from 0."""
    highest: dict[str, Floats] = {}
    for laid, t in layers:
        for one in laid:
            if one.apart:
                apart = highest.setdefault(one.strip.holder, np.full(len(values), -INFINITY))
                apart[one.at] = np.maximum(apart[one.at], 0.0)
                one.lay(apart, t)
            else:
                one.lay(values, t)
    for apart in highest.values():
        np.maximum(values, apart, out=values)


def lay(home: Floats, strips: Sequence[Strip], t: float, manners: Mapping[str, Manner] = NO_MANNERS) -> Floats:
    """What strips, oldest first, come to over home at t, (A, N)."""
    values = home.astype(float)
    lay_all(values.reshape(-1), [(arranged(strips, manners), t)])
    return values
