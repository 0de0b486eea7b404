"""A control that hands have given back, on its way to what the song has (docs/computation.md, "Timelines")."""

from __future__ import annotations

from dataclasses import dataclass

GLIDE_S = 1.0


@dataclass(frozen=True)
class Glide:
    """Since the stamp `since` from the level `begin`."""

    since: float
    begin: float

    @property
    def over_at(self) -> float:
        """When it is there."""
        return self.since + GLIDE_S

    def at(self, value: float, t: float) -> float:
        """Where it is at t, if the song has `value` then."""
        share = min(max((t - self.since) / GLIDE_S, 0.0), 1.0)
        return self.begin + (value - self.begin) * share
