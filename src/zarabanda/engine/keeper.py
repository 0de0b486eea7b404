"""Writes the journal, apart from the loop: what changed last, again until it is written."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable

from zarabanda.messages import ShowUpdate
from zarabanda.workers import Troubles, Worker

from .journal import Journal, LiveEntry

_SPACED_S = 0.05
"""A fader that moves writes twenty times a second, no more."""
_ALIVE_EVERY_S = 1.0
NAME = "Journal"


class JournalKeeper:
    """Owns the writing of a journal. What cannot be written (a full disk) is told, and written when there is room."""

    def __init__(self, journal: Journal, troubles: Troubles, sleep: Callable[[float], None] = time.sleep) -> None:
        self._journal, self._sleep = journal, sleep
        self._condition = threading.Condition()
        self._live: LiveEntry | None = None
        self._program: ShowUpdate | None = None
        self._worker = Worker(NAME, self._write, troubles)

    def start(self) -> JournalKeeper:
        """Begin to write."""
        self._worker.start()
        return self

    def keep_live(self, entry: LiveEntry) -> None:
        """Write this down soon."""
        with self._condition:
            self._live = entry
            self._condition.notify()

    def keep_program(self, update: ShowUpdate) -> None:
        """Write this down soon."""
        with self._condition:
            self._program = update
            self._condition.notify()

    def write_now(self) -> None:
        """Write what waits; raises OSError where that is not possible, and it waits on."""
        with self._condition:
            live, program = self._live, self._program
        if program is not None:
            self._journal.write_program(program)
        if live is not None:
            self._journal.write_live(live)
        with self._condition:  # unless something newer came meanwhile
            self._live = None if self._live is live else self._live
            self._program = None if self._program is program else self._program

    def _write(self) -> None:
        with self._condition:
            self._condition.wait_for(lambda: self._live is not None or self._program is not None, _ALIVE_EVERY_S)
        self._journal.alive()
        try:
            self.write_now()
        except OSError as error:
            raise OSError(
                f"{error.strerror} ({error.filename or 'journal'}): after a restart the lights would go on from an older "
                "state. Make room on the disk; it is tried again."
            ) from error
        self._sleep(_SPACED_S)
