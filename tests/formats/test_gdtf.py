"""Fixture types read into kinds: values worked out by hand from the standard, and files that are no such files."""

import random
import time

import numpy as np
import pytest

from tests.formats import gdtf_files as files
from tests.thoroughness import scaled
from zarabanda.core.rig import attributes
from zarabanda.core.rig.modes import Channel, ModeSpec
from zarabanda.core.rig.rig import FixtureSpec, build
from zarabanda.core.rig.slots import Mapper, slots_of
from zarabanda.errors import ZarabandaError
from zarabanda.formats.gdtf.reading import read
from zarabanda.formats.gdtf.writing import write
from zarabanda.stock.kinds import plain_kinds

REEDS = {"wheels/reeds.png": files.PNG}


def taken(description, inside=()):
    return read(files.packed(description, inside))


def test_a_spot_has_what_its_file_says():
    found = taken(files.spot(), REEDS)
    full, small = (one.document for one in found.modes)
    assert (found.maker, found.model) == ("Corda & Söhne", "Lantern 7")
    assert (full.name, full.kind, full.emitters, full.footprint) == ("Lantern 7, Full", "spot", "cmy", 14)
    assert (full.beam_deg, full.pan_speed, full.tilt_speed) == (18, 180, 100)  # 540° in 3 s, 250° in 2.5 s
    channels = {one.source: one for one in full.channels}
    assert [channels[name].slots for name in ("pan", "tilt", "strobe")] == [[0, 1], [2, 3, 4], [5]]
    assert (channels["pan"].low, channels["pan"].high) == (270, -270)  # the other way round: here a fixture stands
    assert full.limits["zoom"] == (6, 44, 6)
    assert full.limits["pan"][2] == 0
    assert channels["strobe"].curve == [(0, 39), (1, 60), (20, 199)]  # open is the middle of 20–59
    assert full.gobos == ["Open", "Reeds", "Pebbles"]
    assert channels["gobo"].curve == [(0, 4), (1, 59), (2, 14)]
    assert [bool(one) for one in full.gobo_pictures] == [False, True, False]
    assert found.pictures[full.gobo_pictures[1]] == files.PNG
    assert full.rests == [(13, 7)]
    assert full.light[0] == 1
    assert full.light[2] < 0.6  # 3,200 K
    assert small.footprint == 2
    told = "\n".join([*found.left_out, *found.modes[0].left_out])
    for words in (
        "relations between channels",
        "Gobo1SelectSpin 100–255",
        "channel 13 (Color1)",
        "channel 14 (Control1)",
        "stays at 7",
    ):
        assert words in told


def test_cells_that_refer_to_one_geometry_stand_where_it_is_referred_to():
    (mode,) = taken(files.bar()).modes
    document = mode.document
    assert (document.kind, document.emitters, document.footprint, mode.left_out) == ("batten", "rgbw", 17, [])
    assert [place[0] for place in document.cells] == [0.15, 0.05, -0.05, -0.15]  # seen from behind the light: it stands here
    assert [one.cell for one in document.channels] == [1] * 4 + [2] * 4 + [3] * 4 + [4] * 4 + [0]
    assert document.channels[-1].slots == [16]  # a second address goes on behind the first
    assert document.spec().leads
    assert document.emitter_colours == {"red": (1.0, 0.0, 0.0)}


@pytest.mark.parametrize(
    ("attribute", "value", "slots"),
    [
        ("pan", 0, [(0, 127, 128)]),
        ("pan", 270, [(0, 0)]),
        ("tilt", 0, [(2, 127, 128)]),
        ("strobe", 0, [(5, 39)]),
        ("strobe", 10.5, [(5, 129, 130)]),
        ("gobo", 1, [(7, 59)]),
        ("gobo", 2, [(7, 14)]),
        ("zoom", 25, [(8, 127, 128)]),
    ],
)
def test_values_come_out_at_the_levels_of_the_file(attribute, value, slots):

    spec = taken(files.spot()).modes[0].document.spec()
    rig = build([FixtureSpec(1, "spot", spec, (0, 0, 5))])
    values = rig.home.copy()
    values[attributes.INDEX[attribute], 0] = value
    sent = Mapper(rig).bytes(values)[0]
    assert sent[13] == 7
    for slot, *expected in slots:
        assert sent[slot] in expected


