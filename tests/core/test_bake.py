"""Baked effects, re-played."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.head_sets import row_of_heads
from tests.thoroughness import thorough
from zarabanda.core.explain import bake, weave
from zarabanda.core.rig import attributes
from zarabanda.demo.library import LIBRARY
from zarabanda.formats import effect_document


@pytest.mark.parametrize("document", LIBRARY, ids=lambda document: document["name"])
def test_frames_are_the_effect_and_steps_stay_within_their_error(document):
    effect = effect_document.read(document).to_core()
    head_set = row_of_heads(4, {"intensity": 20.0, "red": 1.0, "green": 0.3, "blue": 0.0})
    made = bake.frames(effect, head_set, bpm=96, rate=40)
    assert np.diff(made.times).max() <= 1 / 40 + 1e-9
    values = weave.over_time(effect, head_set, weave.theta_at(effect, made.times, 96)).values
    for name, baked in made.values.items():
        np.testing.assert_array_equal(baked, values[:, attributes.INDEX[name]])
        error = attributes.BY_NAME[name].span / 50
        few = bake.steps(made.times, baked[:, 1], error)
        replayed = np.interp(made.times, few.times, few.values)
        assert np.abs(replayed - baked[:, 1]).max() <= error + 1e-9
        assert few.error == pytest.approx(np.abs(replayed - baked[:, 1]).max())
        assert len(few.times) <= len(made.times)


@thorough(60)
@given(st.lists(st.floats(0, 100), min_size=2, max_size=40), st.floats(0.01, 60))
def test_steps_keep_their_promise_whatever_the_values(values, error):
    times = np.arange(len(values)) / 10
    few = bake.steps(times, np.array(values), error)
    replayed = np.interp(times, few.times, few.values)
    assert np.abs(replayed - values).max() <= error + 1e-6
    assert few.times[0] == 0
    assert few.times[-1] == times[-1]


def test_a_straight_line_is_two_steps_and_a_corner_is_three():
    times = np.arange(21) / 20
    assert len(bake.steps(times, times * 40, 0.01).times) == 2
    assert bake.steps(times, np.abs(times - 0.5), 0.001).times.tolist() == [0, 0.5, 1]
