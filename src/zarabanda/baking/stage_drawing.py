"""The stage as it is lit, drawn small, from the front: beams, and cells as they are."""

from __future__ import annotations

import io

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageChops, ImageDraw

from zarabanda.core.rig.rig import Rig

WIDTH, HEIGHT = 480, 180
_MARGIN, _BEAM_M, _GROUND, _LAMP, _CELL = 14, 7.0, (11, 9, 7), (58, 52, 45), (24, 21, 18)
_GLOW, _SEEN = 0.45, 6
Floats = NDArray[np.float64]


def drawn(rig: Rig, states: NDArray[np.void]) -> Image.Image:
    """A picture of the heads of a rig where they stand, seen from the front. states: as `engine.frames` makes them."""
    image = Image.new("RGB", (WIDTH, HEIGHT), _GROUND)
    places = rig.heads.places
    if len(places):
        points, scale = _placed(places)
        draw = ImageDraw.Draw(image)
        for (x, y), key in zip(points, rig.heads.keys, strict=True):
            draw.rectangle((x - 1, y - 1, x + 1, y + 1), fill=_CELL if "." in key else _LAMP)
        for (x, y), one, key in zip(points, states, rig.heads.keys, strict=True):
            colour = tuple(map(int, one["colour"]))
            if max(colour) < _SEEN:
                continue
            if "." in key:  # a cell
                draw.rectangle((x - 2, y - 2, x + 2, y + 2), fill=colour)
                continue
            direction = one["direction"] / 32767
            beam = Image.new("RGB", image.size)
            glow = tuple(int(c * _GLOW) for c in colour)
            ImageDraw.Draw(beam).polygon(_beam(x, y, direction, one["zoom"] / 100, scale), fill=glow)
            image = ImageChops.add(image, beam)
            draw = ImageDraw.Draw(image)
            draw.ellipse((x - 2, y - 2, x + 2, y + 2), fill=colour)
    return image


def as_png(image: Image.Image) -> bytes:
    """As a PNG."""
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()


def _placed(places: Floats) -> tuple[list[tuple[float, float]], float]:
    """Where each head is in the picture, and pixels a metre."""
    x, z = places[:, 0], places[:, 2]
    wide, tall = max(np.ptp(x), 1.0), max(z.max() - min(z.min(), 0.0), 1.0)
    scale = min((WIDTH - 2 * _MARGIN) / wide, (HEIGHT - 2 * _MARGIN) / tall)
    left = WIDTH / 2 - scale * (x.min() + x.max()) / 2
    floor = HEIGHT - _MARGIN + scale * min(z.min(), 0.0)
    return [(left + scale * one, floor - scale * up) for one, up in zip(x, z, strict=True)], float(scale)


def _beam(x: float, y: float, direction: Floats, zoom_deg: float, scale: float) -> list[tuple[float, float]]:
    """A triangle from a head along its beam; straight ahead and down where it has no direction."""
    across, up = (float(direction[0]), float(direction[2])) if direction.any() else (0.0, -1.0)
    length, half = _BEAM_M * scale, np.radians(min(max(zoom_deg, 4.0), 60.0) / 2)
    angle = np.arctan2(-up, across)
    ends = [angle - half, angle + half]
    return [(x, y), *((x + length * float(np.cos(one)), y + length * float(np.sin(one))) for one in ends)]
