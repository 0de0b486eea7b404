"""Lights that are pointed: where the beams land, for every way and mounting; and who cannot reach."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.aims import WAYS, aimed
from zarabanda.core.rig.modes import Channel, ModeSpec
from zarabanda.core.rig.rig import FixtureSpec, build

PAN, TILT = attributes.PAN, attributes.TILT


def spot(pan=270.0, tilt=135.0):
    channels = (Channel("pan", (0,), -pan, pan), Channel("tilt", (1,), -tilt, tilt), Channel("intensity", (2,), 0, 100))
    return ModeSpec("spot", "spot", "none", channels, 3, limits={"pan": (-pan, pan, 0), "tilt": (-tilt, tilt, 0)})


def rig_of(places, rotations=None, mode=None):
    turns = rotations or [stage.MOUNTINGS["hanging"]] * len(places)
    return build([
        FixtureSpec(n + 1, "", mode or spot(), tuple(place), tuple(turn), 1, 1 + 3 * n)
        for n, (place, turn) in enumerate(zip(places, turns, strict=True))
    ])  # fmt: skip


def landed(rig, lights, found, points):
    """How far from each point its beam passes, in m: measured along the beam."""
    directions = stage.direction(found.pan, found.tilt, rig.mounting[lights])
    to = points - rig.heads.places[lights]
    along = np.einsum("ni,ni->n", to, directions)
    assert (along > 0).all()
    return np.linalg.norm(to - along[:, None] * directions, axis=1)


PLACE = st.tuples(st.floats(-8, 8), st.floats(-4, 8), st.floats(0, 9))
TURN = st.one_of(
    st.sampled_from(list(stage.MOUNTINGS.values())), st.tuples(st.floats(-180, 180), st.floats(-180, 180), st.floats(-180, 180))
)


@given(
    st.lists(st.tuples(PLACE, TURN), min_size=1, max_size=7), PLACE, st.sampled_from(list(WAYS)), st.floats(-60, 60),
    st.floats(-200, 200), st.floats(-100, 100), st.booleans(),
)  # fmt: skip
def test_the_beam_lands_where_it_is_aimed_or_says_that_it_cannot(lights, point, way, amount, pan, tilt, other):
    rig = rig_of([place for place, _ in lights], [turn for _, turn in lights])
    numbers = np.arange(len(lights))
    points = WAYS[way].points(rig.heads.places[numbers], np.array(point), amount)
    near = np.full(len(lights), pan), np.full(len(lights), tilt)
    found = aimed(rig, numbers, points, *near, other_way=other)
    far = np.linalg.norm(points - rig.heads.places[numbers], axis=1) > 0.01
    good = found.reached & far
    assert (landed(rig, numbers[good], _only(found, good), points[good]) < 0.01).all()
    assert ((rig.low[PAN] <= found.pan) & (found.pan <= rig.high[PAN])).all()
    assert ((rig.low[TILT] <= found.tilt) & (found.tilt <= rig.high[TILT])).all()


def _only(found, chosen):
    return type(found)(found.pan[chosen], found.tilt[chosen], found.reached[chosen])


def test_the_nearer_of_two_ways_is_taken_and_the_other_at_will():
    rig, lights = rig_of([(0, 0, 6)]), np.array([0])
    point = np.array([[2.0, -3.0, 0.0]])
    near = aimed(rig, lights, point, np.array([0.0]), np.array([10.0]))
    other = aimed(rig, lights, point, np.array([0.0]), np.array([10.0]), other_way=True)
    assert near.tilt[0] == pytest.approx(-other.tilt[0])
    assert abs(near.pan[0] - other.pan[0]) == pytest.approx(180)
    again = aimed(rig, lights, point, near.pan + 3, near.tilt - 2)
    assert (again.pan[0], again.tilt[0]) == (pytest.approx(near.pan[0]), pytest.approx(near.tilt[0]))
    far = aimed(rig, lights, point, near.pan + 350, near.tilt)
    assert -270 <= far.pan[0] <= 270


def test_a_light_that_cannot_reach_is_turned_as_near_as_it_can():
    rig = rig_of([(0, 0, 6), (4, 0, 6)], mode=spot(pan=270, tilt=30))
    found = aimed(rig, np.array([0, 1]), np.array([[0.0, -1.0, 0.0], [0.0, -20.0, 3.0]]), np.zeros(2), np.zeros(2))
    assert found.reached.tolist() == [True, False]
    assert abs(found.tilt[1]) == 30


@pytest.mark.parametrize(
    ("way", "amount", "wanted"),
    [
        ("at one point", 0, [(1, -2, 0)] * 3), ("fanned across", 6, [(-2, -2, 0), (1, -2, 0), (4, -2, 0)]),
        ("mirrored", 0, [(-1, -2, 0), (0, -2, 0), (1, -2, 0)]), ("parallel", 0, [(-3, -2, 0), (1, -2, 0), (5, -2, 0)]),
    ],
)  # fmt: skip
def test_each_way_has_its_points(way, amount, wanted):
    places = np.array([(-4.0, 0, 6), (0, 0, 6), (4, 0, 6)])
    assert WAYS[way].points(places, np.array([1.0, -2.0, 0.0]), amount) == pytest.approx(np.array(wanted, float))


@pytest.mark.parametrize("point", [(1.0, -6.0, 0.0), (0.5, 0.0, 0.0)])
def test_a_fan_by_degrees_has_these_degrees_between_its_outermost(point):
    places = np.array([(0.0, 0, 6)] * 5)
    ways = WAYS["fanned by degrees"].points(places, np.array(point), 40.0) - places
    if point[1]:  # seen from above, where the beams are not upright
        ways[:, 2] = 0
    first, last = ways[0] / np.linalg.norm(ways[0]), ways[-1] / np.linalg.norm(ways[-1])
    assert np.degrees(np.arccos(first @ last)) == pytest.approx(40, abs=0.5)
