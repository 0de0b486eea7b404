"""Groups of elements that are computed alike: same form, same way of acting on the values (see `core.plan`).

A group is evaluated once a frame (`evaluate`), then acts on the values in one or more rounds (`act`).
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import DTypeLike, NDArray

from . import attributes, colour, paths, randomness, stage, stops, waveforms
from .effect import Effect, Path, Stops, Waveform
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
    """Phase of each row: `row` as it runs, `raw` that of θ itself (for random forms). (rows,)."""

    row: Floats
    raw: Floats


@dataclass(frozen=True, slots=True)
class Turns:
    """Where the elements of a group are: phase 0…1, whether active (None: all are), cycle number, phase in that cycle."""

    p: Floats
    active: Bools | None
    cycle: Floats | None
    q: Floats | None


def group_key(block: Block, effect: Effect, mixes_colour: bool) -> tuple[Any, ...]:
    """What must be equal for two blocks to be computed together. mixes_colour: heads that mix red, green and blue."""
    layer, form = block.layer, block.layer.form
    how = "many" if block.has_many_turns else "relay" if block.is_relay else "ripple"
    alone = id(block) if block.has_many_turns else 0
    by_hsv = mixes_colour and layer.attribute in ("hue", "saturation")
    on = layer.attribute if by_hsv else "circle" if layer.attribute == "hue" else "plain"
    if isinstance(form, Path):
        if form.plane != "yoke":
            return ("stage path", how, alone, form, "plain")
        same: Any = form if form.path in ("polygon", "free") else form.path
        return ("path", how, alone, same, "plain")
    if isinstance(form, Stops):
        if layer.attribute == "colour":
            return ("colour", how, alone, form, effect.colour_space)
        return ("stops", how, alone, form, on)
    shape = form.shape
    same = form if shape == "curve" else "soft" if shape == "square" and form.softness > 0 else shape
    return ("between" if layer.anchor.kind == "between" else "wave", how, alone, same, on)


class Group:
    """Elements computed alike. Subclasses say what is computed, and how it acts on the values."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        self.how: str = key[1]
        self.precision: DTypeLike = np.float64
        self.instance = _spread_over(items, lambda number, block: number).astype(np.int64)
        self.row = np.concatenate([row[chosen] for _, _, row, _, chosen in items])
        self.turn = np.concatenate([turn[chosen] for _, _, _, turn, chosen in items])
        self.head = np.concatenate([block.head[chosen] for _, block, _, _, chosen in items])
        self.lane = np.concatenate([block.lane[chosen] for _, block, _, _, chosen in items])
        self.key = np.concatenate([block.key[chosen] for _, block, _, _, chosen in items])
        self.depth = np.concatenate([block.depth[chosen] for _, block, _, _, chosen in items])
        self.seed = _spread_over(items, lambda number, block: effects[number].seed).astype(np.int64)
        self.circuit = _spread_over(items, lambda number, block: block.circuit)
        self.handover = _spread_over(items, lambda number, block: block.spread.handover)
        self.offset = np.concatenate(
            [(block.lane * block.spread.handover if block.is_relay else block.offset)[chosen]
             for _, block, _, _, chosen in items]
        )  # fmt: skip
        first = items[0][1]
        self.count, self.back = first.count, first.back_and_forth
        self.shuffled = first.spread.order == "shuffled"
        self.even_depth = bool((self.depth == 1).all())
        self._note_single()
        self.target = np.zeros(0, np.int64)
        self._side_by_side: bool | None = None
        self.weight = np.zeros(0)
        self.active: Bools | None = None

    _per_element: tuple[str, ...] = (
        "instance", "row", "turn", "head", "lane", "key", "depth", "seed", "circuit", "handover", "offset",
    )  # fmt: skip

    def tiled(self, copies: int, stride: int, rows: int, instances: int) -> Group:
        """`copies` of this group side by side: targets `stride`, rows `rows` and instances `instances` apart."""
        other = object.__new__(type(self))
        other.__dict__.update(self.__dict__)
        size = len(self.row)
        for name in self._per_element:
            array = getattr(self, name)
            setattr(other, name, np.tile(array, (copies, *[1] * (array.ndim - 1))))
        apart = np.repeat(np.arange(copies), size)
        other.row = other.row + apart * rows
        other.instance = other.instance + apart * instances
        other.target = np.tile(self.target, copies) + apart * stride
        other._side_by_side = None
        other._note_single()
        return other

    def _note_single(self) -> None:
        """Note where all elements share a row or an instance: then nothing need be looked up for each."""
        self._one_row = bool((self.row == self.row[0]).all())
        self._one_instance = bool((self.instance == self.instance[0]).all())

    _tables: tuple[str, ...] = ()
    """Arrays of numbers that elements look up."""

    def set_precision(self, precision: DTypeLike) -> None:
        """Compute in another precision; offsets and circuits stay exact, since phases grow with time."""
        self.precision = precision
        for name in (*self._per_element, *self._tables):
            array = getattr(self, name)
            if array.dtype == np.float64 and name not in _EXACT:
                setattr(self, name, array.astype(precision))

    def evaluate(self, phases: Phases, weight: Floats) -> None:
        """Compute what the elements add in this frame. weight: (instances,)."""
        self.weight = _looked_up(weight, self.instance, self._one_instance)
        self._compute(phases)

    def act(self, values: Floats, chosen: Chosen) -> None:
        """Act on the flat values with the chosen elements."""
        raise NotImplementedError

    def _compute(self, phases: Phases) -> None:
        raise NotImplementedError

    def place(self, chosen: Chosen) -> Chosen:
        """Where the chosen elements act in the values: a slice when they stand side by side, which costs no copies."""
        if isinstance(chosen, slice):
            if self._side_by_side is None:
                target = self.target
                self._side_by_side = bool(
                    len(target) and target[-1] - target[0] + 1 == len(target) and (np.diff(target) == 1).all()
                )
            if self._side_by_side:
                return slice(int(self.target[0]), int(self.target[-1]) + 1)
        return self.target[chosen]

    @property
    def strength(self) -> Floats:
        """Weight of each element, 0 where a head is at rest."""
        return self.weight if self.active is None else self.weight * self.active

    # where the elements are in their cycles

    def _turns(self, phases: Phases, random: bool) -> Turns:
        at = _looked_up(phases.row, self.row, self._one_row) - self.offset
        if self.how == "ripple":
            p = at - np.floor(at)
            p = p.astype(self.precision, copy=False)
            np.minimum(p, _BELOW_ONE[p.dtype.char], out=p)
            if not random:
                return Turns(p, None, None, None)
            raw = _looked_up(phases.raw, self.row, self._one_row) - self.offset
            cycle = np.floor(raw)
            return Turns(p, None, cycle, (raw - cycle).astype(self.precision, copy=False))
        p = at - self.circuit * np.floor(at / self.circuit)
        p[p >= self.circuit] = 0.0
        active = p < 1
        p = np.where(active, p, 0.0).astype(self.precision, copy=False)
        cycle = np.floor((phases.raw[self.row] - self.offset) / self.circuit) if random else None
        return Turns(p, active, cycle, p)

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


