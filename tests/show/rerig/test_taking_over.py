"""A show taken over to other lights: what follows, what is limited, what goes, and that it comes back as it was."""

import json
import shutil
from dataclasses import replace

import numpy as np
import pytest
from sqlalchemy import select

from zarabanda.core.rig import stage
from zarabanda.core.rig.followed import points_of
from zarabanda.demo import touring
from zarabanda.errors import ZarabandaError
from zarabanda.show.compile import all_parts
from zarabanda.show.rerig import pairs, rigs, taking_over
from zarabanda.show.rerig.pairs import Pair, Side
from zarabanda.show.store import Store
from zarabanda.show.tables import BuskRow, ControlRow, CueRow, EffectRow, Fixture, Group, PaletteRow, PixelMapRow, SpecialRow

pytestmark = pytest.mark.slow

TOUR = rigs.of_documents(touring.fixtures(), touring.modes(), touring.CALLED)


@pytest.fixture
def store(tmp_path, demo_show):
    shutil.copy(demo_show, tmp_path / "show.db")
    store = Store(tmp_path / "show.db")
    yield store
    store.close()


def rig_of(store):
    with store.reading() as session:
        return rigs.of_session(session)


def taken(store, after, every, **more):
    with store.edit("b", "Take over") as session:
        return taking_over.to_other_rig(session, after, every, **more)


def content(store, *tables):
    with store.reading() as session:
        return [
            (row.__tablename__, {one.name: getattr(row, one.name) for one in row.__table__.columns})
            for table in tables
            for row in session.scalars(select(table))
        ]


def side(rig, name):
    return next(one for one in pairs.sides(rig) if one.name == name)


def test_groups_of_the_same_name_and_kind_are_proposed_and_none_where_nothing_is_like_it(store):
    found = {one.source.name: one.target and one.target.name for one in pairs.proposed(rig_of(store), TOUR)}
    same = ("Rear spots", "Mid washes", "Deck beams", "Side ladders", "Battens", "Salt wall")
    assert found == dict.fromkeys(same) | {name: name for name in same} | dict.fromkeys(
        ("Tilt bars", "Front", "Strobes", "Crowd", "Haze")
    )


def test_the_demo_goes_on_tour_and_undo_brings_all_of_it_back(store):
    every = (Fixture, Group, PaletteRow, EffectRow, CueRow, ControlRow, BuskRow, PixelMapRow, SpecialRow)
    before, rig = content(store, *every), rig_of(store)
    report = taken(store, TOUR, pairs.proposed(rig, TOUR))
    assert report.counts["cues"] == sum(one.what == "cues" for one in report.told) > 40
    after = rig_of(store)
    assert after.fixtures == TOUR.fixtures
    assert {one.name: one.heads for one in after.groups if one.heads} == {one.name: one.heads for one in TOUR.groups}
    known, text = after.keys, json.dumps(content(store, CueRow, ControlRow, PaletteRow, PixelMapRow, SpecialRow), default=str)
    for key in sorted(rig.keys - known):
        assert f'"{key}"' not in text
    with store.reading() as session:
        assert all_parts(session), "the engine can have it"
    store.undo("b")
    assert content(store, *every) == before


def test_positions_hit_the_same_points_within_5_cm_where_they_can_be_reached(store):
    before = rig_of(store)
    with store.reading() as session:
        name = "Stage, Rear spots"
        was = session.scalars(select(PaletteRow).where(PaletteRow.name == name)).one().document["own"]
    taken(store, TOUR, pairs.proposed(before, TOUR))
    with store.reading() as session:
        now = session.scalars(select(PaletteRow).where(PaletteRow.name == name)).one().document["own"]
    came = pairs.matched(Pair(side(before, "Rear spots"), side(TOUR, "Rear spots")), before, TOUR)
    for n, old in enumerate(came.tolist()):
        keys = str(101 + old), str(11 + n)
        ends = []
        for rig, key, values in ((before.rig, keys[0], was), (TOUR.rig, keys[1], now)):
            light = np.array([rig.heads.index[key]])
            point, _, hits = points_of(rig, light, *(np.array([values[key][name]]) for name in ("pan", "tilt")))
            assert hits.all()
            ends.append(point[0])
        assert np.linalg.norm(ends[0] - ends[1]) < 0.05


