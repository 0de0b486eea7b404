"""A tempo: beats as a continuous function of time, set by a number or by tapping."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Protocol

MIN_BPM, MAX_BPM = 10.0, 400.0
_FORGET_TAPS_S = 2.5
_TAPS_KEPT = 8
_BOUNCE_S = 0.05


class Clock(Protocol):
    """Counts beats: a tempo, and what else beats can come from. β rises with t."""

    def beats(self, t: float) -> float:
        """β at t."""

    def time_of(self, beat: float) -> float:
        """When β comes to this."""


@dataclass(frozen=True)
class Tempo:
    """Beats β(t) = beat + (t − since)·rate from `since` on; until `settles` at the rate `slew` instead.

    After a tap the beat must fall on the tap, yet β must not jump: over the next beat it runs a little faster or slower
    (`slew`, beats per second), so that it is whole when the next beat falls. rate: beats per second. Times: s.
    """

    bpm: float
    since: float = 0.0
    beat: float = 0.0
    settles: float = 0.0
    slew: float = 0.0
    taps: tuple[float, ...] = ()

    def beats(self, t: float) -> float:
        """β(t), for any t."""
        rate = self.bpm / 60
        if self.settles <= self.since:
            return self.beat + (t - self.since) * rate
        slewed = min(t, self.settles) - self.since
        return self.beat + slewed * self.slew + max(t - self.settles, 0.0) * rate

    def time_of(self, beat: float) -> float:
        """t at which β is this, the inverse of `beats`.

        >>> tempo = Tempo(120, since=3.0, beat=7.0).tapped(4.1)
        >>> round(tempo.time_of(tempo.beats(6.25)), 9), round(tempo.time_of(tempo.beats(4.2)), 9)
        (6.25, 4.2)
        """
        rate = self.bpm / 60
        if self.settles <= self.since:
            return self.since + (beat - self.beat) / rate
        settled = self.beats(self.settles)
        if beat > settled:
            return self.settles + (beat - settled) / rate
        return self.since + (beat - self.beat) / self.slew

    def with_bpm(self, bpm: float, t: float) -> Tempo:
        """The same beat now, at another rate from now on. bpm: 10–400."""
        bpm = min(max(bpm, MIN_BPM), MAX_BPM)
        return replace(self, bpm=bpm, since=t, beat=self.beats(t), settles=t, slew=0.0)

    def tapped(self, t: float) -> Tempo:
        """Tapped at t: two taps or more set the rate; the beat falls on the tap, caught up over the next beat.

        A tap right behind another is the same finger once more, and does nothing.
        """
        if self.taps and t - self.taps[-1] < _BOUNCE_S:
            return self
        taps = (*(tap for tap in self.taps if t - self.taps[-1] <= _FORGET_TAPS_S), t)[-_TAPS_KEPT:]
        bpm = self.bpm
        if len(taps) >= 2:
            bpm = min(max(60 * (len(taps) - 1) / (taps[-1] - taps[0]), MIN_BPM), MAX_BPM)
        period, now = 60 / bpm, self.beats(t)
        slew = (round(now) + 1 - now) / period
        return Tempo(bpm, t, now, t + period, slew, taps)
