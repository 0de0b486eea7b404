"""Effects over time: values of heads at many times at once, and the weave (heads × time) made of them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from . import attributes
from .effect import Effect
from .placement import Heads, Placed, place
from .plan import Plan, Running

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Stand:
    """Heads with their ranges and base values, on which an effect is tried. low, high, base: (A, N) natural units."""

    heads: Heads
    low: Floats
    high: Floats
    base: Floats
    mixes: NDArray[np.bool_]


def over_time(effect: Effect, stand: Stand, theta: Floats) -> tuple[Placed, Floats, Floats]:
    """Values of all heads at each θ (T,) in cycles, at full weight.

    Returns the placed effect, values clamped to the heads' ranges (T, A, N), and the same before they are clamped.
    """
    count = len(stand.heads)
    placed = place(effect, np.arange(count), stand.heads)
    plan = Plan([placed], count, stand.mixes).tiled(len(theta))
    values = np.tile(stand.base.ravel(), len(theta))
    ended = (theta >= effect.ends_after) if effect.ends_after > 0 else np.zeros(len(theta), bool)
    plan.apply(values, Running(theta, np.where(ended, 0.0, 1.0)))
    raw = values.reshape(len(theta), attributes.COUNT, count)
    circles = np.flatnonzero([a.circle for a in attributes.ATTRIBUTES])
    raw[:, circles] %= 360
    return placed, np.clip(raw, stand.low, stand.high), raw


def cycle_seconds(effect: Effect, bpm: float) -> float:
    """Seconds of one cycle at a tempo of `bpm` (ignored for an effect in seconds)."""
    if effect.speed.kind == "time":
        return effect.speed.seconds_per_cycle
    return 60 / (bpm * effect.speed.cycles_per_beat)


def theta_at(effect: Effect, seconds: Floats, bpm: float) -> Floats:
    """θ in cycles at times since the effect's start."""
    return seconds / cycle_seconds(effect, bpm)


def appearance(values: Floats, mixes: NDArray[np.bool_], light: Floats) -> Floats:
    """Colours (T, N, 3) as they will look, drive 0…1, of values (T, A, N)."""
    rgb = np.stack([values[:, i] for i in (attributes.RED, attributes.GREEN, attributes.BLUE)], axis=-1)
    rgb = np.where(mixes[None, :, None], rgb, light[None])
    return np.clip(rgb * (values[:, attributes.INTENSITY] / 100)[..., None], 0, 1)


def cut_off(raw: Floats, stand: Stand, layer_attributes: list[str]) -> dict[str, float]:
    """Share (0…1) of time and heads that is outside the range, by plain attribute. raw: (T, A, N) before the clamp."""
    shares = {}
    for name in layer_attributes:
        row = attributes.INDEX[name]
        has = stand.heads.has[row]
        if attributes.BY_NAME[name].circle or not has.any():
            continue
        values = raw[:, row][:, has]
        outside = (values < stand.low[row, has] - 1e-9) | (values > stand.high[row, has] + 1e-9)
        shares[name] = float(outside.mean())
    return shares
