"""A cue list: its cues in their order, and where it goes next (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness
from zarabanda.core.playback.cues import Cue, PixelChange, families_of
from zarabanda.core.playback.tracking import Held, RunningEffect, Tracked, effects_after

_LEAST_ROUND_S = 0.05
_KEPT_EVERY = 32
"""After so many cues what holds is kept, so that a jump need not begin at the first."""


@dataclass(frozen=True)
class Round:
    """How a list goes round. by: hand, time or tempo; every: so many s or beats; order: forward, backward, back-and-forth or
    shuffled, with the seed and the number of the round."""

    by: str = "hand"
    every: float = 1.0
    tempo: int | None = None
    order: str = "forward"
    seed: int = 1


@dataclass(frozen=True)
class Step:
    """Where a list goes next: the place of the cue; rounds: that it has gone; backwards: whether it goes back, back and forth."""

    place: int
    rounds: int = 0
    backwards: bool = False


@dataclass(frozen=True, eq=False)
class CueList:
    """A list: its cues in their order, and how they are played. back_s: time of going back; fader: `dims` or `uncovers`;
    shape: (A, N) of the rig."""

    id: int
    name: str
    cues: Sequence[Cue]
    shape: tuple[int, int]
    position: int = 0
    highest_wins: bool = False
    protected: bool = False
    fader: str = "dims"
    back_s: float = 1.0
    round: Round | None = None
    ends_in_s: float | None = None
    threads: Mapping[int, frozenset[str]] = field(default_factory=dict)

    @property
    def holder(self) -> str:
        """Who holds its claims."""
        return f"list:{self.id}"

    @cached_property
    def index(self) -> dict[int, int]:
        """Place of each cue by its id."""
        return {cue.id: n for n, cue in enumerate(self.cues)}

    @cached_property
    def _kept(self) -> list[Held]:
        """What holds before every 32nd cue."""
        return self._kept_after([Held.nothing(self.shape)])

    def _kept_after(self, known: list[Held]) -> list[Held]:
        """What holds before every 32nd cue, of which the first are known."""
        kept, first = list(known), (len(known) - 1) * _KEPT_EVERY
        held = kept[-1].copy()
        for n, cue in enumerate(self.cues[first:], first):
            if n % _KEPT_EVERY == 0 and n > first:
                kept.append(held.copy())
            held.take(cue, n)
        return kept

    @cached_property
    def lit(self) -> NDArray[np.bool_]:
        """Which heads each cue lights, (cues, N): tracked as `after` does, for intensity alone."""
        count = self.shape[1]
        held, lit = np.full(count, np.nan), np.zeros((len(self.cues), count), bool)
        for n, cue in enumerate(self.cues):
            heads, numbers, lasting, stopped = cue.levels
            held[stopped] = np.nan
            shown = held.copy()
            shown[heads] = numbers
            lit[n] = shown > 0
            held[heads[lasting]] = numbers[lasting]
        return lit

    @cached_property
    def next_lit(self) -> NDArray[np.int32]:
        """For each cue and head the place of the next cue that lights it, −1: none. (cues, N)."""
        count = self.shape[1]
        lit = self.lit
        found = np.full((len(self.cues), count), -1, np.int32)
        for n in range(len(self.cues) - 2, -1, -1):
            found[n] = np.where(lit[n + 1], n + 1, found[n + 1])
        return found

    def prepare(self, before: CueList | None = None) -> None:
        """Look at all cues once; done off the loop, since it takes its time. before: the list as it was; what holds up to the
        first cue that is another is taken over from it."""
        if before is not None and before.shape == self.shape:
            pairs = zip(self.cues, before.cues, strict=False)
            same = next((n for n, (one, was) in enumerate(pairs) if one is not was), min(len(self.cues), len(before.cues)))
            vars(self)["_kept"] = self._kept_after(before._kept[: same // _KEPT_EVERY + 1])
        _ = self._kept, self.index, self.never_rests, self.next_lit

    def after(self, n: int) -> Tracked:
        """What holds after the cue at a place."""
        held = self._kept[n // _KEPT_EVERY].copy()
        for place in range(n - n % _KEPT_EVERY, n):
            held.take(self.cues[place], place)
        return held.shown(self.cues[n], n)

    def effects_after(self, n: int) -> dict[int, RunningEffect]:
        """The effects that run after the cue at a place, by thread, in the order in which they began."""
        return effects_after(self.cues[: n + 1])

    def pixels_after(self, n: int) -> dict[tuple[int, int], PixelChange]:
        """The pixel maps that are on after the cue at a place, in the order in which they came."""
        found: dict[tuple[int, int], PixelChange] = {}
        for one in (change for cue in self.cues[: n + 1] for change in cue.pixels):
            if one.do != "change":
                found.pop(one.use, None)
            if one.do == "start" or (one.do == "change" and one.use in found):
                found[one.use] = one
        return found

    def families(self, n: int) -> set[str]:
        """Families in which the cue at a place writes values, stops some, or does something to effects."""
        cue = self.cues[n]
        of_effects = {family for one in cue.effects for family in self.threads.get(one.thread, ())}
        again = families_of(self.after(n).written.reshape(-1).nonzero()[0], self.shape[1]) if cue.states_everything else set()
        return {*cue.families, *again, *of_effects}

    def arrives_after(self, n: int) -> float:
        """So many s after its go the cue at a place has arrived."""
        return self.cues[n].times.arrives(self.families(n))

    def next(self, at: Step | None) -> Step | None:
        """Where it goes from a step (None: from nowhere); None: nothing more comes."""
        count = len(self.cues)
        if at is None or not count:
            return Step(0) if count else None
        if self.round is None:
            return Step(at.place + 1) if at.place + 1 < count else None
        if self.round.order == "backward":
            return Step((at.place - 1) % count, at.rounds + (at.place == 0))
        if self.round.order == "back-and-forth" and count > 1:
            backwards = at.place == count - 1 or (at.backwards and at.place > 0)
            return Step(at.place + (-1 if backwards else 1), at.rounds + (at.place == 0 and at.backwards), backwards)
        if self.round.order == "shuffled" and count > 1:
            order = self._shuffled(at.rounds)
            n = order.index(at.place) + 1
            return Step(order[n], at.rounds) if n < count else Step(self._shuffled(at.rounds + 1)[0], at.rounds + 1)
        return Step((at.place + 1) % count, at.rounds + (at.place + 1 == count))

    def _shuffled(self, rounds: int) -> list[int]:
        """Places in the order of a round; what comes last in one does not come first in the next."""
        order = self._drawn(rounds)
        if rounds > 0 and len(order) > 2 and order[0] == self._drawn(rounds - 1)[-1]:
            order[0], order[1] = order[1], order[0]
        return order

    def _drawn(self, rounds: int) -> list[int]:
        count = len(self.cues)
        drawn = randomness.unit(self.round.seed if self.round else 0, np.arange(count), np.full(count, rounds))
        return [int(place) for place in np.argsort(drawn, kind="stable")]

    @cached_property
    def never_rests(self) -> bool:
        """Whether it goes round by itself through all its cues in no time: the way from last to first is then not taken."""
        if self.round is None or self.round.by != "hand" or not self.cues:
            return False
        waits = [cue.trigger.wait + (self.arrives_after(n - 1) if cue.trigger.kind == "after" else 0.0)
                 for n, cue in enumerate(self.cues)]  # fmt: skip
        return all(cue.trigger.kind in ("with", "after") for cue in self.cues) and sum(waits) < _LEAST_ROUND_S
