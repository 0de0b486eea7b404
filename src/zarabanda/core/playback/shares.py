"""Shares of claims: how far each has come, from 0 to 1 (docs/computation.md, "Claims")."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, TypeVar

from zarabanda.core.eases import EASES
from zarabanda.core.rig import attributes

INFINITY = float("inf")


def eased(ease: str, passed: float, seconds: float) -> float:
    """Share of a way at `passed` s of `seconds`, 0…1; of no time at all: 1 from 0 on.

    >>> eased("smooth", 1.0, 4.0), eased("linear", 0.0, 0.0), eased("linear", -0.1, 0.0)
    (0.15625, 1.0, 0.0)
    """
    if seconds <= 0:
        return 1.0 if passed >= 0 else 0.0
    return float(EASES[ease](min(max(passed / seconds, 0.0), 1.0)))


T = TypeVar("T")


def altered(record: T, **fields: Any) -> T:
    """A copy of a frozen record with other fields: `dataclasses.replace` for thousands of claims in one frame."""
    made = object.__new__(type(record))
    vars(made).update(vars(record), **fields)
    return made


@dataclass(frozen=True)
class Release:
    """The end of a claim: from `at` on (after its delay), over so many seconds. action: stamp of what released it;
    stands_at: from then on it stands still, since the same holder has claimed anew."""

    action: float
    at: float
    seconds: float
    ease: str = "linear"
    stands_at: float = INFINITY

    @property
    def end(self) -> float:
        """When it is over; infinity where it stands still before."""
        end = self.at + self.seconds
        return end if end <= self.stands_at else INFINITY

    def left(self, t: float) -> float:
        """What it has left of the share at t, 1…0."""
        return 1 - eased(self.ease, min(t, self.stands_at) - self.at, self.seconds)


@dataclass(frozen=True)
class Timing:
    """How claims of one stamp move. All times in s.

    stands_at: from then on the rising share stands still, since the same holder has claimed anew; goes_at: when that has
    arrived; releases: in the order in which they were asked for; paused_at: since then the holder's clock stands;
    stops_at: from then on the rising share stands, though it is current: a dark move that was seen.
    """

    stamp: float
    delay: float = 0.0
    fade: float = 0.0
    ease: str = "linear"
    stands_at: float = INFINITY
    goes_at: float = INFINITY
    releases: tuple[Release, ...] = ()
    paused_at: float = INFINITY
    stops_at: float = INFINITY

    @property
    def begins(self) -> float:
        """When the share begins to rise."""
        return self.stamp + self.delay

    @property
    def arrives(self) -> float:
        """When the share is 1, if nothing comes between."""
        return self.begins + self.fade

    @property
    def is_current(self) -> bool:
        """Whether it is the newest of its holder, and not released."""
        return not self.releases and self.stands_at == INFINITY

    @property
    def over_at(self) -> float:
        """When it is gone for good: covered, or released."""
        over = min([self.goes_at, *(release.end for release in self.releases)])
        return over if over <= self.paused_at else INFINITY

    @property
    def _rises_until(self) -> float:
        return min([self.stands_at, self.stops_at, *(release.at for release in self.releases)])

    def share(self, t: float) -> float:
        """s(t), 0…1: rises from `begins` on, then falls with every release."""
        t = min(t, self.paused_at)
        share = eased(self.ease, min(t, self._rises_until) - self.begins, self.fade)
        for release in self.releases:
            share *= release.left(t)
        return share

    def shows_step(self, t: float) -> bool:
        """Whether a stepped value is there at t: from the end of the delay to the end of the release."""
        t = min(t, self.paused_at)
        return min(t, self._rises_until) >= self.begins and t < self.over_at

    def covered_by(self, new: Timing) -> Timing:
        """What becomes of it when the same holder claims anew: it stands still, and goes when the new claim has arrived.

        Rising shares stand from the end of the new delay on, running releases at once; a release that has not begun
        counts as running.
        """
        waits = any(release.at > new.stamp for release in self.releases)
        return altered(
            self,
            stands_at=min(self.stands_at, new.stamp if waits else new.begins),
            goes_at=new.arrives,
            releases=tuple(altered(one, stands_at=min(one.stands_at, new.stamp)) for one in self.releases),
        )

    def released_by(self, release: Release) -> Timing:
        """Released. What is being released already is left as it is, unless this would end earlier: then both act."""
        running = [one for one in self.releases if one.stands_at == INFINITY]
        if running and release.end >= min(one.end for one in running):
            return self
        return altered(self, goes_at=INFINITY, releases=(*self.releases, release))

    def paused(self, t: float) -> Timing:
        """With its clock standing from t on."""
        return altered(self, paused_at=t)

    def resumed(self, t: float) -> Timing:
        """With its clock going on at t from where it stood."""
        if self.paused_at == INFINITY:
            return self
        by = t - self.paused_at
        return altered(
            self, paused_at=INFINITY, stamp=self.stamp + by, stands_at=self.stands_at + by, goes_at=self.goes_at + by,
            stops_at=self.stops_at + by,
            releases=tuple(
                altered(one, action=one.action + by, at=one.at + by, stands_at=one.stands_at + by) for one in self.releases
            ),
        )  # fmt: skip

    def ways(self) -> list[tuple[float, float]]:
        """From when to when the share changes."""
        ways = [(self.begins, min(self.arrives, self._rises_until))]
        ways += [(release.at, min(release.at + release.seconds, release.stands_at)) for release in self.releases]
        return [(begin, min(end, self.paused_at)) for begin, end in ways if min(end, self.paused_at) > begin]

    def events(self) -> list[float]:
        """When something begins, ends or jumps."""
        times = [self.begins, self.arrives, self.stands_at, self.goes_at, self.stops_at]
        for release in self.releases:
            times += [release.at, release.at + release.seconds, release.stands_at]
        return [time for time in times if time < self.paused_at]


def alike(of_all: T) -> dict[str, T]:
    """The same for every family."""
    return dict.fromkeys(attributes.FAMILIES, of_all)