def _looked_up(values: Floats, index: Ints, single: bool) -> Floats:
    """`values[index]`; a view of one value where all indexes are the same."""
    return np.broadcast_to(values[index[0]], index.shape) if single else values[index]


def _moved(place: Chosen, by: int) -> Chosen:
    """A place in the values, moved by whole rows."""
    return slice(place.start + by, place.stop + by) if isinstance(place, slice) else place + by


def _spread_over(items: Sequence[Item], value: Callable[[int, Block], float]) -> Floats:
    """A value of each block, repeated for its elements."""
    return np.repeat(
        np.array([float(value(number, block)) for number, block, *_ in items]),
        [int(chosen.sum()) for *_, chosen in items],
    )


def _plain_target(items: Sequence[Item], heads: int) -> Ints:
    return np.concatenate(
        [attributes.INDEX[block.layer.attribute] * heads + block.head[chosen] for _, block, _, _, chosen in items]
    )


class _WaveGroup(Group):
    """Waveforms: the level w of each element."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        self.shape = "curve" if isinstance(key[3], Waveform) else key[3]
        forms = [block.layer.form for _, block, *_ in items]
        self.form: Waveform = forms[0]  # type: ignore[assignment]  # all of this group are waveforms
        self.duty = _spread_over(items, lambda number, block: block.layer.form.duty)  # type: ignore[union-attr]
        self.softness = _spread_over(items, lambda number, block: block.layer.form.softness)  # type: ignore[union-attr]
        self.always = bool((self.duty >= 1).all())
        self.random = self.shape in waveforms.RANDOM_SHAPES
        self._flat_steps = self.shape == "steps" and self.always and not self.softness.any()
        self._cycle, self._drawn = np.zeros(0), np.zeros(0)
        self.target = _plain_target(items, heads)
        self.level = np.zeros(0)

    _per_element = (*Group._per_element, "duty", "softness")

    def _compute(self, phases: Phases) -> None:
        if self._flat_steps and self.how == "ripple":
            self.active = None
            cycle = np.floor(_looked_up(phases.raw, self.row, self._one_row) - self.offset)
            self.level = self._remembered(cycle, self.seed, self.key)
            return
        if self.how != "many":
            turns = self._turns(phases, self.random)
            self.active = turns.active
            self.level = self._level(turns, self.duty, self.softness, self.seed, self.key)
            return
        many = self._many_turns(phases)
        count = len(many.p)
        assert many.active is not None
        assert many.cycle is not None
        flat = Turns(many.p.ravel(), None, many.cycle.ravel(), many.p.ravel())
        duty, softness = np.tile(self.duty, count), np.tile(self.softness, count)
        level = self._level(flat, duty, softness, np.tile(self.seed, count), np.tile(self.key, count)).reshape(many.p.shape)
        self.active = np.asarray(many.active.any(axis=0))
        self.level = np.where(self.active, np.where(many.active, level, -np.inf).max(axis=0), 0.0)

    def _level(self, turns: Turns, duty: Floats, softness: Floats, seed: Ints, key: Ints) -> Floats:
        p = turns.q if self.random and turns.q is not None else turns.p
        if self.shape == "soft":
            return waveforms.soft_square(p, duty, softness)
        inside = p if self.always else p / duty
        if self.random:
            level = self._random_level(inside, turns.cycle, softness, seed, key)  # type: ignore[arg-type]
        elif self.shape == "curve":
            level = waveforms.curve_level(inside, self.form.points, self.form.smooth)
        else:
            level = waveforms.SHAPES[self.shape].value(inside)
        if self.always:
            return level
        return np.where(p < duty, level, waveforms.rest_level(self.shape, self.form.points))

    def _random_level(self, p: Floats, cycle: Floats, softness: Floats, seed: Ints, key: Ints) -> Floats:
        now = self._unit(seed, key, cycle)
        if self.shape == "noise":
            return waveforms.noise_level(p, now, self._unit(seed, key, cycle + 1))
        return waveforms.steps_level(p, softness, self._unit(seed, key, cycle - 1), now)

    def _unit(self, seed: Ints, key: Ints, cycle: Floats) -> Floats:
        return randomness.unit(seed, key, cycle).astype(self.precision, copy=False)

    def _remembered(self, cycle: Floats, seed: Ints, key: Ints) -> Floats:
        """Levels of cycles; drawn anew only where the cycle is another than when last asked."""
        if len(self._cycle) != len(cycle):
            self._cycle, self._drawn = np.full(len(cycle), np.nan), np.zeros(len(cycle), self.precision)
        new = np.flatnonzero(cycle != self._cycle)
        if len(new):
            self._cycle[new] = cycle[new]
            self._drawn[new] = randomness.unit(seed[new], key[new], cycle[new])
        return self._drawn


class _Adding(_WaveGroup):
    """Centred, above and below: depth times the level is added to the base."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        self.gain = _spread_over(
            items,
            lambda number, block: -block.layer.anchor.depth if block.layer.anchor.kind == "below" else block.layer.anchor.depth,
        )
        self.shift = _spread_over(
            items,
            lambda number, block: -block.layer.anchor.depth / 2 if block.layer.anchor.kind == "centred" else 0.0,
        )
        self.result = np.zeros(0)

    _per_element = (*_WaveGroup._per_element, "gain", "shift")

    def _compute(self, phases: Phases) -> None:
        super()._compute(phases)
        strength = self.strength if self.even_depth else self.strength * self.depth
        self.result = (self.gain * self.level + self.shift) * strength

    def act(self, values: Floats, chosen: Chosen) -> None:
        values[self.place(chosen)] += self.result[chosen]


