"""Values set by hand: to a value, or by a difference that each head keeps; within what each can do."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

_BEYOND = 1e-6
"""By more than this a value is beyond a range."""
_TYPED = re.compile(r"\s*([+\-−]?)\s*([0-9]+(?:[.,][0-9]+)?|[.,][0-9]+)\s*(%|°|K|Hz|slot)?\s*", re.IGNORECASE)


@dataclass(frozen=True)
class Change:
    """What is asked for: a value for all, or a difference for each."""

    amount: float
    relative: bool = False


def read_change(text: str, attribute: attributes.Attribute) -> Change:
    """What was typed: `60`, `60 %`, `+10`, `−5 °`. ValueError says what is wrong with it.

    An attribute that goes below 0 takes `−5` as a value; a difference is then written `+-5`.
    """
    differs = text.strip().startswith("+")
    match = _TYPED.fullmatch(text.strip()[1:] if differs else text)
    if match is None:
        raise ValueError(f"{text.strip()!r} is no value: type a number such as 60, or a difference such as +10 or −10")
    sign, number, unit = match.groups()
    if unit and unit.lower() != attribute.unit.lower():
        raise ValueError(f"{attribute.label} is in {attribute.unit or 'numbers from 0 to 1'}, not in {unit}")
    amount = float(number.replace(",", ".")) * (-1 if sign in ("-", "−") else 1)
    return Change(amount, differs or (sign in ("-", "−") and attribute.low >= 0))


@dataclass(frozen=True)
class Changed:
    """Values by head; limited: how many of them would be beyond what their head can do, and stop where it ends; low, high: where
    these ends are."""

    values: dict[str, float]
    limited: int
    low: float
    high: float


def changed(
    rig: Rig, values: Mapping[str, float], heads: Sequence[str], attribute: attributes.Attribute, change: Change
) -> Changed:
    """Values of heads that have the attribute, limited to what each can do. values: set by hand so far, by head."""
    row = attributes.INDEX[attribute.name]
    found: dict[str, float] = {}
    limited, ends = 0, list[float]()
    for key in heads:
        number = rig.heads.index.get(key)
        if number is None or not rig.heads.has[row, number]:
            continue
        before = float(values.get(key, rig.home[row, number]))
        wanted = before + change.amount if change.relative else change.amount
        if attribute.circle:
            wanted %= attribute.span
        found[key] = float(min(max(wanted, rig.low[row, number]), rig.high[row, number]))
        if abs(found[key] - wanted) > _BEYOND:
            limited += 1
            ends += [float(rig.low[row, number]), float(rig.high[row, number])]
    return Changed(found, limited, min(ends, default=0.0), max(ends, default=0.0))
