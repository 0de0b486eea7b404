"""Rigs as arrays: fixtures with unlike parts, white light, orders of cells, shared slots, other addresses."""

from dataclasses import fields, replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.thoroughness import thorough
from zarabanda.core.colour.white import NEUTRAL_K, chromaticity, warm_and_cold, white, with_white
from zarabanda.core.playback.frame import Frame, Levels
from zarabanda.core.playback.ground import Base
from zarabanda.core.playback.looks import base_of
from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.cells import CELL_ORDERS, arranged
from zarabanda.core.rig.modes import Channel, ModeSpec, lit_keys, whole_keys
from zarabanda.core.rig.rig import FixtureSpec, build, repatched
from zarabanda.core.rig.slots import appearance

PLACES = ((-1, 0, 0), (1, 0, 0))
_RGB = tuple(Channel(name, (3 + n,), cell=n // 3 + 1) for n, name in enumerate(("red", "green", "blue") * 2))
DIMMED = ModeSpec(
    "bar", "bar", "rgb", (Channel("tilt", (0, 1), -90, 90), Channel("intensity", (2,), 0, 100), *_RGB), 9, cells=PLACES
)
UNDIMMED = replace(DIMMED, name="no dimmer", channels=(DIMMED.channels[0], *_RGB))
WARM = ModeSpec(
    "warm", "blinder", "none",
    (Channel("tilt", (0,), -90, 90), Channel("intensity", (1,), 0, 100, cell=1), Channel("intensity", (2,), 0, 100, cell=2)),
    3, cells=PLACES,
)  # fmt: skip
PLAIN = ModeSpec("par", "par", "rgb", (Channel("red", (0,)), Channel("green", (1,)), Channel("blue", (2,))), 3)


def sent(rig, levels=None, **values):
    """Bytes and what is seen; values: (N,) or a number, by attribute."""
    base = base_of(rig)
    for name, value in values.items():
        base[attributes.INDEX[name]] = value
    frame = Frame(rig)
    values = frame.values(Base(base), [], levels or Levels())
    return frame.bytes(values)[0].tolist(), appearance(rig, values)


def test_a_fixture_is_a_head_beside_its_cells_where_it_has_channels_of_its_own():
    rig = build([FixtureSpec(501, "", DIMMED, (0, 0, 3))])
    assert rig.heads.keys == ["501", "501.1", "501.2"]
    assert (rig.leader.tolist(), rig.body.tolist()) == ([-1, 0, 0], [0, 0, 0])
    able = [[a.name for a, has in zip(attributes.ATTRIBUTES, column, strict=True) if has] for column in rig.heads.has.T]
    assert able == [["intensity", "tilt"], *[["intensity", "red", "green", "blue"]] * 2]
    assert rig.home[attributes.INTENSITY].tolist() == [0, 100, 100], "the level of the whole alone brings it up"
    assert (whole_keys(501, DIMMED), lit_keys(501, DIMMED)) == (["501"], ["501.1", "501.2"])
    assert whole_keys(7, replace(DIMMED, channels=_RGB)) == ["7.1", "7.2"]


def test_cells_that_move_by_themselves_are_turned_by_their_own_pan_and_tilt():
    moving = tuple(Channel("tilt", (n,), -90, 90, cell=n + 1) for n in range(2))
    mode = replace(DIMMED, channels=(Channel("pan", (9,), -270, 270), *moving))
    rig = build([FixtureSpec(1, "", mode, (0, 0, 0))])
    assert rig.body.tolist() == [0, 1, 2]
    still = replace(DIMMED, channels=moving[:1] + _RGB)
    assert build([FixtureSpec(1, "", still, (0, 0, 0))]).heads.keys == ["1.1", "1.2"], "no head of its own"


@pytest.mark.parametrize(
    ("mode", "expected"),
    [
        (DIMMED, [128, 0, 128, 255, 255, 255, 51, 51, 51]),  # its own channel carries its level, cells theirs
        (UNDIMMED, [128, 0, 0, 128, 128, 128, 26, 26, 26]),  # 50 % of 100 %, and of 20 %
        (WARM, [128, 128, 26]),
    ],
)
def test_the_level_of_a_cell_is_multiplied_with_that_of_its_fixture(mode, expected):
    rig = build([FixtureSpec(1, "", mode, (0, 0, 0))])
    data, seen = sent(rig, intensity=np.array([50.0, 100.0, 20.0]))
    assert data[: mode.footprint] == expected
    assert seen.max(axis=1).round(3).tolist() == [0.0, 0.5, 0.1], "what leads gives no light of its own"
    half, _ = sent(rig, Levels(grand=0.5), intensity=np.array([50.0, 100.0, 20.0]))
    at_half, _ = sent(rig, intensity=np.array([25.0, 100.0, 20.0]))
    assert half == at_half, "the grand master counts once"


@thorough(40)
@given(st.data())
def test_a_part_that_is_written_gives_the_bytes_of_all(data):
    rig = build(
        [FixtureSpec(n + 1, "", mode, (0, 0, 0), address=1 + 20 * n) for n, mode in enumerate((DIMMED, UNDIMMED, WARM, WHITE))]
    )
    frame, fresh = Frame(rig), Frame(rig)
    touched = np.zeros(rig.home.shape, bool)
    base = base_of(rig)
    frame.bytes(frame.values(Base(base), [], Levels()))
    names = ["intensity", "red", "temperature", "tint", "white_mix"]
    for name in data.draw(st.lists(st.sampled_from(names), min_size=1)):
        head, row = data.draw(st.integers(0, len(rig) - 1)), attributes.INDEX[name]
        touched[row, head] = True
        base[row, head] = data.draw(st.floats(rig.low[row, head], rig.high[row, head]))
    part = frame._mapper.part(touched)
    assert (frame._mapper.bytes(base, part) == fresh._mapper.bytes(base)).all()


WHITE = replace(PLAIN, name="white", virtual=("temperature", "tint", "white_mix"))


def test_white_of_a_temperature_and_tint():
    assert white(np.array([NEUTRAL_K]), np.array([0.0])).round(6).tolist() == [[1, 1, 1]]
    kelvins = np.linspace(1800, 12000, 40)
    drives = white(kelvins, np.zeros(40))
    assert (np.diff(drives[:, 2] - drives[:, 0]) > 0).all(), "from warm to cold"
    assert drives.max(axis=1).round(9).tolist() == [1] * 40
    assert np.ravel(chromaticity(np.array([2856.0]))) == pytest.approx([0.44757, 0.40745], abs=5e-4), "CIE illuminant A"
    green, magenta = white(np.array([NEUTRAL_K] * 2), np.array([-100.0, 100.0]))
    assert green.round(6).tolist() == [0.7, 1, 0.7]
    assert magenta.round(6).tolist() == [1, 0.7, 1]
    half = with_white(np.array([[1.0, 0, 0]]), np.array([NEUTRAL_K]), np.zeros(1), np.array([50.0]))
    assert half.round(6).tolist() == [[1, 0.5, 0.5]]


@thorough(50)
@given(st.floats(2700, 6500))
def test_a_warm_and_a_cold_emitter_give_one_light_together(kelvin):
    drives = warm_and_cold(np.array([kelvin]), np.array([2700.0]), np.array([6500.0]))[0]
    assert drives.sum() == pytest.approx(1)
    assert drives @ [1 / 2700, 1 / 6500] == pytest.approx(1 / kelvin)
    pair = ModeSpec(
        "w", "par", "warm-cold", (Channel("warm", (0,)), Channel("cold", (1,))), 2, {"temperature": (2700, 6500, 4000)}
    )
    data, _ = sent(build([FixtureSpec(1, "", pair, (0, 0, 0))]), intensity=50.0, temperature=kelvin)
    assert data[:2] == pytest.approx(drives * 127.5, abs=0.51)


def test_cells_of_a_tile_in_each_order():
    tile = np.array([(c, r, 0) for r in (2, 1, 0) for c in range(3)], float)  # as it was made: rows from the top left
    seen = {order: arranged(tile, order).tolist() for order in CELL_ORDERS}
    assert seen["rows from top left"] == seen[""] == list(range(9))
    assert seen["rows from bottom right"] == seen["reversed"] == list(range(9))[::-1]
    assert seen["columns from top left, back and forth"] == [0, 3, 6, 7, 4, 1, 2, 5, 8]
    assert seen["rows from bottom left, back and forth"] == [6, 7, 8, 5, 4, 3, 0, 1, 2]
    assert all(sorted(order) == list(range(9)) for order in seen.values())
    assert len({tuple(order) for order in seen.values()}) == 16
    flipped = build([FixtureSpec(1, "", DIMMED, (5, 0, 0), cell_order="reversed")])
    assert flipped.heads.places[:, 0].tolist() == [5, 6, 4], "the fixture itself stays"


def test_the_fixture_that_comes_first_has_shared_slots_and_one_without_address_sends_nothing():
    fixtures = [FixtureSpec(n, "", PLAIN, (0, 0, 0), address=address) for n, address in ((1, 1), (2, 3), (3, None))]
    rig = build([*fixtures[:2], replace(fixtures[2], universe=None)])
    data, _ = sent(rig, intensity=100.0, red=np.array([1, 0.4, 1]), green=0.6, blue=np.array([0.2, 1, 1]))
    assert data[:6] == [255, 153, 51, 153, 255, 0]
    assert rig.universes == (1,)


@thorough(60)
@given(st.data())
def test_other_addresses_are_as_a_rig_built_anew(data):
    modes = [data.draw(st.sampled_from([DIMMED, UNDIMMED, WARM, PLAIN, WHITE])) for _ in range(6)]

    def patched():
        where = st.one_of(st.just((None, None)), st.tuples(st.integers(1, 3), st.integers(1, 40)))
        return [
            FixtureSpec(n + 1, "", mode, (n, 0, 0), universe=universe, address=address)
            for n, mode in enumerate(modes)
            for universe, address in [data.draw(where)]
        ]

    before, now = build(patched()), patched()
    moved, anew = repatched(before, now), build(now)
    assert moved.heads is before.heads
    assert moved.universes == anew.universes
    assert all(np.array_equal(getattr(moved.output, one.name), getattr(anew.output, one.name)) for one in fields(anew.output))


@given(st.lists(st.one_of(st.floats(-360, 360), st.sampled_from([0.0, 90.0, -90.0, 180.0])), min_size=3, max_size=3))
def test_turns_are_found_from_where_they_lead(turns):
    there = stage.rotation(*turns)
    np.testing.assert_allclose(stage.rotation(*stage.angles(there)), there, atol=1e-6)
