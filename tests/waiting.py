"""Waiting for something to come true."""

import time


def until(condition, timeout):
    """The first true value of `condition()`; fails when time runs out. Looks often, waits no longer than needed."""
    end = time.monotonic() + timeout
    while time.monotonic() < end:
        value = condition()
        if value:
            return value
        time.sleep(0.05)
    raise AssertionError(f"not within {timeout} s")
