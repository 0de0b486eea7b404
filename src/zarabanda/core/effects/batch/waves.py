"""Waveforms: levels added to the base, or between two values."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness
from zarabanda.core.colour import spaces as colour
from zarabanda.core.effects import waveforms
from zarabanda.core.effects.batch.elements import (
    Batch,
    Chosen,
    Floats,
    InCycle,
    Item,
    Phases,
    Turns,
    plain_target,
    spread_over,
)
from zarabanda.core.effects.effect import Effect, Waveform

Keys = NDArray[np.uint64]


class WaveBatch(Batch):
    """Waveforms: the level w of each element."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        self.shape = "curve" if isinstance(key[3], Waveform) else key[3]
        forms = [block.layer.form for _, block, *_ in items]
        self.form: Waveform = forms[0]  # type: ignore[assignment]  # all of this batch are waveforms
        self.duty = spread_over(items, lambda number, block: block.layer.form.duty)  # type: ignore[union-attr]
        self.softness = spread_over(items, lambda number, block: block.layer.form.softness)  # type: ignore[union-attr]
        self.always = bool((self.duty >= 1).all())
        self.random = self.shape in waveforms.RANDOM_SHAPES
        if self.shape == "curve":
            self.curve = waveforms.curve(self.form.points, self.form.smooth)
        self.mixed_key = randomness.mixed_key(self.seed, self.key)
        self._flat_steps = self.shape == "steps" and self.always and not self.softness.any()
        self._last: InCycle | None = None
        self._drawn = np.zeros(0)
        self.target = plain_target(items, heads)
        self.level = np.zeros(0)

    _per_element = (*Batch._per_element, "duty", "softness", "mixed_key")

    @property
    def _idle(self) -> frozenset[str]:
        return super()._idle if self.random else super()._idle | {"mixed_key"}

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

    def forget(self) -> None:
        self._last = None

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


class Adding(WaveBatch):
    """Centred, above and below: depth times the level is added to the base."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        self.gain = spread_over(
            items,
            lambda number, block: -block.layer.anchor.depth if block.layer.anchor.kind == "below" else block.layer.anchor.depth,
        )
        self.shift = spread_over(
            items,
            lambda number, block: -block.layer.anchor.depth / 2 if block.layer.anchor.kind == "centred" else 0.0,
        )
        self.result = np.zeros(0)

    _per_element = (*WaveBatch._per_element, "gain", "shift")

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

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        self.circle = key[4] in ("circle", "hue")
        self.low = spread_over(items, lambda number, block: block.layer.anchor.low)
        high = spread_over(items, lambda number, block: block.layer.anchor.high)
        self.span = high - self.low
        if self.circle:
            around = (self.span < 0) | (self.span > 360)
            self.span = np.where(around, self.span % 360, self.span)
        self.result = np.zeros(0)

    _per_element = (*WaveBatch._per_element, "low", "span")

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
