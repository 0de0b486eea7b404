"""Figures that are drawn on a raster, of which each cell takes the mean: bodies, and what has a picture of its own (letters,
pictures, films)."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Protocol

import numpy as np
from numpy.typing import NDArray

from zarabanda.core import randomness

from .places import MOTIONS, Points, away, rest
from .settings import Setting, Values, choice, share, whole

Singles = NDArray[np.floating[Any]]

BODIES_RASTER = 128
"""Points of the raster on which bodies are drawn, along its longer side: edges of a body are soft by one of them."""
_GHOSTS = 4


class Source(Protocol):
    """What has a picture of its own."""

    def at(self, seconds: float, cycle: float) -> Singles | None:
        """(4, H, W) drives of red, green, blue and cover 0…1, the colours not multiplied by the cover; or (2, H, W) a value and
        cover, where it has no colours of its own. `seconds` since it began or of the song, or at a share of its `cycle`. None:
        nothing."""


Shape = Callable[[Singles, Singles, Values], Singles]
"""How far inside a body of radius 1 about 0, 0 places are, ≤ 0: outside."""


def _star(x: Singles, y: Singles, how: Values) -> Singles:
    """Five points; the radius goes straight from 1 at a point to 0.45 between two."""
    place = rest(np.arctan2(x, -y) / np.float32(2 * np.pi) * 5)
    off = np.abs(place - 0.5) * 2
    found: Singles = (0.45 + 0.55 * off) - away(x, y)
    return found


def _outline(x: Singles, y: Singles, how: Values) -> Singles:
    """By the even-odd rule, through the user's points, −1…1."""
    points = np.array(how["outline"], np.float32).reshape(-1, 2)
    inside = np.zeros(len(x), bool)
    for (x0, y0), (x1, y1) in zip(points, np.roll(points, -1, axis=0), strict=True):
        if y0 != y1:
            inside ^= ((y0 > y) != (y1 > y)) & (x < (x1 - x0) * (y - y0) / (y1 - y0) + x0)
    return np.where(inside, np.float32(1), np.float32(-1))


SHAPES: dict[str, Shape] = {
    "dots": lambda x, y, how: 1 - away(x, y),
    "rings": lambda x, y, how: np.float32(0.22) - np.abs(away(x, y) - np.float32(0.78)),
    "stars": _star,
    "squares": lambda x, y, how: np.float32(0.85) - np.maximum(np.abs(x), np.abs(y)),
    "outlines": _outline,
}
"""All shapes of bodies."""
_HEART: tuple[tuple[float, float], ...] = (
    (0.0, -0.5), (0.25, -0.85), (0.65, -0.9), (0.95, -0.55), (0.9, -0.1), (0.5, 0.45), (0.0, 0.9),
    (-0.5, 0.45), (-0.9, -0.1), (-0.95, -0.55), (-0.65, -0.9), (-0.25, -0.85),
)  # fmt: skip
BODIES: tuple[Setting, ...] = (
    whole("number", "Number", 5, 1, 40),
    choice("shape", "Shape", "dots", {name: name.capitalize() if name != "outlines" else "Own outlines" for name in SHAPES}),
    share("size", "Size", 0.25, 2.0, 0.02), share("trail", "Trail", 0.0), Setting("outline", "Outline", _HEART, kind="outline"),
)  # fmt: skip


def bodies(points: Points, theta: float, how: Values, motion: str, motion_values: Values, seed: int) -> tuple[Singles, Singles]:
    """Bodies, each on a way of its own: value is its number, cover the largest of all. A trail shows where each has been."""
    value, cover = np.zeros(len(points.x), np.float32), np.zeros(len(points.x), np.float32)
    radius = max(how["size"], 0.02) * min(points.w, points.h) / 2
    pixel = max(points.w, points.h) / BODIES_RASTER
    number, shape = how["number"], SHAPES[how["shape"]]
    ghosts = [(0.0, 1.0)]
    if how["trail"] > 0:
        ghosts = [(how["trail"] * n / (_GHOSTS + 1) / 2, 1 - n / (_GHOSTS + 1)) for n in range(_GHOSTS + 1)]
    wanders = motion in ("bounce", "drift")
    for n in range(number):
        start = randomness.unit(seed, np.full(3, n), np.arange(3))
        x, y = ((0.5, 0.5) if wanders else (start[0], start[1])) if number > 1 else (0.5, 0.5)
        phase = start[2] if wanders and number > 1 else 0.0
        values = {**motion_values, "direction": motion_values.get("direction", 0.0) + (360 * start[0] if wanders and n else 0.0)}
        for ago, share_ in ghosts:
            here = MOTIONS[motion].move(points, theta - ago + 7 * phase, values, seed + 31 * n).grown()
            inside = shape((here.x - x * points.w) / radius, (here.y - y * points.h) / radius, how)
            found = share_ * np.clip(inside * (radius / pixel) + 0.5, 0, 1)
            value[found > cover] = n / max(number - 1, 1)
            np.maximum(cover, found, out=cover)
    return value, cover


