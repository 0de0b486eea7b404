"""Copies of a show that are made by themselves: before it is changed as a whole, and by the clock. Old ones are thinned."""

from __future__ import annotations

import contextlib
import os
import re
import time
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from pathlib import Path

from zarabanda.errors import NotThere

from . import show_file
from .show_file import ENDING

COPIES = "copies"
REASONS = {
    "clock": "by the clock", "migration": "before it was brought up to date", "restore": "before a copy was taken back",
    "rig": "before it went to another rig", "import": "before parts of another show came in",
}  # fmt: skip
"""Why a copy was made, in words."""
_NAME = re.compile(r"^(\d{10})-([a-z]+)\.zarabanda$")
_MINUTE, _HOUR, _DAY, _WEEK = 60, 3_600, 86_400, 604_800
_MOST_BEFORE_CHANGES = 20
EVERY_S = 5 * _MINUTE
"""So often at the most a copy is made by the clock."""


@dataclass(frozen=True, order=True)
class Copy:
    """A copy. at: s since 1970; reason: see `REASONS`."""

    at: int
    reason: str

    @property
    def file(self) -> str:
        """Its name."""
        return f"{self.at:010d}-{self.reason}{ENDING}"


class Copies:
    """The copies of one show. folder: of that show; media: the media folder. They hold no media: those stay in that folder."""

    def __init__(self, folder: Path, media: Path, clock: Callable[[], float] = time.time) -> None:
        self._show, self._folder, self._media, self._clock = folder, folder / COPIES, media, clock

    def every(self) -> list[Copy]:
        """All of them, the newest first."""
        found = (_NAME.match(path.name) for path in self._folder.glob(f"*{ENDING}")) if self._folder.is_dir() else ()
        return sorted((Copy(int(one[1]), one[2]) for one in found if one and one[2] in REASONS), reverse=True)

    def path(self, name: str) -> Path:
        """Where a copy lies. NotThere where there is none of this name."""
        if not _NAME.match(name) or not (self._folder / name).is_file():
            raise NotThere("This copy is not there any more. Look at the list anew.", "copy")
        return self._folder / name

    def take(self, reason: str) -> Copy:
        """Make one now, whole or not at all; older ones are thinned. OSError where there is no room."""
        self._folder.mkdir(exist_ok=True)
        copy = Copy(int(self._clock()), reason)
        fresh = self._folder / f".{copy.file}"
        try:
            with fresh.open("wb") as file:
                show_file.write(self._show / show_file.SHOW_DB, self._media, file, with_media=False)
                file.flush()
                os.fsync(file.fileno())
            os.replace(fresh, self._folder / copy.file)
        finally:
            with contextlib.suppress(OSError):
                fresh.unlink()
        kept = kept_of(self.every(), self._clock())
        for one in self.every():
            if one not in kept:
                (self._folder / one.file).unlink(missing_ok=True)
        return copy


def kept_of(copies: Iterable[Copy], now: float) -> set[Copy]:
    """Which copies stay: by the clock all of the last hour, the newest of each hour of the last day, and of each day of the last
    week; of those made before a change the newest 20."""
    kept: set[Copy] = set()
    seen: set[tuple[str, int]] = set()
    changes = 0
    for one in sorted(copies, reverse=True):
        if one.reason != "clock":
            changes += 1
            if changes <= _MOST_BEFORE_CHANGES:
                kept.add(one)
            continue
        age = now - one.at
        span = ("all", one.at) if age < _HOUR else ("hour", one.at // _HOUR) if age < _DAY else ("day", one.at // _DAY)
        if age < _WEEK and span not in seen:
            seen.add(span)
            kept.add(one)
    return kept
