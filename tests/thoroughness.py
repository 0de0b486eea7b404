"""How much is tried: properties and mutations scale together. `tests.run` says by how much."""

import os

from hypothesis import settings

HOW_THOROUGH = float(os.environ.get("ZARABANDA_THOROUGH", "1"))
"""What is written times this is tried."""


def scaled(count):
    """So many of `count`, at least one."""
    return max(1, round(count * HOW_THOROUGH))


def thorough(examples, **more):
    """Settings of a property that draws so many examples, scaled."""
    return settings(max_examples=scaled(examples), **more)
