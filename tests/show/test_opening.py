"""A data folder always has a show that can be opened, and what is damaged is put aside and told."""

import sqlite3

import pytest

from zarabanda.demo import salt_light
from zarabanda.errors import ZarabandaError
from zarabanda.show import opening
from zarabanda.show.store import Store


def make(store):
    with store.edit("setup", "New show") as session:
        salt_light.new_show(session, "Made")


def prepared(data):
    told = []
    opening.prepare(data, make, told.append)
    store = Store(data / opening.FILE)
    with store.reading() as session:
        name = session.execute(opening_name()).scalar()
    store.close()
    return name, told


def opening_name():
    from sqlalchemy import text

    return text("SELECT name FROM show")


def test_a_new_folder_gets_a_show_and_keeps_it(tmp_path):
    data = tmp_path / "deep" / "folder"
    assert prepared(data) == ("Made", [])
    store = Store(data / opening.FILE)
    with store.edit("a", "Rename") as session:
        session.get(salt_light.Show, 1).name = "Mine"
    store.close()
    assert prepared(data) == ("Mine", [])


def test_a_start_that_is_killed_leaves_nothing_that_looks_like_a_show(tmp_path):
    class Killed(BaseException):
        pass

    def half(store):
        make(store)
        raise Killed

    with pytest.raises(Killed):
        opening.prepare(tmp_path, half, lambda text: None)
    assert not (tmp_path / opening.FILE).exists()
    assert prepared(tmp_path) == ("Made", [])
    assert list(tmp_path.glob("*.new*")) == []


def garbage(path):
    path.write_bytes(b"garbage" * 1000)


def a_folder(path):
    path.mkdir()


def empty(path):
    path.write_bytes(b"")


def of_something_else(path):
    sqlite3.connect(path).execute("CREATE TABLE pets (name TEXT)").connection.commit()


def cut_off(path):
    prepared(path.parent)
    data = path.read_bytes()
    path.write_bytes(data[: len(data) // 2])


def unfinished(path):
    Store(path).close()


DAMAGE = [garbage, a_folder, empty, of_something_else, cut_off, unfinished]


@pytest.mark.parametrize("damage", DAMAGE, ids=lambda one: one.__name__)
def test_what_is_damaged_is_put_aside_with_one_message(tmp_path, damage):
    path = tmp_path / opening.FILE
    damage(path)
    name, told = prepared(tmp_path)
    assert name == "Made"
    [text] = told
    assert str(path) in text
    assert "put aside" in text
    assert len([one for one in (tmp_path / "aside").iterdir() if one.name.startswith(opening.FILE)]) >= 1
    assert prepared(tmp_path) == ("Made", []), "told once"


def test_a_newer_show_is_refused_and_left_as_it_is(tmp_path):
    prepared(tmp_path)
    path = tmp_path / opening.FILE
    with sqlite3.connect(path) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '9999'")
    connection.close()
    before = path.read_bytes()
    with pytest.raises(ZarabandaError, match=r"newer Zarabanda.*Nothing was changed"):
        opening.prepare(tmp_path, make, lambda text: None)
    assert path.read_bytes() == before


def test_a_folder_that_cannot_be_written_is_told(tmp_path):
    (tmp_path / "file").write_text("")
    with pytest.raises(ZarabandaError, match=r"cannot be written into.*--data"):
        opening.prepare(tmp_path / "file" / "below", make, lambda text: None)


def test_a_full_disk_at_the_first_start_is_told_and_leaves_no_show(tmp_path, monkeypatch):
    def full(store):
        with store.engine.connect() as connection:
            connection.exec_driver_sql(f"PRAGMA max_page_count = {connection.exec_driver_sql('PRAGMA page_count').scalar()}")
            with store.edit("a", "x") as session:
                session.connection().exec_driver_sql("PRAGMA max_page_count = 1")
                salt_light.new_show(session, "x")

    with pytest.raises(ZarabandaError, match=r"full.*Make room"):
        opening.prepare(tmp_path, full, lambda text: None)
    assert not (tmp_path / opening.FILE).exists()