def level(text, size):
    offset = ",".join(str(n + 1) for n in range(size))
    channels = files.element("DMXChannels", files.channel(offset, "Base", files.function("Control1", default=text)))
    mode = files.element("DMXMode", channels, Name="One", Geometry="Base")
    found = taken(files.fixture_type(modes=[mode], geometries=files.element("Geometry", Name="Base")))
    rests = dict(found.modes[0].document.rests)
    return [rests.get(slot, 0) for slot in range(size)]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("255/1", [255, 255]),
        ("128/1", [128, 128]),
        ("128/1s", [128, 0]),
        ("258/2", [1, 2]),
        ("258/2", [1]),
        ("65535/2s", [255, 255, 0]),
    ],
)
def test_levels_repeat_or_shift_as_the_standard_says(text, expected):
    assert level(text, len(expected)) == expected


TOP = dict.fromkeys(["red", "green", "blue"], 1.0)
GOOD = files.spot()
TOO_DEEP = "<Geometry Name='a'>" * 60 + "</Geometry>" * 60


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "no XML"),
        (GOOD[:900], "no XML"),
        ('<!DOCTYPE a [<!ENTITY b "c">]>' + GOOD.split("?>", 1)[1], "entities"),
        ("<Show/>", "where GDTF is expected"),
        ("<GDTF/>", "no FixtureType"),
        ("<GDTF><FixtureType/></GDTF>", "no mode"),
        (GOOD.replace('"32768/2"', '"70000/2"'), "more than 2 bytes"),
        (GOOD.replace('"32768/2"', '"half"'), "is no level"),
        (GOOD.replace('RealFade="3"', 'RealFade="nan"'), "is no number"),
        (GOOD.replace('Offset="1,2"', 'Offset="1,99999999"'), "1 to 4 numbers"),
        (GOOD.replace('DMXBreak="1"', 'DMXBreak="9000"', 1), "from 1 to 16"),
        (GOOD.replace('Position="{1', 'Position="{one', 1), "no matrix"),
        (files.fixture_type(modes=["<DMXMode Name='a'/>"], geometries=TOO_DEEP), "deep"),
        (GOOD.replace("Made up", "x" * 5000), "5,000 characters"),
        (files.fixture_type(modes=["<DMXMode Name='a'/>"] * 65, geometries=""), "65 modes"),
        (files.fixture_type(modes=["<DMXMode Name='a'/>"], geometries="<Geometry/>" * 4001), "4,001 geometries"),
        ("<GDTF>" + "<a/>" * 1_000_000 + "</GDTF>", "400,000 elements"),
        (GOOD.encode().replace("Söhne".encode(), b"S\xf6hne"), "no XML"),
    ],
    ids=lambda value: value if isinstance(value, str) and len(value) < 60 else "file",
)
def test_what_is_no_fixture_type_is_told_with_what_to_do(text, words):
    begun = time.perf_counter()
    with pytest.raises(ZarabandaError) as caught:
        taken(text)
    assert words in caught.value.message
    assert caught.value.message.endswith(".")
    assert time.perf_counter() - begun < 60


def test_a_type_of_very_many_cells_is_read_in_time():
    channels = [
        files.channel(str(n), "Cell", files.function(f"ColorAdd_{one}"), dmx_break="Overwrite") for n, one in enumerate("RGB", 1)
    ]
    cells = []
    for n in range(660):
        at = files.element("Break", DMXOffset=1 + 3 * n, DMXBreak=1)
        place = files.UNIT % (0.02 * n, 0, 0)
        cells.append(files.element("GeometryReference", at, Name=f"Cell {n}", Geometry="Cell", Position=place))
    body = files.element("Geometry", *cells, Name="Body") + files.element("Beam", Name="Cell")
    modes = [
        files.element("DMXMode", files.element("DMXChannels", *channels), Name=f"Mode {n}", Geometry="Body") for n in range(4)
    ]
    begun = time.process_time()
    found = taken(files.fixture_type(modes=modes, geometries=body))
    assert time.process_time() - begun < 5
    assert [len(one.document.cells) for one in found.modes] == [660] * 4


def test_the_zip_is_looked_at_first(zips_to_refuse):
    for content, words in zips_to_refuse("description.xml"):
        with pytest.raises(ZarabandaError, match=words):
            read(content)


