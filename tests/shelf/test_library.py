"""The shows of a folder: one open, others beside it; whole or not at all, whenever it is killed; copies thinned by age."""

import os
import sqlite3

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zarabanda.demo import salt_light
from zarabanda.errors import ZarabandaError
from zarabanda.shelf.copies import COPIES, Copy, kept_of
from zarabanda.shelf.library import BIN_DAYS, FILE, SHOWS, Library
from zarabanda.show.store import Store
from zarabanda.show.tables import Show

pytestmark = pytest.mark.slow

HOUR, DAY = 3600, 86_400


def make(store, name="Made"):
    with store.edit("setup", "New show") as session:
        salt_light.new_show(session, name)


def fill(name):
    def filled(path):
        store = Store(path)
        make(store, name)
        store.close()

    return filled


def prepared(data):
    told = []
    library = Library(data)
    library.prepare(make, told.append)
    return library, told


def names(library):
    return [one.name for one in library.every()]


def test_a_new_folder_has_one_show_and_a_show_that_lies_beside_comes_in_and_is_open(tmp_path):
    library, told = prepared(tmp_path)
    assert (names(library), told) == (["Made"], [])
    fill("Of an earlier version")(tmp_path / FILE)
    library, told = prepared(tmp_path)
    assert names(library) == ["Made", "Of an earlier version"]
    assert (library.every()[1].id, told) == (library.open_id, [])
    assert not (tmp_path / FILE).exists()


def test_what_is_damaged_is_put_aside_and_a_new_one_is_open(tmp_path):
    library, _ = prepared(tmp_path)
    library.open_path.write_bytes(b"garbage" * 500)
    library, told = prepared(tmp_path)
    assert "put aside" in told[0]
    assert names(library) == ["Made"]


class Killed(BaseException):
    pass


def steps(library, what):
    """How the library is left when it is killed before each of the renames that it does, and in the end."""
    real, count = os.replace, [0]

    def replace(*places):
        count[0] -= 1
        if count[0] == 0:
            raise Killed
        real(*places)

    for n in range(1, 9):
        count[0] = n
        os.replace = replace
        try:
            what()
        except Killed:
            yield n
            continue
        finally:
            os.replace = real
        return
    raise AssertionError("too many renames")


def test_a_kill_in_the_middle_leaves_the_old_or_the_new(tmp_path):
    library, _ = prepared(tmp_path)
    first = library.open_id
    other = library.make(fill("Other"))
    for _ in steps(library, lambda: library.open(other)):
        again, told = prepared(tmp_path)
        assert again.open_id in (first, other)
        assert (names(again), told) == (["Made", "Other"], [])
        again.open(first)
    for _ in steps(library, lambda: library.copy(other, "Copy")):
        again, _ = prepared(tmp_path)
        assert names(again) == ["Made", "Other"]
        assert not list((tmp_path / SHOWS).glob(".making*"))
    for _ in steps(library, lambda: library.copies(other).take("clock")):
        assert [path.suffix for path in (library.folder(other) / COPIES).glob("*.zarabanda")] == []


def test_a_show_of_an_earlier_version_is_copied_before_it_is_brought_up_to_date(tmp_path):
    library, _ = prepared(tmp_path)
    with sqlite3.connect(library.open_path) as connection:
        dropped = "; ".join(f"ALTER TABLE fixture DROP COLUMN {name}" for name in ("layer", "class_name", "uuid"))
        connection.executescript(f"{dropped}; UPDATE alembic_version SET version_num = '0015'")
    connection.close()
    library, told = prepared(tmp_path)
    Store(library.open_path).close()
    assert told == []
    assert [one.reason for one in library.copies(library.open_id).every()] == ["migration"]


def test_what_is_in_the_bin_can_be_taken_back_for_thirty_days(tmp_path):
    now = [1e9]
    library = Library(tmp_path, clock=lambda: now[0])
    library.prepare(make, print)
    other = library.make(fill("Other"))
    with pytest.raises(ZarabandaError, match="Open another one first"):
        library.delete(library.open_id)
    library.delete(other)
    assert (names(library), [one.name for one in library.bin()]) == (["Made"], ["Other"])
    now[0] += (BIN_DAYS - 1) * DAY
    library.empty_bin()
    library.take_back(other)
    assert names(library) == ["Made", "Other"]
    library.delete(other)
    now[0] += (BIN_DAYS + 1) * DAY
    library.empty_bin()
    assert (names(library), library.bin()) == (["Made"], [])


@pytest.mark.parametrize("identity", ["", "../evil", "00000000", "zzzzzzzz", "a" * 9])
def test_what_is_no_show_is_not_there(tmp_path, identity):
    library, _ = prepared(tmp_path)
    with pytest.raises(ZarabandaError, match="no show"):
        library.path(identity)


def test_one_store_goes_from_show_to_show_and_what_a_medium_is_used_by_is_found(tmp_path):
    library, _ = prepared(tmp_path)
    store = Store(library.open_path)
    other = library.make(fill("Other"))
    store.change_to(library.open(other))
    with store.edit("a", "Name") as session:
        session.get(Show, 1).name = "f" * 64
    assert [library.open_id, library.others_hold("f" * 64)] == [other, []]
    first = next(one.id for one in library.every() if one.id != other)
    store.change_to(library.open(first))
    assert library.others_hold("f" * 64) == ["f" * 64]
    with store.reading() as session:
        assert session.get(Show, 1).name == "Made"
    broken = library.make(fill("Broken"))
    library.path(broken).write_bytes(b"x" * 9000)
    with pytest.raises(ZarabandaError, match="damaged"):
        library.open(broken)
    assert library.open_id == first
    store.close()


AGES = st.lists(st.integers(0, 10 * DAY), max_size=120)


@given(AGES, st.lists(st.integers(0, 90 * DAY), max_size=30))
def test_copies_are_thinned_by_their_age_and_no_span_is_without_one(ages, changes):
    now = 2_000_000_000
    every = [Copy(now - age, "clock") for age in set(ages)] + [Copy(now - age, "restore") for age in set(changes)]
    kept = kept_of(every, now)
    assert kept <= set(every)
    clock = [one for one in kept if one.reason == "clock"]
    assert all(one in kept for one in every if one.reason == "clock" and now - one.at < HOUR)
    for span, most in ((HOUR, DAY), (DAY, 7 * DAY)):
        wanted = {one.at // span for one in every if one.reason == "clock" and now - one.at < most}
        assert {one.at // span for one in clock if now - one.at < most} == wanted
    assert len(clock) <= 3600 + 24 + 8 + 1
    restores = sorted((one for one in every if one.reason == "restore"), reverse=True)
    assert [one for one in restores if one in kept] == restores[:20]
    assert kept_of(kept, now) == kept
