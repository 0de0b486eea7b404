"""Moving thumbnails: a strip of small pictures one beside another, drawn by the code that draws the light."""

from __future__ import annotations

import io
from collections.abc import Callable, Sequence
from functools import lru_cache

import numpy as np

from zarabanda.core.pixels.canvas import on_grid
from zarabanda.core.pixels.colouring import Colouring
from zarabanda.core.pixels.figures import Heard
from zarabanda.core.pixels.layers import EVERY_FIGURE, Layer, Moment, Painter
from zarabanda.core.pixels.places import MOTIONS
from zarabanda.core.pixels.settings import filled
from zarabanda.engine.live.pixels import run
from zarabanda.engine.pixels import LayerSpeed, MadeLayer
from zarabanda.formats.pixel_edit import new_layer
from zarabanda.pictures.lettering import Letters

FRAMES = 24
"""Pictures of a strip."""
_SECONDS, _BEATS_PER_SECOND = 4.0, 2.0
"""So long a strip of a stack lasts, at 120 BPM."""
_GREY = Colouring("value", ((0.06, 0.055, 0.05), (0.94, 0.9, 0.85)))


def png(frames: Sequence[np.ndarray], columns: int, rows: int) -> bytes:
    """A strip of drives (3, C) each."""
    from PIL import Image

    every = np.concatenate([one.reshape(3, rows, columns) for one in frames], axis=2)
    image = Image.fromarray(np.round(np.clip(every, 0, 1) * 255).astype(np.uint8).transpose(1, 2, 0).copy())
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()


def stack_strip(layers: Sequence[MadeLayer], columns: int, rows: int) -> bytes:
    """Layers over black, as they are in the first 4 s at 120 BPM."""
    painter = Painter(on_grid(np.arange(columns * rows), columns, rows))
    frames = []
    for n in range(FRAMES):
        seconds = n * _SECONDS / FRAMES
        frames.append(painter.over_black((one.layer, _moment(one.speed, seconds, _heard(n))) for one in layers))
    return png(frames, columns, rows)


def _moment(speed: LayerSpeed, seconds: float, heard: Heard) -> Moment:
    theta = seconds / speed.seconds if speed.kind == "time" else seconds * _BEATS_PER_SECOND * speed.cycles_per_beat
    return Moment(run(theta, speed.run), seconds, heard)


def _cycle(layer: Layer, columns: int, rows: int) -> bytes:
    """One cycle of a layer."""
    painter = Painter(on_grid(np.arange(columns * rows), columns, rows))
    frames = []
    for n in range(FRAMES):
        rgb, cover = painter.drawn(layer, Moment(n / FRAMES, n / FRAMES, _heard(n)), np.ones((3, columns * rows), np.float32))
        frames.append(np.float32(0.05) + cover * (rgb - np.float32(0.05)))
    return png(frames, columns, rows)


def _heard(n: int) -> Heard:
    """Something like music, for thumbnails of what listens."""
    bands = 0.35 + 0.3 * np.sin(np.arange(32) * 0.7 + 2 * np.pi * n / FRAMES) + 0.25 * np.cos(4 * np.pi * n / FRAMES)
    return Heard(np.clip(bands, 0, 1).astype(np.float32), np.clip(bands + 0.1, 0, 1).astype(np.float32))


def _figure(name: str) -> Layer:
    document = new_layer(name)
    source = Letters("AB", 700) if name == "letters" else _Waves() if name in ("picture", "film") else None
    motion, values = document.motion, document.motion_settings
    if name in ("haze", "flames", "even", "slope", "squares", "glints", "gathering", "level", "bands"):
        motion, values = "still", {}
    if name == "letters":
        motion, values = "still", {}
    colouring = _GREY if name not in ("glints", "gathering") else Colouring("value", ((0.94, 0.9, 0.85),))
    if name in ("picture", "film"):
        colouring = Colouring("own")
    return Layer(name, document.settings, motion, values, colouring, source=source)


class _Waves:
    """Stands for a picture or film in thumbnails: hills that move."""

    def at(self, seconds: float, cycle: float) -> np.ndarray:
        y, x = np.mgrid[0:24, 0:60].astype(np.float32)
        hills = 12 + 5 * np.sin(x / 9 + 2 * np.pi * cycle) + 3 * np.sin(x / 5 - 2 * np.pi * cycle)
        shade = np.where(y > hills, 0.35 + 0.2 * (y - hills) / 12, 0.85).astype(np.float32)
        return np.stack([shade, shade * 0.97, shade * 0.92, np.ones_like(shade)])


def _motion(name: str) -> Layer:
    values = filled(MOTIONS[name].settings, {})
    if name == "travel":
        values["direction"] = 0.0
    how = filled(EVERY_FIGURE["bars"].settings, {"number": 1, "width": 0.25, "soft": 0.8})
    if name in ("grow", "drift", "bounce"):
        how = filled(EVERY_FIGURE["bodies"].settings, {"number": 1, "size": 0.6})
        return Layer("bodies", how, name, values, Colouring("value", ((0.94, 0.9, 0.85),)))
    return Layer("bars", how, name, values, _GREY)


def _over(name: str) -> Layer:
    stops = ((0.1, 0.7, 0.8), (0.5, 0.2, 1.0), (1.0, 0.4, 0.2))
    how = filled(EVERY_FIGURE["bars"].settings, {"number": 3, "width": 0.5, "soft": 1.0})
    travel = filled(MOTIONS["travel"].settings, {})
    if name == "own":
        return Layer("picture", filled(EVERY_FIGURE["picture"].settings, {}), colouring=Colouring("own"), source=_Waves())
    return Layer("bars", how, "travel", travel, Colouring(name, stops))


_TABLES: dict[str, Callable[[str], Layer]] = {"figure": _figure, "motion": _motion, "over": _over}


@lru_cache(maxsize=128)
def table_strip(table: str, name: str, columns: int = 60, rows: int = 24) -> bytes:
    """A strip of an entry of a table: figure, motion or over."""
    return _cycle(_TABLES[table](name), columns, rows)