def test_mutated_files_are_read_or_refused(mutated):
    used = 0
    for content in mutated(files.packed(GOOD, REEDS), GOOD.encode(), files.packed, 1000):
        begun = time.process_time()
        try:
            found = read(content)
        except ZarabandaError:
            continue
        finally:
            assert time.process_time() - begun < 5
        used += 1
        for mode in found.modes:
            Mapper(build([FixtureSpec(1, "any", mode.document.spec(), (0, 0, 0))]))
    assert used >= scaled(50)


def test_curves_agree_with_a_plain_reading_on_random_kinds():
    chance = random.Random(7)

    for _ in range(60):
        channels, rests, slot = [], [], 0
        names = chance.sample(["pan", "zoom", "iris", "strobe", "gobo", "red", "green", "blue"], 6)
        for name in names:
            size = chance.choice([1, 1, 2, 3])
            slots = tuple(range(slot, slot + size))
            points = sorted(chance.sample(range(-20, 60), 3)) if name != "gobo" else [0, 1, 2]
            levels = [chance.randrange(256**size) for _ in points]
            curve = tuple(zip(map(float, points), levels, strict=True)) if chance.random() < 0.7 or name == "gobo" else ()
            channels.append(Channel(name, slots, 0.0, TOP.get(name, 10.0), curve=curve))
            rests.append((slot + size, chance.randrange(256)))
            slot += size + 1
        mode = ModeSpec("any", "spot", "rgb", tuple(channels), slot, rests=tuple(rests))
        rig = build([FixtureSpec(1, "a", mode, (0, 0, 0), address=1), FixtureSpec(2, "b", mode, (0, 0, 0), address=200)])
        values = np.array([[chance.uniform(-5, 15) for _ in range(2)] for _ in range(attributes.COUNT)])
        values = np.clip(values, rig.low, rig.high)
        values[attributes.INTENSITY] = 100
        sent = Mapper(rig).bytes(values)[0]
        for head, begin in ((0, 0), (1, 199)):
            assert [int(sent[begin + at]) for at, _ in rests] == [byte for _, byte in rests]
            for one in channels:
                value, full = values[attributes.INDEX[one.source], head], 256 ** len(one.slots) - 1
                if one.curve and one.source == "gobo":
                    expected = min(one.curve, key=lambda point: abs(point[0] - value))[1]
                elif one.curve:
                    at, levels = zip(*one.curve, strict=True)
                    expected = np.interp(value, at, levels)
                else:
                    expected = min(max(value / TOP.get(one.source, 10.0), 0), 1) * full
                if one.source not in TOP:  # colours come out together
                    assert slots_of(rig, head, [attributes.INDEX[one.source]]) == [(1, begin + at + 1) for at in one.slots]
                got = int.from_bytes(bytes(int(sent[begin + at]) for at in one.slots), "big")
                assert abs(got - expected) <= 0.5 + 1e-6 * full


@pytest.mark.parametrize("name", list(plain_kinds()))
def test_what_is_written_is_read_with_the_same_bytes(name):
    given = plain_kinds()[name]
    (mode,) = read(write([given])).modes
    back = mode.document
    assert (back.name, back.footprint, len(back.cells)) == (given.name, given.footprint, len(given.cells))
    assert [(one.source, one.slots, one.cell) for one in back.channels] == [
        (one.source, one.slots, one.cell) for one in sorted(given.channels, key=lambda one: one.slots[0])
    ]
    np.testing.assert_allclose(np.array(back.cells), np.array(given.cells), atol=1e-5)
    if given.virtual:
        return  # white that its colours make has no word in the standard
    rigs = [build([FixtureSpec(1, "a", one.spec(), (0, 0, 0))]) for one in (given, back)]
    chance = np.random.default_rng(5)
    wheels = {slot for one in given.channels if one.source in ("gobo", "wheel") for slot in one.slots}
    for _ in range(5):
        values = np.clip(chance.uniform(-300, 300, rigs[0].low.shape), rigs[0].low, rigs[0].high)
        first, second = (Mapper(rig).bytes(values)[0].astype(int) for rig in rigs)
        differs = {slot for slot in np.flatnonzero(np.abs(first - second) > 1).tolist() if abs(first[slot] - second[slot]) < 255}
        assert differs <= wheels
