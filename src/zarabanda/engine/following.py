"""Which song incoming timecode means, and where that is: from what was heard to what the loop does."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from zarabanda.core.timecode.chase import FREE_RUN_S, SILENT, Chase
from zarabanda.core.timecode.smpte import Rate
from zarabanda.core.timecode.timeline import Timeline
from zarabanda.core.timecode.transport import Transport
from zarabanda.messages import Chased, TimecodeTold
from zarabanda.protocols.mtc import Heard, told

_CORRECT_EVERY_S = 0.1
_BROKEN_IN_A_SECOND = 12


@dataclass(frozen=True)
class Followed:
    """What is followed, as a value that never changes. chase: of what was heard, in s from 00:00:00:00 on; state: as told, since
    a stamp; timeline: that it means; jumped: of the chase as it was told last; corrected: stamp of the last correction; frames,
    rate: heard last; text: what is wrong."""

    chase: Chase = SILENT
    state: str = "none"
    since: float = 0.0
    timeline: int | None = None
    jumped: int = -1
    corrected: float = float("-inf")
    frames: float = 0.0
    rate: Rate | None = None
    stands: bool = False
    text: str = ""

    def heard(self, one: Heard, t: float, timelines: Mapping[int, Timeline]) -> tuple[Followed, list[Chased]]:
        """After something was heard at t: what is to be done."""
        now = replace(self, frames=one.frames, rate=one.rate)
        position = one.frames / float(one.rate.per_second)
        if one.backwards:
            now = replace(now, chase=SILENT, text="Timecode runs backwards: the song stands until it runs forward.")
            return now._in_state("standing", t)._stood(position, t, timelines)
        if one.stands:
            return replace(now, chase=SILENT, text="")._in_state("standing", t)._stood(position, t, timelines)
        chase = replace(self.chase, frame_s=1 / float(one.rate.per_second)).heard(position, t)
        return replace(now, chase=chase, stands=False)._on_its_way(t, timelines)

    def silent(self, t: float, timelines: Mapping[int, Timeline]) -> tuple[Followed, list[Chased]]:
        """After nothing was heard up to t."""
        state = self.chase.state(t)
        if self.stands or state == self.state or state not in ("free", "lost"):
            return self, []
        now = self._in_state(state, t)
        timeline = timelines.get(self.timeline or 0)
        if state == "free" or timeline is None or self.chase.way is None:
            return now, []
        if timeline.goes_on:
            return replace(now, text="Timecode has stopped: the song goes on by itself."), []
        stops = self.chase.heard_at + FREE_RUN_S
        there = self.chase.way.position_at(stops) - timeline.begins
        now = replace(now, stands=True, text="Timecode has stopped: the song stands.")
        return now, [Chased(timeline.id, there, t, 0.0)]

    def with_noise(self, broken: int, t: float) -> Followed:
        """With so many pieces that did not fit within a second."""
        if broken < _BROKEN_IN_A_SECOND:
            return self
        text = "Timecode cannot be read: its parts come mixed up, as from two players on one line. Stop one of them."
        return replace(self, text=text)

    def told(self, t: float) -> TimecodeTold:
        """For screens."""
        label, rate = "", ""
        if self.rate is not None:
            moved = (t - self.chase.heard_at) * float(self.rate.per_second) if self.state in ("chasing", "free") else 0.0
            label, rate = told(max(self.frames + moved, 0.0), self.rate), self.rate.name
        return TimecodeTold(self.state, label, rate, max(t - self.since, 0.0), self.timeline, self.text)

    def _in_state(self, state: str, t: float) -> Followed:
        return self if state == self.state else replace(self, state=state, since=t)

    def _stood(self, position: float, t: float, timelines: Mapping[int, Timeline]) -> tuple[Followed, list[Chased]]:
        timeline = meant(position, timelines)
        now = replace(self, stands=True, timeline=timeline.id if timeline is not None else None)
        return now, [] if timeline is None else [Chased(timeline.id, position - timeline.begins, t, 0.0, jump=True)]

    def _on_its_way(self, t: float, timelines: Mapping[int, Timeline]) -> tuple[Followed, list[Chased]]:
        chase, way = self.chase, self.chase.way
        is_new = self.state not in ("chasing", "free")
        unknown = self.state in ("none", "locking", "lost")  # one that stood, or was followed, is known
        if way is None or (unknown and chase.state(t) == "locking"):
            return self._in_state("locking", t), []
        timeline = meant(way.position_at(t), timelines)
        now = replace(self._in_state("chasing", t), timeline=timeline.id if timeline is not None else None)
        now = replace(now, text=_wrong(timeline, self.rate))
        if timeline is None:
            return now, []
        jump = chase.jumped != self.jumped or timeline.id != self.timeline or is_new
        if not jump and t < self.corrected + _CORRECT_EVERY_S:
            return now, []
        first = is_new or self.timeline != timeline.id
        now = replace(now, jumped=chase.jumped, corrected=t)
        if jump and not first and timeline.ignores_jumps:
            return now, []
        there = Transport(way.at, way.position - timeline.begins, way.speed)
        return now, [Chased(timeline.id, there.position_at(t), t, way.speed, jump=jump)]


def _wrong(timeline: Timeline | None, rate: Rate | None) -> str:
    if timeline is None:
        return "No song has this timecode: none starts at or before it on MTC, and is long enough."
    if rate is not None and rate.name != timeline.rate and not (rate.name == "30" and timeline.rate == "29.97"):
        return f"Timecode runs at {rate.name} frames a second, and {timeline.name} is set to {timeline.rate}: set one of them."
    return ""


def meant(position: float, timelines: Mapping[int, Timeline]) -> Timeline | None:
    """The song in whose range of timecode a position is, s from 00:00:00:00 on."""
    every = (one for one in timelines.values() if one.chases)
    return next((one for one in every if one.begins <= position < one.begins + one.length), None)
