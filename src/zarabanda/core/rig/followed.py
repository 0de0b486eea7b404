"""Values that other lights take over: aimed at the same points, kept in their units, limited to what the others can do."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import aims, attributes, stage
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

FARTHEST_M = 60.0
"""A beam that meets the floor farther away than this points into the air: its direction is kept, not its point."""


def points_of(rig: Rig, lights: Ints, pan: Floats, tilt: Floats) -> tuple[Floats, Floats, Bools]:
    """Of lights (n,) at pan and tilt (n,): where their beams meet the floor (n, 3), their directions (n, 3), whether they do."""
    way = stage.direction(pan, tilt, rig.mounting[lights])
    points, hits = stage.landing(rig.heads.places[lights], way, 2, 0.0)
    return points, way, hits & (np.linalg.norm(points - rig.heads.places[lights], axis=1) <= FARTHEST_M)


def aimed_alike(before: Rig, lights: Ints, pan: Floats, tilt: Floats, after: Rig, others: Ints) -> aims.Aimed:
    """Pan and tilt of `others` (n,) of a rig, with which they light the points of the floor that `lights` (n,) of another rig
    light at pan and tilt (n,); where a beam goes into the air, along the same direction. The way that is nearest to the angles
    there were."""
    points, way, hits = points_of(before, lights, pan, tilt)
    points = np.where(hits[:, None], points, after.heads.places[others] + way * 10)
    return aims.aimed(after, others, points, pan, tilt)


@dataclass(frozen=True)
class Limited:
    """Values (n,) in natural units within what lights can do, and which of them had to be limited (n,)."""

    values: Floats
    changed: Bools


def limited(rig: Rig, attribute: str, lights: Ints, values: Floats) -> Limited:
    """Values (n,) of an attribute, each within the range of its light."""
    row = attributes.INDEX[attribute]
    if attributes.ATTRIBUTES[row].circle:
        return Limited(values, np.zeros(len(values), bool))
    found = np.clip(values, rig.low[row, lights], rig.high[row, lights])
    return Limited(found, np.abs(found - values) > 1e-9)
