"""Heads that are alone while a button is held: all others go dark, and nothing is released (docs/computation.md, "Alone")."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes
from zarabanda.core.rig.abilities import whole
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]


class Stayers:
    """Who stays lit by a button: (N,), with what leads and turns its heads."""

    def __init__(self, rig: Rig, heads: Ints) -> None:
        self.stay = np.zeros(len(rig), bool)
        self.stay[heads] = True
        self.stay[whole(rig, heads)] = True


@dataclass(frozen=True, eq=False)
class Alone:
    """A stage of the frame: factors (N,) on the intensities of all heads."""

    factors: Floats
    touched: Bools

    def apply(self, values: Floats) -> None:
        """Scale values (A, N)."""
        values[attributes.INTENSITY] *= self.factors


def alone(rig: Rig, held: Sequence[tuple[Stayers, float]]) -> Alone:
    """Those who stay by any of some buttons, each with its share 0…1, among all others.

    The level of a head is scaled by 1 − (the largest share of the buttons that leave it out − the largest of those that let it
    stay, at least 0): so two buttons held at once let those of both stay. Of a fixture with cells its own level is scaled, or
    where that stays, those of its other cells.
    """
    none = np.zeros(len(rig))
    leaves = np.max([none, *(np.where(one.stay, 0.0, share) for one, share in held)], axis=0)
    lets = np.max([none, *(np.where(one.stay, share, 0.0) for one, share in held)], axis=0)
    factors = 1 - np.maximum(leaves - lets, 0.0)
    led = rig.led
    own = factors[led] / np.maximum(factors[rig.leader[led]], 1e-12)
    factors[led] = np.minimum(own, 1.0)
    touched = np.zeros(rig.home.shape, bool)
    touched[attributes.INTENSITY] = True
    return Alone(factors, touched)
