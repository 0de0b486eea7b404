"""Waiting for something to come true."""

import time

PATIENCE_S = 60.0
"""What does not come within this never comes: no machine is so busy. Where it comes, nobody waits longer than it takes."""


def until(condition, patience_s=PATIENCE_S):
    """The first true value of `condition()`, looked at often; fails when time runs out, and says how long it waited."""
    begun, rest_s = time.monotonic(), 0.02
    while True:
        value = condition()
        if value:
            return value
        waited = time.monotonic() - begun
        if waited > patience_s:
            raise AssertionError(f"not within {waited:.0f} s; last seen: {value!r}")
        time.sleep(rest_s)
        rest_s = min(1.3 * rest_s, 0.2)  # asking is work for those who are waited for
