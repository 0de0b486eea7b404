"""What was baked as moving pictures of the stage: an animated GIF, or a film (MP4)."""

from __future__ import annotations

import io
from collections.abc import Iterator
from fractions import Fraction
from typing import IO

import av
import numpy as np
from PIL import Image

from zarabanda.engine.frames import FrameWriter
from zarabanda.errors import ZarabandaError

from .sources import Playing, Progress, even
from .stage_drawing import HEIGHT, WIDTH, drawn

GIF_RATE, FILM_RATE = 15.0, 25
LONGEST_GIF_S, LONGEST_FILM_S = 30.0, 600.0


def _pictures(playing: Playing, seconds: float, rate: float, progress: Progress) -> Iterator[Image.Image]:
    times = even(seconds, rate)[:-1]
    writer = FrameWriter(playing.rig)
    for n, (_, values) in enumerate(playing.every(times)):
        progress(n / len(times))
        yield drawn(playing.rig, writer.states(values))


def gif(playing: Playing, seconds: float, progress: Progress) -> bytes:
    """An animated GIF that goes round, 15 pictures a second. ZarabandaError where it is too long."""
    _not_longer(seconds, LONGEST_GIF_S, "GIF")
    pictures = [one.quantize(128, dither=Image.Dither.NONE) for one in _pictures(playing, seconds, GIF_RATE, progress)]
    out = io.BytesIO()
    pictures[0].save(
        out, "GIF", save_all=True, append_images=pictures[1:], duration=round(1000 / GIF_RATE), loop=0, optimize=False
    )
    return out.getvalue()


def film(playing: Playing, seconds: float, file: IO[bytes], progress: Progress) -> None:
    """An MP4 into a file that can be sought in, 25 pictures a second. ZarabandaError where it is too long."""
    _not_longer(seconds, LONGEST_FILM_S, "film")
    with av.open(file, "w", format="mp4") as container:
        stream = container.add_stream("libx264", rate=Fraction(FILM_RATE))
        stream.pix_fmt = "yuv420p"
        stream.width, stream.height = WIDTH, HEIGHT
        for one in _pictures(playing, seconds, FILM_RATE, progress):
            for packet in stream.encode(av.VideoFrame.from_ndarray(np.asarray(one), format="rgb24")):
                container.mux(packet)
        for packet in stream.encode():
            container.mux(packet)


def _not_longer(seconds: float, most: float, what: str) -> None:
    if seconds > most:
        raise ZarabandaError(f"A {what} can be {most:g} s long, and this is {seconds:.4g} s. Choose less time.", "seconds")
