"""What plays, put into batches off the frame loop. The loop itself makes at most those of a single effect."""

from __future__ import annotations

import contextlib
import queue
from collections.abc import Sequence

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.placement import Placed
from zarabanda.core.playback.frame import Frame
from zarabanda.core.playback.ground import Ground
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.workers import Troubles, Worker

_RIGS_KEPT = 2
_KEPT = 12
_SINGLES_KEPT = 2048
_QUIET_S = 0.25
Key = tuple[int, ...]


class Chain:
    """Sets of batches one after another, as if they were one: what plays in their order. at: what of a running each takes;
    −1 where it plays no more."""

    def __init__(self, several: Sequence[Batches], at: Sequence[Sequence[int]]) -> None:
        self._several = [(batches, list(places)) for batches, places in zip(several, at, strict=True)]
        self.touched: NDArray[np.bool_] = np.logical_or.reduce([batches.touched for batches in several])

    def apply(self, values: NDArray[np.float64], running: Running) -> None:
        """As `Batches.apply`."""
        theta, weight = np.append(running.theta, 0.0), np.vstack([running.weights, np.zeros(len(attributes.FAMILIES))])
        shifts = [*running.shifts, ()] if running.shifts else ()
        for batches, places in self._several:
            own = [shifts[place] for place in places] if shifts else ()
            batches.apply(values, Running(theta[places], weight[places], own))


class _ForRig:
    """What is kept for one rig: its frame and ground, batches that were made, and the newest of them that were used."""

    def __init__(self, rig: Rig, precision: DTypeLike) -> None:
        self.rig, self._precision = rig, precision
        self.frame, self.ground = Frame(rig, precision), Ground(rig, precision)
        self.made: dict[Key, tuple[list[Placed], Batches]] = {}
        self.latest: tuple[list[Placed], Batches] | None = None
        self.wanted: Key = ()
        self._singles: dict[int, tuple[Placed, Batches]] = {}

    def make(self, placed: Sequence[Placed]) -> Batches:
        """Put effects into batches."""
        return Batches(placed, len(self.rig), self.rig.mixes, self._precision)

    def keep(self, key: Key, placed: list[Placed], batches: Batches) -> None:
        """Keep batches; the oldest go."""
        self.frame.prepare(batches.touched)
        self.made[key] = (placed, batches)
        for old in list(self.made)[:-_KEPT]:
            self.made.pop(old, None)

    def take_over(self, other: _ForRig) -> None:
        """Use the batches made for another rig that has the same heads, which may stand or listen elsewhere."""
        self.made, self.latest, self._singles = dict(other.made), other.latest, dict(other._singles)
        for _, batches in self.made.values():
            self.frame.prepare(batches.touched)

    def single(self, placed: Placed) -> Batches:
        """The batches of one effect alone."""
        known = self._singles.get(id(placed))
        if known is None:
            known = (placed, self.make([placed]))
            self._singles[id(placed)] = known
            for old in list(self._singles)[:-_SINGLES_KEPT]:
                self._singles.pop(old, None)
        return known[1]

    def chained(self, placed: list[Placed]) -> Chain:
        """The latest batches without what plays no more, then what is new; or each effect alone, where the order is another."""
        number = {id(one): n for n, one in enumerate(placed)}
        before = self.latest[0] if self.latest is not None else []
        at = [number.get(id(one), -1) for one in before]
        staying = [place for place in at if place >= 0]
        first = 0
        several: list[Batches] = []
        places: list[list[int]] = []
        if self.latest is not None and staying == list(range(len(staying))):
            several, places, first = [self.latest[1]], [at], len(staying)
        for n in range(first, len(placed)):
            several.append(self.single(placed[n]))
            places.append([n])
        if not several:
            several, places = [self.make([])], [[]]
        return Chain(several, places)


class Batching:
    """Keeps the batches of what played lately and may play next, for the newest rigs.

    Whoever compiles calls `prepare` before the loop needs them. What nobody foresaw (an effect is started by hand) is
    put together from batches that are there, exactly as it will be, while a worker makes one set of it.
    """

    def __init__(self, precision: DTypeLike, troubles: Troubles) -> None:
        self._precision = precision
        self._rigs: list[_ForRig] = []
        self._asked: queue.SimpleQueue[tuple[Rig, list[Placed]] | None] = queue.SimpleQueue()
        """What to make; None: nothing more."""
        self._worker = Worker("Batches of effects", self._make_one, troubles).start()

    def _of(self, rig: Rig) -> _ForRig:
        for known in self._rigs:
            if known.rig is rig:
                return known
        made = _ForRig(rig, self._precision)
        alike = next((known for known in self._rigs if known.rig.heads.keys is rig.heads.keys), None)
        if alike is not None:
            made.take_over(alike)
        self._rigs = [*self._rigs, made][-_RIGS_KEPT:]
        return made

    def frame(self, rig: Rig) -> tuple[Frame, Ground]:
        """What computes frames of this rig."""
        kept = self._of(rig)
        return kept.frame, kept.ground

    def prepare(self, rig: Rig, placed: Sequence[Placed]) -> None:
        """Make the batches of what will play; in the thread of whoever calls."""
        kept = self._of(rig)
        key = tuple(map(id, placed))  # none is used twice, since what is placed is kept with its batches
        if key not in kept.made:
            kept.keep(key, list(placed), kept.make(placed))

    def _make_one(self) -> bool | None:
        """Make what was asked for last, once nothing else has been for a while: cues in quick succession would have it done in
        vain, in time that frames need."""
        asked = self._asked.get()
        with contextlib.suppress(queue.Empty):
            while asked is not None:
                asked = self._asked.get(timeout=_QUIET_S)
        if asked is None:
            return False
        rig, placed = asked
        if any(kept.rig is rig for kept in self._rigs):
            self.prepare(rig, placed)
        return None

    def single(self, rig: Rig, placed: Placed) -> Batches:
        """The batches of one effect alone."""
        return self._of(rig).single(placed)

    def batches_of(self, rig: Rig, placed: list[Placed]) -> tuple[Batches | Chain, bool]:
        """What computes these effects in their order, and whether they are made as one already; never slow."""
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
        self._asked.put(None)
        self._worker.end()
