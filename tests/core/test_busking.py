"""What goes over rows: flashes, two colours, effects played otherwise; what lights can do, and where they tilt."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from zarabanda.core.effects.effect import Stops, Waveform, from_document
from zarabanda.core.effects.variants import SHAPES, SPREADS, TRAVELS, Variant, moves_intensity, varied
from zarabanda.core.playback.flashes import KINDS, flash
from zarabanda.core.playback.two_colours import Picked, Place, Weaving
from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.abilities import abilities, numbers, stage_place, whole
from zarabanda.core.rig.positions import tilts
from zarabanda.core.rig.rig import FixtureSpec, build
from zarabanda.demo.rig import MAKER, MODES, fixtures
from zarabanda.formats.rig_document import FixtureDocument, ModeDocument

SPECS = {mode["name"]: ModeDocument.model_validate({"maker": MAKER, **mode}).spec() for mode in MODES}
DOCUMENTS = [FixtureDocument.model_validate(one) for one in fixtures() if not 601 <= one["number"] <= 616]
RIG = build([FixtureSpec(one.number, one.name, SPECS[one.mode], one.place, one.rotation, one.universe, one.address)
             for one in DOCUMENTS])  # fmt: skip


def of(first, last, cells=False):
    """Keys of the fixtures from a number to another: the whole ones, or their cells."""
    keys = [key for key in RIG.heads.keys if first <= int(key.partition(".")[0]) <= last]
    return [key for key in keys if ("." in key) == cells] if cells else [key for key in keys if "." not in key]


SPOTS, BARS, BAR_CELLS, STROBES, FRONT, HAZE = (
    of(101, 110), of(321, 324), of(321, 324, cells=True), of(801, 804), of(701, 706), of(951, 951),
)  # fmt: skip


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("keys", [SPOTS, BAR_CELLS, STROBES, FRONT])
@given(share=st.floats(0, 1), seed=st.integers(0, 99))
def test_a_flash_goes_from_what_is_there_to_its_targets_on_its_row_alone(kind, keys, share, seed):
    lit = numbers(RIG, keys)
    heads = np.array(list(dict.fromkeys([*lit.tolist(), *whole(RIG, lit).tolist()])))
    before = np.random.default_rng(seed).uniform(RIG.low, RIG.high)
    values = before.copy()
    one = flash(RIG, kind, heads, lit, 10.0)
    one.apply(values.reshape(-1), share, since=0.01, rate_hz=10.0)
    others = np.setdiff1d(np.arange(len(RIG)), heads)
    assert np.array_equal(values[:, others], before[:, others])
    changed = np.zeros(values.size, bool)
    changed[one.places] = True
    assert np.array_equal(values.reshape(-1)[~changed], before.reshape(-1)[~changed])
    expected = before.reshape(-1)[one.places] + share * (one.targets - before.reshape(-1)[one.places])
    assert np.allclose(values.reshape(-1)[one.places], expected)


def test_the_halves_of_a_row_are_its_own_order_and_cells_come_with_what_leads_them():
    lit = numbers(RIG, BAR_CELLS)
    heads = np.concatenate([lit, np.unique(whole(RIG, lit))])
    values = np.zeros(RIG.home.shape)
    flash(RIG, "odd", heads, lit, 8.0).apply(values.reshape(-1), 1.0, 0.0, 8.0)
    level = values[attributes.INTENSITY]
    assert level[lit].tolist() == [100.0, 0.0] * 20
    assert level[numbers(RIG, BARS)].tolist() == [100.0] * 4


def test_lights_without_a_strobe_go_on_and_off_at_the_rate():
    front, values = numbers(RIG, FRONT), np.zeros(RIG.home.shape)
    one = flash(RIG, "strobe", front, front, 5.0)
    seen = []
    for n in range(20):
        one.apply(values.reshape(-1), 1.0, since=n * 0.05, rate_hz=5.0)
        seen.append(values[attributes.INTENSITY, front[0]] > 0)
    assert sum(a != b for a, b in pairwise(seen)) == 9  # five times a second, for a second
    with_own = numbers(RIG, STROBES)
    flash(RIG, "strobe", with_own, with_own, 5.0).apply(values.reshape(-1), 1.0, 0.15, 5.0)
    assert values[attributes.INDEX["strobe"], with_own[0]] == 5
    assert values[attributes.INTENSITY, with_own[0]] == 100


@given(st.lists(st.tuples(st.floats(0.0, 1.0), st.floats(0, 1)), min_size=1, max_size=5))
def test_a_colour_that_is_picked_again_and_again_never_loses_its_saturation(picks):
    one, t = Picked((1.0, 0.0, 0.0), (1.0, 0.0, 0.0)), 0.0
    for pause, hue in picks:
        t += pause
        sextant = hue * 6
        rgb = tuple(float(np.clip(abs((sextant + shift) % 6 - 3) - 1, 0, 1)) for shift in (0, 4, 2))
        before = one.at(t)
        one = one.to(rgb, t)
        assert one.at(t) == pytest.approx(before, abs=1e-9)
        for later in (0.1, 0.25, 0.49):
            assert max(one.at(t + later)) == pytest.approx(1, abs=1e-6)
            assert min(one.at(t + later)) == pytest.approx(0, abs=1e-6)
        assert one.at(t + 0.5) == pytest.approx(rgb)


def test_two_colours_act_on_lights_that_mix_and_leave_the_rest():
    rows = [numbers(RIG, SPOTS), numbers(RIG, FRONT)]
    place = Place.of(RIG, rows)
    assert sorted(place.heads.tolist()) == sorted(numbers(RIG, SPOTS).tolist())
    values = RIG.home.copy()
    Weaving(place, 0.0, (1.0, 0.0, 0.0), (0.0, 0.0, 1.0), 1.0).apply(values)
    first, middle = numbers(RIG, [SPOTS[0], SPOTS[5]])
    colour = [attributes.RED, attributes.GREEN, attributes.BLUE]
    assert values[colour, first].tolist() == [1, 0, 0]
    assert values[colour, middle] == pytest.approx([0, 0, 1])
    rest = np.ones(values.shape, bool)
    rest[np.ix_(colour, place.heads)] = False
    assert np.array_equal(values[rest], RIG.home[rest])


CHASE = {"name": "Chase", "layers": [
    {"attribute": "intensity", "form": {"kind": "waveform", "shape": "swell"}, "anchor": {"kind": "above", "depth": 50}},
    {"attribute": "pan", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 20}},
    {"attribute": "intensity", "form": {"kind": "stops", "stops": [{"value": 10, "travel": 1, "hold": 1}]}, "anchor": None},
]}  # fmt: skip


@pytest.mark.parametrize("shape", SHAPES)
@pytest.mark.parametrize("spread", SPREADS)
@pytest.mark.parametrize("travel", ["", *TRAVELS])
def test_an_effect_played_otherwise_keeps_what_is_not_asked_for(shape, spread, travel):
    effect = from_document(CHASE)
    now = varied(effect, Variant(pairs=True, shape=shape, spread=spread, travel=travel))
    wave, pan, stops = now.layers
    assert isinstance(wave.form, Waveform)
    assert (wave.form.shape, wave.spread, wave.anchor) == (shape, SPREADS[spread], effect.layers[0].anchor)
    assert (pan, now.speed, now.run, now.drift) == (effect.layers[1], effect.speed, effect.run, effect.drift)
    assert isinstance(stops.form, Stops)
    assert (now.lanes.parts, now.lanes.mirror, now.lanes.travel) == (2, True, travel or effect.lanes.travel)
    only_pan = from_document({**CHASE, "layers": [CHASE["layers"][1]]})
    assert varied(only_pan, Variant(shape=shape, spread=spread, travel=travel)) == only_pan
    assert not moves_intensity(only_pan)


def test_what_lights_can_do_counts_what_leads_or_turns_them():
    bars, front, haze = (abilities(RIG, keys) for keys in (BAR_CELLS, FRONT, HAZE))
    assert (bars.level, bars.colour, bars.position) == (True, True, True)
    assert (front.level, front.colour, front.position, set(front.beam)) == (True, False, False, set())
    assert (haze.haze, haze.level, set(haze.beam)) == (True, False, set())
    places = [stage_place(RIG, keys) for keys in (SPOTS, BARS, FRONT)]
    assert places == sorted(places), "from the back of the stage to the front"
    assert stage_place(RIG, ["99999"]) == (0.0, 0.0)


def test_lights_that_only_tilt_look_at_the_crowd_and_away_from_it():
    bars = numbers(RIG, BARS)
    found = tilts(RIG, bars)
    ahead = {name: stage.direction(np.zeros(4), angles, RIG.mounting[bars])[:, 1] for name, angles in found.items()}
    assert (ahead["Crowd"] < -0.5).all()
    assert (ahead["Back"] > 0.5).all()
    assert np.ptp(found["Fan"]) == 100
