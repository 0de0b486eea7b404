"""Batches of elements that are computed alike: same form, same way of acting on the values (see `Batches`).

A batch is evaluated once a frame (`evaluate`), then acts on the values in one or more rounds (`act`).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness
from zarabanda.core.clamp import constant
from zarabanda.core.effects.batch.pieces import BatchKey, Pieces, different
from zarabanda.core.neighbours import side_by_side
from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
Chosen = Ints | slice

Arrangement = tuple[str, bytes, bytes]
"""How the elements of a ripple are in the cycle, one after another: which rows and which offsets they have."""

_FEW_PARTS = 4
_BELOW_ONE = {np.dtype(kind).char: float(np.nextafter(kind(1), kind(0))) for kind in (np.float64, np.float32)}
"""A hair before 0 is the end of a cycle, though its distance to the whole number below comes out as 1."""
_RESOURCES = {
    name: ("pan" if name in ("pan", "tilt", "position") else "red" if row.family == "colour" else name)
    for name, row in attributes.BY_NAME.items()
} | {"position": "pan", "colour": "red"}


def resource(layer_attribute: str) -> int:
    """Number of the thing that a layer works on: layers on the same thing of a head act one after another."""
    return attributes.INDEX[_RESOURCES[layer_attribute]]


@dataclass(frozen=True, slots=True)
class InCycle:
    """Where the elements of a ripple are: `whole` cycles that their rows have passed, and of each element the phase `p`
    in its cycle and whether it is still in an earlier cycle than its row, `behind`: 0 or −1. To be read only: batches
    share them."""

    whole: Floats
    behind: Floats
    p: Floats


@dataclass(frozen=True, slots=True)
class Phases:
    """Phase of each row: `row` as it runs, `raw` that of θ itself (for random forms). (rows,).

    full: whether all instances are at weight 1. known: found once for all batches of one arrangement.
    """

    row: Floats
    raw: Floats
    full: bool = False
    known: dict[tuple[int, bytes], InCycle] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Turns:
    """Where the elements of a batch are: phase 0…1, whether active (None: all are), cycle number, phase in that cycle."""

    p: Floats
    active: Bools | None
    cycle: Floats | None
    q: Floats | None


class Batch:
    """Elements computed alike. Subclasses say what is computed, and how it acts on the values."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        self.how, self.precision = key.how, pieces.precision
        self.row, self._own_rows, self._pattern = pieces.rows()
        self.instance, self._own_instances = pieces.instances()
        self.turn = pieces.each(lambda piece: piece.turn)
        self.layer = pieces.of_block(lambda piece: piece.block.number, exact=True).astype(np.int64)
        self.family = pieces.of_block(lambda piece: piece.block.family, exact=True).astype(np.int64)
        self.head = pieces.each(lambda piece: piece.block.head)
        self.lane = pieces.each(lambda piece: piece.block.lane)
        self.depth = pieces.each(lambda piece: piece.block.depth)
        self.circuit = pieces.of_block(lambda piece: piece.block.circuit, exact=True)
        self.handover = pieces.of_block(lambda piece: piece.block.spread.handover, exact=True)
        self.offset = pieces.each(
            lambda piece: piece.block.lane * piece.block.spread.handover if piece.block.is_relay else piece.block.offset,
            exact=True,
        )
        self.whole_offset = np.floor(self.offset)
        self.lag = (self.offset - self.whole_offset).astype(self.precision)
        first = pieces.first
        self.seed = first.effect.seed
        self.count, self.back = first.block.count, first.block.back_and_forth
        self.shuffled = first.block.spread.order == "shuffled"
        self.even_depth = bool((self.depth == 1).all())
        self.rounds: list[int] = different(self.turn)[0].tolist()
        self._one_row = len(self._own_rows) == 1  # then it need not be looked up for each
        self._size = pieces.size
        self.alike = id(self)
        """Batches of one number have the same arrangement."""
        self._parts: list[tuple[int, int, slice]] = []
        self.target = np.zeros(0, np.int64)
        self._whole: Chosen | None = None  # where all elements act
        self.weight = np.zeros(0)
        self.at_full = False
        self.active: Bools | None = None

    def share_phases(self, known: dict[Arrangement, int]) -> None:
        """Share phases with the other batches of this arrangement. known: number of each, and here this one's is added."""
        one = slice(self._size)  # of all copies the first
        self.alike = known.setdefault(_arrangement(self.how, self._pattern[one], self.offset[one]), len(known))

    def share_parts(self, known: Mapping[Arrangement, int]) -> None:
        """Give the phases of a part, where each row is a part, to batches that have its arrangement alone."""
        for row in range(len(self._own_rows)) if 1 < len(self._own_rows) <= _FEW_PARTS else ():
            at = side_by_side(np.flatnonzero(self._pattern == row))
            number = known.get(_arrangement(self.how, np.zeros_like(self._pattern[at]), self.offset[at]))
            if number is not None and isinstance(at, slice):
                self._parts.append((number, row, at))

    def where(self, phases: Phases) -> Turns:
        """Where the elements are in their cycles, for pictures."""
        return self._latest_turn(phases)

    def evaluate(self, phases: Phases, weight: Floats) -> None:
        """Compute what the elements add in this frame. weight: (instances, families)."""
        self.at_full = phases.full or bool((weight[self._own_instances] == 1).all())
        if not self.at_full:
            self.weight = weight[self.instance, self.family]
        self._compute(phases)

    def act(self, values: Floats, chosen: Chosen) -> None:
        """Act on the flat values with the chosen elements."""
        raise NotImplementedError

    def _compute(self, phases: Phases) -> None:
        raise NotImplementedError

    def place(self, chosen: Chosen) -> Chosen:
        """Where the chosen elements act in the values: a slice when they stand side by side, which costs no copies."""
        if isinstance(chosen, slice):
            if self._whole is None:
                self._whole = side_by_side(self.target)
            return self._whole if isinstance(self._whole, slice) else self.target[chosen]
        return self.target[chosen]

    def strength(self, depth: bool = False) -> Floats | None:
        """Weight of each element, 0 where a head is at rest; with its own depth, if asked. None: 1 everywhere."""
        strength = None if self.at_full else self.weight
        if self.active is not None:
            resting: Floats = np.asarray(self.active, self.precision)
            strength = resting if strength is None else strength * resting
        if depth and not self.even_depth:
            strength = self.depth if strength is None else strength * self.depth
        return strength

    # where the elements are in their cycles

    def _turns(self, phases: Phases, random: bool) -> Turns:
        if self.how == "ripple":
            p = self.in_cycle(phases, phases.row).p
            if not random:
                return Turns(p, None, None, None)
            place = self.in_cycle(phases, phases.raw)
            return Turns(p, None, self.cycle_of(place), place.p)
        at = looked_up(phases.row, self.row, self._one_row) - self.offset
        p = at - self.circuit * np.floor(at / self.circuit)
        p = np.minimum(p, np.nextafter(self.circuit, 0.0))  # a hair before 0 is the end of a circuit, as of a cycle
        active = p < 1
        p = np.where(active, p, 0.0).astype(self.precision, copy=False)
        np.minimum(p, constant(_BELOW_ONE[p.dtype.char], p), out=p)
        cycle = np.floor((phases.raw[self.row] - self.offset) / self.circuit) if random else None
        return Turns(p, active, cycle, p)

    def in_cycle(self, phases: Phases, of_rows: Floats) -> InCycle:
        """Where the elements of a ripple are, for phases of the rows.

        Whole cycles are taken off in float64, however long an effect runs; what is left is as exact as the values.
        """
        own = of_rows[self._own_rows]
        key = (self.alike, own.tobytes())
        found = phases.known.get(key)
        if found is None:
            whole = np.floor(own)
            part = (own - whole).astype(self.precision, copy=False)
            p = looked_up(part, self._pattern, self._one_row) - self.lag
            behind = np.floor(p)
            p -= behind
            np.minimum(p, constant(_BELOW_ONE[p.dtype.char], p), out=p)
            found = phases.known[key] = InCycle(whole, behind, p)
            for number, row, at in self._parts:
                phases.known[number, own[row : row + 1].tobytes()] = InCycle(whole[row : row + 1], behind[at], p[at])
        return found

    def cycle_of(self, place: InCycle, chosen: Chosen = slice(None)) -> Floats:
        """Number of the cycle that the chosen elements are in."""
        whole = looked_up(place.whole, self._pattern[chosen], self._one_row)
        return np.asarray(whole - self.whole_offset[chosen] + place.behind[chosen])

    def _many_turns(self, phases: Phases) -> Turns:
        """All turns that may be under way, (candidates, n): of this circuit and the one before, there and back."""
        rows, inverse = np.unique(self.row, return_inverse=True)
        at = phases.row[rows]
        length = float(self.circuit[0])
        circuit_now = np.floor(at / length)
        every_p, every_active, every_cycle = [], [], []
        for earlier in (0, 1):
            circuit = circuit_now - earlier
            position = self._positions(circuit)[inverse, self.lane]
            ways = [position]
            if self.back:
                there_only = (position == 0) | (position == self.count - 1)
                ways.append(np.where(there_only, -1, 2 * self.count - 2 - position))
            for way, place in enumerate(ways):
                passed = (at - circuit * length)[inverse] - place * self.handover
                active = (passed >= 0) & (passed < 1) & (place >= 0)
                every_p.append(np.where(active, passed, 0.0))
                every_active.append(active)
                every_cycle.append(circuit[inverse] * 2 + way)
        p, active = np.stack(every_p), np.stack(every_active)
        return Turns(p, active, np.stack(every_cycle), p)

    def _positions(self, circuit: Floats) -> Ints:
        """Which turn of its circuit each lane has, (rows, lanes)."""
        lanes = np.arange(self.count)
        if not self.shuffled:
            return np.broadcast_to(lanes, (len(circuit), self.count))
        drawn = randomness.unit(self.seed, lanes[None] + 7919, circuit[:, None])
        return np.argsort(np.argsort(drawn, axis=1, kind="stable"), axis=1, kind="stable")

    def _latest_turn(self, phases: Phases) -> Turns:
        """One turn for each element: where several overlap, the one that started later."""
        if self.how != "many":
            return self._turns(phases, random=False)
        turns = self._many_turns(phases)
        assert turns.active is not None
        latest = np.where(turns.active, turns.p, np.inf).argmin(axis=0)
        elements = np.arange(len(latest))
        return Turns(turns.p[latest, elements], turns.active[latest, elements], None, None)


