"""Plans of what plays, made off the frame loop. The loop itself makes at most the plan of a single effect."""

from __future__ import annotations

import queue
from collections.abc import Sequence

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.effects.batch.plan import Plan, Running
from zarabanda.core.effects.placement import Placed
from zarabanda.core.playback.frame import Frame
from zarabanda.core.playback.ground import Ground
from zarabanda.core.rig.rig import Rig
from zarabanda.workers import Troubles, Worker

_RIGS_KEPT = 2
_KEPT = 12
_SINGLES_KEPT = 2048
Key = tuple[int, ...]


class Chain:
    """Plans one after another, as if they were one: what plays in their order. at: what of a running each of them takes;
    −1 where it plays no more."""

    def __init__(self, plans: Sequence[Plan], at: Sequence[Sequence[int]]) -> None:
        self._plans = [(plan, list(places)) for plan, places in zip(plans, at, strict=True)]
        self.touched: NDArray[np.bool_] = np.logical_or.reduce([plan.touched for plan in plans])

    def apply(self, values: NDArray[np.float64], running: Running) -> None:
        """As `Plan.apply`."""
        theta, weight = np.append(running.theta, 0.0), np.append(running.weight, 0.0)
        shifts = [*running.shifts, ()] if running.shifts else ()
        for plan, places in self._plans:
            own = [shifts[place] for place in places] if shifts else ()
            plan.apply(values, Running(theta[places], weight[places], own))


class _ForRig:
    """What is kept for one rig: its frame and ground, plans that were made, and the newest of them that was used."""

    def __init__(self, rig: Rig, precision: DTypeLike) -> None:
        self.rig, self._precision = rig, precision
        self.frame, self.ground = Frame(rig, precision), Ground(rig, precision)
        self.made: dict[Key, tuple[list[Placed], Plan]] = {}
        self.latest: tuple[list[Placed], Plan] | None = None
        self.wanted: Key = ()
        self._singles: dict[int, tuple[Placed, Plan]] = {}

    def plan(self, placed: Sequence[Placed]) -> Plan:
        """Make a plan."""
        return Plan(placed, len(self.rig), self.rig.mixes, self._precision)

    def keep(self, key: Key, placed: list[Placed], plan: Plan) -> None:
        """Keep a plan; the oldest goes."""
        self.frame.prepare(plan.touched)
        self.made[key] = (placed, plan)
        for old in list(self.made)[:-_KEPT]:
            self.made.pop(old, None)

    def single(self, placed: Placed) -> Plan:
        """The plan of one effect alone."""
        known = self._singles.get(id(placed))
        if known is None:
            known = (placed, self.plan([placed]))
            self._singles[id(placed)] = known
            for old in list(self._singles)[:-_SINGLES_KEPT]:
                self._singles.pop(old, None)
        return known[1]

    def chained(self, placed: list[Placed]) -> Chain:
        """The latest plan without what plays no more, then what is new; or each effect alone, where the order is another."""
        number = {id(one): n for n, one in enumerate(placed)}
        before = self.latest[0] if self.latest is not None else []
        at = [number.get(id(one), -1) for one in before]
        staying = [place for place in at if place >= 0]
        first = 0
        plans: list[Plan] = []
        places: list[list[int]] = []
        if self.latest is not None and staying == list(range(len(staying))):
            plans, places, first = [self.latest[1]], [at], len(staying)
        for n in range(first, len(placed)):
            plans.append(self.single(placed[n]))
            places.append([n])
        if not plans:
            plans, places = [self.plan([])], [[]]
        return Chain(plans, places)


class Plans:
    """Keeps the plans of what played lately and may play next, for the newest rigs.

    Whoever compiles calls `prepare` before the loop needs a plan. What nobody foresaw (an effect is started by hand) is
    put together from plans that are there, exactly as it will be, while a worker makes one plan of it.
    """

    def __init__(self, precision: DTypeLike, troubles: Troubles) -> None:
        self._precision = precision
        self._rigs: list[_ForRig] = []
        self._asked: queue.SimpleQueue[tuple[Rig, list[Placed]]] = queue.SimpleQueue()
        self._worker = Worker("Plans of effects", self._make_one, troubles).start()

    def _of(self, rig: Rig) -> _ForRig:
        for known in self._rigs:
            if known.rig is rig:
                return known
        made = _ForRig(rig, self._precision)
        self._rigs = [*self._rigs, made][-_RIGS_KEPT:]
        return made

    def frame(self, rig: Rig) -> tuple[Frame, Ground]:
        """What computes frames of this rig."""
        kept = self._of(rig)
        return kept.frame, kept.ground

    def prepare(self, rig: Rig, placed: Sequence[Placed]) -> None:
        """Make the plan of what will play; in the thread of whoever calls."""
        kept = self._of(rig)
        key = tuple(map(id, placed))  # none is used twice, since what is placed is kept with its plan
        if key not in kept.made:
            kept.keep(key, list(placed), kept.plan(placed))

    def _make_one(self) -> None:
        rig, placed = self._asked.get()
        if any(kept.rig is rig for kept in self._rigs):
            self.prepare(rig, placed)

    def single(self, rig: Rig, placed: Placed) -> Plan:
        """The plan of one effect alone."""
        return self._of(rig).single(placed)

    def plan_of(self, rig: Rig, placed: list[Placed]) -> tuple[Plan | Chain, bool]:
        """What computes these effects in their order, and whether it is one plan already; never slow."""
        kept = self._of(rig)
        key = tuple(map(id, placed))
        known = kept.made.pop(key, None)
        if known is not None:
            kept.made[key] = known  # the latest is the last
            kept.latest = known
            return known[1], True
        if key != kept.wanted:
            kept.wanted = key
            self._asked.put((rig, placed))
        return kept.chained(placed), False

    def close(self) -> None:
        """Make no more."""
        self._worker.end()
