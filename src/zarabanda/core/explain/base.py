"""The base of chosen heads, attribute by attribute: what stands there, from where, and how far it can go."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig


@dataclass(frozen=True)
class BaseValue:
    """What some heads have of one attribute, in its unit. heads: those that have it; low, high: the range all of them have;
    value: of the first; mixed: whether they differ; by_hand: how many have it from the draft."""

    attribute: attributes.Attribute
    heads: tuple[str, ...]
    low: float
    high: float
    value: float
    mixed: bool
    by_hand: int


_SAME = 1e-6
"""Values closer than this are the same."""


def base_of(rig: Rig, values: Mapping[str, Mapping[str, float]], heads: Sequence[str]) -> list[BaseValue]:
    """One entry for each attribute that some of `heads` have. values: set by hand, by attribute and head; else home holds.

    Heads that the rig does not have are left out. The range is where those of all heads meet; where they do not meet, that
    of the first head.
    """
    numbers = [rig.heads.index[key] for key in heads if key in rig.heads.index]
    found = []
    for row, attribute in enumerate(attributes.ATTRIBUTES):
        able = [n for n in numbers if rig.heads.has[row, n]]
        if not able:
            continue
        by_hand = values.get(attribute.name, {})
        keys = tuple(rig.heads.keys[n] for n in able)
        each = [float(by_hand.get(key, rig.home[row, n])) for key, n in zip(keys, able, strict=True)]
        low, high = float(rig.low[row, able].max()), float(rig.high[row, able].min())
        if low > high:
            low, high = float(rig.low[row, able[0]]), float(rig.high[row, able[0]])
        mixed = max(each) - min(each) > _SAME
        found.append(BaseValue(attribute, keys, low, high, each[0], mixed, sum(key in by_hand for key in keys)))
    return found
