"""What is too much, too long, damaged or does not fit on the disk: told, and nothing else suffers."""

import contextlib
import shutil
import sqlite3

import pytest

from tests.show.test_edits_at_once import fill
from tests.waiting import until
from zarabanda.errors import Busy
from zarabanda.shelf.library import Library
from zarabanda.show.store import Store
from zarabanda.show.tables import EffectRow
from zarabanda.web.app import create_app
from zarabanda.web.context import Turns
from zarabanda.workers import Troubles

pytestmark = pytest.mark.slow


def test_a_thousand_effects_of_one_long_name_come_in_and_can_be_read(client, application):
    document = client.get("/api/effects").json["effects"][0]["document"] | {"name": "N" * 80}
    store = application.extensions["zarabanda"].store
    with store.edit("a", "Fill") as session:
        names = ["N" * 80, *("N" * (79 - len(str(n))) + f" {n}" for n in range(2, 1000))]
        session.add_all(EffectRow(name=name, kept=True, favourite=False, document=document | {"name": name}) for name in names)
    content = {"format": "zarabanda.effects/1", "effects": [document] * 3}
    taken = client.post("/api/effects/import", json={"content": content}).json
    assert [name[-5:] for name in taken["effects"]] == [" 1000", " 1001", " 1002"]
    library = client.get("/api/effects").json["effects"]
    assert max(len(one["name"]) for one in library) == 80
    assert [one["broken"] for one in library if one["broken"]] == []
    client.post("/api/undo")
    store.undo("a")


def test_a_row_that_cannot_be_read_is_shown_as_broken_and_the_others_as_they_are(client, application):
    store = application.extensions["zarabanda"].store
    with store.edit("a", "Damage") as session:
        row = session.query(EffectRow).filter(EffectRow.kept).first()
        number, row.document = row.id, {"name": row.name, "layers": "none"}
    library = client.get("/api/effects").json["effects"]
    [broken] = [one for one in library if one["broken"]]
    assert broken["id"] == number
    assert "layers" in broken["broken"]
    assert client.post(f"/api/effects/{number}/weave", json={}).status_code == 422
    assert client.post(f"/api/effects/{number}/change", json={"path": "seed", "value": 1}).status_code == 422
    store.undo("a")


@pytest.mark.parametrize(("heads", "columns", "status"), [(1155, 1024, 422), (1155, 200, 200), (10, 1024, 200)])
def test_weaves_are_bounded(client, heads, columns, status):
    keys = client.post("/api/selection", json={"text": "all", "cells": True}).json["heads"][:heads]
    answer = client.post("/api/effects/1/weave", json={"heads": keys, "columns": columns})
    assert answer.status_code == status
    if status == 422:
        assert "259 columns at most" in answer.json["message"]


def test_too_many_weaves_at_once_are_told_to_wait():
    turns = Turns(at_once=1, wait_s=0.01)
    with turns.turn(), pytest.raises(Busy, match="Try again"), turns.turn():
        pass
    with turns.turn():
        pass


def test_an_edit_on_a_full_disk_is_kept_in_memory_and_told(tmp_path, demo_show):
    shutil.copy(demo_show, tmp_path / "show.db")
    app = create_app(tmp_path, connect=False)
    store = app.extensions["zarabanda"].store
    with contextlib.closing(store):
        store.look_for_room_s = 3600  # not before it is closed
        fill(store)
        client = app.test_client()
        documents = [one["document"] for one in client.get("/api/effects").json["effects"]]
        for _ in range(4):
            answer = client.post("/api/effects/import", json={"content": {"format": "zarabanda.effects/1", "effects": documents}})
            assert answer.status_code == 201, answer.text
        assert "kept in memory" in client.get("/api/health").json["troubles"][0]["text"]
    with contextlib.closing(Store(Library(tmp_path).open_path)) as again, again.reading() as session:
        assert session.query(EffectRow).count() == 5 * len(documents)


def test_what_is_in_memory_alone_is_written_back_by_itself_when_there_is_room(tmp_path, demo_show):
    shutil.copy(demo_show, tmp_path / "show.db")
    troubles = Troubles()
    with contextlib.closing(Store(tmp_path / "show.db", troubles)) as store:
        store.look_for_room_s = 0.01
        assert store.go_on_in_memory()
        until(lambda: not troubles.report())
        with store.edit("a", "Rename") as session:
            session.query(EffectRow).first().favourite = True
        with contextlib.closing(sqlite3.connect(tmp_path / "show.db")) as file:
            assert file.execute("SELECT label FROM edit ORDER BY id DESC LIMIT 1").fetchone() == ("Rename",)
