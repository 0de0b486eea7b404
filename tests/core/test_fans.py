"""Fans: values over an ordered selection, as tables, and dragging as a property."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as some

from zarabanda.core.eases import EASES
from zarabanda.core.selection.fans import FIXED, Fan, spread

TABLE = [
    (Fan(-20, 20), 5, [-20, -10, 0, 10, 20]),
    (Fan(0, 40, fixed="first", ease="slow-start"), 3, [0, 10, 40]),
    (Fan(0, 40, fixed="last", ease="slow-start"), 3, [0, 30, 40]),  # the slow end is at the fixed point
    (Fan(0, 40, fixed="middle", ease="slow-start"), 5, [0, 15, 20, 25, 40]),
    (Fan(10, 10, bow=6, fixed="both ends"), 5, [10, 13, 16, 13, 10]),
    (Fan(0, 8, bow=4, fixed="both ends", ease="slow-end"), 5, [0, 5, 8, 9, 8]),
    (Fan(0, 20, parts=2, mirror=True), 6, [0, 10, 20, 20, 10, 0]),
    (Fan(0, 20, parts=2), 6, [0, 10, 20, 0, 10, 20]),
    (Fan(0, 20, parts=2, mirror=True), 5, [0, 10, 20, 10, 0]),
    (Fan(0, 300), 4, [0, 100, 200, 300]),
    (Fan(4, 8, fixed="first"), 1, [4]),
    (Fan(4, 8, fixed="last"), 1, [8]),
    (Fan(4, 8), 1, [6]),
    (Fan(4, 8), 0, []),
]


@pytest.mark.parametrize(("fan", "count", "values"), TABLE)
def test_values_over_a_selection(fan, count, values):
    assert fan.values(count) == pytest.approx(np.array(values, float))


degrees = some.floats(-180, 180).map(lambda x: round(x, 2))
fans = some.builds(
    Fan, degrees, degrees, some.just(0.0), some.sampled_from(sorted(FIXED)), some.sampled_from(sorted(EASES)),
    some.integers(1, 4), some.booleans(),
)  # fmt: skip


@given(fan=fans, count=some.integers(1, 12), data=some.data())
def test_a_dragged_head_has_the_value_and_the_fixed_point_stays(fan, count, data):
    rank, value = data.draw(some.integers(0, count - 1)), data.draw(degrees)
    now = fan.dragged(count, rank, value)
    x = fan.places(count)
    anchors = {"first": [0.0], "last": [1.0], "middle": [0.5], "both ends": [0.0, 1.0]}[fan.fixed]
    at_anchor = min(abs(x[rank] - one) for one in anchors) < 1e-6
    reach = abs(EASES[fan.ease](abs(x[rank] - anchors[0]) * (2 if fan.fixed == "middle" else 1)))
    if not at_anchor and reach > 0.25:  # nearer to it, a hand cannot pull the ends as far as it wants
        assert now.values(count)[rank] == pytest.approx(value, abs=1e-6)
        for one in np.flatnonzero(np.isin(x, anchors)):
            assert now.values(count)[one] == pytest.approx(fan.values(count)[one], abs=1e-6)
    if at_anchor:
        assert now.values(count)[rank] == pytest.approx(value, abs=1e-6)


@pytest.mark.parametrize(("fixed", "kept"), [("first", [0]), ("last", [-1]), ("middle", [2]), ("both ends", [0, -1])])
def test_a_new_fan_leaves_its_fixed_point_where_it_is(fixed, kept):
    before = np.array([5.0, 5, 5, 5, 5])
    after = spread(before, fixed, 20).values(5)
    assert all(after[n] == pytest.approx(5) for n in kept)
    assert np.ptp(after) == pytest.approx(20)
