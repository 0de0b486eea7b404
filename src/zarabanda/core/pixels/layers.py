"""A picture layer on a canvas: its figure, motion, colour and finish put together, at cells."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import gaussian_filter

from .canvas import Canvas
from .colouring import Colouring, brightness
from .drawings import BODIES_RASTER, DRAWINGS, HARD_BELOW_ROWS, Drawing, Source, bodies, cut, looked_up, placed
from .figures import FIGURES, Figure, Heard
from .places import MOTIONS, Points, Rect, folded, in_rect, repeated
from .sampling import MOST, Raster
from .settings import Setting, Values, choice, share, whole

Singles = NDArray[np.floating[Any]]
_KNOWN = 128
_POINTS_A_CELL = 3
"""Across and down, of the raster on which pictures, films and letters are drawn: a cell takes the mean of them."""
EVERY_FIGURE: Mapping[str, Figure | Drawing] = {**FIGURES, **DRAWINGS}
"""All figures by name: with a formula, and drawn."""


@dataclass(frozen=True)
class Finish:
    """What is done to a picture, in this order: repeated, folded, turned (degrees), softened, made crisp, made grey, lifted and
    given contrast (all but turn 0…1; lift and contrast −1…1)."""

    repeat_across: int = 1
    repeat_down: int = 1
    fold: str = "none"
    turn: float = 0.0
    soften: float = 0.0
    crisp: float = 0.0
    grey: float = 0.0
    lift: float = 0.0
    contrast: float = 0.0

    @property
    def needs_raster(self) -> bool:
        """Whether it looks at neighbours."""
        return self.soften > 0 or self.crisp > 0


JOINS: Mapping[str, str] = {
    "over": "lies over", "add": "adds to", "multiply": "multiplies", "lighten": "lightens", "darken": "darkens",
    "cut out": "is cut out of",
}  # fmt: skip
"""How a layer joins what is beneath, in words."""


@dataclass(frozen=True, eq=False)
class Layer:
    """A picture layer. figure, motion: by name, with the values of their settings; opacity 0…1; join: see `JOINS`; source: of
    what has a picture of its own."""

    figure: str
    figure_values: Values
    motion: str = "still"
    motion_values: Values = field(default_factory=dict)
    colouring: Colouring = field(default_factory=Colouring)
    finish: Finish = field(default_factory=Finish)
    rect: Rect = field(default_factory=Rect)
    opacity: float = 1.0
    join: str = "over"
    seed: int = 0
    source: Source | None = None

    @property
    def kind(self) -> Figure | Drawing:
        """Its figure."""
        return EVERY_FIGURE[self.figure]


@dataclass(frozen=True)
class Moment:
    """When a layer is looked at. theta: of its speed, cycles; seconds: since it began, or of the song, for films; heard: what
    figures hear."""

    theta: float
    seconds: float = 0.0
    heard: Heard = field(default_factory=Heard)


@dataclass(frozen=True, eq=False)
class Painter:
    """Draws layers on one canvas; keeps its rasters, and where the cells lie in layers."""

    canvas: Canvas
    _known: dict[tuple[int, int], tuple[Layer, Points, NDArray[np.bool_]]] = field(default_factory=dict)
    _still: dict[int, tuple[Layer, Singles, Singles, Singles]] = field(default_factory=dict)

    @cached_property
    def _cells(self) -> tuple[Singles, Singles]:
        return self.canvas.u, self.canvas.v

    @cached_property
    def _fine(self) -> Raster:
        return Raster(self.canvas, min(MOST, _POINTS_A_CELL * max(self.canvas.columns, self.canvas.rows)))

    @cached_property
    def _coarse(self) -> Raster:
        return Raster(self.canvas, BODIES_RASTER)

    def drawn(self, layer: Layer, now: Moment, base: Singles) -> tuple[Singles, Singles]:
        """Colour (3, C) and cover (C,) of a layer at the cells. base (3, C): colours beneath."""
        planes, cover = self._sampled(layer, now)
        return self._coloured(layer, now, planes, cover, base)

    def _sampled(self, layer: Layer, now: Moment) -> tuple[Singles, Singles]:
        """What a figure has at the cells, (1 or 3, C), and its cover (C,). A picture that stands still is sampled once."""
        pictured = isinstance(layer.kind, Drawing) and layer.kind.has_source
        image = layer.source.at(now.seconds, now.theta) if pictured and layer.source is not None else None
        known = self._still.get(id(layer))
        if image is not None and known is not None and known[0] is layer and known[1] is image:
            return known[2], known[3]
        raster = self._raster_of(layer)
        planes, cover = self._figured(layer, now, image, *(self._cells if raster is None else raster.places))
        if raster is not None:
            if layer.finish.needs_raster:
                planes, cover = _finished(planes, cover, layer.finish, raster.shape)
            sampled = raster.sampled(np.vstack([planes * cover, cover[None]]))
            cover = sampled[-1]
            planes = sampled[:-1] / np.maximum(cover, 1e-6)
        if self._is_hard(layer):
            cover = (cover >= 0.5).astype(np.float32)
        if image is not None and layer.motion == "still":
            if len(self._still) >= _KNOWN:
                self._still.clear()
            self._still[id(layer)] = (layer, image, planes, cover)
        return planes, cover

    def over_black(self, layers: Iterable[tuple[Layer, Moment]]) -> Singles:
        """Drives (3, C) of layers, the lowest first, where nothing is beneath."""
        light = np.zeros((3, len(self.canvas)), np.float32)
        for layer, now in layers:
            rgb, cover = self.drawn(layer, now, np.ones_like(light))
            light = light + cover * np.float32(layer.opacity) * (joined(layer.join, light, rgb) - light)
        return light

    def _raster_of(self, layer: Layer) -> Raster | None:
        if layer.figure in DRAWINGS:
            return self._fine if DRAWINGS[layer.figure].has_source else self._coarse
        return self._coarse if layer.finish.needs_raster else None

    def _is_hard(self, layer: Layer) -> bool:
        if layer.figure != "letters":
            return False
        edges = layer.figure_values["edges"]
        return bool(edges == "hard" or (edges == "by rows" and self.canvas.rows < HARD_BELOW_ROWS))

    def _points(self, layer: Layer, u: Singles, v: Singles) -> tuple[Points, NDArray[np.bool_]]:
        """Places in the picture of a layer, after what moves places, and which lie in its rectangle."""
        known = self._known.get((id(layer), len(u)))
        if known is None:
            finish = layer.finish
            points = in_rect(u, v, (self.canvas.width, self.canvas.height), layer.rect)
            inside = points.inside
            if finish.turn:
                points = points.turned(finish.turn / 360)
            points = repeated(folded(points, finish.fold), finish.repeat_across, finish.repeat_down)
            if len(self._known) >= _KNOWN:
                self._known.clear()
            known = self._known[id(layer), len(u)] = (layer, points, inside)
        return known[1], known[2]

    def _figured(self, layer: Layer, now: Moment, image: Singles | None, u: Singles, v: Singles) -> tuple[Singles, Singles]:
        """The value (1, P) of a figure at places, or the drives (3, P) that it has of its own, and its cover (P,)."""
        kind = layer.kind
        points, inside = self._points(layer, u, v)
        if layer.figure == "bodies":
            value, cover = bodies(points, now.theta, layer.figure_values, layer.motion, layer.motion_values, layer.seed)
        elif isinstance(kind, Figure):
            moved = _moved(layer, points, now.theta)
            moved = moved if kind.grows else moved.grown()
            value, cover = kind.evaluate(moved, now.theta, layer.figure_values, layer.seed, now.heard)
        else:
            own = self._pictured(layer, now, image, points)
            return own[:-1], own[-1] * inside
        return value[None], cover * inside

    def _coloured(
        self, layer: Layer, now: Moment, planes: Singles, cover: Singles, base: Singles
    ) -> tuple[Singles, Singles]:  # fmt: skip
        """Colour (3, C) and cover (C,) for what a figure has at the cells, with the finishes that change colours."""
        finish, colouring = layer.finish, layer.colouring
        if colouring.over == "own" and isinstance(layer.kind, Drawing) and layer.kind.has_source:
            rgb = colouring.own(np.broadcast_to(planes, (3, planes.shape[1])), now.theta, base)
        else:
            value = planes[0] if len(planes) == 1 else brightness(planes)
            rgb = colouring.colours(self._points(layer, *self._cells)[0], value, now.theta, base)
            if layer.kind.shades and colouring.over in ("place", "cycle"):
                cover = cover * value
        if finish.grey:
            rgb = rgb + np.float32(finish.grey) * (brightness(rgb) - rgb)
        if finish.lift or finish.contrast:
            rgb = np.clip((rgb - 0.5) * np.float32(4.0**finish.contrast) + np.float32(0.5 + finish.lift / 2), 0, 1)
        return rgb, cover

    def _pictured(self, layer: Layer, now: Moment, image: Singles | None, points: Points) -> Singles:
        if image is None:
            return np.zeros((4, len(points.x)), np.float32)
        how = layer.figure_values
        if "crop_left" in how:
            image = cut(image, how)
        lies = placed(how, points.w, points.h, (image.shape[1], image.shape[2]))
        extra = max(lies.width - points.w, 0.0) if layer.figure == "letters" else 0.0
        return looked_up(image, _moved(layer, points, now.theta, extra).grown(), lies)


def _moved(layer: Layer, points: Points, theta: float, extra: float = 0.0) -> Points:
    """With the motion; about the figure's own point where it has one. extra: how far letters reach beyond the picture."""
    values = layer.motion_values
    if layer.kind.has_point:
        values = {**values, "across": layer.figure_values["across"], "down": layer.figure_values["down"]}
    if extra > 0:
        wider = Points(points.x, points.y, points.w + extra + 0.2 * points.w, points.h)
        return MOTIONS[layer.motion].move(wider, theta, values, layer.seed)
    return MOTIONS[layer.motion].move(points, theta, values, layer.seed)