FITS: dict[str, str] = {"whole": "seen whole", "fill": "filling it", "stretch": "stretched"}
_CROP = tuple(share(name, f"Cut off {words}", 0.0, 0.95) for name, words in
              (("crop_left", "left"), ("crop_right", "right"), ("crop_top", "above"), ("crop_bottom", "below")))  # fmt: skip
_MEDIUM = Setting("medium", "File", "", kind="medium")
LETTERS: tuple[Setting, ...] = (
    Setting("text", "Text", "SALT", kind="text", high=200.0), share("size", "Size", 0.9, 2.0, 0.05),
    Setting("weight", "Weight", 700, 200, 800, kind="whole"),
    choice("edges", "Edges", "by rows", {"by rows": "as the canvas allows", "hard": "hard", "smooth": "smooth"}),
)  # fmt: skip
PICTURE: tuple[Setting, ...] = (_MEDIUM, choice("fit", "Fit", "fill", FITS), *_CROP)
FILM: tuple[Setting, ...] = (
    *PICTURE, Setting("in_s", "In point", 0.0, 0.0, 7200.0, "s"), Setting("out_s", "Out point", 0.0, 0.0, 7200.0, "s"),
    choice("clock", "Runs", "time", {"time": "by time", "cycle": "by the tempo", "song": "by the song"}),
    choice("ends", "At its end", "loop", {"loop": "again and again", "hold": "stands at its end", "dark": "goes dark"}),
)  # fmt: skip
HARD_BELOW_ROWS = 16
"""On canvases of fewer rows than this, letters have hard edges unless said otherwise."""


@dataclass(frozen=True)
class Placed:
    """Where a picture lies in a layer's: left, top, width, height in the layer's lengths."""

    left: float
    top: float
    width: float
    height: float


def placed(how: Values, w: float, h: float, image: tuple[int, int]) -> Placed:
    """A picture of so many rows and columns in one that is w wide and h tall."""
    aspect = image[1] / image[0]
    if "text" in how:
        height = how["size"] * h
        width = height * aspect
        return Placed(max((w - width) / 2, 0.0), (h - height) / 2, width, height)
    if how["fit"] == "stretch":
        return Placed(0.0, 0.0, w, h)
    wide = w / h > aspect
    width = w if wide == (how["fit"] == "fill") else h * aspect
    height = width / aspect
    return Placed((w - width) / 2, (h - height) / 2, width, height)


def cut(image: Singles, how: Values) -> Singles:
    """Without what is cut off."""
    rows, columns = image.shape[1:]
    left, right = int(how["crop_left"] * columns), columns - int(how["crop_right"] * columns)
    top, bottom = int(how["crop_top"] * rows), rows - int(how["crop_bottom"] * rows)
    return image[:, top : max(bottom, top + 1), left : max(right, left + 1)] if left < columns and top < rows else image


def looked_up(image: Singles, points: Points, lies: Placed) -> Singles:
    """What a picture (2 or 4, H, W) has at places, (2 or 4, P): of the pixel in which each is; nothing outside."""
    rows, columns = image.shape[1:]
    x = np.floor((points.x - lies.left) * np.float32(columns / lies.width)).astype(np.int32)
    y = np.floor((points.y - lies.top) * np.float32(rows / lies.height)).astype(np.int32)
    column, row = np.minimum(np.maximum(x, 0), columns - 1), np.minimum(np.maximum(y, 0), rows - 1)
    at = row * columns + column
    found: Singles = np.empty((len(image), len(at)), np.float32)
    for plane, own in zip(image.reshape(len(image), -1), found, strict=True):
        np.take(plane, at, out=own, mode="clip")
    found[-1] *= (column == x) & (row == y)
    return found


@dataclass(frozen=True)
class Drawing:
    """A figure that is drawn. phrase: of its sentence; has_source: it has a picture of its own."""

    label: str
    phrase: str
    settings: Sequence[Setting]
    has_source: bool = True
    shades: bool = True
    grows: bool = False
    listens: bool = False
    has_point: bool = False


DRAWINGS: dict[str, Drawing] = {
    "bodies": Drawing(
        "bodies",
        "{shape}, {number} of them, {size} of the height, with a trail of {trail},",
        BODIES,
        has_source=False,
        shades=False,
    ),
    "letters": Drawing("letters", "The letters {text}, {size} of the height, weight {weight}, edges {edges},", LETTERS),
    "picture": Drawing("picture", "The picture {medium}, {fit},", PICTURE),
    "film": Drawing("film", "The film {medium}, {fit}, from {in_s} to {out_s}, {clock}, {ends},", FILM),
}
"""All figures that are drawn, by name."""
