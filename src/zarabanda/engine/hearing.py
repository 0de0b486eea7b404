"""What picture layers hear: the sound of the song that plays, or of the line input."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from zarabanda.core.pixels.figures import Heard
from zarabanda.media_folder import MEDIA
from zarabanda.sound.media import Media
from zarabanda.sound.spectrum import Spectrum

from .line_in import HeardLine

SILENCE = Heard()


@dataclass(frozen=True, eq=False)
class Sounds:
    """Spectra of the sounds of songs, by the number of their timeline; and the line input, which is heard as it comes."""

    songs: Mapping[int, Spectrum] = field(default_factory=dict)
    line: HeardLine = field(default_factory=HeardLine)

    def heard(self, song: tuple[int, float] | None, how: Mapping[str, Any], t: float) -> Heard:
        """What a layer hears at t. song: which plays, and how far its time is behind; how: values of the layer's settings."""
        if how["hears"] == "line":
            return Heard(self.line.at(t, how["fall_s"]), self.line.at(t, how["fall_s"], how["hold_s"]))
        spectrum = self.songs.get(song[0]) if song is not None else None
        if spectrum is None or song is None:
            return SILENCE
        position = t - song[1]
        return Heard(spectrum.at(position, how["fall_s"]), spectrum.at(position, how["fall_s"], how["hold_s"]))


class SoundMaker:
    """Reads spectra, each once. media: the folder; None: there is none; line: what is heard of the line input."""

    def __init__(self, media: Path | None, line: HeardLine | None = None) -> None:
        self._line = line or HeardLine()
        self._media = Media(media) if media is not None else None
        self._known: dict[str, Spectrum] = {}

    def made(self, hashes: Mapping[int, str]) -> Sounds:
        """Of the sounds of songs; what is not there, or broken, is silent."""
        found = {}
        for number, hash_ in hashes.items():
            if hash_ not in self._known and self._media is not None and self._media.has(hash_):
                try:
                    self._known[hash_] = Spectrum.of(self._media.path(hash_))
                except Exception:  # a broken file was told of where it was given
                    continue
            if hash_ in self._known:
                found[number] = self._known[hash_]
        return Sounds(found, self._line)


def media_of(data: Path) -> Path:
    """The media folder of a data folder."""
    return data / MEDIA
