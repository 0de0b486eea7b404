"""The pages that are open: who they are, what they watch, and whose turn it is to get a frame."""

from __future__ import annotations

import threading

from zarabanda import wire

FRAMES_AT_ONCE = 12
"""Browsers that a frame is passed on to; where more are open, they take turns."""


class Browser(wire.Mailbox):
    """One open live socket. holder: who it is to the engine, for what it holds."""

    def __init__(self, holder: str = "") -> None:
        super().__init__()
        self.holder = holder
        self.watching: set[int] = set()


class Browsers:
    """All that are open. They join and leave in their own threads; each look at `every` sees them as they were at one moment."""

    def __init__(self, session: str) -> None:
        self._session, self._joined, self._turn = session, 0, 0
        self._joining = threading.Lock()
        self.every: tuple[Browser, ...] = ()

    def join(self) -> Browser:
        """Another one."""
        with self._joining:
            self._joined += 1
            browser = Browser(f"{self._session}-{self._joined}")
            self.every = (*self.every, browser)
        return browser

    def leave(self, browser: Browser) -> None:
        """One that is gone."""
        with self._joining:
            self.every = tuple(other for other in self.every if other is not browser)

    @property
    def watched(self) -> list[int]:
        """Universes that any of them watches."""
        return sorted(set().union(*(browser.watching for browser in self.every)))

    def in_turn(self) -> list[Browser]:
        """Who gets this frame: all of them, or in turn so many as can be served while HTTP is answered."""
        every = self.every
        if len(every) <= FRAMES_AT_ONCE:
            return list(every)
        self._turn += FRAMES_AT_ONCE
        return [every[(self._turn + n) % len(every)] for n in range(FRAMES_AT_ONCE)]

    def in_words(self) -> str:
        """How many are open."""
        count = len(self.every)
        return "1 is open now" if count == 1 else f"{count} are open now"
