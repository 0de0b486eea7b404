"""Waiting for something to come true."""

import time

_BUSY_S = 25


def until(condition, timeout):
    """The first true value of `condition()`; fails when time runs out. Looks often, waits no longer than needed.

    timeout: s, for a quiet machine; a busy one gets longer.
    """
    end = time.monotonic() + max(timeout, _BUSY_S)
    while time.monotonic() < end:
        value = condition()
        if value:
            return value
        time.sleep(0.05)
    raise AssertionError(f"not within {timeout} s")
