"""Where cells are in a layer: its rectangle on the canvas, the finishes that move places, and its motion."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from . import noise
from .settings import POINT, Setting, Values, choice, degrees, share

Singles = NDArray[np.floating[Any]]
Bools = NDArray[np.bool_]


def rest(x: Singles, of: float = 1.0) -> Singles:
    """x mod a length, 0…length: what NumPy's own takes far longer for."""
    found: Singles = x - np.float32(of) * np.floor(x * np.float32(1 / of))
    return found


def away(x: Singles, y: Singles) -> Singles:
    """√(x² + y²): sooner than by a function that minds overflow."""
    found: Singles = np.sqrt(x * x + y * y)
    return found


@dataclass(frozen=True)
class Rect:
    """Where a layer lies on the canvas: left, top, width and height as shares of the canvas's own; turn in degrees, clockwise,
    about its middle."""

    left: float = 0.0
    top: float = 0.0
    width: float = 1.0
    height: float = 1.0
    turn: float = 0.0


@dataclass(frozen=True, eq=False)
class Points:
    """Places in a picture that is w wide and h tall, the longer of them 1; x, y (P,), y downwards. outward: how far the picture
    has grown, in cycles, about the point `about`."""

    x: Singles
    y: Singles
    w: float
    h: float
    outward: float | None = None
    about: tuple[float, float] = (0.5, 0.5)

    @property
    def inside(self) -> Bools:
        """Which lie within the picture."""
        return np.asarray((self.x >= 0) & (self.x <= self.w) & (self.y >= 0) & (self.y <= self.h))

    def along(self, degrees_: float) -> Singles:
        """How far each lies in a direction (0°: to the right, 90°: down), 0…1 from end to end of the picture."""
        c, s = _direction(degrees_)
        low, length = self._stretch(c, s)
        return (self.x * c + self.y * s - low) / length

    def _stretch(self, c: float, s: float) -> tuple[float, float]:
        """Where the picture begins in a direction, and its length there."""
        return min(0.0, self.w * c) + min(0.0, self.h * s), abs(self.w * c) + abs(self.h * s)

    def moved(self, degrees_: float, by: float, *, wrap: bool) -> Points:
        """With the picture moved in a direction by a share of its length there; wrap: what leaves comes in at the other end."""
        c, s = _direction(degrees_)
        low, length = self._stretch(c, s)
        if not wrap:
            return replace(self, x=self.x - by * length * c, y=self.y - by * length * s)
        here = self.x * c + self.y * s - low
        way = rest(here - by * length, length) - here
        return replace(self, x=self.x + way * c, y=self.y + way * s)

    def turned(self, cycles: float, across: float = 0.5, down: float = 0.5) -> Points:
        """With the picture turned clockwise about a point."""
        angle = 2 * np.pi * cycles
        c, s = np.float32(np.cos(angle)), np.float32(np.sin(angle))
        x, y = self.x - across * self.w, self.y - down * self.h
        return replace(self, x=x * c + y * s + across * self.w, y=y * c - x * s + down * self.h)

    def grown(self) -> Points:
        """With the picture scaled from 0 to its size in each cycle that it grows, about a point."""
        if self.outward is None:
            return self
        x, y, factor = self.about[0] * self.w, self.about[1] * self.h, max(self.outward % 1, 1e-3)
        return replace(self, x=(self.x - x) / factor + x, y=(self.y - y) / factor + y)


def _direction(degrees_: float) -> tuple[float, float]:
    angle = np.radians(degrees_)
    return round(float(np.cos(angle)), 9), round(float(np.sin(angle)), 9)


def in_rect(u: Singles, v: Singles, canvas: tuple[float, float], rect: Rect) -> Points:
    """Places of a canvas, which is so wide and tall, in a layer's picture."""
    width, height = max(rect.width * canvas[0], 1e-6), max(rect.height * canvas[1], 1e-6)
    x, y = u - rect.left * canvas[0], v - rect.top * canvas[1]
    scale = 1 / max(width, height)
    points = Points(x * np.float32(scale), y * np.float32(scale), width * scale, height * scale)
    return points.turned(rect.turn / 360) if rect.turn else points


# finishes that move places


def folded(points: Points, fold: str) -> Points:
    """The left half (top half) seen in both halves."""
    x = np.minimum(points.x, points.w - points.x) if fold in ("left to right", "both") else points.x
    y = np.minimum(points.y, points.h - points.y) if fold in ("top to bottom", "both") else points.y
    return replace(points, x=x, y=y)


def repeated(points: Points, across: int, down: int) -> Points:
    """So many times the whole picture."""
    x = rest(points.x * across, points.w) if across > 1 else points.x
    y = rest(points.y * down, points.h) if down > 1 else points.y
    return replace(points, x=x, y=y)


# motion

Mover = Callable[[Points, float, Values, int], Points]
"""Places in the picture as it is at θ; values of the motion's settings; seed."""


@dataclass(frozen=True)
class Motion:
    """A way to move: in words, by what it is set, and how. phrase: of its sentence, settings in braces; point: where it moves
    about a point, which is that of the figure where that has one."""

    label: str
    phrase: str
    move: Mover
    settings: tuple[Setting, ...] = ()
    point: str = ""


def there_and_back(theta: float) -> float:
    """0 at whole cycles, 1 half way, straight between."""
    return 1 - abs(1 - 2 * (theta % 1))


def _travel(points: Points, theta: float, how: Values, seed: int) -> Points:
    if how["ends"] == "round":
        return points.moved(how["direction"], theta % 1, wrap=True)
    return points.moved(how["direction"], (there_and_back(theta) - 0.5) * how["reach"], wrap=False)


def _grow(points: Points, theta: float, how: Values, seed: int) -> Points:
    """Rings move outwards by θ; all else is scaled from 0 to its size, see `Points.grown`."""
    return replace(points, outward=theta, about=(how["across"], how["down"]))


def _turn(points: Points, theta: float, how: Values, seed: int) -> Points:
    return points.turned(theta, how["across"], how["down"])


def _drift(points: Points, theta: float, how: Values, seed: int) -> Points:
    x, y = noise.path(theta, seed)
    return replace(points, x=points.x - how["reach"] * x * points.w / 2, y=points.y - how["reach"] * y * points.h / 2)


def _bounce(points: Points, theta: float, how: Values, seed: int) -> Points:
    """A straight line, folded at the edges: across in one cycle, down by the slope of its direction."""
    c, s = _direction(how["direction"])
    x, y = there_and_back(theta * abs(c) + 0.25) - 0.5, there_and_back(theta * abs(s) + 0.25) - 0.5
    return replace(points, x=points.x - how["reach"] * x * points.w, y=points.y - how["reach"] * y * points.h)


_DIRECTION = degrees("direction", "Direction", 0.0)
_REACH = share("reach", "Reach", 0.8, 2.0)
MOTIONS: dict[str, Motion] = {
    "still": Motion("still", "standing still", lambda points, theta, how, seed: points),
    "travel": Motion(
        "travel", "travelling at {direction}, {ends}", _travel,
        (_DIRECTION, choice("ends", "Ends", "round", {"round": "round and round", "back": "there and back"}), _REACH),
    ),
    "grow": Motion("grow", "growing", _grow, POINT, "from"),
    "turn": Motion("turn", "turning", _turn, POINT, "about"),
    "drift": Motion("drift", "drifting by {reach}", _drift, (_REACH,)),
    "bounce": Motion("bounce", "bouncing at {direction}, by {reach}", _bounce, (degrees("direction", "Direction", 37.0), _REACH)),
}  # fmt: skip
"""All motions by name."""
