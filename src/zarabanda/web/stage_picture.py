"""A small picture of a stage as it is lit, from the front: by which a show is known again."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.baking.stage_drawing import as_png, drawn
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.frames import HEAD, HEADER_BYTES, FrameWriter
from zarabanda.messages import Frame, ShowUpdate
from zarabanda.show import compile as compiling
from zarabanda.show.store import Store

_FIRST_LEVEL = 45.0


def stage_picture(rig: Rig, frame: Frame | None) -> bytes:
    """A PNG of the heads of a rig where they stand, as they were lit last: beams, and cells as they are."""
    return as_png(drawn(rig, _states(frame, len(rig))))


def first_picture(store: Store) -> bytes | None:
    """The same of a show that was never open: every light at home, in its own colour, a little bright; None: it has no light."""
    with store.reading() as session:
        rig = Compiler().take(ShowUpdate("picture", 1, compiling.all_parts(session), whole=True)).rig
    if not len(rig):
        return None
    values = rig.home.copy()
    values[attributes.INTENSITY] = np.where(rig.led, 100, _FIRST_LEVEL)
    return as_png(drawn(rig, FrameWriter(rig).states(values)))


def _states(frame: Frame | None, count: int) -> NDArray[np.void]:
    states = np.zeros(count, HEAD)
    if frame is not None:
        there = np.frombuffer(frame.data, HEAD, min(count, (len(frame.data) - HEADER_BYTES) // HEAD.itemsize), HEADER_BYTES)
        states[: len(there)] = there
    return states
