"""What the supervisor says of the processes that it watches, and what they take of the machine."""

from __future__ import annotations

import contextlib
import threading
import time
from pathlib import Path

import msgspec
import psutil

FILE = "processes.json"


class ProcessEntry(msgspec.Struct):
    """A process: whether it runs, how often it was started again, and in words what is wrong with it."""

    name: str
    running: bool
    restarts: int
    message: str = ""
    pid: int = 0


def read(data: Path) -> list[ProcessEntry]:
    """All of them; none where the supervisor has said nothing that can be read."""
    try:
        return msgspec.json.decode((data / FILE).read_bytes(), type=list[ProcessEntry])
    except (OSError, msgspec.DecodeError):
        return []


def what_is_down(data: Path) -> str:
    """In words what does not run; empty where nothing is said to be wrong."""
    return " ".join(one.message for one in read(data) if not one.running and one.message)


class Meter:
    """What processes take, each with those that it started."""

    def __init__(self) -> None:
        self._known: dict[int, psutil.Process] = {}
        self._turn = threading.Lock()

    def of(self, pid: int) -> tuple[float, float]:
        """Of one: % of a core since it was asked for last (at first: since it started), and MB of memory; 0 where it is gone."""
        cpu, memory = 0.0, 0.0
        with self._turn, contextlib.suppress(psutil.Error):
            root = self._known.get(pid) or psutil.Process(pid)
            for process in (root, *root.children(recursive=True)):
                with contextlib.suppress(psutil.Error):
                    cpu += self._cpu(process)
                    memory += process.memory_info().rss / 1e6
        return cpu, memory

    def _cpu(self, process: psutil.Process) -> float:
        known = self._known.get(process.pid)
        if known is not None and known == process:  # a number may have become another process's
            return float(known.cpu_percent())
        self._known[process.pid] = process
        process.cpu_percent()
        times = process.cpu_times()
        return 100 * (times.user + times.system) / max(time.time() - process.create_time(), 0.1)
