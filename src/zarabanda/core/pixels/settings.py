"""What sets a figure, motion, colouring or finish: one entry a setting. Documents, sentences and screens read it from here."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Setting:
    """A number from low to high, in a unit; a choice of words; a text; or something kept beside it (a medium).

    kind: number, whole, choice, text or medium; words: of each choice; shown: a number is shown so many times as large.
    """

    name: str
    label: str
    default: Any
    low: float = 0.0
    high: float = 1.0
    unit: str = ""
    kind: str = "number"
    words: Mapping[str, str] | None = None
    shown: float = 1.0


Values = Mapping[str, Any]
"""Values of settings by name."""


def share(name: str, label: str, default: float, high: float = 1.0, low: float = 0.0) -> Setting:
    """A share that is shown in percent."""
    return Setting(name, label, default, low, high, "%", shown=100.0)


def degrees(name: str, label: str, default: float) -> Setting:
    """An angle."""
    return Setting(name, label, default, -360.0, 360.0, "°")


def whole(name: str, label: str, default: int, low: int, high: int) -> Setting:
    """A whole number."""
    return Setting(name, label, default, low, high, kind="whole")


def choice(name: str, label: str, default: str, words: Mapping[str, str]) -> Setting:
    """One of some words."""
    return Setting(name, label, default, kind="choice", words=words)


def filled(settings: Sequence[Setting], given: Values) -> dict[str, Any]:
    """All values, with defaults for what is not given."""
    return {one.name: given.get(one.name, one.default) for one in settings}


POINT = (share("across", "Point across", 0.5, 2.0, -1.0), share("down", "Point down", 0.5, 2.0, -1.0))
"""A point of the picture: shares of its width and height."""
EDGES = (share("width", "Width", 0.4, low=0.01), share("soft", "Soft edges", 0.3))
