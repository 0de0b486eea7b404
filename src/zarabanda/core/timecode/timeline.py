"""What a timeline does, and when: tracks of events, as occurrences at exact positions (docs/computation.md, "Timelines").

Positions in s of the song. What an event drives is a subject, as text: see `engine.live.hands`.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise
from typing import Any

from . import smpte
from .beat_grid import BeatGrid

PLAIN = BeatGrid()
"""120 BPM from the beginning."""
RISES_S = 0.02
"""So soon after a point at 0 a level that rises has begun what it drives."""


@dataclass(frozen=True)
class Event:
    """Something at a position. length: of a press; cue: that is gone to; does: what a press did, hold, on or off; value: of a
    level, 0…1; content: of a message, and whether it is told again after a jump."""

    id: int
    at: float
    length: float = 0.0
    cue: int = 0
    does: str = "hold"
    value: float = 0.0
    content: Mapping[str, Any] = field(default_factory=dict)
    is_state: bool = False


@dataclass(frozen=True)
class Occurrence:
    """Something that a track does at a position. what: go, down, up, level, message or tempo. Of a level: its value, and to which
    it goes in how many s."""

    at: float
    what: str
    subject: str
    event: Event
    value: float = 0.0
    to: float = 0.0
    seconds: float = 0.0


def _rises(one: Event, following: Event) -> bool:
    return one.value <= 0 < following.value and following.at - one.at > RISES_S


@dataclass(frozen=True, eq=False)
class Track:
    """A track. kind: cues, presses, levels or messages; subject: what it drives; events: in their order."""

    id: int
    kind: str
    subject: str
    events: Sequence[Event]
    muted: bool = False
    armed: bool = False

    def level_at(self, p: float) -> float | None:
        """The level at a position, straight between points; None: before the first."""
        n = bisect_right(self._at, p) - 1
        if n < 0:
            return None
        here = self.events[n]
        if n + 1 == len(self.events):
            return here.value
        following = self.events[n + 1]
        return here.value + (following.value - here.value) * (p - here.at) / (following.at - here.at)

    def moves_at(self, p: float) -> bool:
        """Whether the level is on its way."""
        n = bisect_right(self._at, p) - 1
        return 0 <= n < len(self.events) - 1 and self.events[n].value != self.events[n + 1].value

    @cached_property
    def _at(self) -> list[float]:
        return [one.at for one in self.events]

    def _point(self, one: Event, following: Event | None) -> Occurrence:
        if following is None:
            return Occurrence(one.at, "level", self.subject, one, one.value, one.value)
        return Occurrence(one.at, "level", self.subject, one, one.value, following.value, following.at - one.at)

    def _risen(self, one: Event, following: Event) -> Occurrence:
        left = following.at - one.at - RISES_S
        value = following.value * RISES_S / (following.at - one.at)
        return Occurrence(one.at + RISES_S, "level", self.subject, one, value, following.value, left)

    @cached_property
    def occurrences(self) -> list[tuple[float, int, Occurrence]]:
        """All that it does, each with its position, and its order among what it does there: what ends comes first."""
        found = list[tuple[float, int, Occurrence]]()
        for one in self.events:
            what = {"cues": "go", "presses": "down", "levels": "level", "messages": "message"}[self.kind]
            found.append((one.at, 1, Occurrence(one.at, what, self.subject, one, one.value)))
            if self.kind == "presses" and one.does == "hold":
                end = one.at + one.length
                found.append((end, 0 if one.length > 0 else 2, Occurrence(end, "up", self.subject, one)))
        if self.kind == "levels":
            found = [
                (one.at, 1, self._point(one, following))
                for one, following in zip(self.events, [*self.events[1:], None], strict=True)
            ]
            found += [
                (one.at + RISES_S, 1, self._risen(one, next_)) for one, next_ in pairwise(self.events) if _rises(one, next_)
            ]
        return sorted(found, key=lambda one: one[:2])


@dataclass(frozen=True, eq=False)
class Timeline:
    """A song on a time axis. begins_alone: everything else goes out as it begins; keeps_moving: effects go on while it stands;
    chases: it follows incoming timecode, at a rate, from a label on (s from 00:00:00:00 on); goes_on: also when that stops;
    ignores_jumps: it stays on its way when that goes elsewhere."""

    id: int
    name: str
    length: float
    grid: BeatGrid = PLAIN
    tracks: Sequence[Track] = ()
    begins_alone: bool = True
    keeps_moving: bool = True
    chases: bool = False
    rate: str = "25"
    begins: float = 0.0
    goes_on: bool = False
    ignores_jumps: bool = False

    def label_at(self, p: float) -> str:
        """The label of its timecode at a position."""
        return smpte.text_at(self.begins + p, smpte.RATES[self.rate])

    @cached_property
    def occurrences(self) -> list[Occurrence]:
        """All that its tracks do, in order: by position, then by track."""
        playing = [one for one in self.tracks if not one.muted]
        every = [(at, n, order, what) for n, track in enumerate(playing) for at, order, what in track.occurrences]
        changes = [self.grid.time_of(beat) for beat, _ in self.grid.changes[1:]]
        every += [(at, -1, 0, Occurrence(at, "tempo", "", Event(0, at))) for at in changes]
        return [what for *_, what in sorted(every, key=lambda one: one[:3])]

    @cached_property
    def _at(self) -> list[float]:
        return [one.at for one in self.occurrences]

    def between(self, after: float, until: float) -> Sequence[Occurrence]:
        """What occurs after a position, up to another and there."""
        return self.occurrences[bisect_right(self._at, after) : bisect_right(self._at, until)]

    def next_at(self, after: float) -> float:
        """Where something occurs next; infinity: nowhere."""
        n = bisect_right(self._at, after)
        return self._at[n] if n < len(self._at) else float("inf")

    @cached_property
    def levels(self) -> Sequence[Track]:
        """Tracks of levels that play."""
        return [one for one in self.tracks if one.kind == "levels" and not one.muted and one.events]

    @cached_property
    def subjects(self) -> frozenset[str]:
        """What it drives; what is muted is not."""
        return frozenset(one.subject for one in self.tracks if not one.muted)
