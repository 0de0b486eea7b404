"""Canvases: where cells are, how large, and what of a raster each takes."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.thoroughness import thorough
from zarabanda.core.pixels.canvas import on_grid, on_stage
from zarabanda.core.pixels.sampling import Raster
from zarabanda.errors import ZarabandaError
from zarabanda.formats.pixel_document import ORDERS


def areas(canvas):
    return np.round(np.column_stack([canvas.left, canvas.top, canvas.right, canvas.bottom]), 4).tolist()


def test_cells_on_stage_reach_half_the_way_to_their_neighbours():
    places = np.array([[0.0, 0, 2], [1, 0, 2], [3, 0, 2]])
    canvas = on_stage(np.arange(3), places, "front")
    # 1 m between the first two, 2 m to the third: half of each; nothing above or below, so as tall as they are wide
    assert canvas.right - canvas.left == pytest.approx(np.array([1, 1.5, 2]) / 4.5)
    assert canvas.bottom - canvas.top == pytest.approx(np.array([1, 1.5, 2]) / 4.5)
    assert (canvas.width, areas(canvas)[0][0], areas(canvas)[2][2]) == (1, 0, 1)


def test_a_gap_between_fixtures_belongs_to_no_cell():
    x = np.concatenate([np.arange(4) * 0.1, 3 + np.arange(4) * 0.1])
    canvas = on_stage(np.arange(8), np.column_stack([x, np.zeros(8), np.ones(8)]), "front")
    widths = canvas.right - canvas.left
    assert widths == pytest.approx(np.full(8, widths[0]))
    assert canvas.bottom - canvas.top == pytest.approx(widths)


def test_a_single_cell_is_the_whole_canvas_and_the_plan_is_seen_from_above():
    one = on_stage(np.array([5]), np.array([[3.0, 2, 1]]), "front")
    assert areas(one) == [[0, 0, 1, 1]]
    plan = on_stage(np.arange(2), np.array([[0.0, 0, 9], [0, 4, 1]]), "plan")
    assert plan.v[1] < plan.v[0], "upstage is above"


@pytest.mark.parametrize("order", ORDERS)
def test_every_order_of_a_grid_has_each_box_once(order):
    canvas = on_grid(np.arange(12), 4, 3, order, 0.2, 0.5)
    assert len(set(zip(canvas.u.round(3).tolist(), canvas.v.round(3).tolist(), strict=True))) == 12
    first = canvas.u[0] < 0.5, canvas.v[0] < canvas.height / 2
    assert first == ("left" in order, "top" in order)
    assert canvas.right - canvas.left == pytest.approx(np.full(12, 0.8 / 4))


def test_more_cells_than_boxes_are_refused():
    with pytest.raises(ZarabandaError, match="do not fit on 2 × 2"):
        on_grid(np.arange(5), 2, 2)


@thorough(40)
@given(
    st.lists(st.tuples(st.floats(-9, 9), st.floats(0, 5)), min_size=1, max_size=40, unique=True), st.sampled_from([8, 64, 256])
)
def test_what_cells_take_of_a_raster_sums_to_one(places, most):
    x, z = np.array(places).T
    canvas = on_stage(np.arange(len(x)), np.column_stack([x, np.zeros(len(x)), z]), "front")
    raster = Raster(canvas, most)
    assert max(raster.shape) <= max(most, 1)
    assert raster.weights.sum(axis=1) == pytest.approx(np.ones(len(x)), abs=1e-3)
    u, _ = raster.places
    assert raster.sampled(np.stack([u, np.ones_like(u)]))[1] == pytest.approx(np.ones(len(x)), abs=1e-3)


def test_a_cell_takes_the_mean_over_its_area():
    raster = Raster(on_grid(np.arange(2), 2, 1), 4)
    image = np.array([[0, 1, 2, 3], [4, 5, 6, 7]], np.float32).reshape(1, -1)
    assert raster.shape == (2, 4)
    assert raster.sampled(image).tolist() == [[2.5, 4.5]]
