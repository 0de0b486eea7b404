"""Threads, each with an owner: what goes wrong in one is told, tried again after a pause that grows, and seen in health."""

from __future__ import annotations

import contextlib
import sys
import threading
from collections.abc import Callable

_FIRST_PAUSE_S, _LONGEST_PAUSE_S = 0.1, 5.0


class Troubles:
    """What is wrong now, in words, by the name of what it is wrong with."""

    def __init__(self) -> None:
        self._texts: dict[str, str] = {}

    def tell(self, name: str, text: str) -> None:
        """Something is wrong; it is printed when it is new."""
        if self._texts.get(name) != text:
            self._texts[name] = text
            with contextlib.suppress(OSError, ValueError):  # the log may lie on the disk that is full
                print(f"{name}: {text}", file=sys.stderr, flush=True)

    def clear(self, name: str) -> None:
        """It is well again."""
        self._texts.pop(name, None)

    def report(self) -> list[dict[str, str]]:
        """All of them, for the screen: `who` and `text`."""
        return [{"who": name, "text": text} for name, text in list(self._texts.items())]


def in_words(error: BaseException) -> str:
    """An error that nobody foresaw, in one line."""
    return f"{type(error).__name__}: {error}"


class Worker:
    """A thread that does one step after another, until a step gives False or the worker is ended.

    A step that fails is told to `troubles` under the worker's name, and is done again after a pause.
    """

    def __init__(self, name: str, step: Callable[[], bool | None], troubles: Troubles) -> None:
        self.name = name
        self._step, self._troubles = step, troubles
        self._ended = threading.Event()
        self._thread = threading.Thread(target=self._run, daemon=True, name=name)

    def start(self) -> Worker:
        """Begin."""
        self._thread.start()
        return self

    def end(self, patience_s: float = 0.0) -> None:
        """Take no further step; wait no longer than that until the one under way is done."""
        self._ended.set()
        if patience_s and self._thread is not threading.current_thread() and self._thread.ident is not None:
            self._thread.join(patience_s)

    def pause(self, seconds: float) -> None:
        """Within a step: wait so long, or until the worker is ended."""
        self._ended.wait(seconds)

    @property
    def alive(self) -> bool:
        """Whether it still works."""
        return self._thread.is_alive()

    def _run(self) -> None:
        pause = 0.0
        while not self._ended.is_set():
            try:
                if self._step() is False:
                    return
            except Exception as error:  # whatever it is: the worker goes on, and says so
                self._troubles.tell(self.name, in_words(error))
                pause = min(max(2 * pause, _FIRST_PAUSE_S), _LONGEST_PAUSE_S)
                self._ended.wait(pause)
            else:
                self._troubles.clear(self.name)
                pause = 0.0
