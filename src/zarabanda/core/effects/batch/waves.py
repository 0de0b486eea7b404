"""Waveforms: levels added to the base, or between two values."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness
from zarabanda.core.colour import spaces as colour
from zarabanda.core.effects import waveforms
from zarabanda.core.effects.batch.elements import Batch, Chosen, Floats, InCycle, Phases, Turns
from zarabanda.core.effects.batch.pieces import BatchKey, Piece, Pieces
from zarabanda.core.effects.effect import Anchor, Waveform
from zarabanda.core.rig import attributes

Keys = NDArray[np.uint64]


def form_of(piece: Piece) -> Waveform:
    """The waveform of a piece of a batch of waveforms."""
    form = piece.block.layer.form
    assert isinstance(form, Waveform)
    return form


class WaveBatch(Batch):
    """Waveforms: the level w of each element."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        self.shape = key.form if isinstance(key.form, str) else "curve"
        self.form = form_of(pieces.first)
        self.duty = pieces.of_block(lambda piece: form_of(piece).duty)
        self.softness = pieces.of_block(lambda piece: form_of(piece).softness)
        self.always = bool((self.duty >= 1).all())
        self.random = self.shape in waveforms.RANDOM_SHAPES
        if self.shape == "curve":
            self.curve = waveforms.curve(self.form.points, self.form.smooth)
        self.mixed_key = np.zeros(0, np.uint64)
        if self.random:
            seed = pieces.of_block(lambda piece: piece.effect.seed, exact=True).astype(np.int64)
            self.mixed_key = randomness.mixed_key(seed, pieces.each(lambda piece: piece.block.key))
        self._flat_steps = self.shape == "steps" and self.always and not self.softness.any()
        self._last: InCycle | None = None
        self._drawn = np.zeros(0)
        self.target = pieces.target(lambda piece: attributes.INDEX[piece.block.layer.attribute])
        self.level = np.zeros(0)

    def _compute(self, phases: Phases) -> None:
        if self._flat_steps and self.how == "ripple":
            self.active = None
            self.level = self._remembered(self.in_cycle(phases, phases.raw))
            return
        if self.how != "many":
            turns = self._turns(phases, self.random)
            self.active = turns.active
            self.level = self._level(turns, self.duty, self.softness, self.mixed_key)
            return
        many = self._many_turns(phases)
        count = len(many.p)
        assert many.active is not None
        assert many.cycle is not None
        flat = Turns(many.p.ravel(), None, many.cycle.ravel(), many.p.ravel())
        duty, softness = np.tile(self.duty, count), np.tile(self.softness, count)
        level = self._level(flat, duty, softness, np.tile(self.mixed_key, count)).reshape(many.p.shape)
        self.active = np.asarray(many.active.any(axis=0))
        self.level = np.where(self.active, np.where(many.active, level, -np.inf).max(axis=0), 0.0)

    def _level(self, turns: Turns, duty: Floats, softness: Floats, mixed: Keys) -> Floats:
        p = turns.q if self.random and turns.q is not None else turns.p
        if self.shape == "soft":
            return waveforms.soft_square(p, duty, softness)
        inside = p if self.always else p / duty
        if self.random:
            level = self._random_level(inside, turns.cycle, softness, mixed)  # type: ignore[arg-type]
        elif self.shape == "curve":
            level = self.curve(inside)
        else:
            level = waveforms.SHAPES[self.shape].value(inside)
        if self.always:
            return level
        return np.where(p < duty, level, waveforms.rest_level(self.shape, self.form.points))

    def _random_level(self, p: Floats, cycle: Floats, softness: Floats, mixed: Keys) -> Floats:
        now = self._unit(mixed, cycle)
        if self.shape == "noise":
            return waveforms.noise_level(p, now, self._unit(mixed, cycle + 1))
        return waveforms.steps_level(p, softness, self._unit(mixed, cycle - 1), now)

    def _unit(self, mixed: Keys, cycle: Floats) -> Floats:
        return randomness.unit_of(mixed, cycle).astype(self.precision, copy=False)

    def _remembered(self, place: InCycle) -> Floats:
        """Levels of random cycles, drawn anew only where the cycle is another than when last asked."""
        last, self._last = self._last, place
        if last is None:
            self._drawn = self._unit(self.mixed_key, self.cycle_of(place))
            return self._drawn
        if last.whole.tobytes() == place.whole.tobytes():
            (new,) = (last.behind != place.behind).nonzero()
        else:
            (new,) = (self.cycle_of(last) != self.cycle_of(place)).nonzero()
        if len(new):
            self._drawn[new] = randomness.unit_of(self.mixed_key[new], self.cycle_of(place, new))
        return self._drawn


_GAIN = {"centred": 1.0, "above": 1.0, "below": -1.0}
_SHIFT = {"centred": -0.5, "above": 0.0, "below": 0.0}
"""How many depths the level is scaled by, and moved by, for each relation to the base."""


def anchor_of(piece: Piece) -> Anchor:
    """How a piece is related to the base."""
    return piece.block.layer.anchor


class Adding(WaveBatch):
    """Centred, above and below: depth times the level is added to the base."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        self.gain = pieces.of_block(lambda piece: _GAIN[anchor_of(piece).kind] * anchor_of(piece).depth)
        self.shift = pieces.of_block(lambda piece: _SHIFT[anchor_of(piece).kind] * anchor_of(piece).depth)
        self.result = np.zeros(0)

    def _compute(self, phases: Phases) -> None:
        super()._compute(phases)
        strength = self.strength(depth=True)
        self.result = self.gain * self.level
        self.result += self.shift
        if strength is not None:
            self.result *= strength

    def act(self, values: Floats, chosen: Chosen) -> None:
        values[self.place(chosen)] += self.result[chosen]


class Between(WaveBatch):
    """Between two values: the base gives way to low + (high − low)·w by the weight. At rest: low."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        self.circle = key.on in ("circle", "hue")
        self.low = pieces.of_block(lambda piece: anchor_of(piece).low)
        self.span = pieces.of_block(lambda piece: anchor_of(piece).high - anchor_of(piece).low)
        if self.circle:
            around = (self.span < 0) | (self.span > 360)
            self.span = np.where(around, self.span % 360, self.span)
        self.result = np.zeros(0)

    def _compute(self, phases: Phases) -> None:
        super()._compute(phases)
        level = self.level if self.active is None else self.level * self.active
        if not self.even_depth:
            level = 0.5 + self.depth * (level - 0.5)
        self.result = self.low + self.span * level

    def act(self, values: Floats, chosen: Chosen) -> None:
        target, result = self.place(chosen), self.result[chosen]
        if not self.at_full:
            base, weight = values[target], self.weight[chosen]
            result = base + weight * (colour.hue_step(base, result) if self.circle else result - base)
        values[target] = result
