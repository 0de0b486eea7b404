"""Sees that a module of tests leaves nothing open: threads, processes, files and sockets have an owner that closes them.

What a fixture of the whole session holds is not counted until it ends.
"""

from __future__ import annotations

import gc
import os
import threading
import time
from collections import Counter

import psutil
import pytest

_PATIENCE_S = 20.0
"""What is on its way out gets so long, on a machine as busy as may be; where all is closed nobody waits."""
_NOT_OURS = ("ThreadPoolExecutor", "asyncio", "pytest_timeout", "execnet")
"""Threads of libraries: pools of futures are joined as the process ends, the others belong to the tests' own tools."""

_of_the_session: Counter[str] = Counter()


def held() -> Counter[str]:
    """What this process holds: how many of each thread, child process, file and socket. What a child has started is its own."""
    found: Counter[str] = Counter()
    for thread in threading.enumerate():
        if thread is not threading.main_thread() and not any(name in thread.name for name in _NOT_OURS):
            found[f"thread {thread.name}"] += 1
    for child in psutil.Process().children():
        try:
            found[f"process {' '.join(child.cmdline()[:6]) or child.name()}"] += 1
        except psutil.Error:
            continue  # it has just ended
    for handle in os.listdir("/proc/self/fd"):
        try:
            what = os.readlink(f"/proc/self/fd/{handle}")
        except OSError:
            continue
        if what.startswith("socket:"):
            found["socket"] += 1
        elif what.startswith("/") and not what.startswith(("/dev/", "/proc/", "/sys/")):
            found[f"file {what}"] = 1  # however often: pools open what they need
    return found


def left_since(before: Counter[str]) -> Counter[str]:
    """What is held now and was not before, once what is on its way out has ended."""
    end = time.monotonic() + _PATIENCE_S
    while left := held() - before - _of_the_session:
        if time.monotonic() > end:
            return left
        gc.collect()
        time.sleep(0.02)
    return left


@pytest.hookimpl(wrapper=True)
def pytest_fixture_setup(fixturedef, request):
    """Note what fixtures of the session open."""
    if fixturedef.scope != "session":
        return (yield)
    before = held()
    try:
        return (yield)
    finally:
        _of_the_session.update(held() - before)


@pytest.fixture(autouse=True, scope="module")
def nothing_is_left():
    """Fails the module that leaves something open."""
    before = held() - _of_the_session
    yield
    left = left_since(before)
    assert not left, "left open: " + ", ".join(sorted(left))
