"""A simulated line: plays a beat, a bass and chords of its own making as RTP, over a line of this machine."""

from __future__ import annotations

import threading
import time
from dataclasses import asdict, dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.errors import ZarabandaError
from zarabanda.protocols import rtp

from .listeners import Listeners

SOUND = "127.0.0.7"
"""Address on which it listens."""
_PACKET = 441
"""Samples of a packet: 10 ms."""
_BARS = 4
_BASS_HZ = (55.0, 65.41, 49.0, 58.27)


@dataclass(frozen=True)
class SoundHow:
    """How it plays: BPM, and its loudness 0…1."""

    bpm: float = 120.0
    loudness: float = 0.8


def beat(bpm: float) -> NDArray[np.float32]:
    """(n,) four bars of a drum, a bass and a high hat, −1…1: the same on every machine."""
    per_beat = round(60 / bpm * rtp.RATE)
    whole = np.zeros(per_beat * 4 * _BARS, np.float64)
    t = np.arange(per_beat) / rtp.RATE
    kick = np.sin(2 * np.pi * (45 * t + 12 * (1 - np.exp(-t * 30)))) * np.exp(-t * 9)
    hiss = np.random.default_rng(7).standard_normal(per_beat)
    hat = np.diff(hiss, prepend=0.0) * np.exp(-t * 60)
    for n in range(4 * _BARS):
        own = whole[n * per_beat : (n + 1) * per_beat]
        own += 0.6 * kick
        own += 0.12 * np.roll(hat, per_beat // 2)
        bass = _BASS_HZ[n // 4 % len(_BASS_HZ)]
        own += 0.2 * np.sign(np.sin(2 * np.pi * bass * t)) * np.minimum(t * 40, 1) * np.exp(-t * 3)
        if n % 2:
            own += 0.25 * hiss * np.exp(-t * 18)
    found: NDArray[np.float32] = (whole / np.abs(whole).max()).astype(np.float32)
    return found


class SoundPlayer:
    """Plays round and round. Who connects hears it."""

    def __init__(self, port: int = 0) -> None:
        self._lock, self._listeners = threading.Lock(), Listeners("simulated line", SOUND, port)
        self.port = self._listeners.port
        self.how, self._runs, self._ended = SoundHow(), False, threading.Event()
        self._sound = beat(self.how.bpm)
        threading.Thread(target=self._play, daemon=True, name="sound player").start()

    def play(self, on: bool) -> None:
        """Play, or send nothing."""
        self._runs = on

    def change(self, given: dict[str, Any]) -> None:
        """Play otherwise from now on."""
        how = replace(self.how, **given)
        if not 40 <= how.bpm <= 240 or not 0 <= how.loudness <= 1:
            raise ZarabandaError("Give a tempo of 40 to 240 BPM, and a loudness of 0 to 100 %.", "bpm")
        sound = beat(how.bpm) if how.bpm != self.how.bpm else self._sound
        with self._lock:
            self.how, self._sound = how, sound

    def status(self) -> dict[str, Any]:
        """How it is."""
        return {"runs": self._runs, "listeners": len(self._listeners), "port": self.port, **asdict(self.how)}

    def close(self) -> None:
        """Play no more."""
        self._ended.set()
        self._listeners.close()

    def _play(self) -> None:
        sent, began = 0, time.monotonic()
        while not self._ended.is_set():
            if not (self._runs and self._listeners):
                self._ended.wait(0.05)
                sent, began = 0, time.monotonic()
                continue
            with self._lock:
                sound, loudness = self._sound, self.how.loudness
            piece = np.take(sound, np.arange(sent * _PACKET, (sent + 1) * _PACKET), mode="wrap")
            self._listeners.send(rtp.packet(piece * loudness, sent, sent * _PACKET, 1))
            sent += 1
            self._ended.wait(max(0.0, began + sent * _PACKET / rtp.RATE - time.monotonic()))
