"""Where a beam points: pan and tilt to a direction on stage, to a point on a plane, and back.

Stage axes: x to the right seen from the audience, y upstage, z up, metres. A standing fixture at pan 0, tilt 0 points
straight up; positive tilt leans to the audience, positive pan turns the head counter-clockwise seen from its lens side
of the base. A hanging fixture is turned half round about the y axis, a side-mounted one by a quarter.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

MOUNTINGS: dict[str, tuple[float, float, float]] = {
    "standing": (0.0, 0.0, 0.0),
    "hanging": (0.0, 180.0, 0.0),
    "on the left": (0.0, 90.0, 0.0),
    "on the right": (0.0, -90.0, 0.0),
}
"""Rotation of a fixture's base about x, y and z in degrees, for each way of mounting it."""


def rotation(x_deg: float, y_deg: float, z_deg: float) -> Floats:
    """Rotation matrix (3, 3): about x, then y, then z, right-handed, of column vectors."""
    (cx, cy, cz), (sx, sy, sz) = np.cos(np.radians([x_deg, y_deg, z_deg])), np.sin(np.radians([x_deg, y_deg, z_deg]))
    about_x = np.array([[1, 0, 0], [0, cx, -sx], [0, sx, cx]])
    about_y = np.array([[cy, 0, sy], [0, 1, 0], [-sy, 0, cy]])
    about_z = np.array([[cz, -sz, 0], [sz, cz, 0], [0, 0, 1]])
    return np.asarray(about_z @ about_y @ about_x)


def angles(turn: Floats) -> tuple[float, float, float]:
    """Degrees about x, then y, then z that give a rotation matrix (3, 3): of the two ways, the one that turns less.

    >>> angles(rotation(0, 180, 0))
    (0.0, 180.0, 0.0)
    """
    up = float(np.clip(-turn[2, 0], -1, 1))
    if abs(up) > 1 - 1e-9:  # about y by a quarter: x and z turn about the same axis, z is left out
        ways = [(np.arctan2(turn[0, 1] * np.sign(up), turn[1, 1]), np.arcsin(up), 0.0)]
    else:
        first = (np.arctan2(turn[2, 1], turn[2, 2]), np.arcsin(up), np.arctan2(turn[1, 0], turn[0, 0]))
        ways = [first, (first[0] + np.pi, np.pi - first[1], first[2] + np.pi)]
    degrees = [[(round(float(np.degrees(one)), 6) + 180) % 360 - 180 for one in way] for way in ways]
    x, y, z = min(degrees, key=lambda way: (round(sum(map(abs, way)), 3), abs(way[0])))
    return tuple(180.0 if one == -180 else one + 0.0 for one in (x, y, z))  # type: ignore[return-value]


def direction(pan: Floats, tilt: Floats, mounting: Floats) -> Floats:
    """Unit vectors (n, 3) of beams. pan, tilt: (n,) degrees; mounting: (n, 3, 3) rotation of each base."""
    p, t = np.radians(pan), np.radians(tilt)
    local = np.stack([np.sin(t) * np.sin(p), -np.sin(t) * np.cos(p), np.cos(t)], axis=-1)
    result: Floats = np.einsum("nij,nj->ni", mounting, local)
    return result


def landing(places: Floats, directions: Floats, axis: int, at: float) -> tuple[Floats, NDArray[np.bool_]]:
    """Points (n, 3) where beams hit a plane, and whether they do. axis: 1 for an upright plane at y, 2 for the floor at z.

    A beam that never meets the plane lands 100 m out along its way, and is reported as not hitting.
    """
    along = directions[:, axis]
    with np.errstate(divide="ignore", invalid="ignore"):
        distance = (at - places[:, axis]) / along
    hits = np.isfinite(distance) & (distance > 0)
    return places + directions * np.where(hits, distance, 100.0)[:, None], hits


def towards(places: Floats, mounting: Floats, points: Floats) -> tuple[Floats, Floats, NDArray[np.bool_]]:
    """Pan and tilt ≥ 0 in degrees towards points (..., n, 3), and whether pan matters there (not on the axis)."""
    local = np.einsum("nji,...nj->...ni", mounting, points - places)
    across = np.hypot(local[..., 0], local[..., 1])
    tilt = np.degrees(np.arctan2(across, local[..., 2]))
    return np.degrees(np.arctan2(local[..., 0], -local[..., 1])), tilt, across > 1e-9


def aim(places: Floats, mounting: Floats, points: Floats, near_pan: Floats, near_tilt: Floats) -> tuple[Floats, Floats]:
    """Pan and tilt (n,) in degrees that point from places (n, 3) at points (n, 3).

    Of the two ways to point there (tilt to either side) and all whole turns of pan, the nearest to (near_pan, near_tilt).
    """
    return follow(places, mounting, points[None], near_pan, near_tilt)


def follow(places: Floats, mounting: Floats, points: Floats, near_pan: Floats, near_tilt: Floats) -> tuple[Floats, Floats]:
    """Pan and tilt (n,) at the last of points (steps, n, 3), followed from the first without a jump.

    At the first point: of the two ways to point there and all whole turns of pan, the nearest to (near_pan, near_tilt).
    """
    pan, tilt, matters = towards(places, mounting, points)
    pan = np.where(matters, pan, near_pan)

    def turned(value: Floats) -> Floats:
        return value + 360 * np.round((near_pan - value) / 360)

    pan_1, pan_2 = turned(pan[0]), turned(pan[0] + 180)
    cost_1 = np.abs(pan_1 - near_pan) + np.abs(tilt[0] - near_tilt)
    cost_2 = np.abs(pan_2 - near_pan) + np.abs(-tilt[0] - near_tilt)
    first = cost_1 <= cost_2
    begin = np.where(first, pan_1, pan_2)
    steps = np.diff(pan, axis=0)
    went = (steps - 360 * np.round(steps / 360)).sum(axis=0)
    return begin + went, np.where(first, tilt[-1], -tilt[-1])
