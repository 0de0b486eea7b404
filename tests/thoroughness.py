"""How much is tried: properties and mutations scale together. A fifth for every commit, ten times as much at night."""

import os

from hypothesis import settings

HOW_THOROUGH = float(os.environ.get("ZARABANDA_THOROUGH", "1"))
"""1: all checks; 0.2: those before a commit; 10: at night."""


def scaled(count):
    """So many of `count`, at least one."""
    return max(1, round(count * HOW_THOROUGH))


def thorough(examples, **more):
    """Settings of a property that draws so many examples when all checks run."""
    return settings(max_examples=scaled(examples), **more)
