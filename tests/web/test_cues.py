"""Cue lists over the API: recorded from the draft, what is carried on and from where, edits, updates, all undoable."""

import csv
import io
import threading
from concurrent.futures import ThreadPoolExecutor

import pytest
from sqlalchemy import select

from tests.waiting import until
from zarabanda.messages import ListTold
from zarabanda.show.tables import CueRow

pytestmark = pytest.mark.slow

SPOTS = [str(101 + n) for n in range(4)]


@pytest.fixture(autouse=True)
def empty(client):
    client.delete("/api/draft")


@pytest.fixture
def songs(client):
    made = client.post("/api/cue-lists", json={"name": "Trial"}).json
    yield made["id"]
    client.delete(f"/api/cue-lists/{made['id']}")


def put(client, attribute, to, heads=SPOTS):
    assert client.post("/api/draft/change", json={"heads": heads, "attribute": attribute, "to": to}).status_code == 200


def record(client, songs, **more):
    answer = client.post(f"/api/cue-lists/{songs}/cues", json=more)
    assert answer.status_code == 201, answer.json
    return rows(client, songs)


def rows(client, songs):
    return client.get(f"/api/cue-lists/{songs}").json["rows"]


def content(client, cue):
    """What holds in a cue on the rear spots: value and origin by attribute."""
    view = client.get(f"/api/cues/{cue}").json
    lines = next((group["lines"] for group in view["groups"] if group["name"] == "Rear spots"), [])
    return {(line["attribute"], len(line["heads"])): (line["words"] or line["palette"], line["origin"]) for line in lines}


def three(client, songs):
    """Level and zoom; another zoom; another level."""
    put(client, "intensity", 80)
    put(client, "zoom", 20)
    record(client, songs, name="One")
    put(client, "zoom", 30)
    record(client, songs, name="Two")
    put(client, "intensity", 40)
    return [row["id"] for row in record(client, songs, name="Three")]


def test_a_cue_keeps_what_changes_and_tells_where_the_rest_comes_from(client, songs):
    one, two, last = three(client, songs)
    assert content(client, one) == {("intensity", 4): ("80 %", None), ("zoom", 4): ("20 °", None)}
    assert content(client, two) == {("intensity", 4): ("80 %", 1), ("zoom", 4): ("30 °", None)}
    assert content(client, last) == {("intensity", 4): ("40 %", None), ("zoom", 4): ("30 °", 2)}
    view = client.get(f"/api/cue-lists/{songs}").json
    assert [row["changes"] for row in view["rows"]] == [8, 4, 4]


def test_another_value_goes_here_or_where_it_came_from(client, songs):
    one, two, last = three(client, songs)
    change = {"attribute": "zoom", "heads": SPOTS, "value": 12}
    client.post(f"/api/cues/{last}/values", json={**change, "where": "origin"})
    assert [content(client, cue)["zoom", 4] for cue in (two, last)] == [("12 °", None), ("12 °", 2)]
    client.post(f"/api/cues/{last}/values", json={**change, "value": 44, "where": "here"})
    assert [content(client, cue)["zoom", 4] for cue in (one, two, last)] == [("20 °", None), ("12 °", None), ("44 °", None)]


@pytest.mark.parametrize(
    ("mark", "here", "later"),
    [
        ("stops here", None, None), ("only here", ("30 °", None), ("20 °", 1)), ("taken out", ("20 °", 1), ("20 °", 1)),
        ("from here on", ("30 °", None), ("30 °", 2)),
    ],
)  # fmt: skip
def test_values_stop_hold_only_here_or_are_taken_out(client, songs, mark, here, later):
    _, two, last = three(client, songs)
    client.post(f"/api/cues/{two}/mark", json={"attribute": "zoom", "heads": SPOTS, "mark": mark})
    assert content(client, two).get(("zoom", 4)) == here
    assert content(client, last).get(("zoom", 4)) == later


def test_what_is_carried_on_can_be_made_to_hold_only_here(client, songs):
    _, two, last = three(client, songs)
    client.post(f"/api/cues/{two}/mark", json={"attribute": "intensity", "heads": ["101"], "mark": "only here"})
    assert content(client, two)["intensity", 1] == ("80 %", None)
    client.post(f"/api/cues/{last}/mark", json={"attribute": "intensity", "heads": SPOTS, "mark": "taken out"})
    assert content(client, last)["intensity", 4] == ("80 %", 1)


