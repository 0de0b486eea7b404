"""Labels of timecode by SMPTE ST 12-1, in integers: 24, 25, 29.97 (drop-frame or not) and 30 frames a second."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from zarabanda.errors import ZarabandaError, shown

HOURS = 24
_LABEL = re.compile(r"^(\d{1,2}):(\d{1,2}):(\d{1,2})[:;.](\d{1,2})$")


@dataclass(frozen=True)
class Rate:
    """A frame rate. counted: labels in a second; per_second: real frames in a second; drop: labels 0 and 1 of each minute that is
    no tenth are left out."""

    name: str
    counted: int
    per_second: Fraction
    drop: bool = False

    @property
    def per_day(self) -> int:
        """Labels in 24 h."""
        return self.counted * 3600 * HOURS - (2 * 9 * 6 * HOURS if self.drop else 0)


_NTSC = Fraction(30000, 1001)
RATES = {
    one.name: one
    for one in (
        Rate("24", 24, Fraction(24)), Rate("25", 25, Fraction(25)), Rate("29.97", 30, _NTSC),
        Rate("29.97 drop", 30, _NTSC, drop=True), Rate("30", 30, Fraction(30)),
    )
}  # fmt: skip
"""All rates by name."""


@dataclass(frozen=True)
class Label:
    """Hours, minutes, seconds, frames."""

    hours: int
    minutes: int
    seconds: int
    frames: int


def label_of(frame: int, rate: Rate) -> Label:
    """The label of a frame, counted from 00:00:00:00 on; after 24 h it begins anew.

    >>> label_of(1800, RATES["29.97 drop"]), label_of(17982, RATES["29.97 drop"])
    (Label(hours=0, minutes=1, seconds=0, frames=2), Label(hours=0, minutes=10, seconds=0, frames=0))
    """
    frame %= rate.per_day
    if rate.drop:
        tens, rest = divmod(frame, rate.counted * 600 - 18)
        minutes = max(0, rest - 2) // (rate.counted * 60 - 2)
        frame += 18 * tens + 2 * minutes
    seconds, frames = divmod(frame, rate.counted)
    return Label(seconds // 3600, seconds // 60 % 60, seconds % 60, frames)


def frame_of(label: Label, rate: Rate) -> int:
    """The frame of a label. ZarabandaError where there is no such label at this rate.

    >>> frame_of(Label(0, 1, 0, 2), RATES["29.97 drop"])
    1800
    """
    left_out = rate.drop and label.seconds == 0 and label.frames < 2 and label.minutes % 10 != 0
    if not (label.hours < HOURS and label.minutes < 60 and label.seconds < 60 and label.frames < rate.counted) or left_out:
        raise ZarabandaError(f"There is no label {text(label, rate)} at {rate.name} frames a second.", "label")
    minutes = 60 * label.hours + label.minutes
    count = rate.counted * (60 * minutes + label.seconds) + label.frames
    return count - 2 * (minutes - minutes // 10) if rate.drop else count


def text(label: Label, rate: Rate) -> str:
    """As it is read: a semicolon before the frames where labels are left out.

    >>> text(Label(1, 0, 0, 2), RATES["29.97 drop"])
    '01:00:00;02'
    """
    return f"{label.hours:02}:{label.minutes:02}:{label.seconds:02}{';' if rate.drop else ':'}{label.frames:02}"


def text_at(seconds: float, rate: Rate) -> str:
    """The label that is on at a time, s from 00:00:00:00 on, as it is read.

    >>> text_at(3601.5, RATES["25"])
    '01:00:01:12'
    """
    return text(label_of(frame_at(seconds, rate), rate), rate)


def read(given: str, rate: Rate) -> int:
    """The frame of a label as it is typed. ZarabandaError says what is wrong with it."""
    found = _LABEL.match(given.strip())
    if found is None:
        raise ZarabandaError(f"{shown(given)} is no timecode; type it as 01:00:00:00.", "label")
    return frame_of(Label(*map(int, found.groups())), rate)


def seconds_of(frame: int, rate: Rate) -> float:
    """When a frame begins, s from 00:00:00:00 on."""
    return float(frame / rate.per_second)


def frame_at(seconds: float, rate: Rate) -> int:
    """The frame that is on at a time, s; a time within a millionth of a frame of its begin counts as that.

    >>> [frame_at(seconds_of(n, RATES["29.97"]), RATES["29.97"]) == n for n in (0, 1, 1000, 107891)]
    [True, True, True, True]
    """
    return int(seconds * float(rate.per_second) + 1e-6)