class _Between(_WaveGroup):
    """Between two values: the base gives way to low + (high − low)·w by the weight. At rest: low."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        self.circle = key[4] in ("circle", "hue")
        self.low = _spread_over(items, lambda number, block: block.layer.anchor.low)
        high = _spread_over(items, lambda number, block: block.layer.anchor.high)
        self.span = high - self.low
        if self.circle:
            around = (self.span < 0) | (self.span > 360)
            self.span = np.where(around, self.span % 360, self.span)
        self.result = np.zeros(0)

    _per_element = (*_WaveGroup._per_element, "low", "span")

    def _compute(self, phases: Phases) -> None:
        super()._compute(phases)
        level = self.level if self.active is None else self.level * self.active
        if not self.even_depth:
            level = 0.5 + self.depth * (level - 0.5)
        self.result = self.low + self.span * level

    def act(self, values: Floats, chosen: Chosen) -> None:
        target, result, weight = self.place(chosen), self.result[chosen], self.weight[chosen]
        base = values[target]
        values[target] = base + weight * (colour.hue_step(base, result) if self.circle else result - base)


class _NumberStops(Group):
    """Stops with numbers: value = fixed + share · base, mixed in by the weight while the head is active."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        form: Stops = key[3]
        self.times = _times(form)
        self.circle, self.long_way = key[4] in ("circle", "hue"), form.long_way
        self.fixed = np.array([0.0 if stop.value is None else float(stop.value) for stop in form.stops])  # type: ignore[arg-type]
        self.share = np.array([1.0 if stop.relative or stop.value is None else 0.0 for stop in form.stops])
        self.target = _plain_target(items, heads)
        self.left, self.to, self.way = np.zeros(0, np.int64), np.zeros(0, np.int64), np.zeros(0)

    _tables = ("fixed", "share")

    def set_precision(self, precision: DTypeLike) -> None:
        super().set_precision(precision)
        self.times = self.times.in_precision(precision)

    def _compute(self, phases: Phases) -> None:
        turns = self._latest_turn(phases)
        self.active = turns.active
        self.left, self.to, self.way = stops.stop_at(self.times, turns.p)

    def mixed(self, base: Floats, chosen: Chosen) -> Floats:
        """The values that the base gives way to, at full weight."""
        left, to, way = self.left[chosen], self.to[chosen], self.way[chosen]
        start, end = self.fixed[left] + self.share[left] * base, self.fixed[to] + self.share[to] * base
        return start + way * (colour.hue_step(start, end, self.long_way) if self.circle else end - start)

    def act(self, values: Floats, chosen: Chosen) -> None:
        target = self.target[chosen]
        base = values[target]
        step = self.mixed(base, chosen)
        step = colour.hue_step(base, step, self.long_way) if self.circle else step - base
        values[target] = base + self.strength[chosen] * step