def test_the_draft_is_merged_put_in_place_or_taken_away(client, songs):
    one, two, _ = three(client, songs)
    client.delete("/api/draft")
    put(client, "iris", 50, ["101"])
    client.post(f"/api/cues/{two}/record", json={"how": "merge"})
    assert content(client, two)["iris", 1] == ("50 %", None)
    client.post(f"/api/cues/{two}/record", json={"how": "take away"})
    assert ("iris", 1) not in content(client, two)
    client.post(f"/api/cues/{one}/record", json={"how": "replace", "families": ["beam"]})
    assert content(client, one) == {("iris", 1): ("50 %", None)}


def test_cues_are_inserted_numbered_copied_split_and_deleted_and_all_comes_back(client, songs):
    one, two, last = three(client, songs)
    there = record(client, songs, name="Between", after=one)
    assert [row["number"] for row in there] == [1, 1.5, 2, 3]
    refused = client.put(f"/api/cues/{two}", json={"number": 3})
    assert (refused.status_code, "Choose another" in refused.json["message"]) == (409, True)
    client.post(f"/api/cue-lists/{songs}/renumber", json={"first": 10, "step": 5})
    client.post(f"/api/cues/{one}/split", json={"families": ["beam"]})
    split = rows(client, songs)
    assert [(row["number"], row["changes"], row["starts"]) for row in split[:2]] == [(10, 4, "go"), (11, 4, "with")]
    client.post(f"/api/cue-lists/{songs}/paste", json={"cues": [one, last], "after": last})
    pasted = rows(client, songs)
    assert [row["name"] for row in pasted[-2:]] == ["One", "Three"]
    before = client.get(f"/api/cue-lists/{songs}").json["rows"]
    client.delete(f"/api/cues/{two}")
    assert len(client.get(f"/api/cue-lists/{songs}").json["rows"]) == len(before) - 1
    client.post("/api/undo")
    assert client.get(f"/api/cue-lists/{songs}").json["rows"] == before


def test_an_effect_is_a_thread_from_the_cue_that_starts_it_to_the_one_that_stops_it(client, songs):
    effect = client.get("/api/effects").json["effects"][0]
    one, two, last = three(client, songs)
    start = {"do": "start", "thread": 1, "effect": effect["id"], "heads": SPOTS}
    client.post(f"/api/cues/{one}/effects", json={"change": start})
    [thread] = client.get(f"/api/cue-lists/{songs}").json["threads"]
    assert (thread["name"], thread["begins"], thread["ends"]) == (effect["name"], 0, -1)
    client.put(f"/api/cue-lists/{songs}/threads/1", json={"begins": one, "ends": last})
    states = [client.get(f"/api/cues/{cue}").json["effects"][0]["state"] for cue in (one, two, last)]
    assert states == ["starts", "runs", "stops"]
    refused = client.put(f"/api/cue-lists/{songs}/threads/1", json={"begins": last, "ends": one})
    assert "later cue" in refused.json["message"]
    uses = next(row["uses"] for row in client.get("/api/effects").json["effects"] if row["id"] == effect["id"])
    assert "Trial, cue 1" in uses
    before = client.get(f"/api/cue-lists/{songs}").json
    for gone in (f"/api/cues/{one}", f"/api/effects/{effect['id']}"):
        client.delete(gone)
        assert client.get(f"/api/cue-lists/{songs}").json["threads"] == []
        client.post("/api/undo")
        assert client.get(f"/api/cue-lists/{songs}").json == before


def test_a_palette_in_a_cue_keeps_it_from_going_until_it_is_replaced(client, songs):
    put(client, "zoom", 20)
    kept = client.post("/api/palettes/keep", json={"name": "Wide open", "families": ["beam"], "scope": "any"}).json
    [row] = record(client, songs)
    assert client.get(f"/api/cues/{row['id']}").json["groups"][0]["lines"][0]["palette"] == "Wide open"
    client.delete("/api/draft")
    refused = client.delete(f"/api/palettes/{kept['id']}")
    assert (refused.status_code, "cue 1, 4 times" in refused.json["message"]) == (409, True)
    client.post(f"/api/palettes/{kept['id']}/replace", json={"delete": True})
    assert client.get(f"/api/cues/{row['id']}").json["groups"][0]["lines"][0]["palette"] is None
    assert content(client, row["id"])["zoom", 4] == ("20 °", None)


