"""Waveforms, stops and paths against values worked by hand."""

import numpy as np
import pytest

from zarabanda.core.effects import paths, stops, waveforms

WAVES = [
    ("sine", 0.25, 1.0), ("sine", 0.75, 0.0), ("swell", 0.5, 1.0), ("triangle", 0.25, 0.5), ("rise", 0.3, 0.3),
    ("fall", 0.3, 0.7), ("square", 0.9, 1.0), ("strike", 0.0, 1.0), ("strike", 1.0, 0.0),
]  # fmt: skip


@pytest.mark.parametrize(("shape", "p", "level"), WAVES)
def test_shapes(shape, p, level):
    assert waveforms.SHAPES[shape].value(np.array([p]))[0] == pytest.approx(level)


@pytest.mark.parametrize(("p", "level"), [(0.0, 0), (0.05, 0.5), (0.1, 1), (0.25, 1), (0.35, 0.5), (0.4, 0), (0.7, 0)])
def test_soft_square(p, level):
    assert waveforms.soft_square(np.array([p]), np.array([0.4]), np.array([0.5]))[0] == pytest.approx(level)


def test_a_fully_soft_square_is_a_triangle():
    p = np.linspace(0, 1, 101)[:-1]
    soft = waveforms.soft_square(p, np.ones(100), np.ones(100))
    np.testing.assert_allclose(soft, waveforms.SHAPES["triangle"].value(p), atol=1e-12)


def test_a_smooth_curve_does_not_overshoot():
    points = ((0.0, 0.0), (0.1, 1.0), (0.2, 1.0), (1.0, 0.0))
    level = waveforms.curve(points, smooth=True)(np.linspace(0, 1, 500))
    assert level.min() >= -1e-12
    assert level.max() <= 1 + 1e-12


def test_stops_leave_the_last_and_travel_to_the_first():
    times = stops.stop_times([1, 0, 1], [1, 1, 0], ["linear", "linear", "snap"])
    to, way = stops.stop_at(times, np.array([0.0, 0.125, 0.3, 0.5, 0.75, 0.999]))
    assert to.tolist() == [0, 0, 0, 1, 2, 2]
    np.testing.assert_allclose(way, [0, 0.5, 1, 1, 1, 1])


@pytest.mark.parametrize("path", paths.PATHS)
def test_figures_fill_their_box(path):
    points = [(0, 0), (3, 1), (2, 4), (-1, 2)]
    x, y = paths.figure(path, 40, 20, corners=5, points=points)(np.linspace(0, 1, 20001))
    tall = 0 if path == "line" else 20
    assert x.max() - x.min() == pytest.approx(40, abs=2e-3)
    assert y.max() - y.min() == pytest.approx(tall, abs=2e-3)
    assert (x.max() + x.min()) / 2 == pytest.approx(0, abs=2e-3)


@pytest.mark.parametrize("path", ["polygon", "free"])
def test_outlines_are_walked_at_one_speed(path):
    at = paths.figure(path, 30, 70, corners=3, points=[(0, 0), (3, 1), (2, 4), (-1, 2)], rotation=20)
    x, y = at(np.linspace(0, 1, 4001))
    steps = np.hypot(np.diff(x), np.diff(y))
    # across a corner a step is cut short
    assert np.sort(steps)[5] == pytest.approx(steps.max(), rel=2e-3)


def test_dwell_rests_at_the_corners():
    x, y = paths.figure("polygon", 10, 10, corners=4, dwell=0.8)(np.linspace(0, 1, 1001)[:-1])
    still = (np.hypot(np.diff(x), np.diff(y)) < 1e-9).mean()
    assert still == pytest.approx(0.8, abs=0.01)
    assert (x[0], y[0]) == pytest.approx((5, 0))


def test_turning_is_counter_clockwise():
    x, y = paths.figure("line", 10, 0, rotation=90)(np.array([0.25]))
    assert (x[0], y[0]) == pytest.approx((0, 5))
