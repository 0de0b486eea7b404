"""Paths in metres on the stage."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.head_sets import row_of_heads
from tests.thoroughness import thorough
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes, stage
from zarabanda.formats import effect_document

HANGING = stage.rotation(*stage.MOUNTINGS["hanging"])[None]


def path(plane="floor", at=0.0, **more):
    form = {"kind": "path", "path": "circle", "width": 2.0, "height": 1.0, "plane": plane, "plane_at": at} | more
    return {"name": "on stage", "layers": [{"attribute": "position", "form": form}], "spread": {"kind": "ripple", "degrees": 0}}


def landings(document, theta, plane="floor", at=0.0, pan=0.0, tilt=30.0):
    head_set = row_of_heads(1, {"pan": pan, "tilt": tilt})
    raw = weave.over_time(effect_document.read(document).to_core(), head_set, np.asarray(theta)).raw
    turns = raw[:, [attributes.PAN, attributes.TILT], 0]
    direction = stage.direction(turns[:, 0], turns[:, 1], np.repeat(HANGING, len(turns), axis=0))
    axis = 2 if plane == "floor" else 1
    points, hits = stage.landing(np.repeat(head_set.heads.places, len(turns), axis=0), direction, axis, at)
    return points, hits, turns


@pytest.mark.parametrize(("plane", "at", "tilt"), [("floor", 0.0, 30.0), ("floor", 1.5, -40.0), ("upright", -4.0, 60.0)])
def test_the_beam_draws_the_figure_in_metres_round_where_it_hit(plane, at, tilt):
    theta = np.linspace(0, 1, 81)
    points, hits, turns = landings(path(plane, at), theta, plane, at, tilt=tilt)
    middle = landings(path(plane, at, width=0.0, height=0.0), [0.0], plane, at, tilt=tilt)[0][0]
    second = 1 if plane == "floor" else 2
    assert hits.all()
    np.testing.assert_allclose(points[:, 0] - middle[0], np.cos(2 * np.pi * theta), atol=1e-9)
    np.testing.assert_allclose(points[:, second] - middle[second], 0.5 * np.sin(2 * np.pi * theta), atol=1e-9)
    assert np.abs(np.diff(turns, axis=0)).max() < 30, "no jumps"


def test_without_size_the_base_stays_as_it_is():
    _, _, turns = landings(path(width=0.0, height=0.0), [0.0, 0.3, 0.9], pan=33.0, tilt=-25.0)
    np.testing.assert_allclose(turns, [[33, -25]] * 3, atol=1e-9)


def test_a_beam_that_does_not_hit_the_plane_stays_at_its_base():
    _, _, turns = landings(path(), [0.1, 0.6], tilt=130.0)
    np.testing.assert_allclose(turns, [[0, 130]] * 2)


@thorough(60)
@given(st.floats(-150, 150), st.floats(5, 60), st.floats(0, 1))
def test_small_steps_in_time_are_small_steps_of_pan_and_tilt(pan, tilt, p):
    _, _, turns = landings(path(width=0.5, height=0.5), [p, min(p + 1e-4, 1.0)], pan=pan, tilt=tilt)
    assert np.abs(turns[1] - turns[0]).max() < 2
