"""Edits, undo and redo."""

import shutil

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import text

from zarabanda.demo import salt_light
from zarabanda.errors import ZarabandaError
from zarabanda.formats import effect_edit
from zarabanda.show import controls, repositories
from zarabanda.show.store import Store
from zarabanda.show.tables import Base, ControlRow, EffectRow


@pytest.fixture
def store(tmp_path):
    made = Store(tmp_path / "show.db")
    with made.edit("setup", "New show") as session:
        salt_light.new_show(session, "Test")
    yield made
    made.close()


def dump(store):
    with store.reading() as session:
        return {
            table.name: sorted(map(str, session.execute(table.select()).mappings()))
            for table in Base.metadata.sorted_tables
            if table.name not in ("edit", "reference")
        }


def test_the_migrations_make_what_the_tables_say(store):
    with store.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []
        assert connection.execute(text("PRAGMA journal_mode")).scalar() == "wal"
        assert connection.execute(text("PRAGMA foreign_keys")).scalar() == 1


def start(store, browser="a"):
    with store.edit(browser, "Start") as session:
        row = repositories.effects.store(
            session, effect_edit.new_effect("intensity", repositories.effects.free_name(session, "Mine")), kept=True
        )
        repositories.draft.put_on(session, row.id, ["101", "102"])
        return row.id


def delete(store, effect_id):
    with store.edit("a", "Delete") as session:
        repositories.effects.remove(session, effect_id)


def values(store):
    with store.edit("a", "Set") as session:
        repositories.draft.set_values(session, {"intensity": {"101": 40.0, "102": 50.0}})


EDITS = {
    "start": lambda store, effect: start(store),
    "delete with its uses": delete,
    "set values": lambda store, effect: values(store),
}


@pytest.mark.parametrize("name", EDITS)
def test_undo_and_redo_go_back_and_forth_and_survive_a_restart(store, tmp_path, name):
    effect = start(store)
    before = dump(store)
    EDITS[name](store, effect)
    after = dump(store)
    assert after != before
    store.close()
    again = Store(tmp_path / "show.db")
    again.undo("a")
    assert dump(again) == before
    again.redo("a")
    assert dump(again) == after
    again.undo("a")
    assert dump(again) == before
    again.close()


def test_each_browser_undoes_its_own(store):
    first = start(store, "a")
    values_before = dump(store)
    with store.edit("b", "Rename") as session:
        repositories.effects.keep(session, first, "By b")
    with pytest.raises(ZarabandaError, match="nothing to undo"):
        store.undo("c")
    with pytest.raises(ZarabandaError, match="changed since"):
        store.undo("a")
    store.undo("b")
    assert dump(store) == values_before
    store.undo("a")


def test_a_new_edit_forgets_what_could_be_redone(store):
    start(store)
    store.undo("a")
    values(store)
    with pytest.raises(ZarabandaError, match="nothing to redo"):
        store.redo("a")


def test_a_failed_edit_changes_nothing(store):
    before = dump(store)
    with pytest.raises(ZarabandaError), store.edit("a", "Twice") as session:
        repositories.effects.store(session, effect_edit.new_effect("pan", "Fresh"), kept=True)
        repositories.effects.store(session, effect_edit.new_effect("pan", "fresh"), kept=True)
    assert dump(store) == before
    with pytest.raises(ZarabandaError, match="nothing to undo"):
        store.undo("a")


def test_deleting_an_effect_leaves_its_controls_in_their_place_and_undo_brings_it_back(tmp_path, demo_show):
    shutil.copy(demo_show, tmp_path / "show.db")
    store = Store(tmp_path / "show.db")
    with store.reading() as session:
        control = session.query(ControlRow).first()
    with store.edit("a", "Delete") as session:
        repositories.effects.remove(session, control.effect_id)
    with store.reading() as session:
        row = session.get(ControlRow, control.id)
        assert controls.described(row, controls.Names(session)).gone == "its effect is gone"
    store.undo("a")
    with store.reading() as session:
        row = session.get(ControlRow, control.id)
        assert not controls.described(row, controls.Names(session)).gone
        assert session.get(EffectRow, control.effect_id) is not None
    store.close()
