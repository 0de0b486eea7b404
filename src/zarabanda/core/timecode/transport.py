"""Where a timeline is, as a function of time: a straight way from where it was."""

from __future__ import annotations

from dataclasses import dataclass, replace

INFINITY = float("inf")


@dataclass(frozen=True)
class Transport:
    """At the stamp `at` it was at a position in s, and goes on from there so many times as fast as the song; 0: it stands."""

    at: float
    position: float
    speed: float = 0.0

    def position_at(self, t: float) -> float:
        """p at t."""
        return self.position + (t - self.at) * self.speed if self.speed else self.position

    def time_of(self, p: float) -> float:
        """t at which it comes to p; infinity where it does not, or has passed it."""
        if self.speed <= 0 or p < self.position:
            return INFINITY
        return self.at + (p - self.position) / self.speed

    def stamp_of(self, p: float, t: float) -> float:
        """The stamp of something that was done at p, on the way that comes to where it is at t."""
        return t if self.speed <= 0 else min(t, t - (self.position_at(t) - p) / self.speed)

    def going(self, speed: float, t: float) -> Transport:
        """At another speed from t on."""
        return Transport(t, self.position_at(t), speed)

    def placed(self, p: float, t: float) -> Transport:
        """Somewhere else at t."""
        return replace(self, at=t, position=p)
