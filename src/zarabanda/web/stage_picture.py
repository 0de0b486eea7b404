"""A small picture of a stage as it is lit, from the front: by which a show is known again."""

from __future__ import annotations

import io

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.frames import HEAD, HEADER_BYTES, FrameWriter
from zarabanda.messages import Frame, ShowUpdate
from zarabanda.show import compile as compiling
from zarabanda.show.store import Store

WIDTH, HEIGHT = 480, 180
_MARGIN, _BEAM_M, _GROUND, _LAMP, _CELL = 14, 7.0, (11, 9, 7), (58, 52, 45), (24, 21, 18)
_GLOW, _SEEN, _FIRST_LEVEL = 0.45, 6, 45.0
Floats = NDArray[np.float64]


def stage_picture(rig: Rig, frame: Frame | None) -> bytes:
    """A PNG of the heads of a rig where they stand, as they were lit last: beams, and cells as they are."""
    return _drawn(rig, _states(frame, len(rig)))


def first_picture(store: Store) -> bytes | None:
    """The same of a show that was never open: every light at home, in its own colour, a little bright; None: it has no light."""
    with store.reading() as session:
        rig = Compiler().take(ShowUpdate("picture", 1, compiling.all_parts(session), whole=True)).rig
    if not len(rig):
        return None
    values = rig.home.copy()
    values[attributes.INTENSITY] = np.where(rig.led, 100, _FIRST_LEVEL)
    return _drawn(rig, FrameWriter(rig).states(values))


def _drawn(rig: Rig, states: NDArray[np.void]) -> bytes:
    from PIL import Image, ImageChops, ImageDraw

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


def _states(frame: Frame | None, count: int) -> NDArray[np.void]:
    states = np.zeros(count, HEAD)
    if frame is not None:
        there = np.frombuffer(frame.data, HEAD, min(count, (len(frame.data) - HEADER_BYTES) // HEAD.itemsize), HEADER_BYTES)
        states[: len(there)] = there
    return states


def _beam(x: float, y: float, direction: Floats, zoom_deg: float, scale: float) -> list[tuple[float, float]]:
    """A triangle from a head along its beam; straight ahead and down where it has no direction."""
    across, up = (float(direction[0]), float(direction[2])) if direction.any() else (0.0, -1.0)
    length, half = _BEAM_M * scale, np.radians(min(max(zoom_deg, 4.0), 60.0) / 2)
    angle = np.arctan2(-up, across)
    ends = [angle - half, angle + half]
    return [(x, y), *((x + length * float(np.cos(one)), y + length * float(np.sin(one))) for one in ends)]
