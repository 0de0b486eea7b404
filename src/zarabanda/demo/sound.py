"""The sound of the demo's songs, made by the program itself: percussion, bass and chords, the same on every machine."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial

import numpy as np
from numpy.typing import NDArray

from .music import BEATS, Song

RATE = 44_100
_SCALE = (0, 2, 3, 5, 7, 8, 10)
_TAIL_S = 2.0
Samples = NDArray[np.float32]


def _time(seconds: float) -> NDArray[np.float64]:
    return np.arange(int(seconds * RATE)) / RATE


def _noise(seconds: float, seed: int) -> NDArray[np.float64]:
    return np.random.default_rng(seed).uniform(-1, 1, int(seconds * RATE))


def _kick() -> Samples:
    t = _time(0.35)
    phase = 2 * np.pi * (48 * t + 110 * (1 - np.exp(-28 * t)) / 28)
    return (0.95 * np.sin(phase) * np.exp(-8 * t)).astype(np.float32)


def _snare(seed: int = 1) -> Samples:
    t = _time(0.22)
    skin = 0.5 * np.sin(2 * np.pi * 190 * t) * np.exp(-26 * t)
    return (0.45 * (_noise(0.22, seed) * np.exp(-22 * t) + skin)).astype(np.float32)


def _hat(open_: bool) -> Samples:
    seconds = 0.22 if open_ else 0.06
    noise = np.diff(_noise(seconds, 2), prepend=0.0)
    return (0.16 * noise * np.exp(-(14 if open_ else 70) * _time(seconds))).astype(np.float32)


def _tom(hertz: float) -> Samples:
    t = _time(0.5)
    modes: NDArray[np.float64] = sum(
        (
            gain * np.sin(2 * np.pi * hertz * ratio * (1 + 0.12 * np.exp(-20 * t)) * t) * np.exp(-decay * t)
            for ratio, gain, decay in ((1.0, 1.0, 7.0), (1.593, 0.5, 11.0), (2.135, 0.3, 15.0))
        ),
        np.zeros(len(t)),
    )
    return (0.32 * modes).astype(np.float32)


def hertz_of(note: float) -> float:
    """Frequency of a MIDI note.

    >>> hertz_of(69)
    440.0
    """
    return float(440 * 2 ** ((note - 69) / 12))


def _tone(note: float, seconds: float, partials: Iterable[tuple[int, float]], attack: float, decay: float) -> Samples:
    t = _time(seconds)
    hertz = hertz_of(note)
    wave = sum(gain * np.sin(2 * np.pi * hertz * n * t + 0.3 * n) for n, gain in partials if hertz * n < RATE / 2)
    envelope = np.minimum(t / attack, 1) * np.exp(-decay * t) * np.minimum((seconds - t) / 0.03, 1)
    return np.asarray(wave * envelope, np.float32)


_SAW = [(n, 1 / n) for n in range(1, 9)]
_SOFT = [(1, 1.0), (2, 0.35), (3, 0.2), (4, 0.08)]
_BELL = [(1, 1.0), (3, 0.4), (5, 0.18), (8, 0.06)]


def _step(root: int, step: int) -> int:
    return root + 12 * (step // 7) + _SCALE[step % 7]


class _Mix:
    """A song as it is put together. Each sound is made once, and laid wherever it is played."""

    def __init__(self, song: Song) -> None:
        self.song = song
        self.samples = np.zeros((int(song.seconds * RATE), 2), np.float32)
        self._made: dict[tuple[object, ...], Samples] = {}

    def play(self, at: float, key: tuple[object, ...], make: Callable[[], Samples], gain: float = 1.0, pan: float = 0.0) -> None:
        """Lay a sound at a position. pan: −1 left to 1 right."""
        sound = self._made.get(key)
        if sound is None:
            sound = self._made[key] = make()
        begin = round(at * RATE)
        end = min(begin + len(sound), len(self.samples))
        for channel, share in ((0, 1 - max(pan, 0)), (1, 1 + min(pan, 0))):
            self.samples[begin:end, channel] += gain * share * sound[: max(end - begin, 0)]


def _drums(mix: _Mix, bar: int, last: bool) -> None:
    at = mix.song.at
    for beat in (1, 2, 3, 4):
        mix.play(at(bar, beat), ("kick",), _kick)
    for beat in (2, 4):
        mix.play(at(bar, beat), ("snare",), _snare, 0.8, 0.1)
    if last:
        for n in range(4):
            mix.play(at(bar, 4 + n / 4), ("snare",), _snare, 0.4 + 0.15 * n, 0.1)


def _hats(mix: _Mix, bar: int, last: bool) -> None:
    for n in range(8):
        mix.play(mix.song.at(bar, 1 + n / 2), ("hat", n % 2), partial(_hat, bool(n % 2)), 0.9 if n % 2 else 0.6, -0.3)


_TOMS = ((1, 110), (1.75, 147), (2.5, 110), (3.25, 196), (3.5, 147), (4.25, 98))


def _toms(mix: _Mix, bar: int, last: bool) -> None:
    for n, (beat, hertz) in enumerate(_TOMS):
        mix.play(mix.song.at(bar, beat), ("tom", hertz), partial(_tom, hertz), 0.9, 0.6 - 0.3 * (n % 5))


def _bass(mix: _Mix, bar: int, last: bool) -> None:
    song = mix.song
    note, beat_s = _step(song.root, song.chords[(bar - 1) % len(song.chords)]), 60 / song.bpm
    for beat, length, higher in ((1, 0.9, 0), (2.5, 0.45, 0), (3, 0.45, 12), (3.5, 0.45, 0), (4.5, 0.45, 7)):
        make = partial(_tone, note + higher, length * beat_s, _SAW, 0.006, 3.0)
        mix.play(song.at(bar, beat), ("bass", note + higher, length), make, 0.34)


def _chords(mix: _Mix, bar: int, last: bool) -> None:
    song = mix.song
    chord = song.chords[(bar - 1) % len(song.chords)]
    for n, third in enumerate((0, 2, 4)):
        for detune, pan in ((-0.06, -0.7), (0.06, 0.7)):
            note = _step(song.root + 24, chord + third) + detune
            make = partial(_tone, note, song.bar_s * 1.05, _SOFT, 0.15, 0.35)
            mix.play(song.at(bar), ("chord", note), make, 0.085, pan * (1 - 0.2 * n))


_TUNE = (0, 4, 7, 4, 2, 4, 9, 7, 4, 2, 0, 4, 7, 9, 11, 7)


def _lead(mix: _Mix, bar: int, last: bool) -> None:
    song = mix.song
    for n in range(8):
        step = _TUNE[(8 * (bar % 2) + n) % len(_TUNE)]
        if n in (3, 6) and bar % 4:
            continue
        note = _step(song.root + 36, step)
        make = partial(_tone, note, 0.9, _BELL, 0.004, 5.0)
        mix.play(song.at(bar, 1 + n / 2), ("lead", note), make, 0.12, 0.5 if n % 2 else -0.5)


PLAYERS: dict[str, Callable[[_Mix, int, bool], None]] = {
    "drums": _drums, "hats": _hats, "toms": _toms, "bass": _bass, "chords": _chords, "lead": _lead,
}  # fmt: skip


def sounding(song: Song) -> NDArray[np.int16]:
    """A song as samples (frames, 2)."""
    mix = _Mix(song)
    for n, section in enumerate(song.sections):
        end = song.ends(n)
        for bar in range(section.bar, end):
            for player in section.plays:
                PLAYERS[player](mix, bar, bar == end - 1)
    loudest = float(np.abs(mix.samples).max(initial=1e-6))
    samples = np.tanh(1.4 * mix.samples / max(loudest, 1.0)) * 0.9
    fade = int(_TAIL_S * RATE)
    samples[-fade:] *= np.linspace(1, 0, fade, dtype=np.float32)[:, None]
    return np.asarray(np.round(samples * 32_000), np.int16)


__all__ = ["BEATS", "PLAYERS", "RATE", "sounding"]
