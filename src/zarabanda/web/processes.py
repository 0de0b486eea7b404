"""What the supervisor says of the processes that it watches."""

from __future__ import annotations

from pathlib import Path

import msgspec

FILE = "processes.json"


class ProcessEntry(msgspec.Struct):
    """A process: whether it runs, how often it was started again, and in words what is wrong with it."""

    name: str
    running: bool
    restarts: int
    message: str = ""


def read(data: Path) -> list[ProcessEntry]:
    """All of them; none where the supervisor has said nothing that can be read."""
    try:
        return msgspec.json.decode((data / FILE).read_bytes(), type=list[ProcessEntry])
    except (OSError, msgspec.DecodeError):
        return []


def what_is_down(data: Path) -> str:
    """In words what does not run; empty where nothing is said to be wrong."""
    return " ".join(one.message for one in read(data) if not one.running and one.message)
