"""Sounds in the media folder of a show, each beside its outline."""

from __future__ import annotations

import contextlib
import os
import tempfile
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.errors import ZarabandaError
from zarabanda.media_folder import MediaFolder

from .outline import Outline, outline_of

MOST_BYTES, MOST_SECONDS = 3 << 30, 4 * 3600.0
KINDS = {
    "WAV": "audio/wav",
    "WAVEX": "audio/wav",
    "RF64": "audio/wav",
    "FLAC": "audio/flac",
    "OGG": "audio/ogg",
    "MP3": "audio/mpeg",
}
"""Formats that can be used, by the name that libsndfile gives them, and what a browser calls them."""
_SILENT = 1e-4


@dataclass(frozen=True)
class SoundFile:
    """A sound: hash of the file, its name as it was given, length in s, and what it is. silent: nothing can be heard in it."""

    hash: str
    name: str
    seconds: float
    channels: int
    rate: int
    silent: bool


class Media(MediaFolder):
    """Sounds in the folder, each beside its outline."""

    what = "sound"
    remedy = "Give the song its file again."

    def keep(self, name: str, chunks: Iterable[bytes]) -> SoundFile:
        """Take in a file. ZarabandaError says what is wrong with it; then nothing is kept."""
        return self.take_in(name, chunks, MOST_BYTES, "Save it as FLAC, OGG or MP3, or cut it.", self._looked_at)

    def _looked_at(self, path: Path, hash_: str, name: str) -> SoundFile:
        """What a file is, read to its end; its outline is written down on the way."""
        with opened(path, name) as file:
            if file.format not in KINDS:
                raise ZarabandaError(f"“{name}” is {file.format}. Use WAV, FLAC, OGG or MP3.", "file")
            if file.frames / file.samplerate > MOST_SECONDS:
                raise ZarabandaError(f"“{name}” is longer than {MOST_SECONDS / 3600:g} h. Cut it into songs.", "file")
            try:
                outline = outline_of(file.blocks(1 << 16, dtype="float32", always_2d=True), file.samplerate)
            except RuntimeError as error:
                raise ZarabandaError(f"“{name}” is damaged: {error}. Export it anew.", "file") from error
            if not outline.seconds:
                raise ZarabandaError(f"“{name}” has no sound in it. Choose another file.", "file")
            outline.write(self.folder / f"{hash_}.outline")
            return SoundFile(
                hash_, name, outline.seconds, file.channels, file.samplerate, outline.loudest < _SILENT
            )  # fmt: skip

    def outline(self, hash_: str) -> Outline:
        """The outline of a sound; made anew where it is gone."""
        path = self.path(hash_)
        kept = path.with_name(f"{hash_}.outline")
        with contextlib.suppress(OSError, ValueError):
            return Outline.read(kept)
        self._looked_at(path, hash_, "the sound")
        return Outline.read(kept)

    def kind(self, hash_: str) -> str:
        """What a browser calls the format of a sound."""
        with opened(self.path(hash_), "the sound") as file:
            return KINDS.get(file.format, "application/octet-stream")

    def write(self, name: str, samples: NDArray[np.int16], rate: int) -> SoundFile:
        """Keep sound that the program has made itself, as FLAC. samples (frames, channels)."""
        import soundfile

        self.folder.mkdir(parents=True, exist_ok=True)
        handle, temporary = tempfile.mkstemp(dir=self.folder, prefix=".incoming-", suffix=".flac")
        os.close(handle)
        try:
            soundfile.write(temporary, samples, rate, format="FLAC", subtype="PCM_16")
            with open(temporary, "rb") as file:
                return self.keep(name, iter(lambda: file.read(1 << 20), b""))
        finally:
            with contextlib.suppress(OSError):
                os.unlink(temporary)


def opened(path: Path, name: str) -> Any:
    """A sound file, open. ZarabandaError where it is none."""
    import soundfile  # loads the codecs: only where sound is used

    try:
        return soundfile.SoundFile(str(path))
    except (soundfile.LibsndfileError, RuntimeError, OSError) as error:
        raise ZarabandaError(
            f"“{name}” cannot be read as sound. Use a WAV, FLAC, OGG or MP3 file that is whole.", "file"
        ) from error