def test_angles_are_kept_where_that_is_chosen_and_limited_in_their_units(store):
    before = rig_of(store)
    with store.edit("b", "wide") as session:
        row = session.scalars(select(PaletteRow).where(PaletteRow.name == "Stage, Rear spots")).one()
        row.document = {"family": "mixed", "own": {"105": {"pan": 12.5, "tilt": 127.0, "zoom": 48.0, "iris": 40.0}}}
    report = taken(store, TOUR, pairs.proposed(before, TOUR), aims=False)
    with store.reading() as session:
        own = session.scalars(select(PaletteRow).where(PaletteRow.name == "Stage, Rear spots")).one().document["own"]
    assert own == {"14": {"pan": 12.5, "tilt": 120.0, "zoom": 36.0}}
    (told,) = (one.lines for one in report.told if one.name == "Stage, Rear spots")
    for line in ("1 × no iris there", "1 × tilt limited to what they can do", "1 × zoom limited to what they can do"):
        assert line in told


def test_own_offsets_and_depths_of_an_effect_follow_their_lights(store):
    before = rig_of(store)
    with store.edit("b", "own") as session:
        row = session.scalars(select(EffectRow).where(EffectRow.name == "Tide fold")).one()
        own = {"101": {"offset": 10, "depth": 0.5}, "105": {"offset": 30}, "205": {"left_out": True}}
        row.document = {**row.document, "own": own}
        number = row.id
    taken(store, TOUR, pairs.proposed(before, TOUR))
    with store.reading() as session:
        assert session.get(EffectRow, number).document["own"] == {"14": {"offset": 30}, "34": {"left_out": True}}


def rounded(value):
    if isinstance(value, dict):
        return {key: rounded(one) for key, one in value.items()}
    if isinstance(value, list):
        return [rounded(one) for one in value]
    return round(value, 2) + 0.0 if isinstance(value, float) else value


def moved(rig, by):
    """The same rig, renumbered and standing elsewhere."""
    fixtures = tuple(
        one.model_copy(update={"number": one.number + by, "place": (one.place[0], one.place[1] + 1, one.place[2])})
        for one in rig.fixtures
    )
    heads = {
        key: ".".join([str(int(key.split(".")[0]) + by), *key.split(".")[1:]]) for group in rig.groups for key in group.heads
    }
    groups = tuple(replace(one, heads=tuple(heads[key] for key in one.heads), id=0) for one in rig.groups)
    return rigs.RigRows(fixtures, rig.modes, groups)


def test_a_round_trip_to_a_rig_and_back_leaves_everything_equal_but_for_rounded_angles(store):
    tables = (EffectRow, CueRow, ControlRow, SpecialRow, PixelMapRow, Group, BuskRow)
    before, was = rig_of(store), content(store, *tables)
    there = moved(before, 2000)
    taken(store, there, pairs.proposed(before, there))
    assert content(store, CueRow) != [one for one in was if one[0] == "cue"]
    taken(store, before, pairs.proposed(rig_of(store), before))
    for (table, now), (_, then) in zip(content(store, *tables), was, strict=True):
        assert rounded(now) == rounded(then), table
    assert rig_of(store).fixtures == before.fixtures


@pytest.mark.parametrize(("way", "expected"), [("middle", ["12", "14", "16"]), ("hand", ["18", "11"])])
def test_lists_keep_the_order_of_the_lights_they_follow(store, way, expected):
    before = rig_of(store)
    match = (9, -1, -1, -1, -1, -1, -1, 0) if way == "hand" else ()
    pair = Pair(side(before, "Rear spots"), side(TOUR, "Rear spots"), way, match=match)
    heads = pairs.heads_of([pair], before, TOUR)
    asked = ["101", "103", "105", "107"] if way == "middle" else ["101", "103", "110"]
    assert [now for key in asked for now in heads.lists[key]] == expected


