"""What maps do to light, against the definition written plainly, head by head."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.thoroughness import thorough
from zarabanda.core.pixels.canvas import on_grid
from zarabanda.core.pixels.colouring import Colouring
from zarabanda.core.pixels.layers import JOINS, Layer, Moment, joined
from zarabanda.core.pixels.light import Picture, Wall
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import FixtureSpec, build
from zarabanda.core.rig.slots import levels
from zarabanda.stock.kinds import plain_kinds

KINDS = {name: kind.spec() for name, kind in plain_kinds().items()}
PAR, BAR, DIMMER = (
    KINDS[name] for name in ("Par RGB, 4 channels", "Moving bar 10 RGBW, 10 cells, 45 channels, 16 bit", "Dimmer, 1 channel")
)
RGB = slice(attributes.RED, attributes.BLUE + 1)
SHARES = st.sampled_from([0.0, 0.25, 0.5, 1.0])


class Plain:
    """A source that gives every layer its colour and cover."""

    def __init__(self, rgb, cover):
        self.image = np.array([*rgb, cover], np.float32).reshape(4, 1, 1)

    def at(self, seconds, cycle):
        return self.image


def layer_of(rgb, cover, opacity, join):
    how = {"fit": "stretch", "crop_left": 0.0, "crop_right": 0.0, "crop_top": 0.0, "crop_bottom": 0.0}
    return Layer("picture", how, opacity=opacity, join=join, colouring=Colouring("own"), source=Plain(rgb, cover))


def bright(rgb):
    return 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]


PLAINLY = {
    "over": lambda below, p: p,
    "add": lambda below, p: [min(1, a + b) for a, b in zip(below, p, strict=True)],
    "multiply": lambda below, p: [a * b for a, b in zip(below, p, strict=True)],
    "lighten": lambda below, p: [max(a, b) for a, b in zip(below, p, strict=True)],
    "darken": lambda below, p: [min(a, b) for a, b in zip(below, p, strict=True)],
    "cut out": lambda below, p: [a * (1 - bright(p)) for a in below],
}


def mix(a, b, share):
    return [x + (y - x) * share for x, y in zip(a, b, strict=True)]


def wanted(colour, level, layers, share, acts):
    """Colour and level (%) of a head that mixes colours, by the words of the definition."""
    if share == 0:
        return colour, level  # nothing changes, black or not
    under = 1.0 if acts == "colour" else level / 100
    below = [c * under for c in colour]
    light, clear = below, 1.0
    for rgb, cover, opacity, join in layers:
        light = mix(light, PLAINLY[join](light, rgb), cover * opacity)
        clear *= 1 - cover * opacity
    light = mix(below, light, share)
    a = share * (1 - clear)
    if max(light) <= 1e-6:
        return colour, (level if acts == "colour" else 0.0)
    m = max(max(light), under + (1 - under) * a)
    return [one / m for one in light], (level if acts == "colour" else 100 * m)


LAYERS = st.lists(
    st.tuples(st.tuples(SHARES, SHARES, SHARES), SHARES, SHARES, st.sampled_from(sorted(JOINS))), max_size=4
)  # fmt: skip


@thorough(150)
@given(
    LAYERS, SHARES, st.sampled_from(["light", "colour"]), st.tuples(SHARES, SHARES, SHARES), st.sampled_from([0.0, 30.0, 100.0])
)
def test_a_light_gets_what_the_definition_says(layers, share, acts, colour, level):
    rig = build([FixtureSpec(1, "", PAR, (0.0, 0.0, 0.0))])
    values = rig.home.copy()
    values[RGB, 0], values[attributes.INTENSITY, 0] = colour, level
    wall = Wall(rig, on_grid(np.array([0]), 1, 1), acts)
    Picture(wall, [(layer_of(*one), Moment(0.0)) for one in layers], share).apply(values)
    rgb, now = wanted(list(colour), level, layers, share, acts)
    assert values[RGB, 0].tolist() == pytest.approx(rgb, abs=2e-6)
    assert values[attributes.INTENSITY, 0] == pytest.approx(now, abs=2e-4)


@pytest.mark.parametrize("join", JOINS)
def test_joins_are_a_table(join):
    below, p = [0.2, 0.8, 0.5], [0.6, 0.1, 1.0]
    found = joined(join, np.array(below)[:, None], np.array(p)[:, None])
    assert found.reshape(-1).tolist() == pytest.approx(PLAINLY[join](below, p))


@thorough(80)
@given(st.lists(st.tuples(SHARES, SHARES, SHARES), min_size=4, max_size=4), st.lists(SHARES, min_size=5, max_size=5), SHARES)
def test_cells_under_a_level_of_their_fixture_are_as_bright_as_asked_and_its_others_stay(colours, own, share):
    """A bar whose level scales its cells: two of its four cells are on the canvas."""
    rig = build([FixtureSpec(1, "", BAR, (0.0, 0.0, 0.0))])
    cells = np.flatnonzero(rig.led)
    values = rig.home.copy()
    values[attributes.INTENSITY, 0] = 100 * own[4]
    values[attributes.INTENSITY, cells[:4]] = 100 * np.array(own[:4])
    values[RGB, cells[0]], values[RGB, cells[1]] = colours[0], colours[1]
    before, base = levels(rig, values), values.copy()
    wall = Wall(rig, on_grid(cells[:2], 2, 1))
    Picture(wall, [(layer_of((1.0, 0.5, 0.0), 1.0, 0.5, "lighten"), Moment(0.0))], share).apply(values)
    after = levels(rig, values)
    for cell in cells[:2]:
        level = float(before[cell]) * 100
        rgb, now = wanted(base[RGB, cell].tolist(), level, [((1.0, 0.5, 0.0), 1.0, 0.5, "lighten")], share, "light")
        assert values[RGB, cell].tolist() == pytest.approx(rgb, abs=2e-6)
        assert 100 * after[cell] == pytest.approx(now, abs=2e-3)
    assert after[cells[2:]] == pytest.approx(before[cells[2:]], abs=1e-5)
    assert (values[attributes.INTENSITY] <= 100.001).all()


def test_lights_without_colour_take_the_brightness_and_so_does_a_map_on_levels_only():
    rig = build([FixtureSpec(1, "", DIMMER, (0.0, 0.0, 0.0)), FixtureSpec(2, "", PAR, (1.0, 0.0, 0.0))])
    layers = [(layer_of((0.0, 1.0, 0.0), 1.0, 1.0, "over"), Moment(0.0))]
    heads = np.flatnonzero(~rig.led)[:2]
    values = rig.home.copy()
    Picture(Wall(rig, on_grid(heads, 2, 1)), layers, 1.0).apply(values)
    assert values[attributes.INTENSITY, heads].tolist() == pytest.approx([71.52, 100], abs=1e-3)
    values = rig.home.copy()
    Picture(Wall(rig, on_grid(heads, 2, 1), "level"), layers, 0.5).apply(values)
    assert values[attributes.INTENSITY, heads].tolist() == pytest.approx([35.76, 35.76], abs=1e-3)
    assert values[RGB, heads[1]].tolist() == [1, 1, 1], "its colour stays"
