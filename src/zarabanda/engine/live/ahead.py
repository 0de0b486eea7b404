"""Effects of a song that move on while it stands, and come back onto its grid (docs/computation.md, "Timelines")."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from zarabanda.messages import PlayerId

from .playing import Playing

if TYPE_CHECKING:
    from .state import LiveState

_MOST_CYCLES = 32


@dataclass(frozen=True)
class Ahead:
    """How far effects are ahead of where their song is. stands_since: it stands since then, and they move on at so many `bpm`;
    left: what each is still ahead by, in cycles of θ, from the stamp `at` on over so many seconds."""

    stands_since: float | None = None
    bpm: float = 120.0
    left: Mapping[PlayerId, float] = field(default_factory=dict)
    at: float = 0.0
    seconds: float = 0.0

    def theta(self, inner: LiveState, key: PlayerId, t: float) -> float:
        """How far an effect is ahead at t, in cycles of θ."""
        playing = inner.playing.get(key)
        if playing is None or playing.frozen is not None:
            return 0.0
        moved = 0.0 if self.stands_since is None else (t - self.stands_since) * rate_of(playing, self.bpm)
        share = 1 - min(max((t - self.at) / self.seconds, 0.0), 1.0) if self.seconds > 0 else 0.0
        return moved + self.left.get(key, 0.0) * share

    def standing(self, inner: LiveState, bpm: float, t: float) -> Ahead:
        """Standing from t on, going on from where each is."""
        left = {key: self.theta(inner, key, t) for key in inner.playing} if self.left else {}
        return Ahead(t, bpm, {key: one for key, one in left.items() if one}, t, float("inf"))

    def coming_back(self, inner: LiveState, t: float, seconds: float) -> Ahead:
        """On the way back in a time; whole rounds of an effect, which nobody sees, are not gone back."""
        if self.stands_since is None:
            return self
        left = {}
        for key, playing in inner.playing.items():
            round_of, ahead = cycles_of_a_round(playing), self.theta(inner, key, t)
            left[key] = (ahead + round_of / 2) % round_of - round_of / 2
        return Ahead(None, self.bpm, left, t, seconds)


def rate_of(playing: Playing, bpm: float) -> float:
    """Cycles of θ in a second of the song, at a tempo."""
    speed = playing.instance.effect.speed
    if speed.kind == "time":
        return playing.rate / speed.seconds_per_cycle
    return playing.rate * speed.cycles_per_beat * bpm / 60


def cycles_of_a_round(playing: Playing) -> int:
    """After so many cycles of θ an effect looks as before, random forms apart; 1 where that takes too many.

    A layer does so after whole cycles of its own, of those that run back and forth after two, of relays after whole circuits.
    """
    units = []
    for block in playing.placed.blocks:
        unit = block.circuit if block.is_relay else 1.0
        units.append((block.turning, unit * (2 if playing.instance.effect.run == "back-and-forth" else 1)))
    for cycles in range(1, _MOST_CYCLES + 1):
        if all(abs(cycles * turning / unit - round(cycles * turning / unit)) < 1e-9 for turning, unit in units):
            return cycles
    return 1


AT_ONE = Ahead()
"""Nothing is ahead."""
