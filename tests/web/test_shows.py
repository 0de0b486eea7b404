"""The library over HTTP: shows made, opened, copied, renamed, deleted, saved and taken in; copies of the open one taken back."""

import io
import shutil

import msgspec
import numpy as np
import pytest
from PIL import Image
from sqlalchemy import select

from zarabanda.engine.frames import HEAD, HEADER_BYTES
from zarabanda.messages import Frame
from zarabanda.shelf.copies import EVERY_S
from zarabanda.shelf.parts import heads_in
from zarabanda.show.tables import CueRow, PixelMapRow, Show
from zarabanda.web.stage_picture import stage_picture

pytestmark = pytest.mark.slow


@pytest.fixture
def own(fresh):
    return fresh.extensions["zarabanda"]


@pytest.fixture
def client(fresh):
    return fresh.test_client()


def names(client):
    return [one["name"] for one in client.get("/api/shows").json["shows"]]


def show_name(client):
    return client.get("/api/show").json["name"]


def test_shows_are_made_opened_copied_and_go_into_the_bin_and_back(client):
    first = client.get("/api/shows").json["open"]
    club = client.post("/api/shows", json={"name": "Club", "begin": "club"}).json["id"]
    assert client.post(f"/api/shows/{club}/open").status_code == 200
    assert show_name(client) == "Club"
    assert len(client.get("/api/rig").json["fixtures"]) == 20
    client.put(f"/api/shows/{club}", json={"name": "Cellar"})
    client.post("/api/undo")
    assert show_name(client) == "Club", "the name of the open show is an edit as any other"
    client.put(f"/api/shows/{first}", json={"name": "Salt"})
    copy = client.post(f"/api/shows/{first}/copy", json={"name": "Salt, second night"}).json["id"]
    assert names(client) == ["Club", "Salt", "Salt, second night"]
    held = client.delete(f"/api/shows/{club}")
    assert (held.status_code, "Open another one first" in held.json["message"]) == (409, True)
    client.delete(f"/api/shows/{copy}")
    assert names(client) == ["Club", "Salt"]
    assert "in the bin" in client.post(f"/api/shows/{copy}/open").json["message"]
    client.post(f"/api/shows/{copy}/take-back")
    assert client.post(f"/api/shows/{copy}/open").status_code == 200
    assert show_name(client) == "Salt, second night"
    assert client.post("/api/undo").status_code == 422, "a copy has no history"
    client.delete(f"/api/shows/{club}")
    client.post("/api/shows/bin/empty")
    assert client.get(f"/api/shows/{club}/file").status_code == 404


def test_a_saved_show_comes_in_as_another_one_with_all_that_it_has(client, own):
    saved = client.get(f"/api/shows/{own.library.open_id}/file")
    assert "Salt Light.zarabanda" in saved.headers["Content-Disposition"]
    shutil.rmtree(own.data / "media")
    came = client.put("/api/shows/file", data=saved.data)
    assert (came.status_code, "81 fixtures" in came.json["done"]) == (201, True)
    assert len(list((own.data / "media").iterdir())) == 3
    assert client.get(f"/api/shows/{came.json['id']}/file").data == saved.data, "byte for byte"


def test_what_is_no_show_is_refused_and_leaves_nothing(client, own):
    before = sorted(path.name for path in own.data.glob("**/*"))
    refused = client.put("/api/shows/file", data=b"PK\x03\x04 and nothing more")
    assert (refused.status_code, "no whole .zarabanda file" in refused.json["message"]) == (422, True)
    assert client.post("/api/shows/00000000/open").status_code == 404
    assert client.post("/api/shows", json={"name": "", "begin": "empty"}).status_code == 422
    assert sorted(path.name for path in own.data.glob("**/*")) == before


def test_a_show_that_cannot_be_read_is_not_opened_and_the_open_one_stays(client, own):
    other = client.post("/api/shows", json={"name": "Other", "begin": "empty"}).json["id"]
    own.library.path(other).write_bytes(b"garbage" * 1000)
    refused = client.post(f"/api/shows/{other}/open")
    assert "cannot be opened: it is damaged" in refused.json["message"]
    assert show_name(client) == "Salt Light"
    assert "A show that cannot be read" in names(client)


def test_a_copy_is_seen_taken_back_and_what_was_there_is_a_copy_then(client, own):
    own.library.copies(own.library.open_id).take("clock")
    with own.store.edit("a", "Delete the maps") as session:
        for row in session.query(PixelMapRow):
            session.delete(row)
    [one] = client.get("/api/shows/copies").json["copies"]
    assert one["why"] == "by the clock"
    look = client.get(f"/api/shows/copies/{one['file']}").json
    assert [(each["now"], each["then"]) for each in look["counts"] if each["what"] == "pixel maps"] == [(0, 2)]
    assert client.post(f"/api/shows/copies/{one['file']}/take-back").status_code == 200
    with own.store.reading() as session:
        assert session.query(PixelMapRow).count() == 2
    whys = {each["why"] for each in client.get("/api/shows/copies").json["copies"]}
    assert whys == {"by the clock", "before a copy was taken back"}


