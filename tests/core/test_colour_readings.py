"""Colours as they are picked, read, told and mixed; ways between two; sets of them."""

import numpy as np
import pytest
from coloraide import Color
from hypothesis import given
from hypothesis import strategies as some

from zarabanda.core.colour import readings, sets, ways
from zarabanda.core.colour.naming import in_words
from zarabanda.core.colour.spaces import SPACES, hex_to_rgb, rgb_to_oklch
from zarabanda.core.colour.white import white
from zarabanda.core.explain.mixing import mixed
from zarabanda.core.rig.modes import Channel, ModeSpec
from zarabanda.core.rig.rig import FixtureSpec, build

units = some.floats(0, 1)


@given(rgb=some.tuples(units, units, units), name=some.sampled_from(["rgb", "cmy", "hsv", "oklch"]))
def test_what_is_read_can_be_picked_again(rgb, name):
    numbers = readings.PICKERS[name].of(np.array(rgb)).tolist()
    assert readings.picked(name, numbers) == pytest.approx(rgb, abs=1e-6)


@pytest.mark.parametrize("space", ["hsv", "oklch"])
def test_numbers_are_those_of_a_library(space):
    for rgb in ((1, 0.5, 0.2), (0.1, 0.7, 0.4), (0.3, 0.2, 0.9)):
        judged = np.array(Color("srgb", rgb).convert(space).coords()) * {"hsv": [1, 100, 100], "oklch": [100, 1, 1]}[space]
        assert readings.read(np.array(rgb))[space] == pytest.approx(judged, abs=0.05)


@given(kelvin=some.floats(1800, 20_000), tint=some.floats(-100, 100), level=some.floats(0.05, 1))
def test_white_light_is_found_again_by_temperature_and_tint(kelvin, tint, level):
    found = readings.nearest_white(white(kelvin, tint) * level)
    assert white(*found) == pytest.approx(white(kelvin, tint), abs=0.02)
    if kelvin > 2200:  # warmer ones have no blue left that would tell temperature and tint apart
        assert 1e6 / found[0] == pytest.approx(1e6 / kelvin, abs=6)  # mired: what an eye tells apart


@pytest.mark.parametrize(
    ("picker", "numbers", "fault"),
    [("hsv", [400, 0, 0], "Hue 400 is out of range"), ("rgb", [1, 2], "needs 3 numbers"), ("white", [900, 0], "1800 to 20000 K")],
)
def test_what_cannot_be_picked_says_why(picker, numbers, fault):
    with pytest.raises(ValueError, match=fault):
        readings.picked(picker, numbers)


@pytest.mark.parametrize(
    ("hex", "words"),
    [("#ff0000", "red"), ("#ff8000", "orange"), ("#00ff00", "green"), ("#0000ff", "blue"), ("#ffffff", "white"),
     ("#000000", "black"), ("#808080", "grey"), ("#ffc0cb", "pale rose"), ("#18b8ff", "sky blue"), ("#a04bff", "violet")],
)  # fmt: skip
def test_colours_have_plain_words(hex, words):
    assert in_words(np.array(hex_to_rgb(hex))) == words


@pytest.mark.parametrize(
    ("space", "passes", "dips"),
    [("rgb", 0, True), ("hsv-short", 3, False), ("hsv-long", 6, False)],
)
def test_a_way_says_what_is_seen_on_it(space, passes, dips):
    red, cyan = np.array([1.0, 0, 0]), np.array([0, 1.0, 1])
    seen = ways.seen(space, red, cyan, subtractive=False)
    filtered = ways.seen(space, red, cyan, subtractive=True)
    assert len(seen.passes) >= passes
    assert (filtered.dip > seen.dip + 5) == dips  # the middle of flags is darker
    assert seen.colours[0] == pytest.approx(red)
    assert seen.colours[-1] == pytest.approx(cyan)


@pytest.mark.parametrize("space", SPACES)
def test_a_way_that_is_shown_is_the_way_that_is_faded(space):
    start, end = np.array([0.2, 0.7, 1.0]), np.array([1.0, 0.3, 0.2])
    shares = np.linspace(0, 1, 7)
    plain = [SPACES[space](start[None], end[None], np.array([share]))[:, 0] for share in shares]
    assert ways.along(space, start, end, shares) == pytest.approx(np.clip(plain, 0, 1), abs=1e-9)


@pytest.mark.parametrize("count", sets.SIZES)
def test_sets_are_even_in_hue_and_have_names_of_their_own(count):
    colours = sets.even_colours(count)
    assert len({name for name, _ in colours}) == count
    hues = np.array([rgb_to_oklch(rgb)[2] for _, rgb in colours[1:]])
    steps = np.diff(np.append(hues, hues[0] + 360)) % 360
    assert steps == pytest.approx(360 / (count - 1), abs=0.5)


WHEEL = (("open", (1.0, 1.0, 1.0)), ("coral", (1.0, 0.3, 0.2)))


@pytest.mark.parametrize(
    ("emitters", "rgb", "words", "exact"),
    [
        ("rgb", (1, 0.5, 0), "red 100 %, green 50 %", True),
        ("rgbw", (1, 0.4, 0.4), "red 60 %, white 40 %", True),
        ("rgbaw", (1, 0.5, 0), "amber 100 %", True),
        ("cmy", (1, 1, 1), "flags open", True),
        ("cmy", (1, 0, 0), "magenta 100 %, yellow 100 %", True),
        ("hue-saturation", (0, 1, 0), "hue 120°, saturation 100 %", True),
        ("wheel", (1, 0.3, 0.2), "wheel: coral", True),
        ("wheel", (1, 0, 0.4), "nearest slot of the wheel: coral", False),
        ("none", (1, 0, 0), "no colour of their own", False),
    ],
)
def test_lights_say_what_they_do_for_a_colour(emitters, rgb, words, exact):
    mode = ModeSpec(
        "a mode", "spot", emitters, (Channel("intensity", (0,)),), 1, wheel=WHEEL if emitters == "wheel" else (), model="Volta"
    )
    fixtures = [FixtureSpec(n, "a light", mode, (0, 0, 0), universe=1, address=n) for n in (1, 2, 3)]
    [found] = mixed(build(fixtures), fixtures, ["1", "3", "99"], np.array(rgb, float))
    assert (found.model, found.heads, found.words, found.exact) == ("Volta", 2, words, exact)
