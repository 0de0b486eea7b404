"""Figures at a few places worked out by hand, and what holds of every figure with every motion."""

import tracemalloc

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.thoroughness import thorough
from zarabanda.core.pixels import noise
from zarabanda.core.pixels.canvas import on_grid
from zarabanda.core.pixels.colouring import Colouring
from zarabanda.core.pixels.figures import FIGURES, Heard
from zarabanda.core.pixels.layers import EVERY_FIGURE, Finish, Layer, Moment, Painter
from zarabanda.core.pixels.places import MOTIONS, Points, Rect, folded, in_rect, repeated
from zarabanda.core.pixels.settings import filled


def at(*places, w=1.0, h=0.5, outward=None):
    """Points of a picture that is 1 wide and ½ tall."""
    x, y = np.array(places, np.float32).T
    return Points(x, y, w, h, outward)


def drawn(figure, points, theta=0.0, heard=None, **how):
    kind = FIGURES[figure]
    value, cover = kind.evaluate(points, theta, filled(kind.settings, how), 7, heard or Heard())
    return np.round(value, 4).tolist(), np.round(cover, 4).tolist()


LOUD = Heard(np.linspace(0, 1, 32, dtype=np.float32), np.full(32, 0.9, np.float32))
BY_HAND = [
    ("even", at((0.1, 0.1), (0.9, 0.4)), {}, [1, 1], [1, 1]),
    ("slope", at((0, 0.2), (0.25, 0.2), (1, 0.2)), {"direction": 0.0}, [0, 0.25, 1], [1, 1, 1]),
    ("slope", at((0.3, 0), (0.3, 0.125), (0.3, 0.5)), {"direction": 90.0}, [0, 0.25, 1], [1, 1, 1]),
    # two bars, each in the middle of half the picture and half of that wide: at 0.25 ± 0.125
    ("bars", at((0.25, 0), (0.3, 0), (0.05, 0)), {"number": 2, "width": 0.5, "soft": 0.0, "tail": 0.0}, [1, 1, 0], [1, 1, 0]),
    # a soft edge falls from 1 to 0 over half of half its width: one eighth before its edge it is half
    ("bars", at((0.5, 0), (0.75, 0), (0.6875, 0)), {"number": 1, "width": 0.5, "soft": 0.5, "tail": 0.0}, [1, 0, 0.5],
     [1, 0, 0.5]),
    # a tail of ½ behind a bar whose back is at 0.4: at 0.2 it has fallen by 0.2 / 0.5
    ("bars", at((0.2, 0), (0.5, 0)), {"number": 1, "width": 0.2, "soft": 0.0, "tail": 0.5}, [0.6, 1], [0.6, 1]),
    ("squares", at((0.1, 0.1), (0.6, 0.1), (0.6, 0.4)), {"columns": 2, "rows": 2}, [0, 1, 0], [1, 1, 1]),
    ("squares", at((0.25, 0.125), (0.02, 0.125)), {"columns": 2, "rows": 2, "share": 0.5}, [0, 0], [1, 0]),
    # from the middle to a corner it is √(½² + ¼²): one ring in the middle of that
    ("rings", at((0.5, 0.25), (0.5 + 0.25, 0.25 + 0.125)), {"number": 1, "width": 0.5, "soft": 0.0}, [0, 1], [0, 1]),
    ("rays", at((0.9, 0.25), (0.5, 0.45)), {"number": 2, "width": 0.4, "soft": 0.0}, [1, 0], [1, 0]),
    ("level", at((0.3, 0.4), (0.3, 0.1)), {"lowest": 0.5, "highest": 0.5, "peaks": 0.0}, [0.2, 0.8], [1, 0]),
    ("bands", at((0.99, 0.05), (0.01, 0.4)), {"number": 32, "peaks": 0.0}, [0.9, 0.2], [1, 0]),
]  # fmt: skip


@pytest.mark.parametrize(
    ("figure", "points", "how", "value", "cover"), BY_HAND, ids=lambda one: one if isinstance(one, str) else ""
)
def test_figures_give_what_was_worked_out_by_hand(figure, points, how, value, cover):
    found = drawn(figure, points, heard=LOUD, **how)
    assert found[0] == pytest.approx(value, abs=1e-3)
    assert found[1] == pytest.approx(cover, abs=1e-3)


