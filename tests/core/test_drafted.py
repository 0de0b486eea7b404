"""What the draft holds in words, how palettes look, and positions from where lights stand."""

import numpy as np
import pytest

from zarabanda.core.effects.palette import Palette
from zarabanda.core.explain.drafted import listed
from zarabanda.core.explain.palettes import acting_on, picture_of
from zarabanda.core.rig import stage
from zarabanda.core.rig.attributes import PAN, TILT
from zarabanda.core.rig.modes import Channel, ModeSpec
from zarabanda.core.rig.positions import POSITIONS, positions
from zarabanda.core.rig.rig import FixtureSpec, build

_NAMES = ("pan", "tilt", "intensity", "zoom", "gobo", "red", "green", "blue")
SPOT = ModeSpec("spot", "spot", "rgb", tuple(Channel(name, (n,)) for n, name in enumerate(_NAMES)), 8, model="Volta")
WASH = ModeSpec("wash", "wash", "rgb", SPOT.channels, 8, model="Gavotte")
RIG = build(
    [
        FixtureSpec(n + 1, "a light", SPOT if n < 3 else WASH, (2.0 * n - 4, 5, 6), (0, 180, 0), address=8 * n + 1)
        for n in range(5)
    ]
)
ALL = list(range(5))


def pictured(palette):
    return picture_of(RIG, palette, acting_on(RIG, palette))


def test_values_are_listed_by_attribute_and_by_what_they_come_from():
    values = {"pan": {"1": -20.0, "2": 20.04}, "red": {"1": 1.0}, "green": {"1": 0.0}, "blue": {"1": 0.0}, "zoom": {"1": 5.0}}
    sources = {"pan": {"1": "fan", "2": "fan"}, "zoom": {"1": "draft", "2": "Tight"}} | {
        name: {"1": "Coral"} for name in ("red", "green", "blue")
    }
    found = [(one.label, one.source, one.words, one.heads) for one in listed(values, sources)]
    assert found == [
        ("Pan", "fan", "−20 … 20 °", ("1", "2")), ("Colour", "Coral", "", ("1",)), ("Zoom", "draft", "5 °", ("1",)),
        ("Zoom", "Tight", "", ("2",)),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("palette", "acts"),
    [
        (Palette("any", {"zoom": 10.0}), [10, 10, 10, 10, 10]),
        (Palette("models", models={"Volta": {"zoom": 10.0}}), [10, 10, 10, None, None]),
        (Palette("heads", own={"2": {"zoom": 10.0}, "99": {"zoom": 1.0}}), [None, 10, None, None, None]),
        (Palette("all", {"zoom": 1.0}, {"1": {"zoom": 3.0}}, {"Gavotte": {"zoom": 2.0}}), [3, 1, 1, 2, 2]),
        (Palette("what nobody has", {"frost": 10.0}), [None] * 5),
    ],
)
def test_palettes_act_by_heads_by_model_or_by_attribute(palette, acts):
    [name] = palette.names
    on = palette.on(RIG.heads, ALL, [name])[:, 0]
    does = palette.acts(RIG.heads, ALL, [name])[:, 0]
    assert [value if able else None for value, able in zip(on.tolist(), does.tolist(), strict=True)] == acts


def test_pictures_show_colours_beams_gobo_and_zoom():
    red = {"red": 1.0, "green": 0.0, "blue": 0.0}
    blue = {"red": 0.0, "green": 0.0, "blue": 1.0}
    assert pictured(Palette("red", red)).colours == ("#ff0000",)
    assert pictured(Palette("two", own={"1": blue, "2": red, "3": red})).colours == ("#ff0000", "#0000ff")
    beam = pictured(Palette("beam", {"gobo": 3.0, "zoom": 8.0, "intensity": 60.0}))
    assert (beam.gobo, beam.zoom, beam.level, beam.colours, beam.beams) == (3, 8, 60, (), ())
    down = pictured(Palette("down", {"pan": 0.0, "tilt": 0.0})).beams
    assert [start for start, *_ in down] == [-0.8, -0.4, 0.0, 0.4, 0.8]
    assert all(start == end and top < bottom for start, end, top, bottom in down)


def test_positions_point_where_their_names_say():
    places = RIG.heads.places
    found = positions(RIG, np.array(ALL))
    for name, points in POSITIONS.items():
        pan, tilt = found[name]
        way = stage.direction(pan, tilt, RIG.mounting)
        meant = points(places, 6.0) - places
        meant /= np.linalg.norm(meant, axis=1, keepdims=True)
        assert (way * meant).sum(axis=1) == pytest.approx(1, abs=1e-6), name
        assert (np.abs(pan) <= RIG.high[PAN]).all()
        assert (np.abs(tilt) <= RIG.high[TILT]).all()