def test_an_effect_of_a_cue_gets_a_copy_of_its_own(client, songs):
    effect = client.get("/api/effects").json["effects"][1]
    one = three(client, songs)[0]
    start = {"do": "start", "thread": 4, "effect": effect["id"], "heads": SPOTS}
    client.post(f"/api/cues/{one}/effects", json={"change": start})
    copy = client.post(f"/api/effects/{effect['id']}/own-copy", json={"key": f"list:{songs}:4"}).json
    assert (copy["name"], copy["uses"]) == (f"{effect['name']} 2", ["Trial, cue 1"])
    client.post("/api/undo")


def test_updates_go_to_the_cue_that_each_value_comes_from(client, songs, application, monkeypatch):
    _, two, last = three(client, songs)
    client.delete("/api/draft")
    put(client, "zoom", 25)
    put(client, "intensity", 55, ["101"])
    put(client, "iris", 30, ["103"])
    link = application.extensions["zarabanda"].link
    told = ListTold(songs, last, None, False, 5.0, 5.0, None, None, None, 1.0)
    monkeypatch.setattr(link, "state", type("State", (), {"lists": [told]})())
    found = client.get("/api/cues/updates").json
    assert sorted((one["number"], one["values"], one["labels"]) for one in found["found"]) == [
        (2, 4, ["Zoom"]), (3, 1, ["Intensity"]),
    ]  # fmt: skip
    assert found["loose"] == 1
    assert client.post("/api/cues/updates", json={"choices": []}).status_code == 422
    client.post("/api/cues/updates", json={"choices": [{"cue_id": two, "into": two}, {"cue_id": last, "into": last}]})
    assert content(client, two)["zoom", 4] == ("25 °", None)
    assert content(client, last)["intensity", 4] == ("40 … 55 %", None)
    assert list(client.get("/api/draft").json["values"]) == ["iris"], "what was not put anywhere stays by hand"


def test_what_is_set_by_hand_begins_with_what_lists_hold(client, songs, application, monkeypatch):
    one, *_ = three(client, songs)
    client.delete("/api/draft")
    link = application.extensions["zarabanda"].link
    told = ListTold(songs, one, None, False, 5.0, 5.0, None, None, None, 1.0)
    monkeypatch.setattr(link, "state", type("State", (), {"lists": [told]})())
    base = client.post("/api/draft/base", json={"heads": ["101", "110"]}).json["values"]
    zoom = next(value for value in base if value["attribute"] == "zoom")
    assert (zoom["least"], zoom["most"], zoom["source"]) == (12, 20, "Trial 1, home 1")
    client.post("/api/draft/change", json={"heads": ["101"], "attribute": "zoom", "by": 10})
    assert client.get("/api/draft").json["values"] == {"zoom": {"101": 30}}


def test_a_cue_sheet_for_paper_and_as_csv(client):
    lists = {one["name"]: one["id"] for one in client.get("/api/cue-lists").json["lists"]}
    page = client.get(f"/api/cue-lists/{lists['Saltworks']}/sheet")
    assert page.mimetype == "text/html"
    assert "<h1>Saltworks</h1>" in page.text
    rows = list(csv.reader(io.StringIO(client.get(f"/api/cue-lists/{lists['Saltworks']}/sheet.csv").text)))
    assert rows[0][:3] == ["Cue", "Name", "Note"]
    assert rows[11][:7] == [
        "11", "Stillness", "", "go", "level 6 s; position 9 s, after 1 s; colour 5 s",
        "Rear spots, Mid washes, Deck beams, Tilt bars, Side ladders", "Saltstep stops; Crossing eights stops; "
        "Runaway pairs stops",
    ]  # fmt: skip
    assert client.get("/api/cue-lists/99999/sheet").status_code == 404


