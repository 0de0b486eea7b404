"""Waveforms w(p): the form of a layer over one cycle, 0…1 (docs/computation.md, "Waveforms").

One table, one row a shape. All functions take and give float64 arrays of one shape.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

_SNAP = 1e-9
"""A ramp shorter than this part of a cycle is a jump."""
_STRIKE_END = float(np.exp(-5.0))


@dataclass(frozen=True, slots=True)
class Shape:
    """A waveform: its value over the active part of the cycle, and where it rests after that."""

    value: Callable[[Floats], Floats]
    rest: float
    duty: float = 1.0


def _sine(p: Floats) -> Floats:
    angle = p * (2 * np.pi)
    np.sin(angle, out=angle)
    angle *= 0.5
    angle += 0.5
    return angle


def _swell(p: Floats) -> Floats:
    angle = p * (2 * np.pi)
    np.cos(angle, out=angle)
    angle *= -0.5
    angle += 0.5
    return angle


SHAPES: dict[str, Shape] = {
    "sine": Shape(_sine, rest=0.5),
    "swell": Shape(_swell, rest=0.0),
    "triangle": Shape(lambda p: 1 - np.abs(2 * p - 1), rest=0.0),
    "rise": Shape(lambda p: p, rest=0.0),
    "fall": Shape(lambda p: 1 - p, rest=0.0),
    "square": Shape(np.ones_like, rest=0.0, duty=0.5),
    "strike": Shape(lambda p: (np.exp(-5 * p) - _STRIKE_END) / (1 - _STRIKE_END), rest=0.0),
}
"""Shapes that depend on the phase alone. `steps`, `noise` (random) and `curve` (points) are below."""

RANDOM_SHAPES = ("steps", "noise")
ALL_SHAPES: tuple[str, ...] = (*SHAPES, *RANDOM_SHAPES, "curve")


def default_duty(shape: str) -> float:
    """Share of the cycle in which a shape is active when nothing is said: ½ for square, else 1."""
    return SHAPES[shape].duty if shape in SHAPES else 1.0


def rest_level(shape: str, points: Sequence[tuple[float, float]] = ()) -> float:
    """Level after the active part of the cycle: ½ for sine, steps and noise, a curve's first point, else 0."""
    if shape == "curve":
        return points[0][1]
    return 0.5 if shape in RANDOM_SHAPES else SHAPES[shape].rest


def soft_square(p: Floats, duty: Floats, softness: Floats) -> Floats:
    """Square with ramps: up over the first s·d/2 of the cycle, down over the last s·d/2 of the active part."""
    ramp = softness * duty / 2
    level = np.minimum(1.0, np.minimum(p, duty - p) / np.maximum(ramp, _SNAP))
    level = np.where(ramp > _SNAP, level, 1.0)
    return np.where(p < duty, level, 0.0)


def steps_level(p: Floats, softness: Floats, previous: Floats, level: Floats) -> Floats:
    """Random steps: over the first `softness` of the cycle on the way from the previous level to the new one."""
    way = np.where(softness > _SNAP, np.minimum(p / np.maximum(softness, _SNAP), 1.0), 1.0)
    return previous + (level - previous) * way


def noise_level(p: Floats, level: Floats, following: Floats) -> Floats:
    """Value noise: the cubic 3x² − 2x³ from this cycle's random level to the next one's."""
    return level + (following - level) * (p * p * (3 - 2 * p))


def curve(points: Sequence[tuple[float, float]], smooth: bool) -> Callable[[Floats], Floats]:
    """User's points over the cycle, joined by lines or by a monotone cubic (PCHIP: no overshoot).

    points: at least one (phase 0…1, level 0…1), phases rising; before the first and after the last the level holds.
    """
    x = np.array([point[0] for point in points])
    y = np.array([round(point[1], 12) for point in points])  # steps finer than that break the slopes
    if not smooth or len(points) < 3:
        return lambda p: np.asarray(np.interp(p, x, y), p.dtype)
    from scipy.interpolate import PchipInterpolator  # slow to import, and seldom needed

    joined = PchipInterpolator(x, y)
    return lambda p: np.asarray(joined(np.clip(p, x[0], x[-1])), p.dtype)
