"""Baking and recordings over HTTP: looks, files, cues that stay linked; what is refused."""

import json

import pytest

from zarabanda.formats import baked

pytestmark = pytest.mark.slow

HEADS = [str(n) for n in range(101, 105)]


def number_of(client, name):
    return next(one["id"] for one in client.get("/api/effects").json["effects"] if one["name"] == name)


def asked(client, **more):
    return {"kind": "effect", "number": number_of(client, "Tide fold"), "heads": HEADS, "rate": 20} | more


def test_a_bake_says_how_long_it_is_and_how_many_steps_it_takes(client):
    view = client.post("/api/bakes/look", json=asked(client, errors={"intensity": 2.0})).json
    assert (view["seconds"], view["closes"], view["frames"], view["heads"]) == (5.0, True, 101, HEADS)
    level = next(one for one in view["attributes"] if one["name"] == "intensity")
    assert 0 < level["error"] <= 2
    curve = client.post("/api/bakes/curve", json=asked(client, attribute="intensity")).json["points"]
    assert [one["error"] for one in curve] == sorted(one["error"] for one in curve)
    steps = [one["steps"] for one in curve]
    assert steps == sorted(steps, reverse=True)
    assert next(one["steps"] for one in curve if one["error"] == 2.0) == level["steps"]


@pytest.mark.parametrize(
    ("kind", "begins"),
    [("json", b"{"), ("csv", b"attribute,head"), ("dmx", b"ZBFRAMES"), ("dmx-csv", b"time,universe"), ("midi", b"MThd"),
     ("weave-png", b"\x89PNG"), ("weave-svg", b"<svg"), ("gif", b"GIF8"), ("mp4", b"\x00\x00\x00")],
)  # fmt: skip
def test_every_kind_of_file_is_written(client, kind, begins):
    answer = client.post("/api/bakes/file", json=asked(client, format=kind, seconds=0.5, rate=10))
    assert answer.status_code == 200, answer.json
    assert answer.data.startswith(begins)
    assert "Tide fold." in answer.headers["Content-Disposition"]
    if kind == "json":
        assert baked.read(json.loads(answer.data)).heads == HEADS


def test_cues_stay_linked_to_their_effect_are_made_anew_and_are_the_effect_again(client):
    made = client.post("/api/bakes/cues", json=asked(client, name="Tide steps")).json
    rows = client.get(f"/api/cue-lists/{made['id']}").json["rows"]
    assert made["done"] == f"Made {len(rows)} cues in Tide steps"
    renewed = client.post(f"/api/bakes/cues/{made['id']}/renew").json
    assert renewed["done"] == f"Made {len(rows)} cues anew"
    assert client.post(f"/api/bakes/cues/{made['id']}/back").json["done"] == "Tide steps starts Tide fold itself now"
    assert len(client.get(f"/api/cue-lists/{made['id']}").json["rows"]) == 1
    answer = client.post(f"/api/bakes/cues/{made['id']}/renew")
    assert (answer.status_code, answer.json["message"]) == (422, "The cues of “Tide steps” were not baked from an effect.")


@pytest.mark.parametrize(
    ("more", "place"),
    [
        ({"number": 99_999}, "effect"), ({"heads": []}, "heads"), ({"heads": ["9999"]}, "heads"), ({"seconds": 1e9}, "seconds"),
        ({"seconds": 3000, "rate": 100}, "rate"), ({"errors": {"wobble": 1}}, "errors"), ({"group_id": 99_999}, "group"),
        ({"kind": "map", "number": 1}, "seconds"), ({"rate": 0}, "rate"),
    ],
    ids=range(9),
)  # fmt: skip
def test_what_cannot_be_baked_says_where(client, more, place):
    answer = client.post("/api/bakes/look", json=asked(client, **more))
    assert answer.status_code in (404, 422)
    assert answer.json["place"] == place, answer.json


def test_recordings_are_taken_in_listed_saved_and_deleted(client):
    content = client.post("/api/bakes/file", json=asked(client, format="dmx", seconds=1.0)).data
    put = lambda name, data: client.put(f"/api/recordings/{name}", data=data, content_type="application/octet-stream")  # noqa: E731
    assert put("Tide", content).json["done"] == "Took in Tide, 1 s"
    assert put("Tide", content).status_code == 409
    assert put("Odd", b"no frames").status_code == 422
    assert put("..", content).status_code in (404, 405, 422)
    (found,) = client.get("/api/recordings").json["recordings"]
    assert (found["name"], found["frames"], found["universes"], found["wrong"]) == ("Tide", 21, [1], "")
    assert client.get("/api/recordings/Tide/file").data == content
    assert client.delete("/api/recordings/Tide").status_code == 200
    assert client.delete("/api/recordings/Tide").status_code == 404
