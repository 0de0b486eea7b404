"""Rows of heads on which effects are tried."""

from __future__ import annotations

import numpy as np

from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.heads import Heads


def row_of_heads(count: int, base: dict[str, float] | None = None) -> weave.HeadSet:
    """`count` heads a metre apart, left to right, that have every attribute and mix their colour."""
    low, high, home = (
        np.repeat(np.array([getattr(a, name) for a in attributes.ATTRIBUTES], float)[:, None], count, axis=1)
        for name in ("low", "high", "home")
    )
    for name, value in (base or {}).items():
        home[attributes.INDEX[name]] = value
    has = np.ones((attributes.COUNT, count), bool)
    has[[attributes.HUE, attributes.SATURATION]] = False
    places = np.stack([np.arange(count) * 1.0, np.zeros(count), np.full(count, 5.0)], axis=1)
    mounting = np.repeat(stage.rotation(*stage.MOUNTINGS["hanging"])[None], count, axis=0)
    return weave.HeadSet(Heads([str(n + 1) for n in range(count)], places, has, mounting), low, high, home, np.ones(count, bool))