def _finished(planes: Singles, cover: Singles, finish: Finish, shape: tuple[int, int]) -> tuple[Singles, Singles]:
    """Softened, and made crisp, on the raster of the canvas."""
    if finish.soften > 0:
        sigma = finish.soften * 0.1 * max(shape)
        every = np.vstack([planes * cover, cover[None]]).reshape(-1, *shape)
        soft = np.stack([gaussian_filter(one, sigma, mode="nearest") for one in every]).reshape(len(every), -1)
        cover = soft[-1]
        planes = soft[:-1] / np.maximum(cover, 1e-6)
    if finish.crisp > 0:
        cover = np.clip((cover - 0.5) * np.float32(1 + 15 * finish.crisp) + np.float32(0.5), 0, 1)
    return planes, cover


def joined(join: str, below: Singles, rgb: Singles) -> Singles:
    """What a colour (3, C) over another comes to, per drive."""
    return _JOINS[join](below, rgb)


_JOINS: Mapping[str, Callable[[Singles, Singles], Singles]] = {
    "over": lambda below, rgb: rgb,
    "add": lambda below, rgb: np.minimum(1, below + rgb),
    "multiply": lambda below, rgb: below * rgb,
    "lighten": np.maximum,
    "darken": np.minimum,
    "cut out": lambda below, rgb: below * (1 - brightness(rgb)),
}

FINISHES: tuple[Setting, ...] = (
    whole("repeat_across", "Repeat across", 1, 1, 32), whole("repeat_down", "Repeat down", 1, 1, 32),
    choice("fold", "Fold", "none", {"none": "not at all", "left to right": "left to right", "top to bottom": "top to bottom",
                                    "both": "both ways"}),
    Setting("turn", "Turn", 0.0, -360.0, 360.0, "°"), share("soften", "Soften", 0.0), share("crisp", "Crisp", 0.0),
    share("grey", "Grey", 0.0), share("lift", "Lift", 0.0, low=-1.0), share("contrast", "Contrast", 0.0, low=-1.0),
)  # fmt: skip
"""All finishes, in the order in which they are done."""
