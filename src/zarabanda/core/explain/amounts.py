"""Values in words: one decimal at the most, with their unit and a true minus."""

from __future__ import annotations

from zarabanda.core.rig.attributes import Attribute


def amount(value: float) -> str:
    """A number.

    >>> amount(-12.04), amount(60.0)
    ('−12', '60')
    """
    return f"{round(value, 1) + 0:g}".replace("-", "−")


def between(low: float, high: float, attribute: Attribute) -> str:
    """`60 %`, or `−20 … 20 °` where the ends differ."""
    ends = dict.fromkeys((amount(low), amount(high)))
    return f"{' … '.join(ends)} {attribute.unit}".strip()
