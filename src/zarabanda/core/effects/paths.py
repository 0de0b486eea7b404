"""Paths: closed figures in the plane, for pan and tilt or for metres on the stage (docs/computation.md, "Paths").

A `Figure` gives x and y, (n,) each, for phases p in 0…1. It is scaled to its box and turned already.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Figure = Callable[[Floats], tuple[Floats, Floats]]

PATHS = ("circle", "line", "eight", "polygon", "free")

_GAUSS_X, _GAUSS_W = np.polynomial.legendre.leggauss(6)
_GAUSS_X, _GAUSS_W = (_GAUSS_X + 1) / 2, _GAUSS_W / 2
_PIECES_PER_SEGMENT = 64


@dataclass(frozen=True, slots=True)
class _Outline:
    """A closed outline of cubic segments at constant speed. coefficients: (segments, 4, 2), highest power first."""

    coefficients: Floats
    piece_begin: Floats  # (segments * pieces + 1,) arc length where each piece begins, and the whole length
    segment_begin: Floats  # (segments + 1,)

    def point(self, segment: NDArray[np.int64], u: Floats) -> Floats:
        """Points (n, 2) at parameter u of the segments."""
        c = self.coefficients[segment]
        u = u[:, None]
        result: Floats = ((c[:, 0] * u + c[:, 1]) * u + c[:, 2]) * u + c[:, 3]
        return result

    def speed(self, segment: NDArray[np.int64], u: Floats) -> Floats:
        """Length of the derivative by u, (n,)."""
        c = self.coefficients[segment]
        u = u[:, None]
        d = (3 * c[:, 0] * u + 2 * c[:, 1]) * u + c[:, 2]
        return np.hypot(d[:, 0], d[:, 1])

    def at_length(self, length: Floats) -> Floats:
        """Points (n, 2) at an arc length from the start: the piece by search, then Newton on the length within it."""
        pieces = len(self.piece_begin) - 1
        piece = np.clip(np.searchsorted(self.piece_begin, length, side="right") - 1, 0, pieces - 1)
        segment = piece // _PIECES_PER_SEGMENT
        u0 = (piece % _PIECES_PER_SEGMENT) / _PIECES_PER_SEGMENT
        rest = length - self.piece_begin[piece]
        whole = self.piece_begin[piece + 1] - self.piece_begin[piece]
        step = np.where(whole > 0, rest / np.where(whole > 0, whole, 1), 0) / _PIECES_PER_SEGMENT
        for _ in range(2):
            passed = sum(
                (w * self.speed(segment, u0 + x * step) for x, w in zip(_GAUSS_X, _GAUSS_W, strict=True)),
                np.zeros_like(step),
            )
            speed = self.speed(segment, u0 + step)
            moving = speed > 1e-12
            step = step + np.where(moving, (rest - passed * step) / np.where(moving, speed, 1), 0)
        return self.point(segment, u0 + step)


def _outline(coefficients: Floats) -> _Outline:
    segments = len(coefficients)
    blank = _Outline(coefficients, np.zeros(1), np.zeros(1))
    piece = np.arange(segments * _PIECES_PER_SEGMENT)
    segment, u0 = piece // _PIECES_PER_SEGMENT, (piece % _PIECES_PER_SEGMENT) / _PIECES_PER_SEGMENT
    lengths = sum(
        (w * blank.speed(segment, u0 + x / _PIECES_PER_SEGMENT) for x, w in zip(_GAUSS_X, _GAUSS_W, strict=True)),
        np.zeros(len(piece)),
    )
    begin = np.concatenate([[0.0], np.cumsum(lengths / _PIECES_PER_SEGMENT)])
    return _Outline(coefficients, begin, begin[::_PIECES_PER_SEGMENT])


def _straight(corners: Floats) -> Floats:
    """Coefficients of straight segments from each corner to the next, closed."""
    zero = np.zeros_like(corners)
    return np.stack([zero, zero, np.roll(corners, -1, axis=0) - corners, corners], axis=1)


def _catmull_rom(points: Floats) -> Floats:
    """Coefficients of a closed uniform Catmull–Rom spline through the points."""
    before, after, then = np.roll(points, 1, 0), np.roll(points, -1, 0), np.roll(points, -2, 0)
    return np.stack(
        [
            (-before + 3 * points - 3 * after + then) / 2,
            (2 * before - 5 * points + 4 * after - then) / 2,
            (after - before) / 2,
            points,
        ],
        axis=1,
    )


def _box(coefficients: Floats) -> tuple[Floats, Floats]:
    """Lowest and highest corner (2,) of the closed outline: ends of the segments and the turns within them."""
    candidates = [np.zeros(len(coefficients))]
    for axis in (0, 1):
        a, b, c = 3 * coefficients[:, 0, axis], 2 * coefficients[:, 1, axis], coefficients[:, 2, axis]
        root = np.sqrt(np.maximum(b * b - 4 * a * c, 0))
        with np.errstate(divide="ignore", invalid="ignore", over="ignore"):  # no turn within: clipped below
            candidates += [np.where(a != 0, (-b + sign * root) / (2 * a), -c / b) for sign in (1, -1)]
    u = np.clip(np.nan_to_num(np.stack(candidates), nan=0.0, posinf=0.0, neginf=0.0), 0, 1)[..., None]
    c = coefficients[None]
    points = ((c[:, :, 0] * u + c[:, :, 1]) * u + c[:, :, 2]) * u + c[:, :, 3]
    return points.min(axis=(0, 1)), points.max(axis=(0, 1))


def _fitted(coefficients: Floats, width: float, height: float) -> Floats:
    """The outline moved and scaled so that its bounding box is width × height about the origin."""
    low, high = _box(coefficients)
    extent = high - low
    scale = np.where(extent > 1e-12, np.array([width, height]) / np.where(extent > 1e-12, extent, 1), 0.0)
    fitted = coefficients.copy()
    fitted[:, 3] -= (low + high) / 2
    return fitted * scale


def _travelled(outline: _Outline, p: Floats, dwell: float) -> Floats:
    """Arc length at phase p, with `dwell` of the cycle spent resting at the points, evenly; the rest at one speed."""
    begin = outline.segment_begin
    whole = float(begin[-1])
    if dwell <= 0 or whole <= 0:
        return p * whole
    segments = len(begin) - 1
    knots_p, knots_s = [0.0], [0.0]
    for number in range(segments):
        knots_p.append(knots_p[-1] + dwell / segments)
        knots_s.append(float(begin[number]))
        knots_p.append(knots_p[-1] + (1 - dwell) * float(begin[number + 1] - begin[number]) / whole)
        knots_s.append(float(begin[number + 1]))
    return np.interp(p, knots_p, knots_s)


def _circle(p: Floats, across: float, up: float) -> tuple[Floats, Floats]:
    angle = (2 * np.pi) * p
    return across * np.cos(angle), up * np.sin(angle)


def figure(
    path: str,
    width: float,
    height: float,
    *,
    rotation: float = 0.0,
    corners: int = 4,
    points: Sequence[tuple[float, float]] = (),
    dwell: float = 0.0,
) -> Figure:
    """The figure of a path: a function from phases (n,) to x and y, (n,) each, in the unit of width and height.

    rotation: degrees counter-clockwise, after the fit to the box. corners: of a polygon, 3 or more.
    points: of a free path, 3 or more, in any unit. dwell: 0–0.9, share of the cycle spent resting at the points.
    """
    cos, sin = float(np.cos(np.radians(rotation))), float(np.sin(np.radians(rotation)))

    def turned(x: Floats, y: Floats) -> tuple[Floats, Floats]:
        if rotation == 0:
            return x, y
        return x * cos - y * sin, x * sin + y * cos

    if path == "circle":
        return lambda p: turned(*_circle(p, width / 2, height / 2))
    if path == "line":
        return lambda p: turned(width / 2 * np.sin(2 * np.pi * p), np.zeros_like(p))
    if path == "eight":
        return lambda p: turned(width / 2 * np.sin(2 * np.pi * p), height / 2 * np.sin(4 * np.pi * p))
    if path == "polygon":
        angles = 2 * np.pi * np.arange(corners) / corners
        coefficients = _straight(np.stack([np.cos(angles), np.sin(angles)], axis=1))
    else:
        coefficients = _catmull_rom(np.asarray(points, float))
    outline = _outline(_fitted(coefficients, width, height))

    def at(p: Floats) -> tuple[Floats, Floats]:
        placed = outline.at_length(_travelled(outline, p, dwell))
        return turned(placed[:, 0], placed[:, 1])

    return at