def test_parts_of_another_show_are_told_first_and_come_in_as_one_step(client, own):
    salt = own.library.open_id
    club = client.post("/api/shows", json={"name": "Club", "begin": "club"}).json["id"]
    client.post(f"/api/shows/{club}/open")
    every = client.get(f"/api/shows/{salt}/parts").json["parts"]
    assert [one["name"] for one in every if one["what"] == "songs"] == ["Lantern Fish", "Saltworks", "Tide Clock"]
    song = next(one for one in every if one["name"] == "Saltworks" and one["kind"] == "timeline")
    body = {"chosen": [{"kind": "timeline", "id": song["id"]}]}
    told = client.post(f"/api/shows/{salt}/parts", json=body).json
    assert ("songs", "Saltworks", "") in {(one["what"], one["name"], one["needed_by"]) for one in told["coming"]}
    assert 601 in told["fixtures"]
    assert client.get("/api/timelines").json["songs"] == []
    done = client.post(f"/api/shows/{salt}/parts", json={**body, "preview": False}).json
    assert done["coming"] == told["coming"]
    assert [one["name"] for one in client.get("/api/timelines").json["songs"]] == ["Saltworks"]
    assert client.post("/api/undo").json["done"] == "Bring in parts of Salt Light"
    assert client.get("/api/timelines").json["songs"] == []
    assert [one["why"] for one in client.get("/api/shows/copies").json["copies"]] == ["before parts of another show came in"]
    assert client.post(f"/api/shows/{salt}/parts", json={"chosen": [{"kind": "edit", "id": 1}]}).status_code == 404


def test_parts_of_another_show_come_to_lights_that_take_over_from_its_own(client, own):
    salt = own.library.open_id
    made = client.post("/api/shows", json={"name": "Club", "begin": "club"}).json["id"]
    client.post(f"/api/shows/{made}/open")
    every = client.get(f"/api/shows/{salt}/parts").json["parts"]
    chosen = [one for one in every if one["kind"] == "cue_list" and one["name"] == "Tide Clock"]
    body = {"chosen": [{"kind": one["kind"], "id": one["id"]} for one in chosen], "matched": True}
    told = client.post(f"/api/shows/{salt}/parts", json=body).json
    assert told["fixtures"] == [], "every light that it uses is one of this rig"
    assert any(one.startswith("Rear spots 10 → ") and one.endswith(" 6") for one in told["groups"])
    client.post(f"/api/shows/{salt}/parts", json={**body, "preview": False})
    lights = {str(one["number"]) for one in client.get("/api/rig").json["fixtures"]}
    with own.store.reading() as session:
        used = {head.partition(".")[0] for row in session.scalars(select(CueRow)) for head in heads_in(row.document)}
    assert used
    assert used <= lights


def test_a_show_that_has_changed_is_copied_by_the_clock_and_one_that_has_not_is_not(own, monkeypatch):
    now = [own.keeping._at]
    monkeypatch.setattr(own.keeping, "_clock", lambda: now[0])
    copies, made = own.library.copies(own.library.open_id), []
    monkeypatch.setattr(type(copies), "take", lambda self, reason: made.append(reason))
    for seconds, edited, wanted in ((EVERY_S / 2, True, 0), (EVERY_S, False, 1), (3 * EVERY_S, False, 1), (5 * EVERY_S, True, 2)):
        if edited:
            with own.store.edit("a", "Rename") as session:
                session.get(Show, 1).name = f"At {seconds}"
        now[0] += seconds
        own.keeping.look()
        assert made == ["clock"] * wanted


def test_the_picture_of_a_stage_shows_what_is_lit(own):
    rig = own.link.rig
    states = np.zeros(len(rig), HEAD)
    states["colour"][["." not in key for key in rig.heads.keys]] = (200, 0, 0)
    states["direction"][:, 2], states["zoom"] = -32767, 2000
    lit, dark = (
        np.asarray(Image.open(io.BytesIO(stage_picture(rig, frame))), int)
        for frame in (Frame(bytes(HEADER_BYTES) + states.tobytes()), None)
    )
    assert dark.shape == (180, 480, 3)
    assert dark.max() < 100
    assert (lit[..., 0] > 150).sum() > 50
    assert (lit[..., 0] > lit[..., 1] + 60).mean() > 0.1, "beams"
    short = Frame(msgspec.Raw(bytes(HEADER_BYTES) + states.tobytes()[:24]))
    assert len(stage_picture(rig, short)) > 500, "a frame of another rig"


def test_a_show_that_was_never_open_has_a_picture_of_its_lights(client):
    made = client.post("/api/shows", json={"name": "Never open", "begin": "club"}).json["id"]
    seen = np.asarray(Image.open(io.BytesIO(client.get(f"/api/shows/{made}/picture.png").data)), int)
    assert (seen.shape, seen.max() > 100) == ((180, 480, 3), True)
    bare = client.post("/api/shows", json={"name": "No lights", "begin": "empty"}).json["id"]
    assert client.get(f"/api/shows/{bare}/picture.png").status_code == 404
