"""Figures: what a picture layer draws, as a value 0…1 and how much it covers 0…1 (docs/computation.md, "Pixels").

A new figure is one function and one entry of the table.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness

from .noise import octaves, smooth
from .places import Points, away, rest
from .settings import EDGES, POINT, Setting, Values, choice, degrees, share, whole

Singles = NDArray[np.floating[Any]]
Drawn = tuple[Singles, Singles]
"""Value and cover, (P,) each."""


@dataclass(frozen=True)
class Heard:
    """What figures hear: levels of bands of the sound, from low to high, 0…1, as they have fallen since; and their peaks."""

    bands: Singles = field(default_factory=lambda: np.zeros(32, np.float32))
    peaks: Singles = field(default_factory=lambda: np.zeros(32, np.float32))


Evaluate = Callable[[Points, float, Values, int, Heard], Drawn]
"""A figure at places, at θ; values of its settings; seed; what is heard."""


@dataclass(frozen=True)
class Figure:
    """A figure. phrase: how its sentence begins, settings in braces; shades: its value is brightness, so that colours that do
    not go by it are shaded by it; grows: it takes how far it has grown by itself; listens: it draws what is heard."""

    label: str
    phrase: str
    evaluate: Evaluate
    settings: tuple[Setting, ...] = ()
    shades: bool = True
    grows: bool = False
    listens: bool = False

    @property
    def has_point(self) -> bool:
        """Whether it is about a point."""
        return POINT[0] in self.settings


def _ones(points: Points) -> Singles:
    return np.ones(len(points.x), np.float32)


def profile(place: Singles, width: float, soft: float, tail: float = 0.0) -> Singles:
    """What covers a pitch of 1 with a bar in its middle, `width` wide, whose edges are soft over that share of half of it; behind
    it, where `place` is less, a tail of this length."""
    off = np.abs(place - np.float32(0.5))
    reach = np.float32(max(width * soft / 2, 1e-4))
    found: Singles = np.clip((width / 2 - off) / reach + (0.5 if soft == 0 else 0.0), 0, 1)
    if tail > 0:
        behind = rest(np.float32(0.5 - width / 2) - place)
        found = np.maximum(found, np.clip(1 - behind / np.float32(tail), 0, 1))
    return found


@lru_cache(maxsize=64)
def _keys(seed: int, count: int) -> NDArray[np.uint64]:
    """What chance is drawn by, of each cell of a canvas, (count,)."""
    return randomness.mixed_key(seed, np.arange(count))


def chance(points: Points, seed: int, cycle: NDArray[np.floating[Any]] | int) -> NDArray[np.float64]:
    """(P,) 0…1, drawn for each cell by its number and a cycle."""
    return randomness.unit_of(_keys(seed, len(points.x)), cycle)


def _even(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    return _ones(points), _ones(points)


def _slope(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """From 0 to 1 along the direction."""
    return np.clip(points.along(how["direction"]), 0, 1), _ones(points)


def _bars(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    place = points.along(how["direction"])
    if how["form"] == "edge":
        edge = np.clip((how["width"] - place) / max(how["soft"], 1e-4) + 0.5, 0, 1).astype(np.float32)
        return edge, edge
    found = profile(rest(place * how["number"]), how["width"], how["soft"], how["tail"])
    return found, found


def _squares(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """Fields in turn of value 0 and 1, each covered by a square of this share of its sides."""
    x, y = points.x / points.w * how["columns"], points.y / points.h * how["rows"]
    column, row = np.floor(x), np.floor(y)
    off = np.maximum(np.abs(x - column - 0.5), np.abs(y - row - 0.5))
    return rest(column + row, 2), (off <= how["share"] / 2).astype(np.float32)


def _rings(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """So many rings from the point to the farthest corner, each in the middle of its pitch."""
    x, y = how["across"] * points.w, how["down"] * points.h
    farthest = max(np.hypot(x - a, y - b) for a in (0, points.w) for b in (0, points.h))
    far = away(points.x - x, points.y - y) / np.float32(farthest)
    found = profile(rest(far * how["number"] - (points.outward or 0.0) % 1), how["width"], how["soft"])
    return found, found


def _rays(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """So many rays about the point, the first to the right."""
    angle = np.arctan2(points.y - how["down"] * points.h, points.x - how["across"] * points.w) / np.float32(2 * np.pi)
    found = profile(rest(angle * how["number"] + 0.5), how["width"], how["soft"])
    return found, found


def _haze(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """Noise that changes with θ, its middle half stretched over 0…1."""
    scale = 1 / max(how["scale"], 0.01)
    found = octaves(points.x * scale, points.y * scale, theta, how["coarseness"], seed)
    return np.clip((found - 0.25) * 2, 0, 1), _ones(points)


def _flames(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """Noise that rises with θ and bends with the wind; heat = noise + 1 − up / height, less ½, where up is 0 at the bottom."""
    scale, height = 1 / max(how["scale"], 0.01), max(how["height"], 0.01)
    up = (points.h - points.y) / np.float32(points.h)
    bent = points.x - how["wind"] * up * points.w
    rising = octaves(bent * scale, points.y * scale * 0.6 + theta % 65_536, theta / 2, how["coarseness"], seed)
    heat = np.clip(0.9 * rising + 1.05 * (1 - up / height) - 0.25, 0, 1) * np.clip(2 * (1 - up / (height * 1.5)), 0, 1)
    return heat, smooth(np.clip(heat * 1.8, 0, 1))


def _glints(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """Each cell lights in a cycle of its own by the chance of the density, rises in `attack` of it and fades in `decay`."""
    own = theta + chance(points, seed, -1)
    cycle = np.floor(own)
    place, lit = own - cycle, chance(points, seed, cycle) < how["density"]
    attack, decay = max(how["attack"], 1e-4), max(how["decay"], 1e-4)
    level = np.minimum(place / attack, np.clip(1 - (place - attack) / decay, 0, 1))
    value = chance(points, seed + 1, cycle)
    return value.astype(np.float32), (level * lit).astype(np.float32)


def _gathering(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """Cells light one by one, until all have; then all stand for the pause."""
    cycle = int(np.floor(theta))
    place = (theta - cycle) / max(1 - how["pause"], 1e-3)
    rank = chance(points, seed, cycle)
    attack = max(how["attack"], 1e-4)
    level = np.clip((place * (1 + attack) - rank) / attack, 0, 1)
    return rank.astype(np.float32), level.astype(np.float32)


def _level(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """Full from the beginning of the direction to the level of the bands heard; the peak as a line."""
    low, high = sorted((how["lowest"], how["highest"]))
    chosen = slice(int(low * 31), int(high * 31) + 1)
    level, peak = (float(one[chosen].max(initial=0)) for one in (heard.bands, heard.peaks))
    place = points.along(how["direction"])
    cover = (place <= level * how["gain"]).astype(np.float32)
    return np.clip(place, 0, 1), _with_peak(cover, place, np.float32(peak * how["gain"]), how["peaks"])


def _bands(points: Points, theta: float, how: Values, seed: int, heard: Heard) -> Drawn:
    """A column for each band, from low on the left to high on the right."""
    number = how["number"]
    column = np.clip(np.floor(points.x / points.w * number), 0, number - 1)
    which = np.minimum((column * 32 / number).astype(np.int32), 31)
    up = (points.h - points.y) / np.float32(points.h)
    cover = (up <= heard.bands[which] * how["gain"]).astype(np.float32)
    return np.clip(up, 0, 1), _with_peak(cover, up, heard.peaks[which] * how["gain"], how["peaks"])


def _with_peak(cover: Singles, place: Singles, peak: Singles | np.float32, wide: float) -> Singles:
    if wide <= 0:
        return cover
    return np.maximum(cover, ((place <= peak) & (place > peak - wide) & (peak > wide)).astype(np.float32))


_DIRECTION = degrees("direction", "Direction", 0.0)
_UP = degrees("direction", "Direction", -90.0)
_SCALE, _COARSENESS = share("scale", "Scale", 0.3, 2.0, 0.02), share("coarseness", "Coarseness", 0.5)
_GAIN = share("gain", "Range", 1.0, 4.0, 0.1)
_PEAKS = share("peaks", "Peak line", 0.0, 0.3)
_HEARS = choice("hears", "Hears", "song", {"song": "the song", "line": "the line input, as it comes"})
_FALL = Setting("fall_s", "Fall time", 0.4, 0.05, 5.0, "s")
_HOLD = Setting("hold_s", "Peak hold", 0.8, 0.0, 10.0, "s")

FIGURES: dict[str, Figure] = {
    "even": Figure("even", "An even light", _even),
    "slope": Figure("slope", "A slope at {direction}", _slope, (_DIRECTION,)),
    "bars": Figure(
        "bars", "{form}, {number} of them, at {direction}, {width} wide, edges {soft} soft, with a tail of {tail},", _bars,
        (whole("number", "Number", 3, 1, 64), choice("form", "Form", "bars", {"bars": "Bars", "edge": "An edge"}), _DIRECTION,
         *EDGES, share("tail", "Tail", 0.0)),
    ),
    "squares": Figure(
        "squares", "Squares, {columns} across and {rows} down, {share} of each,", _squares,
        (whole("columns", "Across", 8, 1, 128), whole("rows", "Down", 4, 1, 128), share("share", "Share", 1.0, low=0.05)),
        shades=False,
    ),
    "rings": Figure(
        "rings", "Rings, {number} at once, about {across} across, {down} down, {width} wide, {soft} soft,", _rings,
        (whole("number", "Number", 3, 1, 32), *POINT, *EDGES), grows=True,
    ),
    "rays": Figure(
        "rays", "Rays, {number} of them, about {across} across, {down} down, {width} wide, {soft} soft,", _rays,
        (whole("number", "Number", 6, 1, 64), *POINT, *EDGES),
    ),
    "haze": Figure("haze", "A haze, {scale} large and {coarseness} coarse,", _haze, (_SCALE, _COARSENESS)),
    "flames": Figure(
        "flames", "Flames, {height} high and {scale} large, {coarseness} coarse, in a wind of {wind},", _flames,
        (share("height", "Height", 0.8, 2.0, 0.05), _SCALE, _COARSENESS, share("wind", "Wind", 0.0, 2.0, -2.0)),
    ),
    "glints": Figure(
        "glints", "Glints of {density} of the cells, rising in {attack} and fading in {decay},", _glints,
        (share("density", "Density", 0.3), share("attack", "Attack", 0.05), share("decay", "Decay", 0.5)), shades=False,
    ),
    "gathering": Figure(
        "gathering", "Cells gather one by one, each in {attack}, and stand for {pause},", _gathering,
        (share("attack", "Attack", 0.05), share("pause", "Pause", 0.25, 0.95)), shades=False,
    ),
    "level": Figure(
        "level",
        "The level of {hears} from {lowest} to {highest} of its bands, at {direction}, range {gain}, falling in {fall_s}, "
        "peaks {peaks} for {hold_s},",
        _level,
        (share("lowest", "Lowest band", 0.0), share("highest", "Highest band", 1.0), _HEARS, _UP, _GAIN, _FALL, _PEAKS, _HOLD),
        listens=True,
    ),
    "bands": Figure(
        "bands", "Bands, {number} of them, of {hears}, range {gain}, falling in {fall_s}, peaks {peaks} for {hold_s},", _bands,
        (whole("number", "Number", 8, 1, 32), _HEARS, _GAIN, _FALL, _PEAKS, _HOLD), listens=True,
    ),
}  # fmt: skip
"""All figures with a formula, by name. Those that are drawn are in `drawings`."""
