"""What is live, as values that never change: each action makes a new state. All times are s of the engine's clock."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any

from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.specials import Specials
from zarabanda.messages import ControlId, PlayerId

from ..program import EMPTY, Instance, Program
from .tempo import Clock, Tempo

if TYPE_CHECKING:
    from .cue_lists import ListState
    from .highlighting import Shown

DEFAULT_RELEASE_S = 0.4
INFINITY = float("inf")
_NOBODYS_TEMPO = Tempo(120.0)
"""What a tempo that does not exist counts: 120 BPM from 0."""


@dataclass(frozen=True)
class Playing:
    """One instance that plays. Its weight W is level × fade; the fade goes from one share to another over a time."""

    instance: Instance
    started: float
    started_beat: float
    level: float = 1.0
    fade_from: float = 1.0
    fade_to: float = 1.0
    fade_at: float = 0.0
    fade_s: float = 0.0
    shift: float = 0.0
    rate: float = 1.0
    layer_shifts: tuple[float, ...] = ()
    frozen: float | None = None

    def fade(self, t: float) -> float:
        """Share of the fade at t."""
        if self.fade_s <= 0 or t >= self.fade_at + self.fade_s:
            return self.fade_to
        return self.fade_from + (self.fade_to - self.fade_from) * max(0.0, (t - self.fade_at) / self.fade_s)

    def weight(self, t: float) -> float:
        """W at t."""
        return self.level * self.fade(t)

    def fading(self, share: float, seconds: float, t: float) -> Playing:
        """On the way to another share, from where it is at t."""
        return replace(self, fade_from=self.fade(t), fade_to=share, fade_at=t, fade_s=seconds)

    def theta_shifts(self) -> list[float]:
        """The phase shifts of its layers, in cycles of θ."""
        turning = {block.number: block.turning for block in self.instance.placed.blocks}
        return [shift / turning.get(number, 1.0) for number, shift in enumerate(self.layer_shifts)]

    @property
    def stopping(self) -> bool:
        """Whether it fades out, or has."""
        return self.fade_to == 0


@dataclass(frozen=True)
class LiveState:
    """Everything live. What plays is in the order in which it started, oldest first.

    stopped: keys of what always plays, and was stopped by hand; opened: whether the show's opening actions were done;
    held: who holds each button that acts while it is held; claims: what holds values on stage; shown: heads lit to be found;
    held_slots: value and holder of each slot (universe, slot) that is held for testing; blind: since when the draft is prepared
    without output; lists: where cue lists are, by their number.
    """

    program: Program = EMPTY
    tempos: Mapping[int, Tempo] = field(default_factory=dict)
    playing: Mapping[PlayerId, Playing] = field(default_factory=dict)
    levels: Mapping[ControlId, float] = field(default_factory=dict)
    grand: float = 1.0
    blackout: bool = False
    stopped: frozenset[PlayerId] = frozenset()
    opened: bool = False
    held: Mapping[ControlId, frozenset[str]] = field(default_factory=dict)
    claims: Claims = field(default_factory=Claims)
    shown: Shown | None = None
    held_slots: Mapping[tuple[int, int], tuple[int, str]] = field(default_factory=dict)
    blind: float | None = None
    lists: Mapping[int, ListState] = field(default_factory=dict)
    specials: Specials = field(default_factory=Specials)

    # time

    def clock_of(self, playing: Playing) -> Clock:
        """What counts the beats of something that plays."""
        return self.clock(playing.instance)

    def clock(self, instance: Instance) -> Clock:
        """What counts the beats of an instance; its tempo is kept by number."""
        tempo = instance.effect.speed.tempo
        return self.tempos.get(tempo, _NOBODYS_TEMPO) if isinstance(tempo, int) else _NOBODYS_TEMPO

    def theta(self, playing: Playing, t: float) -> float:
        """θ of what plays, cycles."""
        if playing.frozen is not None:
            return playing.frozen
        return playing.rate * self._running_theta(playing, t) + playing.shift

    def going_on_from(self, playing: Playing, theta: float, t: float) -> Playing:
        """With θ at this now, and going on from there."""
        return replace(playing, shift=theta - playing.rate * self._running_theta(playing, t))

    def _running_theta(self, playing: Playing, t: float) -> float:
        speed = playing.instance.effect.speed
        if speed.kind == "time":
            return (t - playing.started) / speed.seconds_per_cycle
        beats = self.clock_of(playing).beats(t)
        return speed.cycles_per_beat * (beats if speed.sync == "beat" else beats - playing.started_beat)

    def time_of(self, playing: Playing, theta: float) -> float:
        """When θ of what plays comes to this; infinity where it never does."""
        if playing.frozen is not None or playing.rate <= 0:
            return float("inf")
        speed, running = playing.instance.effect.speed, (theta - playing.shift) / playing.rate
        if speed.kind == "time":
            return playing.started + running * speed.seconds_per_cycle
        beat = running / speed.cycles_per_beat + (0.0 if speed.sync == "beat" else playing.started_beat)
        return self.clock_of(playing).time_of(beat)

    # changed copies

    def with_(self, **changes: Any) -> LiveState:
        """The state with other parts."""
        return replace(self, **changes)

    def with_playing(self, key: PlayerId, playing: Playing) -> LiveState:
        """With this playing; in its place where it played already, else as the youngest."""
        return replace(self, playing={**self.playing, key: playing})

    def without(self, keys: Collection[PlayerId]) -> LiveState:
        """Without what plays by these keys."""
        return replace(self, playing={key: one for key, one in self.playing.items() if key not in keys})

    def with_level(self, key: ControlId, level: float) -> LiveState:
        """With another level of a control."""
        return replace(self, levels={**self.levels, key: level})

    def with_controls_down(self, players: Collection[PlayerId]) -> LiveState:
        """With the controls at 0 that drive what these play."""
        down = [control.key for control in self.program.controls.values() if control.player in players]
        return replace(self, levels={**self.levels, **dict.fromkeys(down, 0.0)})
