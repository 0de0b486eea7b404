"""Claims of a cue list that goes to a cue (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback import looks
from zarabanda.core.playback.claims import Claims, held_now
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.cues import Times
from zarabanda.core.playback.dark import prepared
from zarabanda.core.playback.shares import Release, Timing
from zarabanda.core.playback.tracking import Tracked
from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

_COLOUR = [attributes.RED, attributes.GREEN, attributes.BLUE]


@dataclass(frozen=True)
class Passage:
    """How values go where they go. way: of colours, empty: that of the palette, by its number in `ways`, else the show's."""

    times: Times
    ease: str = "linear"
    way: str = ""
    ways: Mapping[int, str] = field(default_factory=dict)
    show_way: str = "rgb"

    def delay_s(self, family: int) -> float:
        """Delay of a family, by its number."""
        return self.times.delay_of(attributes.FAMILIES[family])

    def fade_s(self, family: int, up: bool) -> float:
        """Fade of a family, by its number."""
        return self.times.fade_of(attributes.FAMILIES[family], up)

    def releases(self, t: float) -> dict[str, Release]:
        """How values are released by it, by family; intensity: in its time down."""
        times = self.times
        return {
            family: Release(t, t + times.delay_of(family), times.fade_of(family), self.ease) for family in attributes.FAMILIES
        }


def gone_to(claims: Claims, whose: CueList, to: Tracked, passage: Passage, t: float, home: Floats) -> tuple[Claims, Ints]:
    """The claims of a list that goes to a cue at t, and the cells (flat) that it holds no more, which are still to be released.
    to: what holds after the cue; home: (A, N)."""
    held = held_now(claims, whose.holder, home.shape)
    new = to.written | (~np.isnan(to.values) & ~(held == to.values))
    gone = ~np.isnan(held) & np.isnan(to.values)
    ready = _ready(claims, whose, to, held)
    return claimed(claims, whose, to, new & ~ready, passage, t, home), np.flatnonzero(gone & ~ready)


def _ready(claims: Claims, whose: CueList, to: Tracked, held: Floats) -> Bools:
    """What was prepared in the dark for a later cue, on heads that the cue leaves dark: it stays. (A, N)."""
    early = np.zeros(held.shape, bool)
    for strip in claims.strips:
        if strip.early and strip.holder == whose.holder and strip.timing.is_current:
            early.reshape(-1)[looks.places(strip.cells, strip.kind, strip.count)] = True
    if not early.any():
        return early
    dark = ~(to.values[attributes.INTENSITY] > 0)
    return np.asarray(early & dark & ~to.written & (prepared(whose, to.place, dark) == held))


def claimed(claims: Claims, whose: CueList, to: Tracked, new: Bools, passage: Passage, t: float, home: Floats) -> Claims:
    """With new claims of a list on what is `new` (A, N); intensities each in its time up or down."""
    held = held_now(claims, whose.holder, home.shape)
    new = new.copy()
    new[attributes.RED] = new[_COLOUR].any(axis=0)
    up = to.values > np.where(np.isnan(held), home, held)
    for rising in (False, True):
        part = new & (up == rising)
        part[attributes.INTENSITY + 1 :] = new[attributes.INTENSITY + 1 :] & (not rising)
        claims = _claimed(claims, whose, to, part, passage, rising, t, home)
    return claims


def _claimed(
    claims: Claims, whose: CueList, to: Tracked, chosen: Bools, passage: Passage, rising: bool, t: float, home: Floats
) -> Claims:
    """With new claims of the chosen values; colours each by their way."""
    times = passage.times
    timing: dict[str, Timing] = {
        family: Timing(t, times.delay_of(family), times.fade_of(family, rising), passage.ease) for family in attributes.FAMILIES
    }
    for way, part in by_way(chosen, to.palettes, passage):
        cells = list(looks.cells_of(to.values, part))
        claims = claims.claimed(whose.holder, cells, home, timing, rank=whose.position, space=way)
    return claims


def by_way(chosen: Bools, palettes: Ints, passage: Passage) -> Sequence[tuple[str, Bools]]:
    """The chosen values, those colours apart that go a way of their own."""
    own = np.zeros(chosen.shape, bool)
    found = []
    for number, way in passage.ways.items() if not passage.way else ():
        of_this = np.zeros(chosen.shape, bool)
        of_this[_COLOUR] = chosen[_COLOUR] & (palettes[_COLOUR] == number)
        if of_this.any():
            own |= of_this
            found.append((way, of_this))
    return [*found, (passage.way or passage.show_way, chosen & ~own)]
