"""Claims: who holds what on stage since when, and what that comes to (docs/computation.md, "Claims").

Claims of one action of a holder that move alike are one `Strip`; together with the other strips of that action they are
its sheet. Everything is a pure function of actions and time: nothing depends on when frames are made.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour import spaces as colour
from zarabanda.core.playback.looks import Cells, Kind, places
from zarabanda.core.playback.shares import INFINITY, Release, Timing

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

DRAFT = "draft"
"""The holder that lies over all others."""
_STRAIGHT = ("rgb", "cmy")
RETARGET_S = 0.2
"""So long a claim takes to follow a palette that was edited."""


@dataclass(frozen=True, eq=False)
class Strip:
    """Claims of a holder that move alike. cells (n,), targets (n, k): see `looks.Cells`; count: N.

    origin (n, k): what was beneath when the claim was made, for ways round a hue; rank: order in the show, for claims of
    one stamp; was, retargeted: where the targets come from and since when, after an edit of a palette.
    """

    holder: str
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

    @property
    def order(self) -> tuple[bool, float, int]:
        """Later strips lie over earlier ones."""
        return self.holder == DRAFT, self.timing.stamp, self.rank

    @property
    def straight(self) -> bool:
        """Whether its values go straight from what is beneath to their targets."""
        return self.kind == "number" or (self.kind == "colour" and (self.space in _STRAIGHT or self.origin is None))

    def part(self, chosen: Bools) -> Strip:
        """The strip of some of its cells."""
        if chosen.all():
            return self
        return replace(
            self,
            cells=self.cells[chosen],
            targets=self.targets[chosen],
            origin=None if self.origin is None else self.origin[chosen],
            was=None if self.was is None else self.was[chosen],
        )

    def target(self, t: float) -> Floats:
        """Where it goes, at t."""
        if self.was is None or t >= self.retargeted + RETARGET_S:
            return self.targets
        return self.was + (self.targets - self.was) * ((t - self.retargeted) / RETARGET_S)

    def lay(self, values: Floats, at: Ints | slice, t: float) -> None:
        """Lay it over flat values, where `at` (n, k) says that its cells are."""
        if self.kind == "step":
            if self.timing.shows_step(t):
                values[at] = self.target(t)
            return
        share = self.timing.share(t)
        if share <= 0:
            return
        beneath = values[at]
        if self.kind == "colour" and self.origin is not None and not self.straight:
            way = colour.SPACES[self.space](self.origin, self.target(t), np.full(len(self.cells), share)).T
            values[at] = np.clip(way + (1 - share) * (beneath - self.origin), 0, 1)
        elif self.kind == "hue" and self.origin is not None:
            way = self.origin + colour.hue_step(self.origin, self.target(t)) * share
            values[at] = (way + (1 - share) * (beneath - self.origin)) % 360
        else:
            values[at] = self.target(t) if share >= 1 else beneath + share * (self.target(t) - beneath)

    def moves(self, t: float) -> bool:
        """Whether its values are changing, by its share or its target. Steps only jump."""
        if self.kind == "step":
            return False
        on_the_way = any(begin <= t < end for begin, end in self.timing.ways())
        return on_the_way or (self.was is not None and t < self.retargeted + RETARGET_S)

    def events(self) -> list[float]:
        """When something of it begins, ends or jumps."""
        return [*self.timing.events(), self.retargeted + RETARGET_S]

    def same(self, other: Strip) -> bool:
        """Whether it says the same as another."""
        plain = all(getattr(self, name) == getattr(other, name) for name in ("holder", "rank", "kind", "space", "timing"))
        return plain and np.array_equal(self.cells, other.cells) and np.array_equal(self.targets, other.targets)


@dataclass(frozen=True, eq=False)
class Claims:
    """All claims, in the order in which they are laid."""

    strips: tuple[Strip, ...] = ()

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, Claims) or len(self.strips) != len(other.strips):
            return False
        return all(mine.same(theirs) for mine, theirs in zip(self.strips, other.strips, strict=True))

    __hash__ = None  # type: ignore[assignment]  # arrays have none

    def advanced(self, t: float) -> Claims:
        """Without what is covered or released for good by t."""
        if all(strip.timing.over_at > t for strip in self.strips):
            return self
        return Claims(tuple(strip for strip in self.strips if strip.timing.over_at > t))

    def claimed(
        self,
        holder: str,
        cells: Iterable[Cells],
        home: Floats,
        timing: Mapping[str, Timing],
        *,
        rank: int = 0,
        space: str = "rgb",
    ) -> Claims:
        """With new claims of a holder, on top. home (A, N); timing: by family; space: way of colours."""
        strips, count = list(self.strips), home.shape[1]
        made = []
        for new in cells:
            time = timing[new.family]
            kept: list[Strip] = []
            for strip in strips:
                covered = np.isin(strip.cells, new.cells) if strip.holder == holder else np.zeros(len(strip.cells), bool)
                if covered.any():
                    kept += [strip.part(~covered)] if not covered.all() else []
                    part = strip.part(covered)
                    kept.append(replace(part, timing=part.timing.covered_by(time)))
                else:
                    kept.append(strip)
            strips = kept
            made.append(Strip(holder, rank, new.kind, new.family, new.cells, new.targets, count, time, space))
        beneath = Claims(_in_order(strips))
        for n, strip in enumerate(made):
            if (strip.kind == "colour" and space not in _STRAIGHT) or strip.kind == "hue":
                lower = [other for other in beneath.strips if other.order <= strip.order]
                at = places(strip.cells, strip.kind, count)
                made[n] = replace(strip, origin=lay(home, lower, strip.timing.stamp).reshape(-1)[at])
        now = Claims(_in_order([*strips, *made]))
        return now.advanced(made[0].timing.stamp) if made else now

    def released(self, holder: str, cells: Ints | None, release: Mapping[str, Release]) -> Claims:
        """With all claims of a holder on some cells (None: everywhere) released. release: by family."""
        strips: list[Strip] = []
        for strip in self.strips:
            chosen = np.isin(strip.cells, cells) if cells is not None else np.ones(len(strip.cells), bool)
            if strip.holder != holder or not chosen.any():
                strips.append(strip)
                continue
            strips += [strip.part(~chosen)] if not chosen.all() else []
            part = strip.part(chosen)
            strips.append(replace(part, timing=part.timing.released_by(release[strip.family])))
        return Claims(_in_order(strips)).advanced(release["intensity"].action)

    def retargeted(self, holder: str, cells: Ints, targets: Floats, t: float) -> Claims:
        """With other targets for a holder's current claims on cells (n,), as a palette was edited: they get there in 0.2 s.
        targets: (n, k)."""
        strips: list[Strip] = []
        for strip in self.strips:
            chosen = np.isin(strip.cells, cells) & (strip.holder == holder and strip.timing.is_current)
            if not chosen.any():
                strips.append(strip)
                continue
            strips += [strip.part(~chosen)] if not chosen.all() else []
            part = strip.part(chosen)
            order = np.argsort(cells, kind="stable")
            found = order[np.searchsorted(cells, part.cells, sorter=order)]
            strips.append(replace(part, was=part.target(t), targets=targets[found], retargeted=t))
        return Claims(_in_order(strips))


def held_now(claims: Claims, holder: str, shape: tuple[int, ...]) -> Floats:
    """What current claims of a holder go to, (A, N), NaN where it has none."""
    held = np.full(shape, np.nan)
    for strip in claims.strips:
        if strip.holder == holder and strip.timing.is_current:
            held.reshape(-1)[places(strip.cells, strip.kind, strip.count)] = strip.targets
    return held


def on_other_heads(claims: Claims, now: Ints, count: int) -> Claims:
    """The claims after heads came or went. now: (N,) the number that each head has by now, −1: gone; count: of heads by now."""
    strips = []
    for strip in claims.strips:
        row, head = np.divmod(strip.cells, strip.count)
        part = strip.part(now[head] >= 0)
        if len(part.cells):
            row, head = np.divmod(part.cells, strip.count)
            strips.append(replace(part, cells=row * count + now[head], count=count))
    return Claims(tuple(strips))


def _in_order(strips: Iterable[Strip]) -> tuple[Strip, ...]:
    return tuple(sorted(strips, key=lambda strip: strip.order))


def lay(home: Floats, strips: Sequence[Strip], t: float) -> Floats:
    """What strips come to over home at t, (A, N)."""
    values = home.astype(float)
    flat = values.reshape(-1)
    for strip in strips:
        strip.lay(flat, places(strip.cells, strip.kind, strip.count), t)
    return values
