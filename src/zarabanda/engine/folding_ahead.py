"""Check-points of the song on stage, made before anybody jumps: in a thread of its own, step by step."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Sequence
from functools import partial

from zarabanda.core.timecode.timeline import Occurrence
from zarabanda.workers import Troubles, Worker

from .folds import Fold
from .live.advance import MOVES
from .live.folding import fold_of
from .live.songs import current
from .live.state import LiveState

_REST_S = 0.002
"""Between two steps others get their turn."""
_LONGEST_FRAME_S = 0.1
"""So long at most it waits for a frame to be over."""


class FoldingAhead:
    """Makes check-points up to the end of the song, as long as the program stays, while the loop is `idle`. `wake` is for all
    threads."""

    def __init__(self, state: Callable[[], LiveState], idle: threading.Event, troubles: Troubles) -> None:
        self._state, self._idle = state, idle
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

    def _between_frames(self, fold: Fold, state: LiveState, occurrences: Sequence[Occurrence], until: float) -> LiveState:
        """Fold event by event while no frame is made: both at once would make the frame late."""
        folded: LiveState = fold(state, map(self._once_idle, occurrences), until)
        return folded

    def _once_idle(self, one: Occurrence) -> Occurrence:
        self._idle.wait(_LONGEST_FRAME_S)
        return one

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
            fresh, fold = fold_of(state.program, timeline, hands, MOVES)
            if not state.program.folds.go_on(timeline, hands, fresh, partial(self._between_frames, fold)):
                break
            time.sleep(_REST_S)
        return False if self._closing else None
