"""What is kept of the open show by itself, while it is open: copies by the clock, and the picture it is known by."""

from __future__ import annotations

import time
from collections.abc import Callable

from zarabanda.kept_file import write_whole
from zarabanda.shelf.copies import EVERY_S
from zarabanda.shelf.library import PICTURE, Library
from zarabanda.show.compile import newest_edit
from zarabanda.show.store import Store
from zarabanda.workers import Troubles, Worker

from .link import EngineLink
from .stage_picture import stage_picture

NAME = "Copies of the show"
_LOOKS_EVERY_S = 5.0


class Keeping:
    """Looks every few seconds whether something is to be kept. clock and sleep are passed in."""

    def __init__(
        self, library: Library, store: Store, link: EngineLink, troubles: Troubles,
        clock: Callable[[], float] = time.monotonic, sleep: Callable[[float], None] = time.sleep,
    ) -> None:  # fmt: skip
        self._library, self._store, self._link, self._troubles = library, store, link, troubles
        self._clock, self._sleep = clock, sleep
        self._kept, self._at = (library.open_id, self._newest()), clock()
        self._worker = Worker(NAME, self._step, troubles)

    def start(self) -> None:
        """Begin to look."""
        self._worker.start()

    def _newest(self) -> int:
        with self._store.reading() as session:
            return newest_edit(session)

    def _step(self) -> None:
        self._sleep(_LOOKS_EVERY_S)
        self.look()

    def look(self) -> None:
        """Make a copy, where the show has changed since the last one and that was long enough ago."""
        now = self._clock()
        if now - self._at < EVERY_S:
            return
        state = self._library.open_id, self._newest()
        if state != self._kept:
            self._library.copies(state[0]).take("clock")
            self._troubles.clear(NAME)
        self._kept, self._at = state, now
        self.picture()

    def picture(self) -> None:
        """Keep a picture of the stage as it is now."""
        if self._link.frame is not None:
            folder = self._library.folder(self._library.open_id)
            write_whole(folder / PICTURE, stage_picture(self._link.rig, self._link.frame))
