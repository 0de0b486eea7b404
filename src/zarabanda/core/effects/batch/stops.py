"""Stops: lists of numbers or colours that a cycle goes through."""

from __future__ import annotations

import numpy as np

from zarabanda.core.colour import spaces as colour
from zarabanda.core.effects import stops
from zarabanda.core.effects.batch.elements import Batch, Chosen, Floats, Ints, Phases, put_rows, rows_at
from zarabanda.core.effects.batch.pieces import BatchKey, Piece, Pieces
from zarabanda.core.effects.effect import Stops
from zarabanda.core.rig import attributes


def _own_stops(piece: Piece) -> Floats:
    """What each head of a piece goes to, where stops go to palettes."""
    assert piece.block.stop_values is not None
    return piece.block.stop_values


class _StopsBatch(Batch):
    """Which stop each element goes to, and how far it is on the way from the one before."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        assert isinstance(key.form, Stops)
        self.form, every = key.form, key.form.stops
        times = stops.stop_times([s.travel for s in every], [s.hold for s in every], [s.ease for s in every])
        self.times = times.in_precision(pieces.precision)
        self.to, self.way = np.zeros(0, np.int64), np.zeros(0)
        self.goes_to_palettes = pieces.first.block.stop_values is not None
        self.own = pieces.each(_own_stops) if self.goes_to_palettes else np.zeros((len(self.row), 0, 0))
        """(n, stops, attributes): where each head goes at each stop, NaN for the base; empty where all go to the same."""

    def _compute(self, phases: Phases) -> None:
        turns = self._latest_turn(phases)
        self.active = turns.active
        self.to, self.way = stops.stop_at(self.times, turns.p)

    def own_at(self, stop: Ints, chosen: Chosen, base: Floats) -> Floats:
        """What the chosen heads go to at these stops, (m, attributes). base: the same shape."""
        own = self.own[np.arange(len(self.row))[chosen], stop]
        return np.where(np.isnan(own), base, own)


class NumberStops(_StopsBatch):
    """Stops with numbers: value = fixed + share · base, mixed in by the weight while the head is active."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        every = self.form.stops
        self.circle, self.long_way = key.on in ("circle", "hue"), self.form.long_way
        self.fixed = pieces.table(np.array([stop.value if isinstance(stop.value, float) else 0.0 for stop in every]))
        self.share = pieces.table(np.array([1.0 if stop.relative or stop.value is None else 0.0 for stop in every]))
        self.relative = np.array([stop.relative for stop in every])
        self.target = pieces.target(lambda piece: attributes.INDEX[piece.block.layer.attribute])

    def mixed(self, base: Floats, chosen: Chosen) -> Floats:
        """The values that the base gives way to, at full weight."""
        to, way = self.to[chosen], self.way[chosen]
        left = to - 1  # the one before the first is the last
        start, end = self.fixed[left] + self.share[left] * base, self.fixed[to] + self.share[to] * base
        if self.goes_to_palettes:  # a relative number stays relative to the base
            relative, column = self.relative, base[:, None]
            start = np.where(relative[left], start, self.own_at(left, chosen, column)[:, 0])
            end = np.where(relative[to], end, self.own_at(to, chosen, column)[:, 0])
        return start + way * (colour.hue_step(start, end, self.long_way) if self.circle else end - start)

    def act(self, values: Floats, chosen: Chosen) -> None:
        target = self.target[chosen]
        base = values[target]
        step = self.mixed(base, chosen)
        step = colour.hue_step(base, step, self.long_way) if self.circle else step - base
        strength = self.strength()
        values[target] = base + (step if strength is None else strength[chosen] * step)


class ColourStops(_StopsBatch):
    """Stops with colours, mixed in the effect's colour space; a stop may be the base colour itself."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        every = self.form.stops
        self.space = colour.SPACES[key.space]
        colours = np.array([stop.value if isinstance(stop.value, tuple) else (0.0, 0.0, 0.0) for stop in every])
        self.is_base = np.array([stop.value is None for stop in every])
        self.has_base = bool(self.is_base.any())
        # ways between fixed colours are known before: by the stop that a head goes to, (3, stops)
        begin, step = self.space.way(np.roll(colours, 1, axis=0), colours)
        self.colours = pieces.table(colours)
        self.begin, self.step = (pieces.table(np.ascontiguousarray(array.T)) for array in (begin, step))
        self.target, self.stride = pieces.target(attributes.RED), pieces.copies.heads

    def act(self, values: Floats, chosen: Chosen) -> None:
        place = self.place(chosen)
        strength = self.strength()
        base = rows_at(values, place, self.stride)
        drives = self._mixed(base, chosen)
        if strength is not None:
            drives = base + strength[chosen] * (drives - base)
        put_rows(values, place, self.stride, drives)

    def _mixed(self, planes: Floats, chosen: Chosen) -> Floats:
        """Planes (3, m) of drives at full weight. planes: those of the base."""
        to, way = self.to[chosen], self.way[chosen]
        if not self.has_base and not self.goes_to_palettes:
            at = self.step.take(to, axis=1, mode="clip")
            at *= way
            at += self.begin.take(to, axis=1, mode="clip")
            return self.space.to_rgb(at)
        left, base = to - 1, planes.T  # the one before the first is the last
        if self.goes_to_palettes:
            start, end = self.own_at(left, chosen, base), self.own_at(to, chosen, base)
        else:
            start = np.where(self.is_base[left][:, None], base, self.colours[left])
            end = np.where(self.is_base[to][:, None], base, self.colours[to])
        return self.space(start, end, way)


class PositionStops(_StopsBatch):
    """Stops with kept positions, or the base: pan and tilt go straight from one to the next."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        self.target = pieces.target(attributes.PAN)
        self.to_tilt = (attributes.TILT - attributes.PAN) * pieces.copies.heads

    def act(self, values: Floats, chosen: Chosen) -> None:
        if not self.goes_to_palettes:
            return  # from the base to the base
        pan, to, way = self.target[chosen], self.to[chosen], self.way[chosen]
        base = np.stack([values[pan], values[pan + self.to_tilt]], axis=-1)
        start, end = self.own_at(to - 1, chosen, base), self.own_at(to, chosen, base)
        step = start + (end - start) * way[:, None] - base
        strength = self.strength()
        if strength is not None:
            step *= strength[chosen][:, None]
        values[pan] += step[:, 0]
        values[pan + self.to_tilt] += step[:, 1]
