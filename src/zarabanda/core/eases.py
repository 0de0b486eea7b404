"""Eases: how a way is gone from 0 to 1 (docs/computation.md, "Claims")."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

EASES: dict[str, Callable[[Any], Any]] = {
    "linear": lambda x: x,
    "smooth": lambda x: x * x * (3 - 2 * x),
    "slow-start": lambda x: x * x,
    "slow-end": lambda x: 1 - (1 - x) * (1 - x),
}
"""Each takes 0…1, a number or an array, and gives 0…1."""
