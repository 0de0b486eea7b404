"""Palettes: kept values of one family, that stops of an effect can go to. A palette says on which heads it acts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Palette:
    """values: by attribute, for every head, natural units; own: by head key, what holds on that head instead."""

    name: str
    values: Mapping[str, float] = field(default_factory=dict)
    own: Mapping[str, Mapping[str, float]] = field(default_factory=dict)

    def on(self, heads: Sequence[str], names: Sequence[str]) -> Floats:
        """Values (heads, names) of attributes; NaN where the palette does not act.

        >>> Palette("Deck", {"tilt": -30.0}, {"102": {"tilt": -28.0}}).on(["101", "102"], ["pan", "tilt"]).tolist()
        [[nan, -30.0], [nan, -28.0]]
        """
        shared = [self.values.get(name, np.nan) for name in names]
        found = np.tile(np.array(shared, float), (len(heads), 1))
        if self.own:
            for row, key in enumerate(heads):
                for column, name in enumerate(names):
                    if name in self.own.get(key, ()):
                        found[row, column] = self.own[key][name]
        return found
