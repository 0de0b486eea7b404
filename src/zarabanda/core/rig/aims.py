"""Lights that are pointed: at one point, beside each other, apart, or mirrored; by inverse kinematics, within what each can."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import stage
from zarabanda.core.rig.abilities import whole
from zarabanda.core.rig.attributes import PAN, TILT
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

_TURNS = np.arange(-2.0, 3.0)
"""Whole turns of pan that are looked at: more than any fixture can do."""
_ON_LINE_M = 1e-6


def _offsets(count: int) -> Floats:
    """Evenly from −½ to ½, in the order of the selection; 0 for one alone."""
    return np.linspace(-0.5, 0.5, count) if count > 1 else np.zeros(1)


def _at_one_point(places: Floats, point: Floats, amount: float) -> Floats:
    return np.array(np.broadcast_to(point, places.shape))


def _parallel(places: Floats, point: Floats, amount: float) -> Floats:
    return np.asarray(places + (point - places.mean(axis=0)))


def _across(places: Floats, point: Floats, amount: float) -> Floats:
    """The first half of `amount` metres to the left of the point, the last as much to the right."""
    return np.asarray(point + _offsets(len(places))[:, None] * np.array([amount, 0.0, 0.0]))


def _by_degrees(places: Floats, point: Floats, amount: float) -> Floats:
    """All along one direction, then turned about the upright axis by −½ to ½ of `amount` degrees."""
    way = point - places.mean(axis=0)
    angle = np.radians(amount) * _offsets(len(places))
    cos, sin = np.cos(angle), np.sin(angle)
    # a beam that points straight down is turned about the y axis instead: about its own axis it would not move
    upright = np.hypot(way[0], way[1]) > 0.2 * np.abs(way[2])
    if upright:
        turned = np.stack([way[0] * cos - way[1] * sin, way[0] * sin + way[1] * cos, np.full(len(places), way[2])], axis=-1)
    else:
        turned = np.stack([way[0] * cos - way[2] * sin, np.full(len(places), way[1]), way[0] * sin + way[2] * cos], axis=-1)
    return np.asarray(places + turned)


def _mirrored(places: Floats, point: Floats, amount: float) -> Floats:
    """Each on its own side of the centre line; one that stands on the line points at the line."""
    side = np.where(np.abs(places[:, 0]) < _ON_LINE_M, 0.0, np.sign(places[:, 0]))
    return np.stack([side * np.abs(point[0]), np.full(len(places), point[1]), np.full(len(places), point[2])], axis=-1)


@dataclass(frozen=True)
class Way:
    """A way to aim. points: where lights at places (n, 3), in the order of the selection, are pointed at (n, 3), from the point
    that a user gives (3,), all in metres, and an amount; unit: of that amount, m or °, empty where none is needed."""

    points: Callable[[Floats, Floats, float], Floats]
    unit: str = ""


WAYS: dict[str, Way] = {
    "at one point": Way(_at_one_point),
    "parallel": Way(_parallel),
    "fanned across": Way(_across, "m"),
    "fanned by degrees": Way(_by_degrees, "°"),
    "mirrored": Way(_mirrored),
}


@dataclass(frozen=True)
class Aimed:
    """Pan and tilt (n,) in degrees of lights that were pointed, and whether each can reach its point; one that cannot is turned
    as near to it as it can."""

    pan: Floats
    tilt: Floats
    reached: Bools


def aimed(rig: Rig, lights: Ints, points: Floats, near_pan: Floats, near_tilt: Floats, *, other_way: bool = False) -> Aimed:
    """Point `lights` (n,) of the rig at points (n, 3).

    Of the two ways to point somewhere (tilt to either side), and of all whole turns of pan that the fixture can do, the nearest
    to (near_pan, near_tilt), each (n,); other_way: the other of the two, where it can be reached.
    """
    places, mounting = rig.heads.places[lights], rig.mounting[lights]
    able, home = rig.heads.has[[PAN, TILT]][:, lights], rig.home[[PAN, TILT]][:, lights]
    low = np.where(able, rig.low[[PAN, TILT]][:, lights], home)
    high = np.where(able, rig.high[[PAN, TILT]][:, lights], home)
    pan, tilt, matters = stage.towards(places, mounting, points)
    pan = np.where(matters, pan, near_pan)
    pans = np.stack([pan, pan + 180])[:, None] + 360 * _TURNS[None, :, None]  # (2 ways, turns, n)
    tilts = np.broadcast_to(np.stack([tilt, -tilt])[:, None], pans.shape)
    beyond = np.maximum(0, low[0] - pans) + np.maximum(0, pans - high[0])
    beyond = beyond + np.maximum(0, low[1] - tilts) + np.maximum(0, tilts - high[1])
    far = np.abs(pans - near_pan) + np.abs(tilts - near_tilt)
    cost = far + 1e6 * np.where(beyond > 1e-6, 1 + beyond, 0)
    best_turn = cost.argmin(axis=1)  # (2 ways, n)
    each = np.arange(len(lights))
    way_cost = np.take_along_axis(cost, best_turn[:, None], axis=1)[:, 0]
    nearest = way_cost.argmin(axis=0)
    way = np.where(way_cost[1 - nearest, each] < 1e6, 1 - nearest, nearest) if other_way else nearest
    turn = best_turn[way, each]
    chosen = pans[way, turn, each], tilts[way, turn, each]
    reached = beyond[way, turn, each] <= 1e-6
    return Aimed(np.clip(chosen[0], low[0], high[0]), np.clip(chosen[1], low[1], high[1]), reached)


@dataclass(frozen=True)
class Pointed:
    """Lights (n,) that turn, of those that were pointed at one point: pan and tilt in degrees, whether each reaches it, and by
    how many metres its beam passes beside the point."""

    lights: Ints
    pan: Floats
    tilt: Floats
    reached: Bools
    beside_m: Floats


def pointed(rig: Rig, heads: Ints, point: tuple[float, float, float]) -> Pointed:
    """Heads (n,), or what turns them, pointed at one point in m, from home by the nearest way."""
    every = np.unique(np.concatenate([heads, whole(rig, heads)]))
    lights = every[rig.heads.has[[PAN, TILT]][:, every].any(axis=0)]
    at = np.broadcast_to(np.array(point, float), (len(lights), 3))
    found = aimed(rig, lights, at, rig.home[PAN, lights], rig.home[TILT, lights])
    way = at - rig.heads.places[lights]
    beam = stage.direction(found.pan, found.tilt, rig.mounting[lights])
    along = np.maximum((way * beam).sum(axis=1), 0.0)
    beside = np.linalg.norm(way - along[:, None] * beam, axis=1)
    return Pointed(lights, found.pan, found.tilt, found.reached, beside)
