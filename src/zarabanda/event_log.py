"""What has happened: a line for each event, from all processes, in one file of the data folder."""

from __future__ import annotations

import contextlib
import os
import time
from collections.abc import Callable
from pathlib import Path

import msgspec

FILE = "events.jsonl"
_LARGEST = 1 << 20
_MOST_TEXT = 500


class Event(msgspec.Struct, frozen=True):
    """at: s since 1970; who: the process that tells; text: what has happened, in words."""

    at: float
    who: str
    text: str


class EventLog:
    """Of a data folder. Lines are added whole, so several processes can write."""

    def __init__(self, data: Path, who: str, clock: Callable[[], float] = time.time) -> None:
        self._path, self._who, self._clock = data / FILE, who, clock

    def tell(self, text: str) -> None:
        """Something has happened. Where it cannot be written, it is not."""
        line = msgspec.json.encode(Event(self._clock(), self._who, text[:_MOST_TEXT])) + b"\n"
        with contextlib.suppress(OSError):
            if self._path.exists() and self._path.stat().st_size > _LARGEST:
                os.replace(self._path, self._path.with_suffix(".before.jsonl"))
            handle = os.open(self._path, os.O_WRONLY | os.O_CREAT | os.O_APPEND, 0o600)
            try:
                os.write(handle, line)
            finally:
                os.close(handle)


def read(data: Path, most: int = 500) -> list[Event]:
    """The newest, newest first. Lines that cannot be read are left out."""
    lines: list[bytes] = []
    for path in ((data / FILE).with_suffix(".before.jsonl"), data / FILE):
        with contextlib.suppress(OSError):
            lines += path.read_bytes().splitlines()
    found = []
    for line in reversed(lines):
        with contextlib.suppress(msgspec.DecodeError, UnicodeError):
            found.append(msgspec.json.decode(line, type=Event))
        if len(found) == most:
            break
    return found


def as_text(events: list[Event]) -> str:
    """As lines of text, oldest first: time, who, what."""
    return "".join(
        f"{time.strftime('%Y-%m-%d %H:%M:%S', time.localtime(one.at))}  {one.who:<10} {one.text}\n" for one in reversed(events)
    )