def _times(form: Stops) -> stops.StopTimes:
    every = form.stops
    return stops.stop_times([s.travel for s in every], [s.hold for s in every], [s.ease for s in every])


class _ThroughHsv(Group):
    """Hue and saturation on heads that mix red, green and blue: there to HSV, an inner group acts, and back."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        self.column = 0 if key[4] == "hue" else 1
        self.scale = 1.0 if self.column == 0 else 100.0
        self.inner = _KINDS[key[0]](key, items, effects, heads)
        self.target = _red_targets(items, heads)
        self.stride = heads
        self._places = np.arange(len(self.target), dtype=np.int64)

    def set_precision(self, precision: DTypeLike) -> None:
        super().set_precision(precision)
        self.inner.set_precision(precision)

    def tiled(self, copies: int, stride: int, rows: int, instances: int) -> Group:
        other = super().tiled(copies, stride, rows, instances)
        assert isinstance(other, _ThroughHsv)
        other.inner = self.inner.tiled(copies, stride, rows, instances)
        other._places = np.arange(len(other.target), dtype=np.int64)
        return other

    def evaluate(self, phases: Phases, weight: Floats) -> None:
        self.inner.evaluate(phases, weight)
        self.inner.target = self._places

    def act(self, values: Floats, chosen: Chosen) -> None:
        red = self.place(chosen)
        green, blue = _moved(red, self.stride), _moved(red, 2 * self.stride)
        drives = (np.minimum(np.maximum(values[plane], 0.0), 1.0) for plane in (red, green, blue))
        hsv = list(colour.rgb_to_hsv_planes(*drives))
        column = hsv[self.column] * self.scale
        if isinstance(chosen, slice):
            self.inner.act(column, chosen)
            changed = column
        else:
            whole = np.zeros(len(self.target), values.dtype)
            whole[chosen] = column
            self.inner.act(whole, chosen)
            changed = whole[chosen]
        hsv[self.column] = changed if self.column == 0 else np.clip(changed / self.scale, 0, 1)
        values[red], values[green], values[blue] = colour.hsv_to_rgb_planes(*hsv)


def _red_targets(items: Sequence[Item], heads: int) -> Ints:
    """Where the red of each element is; green and blue are one and two rows of heads further."""
    head = np.concatenate([block.head[chosen] for _, block, _, _, chosen in items])
    return np.asarray(attributes.RED * heads + head, np.int64)


class _ColourStops(Group):
    """Stops with colours, mixed in the effect's colour space; a stop may be the base colour itself."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        form: Stops = key[3]
        self.times = _times(form)
        self.mix = colour.SPACES[key[4]]
        self.colours = np.array([stop.value or (0.0, 0.0, 0.0) for stop in form.stops])
        self.is_base = np.array([stop.value is None for stop in form.stops])
        self.straight = key[4] in ("rgb", "cmy") and not self.is_base.any()
        self.target = _red_targets(items, heads)
        self.stride = heads
        self.left, self.to, self.way = np.zeros(0, np.int64), np.zeros(0, np.int64), np.zeros(0)

    _tables = ("colours",)

    def set_precision(self, precision: DTypeLike) -> None:
        super().set_precision(precision)
        self.times = self.times.in_precision(precision)

    def _compute(self, phases: Phases) -> None:
        turns = self._latest_turn(phases)
        self.active = turns.active
        self.left, self.to, self.way = stops.stop_at(self.times, turns.p)

    def act(self, values: Floats, chosen: Chosen) -> None:
        if self.straight:
            self._act_straight(values, chosen)
            return
        target = self.target[chosen][:, None] + np.arange(3) * self.stride
        base = values[target]
        left, to = self.left[chosen], self.to[chosen]
        start, end = self.colours[left], self.colours[to]
        if self.is_base.any():
            start = np.where(self.is_base[left][:, None], base, start)
            end = np.where(self.is_base[to][:, None], base, end)
        mixed = self.mix(start, end, self.way[chosen])
        values[target] = base + self.strength[chosen][:, None] * (mixed - base)

    def _act_straight(self, values: Floats, chosen: Chosen) -> None:
        """The same where colours mix by their components: plane by plane."""
        left, to, way, strength = self.left[chosen], self.to[chosen], self.way[chosen], self.strength[chosen]
        red = self.place(chosen)
        for plane in range(3):
            target = _moved(red, plane * self.stride)
            drive = self.colours[:, plane]
            start, base = drive[left], values[target]
            values[target] = base + strength * (start + (drive[to] - start) * way - base)


