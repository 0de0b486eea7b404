"""Groups of elements that are computed alike: same form, same way of acting on the values (see `core.plan`).

A group is evaluated once a frame (`evaluate`), then acts on the values in one or more rounds (`act`).
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import DTypeLike, NDArray

from . import attributes, randomness
from .clamp import constant
from .effect import Effect
from .neighbours import side_by_side
from .placement import Block

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
Chosen = Ints | slice
Item = tuple[int, Block, Ints, Ints, Bools]
"""Instance, block, row and round of each element, and which elements of the block are meant."""

_EXACT = ("offset", "circuit", "handover")
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
class Phases:
    """Phase of each row: `row` as it runs, `raw` that of θ itself (for random forms). (rows,).

    known: phases in the cycle and cycle numbers of elements, found once for all groups that lie alike.
    """

    row: Floats
    raw: Floats
    known: dict[tuple[int, bytes], tuple[Floats, Floats]] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Turns:
    """Where the elements of a group are: phase 0…1, whether active (None: all are), cycle number, phase in that cycle."""

    p: Floats
    active: Bools | None
    cycle: Floats | None
    q: Floats | None


class Group:
    """Elements computed alike. Subclasses say what is computed, and how it acts on the values."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        self.how: str = key[1]
        self.precision: DTypeLike = np.float64
        self.instance = spread_over(items, lambda number, block: number).astype(np.int64)
        self.row = np.concatenate([row[chosen] for _, _, row, _, chosen in items])
        self.turn = np.concatenate([turn[chosen] for _, _, _, turn, chosen in items])
        self.layer = spread_over(items, lambda number, block: block.number).astype(np.int64)
        self.head = np.concatenate([block.head[chosen] for _, block, _, _, chosen in items])
        self.lane = np.concatenate([block.lane[chosen] for _, block, _, _, chosen in items])
        self.key = np.concatenate([block.key[chosen] for _, block, _, _, chosen in items])
        self.depth = np.concatenate([block.depth[chosen] for _, block, _, _, chosen in items])
        self.seed = spread_over(items, lambda number, block: effects[number].seed).astype(np.int64)
        self.circuit = spread_over(items, lambda number, block: block.circuit)
        self.handover = spread_over(items, lambda number, block: block.spread.handover)
        self.offset = np.concatenate(
            [(block.lane * block.spread.handover if block.is_relay else block.offset)[chosen]
             for _, block, _, _, chosen in items]
        )  # fmt: skip
        first = items[0][1]
        self.count, self.back = first.count, first.back_and_forth
        self.shuffled = first.spread.order == "shuffled"
        self.even_depth = bool((self.depth == 1).all())
        self._own_rows, self._pattern = np.unique(self.row, return_inverse=True)
        self._one_row = len(self._own_rows) == 1  # then it need not be looked up for each
        self._own_instances = np.unique(self.instance)
        self.alike = id(self)
        """Groups of one number have the same offsets over the same pattern of rows."""
        self.target = np.zeros(0, np.int64)
        self._whole: Chosen | None = None  # where all elements act
        self.weight = np.zeros(0)
        self.at_full = False
        self.active: Bools | None = None

    @property
    def lie(self) -> tuple[bytes, bytes, bytes]:
        """How the elements of a ripple lie in the cycle: equal for groups that may share their phases."""
        return self.how.encode(), self._pattern.tobytes(), self.offset.tobytes()

    _per_element: tuple[str, ...] = (
        "instance", "row", "turn", "layer", "head", "lane", "key", "depth", "seed", "circuit", "handover", "offset",
    )  # fmt: skip

    def tiled(self, copies: int, stride: int, rows: int, instances: int) -> Group:
        """`copies` of this group side by side: targets `stride`, rows `rows` and instances `instances` apart."""
        other = object.__new__(type(self))
        other.__dict__.update(self.__dict__)
        size = len(self.row)
        for name in self._per_element:
            array = getattr(self, name)
            if array.ndim > 1 or array.strides[0]:
                setattr(other, name, np.tile(array, (copies, *[1] * (array.ndim - 1))))
            else:
                setattr(other, name, np.broadcast_to(array[0], size * copies))
        apart = np.repeat(np.arange(copies), size)
        other.row = other.row + apart * rows
        other.instance = other.instance + apart * instances
        other._own_rows = (self._own_rows + np.arange(copies)[:, None] * rows).ravel()
        other._own_instances = (self._own_instances + np.arange(copies)[:, None] * instances).ravel()
        other.target = np.tile(self.target, copies) + apart * stride
        other._whole = None
        other._one_row = False
        other.settle()
        return other

    def share_phases(self, number: int) -> None:
        """Share phases with the other groups of this number."""
        self.alike = number

    def settle(self) -> None:
        """Keep what is the same for all elements as one number: quicker to compute with."""
        for name in self._per_element:
            array = getattr(self, name)
            if array.ndim == 1 and array.strides[0] and (array == array[0]).all():
                setattr(self, name, np.broadcast_to(array[0].copy(), array.shape))

    _tables: tuple[str, ...] = ()
    """Arrays of numbers that elements look up."""

    def set_precision(self, precision: DTypeLike) -> None:
        """Compute in another precision; offsets and circuits stay exact, since phases grow with time."""
        self.precision = precision
        for name in (*self._per_element, *self._tables):
            array = getattr(self, name)
            if array.dtype == np.float64 and name not in _EXACT:
                setattr(self, name, array.astype(precision))

    def where(self, phases: Phases) -> Turns:
        """Where the elements are in their cycles, for pictures."""
        return self._latest_turn(phases)

    def evaluate(self, phases: Phases, weight: Floats) -> None:
        """Compute what the elements add in this frame. weight: (instances,)."""
        self.at_full = bool((weight[self._own_instances] == 1).all())
        if not self.at_full:
            self.weight = weight[self.instance]
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
            p, _ = self.in_cycle(phases, phases.row)
            if not random:
                return Turns(p, None, None, None)
            q, number = self.in_cycle(phases, phases.raw)
            return Turns(p, None, number, q)
        at = looked_up(phases.row, self.row, self._one_row) - self.offset
        p = at - self.circuit * np.floor(at / self.circuit)
        p[p >= self.circuit] = 0.0
        active = p < 1
        p = np.where(active, p, 0.0).astype(self.precision, copy=False)
        cycle = np.floor((phases.raw[self.row] - self.offset) / self.circuit) if random else None
        return Turns(p, active, cycle, p)

    def in_cycle(self, phases: Phases, of_rows: Floats) -> tuple[Floats, Floats]:
        """Phases 0…1 in a ripple, and numbers of the cycles, for phases of the rows. To be read only: others share them."""
        key = (self.alike, of_rows[self._own_rows].tobytes())
        found = phases.known.get(key)
        if found is None:
            at = looked_up(of_rows, self.row, self._one_row) - self.offset
            cycle = np.floor(at)
            at -= cycle
            p = at.astype(self.precision, copy=False)
            np.minimum(p, constant(_BELOW_ONE[p.dtype.char], p), out=p)
            found = phases.known[key] = (p, cycle)
        return found

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
        drawn = randomness.unit(int(self.seed[0]), lanes[None] + 7919, circuit[:, None])
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


def looked_up(values: Floats, index: Ints, single: bool) -> Floats:
    """`values[index]`; a view of the one value, (1,), where all indexes are the same."""
    return values[index[0] : index[0] + 1] if single else values[index]


def moved(place: Chosen, by: int) -> Chosen:
    """A place in the values, moved by whole rows."""
    return slice(place.start + by, place.stop + by) if isinstance(place, slice) else place + by


def spread_over(items: Sequence[Item], value: Callable[[int, Block], float]) -> Floats:
    """A value of each block, repeated for its elements."""
    return np.repeat(
        np.array([float(value(number, block)) for number, block, *_ in items]),
        [int(chosen.sum()) for *_, chosen in items],
    )


def plain_target(items: Sequence[Item], heads: int) -> Ints:
    return np.concatenate(
        [attributes.INDEX[block.layer.attribute] * heads + block.head[chosen] for _, block, _, _, chosen in items]
    )


def red_targets(items: Sequence[Item], heads: int) -> Ints:
    """Where the red of each element is; green and blue are one and two rows of heads further."""
    head = np.concatenate([block.head[chosen] for _, block, _, _, chosen in items])
    return np.asarray(attributes.RED * heads + head, np.int64)
