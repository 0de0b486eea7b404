"""A tempo: beats as a continuous function of time, set by a number or by tapping."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Protocol

from zarabanda.core.playback.shares import INFINITY

MIN_BPM, MAX_BPM = 10.0, 400.0
BEATS_IN_A_BAR = 4
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
    (`slew`, beats per second), so that it is whole when the next beat falls. held: it stands where it is. Times: s.
    """

    bpm: float
    since: float = 0.0
    beat: float = 0.0
    settles: float = 0.0
    slew: float = 0.0
    taps: tuple[float, ...] = ()
    held: bool = False

    @property
    def rate(self) -> float:
        """Beats per second, once it has settled."""
        return 0.0 if self.held else self.bpm / 60

    def beats(self, t: float) -> float:
        """β(t), for any t."""
        rate = self.rate
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
        rate = self.rate
        if self.held:
            return self.since if beat <= self.beat else INFINITY
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

    def held_at(self, t: float) -> Tempo:
        """Standing from t on."""
        return self if self.held else Tempo(self.bpm, t, self.beats(t), held=True)

    def going_on(self, t: float) -> Tempo:
        """Going on from where it stands."""
        return Tempo(self.bpm, t, self.beat) if self.held else self

    def scaled(self, ratio: float, shift: float) -> Tempo:
        """The tempo whose β is ratio · β + shift of this one, from `since` on."""
        return Tempo(
            self.bpm * ratio, self.since, self.beat * ratio + shift, self.settles, self.slew * ratio, held=self.held
        )  # fmt: skip

    def joining(self, other: Tempo, t: float) -> Tempo:
        """On its way to another tempo that is less than a beat ahead or behind: caught up over the next beat, never backwards.

        >>> joined = Tempo(93.0).joining(Tempo(60.0, beat=2.4), 5.0)
        >>> joined.beats(5.0), round(joined.beats(6.0), 9), round(joined.beats(9.0), 9)
        (7.75, 8.4, 11.4)
        """
        now = self.beats(t)
        if other.held:
            return Tempo(other.bpm, t, now, held=True)
        settles = max(other.settles, t + 60 / other.bpm)
        return Tempo(other.bpm, t, now, settles, (other.beats(settles) - now) / (settles - t))
