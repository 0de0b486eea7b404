"""What is live, as values that never change: each action makes a new state. All times are s of the engine's clock."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any, Generic, TypeVar

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.shares import INFINITY
from zarabanda.core.playback.specials import Specials
from zarabanda.core.rig import attributes
from zarabanda.core.timecode.beat_grid import BeatGrid
from zarabanda.messages import ControlId, PlayerId

from ..program import EMPTY, Instance, Program
from .busk import NEW_BUSK, NEW_ROW, BuskState, RowState
from .playing import Glide, Playing
from .sending import Outbox
from .tempo import Clock, Tempo

Floats = NDArray[np.float64]

if TYPE_CHECKING:
    from .action_lists import ActionsState
    from .alone import AloneState
    from .cue_lists import ListState
    from .cut_off import CutOff
    from .group_levels import LevelOfGroup
    from .highlighting import Shown
    from .overlays import OverlayState
    from .pages import PageShown
    from .pixels import PixelsState
    from .recorded import Recorded
    from .songs import Song
    from .sweeping import Sweep
    from .tempos import Follow
    from .ways_home import WayHome

Made = TypeVar("Made")
DEFAULT_RELEASE_S = 0.4
_NOBODYS_TEMPO = Tempo(120.0)
"""What a tempo that does not exist counts: 120 BPM from 0."""


@dataclass(frozen=True)
class LookedAt:
    """A cue that screens show as it will be, since a stamp. Both by their number in the show."""

    list: int
    cue: int
    since: float


@dataclass(frozen=True)
class LiveState:
    """Everything live. What plays is in the order in which it started, oldest first.

    stopped: keys of what always plays, and was stopped by hand; opened: whether the show's opening actions were done;
    held: who holds each button that acts while it is held; claims: what holds values on stage; shown: heads lit to be found;
    held_slots: value and holder of each slot (universe, slot) that is held for testing; blind: since when the draft is prepared
    without output; lists, rows: where cue lists and rows of busking pages are, by their number; follows: tempos that follow
    others.
    """

    program: Program = EMPTY
    tempos: Mapping[int, Tempo] = field(default_factory=dict)
    grid: BeatGrid | None = None
    """What counts the beats of all other tempos: of what a song plays."""
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
    dark_since: Floats | None = field(default=None, compare=False)
    """(N,) since when, or from when on, each head gives no light; infinity: it is lit. None: no list needs to know."""
    dark_due: float = INFINITY
    """When lights that are dark are to be prepared next."""
    looked_at: LookedAt | None = None
    cut_off: CutOff | None = None
    """That it was cut off, until a hand has said whether it goes on."""
    outbox: Outbox = field(default=Outbox(), compare=False)
    rows: Mapping[int, RowState] = field(default_factory=dict)
    busk: BuskState = NEW_BUSK
    follows: Mapping[int, Follow] = field(default_factory=dict)
    overlays: Mapping[int, OverlayState] = field(default_factory=dict)
    """Overlays that are in or on a way, by number."""
    pixels: Mapping[tuple[int, int], PixelsState] = field(default_factory=dict)
    """Pixel maps that are in or on a way, by map and picture, in the order in which they came."""
    pixels_seen: tuple[int, int] | None = None
    """The map, and the picture on it, that screens show while the stage stays."""
    pixels_seen_by: str = ""
    """Who looks at it."""
    alone: tuple[AloneState, ...] = ()
    group_levels: Mapping[int, LevelOfGroup] = field(default_factory=dict)
    actions: Mapping[int, ActionsState] = field(default_factory=dict)
    """Action lists that run, by number."""
    acting: int = 0
    """The action list whose step is done just now; 0: none."""
    let_go_of: frozenset[str] = frozenset()
    """Who holds nothing any more: what they held is let go before anything else."""
    page: PageShown | None = field(default=None, compare=False)
    """The page of faders and buttons that was asked for last."""
    songs: tuple[Song, ...] = ()
    """Songs on stage, the one that plays last."""
    scrubbed: tuple[int, float] | None = None
    """Timeline and position that screens show, while the stage stays."""
    recorded: Recorded | None = None
    """The recording of what was sent that plays over everything."""
    stand_ins: Mapping[int, int] = field(default_factory=dict)
    """Lights that stand in for broken ones: by the number of the broken one."""
    swept: Sweep | None = None
    """How everything else went out last."""
    way_home: WayHome | None = field(default=None, compare=False)
    """What can be brought back."""

    # time

    def clock_of(self, playing: Playing) -> Clock:
        """What counts the beats of something that plays."""
        return playing.clock or self.clock(playing.instance)

    def clock(self, instance: Instance) -> Clock:
        """What counts the beats of an instance; its tempo is kept by number."""
        tempo = instance.effect.speed.tempo
        return (self.counter(tempo) if isinstance(tempo, int) else None) or _NOBODYS_TEMPO

    def counter(self, tempo: int | None) -> Clock | None:
        """What counts the beats of a tempo, by its number; None where that is gone."""
        if tempo is None or tempo not in self.program.tempos:
            return None
        return self.tempos.get(tempo) or self.grid

    def beats_from(self, tempo: int | None) -> tuple[int, Clock] | None:
        """A tempo and what counts its beats; where it is gone, those of the first; None: there is none."""
        for number in (tempo, *self.program.tempos):
            clock = self.counter(number)
            if number is not None and clock is not None:
                return number, clock
        return None

    def theta(self, playing: Playing, t: float) -> float:
        """θ of what plays, cycles."""
        if playing.frozen is not None:
            return playing.frozen
        running = self._running_theta(playing, t)
        ahead = playing.glide.lags(playing.rate, running) if playing.glide is not None else 0.0
        return playing.rate * running + playing.shift + ahead

    def going_on_from(self, playing: Playing, theta: float, t: float) -> Playing:
        """With θ at this now, and going on from there."""
        return replace(playing, shift=theta - playing.rate * self._running_theta(playing, t), glide=None)

    def gliding_to(self, playing: Playing, rate: float, t: float, seconds: float) -> Playing:
        """With its speed going to another rate in a time, without a jump of phase."""
        if rate == playing.rate or playing.frozen is not None:
            return replace(playing, rate=rate)
        begin, theta = self._running_theta(playing, t), self.theta(playing, t)
        length = self._running_theta(playing, t + seconds) - begin
        at_end = theta + (playing.rate + rate) / 2 * length
        shift = at_end - rate * (begin + length)
        return replace(playing, rate=rate, shift=shift, glide=Glide(playing.rate, begin, length))

    def _running_theta(self, playing: Playing, t: float) -> float:
        speed = playing.instance.effect.speed
        if speed.kind == "time":
            return (t - playing.started) / speed.seconds_per_cycle
        beats = self.clock_of(playing).beats(t)
        return speed.cycles_per_beat * (beats if speed.sync == "beat" else beats - playing.started_beat)

    def time_of(self, playing: Playing, theta: float) -> float:
        """When θ of what plays comes to this; infinity where it never does."""
        if playing.frozen is not None or playing.rate <= 0:
            return INFINITY
        speed, running = playing.instance.effect.speed, (theta - playing.shift) / playing.rate
        if speed.kind == "time":
            return playing.started + running * speed.seconds_per_cycle
        beat = running / speed.cycles_per_beat + (0.0 if speed.sync == "beat" else playing.started_beat)
        return self.clock_of(playing).time_of(beat)

    def weights(self, playing: Playing, t: float) -> tuple[float, ...]:
        """W of what plays at t by family, with the fader of its cue list or overlay."""
        if playing.instance.overlay_id:
            own = self.overlays.get(playing.instance.overlay_id)
            share = own.share(t) if own is not None else 0.0
            return tuple(weight * share for weight in playing.weights(t))
        if playing.instance.row_id:
            depth = self._depth_of(playing.instance, t)
            return tuple(weight * depth for weight in playing.weights(t))
        whose = self.program.lists.get(playing.instance.list_id)
        if whose is None or whose.id not in self.lists or self.lists[whose.id].level == 1:
            return playing.weights(t)
        level = self.lists[whose.id].level
        dims = whose.fader == "dims"
        return tuple(
            weight if dims and family != "intensity" else weight * level
            for family, weight in zip(attributes.FAMILIES, playing.weights(t), strict=True)
        )

    def _depth_of(self, instance: Instance, t: float) -> float:
        """Of the row that an effect plays on, times that of the top row of its page."""
        row = self.program.rows.get(instance.row_id)
        top = self.program.top_of(row) if row is not None else None
        depth = self.rows.get(instance.row_id, NEW_ROW).depth.share(t)
        return depth if top is None else depth * self.rows.get(top.id, NEW_ROW).depth.share(t)

    def instance(self, key: PlayerId) -> Instance:
        """What plays by a key, as hands ask for it by now."""
        base = self.program.instances[key]
        variant = self.busk.variant
        if base.row_id:
            variant = replace(variant, pairs=self.rows.get(base.row_id, NEW_ROW).pairs)
        return base.varied(variant)

    def beneath(self, t: float) -> list[tuple[Claims, float]]:
        """What songs hold beneath hands at t, each at its own time."""
        return [(song.shown(t).claims, max(song.transport.position_at(t), song.done)) for song in self.songs]

    @property
    def beneath_overlays(self) -> dict[PlayerId, Playing]:
        """What plays beneath overlays, oldest first."""
        return {key: one for key, one in self.playing.items() if not one.instance.overlay_id}

    @property
    def overlays_in_order(self) -> list[OverlayState]:
        """Overlays that are in, or on a way, from the lowest to the one on top."""
        return sorted(self.overlays.values(), key=lambda one: (one.look.position, one.look.id))

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

    def with_holders(self, key: ControlId, holders: frozenset[str]) -> LiveState:
        """With something in other hands; none: nobody holds it."""
        held = {other: who for other, who in self.held.items() if other != key}
        return replace(self, held={**held, key: holders} if holders else held)

    def with_controls_down(self, players: Collection[PlayerId]) -> LiveState:
        """With the controls at 0 that drive what these play."""
        ours = [one for one in self.program.controls.values() if one.plays_effect]
        down = [one.key for one in ours if not set(one.players).isdisjoint(players)]
        return replace(self, levels={**self.levels, **dict.fromkeys(down, 0.0)})


class OfProgram(Generic[Made]):
    """Something made of a part of the state and the program, once for as long as both are the same."""

    def __init__(self, make: Callable[[LiveState], Made]) -> None:
        self._make = make
        self._made: tuple[object, Program, Made] | None = None

    def __call__(self, state: LiveState, part: object) -> Made:
        """What is made of them now."""
        if self._made is None or self._made[0] is not part or self._made[1] is not state.program:
            self._made = (part, state.program, self._make(state))
        return self._made[2]