def _arrangement(how: str, pattern: Ints, offset: Floats) -> Arrangement:
    return how, pattern.tobytes(), offset.tobytes()


def looked_up(values: Floats, index: Ints, single: bool) -> Floats:
    """`values[index]`; a view of the one value, (1,), where all indexes are the same."""
    return values[index[0] : index[0] + 1] if single else values.take(index, mode="clip")


def moved(place: Chosen, by: int) -> Chosen:
    """A place in the values, moved by whole rows."""
    return slice(place.start + by, place.stop + by) if isinstance(place, slice) else place + by


def rows_at(values: Floats, place: Chosen, stride: int) -> Floats:
    """Values at a place and at the same place one and two rows of `stride` on, (3, n): a view where the place is a slice."""
    if isinstance(place, slice):
        row, first = divmod(place.start, stride)
        end = first + place.stop - place.start
        rows: Floats = values.reshape(-1, stride)[row : row + 3, first:end]
        return rows
    return np.asarray(values[place + np.arange(3)[:, None] * stride])


def put_rows(values: Floats, place: Chosen, stride: int, rows: Floats) -> None:
    """Put `rows` (3, n) where `rows_at` finds them."""
    if isinstance(place, slice):
        rows_at(values, place, stride)[:] = rows
    else:
        values[place + np.arange(3)[:, None] * stride] = rows
