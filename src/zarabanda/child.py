"""A process that the supervisor keeps alive: started again when it dies or stands still, after a pause that grows."""

from __future__ import annotations

import contextlib
import os
import signal
import subprocess
import sys
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import IO

_FREE_DEATHS, _COUNTED_S, _LONGEST_PAUSE_S = 2, 60.0, 30.0
"""The first deaths within a minute cost no pause; then each one doubles it."""
_LOG_BYTES = 1 << 20
_SPARE_AFTER_S = 2.0
"""A spare one is started so long after the one that works, which has better things to do before."""
GO = b"go\n"
"""What a spare process waits for."""


def pause_after(deaths: int) -> float:
    """Seconds to wait after so many deaths within a minute.

    >>> [pause_after(deaths) for deaths in (1, 2, 3, 4, 5, 20)]
    [0.0, 0.0, 0.5, 1.0, 2.0, 30.0]
    """
    beyond = deaths - _FREE_DEATHS
    return min(0.5 * 2.0 ** (beyond - 1), _LONGEST_PAUSE_S) if beyond > 0 else 0.0


@dataclass
class _Started:
    """A process that was started, and the end of its pipe at which its beats are read (−1: it tells none)."""

    process: subprocess.Popen[bytes]
    beat: int

    def let_go(self) -> None:
        """Close what is held of it."""
        if self.process.stdin is not None:
            with contextlib.suppress(OSError):
                self.process.stdin.close()
        if self.beat >= 0:
            os.close(self.beat)

    def kill(self) -> None:
        """End it and what it started, at once: also when it is stopped."""
        with contextlib.suppress(ProcessLookupError, PermissionError):
            os.killpg(self.process.pid, signal.SIGKILL)
        self.process.wait()


@dataclass
class Child:
    """One process. beats: it tells that it turns (through the file descriptor that `command` is given in place of
    `{heartbeat}`), and is taken for hung when that stops for `still_s`; the first beat may take `begin_s`; spare: another one is
    kept that has started already, and waits for a line on its standard input to take the place of one that dies."""

    name: str
    command: list[str]
    log: Path
    environment: dict[str, str] = field(default_factory=dict)
    pass_fds: tuple[int, ...] = ()
    beats: bool = False
    still_s: float = 1.5
    begin_s: float = 20.0
    spare: bool = False
    restarts: int = 0
    message: str = ""
    _now: _Started | None = None
    _waiting: _Started | None = None
    _last_beat: float = 0.0
    _begun: float = 0.0
    _has_beaten: bool = False
    _deaths: deque[float] = field(default_factory=lambda: deque(maxlen=32))
    _wait_until: float | None = None

    @property
    def process(self) -> subprocess.Popen[bytes] | None:
        """What was started last."""
        return self._now.process if self._now is not None else None

    @property
    def running(self) -> bool:
        """Whether the process is there."""
        return self.process is not None and self._wait_until is None

    def _log_file(self) -> IO[bytes] | None:
        try:
            self.log.parent.mkdir(exist_ok=True)
            if self.log.exists() and self.log.stat().st_size > _LOG_BYTES:
                os.replace(self.log, self.log.with_suffix(".before.log"))
            return self.log.open("ab")
        except OSError:
            return None  # then it speaks where we speak

    def start(self, now: float) -> None:
        """Start the process."""
        self._let_go()
        self._wait_until, self._last_beat, self._has_beaten, self._begun = None, now, False, now
        ready, self._waiting = self._waiting, None
        if ready is not None and ready.process.poll() is not None:
            ready.let_go()
            ready = None
        self._now = ready or self._spawn()
        if self.spare and self._now.process.stdin is not None:
            with contextlib.suppress(OSError):  # it has died already: that is seen at the next look
                self._now.process.stdin.write(GO)
                self._now.process.stdin.flush()

    def _spawn(self) -> _Started:
        fds, command, beat, writer = self.pass_fds, self.command, -1, -1
        if self.beats:
            beat, writer = os.pipe()
            os.set_blocking(beat, False)
            fds, command = (*fds, writer), [part.replace("{heartbeat}", str(writer)) for part in command]
        log = self._log_file()
        try:
            process = subprocess.Popen(
                command, stdin=subprocess.PIPE, stdout=log, stderr=log, env={**os.environ, **self.environment}, pass_fds=fds,
                start_new_session=True,  # Ctrl-C reaches the supervisor alone, which ends the others in order
            )  # fmt: skip
        finally:
            if log is not None:
                log.close()
            if writer >= 0:
                os.close(writer)
        return _Started(process, beat)

    def look(self, now: float, say: Callable[[str], None]) -> bool:
        """Look after it; whether anything has changed."""
        if self.process is None:
            return False
        if self._wait_until is not None:
            if now < self._wait_until:
                return False
            self.start(now)
            self.restarts += 1
            return True
        code = self.process.poll()
        if code is None:
            if self.spare and self._waiting is None and self._has_beaten and now - self._begun > _SPARE_AFTER_S:
                self._waiting = self._spawn()
            if not self._stands_still(now):
                return self._is_well(now)
            self.kill()
            self.message = f"The {self.name} process stood still and was ended."
        else:
            self.message = f"The {self.name} process ended (code {code})."
        self._deaths.append(now)
        recent = sum(now - death <= _COUNTED_S for death in self._deaths)
        pause = pause_after(recent)
        self._wait_until = now + pause
        again = f"It is started again in {pause:g} s, after {recent} times within a minute" if pause else "It is started again"
        self.message += f" {again}. What it said is in {self.log}."
        say(self.message)
        return True if pause else self.look(now, say)

    def _is_well(self, now: float) -> bool:
        """What was said of it before is no longer so, once it has lived for a while."""
        if self.message and (not self._deaths or now - self._deaths[-1] > _COUNTED_S):
            self.message = ""
            return True
        return False

    def _stands_still(self, now: float) -> bool:
        if not self.beats:
            return False
        with contextlib.suppress(BlockingIOError):
            while self._now is not None and os.read(self._now.beat, 4096):
                self._last_beat, self._has_beaten = now, True
        return now - self._last_beat > (self.still_s if self._has_beaten else self.begin_s)

    def kill(self) -> None:
        """End it and what it started, at once: also when it is stopped."""
        if self._now is not None:
            self._now.kill()

    def end(self, timeout_s: float) -> None:
        """Ask it to end, and wait."""
        if self._waiting is not None:
            self._waiting.kill()
            self._waiting.let_go()
            self._waiting = None
        if self.process is None:
            return
        with contextlib.suppress(ProcessLookupError):
            self.process.send_signal(signal.SIGTERM)
        try:
            self.process.wait(timeout_s)
        except subprocess.TimeoutExpired:
            print(f"The {self.name} process did not end in {timeout_s:g} s, and was killed.", file=sys.stderr)
            self.kill()
        self._let_go()

    def _let_go(self) -> None:
        """Close what was held of the process before."""
        if self._now is not None:
            self._now.let_go()
            self._now = None
