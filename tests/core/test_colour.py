"""Colour against a library, and the mappings to fixtures."""

import numpy as np
import pytest
from coloraide import Color

from zarabanda.core.colour import spaces as colour

RANDOM = np.random.default_rng(5).random((200, 3))


@pytest.mark.parametrize(
    ("name", "convert", "back"),
    [
        ("hsv", colour.rgb_to_hsv, colour.hsv_to_rgb),
        ("oklch", colour.rgb_to_oklch, colour.oklch_to_rgb),
        ("oklab", colour.rgb_to_oklab, colour.oklab_to_rgb),
    ],
)
def test_spaces_agree_with_a_library(name, convert, back):
    judged = np.array([Color("srgb", rgb).convert(name).coords() for rgb in RANDOM.tolist()])
    np.testing.assert_allclose(convert(RANDOM), judged, atol=1e-3)
    np.testing.assert_allclose(back(convert(RANDOM)), RANDOM, atol=1e-9)


@pytest.mark.parametrize(
    ("space", "start", "end", "way", "expected"),
    [
        ("rgb", "#ff0000", "#0000ff", 0.5, (0.5, 0, 0.5)),
        ("cmy", "#ff0000", "#0000ff", 0.25, (0.75, 0, 0.25)),
        ("hsv-short", "#ff0000", "#0000ff", 0.5, (1, 0, 1)),
        ("hsv-long", "#ff0000", "#0000ff", 0.5, (0, 1, 0)),
        ("hsv-short", "#ff0000", "#00ffff", 0.5, (0.5, 1, 0)),  # opposite: upwards
        ("hsv-long", "#ff0000", "#ff0000", 0.5, (1, 0, 0)),  # the long way of equal hues stays
        ("hsv-short", "#000000", "#0000ff", 0.5, (0.25, 0.25, 0.5)),  # a grey end takes the hue of the other
        ("hsv-short", "#ffffff", "#0000ff", 0.5, (0.5, 0.5, 1)),
        ("hsv-short", "#ff002b", "#ff2b00", 0.5, (1, 0, 0)),  # 350° to 10°: through 0°
        ("hsv-long", "#ff002b", "#ff2b00", 0.5, (0, 1, 1)),
    ],
)
def test_ways_between_colours(space, start, end, way, expected):
    ends = [np.array([colour.hex_to_rgb(text)]) for text in (start, end)]
    np.testing.assert_allclose(colour.SPACES[space](*ends, np.array([way]))[:, 0], expected, atol=1e-9)


@pytest.mark.parametrize("space", colour.SPACES)
def test_a_way_begins_and_ends_at_its_ends(space):
    other = RANDOM[::-1]
    np.testing.assert_allclose(colour.SPACES[space](RANDOM, other, np.zeros(200)).T, RANDOM, atol=1e-6)
    np.testing.assert_allclose(colour.SPACES[space](RANDOM, other, np.ones(200)).T, other, atol=1e-6)


def test_emitters_add_up_to_the_colour():
    rgbw = colour.rgb_to_rgbw(RANDOM)
    np.testing.assert_allclose(rgbw[:, :3] + rgbw[:, 3:], RANDOM)
    assert (rgbw[:, :3].min(axis=1) == 0).all()
    red, green, blue, amber, white = colour.rgb_to_rgbaw(RANDOM).T
    np.testing.assert_allclose(np.stack([red + amber + white, green + amber / 2 + white, blue + white], axis=1), RANDOM)
    assert min(red.min(), green.min(), blue.min()) >= -1e-12


def test_the_nearest_slot_of_a_wheel():
    wheel = np.array([[1, 1, 1], [1, 0, 0], [0, 0, 1]], float)
    slots, difference = colour.nearest_slot(np.array([[0.9, 0.1, 0], [0.2, 0.1, 0.9], [1, 1, 1]]), wheel)
    assert slots.tolist() == [1, 2, 0]
    assert difference[2] == pytest.approx(0, abs=1e-9)
