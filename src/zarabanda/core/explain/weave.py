"""Effects over time: values of heads at many times at once, and the weave (heads × time) made of them."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from math import lcm

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.effect import Effect, Waveform
from zarabanda.core.effects.placement import Placed, place
from zarabanda.core.effects.waveforms import RANDOM_SHAPES
from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class HeadSet:
    """Heads with their ranges and base values, on which an effect is tried. low, high, base: (A, N) natural units.

    led: (N,) share 0…1 of its level that the fixture of a cell leaves it; None: all of it.
    """

    heads: Heads
    low: Floats
    high: Floats
    base: Floats
    mixes: NDArray[np.bool_]
    led: Floats | None = None


@dataclass(frozen=True)
class Woven:
    """An effect on a head set at several times. theta: (T,) cycles; values: (T, A, N) natural units, clamped to the heads'
    ranges; raw: the same before they are clamped."""

    effect: Effect
    head_set: HeadSet
    placed: Placed
    theta: Floats
    values: Floats
    raw: Floats
    _batches: Batches
    _running: Running

    def phases(self) -> dict[int, Floats]:
        """Where each layer's heads are in their cycles, (T, N) 0…1 by layer number; NaN at rest, and where it does not act."""
        found: dict[int, Floats] = {}
        size = len(self.theta) * len(self.head_set.heads)
        for numbers, who, p in self._batches.where(self._running):
            for number in np.unique(numbers):
                own = found.setdefault(int(number), np.full(size, np.nan))
                mine = numbers == number
                own[who[mine]] = p[mine]
        return {number: own.reshape(len(self.theta), -1) for number, own in found.items()}


def over_time(
    effect: Effect,
    head_set: HeadSet,
    theta: Floats,
    precision: DTypeLike = np.float64,
    *,
    placed: Placed | None = None,
) -> Woven:
    """The effect at each θ (T,) in cycles, at full weight. precision: float32 is enough for pictures.

    placed: the effect on this head_set, where it is known.
    """
    count = len(head_set.heads)
    placed = placed or place(effect, np.arange(count), head_set.heads)
    batches = Batches([placed], count, head_set.mixes, precision, copies=len(theta))
    raw = np.empty((len(theta), attributes.COUNT, count), precision)
    raw[:] = head_set.base
    values = raw.reshape(-1)
    ended = (theta >= effect.ends_after) if effect.ends_after > 0 else np.zeros(len(theta), bool)
    running = Running(theta, np.where(ended, 0.0, 1.0))
    batches.apply(values, running)
    clamped = np.empty_like(raw)
    clamped[:] = np.clip(head_set.base, head_set.low, head_set.high)
    for row in np.flatnonzero(batches.touched.any(axis=1)):
        own = raw[:, row]
        if attributes.ATTRIBUTES[row].circle:
            own %= 360
        clamped[:, row] = np.clip(own, head_set.low[row], head_set.high[row])
    return Woven(effect, head_set, placed, theta, clamped, raw, batches, running)


def moved(effect: Effect, head_set: HeadSet) -> list[str]:
    """Plain attributes that an effect moves on these heads; hue and saturation by red, green and blue where those are mixed."""
    names: dict[str, None] = {}
    for layer in effect.layers:
        if layer.muted:
            continue
        names |= dict.fromkeys(attributes.touched(layer.attribute))
        if layer.attribute in ("hue", "saturation") and head_set.mixes.any():
            names |= dict.fromkeys(attributes.COMPOUND["colour"])
    return [name for name in names if head_set.heads.has[attributes.INDEX[name]].any()]


def cycle_seconds(effect: Effect, bpm: float) -> float:
    """Seconds of one cycle at a tempo of `bpm` (ignored for an effect in seconds)."""
    if effect.speed.kind == "time":
        return effect.speed.seconds_per_cycle
    return 60 / (bpm * effect.speed.cycles_per_beat)


def repeats(effect: Effect) -> bool:
    """Whether one stretch of cycles is like the next: no random form, no drift, no shuffled turns."""
    every = [layer.spread or effect.spread for layer in effect.layers]
    random = any(isinstance(layer.form, Waveform) and layer.form.shape in RANDOM_SHAPES for layer in effect.layers)
    return not (random or effect.drifts or any(s.kind == "relay" and s.order == "shuffled" for s in every))


def closing_cycles(effect: Effect, placed: Placed, most: float = 64.0) -> float:
    """Cycles of θ after which the effect is where it began; the longest period of a layer where that is beyond `most`.

    A layer's period is 1/ratio in a ripple, a circuit in a relay; running back and forth takes two cycles.
    """
    periods = [Fraction(2) if effect.run == "back-and-forth" else Fraction(1)]
    for block in placed.blocks:
        turns = block.circuit if block.is_relay and block.spread.speed_counts == "turns" else 1.0
        periods.append(Fraction(turns / block.layer.ratio).limit_denominator(256))
    closing = periods[0]
    for period in periods[1:]:
        closing = Fraction(lcm(closing.numerator * period.denominator, period.numerator * closing.denominator),
                           closing.denominator * period.denominator)  # fmt: skip
    return float(closing) if closing <= most else min(float(max(periods)), most)


def theta_at(effect: Effect, seconds: Floats, bpm: float) -> Floats:
    """θ in cycles at times since the effect's start."""
    return seconds / cycle_seconds(effect, bpm)


def appearance(values: Floats, mixes: NDArray[np.bool_], light: Floats, led: Floats | None = None) -> Floats:
    """Planes (T, 3, N) of red, green and blue as they will look, drive 0…1, of values (T, A, N). light: (N, 3); led: as in
    `HeadSet`."""
    rgb = values[:, attributes.RED : attributes.BLUE + 1]
    if not mixes.all():
        rgb = np.where(mixes, rgb, light.T)
    level = values[:, attributes.INTENSITY] / 100
    look: Floats = rgb * (level if led is None else level * led)[:, None]
    return np.clip(look, 0, 1, out=look)


def cut_off(raw: Floats, head_set: HeadSet, layer_attributes: list[str]) -> dict[str, float]:
    """Share (0…1) of time and heads that is outside the range, by plain attribute. raw: (T, A, N) before the clamp."""
    shares = {}
    for name in layer_attributes:
        row = attributes.INDEX[name]
        has = head_set.heads.has[row]
        if attributes.BY_NAME[name].circle or not has.any():
            continue
        values = raw[:, row][:, has]
        outside = (values < head_set.low[row, has] - 1e-9) | (values > head_set.high[row, has] + 1e-9)
        shares[name] = float(outside.mean())
    return shares
