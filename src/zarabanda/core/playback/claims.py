"""Claims: who holds what on stage since when, and what that comes to (docs/computation.md, "Claims")."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.looks import Cells, places
from zarabanda.core.playback.shares import INFINITY, Release, Timing
from zarabanda.core.playback.strips import PLAIN, STRAIGHT, Manner, Strip, lay
from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True, eq=False)
class Claims:
    """All claims, in the order in which they are laid. manners: of holders that act otherwise than plainly."""

    strips: tuple[Strip, ...] = ()
    manners: Mapping[str, Manner] = field(default_factory=dict)

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, Claims) or len(self.strips) != len(other.strips):
            return False
        alike = all(mine.same(theirs) for mine, theirs in zip(self.strips, other.strips, strict=True))
        return alike and self.manners == other.manners

    __hash__ = None  # type: ignore[assignment]  # arrays have none

    def advanced(self, t: float) -> Claims:
        """Without what is covered or released for good by t."""
        if all(strip.timing.over_at > t for strip in self.strips):
            return self
        return self._with(strip for strip in self.strips if strip.timing.over_at > t)

    def _with(self, strips: Iterable[Strip]) -> Claims:
        return replace(self, strips=tuple(sorted(strips, key=lambda strip: strip.order)))

    def with_manner(self, holder: str, manner: Manner) -> Claims:
        """With another manner of a holder."""
        if self.manners.get(holder, PLAIN) == manner:
            return self
        others = {name: one for name, one in self.manners.items() if name != holder}
        return replace(self, manners=others if manner == PLAIN else {**others, holder: manner})

    def with_clock(self, holder: str, change: Callable[[Timing], Timing]) -> Claims:
        """With the timings of a holder paused or going on."""
        strips = (replace(strip, timing=change(strip.timing)) if strip.holder == holder else strip for strip in self.strips)
        return replace(self, strips=tuple(strips))

    def claimed(
        self,
        holder: str,
        cells: Iterable[Cells],
        home: Floats,
        timing: Mapping[str, Timing],
        *,
        rank: int = 0,
        space: str = "rgb",
        laid: float | None = None,
        early: bool = False,
    ) -> Claims:
        """With new claims of a holder, on top. home (A, N); timing: by family; space: way of colours; laid: stamp by which
        they lie over others, if that is another than their own; early: in the dark, before their cue."""
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
            lies = time.stamp if laid is None else laid
            made.append(Strip(holder, lies, rank, new.kind, new.family, new.cells, new.targets, count, time, space, early=early))
        beneath = self._with(strips)
        for n, strip in enumerate(made):
            if (strip.kind == "colour" and space not in STRAIGHT) or strip.kind == "hue":
                lower = [other for other in beneath.strips if other.order <= strip.order]
                at = places(strip.cells, strip.kind, count)
                made[n] = replace(strip, origin=lay(home, lower, strip.timing.stamp, self.manners).reshape(-1)[at])
        now = self._with([*strips, *made])
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
        return self._with(strips).advanced(release["intensity"].action)

    def let_go(self, asked: Sequence[tuple[str, Ints | None]], release: Mapping[str, Release], home: Floats) -> Claims:
        """Released by one action: for each holder its claims on cells (None: all), so that nothing swings in view.

        Where this releases intensities of a head, and what stays leaves it at 0, all other values that it releases there wait
        until that is over, and go then in their own time. home: (A, N).
        """
        intensity, count = release["intensity"], home.shape[1]
        late = {
            family: one if family == "intensity" else replace(one, at=intensity.at + intensity.seconds)
            for family, one in release.items()
        }
        after, released = self, np.zeros(count, bool)
        for holder, cells in asked:
            for strip in self.strips:
                if strip.holder == holder and strip.family == "intensity":
                    released[strip.cells if cells is None else np.intersect1d(strip.cells, cells)] = True
            after = after.released(holder, cells, release)
        dark = released & (arrived(after, home)[attributes.INTENSITY] <= 0)
        if not dark.any():
            return after
        waits = np.tile(dark, len(home)) & (np.arange(home.size) >= count)
        after = self
        for holder, cells in asked:
            chosen = np.arange(home.size) if cells is None else cells
            after = after.released(holder, chosen[~waits[chosen]], release)
            after = after.released(holder, chosen[waits[chosen]], late)
        return after

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
        return self._with(strips)


def held_now(claims: Claims, holder: str, shape: tuple[int, ...]) -> Floats:
    """What current claims of a holder go to, (A, N), NaN where it has none."""
    held = np.full(shape, np.nan)
    for strip in claims.strips:
        if strip.holder == holder and strip.timing.is_current:
            held.reshape(-1)[places(strip.cells, strip.kind, strip.count)] = strip.targets
    return held


def held_cells(claims: Claims, holder: str, home: Floats) -> Ints:
    """Where a holder has current claims, flat. home: (A, N)."""
    return np.flatnonzero(~np.isnan(held_now(claims, holder, home.shape)))


def on_other_heads(claims: Claims, now: Ints, count: int) -> Claims:
    """The claims after heads came or went. now: (N,) the number that each head has by now, −1: gone; count: of heads by now."""
    strips = []
    for strip in claims.strips:
        row, head = np.divmod(strip.cells, strip.count)
        part = strip.part(now[head] >= 0)
        if len(part.cells):
            row, head = np.divmod(part.cells, strip.count)
            strips.append(replace(part, cells=row * count + now[head], count=count))
    return replace(claims, strips=tuple(strips))


def arrived(claims: Claims, home: Floats) -> Floats:
    """What all current claims come to over home (A, N) once they have arrived, faders as they are."""
    strips = [
        replace(strip, timing=Timing(-INFINITY), was=None, origin=None) for strip in claims.strips if strip.timing.is_current
    ]
    return lay(home, strips, 0.0, claims.manners)
