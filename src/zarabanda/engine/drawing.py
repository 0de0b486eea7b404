"""The layers of a pixel map as a small picture of their own, at this moment, for whoever looks at its canvas."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from zarabanda.core.pixels.canvas import evenly
from zarabanda.core.pixels.layers import Painter
from zarabanda.messages import CanvasNow

from .live import pixels
from .live.state import LiveState

LONGER = 64
"""Points along the longer side."""


@lru_cache(maxsize=8)
def _painter(width: float, height: float) -> Painter:
    return Painter(evenly(width, height, LONGER))


def drawn_now(state: LiveState, use: pixels.Use, t: float, reference: int) -> CanvasNow:
    """The layers of a map, or of a picture on it, over black at t: with the phases that they have on stage, where they are."""
    stack, whole = pixels.stack_of(state.program, use), state.program.maps.get(use[0])
    if stack is None or whole is None:
        return CanvasNow(reference, 0, 0, b"")
    painter = _painter(whole.wall.canvas.width, whole.wall.canvas.height)
    light = painter.over_black(pixels.moment(state, pixels.as_seen(state, use), one, t) for one in stack.layers)
    points = np.round(np.clip(light, 0, 1) * 255).astype(np.uint8).T
    return CanvasNow(reference, painter.canvas.columns, painter.canvas.rows, points.tobytes())
