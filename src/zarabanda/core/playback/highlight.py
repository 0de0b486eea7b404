"""Heads shown on stage: these at a bright plain value, all others lowered. It acts after effects, and changes nothing kept."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

LOWERED = 0.15
"""Share of their level that is left to the others."""
PLAIN: Mapping[str, float] = {
    "red": 1.0, "green": 1.0, "blue": 1.0, "white_mix": 0.0, "strobe": 0.0, "iris": 100.0, "gobo": 0.0, "frost": 0.0,
    "prism": 0.0,
}  # fmt: skip
"""What a head that is shown has besides full intensity, where it has the attribute."""


class Highlight:
    """A stage of the frame. Cells of a fixture that is shown are shown with it, and a cell brings up its fixture."""

    def __init__(self, rig: Rig, keys: Sequence[str]) -> None:
        """keys: of the heads to show; those that the rig does not have are left out."""
        shown = np.zeros(len(rig), bool)
        shown[[rig.heads.index[key] for key in keys if key in rig.heads.index]] = True
        led = np.flatnonzero(rig.led)
        own = shown.copy()
        shown[led] |= own[rig.leader[led]]
        leading = np.zeros(len(rig), bool)
        leading[rig.leader[led[shown[led]]]] = True
        self._full = np.flatnonzero(shown | leading)
        self._lowered = np.flatnonzero(~(shown | leading) & ~rig.led | (rig.led & ~shown & leading[rig.leader]))
        self._plain = [(attributes.INDEX[name], value) for name, value in PLAIN.items()]
        self._high = rig.high[attributes.INTENSITY, self._full]
        self._touched = np.zeros(rig.home.shape, bool)
        self._touched[attributes.INTENSITY] = True
        for row, _ in self._plain:
            self._touched[row, self._full] = True

    @property
    def touched(self) -> Bools:
        """Every intensity, and what shown heads have besides."""
        return self._touched

    def apply(self, values: Floats) -> None:
        """Show them. What a head does not have is not sent; ranges are kept by the frame."""
        values[attributes.INTENSITY, self._lowered] *= LOWERED
        values[attributes.INTENSITY, self._full] = self._high
        for row, value in self._plain:
            values[row, self._full] = value
