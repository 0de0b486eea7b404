"""Plans of what plays, made off the frame loop. The loop itself makes at most the plan of a single effect."""

from __future__ import annotations

import queue
from collections.abc import Sequence

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.effects.batch.plan import Plan, Running
from zarabanda.core.effects.placement import Placed
from zarabanda.core.rig.rig import Rig
from zarabanda.workers import Troubles, Worker

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


class Plans:
    """Keeps the plans of what played lately and may play next, for one rig at a time.

    Whoever compiles calls `prepare` before the loop needs a plan. What nobody foresaw (an effect is started by hand) is
    put together from plans that are there, exactly as it will be, while a worker makes one plan of it.
    """

    def __init__(self, precision: DTypeLike, troubles: Troubles) -> None:
        self._precision = precision
        self._rig: Rig | None = None
        self._made: dict[Key, tuple[list[Placed], Plan]] = {}
        self._singles: dict[int, tuple[Placed, Plan]] = {}
        self._latest: tuple[list[Placed], Plan] | None = None
        self._wanted: Key = ()
        self._asked: queue.SimpleQueue[tuple[Rig, list[Placed]]] = queue.SimpleQueue()
        self._worker = Worker("Plans of effects", self._make_one, troubles).start()

    def use(self, rig: Rig) -> None:
        """Plans for this rig from now on."""
        if self._rig is not rig:
            self._rig = rig
            self._made, self._singles, self._latest, self._wanted = {}, {}, None, ()

    def prepare(self, rig: Rig, placed: Sequence[Placed]) -> None:
        """Make the plan of what will play; in the thread of whoever calls."""
        self.use(rig)
        key = tuple(map(id, placed))  # none is used twice, since what is placed is kept with its plan
        if key not in self._made:
            self._keep(rig, key, list(placed), Plan(placed, len(rig), rig.mixes, self._precision))

    def _keep(self, rig: Rig, key: Key, placed: list[Placed], plan: Plan) -> None:
        made = self._made
        if rig is not self._rig:
            return  # the rig has changed meanwhile
        made[key] = (placed, plan)
        for old in list(made)[:-_KEPT]:
            made.pop(old, None)

    def _make_one(self) -> None:
        rig, placed = self._asked.get()
        if rig is self._rig:
            self.prepare(rig, placed)

    def single(self, rig: Rig, placed: Placed) -> Plan:
        """The plan of one effect alone."""
        self.use(rig)
        known = self._singles.get(id(placed))
        if known is None:
            known = (placed, Plan([placed], len(rig), rig.mixes, self._precision))
            self._singles[id(placed)] = known
            for old in list(self._singles)[:-_SINGLES_KEPT]:
                self._singles.pop(old, None)
        return known[1]

    def plan_of(self, rig: Rig, placed: list[Placed]) -> tuple[Plan | Chain, bool]:
        """What computes these effects in their order, and whether it is one plan already; never slow."""
        self.use(rig)
        key = tuple(map(id, placed))
        known = self._made.pop(key, None)
        if known is not None:
            self._made[key] = known  # the latest is the last
            self._latest = known
            return known[1], True
        if key != self._wanted:
            self._wanted = key
            self._asked.put((rig, placed))
        return self._chained(rig, placed), False

    def _chained(self, rig: Rig, placed: list[Placed]) -> Chain:
        """The latest plan without what plays no more, then what is new; or each effect alone, where the order is another."""
        number = {id(one): n for n, one in enumerate(placed)}
        before = self._latest[0] if self._latest is not None else []
        at = [number.get(id(one), -1) for one in before]
        staying = [place for place in at if place >= 0]
        first = 0
        plans: list[Plan] = []
        places: list[list[int]] = []
        if self._latest is not None and staying == list(range(len(staying))):
            plans, places, first = [self._latest[1]], [at], len(staying)
        for n in range(first, len(placed)):
            plans.append(self.single(rig, placed[n]))
            places.append([n])
        if not plans:
            plans, places = [Plan([], len(rig), rig.mixes, self._precision)], [[]]
        return Chain(plans, places)

    def close(self) -> None:
        """Make no more."""
        self._worker.end()
