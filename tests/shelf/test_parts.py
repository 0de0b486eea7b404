"""Parts of another show: what they refer to comes along or is matched, nothing is left pointing elsewhere, one undo step."""

import shutil

import pytest
from hypothesis import HealthCheck, given
from hypothesis import strategies as st
from sqlalchemy import text

from tests.thoroughness import thorough
from zarabanda.demo import beginnings
from zarabanda.errors import NotThere
from zarabanda.shelf import checks, parts
from zarabanda.show import references
from zarabanda.show.store import Store

pytestmark = pytest.mark.slow


@pytest.fixture(scope="module")
def rows(demo_show):
    with parts.source_of(demo_show) as found:
        return found


@pytest.fixture(scope="module")
def club(tmp_path_factory):
    path = tmp_path_factory.mktemp("club") / "show.db"
    beginnings.begin(path, "Club", "club", path.parent)
    return path


def opened(club, folder):
    shutil.copy(club, folder / "show.db")
    return Store(folder / "show.db")


def test_every_reference_that_the_index_knows_is_followed(rows):
    found = 0
    for table, used_by in references.DOCUMENTS.items():
        for row in rows.get(table, ()):
            if "id" in row:
                used = used_by(row)
                found += len(used)
                assert used <= set(parts.references_of(table, row)), (table, row["id"])
    assert found > 200


CHOICES = [("timeline", 1), ("timeline", 3), ("cue_list", 1), ("busk_page", 1), ("page", 2), ("pixel_map", 1), ("special", 5),
           ("look", 2), ("action_list", 1), ("effect", 3), ("palette", 30), ("picture", 4), ("head_group", 2)]  # fmt: skip


@thorough(8, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(st.sampled_from(CHOICES), min_size=1, max_size=4, unique=True))
def test_whatever_is_chosen_comes_in_whole_and_is_undone_in_one_step(brought, chosen):
    store, rows = brought
    before = counts(store)
    with store.edit("a", "Bring in") as session:
        plan = parts.planned(session, rows, chosen)
        parts.bring_in(session, plan)
    checks.check(store)  # every document can be read, everything plays, no foreign key hangs
    with store.reading() as session:
        for (table, _), row in plan.rows:
            for used, number in parts.references_of(table, row):
                there = session.execute(text(f'SELECT 1 FROM "{used}" WHERE id = :id'), {"id": number}).first()
                assert there, f"{table} {row['id']} refers to {used} {number}"
    assert {(one.kind, one.was) for one in plan.coming} >= {(parts.KINDS[t], name_of(rows, t, n)) for t, n in chosen}
    assert {one.name for one in plan.matched} <= names(store)
    store.undo("a")
    assert counts(store) == before


@pytest.fixture(scope="module")
def brought(club, rows, tmp_path_factory):
    store = opened(club, tmp_path_factory.mktemp("brought"))
    yield store, rows
    store.close()


def counts(store):
    with store.reading() as session:
        tables = [*parts.KINDS, *parts.NEEDED, *parts.WITHIN]
        return {table: session.execute(text(f'SELECT count(*) FROM "{table}"')).scalar() for table in tables}


def name_of(rows, table, number):
    return next(row["name"] for row in rows[table] if row["id"] == number)


def names(store):
    with store.reading() as session:
        tables = (table for table in (*parts.KINDS, *parts.NEEDED))
        return {name for table in tables for (name,) in session.execute(text(f'SELECT name FROM "{table}"'))}


def test_what_is_chosen_comes_in_beside_its_namesake_and_what_is_needed_is_the_namesake(rows, club, tmp_path):
    store = opened(club, tmp_path)
    chosen = [("palette", next(row["id"] for row in rows["palette"] if row["name"] == "Lagoon"))]
    brine = next(row for row in rows["effect"] if row["name"] == "Brine")
    with store.reading() as session:
        plan = parts.planned(session, rows, [*chosen, ("effect", brine["id"])])
    assert {(one.kind, one.name, one.was) for one in plan.coming} == {
        ("palettes", "Lagoon 2", "Lagoon"), ("effects", "Brine 2", "Brine"),
    }  # fmt: skip
    assert all(one.needed_by == "Brine" for one in plan.matched)
    store.close()


def test_fixtures_that_are_not_in_the_rig_are_told_and_what_is_gone_there_points_nowhere_here(rows, club, tmp_path):
    store = opened(club, tmp_path)
    gone = {**rows, "device": []}
    with store.reading() as session:
        plan = parts.planned(session, gone, [("pixel_map", 1), ("timeline", 3)])
        with pytest.raises(NotThere, match="Choose anew"):
            parts.planned(session, rows, [("palette", 9999)])
        with pytest.raises(NotThere):
            parts.planned(session, rows, [("edit", 1)])
    assert plan.fixtures[:2] != []
    assert {601, 616} <= set(plan.fixtures)
    assert 101 not in plan.fixtures, "the club has a fixture of this number"
    away = [used for key, row in plan.rows for used in parts.references_of(key[0], row) if used[0] == "device"]
    assert all(number > parts.NOWHERE for _, number in away)
    store.close()


def test_documents_are_renumbered_wherever_a_number_stands():
    document = {
        "effects": [{"effect": 3, "group_id": None, "thread": 3}], "stops": ["base", {"palette": 4}], "speed": {"tempo": "Slow"},
        "drives": "pixels:2:7", "pixels": {"map": 2, "picture": 0}, "trigger": {"tempo": 5},
        "seed": 3, "on": True, "row": "faders",
    }  # fmt: skip
    numbered = parts.with_numbers(document, lambda key: key[1] + 100)
    assert numbered == {
        "effects": [{"effect": 103, "group_id": None, "thread": 3}], "stops": ["base", {"palette": 104}],
        "speed": {"tempo": "Slow"}, "drives": "pixels:102:107", "pixels": {"map": 102, "picture": 0}, "trigger": {"tempo": 105},
        "seed": 3, "on": True, "row": "faders",
    }  # fmt: skip
    assert parts.with_numbers({"drives": "pad:4:12"}, lambda key: 9) == {"drives": "pad:9:12"}
    assert parts.with_numbers({"drives": "flash:4:white"}, lambda key: 9) == {"drives": "flash:9:white"}
