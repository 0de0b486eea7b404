"""Lights of another rig: for all counts up to forty what is symmetrical stays so, orders are kept, equal rigs are themselves."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from zarabanda.core.rig.matching import (
    by_order,
    by_place,
    from_the_middle,
    from_the_middle_on_stage,
    is_mirrored,
    partners,
    parts_in_lists,
    parts_in_values,
)
from zarabanda.core.rig.modes import Channel, ModeSpec

COUNTS = range(1, 41)


@pytest.mark.parametrize("repeats", [False, True])
@pytest.mark.parametrize("n", COUNTS)
def test_from_the_middle_what_is_symmetrical_stays_symmetrical(n, repeats):
    for m in COUNTS:
        match = from_the_middle(n, m, repeats=repeats)
        assert match.shape == (m,)
        assert match.min() >= 0
        assert match.max() < n
        assert is_mirrored(match, np.arange(n)[::-1], np.arange(m)[::-1])
        symmetrical = np.minimum(np.arange(n), n - 1 - np.arange(n))
        np.testing.assert_array_equal(symmetrical[match], symmetrical[match][::-1])
        if m <= n:
            assert (np.diff(match) > 0).all(), "each once, in order"
            assert abs((match[0] + match[-1]) - (n - 1)) <= 1, "the inner ones"
        elif not repeats:
            assert (np.diff(match) >= 0).all()
            assert set(match.tolist()) == set(range(n)), "none is lost"
        if m == n:
            np.testing.assert_array_equal(match, np.arange(n))


@pytest.mark.parametrize("repeats", [False, True])
@pytest.mark.parametrize("n", COUNTS)
def test_by_order_the_first_stay_the_first(n, repeats):
    for m in COUNTS:
        match = by_order(n, m, repeats=repeats)
        assert match[0] == 0
        np.testing.assert_array_equal(match[: min(n, m)], np.arange(min(n, m))) if m <= n or repeats else None
        if not repeats:
            assert (np.diff(match) >= 0).all()


def ladders(rows, columns, order):
    places = [(x - (columns - 1) / 2, 3.0, 1.0 + z) for x in range(columns) for z in range(rows)]
    return np.array([places[n] for n in order], float)


sizes = st.tuples(st.integers(2, 6), st.integers(2, 6))


@given(sizes, sizes, st.randoms(use_true_random=False), st.booleans())
def test_on_stage_rows_and_columns_are_matched_in_whatever_order_lights_are_chosen(here, there, random, repeats):
    orders = [random.sample(range(rows * columns), rows * columns) for rows, columns in (here, there)]
    old, new = ladders(*here, orders[0]), ladders(*there, orders[1])
    match = from_the_middle_on_stage(old, new, repeats=repeats)
    assert is_mirrored(match, partners(old), partners(new))
    columns = from_the_middle(here[1], there[1], repeats=repeats)
    rows = from_the_middle(here[0], there[0], repeats=repeats)
    for at, (x, _, z) in enumerate(new):
        column, row = round(x + (there[1] - 1) / 2), round(z - 1)
        assert tuple(old[match[at]]) == (columns[column] - (here[1] - 1) / 2, 3.0, 1.0 + rows[row])
    if here == there:
        np.testing.assert_array_equal(old[match], new)


@given(st.integers(1, 20), sizes, st.randoms(use_true_random=False), st.booleans(), st.booleans())
def test_a_row_and_columns_face_each_other_as_before(count, size, random, repeats, back):
    size = (size[0], 2 * size[1])
    row = np.array([(x, 1.0, 2.0) for x in range(count)])
    columns = ladders(*size, random.sample(range(size[0] * size[1]), size[0] * size[1]))
    old, new = (columns, row) if back else (row, columns)
    match = from_the_middle_on_stage(old, new, repeats=repeats)
    assert is_mirrored(match, partners(old), partners(new))


places = st.lists(st.tuples(*[st.integers(-20, 20)] * 3), min_size=1, max_size=12, unique=True)


@given(places, places)
def test_by_place_none_could_be_nearer_without_another_being_further(here, there):
    here, there = np.array(here, float), np.array(there, float)
    match = by_place(here, there)
    far = np.linalg.norm(there[:, None] - here[None], axis=-1)
    chosen = far[np.arange(len(there)), match]
    if len(there) <= len(here):
        assert len(set(match.tolist())) == len(there)
        for i in range(len(there)):
            for j in range(i):
                assert chosen[i] + chosen[j] <= far[i, match[j]] + far[j, match[i]] + 1e-9
    else:
        assert set(match.tolist()) == set(range(len(here)))
    np.testing.assert_array_equal(by_place(here, here), np.arange(len(here)))


def bar(cells, leads):
    channels = [Channel("red", (n,), cell=n + 1) for n in range(cells)]
    own = [Channel("tilt", (cells,))] if leads or not cells else []
    return ModeSpec("any", "bar", "rgb", (*channels, *own), cells + 1, cells=((0.0, 0.0, 0.0),) * cells)


EACH_OF_2 = {0: (0,), 1: (1,), 2: (2,)}
INNER_OF_4 = {1: (), 2: (1,), 3: (2,), 4: ()}
MIDDLE_OF_3 = {1: (), 2: (0,), 3: ()}


@pytest.mark.parametrize(
    ("before", "after", "lists", "of_colour", "of_tilt"),
    [
        ((2, True), (2, True), EACH_OF_2, EACH_OF_2, EACH_OF_2),
        ((4, False), (2, False), INNER_OF_4, INNER_OF_4, INNER_OF_4),
        ((3, True), (0, False), {0: (0,), **MIDDLE_OF_3}, {0: (0,), 1: (), 2: (), 3: ()}, {0: (0,), **MIDDLE_OF_3}),
        ((0, False), (3, True), {0: (1, 2, 3)}, {0: (1, 2, 3)}, {0: (0,)}),
        ((2, False), (3, True), {1: (1, 2), 2: (3,)}, {1: (1, 2), 2: (3,)}, {1: (1, 2), 2: (3,)}),
    ],
)  # fmt: skip
def test_parts_match_inside_their_fixtures(before, after, lists, of_colour, of_tilt):
    pair = bar(*before), bar(*after)
    assert parts_in_lists(*pair) == lists
    assert parts_in_values(*pair, "red") == of_colour
    assert parts_in_values(*pair, "tilt") == of_tilt


def test_a_match_needs_lights_on_both_sides():
    for make in (from_the_middle, by_order):
        with pytest.raises(ValueError, match="lights on both sides"):
            make(0, 3)