def test_rings_grow_by_a_whole_ring_in_a_cycle_and_gathering_has_all_cells_before_its_pause():
    line = at(*[(n / 20, 0.25) for n in range(20)])
    still, grown = (drawn("rings", at(*[(n / 20, 0.25) for n in range(20)], outward=by)) for by in (0.0, 2.0))
    assert still == grown
    assert drawn("gathering", line, 0.0, pause=0.25)[1] == pytest.approx([0] * 20)
    assert drawn("gathering", line, 0.75, pause=0.25)[1] == pytest.approx([1] * 20)
    assert drawn("gathering", line, 0.999, pause=0.25)[1] == pytest.approx([1] * 20)


def test_flames_are_hot_at_the_bottom_and_out_above_their_height():
    column = at(*[(0.5, y) for y in np.linspace(0, 0.5, 9)])
    levels = np.mean([drawn("flames", column, theta, height=0.4)[0] for theta in np.linspace(0, 9, 40)], axis=0)
    assert levels[-1] > 0.7
    assert levels[0] == levels[1] == 0
    assert (np.diff(levels) >= -0.05).all()


@given(st.lists(st.tuples(st.integers(-9_000, 9_000), st.integers(-9_000, 9_000)), min_size=2, max_size=5), st.floats(-50, 500))
def test_noise_is_the_same_for_places_near_and_far_apart_and_repeats(places, z):
    x, y = (np.array(one, np.float32) / 8 for one in zip(*places, strict=True))
    together = noise.noise(x, y, z, 7)
    alone = np.concatenate([noise.noise(x[n : n + 1], y[n : n + 1], z, 7) for n in range(len(x))])
    assert together == pytest.approx(alone, abs=1e-5)
    assert noise.noise(x + noise.PERIOD, y - 3 * noise.PERIOD, z, 7) == pytest.approx(together, abs=1e-5)


def test_a_haze_seen_from_afar_takes_no_more_than_its_places():
    layer = layer_of("haze", "grow", rect=Rect(-1.0, 0.1, 0.05, 0.7, 20.0))
    tracemalloc.start()
    Painter(CANVAS).drawn(layer, Moment(0.0), BASE)
    assert tracemalloc.get_traced_memory()[1] < 20e6
    tracemalloc.stop()


class Picture:
    """Four pixels: red, green, blue, and one that is clear."""

    image = np.array([[[1, 0], [0, 1]], [[0, 1], [0, 1]], [[0, 0], [1, 1]], [[1, 1], [1, 0]]], np.float32)

    def at(self, seconds, cycle):
        return self.image


def layer_of(figure, motion="still", **more):
    settings_, motions = filled(EVERY_FIGURE[figure].settings, {}), filled(MOTIONS[motion].settings, {})
    return Layer(figure, settings_, motion, motions, source=Picture(), **more)


CANVAS = on_grid(np.arange(24 * 10), 24, 10)
BASE = np.full((3, 240), 0.5, np.float32)


@thorough(120)
@given(
    st.sampled_from(sorted(EVERY_FIGURE)), st.sampled_from(sorted(MOTIONS)), st.sampled_from(["value", "place", "cycle"]),
    st.floats(-50, 500),
    st.sampled_from([
        Finish(), Finish(2, 3, "both", 33.0), Finish(soften=0.4, crisp=0.5), Finish(grey=0.5, lift=0.3, contrast=-0.5),
    ]),
    st.floats(-1, 1), st.floats(0.05, 2),
)  # fmt: skip
def test_any_part_goes_with_any_and_looks_alike_whenever_it_is_asked_for(figure, motion, over, theta, finish, left, width):
    stops = [(1.0, 0.0, 0.0), None, (0.0, 0.2, 1.0)]
    layer = layer_of(figure, motion, colouring=Colouring(over, stops), finish=finish, rect=Rect(left, 0.1, width, 0.7, 20.0))
    now = Moment(theta, theta, LOUD)
    rgb, cover = Painter(CANVAS).drawn(layer, now, BASE)
    assert rgb.shape == (3, 240)
    assert np.isfinite(rgb).all()
    assert np.isfinite(cover).all()
    assert -1e-4 <= cover.min() <= cover.max() <= 1 + 1e-4
    assert -1e-4 <= rgb.min() <= rgb.max() <= 1 + 1e-4
    painter = Painter(CANVAS)
    painter.drawn(layer, Moment(theta - 0.3), BASE)  # what was asked for before leaves nothing behind
    again, covered = painter.drawn(layer, now, BASE)
    assert np.array_equal(again, rgb)
    assert np.array_equal(covered, cover)


@pytest.mark.parametrize(("figure", "motion"), [("bars", "travel"), ("rings", "grow"), ("rays", "turn"), ("squares", "travel"),
                                                ("picture", "travel"), ("slope", "turn"), ("even", "bounce")])  # fmt: skip
