"""Shows made by older versions are opened, and lose nothing."""

import sqlite3
from pathlib import Path

import pytest
from sqlalchemy import select

from zarabanda import targets
from zarabanda.errors import InUse
from zarabanda.show import compile as compiling
from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.show.tables import ControlRow, EffectRow, PaletteRow, Reference, TempoRow

SHOWS = Path(__file__).parent / "shows"


@pytest.fixture
def store(tmp_path):
    with sqlite3.connect(tmp_path / "show.db") as connection:
        connection.executescript((SHOWS / "version_0003.sql").read_text())
    connection.close()
    made = Store(tmp_path / "show.db")
    yield made
    made.close()


def test_a_show_of_version_3_is_as_it_was(store):
    with store.reading() as session:
        assert [(row.name, row.bpm) for row in repositories.tempos.every(session)] == [("Slow", 62.0), ("Fast", 140.0)]
        effects = {row.name: row for row in session.scalars(select(EffectRow))}
        document = repositories.effects.document_of(session, effects["Tide"])
        assert document["speed"]["tempo"] == "Slow"
        assert [stop["value"] for stop in document["layers"][1]["form"]["stops"]] == [
            {"palette": "Reef"}, "base", {"palette": "Gone"},
        ], "and what was not there is not lost"  # fmt: skip
        controls = session.scalars(select(ControlRow).order_by(ControlRow.id)).all()
        assert [(one.row, one.place, one.job, targets.read(one.target)) for one in controls] == [
            ("faders", 1, "both", targets.EffectOnHeads(effects["Tide 2"].id, ("101", "102", "103"))),
            ("buttons", 1, "depth", targets.EffectOnHeads(effects["Blink"].id, ("103", "102", "101"), ("intensity",))),
        ]
        assert repositories.effects.all_uses(session) == {
            4: ["fader 1 of First"], 2: ["button 1 of First"], 3: ["the draft"],
        }  # fmt: skip
        assert repositories.draft.held(session) == {"intensity": {"101": 40.0}}
        assert [(f.number, f.universe, f.address, f.cell_order, f.notes) for f in repositories.rig.every(session)] == [
            (101, 1, 1, "", ""), (102, 1, 25, "", ""), (103, 1, 49, "", ""),
        ]  # fmt: skip
        assert {row.mode_id for row in repositories.rig.every(session)} == set(repositories.rig.modes(session))
        assert [(row.name, row.rule) for row in repositories.groups.every(session)] == [("All", None)]
        assert {part.key[0] for part in compiling.all_parts(session)} == {
            "mode", "fixture", "tempo", "palette", "effect", "draft-values", "draft-effect", "control", "opening",
            "colour-way", "route", "device", "line-in", "timecode-in",
        }  # fmt: skip


def test_its_history_goes_on(store):
    assert store.undo("b") == "Own"
    with store.reading() as session:
        assert targets.read(session.get(ControlRow, 1).target).effect_id == 1
    assert store.undo("a") == "Faster"
    with store.reading() as session:
        assert repositories.tempos.named(session, "Slow").bpm == 60.0
    assert [store.undo("a"), store.undo("a"), store.undo("a")] == ["Rename", "Draft", "Button"]
    with store.reading() as session:
        assert [row.name for row in session.scalars(select(PaletteRow))] == ["Coral"]
        assert [row.row for row in session.scalars(select(ControlRow))] == ["faders"]
    assert store.redo("a") == "Button"


def test_a_rename_touches_one_row_and_references_are_found_by_number(store):
    touched = []
    store.on_edit = touched.append
    with store.edit("c", "Rename") as session:
        session.get(PaletteRow, 1).name = "Kelp"
        repositories.tempos.named(session, "Slow").name = "Slower"
    assert touched == [{"palette": {1}, "tempo": {1}}]
    with store.reading() as session:
        document = repositories.effects.document_of(session, session.get(EffectRow, 1))
        assert (document["speed"]["tempo"], document["layers"][1]["form"]["stops"][0]["value"]) == ("Slower", {"palette": "Kelp"})
    with pytest.raises(InUse, match="the effect “Tide”, the effect “Tide 2”"), store.edit("c", "Delete") as session:
        repositories.palettes.remove(session, 1)


def test_references_are_what_the_documents_say_after_undo_too(store):
    def kept():
        with store.reading() as session:
            return {(r.user_table, r.user_id, r.used_table, r.used_id) for r in session.scalars(select(Reference))}

    before = kept()
    assert before >= {("effect", 1, "palette", 1), ("effect", 1, "tempo", 1), ("control", 2, "effect", 2)}
    with store.edit("c", "Delete") as session:
        repositories.effects.remove(session, 4)
    assert before - kept() == {("effect", 4, "palette", 1), ("effect", 4, "tempo", 1)}
    store.undo("c")
    assert kept() == before


def test_a_number_is_not_given_again(store):
    with store.edit("c", "Delete") as session:
        session.delete(session.get(ControlRow, 2))
    with store.edit("c", "Put") as session:
        target = targets.EffectOnHeads(2, ("101",))
        row = repositories.pages.add_control(session, 1, place=4, name="New", mode="latch", target=target, release_s=0.4)
        assert row.id == 3
        session.add(TempoRow(name="New", bpm=99, position=9))
