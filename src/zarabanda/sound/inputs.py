"""Sound inputs of this machine, by PortAudio where that is there."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray

Take = Callable[[NDArray[np.floating[Any]]], None]


def _portaudio() -> Any:
    """The library; None: this machine has none."""
    try:
        import sounddevice
    except (OSError, ImportError):
        return None
    return sounddevice


def sound_inputs() -> list[str]:
    """Names of the inputs that can be heard."""
    library = _portaudio()
    if library is None:
        return []
    try:
        return list(dict.fromkeys(str(one["name"]) for one in library.query_devices() if one["max_input_channels"] > 0))
    except Exception:  # whatever the system's sound raises where there is none
        return []


def sound_input(name: str, take: Take) -> tuple[Any, int]:
    """An input that is heard from now on, and its rate. take: gets samples (n,) −1…1, out of a thread of the library.

    OSError where it is not there, or is in use.
    """
    library = _portaudio()
    if library is None:
        raise OSError("this machine has no PortAudio")

    def came(samples: NDArray[np.floating[Any]], frames: int, time: Any, status: Any) -> None:
        take(samples.mean(axis=1))

    try:
        rate = int(library.query_devices(name, "input")["default_samplerate"])
        stream = library.InputStream(device=name, samplerate=rate, callback=came, blocksize=rate // 50)
        stream.start()
    except Exception as error:
        raise OSError(str(error)) from error
    return stream, rate
