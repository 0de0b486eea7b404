"""The base of chosen heads, attribute by attribute: what stands there, from where, and how far it can go."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.rig import Rig


@dataclass(frozen=True)
class BaseValue:
    """What some heads have of one attribute, in its unit. heads: those that have it; low, high: the range all of them have;
    value: of the first; least, most: of all; mixed: whether they differ; by_hand: how many have it from the draft; source:
    from what it comes, in words."""

    attribute: attributes.Attribute
    heads: tuple[str, ...]
    low: float
    high: float
    value: float
    least: float
    most: float
    mixed: bool
    by_hand: int
    source: str


_SAME = 1e-6
"""Values closer than this are the same."""


def base_of(
    rig: Rig,
    values: Mapping[str, Mapping[str, float]],
    heads: Sequence[str],
    sources: Mapping[str, Mapping[str, str]] | None = None,
) -> list[BaseValue]:
    """One entry for each attribute that some of `heads` have. values: set by hand, by attribute and head; else home holds;
    sources: from what each of these comes, in a word.

    Heads that the rig does not have are left out. The range is where those of all heads meet; where they do not meet, that
    of the first head.
    """
    sources = sources or {}
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
        hand = sum(key in by_hand for key in keys)
        source = _in_words(Counter(sources.get(attribute.name, {}).get(key, "home") for key in keys))
        found.append(BaseValue(attribute, keys, low, high, each[0], min(each), max(each), mixed, hand, source))
    return found


def _in_words(sources: Counter[str]) -> str:
    """`Lagoon`, or `draft 3, home 2`.

    >>> _in_words(Counter(["draft", "draft"])), _in_words(Counter(["fan", "home", "home"]))
    ('draft', 'home 2, fan 1')
    """
    if len(sources) == 1:
        return next(iter(sources))
    return ", ".join(f"{source} {count}" for source, count in sources.most_common(3)) + (" …" if len(sources) > 3 else "")


def pointed_at(rig: Rig, values: Mapping[str, Mapping[str, float]], heads: Sequence[str]) -> tuple[float, float, float] | None:
    """Where on the floor the beams of some heads land, in the middle of them all, in metres; None where none does."""
    lights = movers(rig, heads)
    if not len(lights):
        return None
    pan, tilt = (base_values(rig, values, lights, row) for row in (attributes.PAN, attributes.TILT))
    landed, hits = stage.landing(rig.heads.places[lights], stage.direction(pan, tilt, rig.mounting[lights]), 2, 0.0)
    if not hits.any():
        return None
    x, y, z = landed[hits].mean(axis=0).tolist()
    return x, y, z


def movers(rig: Rig, heads: Sequence[str]) -> NDArray[np.int64]:
    """Numbers of the heads that have pan and tilt, in the order given."""
    able = rig.heads.has[attributes.PAN] & rig.heads.has[attributes.TILT]
    return np.array([rig.heads.index[key] for key in heads if key in rig.heads.index and able[rig.heads.index[key]]], np.int64)


def base_values(rig: Rig, values: Mapping[str, Mapping[str, float]], lights: NDArray[np.int64], row: int) -> NDArray[np.float64]:
    """What `lights` (n,) have of an attribute below all effects: set by hand, else home."""
    by_hand = values.get(attributes.ATTRIBUTES[row].name, {})
    return np.array([by_hand.get(rig.heads.keys[n], rig.home[row, n]) for n in lights.tolist()], np.float64)
