"""A simulated player of timecode: sends MTC over a line of this machine, as badly as it is asked to."""

from __future__ import annotations

import random
import threading
import time
from dataclasses import asdict, dataclass, replace
from typing import Any

from zarabanda.core.timecode import smpte
from zarabanda.errors import ZarabandaError
from zarabanda.protocols import mtc

from .listeners import Listeners

PLAYER = "127.0.0.6"
"""Address on which it listens."""


@dataclass(frozen=True)
class Playing:
    """How it plays. rate: of its labels; says: the rate that it claims, empty: that one; speed: times as fast; jitter_ms: each
    piece comes so much earlier or later at the most; dropout: share of pieces that are lost, 0…1; second: another player on the
    same line, so many s ahead; None: none."""

    rate: str = "25"
    says: str = ""
    speed: float = 1.0
    jitter_ms: float = 0.0
    dropout: float = 0.0
    second: float | None = None


class TimecodePlayer:
    """Plays labels from where it is. Who connects hears it."""

    def __init__(self, port: int = 0) -> None:
        self._lock, self._listeners = threading.Lock(), Listeners("timecode player", PLAYER, port)
        self.port = self._listeners.port
        self.how, self._runs, self._frames, self._at = Playing(), False, 0.0, 0.0
        self._random, self._ended, self._piece = random.Random(1), threading.Event(), 0
        self._frames = float(smpte.read("01:00:00:00", smpte.RATES["25"]))
        threading.Thread(target=self._play, daemon=True, name="timecode player").start()

    @property
    def rate(self) -> smpte.Rate:
        """Of its labels."""
        return smpte.RATES[self.how.rate]

    def now(self) -> float:
        """Where it is, frames from 00:00:00:00 on."""
        with self._lock:
            return self._now()

    def _now(self) -> float:
        if not self._runs:
            return self._frames
        return self._frames + (time.monotonic() - self._at) * self.how.speed * float(self.rate.per_second)

    def play(self, on: bool) -> None:
        """Run, or stand: then it tells where as a whole label."""
        with self._lock:
            self._frames, self._at, self._runs = self._now(), time.monotonic(), on
            self._piece = 0
        if not on:
            self._tell_whole()

    def locate(self, label: str) -> None:
        """Go elsewhere. ZarabandaError where that is no label."""
        frame = smpte.read(label, self.rate)
        with self._lock:
            self._frames, self._at = float(frame), time.monotonic()
        self._tell_whole()

    def change(self, how: Playing) -> None:
        """Play otherwise from now on; a label of another rate is the same time."""
        if how.rate not in smpte.RATES or (how.says and how.says not in smpte.RATES):
            raise ZarabandaError(f"There is no rate {how.rate!r}; use one of {', '.join(smpte.RATES)}.", "rate")
        if not -4 <= how.speed <= 4 or not 0 <= how.jitter_ms <= 200 or not 0 <= how.dropout <= 1:
            raise ZarabandaError("Give a speed of −4 to 4, a jitter of 0 to 200 ms, dropouts of 0 to 100 %.", "speed")
        with self._lock:
            seconds = self._now() / float(self.rate.per_second)
            self.how = how
            self._frames, self._at = seconds * float(self.rate.per_second), time.monotonic()

    def status(self) -> dict[str, Any]:
        """How it is."""
        label = smpte.text(smpte.label_of(int(max(self.now(), 0)), self.rate), self.rate)
        return {"label": label, "runs": self._runs, "listeners": len(self._listeners), "port": self.port, **asdict(self.how)}

    def close(self) -> None:
        """Play no more."""
        self._ended.set()
        self._listeners.close()

    def _code(self) -> int:
        return mtc.code_of(smpte.RATES[self.how.says or self.how.rate])

    def _tell_whole(self) -> None:
        self._listeners.send(mtc.full_frame(smpte.label_of(int(max(self.now(), 0)), self.rate), self._code()))

    def _play(self) -> None:
        """Piece after piece, each when it is due, with what goes wrong."""
        last, quarter = 0.0, -1
        while not self._ended.is_set():
            if not self._runs or self.how.speed == 0:
                quarter = -1
                time.sleep(0.005)
                continue
            with self._lock:
                here = self._now() * mtc.PER_FRAME
            if quarter < 0 or abs(here - quarter) > 2 * mtc.PIECES:
                quarter = int(here) + 1
            wait = (quarter - here) / (mtc.PER_FRAME * float(self.rate.per_second) * abs(self.how.speed))
            wait *= 1 if self.how.speed > 0 else -1
            due = time.monotonic() + wait + self._random.uniform(-1, 1) * self.how.jitter_ms / 1000
            while (pause := max(due, last) - time.monotonic()) > 0 and self._runs:
                time.sleep(min(pause, 0.01))
            last = max(due, last)
            if self._random.random() >= self.how.dropout:
                self._listeners.send(self._quarter(quarter))
                if self.how.second is not None:
                    ahead = round(self.how.second * float(self.rate.per_second)) * mtc.PER_FRAME + 3
                    self._listeners.send(self._quarter(quarter + ahead))
            quarter += 1 if self.how.speed > 0 else -1

    def _quarter(self, quarter: int) -> bytes:
        """The piece that is due at a quarter frame. A label takes two frames: it is of the even one with which they begin."""
        piece = quarter % mtc.PIECES
        frame = max(quarter // mtc.PIECES * 2, 0)
        return mtc.quarter_frame(smpte.label_of(frame, self.rate), self._code(), piece)


def changed(player: TimecodePlayer, given: dict[str, Any]) -> None:
    """With other settings of how it plays."""
    player.change(replace(player.how, **given))