class _Paths(Group):
    """Paths of pan and tilt in degrees; pan mirrored where asked for; in a relay relative to the point at p = 0."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        self.named = key[3] if isinstance(key[3], str) else ""
        first: Path = items[0][1].layer.form  # type: ignore[assignment]  # all of this group are paths
        unit = (1.0, 1.0, 0.0) if self.named else (first.width, first.height, first.rotation)
        self.figure = paths.figure(
            first.path, unit[0], unit[1], rotation=unit[2],
            corners=first.corners, points=first.points, dwell=first.dwell,
        )  # fmt: skip
        zero = self.figure(np.zeros(1))
        self.at_start = (float(zero[0][0]), float(zero[1][0])) if self.how != "ripple" else (0.0, 0.0)
        mirrored = np.concatenate([block.mirrored[chosen] for _, block, _, _, chosen in items])
        sign = np.where(mirrored, -1.0, 1.0)

        def of_form(value: Callable[[Path], float]) -> Floats:
            return _spread_over(items, lambda number, block: value(block.layer.form))  # type: ignore[arg-type]

        # turned and scaled: (x, y) = matrix · figure of unit size; alone, the figure is finished already
        width = of_form(lambda form: form.width if self.named else 1.0)
        height = of_form(lambda form: form.height if self.named else 1.0)
        angle = np.radians(of_form(lambda form: form.rotation if self.named else 0.0))
        self.xx, self.xy = sign * width * np.cos(angle), -sign * height * np.sin(angle)
        self.yx, self.yy = width * np.sin(angle), height * np.cos(angle)
        self.target = attributes.PAN * heads + self.head
        self.to_tilt = (attributes.TILT - attributes.PAN) * heads
        self.x, self.y = np.zeros(0), np.zeros(0)

    _per_element = (*Group._per_element, "xx", "xy", "yx", "yy")

    def _compute(self, phases: Phases) -> None:
        turns = self._latest_turn(phases)
        self.active = turns.active
        x, y = self.figure(turns.p)
        x, y = x - self.at_start[0], y - self.at_start[1]
        strength = self.strength if self.even_depth else self.strength * self.depth
        self.x = (self.xx * x + self.xy * y) * strength
        self.y = (self.yx * x + self.yy * y) * strength

    def act(self, values: Floats, chosen: Chosen) -> None:
        target = self.place(chosen)
        values[target] += self.x[chosen]
        values[_moved(target, self.to_tilt)] += self.y[chosen]


class _StagePaths(Group):
    """Paths in metres round the point that a beam hits on a plane; pan and tilt by inverse kinematics.

    A pure function of base and phase: the solution is followed along the figure from p = 0, where it is the one nearest to
    the base. A beam that does not hit the plane stays at its base.
    """

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        form: Path = key[3]
        self.figure = paths.figure(
            form.path, form.width, form.height, rotation=form.rotation,
            corners=form.corners, points=form.points, dwell=form.dwell,
        )  # fmt: skip
        self.axis, self.at = (2 if form.plane == "floor" else 1), form.plane_at
        self.places = np.concatenate([block.places[chosen] for _, block, _, _, chosen in items])
        self.mounting = np.concatenate([block.mounting[chosen] for _, block, _, _, chosen in items])
        mirrored = np.concatenate([block.mirrored[chosen] for _, block, _, _, chosen in items])
        self.sign = np.where(mirrored, -1.0, 1.0)
        self.target = attributes.PAN * heads + self.head
        self.to_tilt = (attributes.TILT - attributes.PAN) * heads
        self.p = np.zeros(0)

    _per_element = (*Group._per_element, "places", "mounting", "sign")

    def _compute(self, phases: Phases) -> None:
        turns = self._latest_turn(phases)
        self.active, self.p = turns.active, turns.p

    def act(self, values: Floats, chosen: Chosen) -> None:
        pan, tilt = self.target[chosen], self.target[chosen] + self.to_tilt
        base_pan, base_tilt = values[pan], values[tilt]
        places, mounting = self.places[chosen], self.mounting[chosen]
        hit, hits = stage.landing(places, stage.direction(base_pan, base_tilt, mounting), self.axis, self.at)
        strength = (self.strength * self.depth)[chosen] * hits
        way = np.linspace(0, 1, _FOLLOWED)[:, None] * self.p[chosen]
        x, y = (plane.reshape(way.shape) for plane in self.figure(way.ravel()))
        if self.how != "ripple":
            x, y = x - x[0], y - y[0]
        points = np.repeat(hit[None], _FOLLOWED, axis=0)
        points[..., 0] += x * self.sign[chosen] * strength
        points[..., 3 - self.axis] += y * strength
        found = stage.follow(places, mounting, points, base_pan, base_tilt)
        moved = strength > 0
        values[pan] = np.where(moved, found[0], base_pan)
        values[tilt] = np.where(moved, found[1], base_tilt)


_FOLLOWED = 25
"""Points along the figure, from p = 0 to now, over which the solution is followed."""

_KINDS: dict[str, type[Group]] = {
    "wave": _Adding,
    "between": _Between,
    "stops": _NumberStops,
    "colour": _ColourStops,
    "path": _Paths,
    "stage path": _StagePaths,
}


def make_group(
    key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int, precision: DTypeLike = np.float64
) -> Group:
    """The group for a key made by `group_key`. precision: of what is computed from the phases on."""
    kind = _ThroughHsv if key[4] in ("hue", "saturation") else _KINDS[key[0]]
    group = kind(key, items, effects, heads)
    if precision is not np.float64:
        group.set_precision(precision)
    return group
