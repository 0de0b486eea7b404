"""The beats of a song as a function of its position (docs/computation.md, "Timelines")."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from zarabanda.errors import ZarabandaError

MIN_BPM, MAX_BPM = 10.0, 400.0


@dataclass(frozen=True)
class BeatGrid:
    """Beats β(p) at a position p in s: beat 0, the first of bar 1, is at `first_s`; changes: from which beat on which BPM, the
    first from beat 0 and for all before it; in_bar: beats in a bar."""

    first_s: float = 0.0
    changes: tuple[tuple[float, float], ...] = ((0.0, 120.0),)
    in_bar: int = 4

    @cached_property
    def _starts(self) -> list[float]:
        """Position of each change, s."""
        starts = [self.first_s]
        for (beat, bpm), (following, _) in zip(self.changes, self.changes[1:], strict=False):
            starts.append(starts[-1] + (following - beat) * 60 / bpm)
        return starts

    def _section(self, p: float) -> int:
        return max(bisect_right(self._starts, p) - 1, 0)

    def beats(self, p: float) -> float:
        """β(p).

        >>> BeatGrid(1.0, ((0, 120), (8, 60))).beats(6.0)
        9.0
        """
        n = self._section(p)
        beat, bpm = self.changes[n]
        return beat + (p - self._starts[n]) * bpm / 60

    def time_of(self, beat: float) -> float:
        """p at which β is this, the inverse of `beats`."""
        n = max(bisect_right([one for one, _ in self.changes], beat) - 1, 0)
        begins, bpm = self.changes[n]
        return self._starts[n] + (beat - begins) * 60 / bpm

    def bpm_at(self, p: float) -> float:
        """The tempo at a position."""
        return self.changes[self._section(p)][1]

    def bar_and_beat(self, p: float) -> tuple[int, float]:
        """Bar and beat in it, both from 1 on.

        >>> BeatGrid(0.0, ((0, 120),)).bar_and_beat(2.5)
        (2, 2.0)
        """
        bar, beat = divmod(self.beats(p), self.in_bar)
        return int(bar) + 1, beat + 1

    def begun_at(self, p: float) -> BeatGrid:
        """With bar 1 somewhere else; all others move along."""
        return replace(self, first_s=p)

    def stretched(self, beat: float, p: float) -> BeatGrid:
        """With a beat brought to a position, by another tempo from the change before it on; later beats move along. Beat 0: all
        of the grid moves. ZarabandaError where no tempo does that."""
        if beat <= 0:
            return self.begun_at(p - (self.time_of(beat) - self.first_s))
        n = max(bisect_right([one for one, _ in self.changes], beat - 1e-9) - 1, 0)
        begins, _ = self.changes[n]
        bpm = 60 * (beat - begins) / (p - self._starts[n]) if p > self._starts[n] else float("inf")
        if not MIN_BPM <= bpm <= MAX_BPM:
            raise ZarabandaError(f"That would be {bpm:.0f} BPM; the tempo of a song is {MIN_BPM:g} to {MAX_BPM:g} BPM.", "grid")
        return replace(self, changes=(*self.changes[:n], (begins, bpm), *self.changes[n + 1 :]))

    def with_tempo(self, beat: float, bpm: float) -> BeatGrid:
        """With another tempo from a beat on, up to the next change."""
        if not MIN_BPM <= bpm <= MAX_BPM:
            raise ZarabandaError(f"{bpm:g} BPM is no tempo of a song; give {MIN_BPM:g} to {MAX_BPM:g} BPM.", "bpm")
        changes = {**dict(self.changes), max(beat, 0.0): bpm}
        return replace(self, changes=tuple(sorted(changes.items())))

    def without_tempo(self, beat: float) -> BeatGrid:
        """Without a change of the tempo; the first one stays."""
        return replace(self, changes=(self.changes[0], *(one for one in self.changes[1:] if one[0] != beat)))

    def near(self, p: float, unit: str) -> float:
        """The beat or bar line nearest to a position. unit: beat or bar."""
        every = self.in_bar if unit == "bar" else 1
        return self.time_of(round(self.beats(p) / every) * every)


LATENESS_TAPS = 8
"""So many taps at least say how late hands are."""


def lateness(grid: BeatGrid, taps: Sequence[float]) -> tuple[float, float]:
    """How late taps along with a song are: the median of their distances to the nearest beats, s (below 0: early), and how much
    they wander, the median distance from that. taps: positions in s.

    ZarabandaError where there are fewer than LATENESS_TAPS.

    >>> lateness(BeatGrid(0.0, ((0, 120),)), [0.53, 1.03, 1.53, 2.05, 2.53, 3.03, 3.53, 4.01])
    (0.03, 0.0)
    """
    if len(taps) < LATENESS_TAPS:
        raise ZarabandaError(f"Tap at least {LATENESS_TAPS} beats along with the song.", "taps")
    off = np.array([p - grid.near(p, "beat") for p in taps])
    late = float(np.median(off))
    return round(late, 4), round(float(np.median(np.abs(off - late))), 4)


def tapped(taps: Sequence[float], in_bar: int = 4) -> BeatGrid:
    """The grid that fits taps on beats best, by least squares; bar 1 begins with the first tap. taps: positions in s.

    ZarabandaError where there are fewer than four, or they are no beats.
    """
    at = np.sort(np.asarray(taps, float))
    if len(at) < 4:
        raise ZarabandaError("Tap at least four beats along with the song.", "taps")
    period = float(np.median(np.diff(at)))
    if period <= 60 / MAX_BPM:
        raise ZarabandaError(f"These taps are faster than {MAX_BPM:g} BPM. Tap once for each beat.", "taps")
    beats = np.concatenate([[0.0], np.cumsum(np.maximum(np.round(np.diff(at) / period), 1))])
    period, first = np.polyfit(beats, at, 1)
    bpm = 60 / float(period)
    if bpm < MIN_BPM:
        raise ZarabandaError(f"These taps are slower than {MIN_BPM:g} BPM. Tap once for each beat.", "taps")
    return BeatGrid(float(first), ((0.0, round(bpm, 3)),), in_bar)
