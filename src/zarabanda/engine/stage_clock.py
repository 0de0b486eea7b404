"""The time of the stage, that all stamps are in: the machine's own, unless it is driven."""

from __future__ import annotations

import os
import threading
import time
from collections.abc import Callable

from zarabanda.errors import ZarabandaError

DRIVEN = "ZARABANDA_DRIVEN_CLOCK"
"""In the environment: others may drive the clock of this engine. For tests and pictures, so that nobody waits for a fade."""
FASTEST = 50.0


class StageClock:
    """Seconds, never backwards. While nobody drives it it is the machine's clock to the bit; from the first `drive` on it is its
    own, and an engine that is started again in between would not know of it.

    >>> clock = StageClock(machine=lambda: 7.0)
    >>> clock.drive(rate=0.0, ahead_s=2.5)
    >>> clock()
    9.5
    """

    def __init__(self, machine: Callable[[], float] = time.monotonic) -> None:
        self._machine, self._driving = machine, threading.Lock()
        self._since: tuple[float, float, float] | None = None
        """Machine's time, stage's time and rate of the newest `drive`; None: not driven."""

    def __call__(self) -> float:
        """Now."""
        since = self._since
        if since is None:
            return self._machine()
        machine, stage, rate = since
        return stage + (self._machine() - machine) * rate

    def drive(self, *, rate: float, ahead_s: float = 0.0) -> None:
        """From now on let so many seconds pass in one of the machine's (0: it stands; 1: as usual), after going ahead at once.

        rate: 0 to 50; ahead_s: 0 to 3600 s. ZarabandaError for others."""
        if not (0 <= rate <= FASTEST and 0 <= ahead_s <= 3600):
            raise ZarabandaError(f"The clock goes at 0 to {FASTEST:g} times the machine's, and 0 to 3600 s ahead at once.")
        with self._driving:
            self._since = self._machine(), self() + ahead_s, rate


def may_be_driven() -> bool:
    """Whether this engine was started so that others may drive its clock."""
    return bool(os.environ.get(DRIVEN))