def test_motions_that_go_round_are_at_the_end_of_a_cycle_where_they_began(figure, motion):
    painter, layer = Painter(CANVAS), layer_of(figure, motion, colouring=Colouring("value"))
    now, later = (painter.drawn(layer, Moment(theta, 0.0), BASE) for theta in (0.3, 3.3))
    near = np.isclose(now[1], later[1], atol=2e-3)
    assert near.mean() > 0.98, "edges may fall on either side"


def test_places_in_a_rectangle_are_turned_folded_and_repeated():
    u, v = np.array([0.25, 0.75, 0.5], np.float32), np.array([0.25, 0.25, 0.0], np.float32)
    points = in_rect(u, v, (1.0, 0.5), Rect(0.25, 0.0, 0.5, 1.0))
    assert (points.w, points.h) == (1.0, 1.0)
    assert points.x.tolist() == [0, 1, 0.5]
    assert points.inside.tolist() == [True, True, True]
    assert folded(points, "left to right").x.tolist() == [0, 0, 0.5]
    assert repeated(points, 4, 1).x.tolist() == pytest.approx([0, 0, 0])
    quarter = in_rect(u, v, (1.0, 0.5), Rect(0.25, 0.0, 0.5, 1.0, 90.0))
    assert quarter.x.tolist() == pytest.approx([0.5, 0.5, 0.0], abs=1e-6)
    assert quarter.y.tolist() == pytest.approx([1.0, 0.0, 0.5], abs=1e-6)


def test_a_picture_fills_is_seen_whole_or_is_stretched_and_clear_pixels_cover_nothing():
    canvas = on_grid(np.arange(8), 4, 2)
    wanted = {
        "stretch": [[1, 0, 0], [1, 0, 0], [0, 1, 0], [0, 1, 0], [0, 0, 1], [0, 0, 1], None, None],
        "whole": [None, [1, 0, 0], [0, 1, 0], None, None, [0, 0, 1], None, None],
        "fill": [[1, 0, 0], [1, 0, 0], [0, 1, 0], [0, 1, 0], [0, 0, 1], [0, 0, 1], None, None],
    }  # fmt: skip
    for fit, colours in wanted.items():
        how = filled(EVERY_FIGURE["picture"].settings, {"fit": fit})
        rgb, cover = Painter(canvas).drawn(
            Layer("picture", how, colouring=Colouring("own"), source=Picture()), Moment(0), BASE[:, :8]
        )
        found = [np.round(rgb[:, n], 2).tolist() if cover[n] > 0.5 else None for n in range(8)]
        assert found == colours, fit


@pytest.mark.parametrize(
    ("finish", "wanted"),
    [
        (Finish(grey=1.0), [0.2126] * 3),
        (Finish(grey=0.5), [0.6063, 0.1063, 0.1063]),
        (Finish(lift=0.4), [1.0, 0.2, 0.2]),
        (Finish(lift=-0.4), [0.8, 0.0, 0.0]),
        (Finish(contrast=-1.0), [0.625, 0.375, 0.375]),  # a quarter as far from the middle
        (Finish(grey=0.5, contrast=-0.5), [0.5532, 0.3032, 0.3032]),  # grey first, then half as far from the middle
    ],
    ids=lambda one: str(one)[:60],
)
def test_finishes_change_colours_as_worked_out_by_hand(finish, wanted):
    layer = layer_of("even", colouring=Colouring("value", [(1.0, 0.0, 0.0)]), finish=finish)
    rgb, _ = Painter(CANVAS).drawn(layer, Moment(0), BASE)
    np.testing.assert_allclose(rgb, np.repeat(np.array(wanted)[:, None], 240, axis=1), atol=1e-4)


def test_softening_spreads_a_bar_evenly_and_crisp_edges_bring_it_back():
    canvas = on_grid(np.arange(32), 32, 1)
    how = filled(EVERY_FIGURE["bars"].settings, {"number": 1, "width": 0.5, "soft": 0.0, "tail": 0.0})

    def cover(**finish):
        return Painter(canvas).drawn(Layer("bars", how, finish=Finish(**finish)), Moment(0), BASE[:, :32])[1]

    plain, soft, crisp = cover(crisp=1e-6), cover(soften=0.5), cover(soften=0.5, crisp=1.0)
    assert plain.round(2).tolist() == [0] * 8 + [1] * 16 + [0] * 8
    assert soft.sum() == pytest.approx(plain.sum(), rel=0.02), "what it loses within it has beside"
    assert (np.diff(soft[:16]) >= -1e-6).all(), "it rises to the middle"
    assert soft == pytest.approx(soft[::-1], abs=1e-4)
    assert np.abs(crisp - plain).sum() < 0.3 * np.abs(soft - plain).sum()