def test_moves_in_the_dark_and_in_view_are_told_before_they_are_run(client, songs):
    put(client, "intensity", 80)
    put(client, "pan", 0)
    record(client, songs)
    put(client, "intensity", 0)
    record(client, songs)
    put(client, "intensity", 60)
    put(client, "pan", 90)
    record(client, songs)
    put(client, "pan", -90, ["101"])
    rows = record(client, songs)
    assert [(row["moves"]["dark"], row["moves"]["seen"], row["moves"]["hidden_by"]) for row in rows] == [
        (0, 0, None), (0, 0, None), (4, 0, None), (0, 1, 2),
    ]  # fmt: skip


WRONG = {
    "There is a cue list": ("post", "/api/cue-lists", {"name": "saltworks"}),
    "above 0": ("post", "/api/cue-lists/{list}/cues", {"number": 0}),
    "out of range": ("post", "/api/cues/{cue}/values", {"attribute": "zoom", "heads": ["101"], "value": 4000}),
    "no head '999'": ("post", "/api/cues/{cue}/values", {"attribute": "zoom", "heads": ["999"], "value": 20}),
    "no attribute 'sparkle'": ("post", "/api/cues/{cue}/values", {"attribute": "sparkle", "heads": ["101"], "value": 20}),
    "no ease 'bouncy'": ("put", "/api/cues/{cue}", {"ease": "bouncy"}),
    "says nothing of": ("post", "/api/cues/{cue}/split", {"families": ["position"]}),
    "does not exist any more": ("put", "/api/cues/999999", {"name": "Gone"}),
    "say which effect": ("post", "/api/cues/{cue}/effects", {"change": {"do": "start", "thread": 1}}),
}


@pytest.mark.parametrize("told", WRONG)
def test_what_cannot_be_done_is_told_and_changes_nothing(client, songs, told):
    method, path, body = WRONG[told]
    cue = three(client, songs)[0]
    before = client.get(f"/api/cue-lists/{songs}").json
    answer = getattr(client, method)(path.format(list=songs, cue=cue), json=body)
    assert answer.status_code in (404, 409, 422)
    assert told in answer.json["message"]
    assert client.get(f"/api/cue-lists/{songs}").json == before


def test_a_cue_whose_lights_are_gone_holds_what_is_left(client, songs):
    put(client, "intensity", 70, ["109", "110"])
    [row] = record(client, songs)
    client.post("/api/rig/delete", json={"numbers": [110]})
    assert content(client, row["id"]) == {("intensity", 1): ("70 %", None)}
    client.post("/api/undo")
    assert content(client, row["id"]) == {("intensity", 2): ("70 %", None)}


def named(answer):
    return answer.status_code, [row["name"] for row in answer.json.get("rows", ())]


def test_a_list_asked_for_while_an_edit_is_on_its_way_waits_for_it(client, application, songs, monkeypatch):
    own = application.extensions["zarabanda"]
    may_go_on, taken_in = threading.Event(), own.link._compiled.take_in

    def later(*parts, **more):
        may_go_on.wait(60)
        taken_in(*parts, **more)

    monkeypatch.setattr(own.link._compiled, "take_in", later)
    with ThreadPoolExecutor(3) as pool:
        edit = pool.submit(lambda: application.test_client().post(f"/api/cue-lists/{songs}/cues", json={"name": "One"}))

        def kept():
            with own.store.reading() as session:
                return session.scalar(select(CueRow.id).where(CueRow.list_id == songs))

        cue = until(kept)
        asked = pool.submit(lambda: application.test_client().get(f"/api/cue-lists/{songs}"))
        changed = pool.submit(lambda: application.test_client().get(f"/api/cues/{cue}"))
        with pytest.raises(TimeoutError):
            asked.result(0.1)
        may_go_on.set()
        assert (edit.result().status_code, named(asked.result())) == (201, (200, ["One"]))
        assert changed.result().status_code == 200


def test_an_edit_of_another_process_is_read_when_a_list_is_asked_for(client, application, songs):
    store = application.extensions["zarabanda"].store
    told, store.on_edit = store.on_edit, lambda touched: None
    record_status = client.post(f"/api/cue-lists/{songs}/cues", json={"name": "Theirs"}).status_code
    store.on_edit = told
    assert (record_status, named(client.get(f"/api/cue-lists/{songs}"))) == (201, (200, ["Theirs"]))
