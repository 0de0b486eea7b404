"""From values to bytes, and where beams point."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.documents import effects
from tests.thoroughness import thorough
from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.placement import place
from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.frame import Effects, Frame, Levels
from zarabanda.core.playback.ground import Base, Ground, base_at
from zarabanda.core.playback.looks import base_of, cells_of, changed, held
from zarabanda.core.playback.shares import Timing, alike
from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.modes import Channel, ModeSpec
from zarabanda.core.rig.rig import FixtureSpec, build
from zarabanda.formats import effect_document

SPOT = ModeSpec(
    "spot", "spot", "rgbw",
    (
        Channel("pan", (0, 1), -270, 270), Channel("tilt", (2,), -135, 135, inverted=True),
        Channel("intensity", (3, 4, 5), 0, 100),
        Channel("red", (6,)), Channel("green", (7,)), Channel("blue", (8,)), Channel("white", (9,)),
    ),
    10,
)  # fmt: skip
_CELL_CHANNELS = tuple(Channel(name, (n,), cell=n // 3 + 1) for n, name in enumerate(("red", "green", "blue") * 2))
CELLS = ModeSpec("cells", "batten", "rgb", _CELL_CHANNELS, 6, cells=((0, 0, 0), (1, 0, 0)))
FULL = Levels()


def bytes_of(fixtures, levels=FULL, **values):
    rig = build(fixtures)
    base = base_of(rig)
    for name, value in values.items():
        base[attributes.INDEX[name]] = value
    frame = Frame(rig)
    return frame.bytes(frame.values(Base(base), [], levels))


def test_fine_channels_rounding_and_inversion():
    data = bytes_of([FixtureSpec(1, "", SPOT, (0, 0, 0), address=5)], pan=0, tilt=135, intensity=100, red=1, green=0.5, blue=0.25)
    assert data.shape == (1, 512)
    # 0.5 · 65535 = 32767.5, rounded half up; full in 24 bits; white takes the common part
    assert data[0, 4:14].tolist() == [128, 0, 0, 255, 255, 255, 191, 64, 0, 64]
    assert data[0, 14:].sum() == 0


@pytest.mark.parametrize("pan", [-270, -123.4, 10.0, 199.99, 270])
def test_both_bytes_of_a_channel_of_16_bits_are_written(pan):
    data = bytes_of([FixtureSpec(1, "", SPOT, (0, 0, 0))], pan=pan)
    assert int.from_bytes(data[0, :2].tobytes()) == int((pan + 270) / 540 * 65535 + 0.5)


@thorough(60)
@given(
    st.lists(effects(apart=True), min_size=1, max_size=2),
    st.lists(
        st.tuples(st.floats(0, 9), st.floats(0, 100), st.sampled_from([0.0, 0.8, 1.0]), st.booleans()), min_size=2, max_size=5
    ),
)
def test_writing_what_can_change_gives_the_bytes_of_writing_all(documents, moments):
    """Over moments at which θ alone changes, or claims, master or what plays as well; looked at before, or not."""
    fixtures = [FixtureSpec(n + 1, "", SPOT, (n, 0, 0), address=1 + 10 * n) for n in range(4)]
    rig = build([*fixtures, FixtureSpec(9, "", CELLS, (5, 0, 0), address=100)])
    chosen = [effect_document.read(document).to_core() for document in documents]
    several = [Batches([place(effect, np.array([1, 3, 4]), rig.heads)], len(rig), rig.mixes) for effect in chosen]
    ground, claims, batches, levels = Ground(rig), Claims(), several[0], Levels()
    frame = Frame(rig)
    for number, (theta, level, grand, another) in enumerate(moments):
        if another:  # values fade for 1.5 s, moments are a second apart
            look = held(rig, {"intensity": dict.fromkeys(rig.heads.keys[:3], level), "colour": {rig.heads.keys[1]: "#20c0ff"}})
            cells = cells_of(look, changed(held(rig, {}), look)[0])
            now = Timing(float(number), fade=1.5)
            claims = claims.claimed("draft", cells, rig.home, alike(now))
            batches, levels = several[-1], Levels(grand=grand)
        if number:
            frame.prepare(batches.touched)
        running = Running(np.array([theta]), np.ones(1))
        fresh, t = Frame(rig), number + 0.25
        data = frame.bytes(frame.values(ground.at(claims, t), [Effects(batches, running)], levels, t))
        whole = fresh.values(Base(base_at(rig, claims, t)), [Effects(batches, running)], levels)
        np.testing.assert_array_equal(data, fresh.bytes(whole))


@pytest.mark.parametrize("apart", [6, 7])
def test_many_cells_in_rows_reach_their_own_slots(apart):
    """Patched in even rows over eleven universes but for one, and one address more."""
    addresses = [(universe, 1 + apart * n) for universe in range(1, 12) for n in range(70)]
    addresses[100] = (19, 300)
    fixtures = [FixtureSpec(n + 1, "", CELLS, (0, 0, 0), universe=u, address=a) for n, (u, a) in enumerate(addresses)]
    rig = build(fixtures)
    base, drives = base_of(rig), np.random.default_rng(4).random((3, len(rig)))
    base[[attributes.RED, attributes.GREEN, attributes.BLUE]] = drives
    base[0] = 100
    frame = Frame(rig)
    data = frame.bytes(frame.values(Base(base), [], FULL))
    expected = np.zeros_like(data)
    for n, (universe, address) in enumerate(addresses):
        own = np.floor(drives[:, 2 * n : 2 * n + 2].T.ravel() * 255 + 0.5)
        expected[rig.universes.index(universe), address - 1 : address + 5] = own
    np.testing.assert_array_equal(data, expected)


def test_heads_without_an_intensity_channel_scale_their_colour():
    data = bytes_of([FixtureSpec(1, "", CELLS, (0, 0, 0))], intensity=50, red=1, green=0, blue=0.2)
    assert data[0, :6].tolist() == [128, 0, 26] * 2


def test_levels_come_last():
    fixture = FixtureSpec(1, "", SPOT, (0, 0, 0))
    assert bytes_of([fixture], Levels(grand=0.5), intensity=100)[0, 3] == 128
    assert bytes_of([fixture], Levels(blackout=True), intensity=100)[0, 3:6].tolist() == [0, 0, 0]


def test_universes_are_rows_in_their_order():
    data = bytes_of([FixtureSpec(2, "", CELLS, (0, 0, 0), universe=7), FixtureSpec(1, "", CELLS, (0, 0, 0), universe=3)],
                    intensity=np.array([100, 100, 0, 0]))  # fmt: skip
    assert data[1, :6].tolist() == [255] * 6
    assert data[0, :6].tolist() == [0] * 6


ANGLES = st.floats(-170, 170)


@given(ANGLES, st.floats(-120, 120), st.sampled_from(sorted(stage.MOUNTINGS)))
def test_aiming_at_where_a_beam_goes_gives_its_pan_and_tilt(pan, tilt, mounting):
    turn = stage.rotation(*stage.MOUNTINGS[mounting])[None]
    place = np.array([[1.0, 2.0, 6.0]])
    direction = stage.direction(np.array([pan]), np.array([tilt]), turn)
    found = stage.aim(place, turn, place + direction * 5, np.array([pan]), np.array([tilt]))
    again = stage.direction(*found, turn)
    np.testing.assert_allclose(again, direction, atol=1e-9)
    if abs(tilt) > 0.1:
        assert (found[0][0], found[1][0]) == pytest.approx((pan, tilt), abs=1e-6)


def test_a_hanging_head_points_down_and_leans_to_the_audience():
    turn = stage.rotation(*stage.MOUNTINGS["hanging"])[None]
    down, leaning = (stage.direction(np.zeros(1), np.array([tilt]), turn)[0] for tilt in (0, 45))
    np.testing.assert_allclose(down, [0, 0, -1], atol=1e-12)
    assert leaning[1] < 0
    point, hits = stage.landing(np.array([[0.0, 3, 5]]), leaning[None], axis=2, at=0.0)
    assert hits.all()
    np.testing.assert_allclose(point, [[0, -2, 0]], atol=1e-9)