def test_a_row_that_is_repeated_keeps_the_direction_of_lists(store):
    from zarabanda.show.rerig.following import Follow

    before = rig_of(store)
    target = Side("Spots and washes", (*range(11, 19), *range(31, 39)))
    pair = Pair(replace(side(before, "Rear spots"), numbers=tuple(range(101, 105))), target, repeats=True)
    follow = Follow(pairs.heads_of([pair], before, TOUR), before, TOUR, aims=False)
    everywhere = [str(number) for number in target.numbers]
    assert follow.keys(["101", "102", "103", "104"]) == everywhere
    assert follow.keys(["104", "103", "102", "101"]) == everywhere[::-1]


def test_a_group_of_the_show_takes_over_from_another_and_does_its_own_only_where_that_did_nothing(store):
    before = rig_of(store)
    named = {one.name: one for one in before.groups}
    spots, beams = named["Rear spots"], named["Deck beams"]
    both = [Side(one.name, pairs.numbers_of(one.heads, before), one.id) for one in (spots, beams)]
    with store.edit("b", "a cue") as session:
        cue = session.scalars(select(CueRow)).first()
        cue.document = {**cue.document, "values": {"intensity": {"105": 70.0, "304": 20.0, "301": 55.0}}, "effects": []}
        number = cue.id
    with store.edit("b", "Take over") as session:
        report = taking_over.within(session, [Pair(*both)])
    assert rig_of(store).groups == before.groups
    with store.reading() as session:
        assert session.get(CueRow, number).document["values"] == {"intensity": {"304": 70.0, "301": 55.0}}
        rows = session.scalars(select(BuskRow).where(BuskRow.group_id == beams.id)).all()
        assert {row.name for row in rows} >= {"Rear spots", "Deck beams"}
        tide = session.scalars(select(ControlRow).where(ControlRow.name == "Spots: tide fold")).one()
        assert tide.target["heads"] == [str(n) for n in range(301, 309)]
    assert report.counts["rows"] == 1


@pytest.mark.parametrize(
    ("pair", "said"),
    [
        (lambda rig: [], "No lights take over"),
        (lambda rig: [Pair(side(rig, "Haze"), side(TOUR, "Salt wall"))], "“Salt wall” can do nothing of what “Haze” does"),
        (lambda rig: [Pair(side(rig, "Rear spots"), side(TOUR, "Rear spots"), "hand", match=(1,))], "gives each of the 8 lights"),
    ],
)  # fmt: skip
def test_what_cannot_be_matched_is_refused_and_nothing_is_changed(store, pair, said):
    before = content(store, Fixture, CueRow)
    with pytest.raises(ZarabandaError, match=said), store.edit("b", "Take over") as session:
        taking_over.to_other_rig(session, TOUR, pair(rig_of(store)))
    assert content(store, Fixture, CueRow) == before
    with pytest.raises(ZarabandaError, match="has no lights"):
        pairs.side_of(TOUR, [], "Nobody")


def test_a_beam_into_the_air_keeps_its_direction(store):
    from zarabanda.core.rig.followed import aimed_alike

    rig = rig_of(store).rig
    old, new = (np.array([one.heads.index[key] for key in keys]) for one, keys in ((rig, ["301"]), (TOUR.rig, ["51"])))
    made = aimed_alike(rig, old, np.array([30.0]), np.array([-20.0]), TOUR.rig, new)
    ways = (
        stage.direction(np.array([30.0]), np.array([-20.0]), rig.mounting[old]),
        stage.direction(made.pan, made.tilt, TOUR.rig.mounting[new]),
    )
    np.testing.assert_allclose(*ways, atol=1e-9)
