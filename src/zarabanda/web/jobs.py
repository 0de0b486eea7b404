"""What takes a while: how far it is, and whether it is to stop. The browser names a job as it asks for it, in `X-Job`."""

from __future__ import annotations

import re
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from flask import request

from zarabanda.errors import Busy, ZarabandaError

MOST_AT_ONCE = 16
_NAME = re.compile(r"[0-9A-Za-z-]{8,64}")
Progress = Callable[[float], None]


class Stopped(ZarabandaError):
    """A job was stopped by its user."""


@dataclass
class Job:
    """share: how much is done, 0…1; stopped: whether it is to stop at its next step."""

    share: float = 0.0
    stopped: bool = False

    def tell(self, share: float) -> None:
        """So much is done; Stopped where it is not to go on."""
        if self.stopped:
            raise Stopped("Stopped. Nothing was changed.", "file")
        self.share = min(max(share, self.share), 1.0)


class Jobs:
    """Those that run now, by their names."""

    def __init__(self) -> None:
        self._jobs: dict[str, Job] = {}
        self._lock = threading.Lock()

    @contextmanager
    def of_this_request(self) -> Iterator[Progress]:
        """Whom to tell how far it is; nobody where the request names no job."""
        name = request.headers.get("X-Job", "")
        if not _NAME.fullmatch(name):
            yield lambda share: None
            return
        job = Job()
        with self._lock:
            if len(self._jobs) >= MOST_AT_ONCE:
                raise Busy("Too much is being done at once. Try again in a moment.")
            self._jobs[name] = job
        try:
            yield job.tell
        finally:
            with self._lock:
                self._jobs.pop(name, None)

    def share(self, name: str) -> float | None:
        """How much of a job is done; None: it does not run (any more)."""
        with self._lock:
            job = self._jobs.get(name)
        return job.share if job is not None else None

    def stop(self, name: str) -> bool:
        """Let a job stop at its next step. Whether there is one."""
        with self._lock:
            job = self._jobs.get(name)
            if job is not None:
                job.stopped = True
        return job is not None
