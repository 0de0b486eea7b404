"""One instance that plays: its weights, and how its speed changes."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

from zarabanda.core.effects.placement import Placed
from zarabanda.core.playback.shares import INFINITY, eased
from zarabanda.core.rig import attributes

from ..program import Instance
from .tempo import Clock

HAND_S = 0.1
"""So soon a depth that a hand changes is there."""
Cells = frozenset[tuple[str, str]]
"""Families of heads: (family, head key)."""


@dataclass(frozen=True)
class Fade:
    """From a share to another, from `at` on over so many seconds; earlier: what it still does before `at`; paused_at: since when
    its clock stands."""

    start: float = 1.0
    end: float = 1.0
    at: float = 0.0
    seconds: float = 0.0
    ease: str = "linear"
    earlier: Fade | None = None
    paused_at: float = INFINITY

    def share(self, t: float) -> float:
        """Where it is at t."""
        t = min(t, self.paused_at)
        if t < self.at and self.earlier is not None:
            return self.earlier.share(t)
        way = eased(self.ease, t - self.at, self.seconds)
        return self.end if way >= 1 else self.start + (self.end - self.start) * way

    @property
    def arrives(self) -> float:
        """When it is over; infinity while it stands."""
        return self.at + self.seconds if self.paused_at == INFINITY else INFINITY

    def to(self, share: float, t: float, seconds: float, *, delay: float = 0.0, ease: str = "linear") -> Fade:
        """At t on the way to another share, after a delay, from where it is then."""
        at = t + delay
        now = self.earlier if self.earlier is not None and t < self.at else replace(self, earlier=None)
        return Fade(now.share(at), share, at, seconds, ease, now if delay > 0 else None)

    def scaled(self, share: float) -> Fade:
        """The same way between shares that are so much of what they were."""
        earlier = None if self.earlier is None else self.earlier.scaled(share)
        return replace(self, start=self.start * share, end=self.end * share, earlier=earlier)

    def paused(self, t: float) -> Fade:
        """With its clock standing from t on."""
        return self if self.paused_at <= t else replace(self, paused_at=t)

    def resumed(self, t: float) -> Fade:
        """Going on at t from where it stood."""
        if self.paused_at == INFINITY:
            return self
        by = t - self.paused_at
        earlier = None if self.earlier is None else replace(self.earlier, at=self.earlier.at + by)
        return replace(self, at=self.at + by, earlier=earlier, paused_at=INFINITY)


OUT = Fade(0.0, 0.0)
"""Nothing, and on no way."""


def out_at(*ways: Fade) -> float:
    """When all of these are out; infinity while one of them is in, or held."""
    return max(one.arrives for one in ways) if all(one.end == 0 for one in ways) else INFINITY


@dataclass(frozen=True)
class Glide:
    """A change of speed on the way: from the rate `before`, while θ as it runs by itself goes `length` cycles on from `begin`."""

    before: float
    begin: float
    length: float

    def lags(self, rate: float, running: float) -> float:
        """What θ is ahead of a run that had the new rate from where the change is over, in cycles."""
        left = self.begin + self.length - running
        if self.length <= 0 or not 0 < left <= self.length:
            return 0.0
        return (rate - self.before) * left * left / (2 * self.length)


WHOLE = (Fade(),) * len(attributes.FAMILIES)


@dataclass(frozen=True)
class Playing:
    """One instance that plays. Its weight W in a family is level × depth × the share of that family's fade × that of `hand`.

    fades: in the order of `attributes.FAMILIES`; rate: against the speed of the effect, after `glide`; part: families of heads
    on which it does not act, or, with `only`, on which alone it does; cue: of which cue of a list it is, 0: of none;
    silenced: families in which it was stopped by hand, by number; hand, hand_speed: how hands have changed its depth and speed,
    live only; the speed is in `rate`.
    """

    instance: Instance
    started: float
    started_beat: float
    level: float = 1.0
    fades: tuple[Fade, ...] = WHOLE
    shift: float = 0.0
    rate: float = 1.0
    glide: Glide | None = None
    layer_shifts: tuple[float, ...] = ()
    frozen: float | None = None
    part: Cells = frozenset()
    only: bool = False
    cue: int = 0
    silenced: frozenset[int] = frozenset()
    hand: Fade = Fade()
    hand_speed: float = 1.0
    clock: Clock | None = None
    """What counts its beats, if that is not its tempo."""

    @cached_property
    def placed(self) -> Placed:
        """The instance on the heads on which it acts."""
        return (
            self.instance.placed.restricted(self.part, self.instance.keys, keep=self.only) if self.part else self.instance.placed
        )

    def weights(self, t: float) -> tuple[float, ...]:
        """W at t, by family."""
        level = self.level * self.instance.depth * self.hand.share(t)
        return tuple(level * fade.share(t) for fade in self.fades)

    def weight(self, t: float) -> float:
        """The largest W at t of the families in which it acts."""
        weights = self.weights(t)
        return max((weights[number] for number in self.instance.families), default=0.0)

    def fading(self, share: float, seconds: float, t: float) -> Playing:
        """On the way to another share in all families, from where it is at t."""
        return replace(self, fades=tuple(fade.to(share, t, seconds) for fade in self.fades))

    def silent(self, family: int, seconds: float, t: float) -> Playing:
        """On the way to nothing in one family, by its number; it stays so."""
        fades = tuple(fade.to(0.0, t, seconds) if n == family else fade for n, fade in enumerate(self.fades))
        return replace(self, fades=fades, silenced=self.silenced | {family})

    def theta_shifts(self) -> list[float]:
        """The phase shifts of its layers, in cycles of θ."""
        turning = {block.number: block.turning for block in self.instance.placed.blocks}
        return [shift / turning.get(number, 1.0) for number, shift in enumerate(self.layer_shifts)]

    @property
    def stopping(self) -> bool:
        """Whether it fades out, or has."""
        return all(self.fades[number].end == 0 for number in self.instance.families)

    @property
    def out_at(self) -> float:
        """When it has faded out; infinity where it does not."""
        return max((self.fades[number].arrives for number in self.instance.families), default=0.0) if self.stopping else INFINITY
