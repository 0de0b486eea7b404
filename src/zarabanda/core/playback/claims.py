"""Claims: who holds what on stage since when, and what that comes to (docs/computation.md, "Claims")."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.looks import Cells, places
from zarabanda.core.playback.shares import INFINITY, Release, Timing, altered
from zarabanda.core.playback.strips import PLAIN, STRAIGHT, Manner, Strip, joined, lay
from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True, eq=False)
class Claims:
    """All claims, in the order in which they are laid. manners: of holders that act otherwise than plainly."""

    strips: tuple[Strip, ...] = ()
    manners: Mapping[str, Manner] = field(default_factory=dict)

    def __eq__(self, them: object) -> bool:
        if not isinstance(them, Claims) or len(self.strips) != len(them.strips):
            return False
        alike = all(mine.same(theirs) for mine, theirs in zip(self.strips, them.strips, strict=True))
        return alike and self.manners == them.manners

    __hash__ = None  # type: ignore[assignment]  # arrays have none

    def advanced(self, t: float) -> Claims:
        """Without what is covered or released for good by t."""
        if all(strip.timing.over_at > t for strip in self.strips):
            return self
        return self._with(strip for strip in self.strips if strip.timing.over_at > t)

    def _with(self, strips: Iterable[Strip]) -> Claims:
        return altered(self, strips=tuple(sorted(strips, key=lambda strip: strip.order)))

    def with_manner(self, holder: str, manner: Manner) -> Claims:
        """With another manner of a holder."""
        if self.manners.get(holder, PLAIN) == manner:
            return self
        others = {name: one for name, one in self.manners.items() if name != holder}
        return altered(self, manners=others if manner == PLAIN else {**others, holder: manner})

    def with_clock(self, holder: str, change: Callable[[Timing], Timing]) -> Claims:
        """With the timings of a holder paused or going on."""
        strips = (altered(strip, timing=change(strip.timing)) if strip.holder == holder else strip for strip in self.strips)
        return altered(self, strips=tuple(strips))

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
        cells, count = list(cells), home.shape[1]
        newer = {(new.family, new.kind): _among(new.cells, home.size) for new in cells}
        strips: list[Strip] = []
        for strip in self.strips:
            over = newer.get((strip.family, strip.kind)) if strip.holder == holder else None
            covered = None if over is None else over[strip.cells]
            if covered is None or not covered.any():
                strips.append(strip)
                continue
            left, part = strip.divided(covered)
            strips += left
            strips.append(altered(part, timing=part.timing.covered_by(timing[strip.family])))
        made = []
        for new in cells:
            time = timing[new.family]
            lies = time.stamp if laid is None else laid
            made.append(Strip(holder, lies, rank, new.kind, new.family, new.cells, new.targets, count, time, space, early=early))
        beneath = self._with(strips)
        for n, strip in enumerate(made):
            if (strip.kind == "colour" and space not in STRAIGHT) or strip.kind == "hue":
                lower = [lies for lies in beneath.strips if lies.order <= strip.order]
                at = places(strip.cells, strip.kind, count)
                made[n] = altered(strip, origin=lay(home, lower, strip.timing.stamp, self.manners).reshape(-1)[at])
        now = self._with([*strips, *made])
        return now.advanced(made[0].timing.stamp) if made else now

    def settled(self, holder: str, t: float, others: Sequence[float]) -> Claims:
        """With claims of a holder that have arrived by t put together, which say the same in fewer strips.

        Only where nothing of other holders lies between them, nor may yet be laid there: `others` are stamps by which that can
        be (see `laid` of `claimed`), in order.
        """
        found = dict[tuple[Any, ...], list[Strip]]()
        rest, between = list[Strip](), dict[tuple[str, str], int]()
        for strip in self.strips:
            of_kind = strip.family, strip.kind
            if strip.holder != holder:
                between[of_kind] = between.get(of_kind, 0) + 1
            if strip.holder != holder or not strip.rests(t):
                rest.append(strip)
            else:
                way = strip.space if strip.origin is not None else ""
                place = between.get(of_kind, 0), bisect_right(others, strip.laid)
                found.setdefault((*of_kind, way, *place, strip.rank, strip.count), []).append(strip)
        if all(len(strips) == 1 for strips in found.values()):
            return self
        return self._with([*rest, *(joined(strips) for strips in found.values())])

    def released(self, holder: str, cells: Ints | None, release: Mapping[str, Release]) -> Claims:
        """With all claims of a holder on some cells (None: everywhere) released. release: by family."""
        strips: list[Strip] = []
        asked: Bools | None = None
        for strip in self.strips:
            if strip.holder != holder:
                strips.append(strip)
                continue
            if asked is None and cells is not None:
                asked = _among(cells, len(attributes.ATTRIBUTES) * strip.count)
            chosen = asked[strip.cells] if asked is not None else np.ones(len(strip.cells), bool)
            if not chosen.any():
                strips.append(strip)
                continue
            left, part = strip.divided(chosen)
            strips += left
            strips.append(altered(part, timing=part.timing.released_by(release[strip.family])))
        return self._with(strips).advanced(release["intensity"].action)

    def let_go(self, asked: Sequence[tuple[str, Ints | None]], release: Mapping[str, Release], home: Floats) -> Claims:
        """Released by one action: for each holder its claims on cells (None: all), so that nothing swings in view.

        Where this releases intensities of a head, and what stays leaves it at 0, all other values that it releases there wait
        until that is over, and go then in their own time. home: (A, N).
        """
        if not asked:
            return self
        intensity, count = release["intensity"], home.shape[1]
        late = {
            family: one if family == "intensity" else altered(one, at=intensity.at + intensity.seconds)
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
            ours = strip.holder == holder and strip.timing.is_current
            chosen = np.isin(strip.cells, cells) if ours else np.zeros(len(strip.cells), bool)
            if not chosen.any():
                strips.append(strip)
                continue
            left, part = strip.divided(chosen)
            strips += left
            order = np.argsort(cells, kind="stable")
            found = order[np.searchsorted(cells, part.cells, sorter=order)]
            strips.append(altered(part, was=part.target(t), targets=targets[found], retargeted=t))
        return self._with(strips)


def _among(cells: Ints, size: int) -> Bools:
    """Which of all cells these are, (size,)."""
    among = np.zeros(size, bool)
    among[cells] = True
    return among


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
            strips.append(altered(part, cells=row * count + now[head], count=count))
    return altered(claims, strips=tuple(strips))


def arrived(claims: Claims, home: Floats) -> Floats:
    """What all current claims come to over home (A, N) once they have arrived, faders as they are."""
    strips = [
        altered(strip, timing=Timing(-INFINITY), was=None, origin=None) for strip in claims.strips if strip.timing.is_current
    ]
    return lay(home, strips, 0.0, claims.manners)
