"""Check-points of the song on stage, made before anybody jumps: in a thread of its own, step by step."""

from __future__ import annotations

import threading
from collections.abc import Callable

from zarabanda.workers import Troubles, Worker

from .live.advance import MOVES
from .live.folding import fold_of
from .live.songs import current
from .live.state import LiveState

_REST_S = 0.002
"""Between two steps others get their turn."""


class FoldingAhead:
    """Makes check-points up to the end of the song, as long as the program stays. `wake` is for all threads."""

    def __init__(self, state: Callable[[], LiveState], troubles: Troubles) -> None:
        self._state = state
        self._asked = threading.Event()
        self._closing = False
        self._worker = Worker("Songs", self._step, troubles).start()

    def wake(self) -> None:
        """Something may have to be made."""
        self._asked.set()

    def close(self) -> None:
        """Make no more."""
        self._closing = True
        self._asked.set()

    def _step(self) -> bool | None:
        self._asked.wait()
        self._asked.clear()
        while not self._closing:
            state = self._state()
            song = current(state)
            timeline = state.program.timelines.get(song.id) if song is not None else None
            if song is None or timeline is None:
                break
            hands = frozenset(song.hands)
            if not state.program.folds.go_on(timeline, hands, *fold_of(state.program, timeline, hands, MOVES)):
                break
            threading.Event().wait(_REST_S)
        return False if self._closing else None
