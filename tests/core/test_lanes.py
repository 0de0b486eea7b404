"""Orders and lanes."""

import numpy as np
import pytest

from zarabanda.core.effects import lanes
from zarabanda.core.selection import orders

PLACES = np.array([[3, 0, 1], [1, 2, 1], [2, 1, 0], [1, 0, 2], [0, 0, 0]], float)


@pytest.mark.parametrize(
    ("steps", "order"),
    [
        (["as-picked"], [0, 1, 2, 3, 4]),
        (["reversed"], [4, 3, 2, 1, 0]),
        (["left-to-right"], [4, 1, 3, 2, 0]),
        (["front-to-back"], [0, 3, 4, 2, 1]),
        (["low-to-high"], [2, 4, 0, 1, 3]),
        (["centre-out"], [2, 1, 3, 0, 4]),
        (["ends-in"], [0, 4, 1, 3, 2]),
        (["odd-then-even"], [0, 2, 4, 1, 3]),
        (["left-to-right", "centre-out"], [3, 1, 2, 4, 0]),
    ],
)
def test_orders(steps, order):
    assert orders.ordered(steps, PLACES).tolist() == order


def test_round_the_middle_goes_round():
    ring = np.array([[np.cos(a), np.sin(a), 0] for a in (3, 1, 5, 0.2)])
    assert orders.ordered(["round-the-middle"], ring).tolist() == [3, 1, 0, 2]


def test_shuffled_is_a_permutation_that_depends_on_the_seed():
    first, second = (orders.ordered(["shuffled"], np.zeros((20, 3)), seed).tolist() for seed in (1, 2))
    assert sorted(first) == list(range(20))
    assert first != second


@pytest.mark.parametrize(
    ("heads", "options", "expected"),
    [
        (5, {"parts": 2, "mirror": True}, [0, 1, 2, 1, 0]),
        (9, {"parts": 2, "mirror": True, "pack": 2}, [0, 0, 1, 1, 2, 1, 1, 0, 0]),
        (6, {"repeat": 4}, [0, 1, 2, 3, 0, 1]),
        (4, {"reverse": True}, [3, 2, 1, 0]),
        (6, {"parts": 2, "mirror": True, "reverse": True}, [2, 1, 0, 0, 1, 2]),
        (3, {"parts": 4, "mirror": True}, [0, 0, 0]),
        (0, {"parts": 2}, []),
    ],
)
def test_lanes(heads, options, expected):
    assert lanes.lane_map(heads, **options).lane.tolist() == expected
