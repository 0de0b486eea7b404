"""Specials and named places over the API."""

import pytest

pytestmark = pytest.mark.slow

HEADS = ["105", "106"]


def specials(client):
    return client.get("/api/specials").json


def named(client, name, kind="specials"):
    return next(one for one in specials(client)[kind] if one["name"] == name)


def test_the_demo_brings_out_its_people_and_all_lights_reach_them(client):
    found = specials(client)
    assert [one["name"] for one in found["specials"]][:1] == ["Singer"]
    assert {"Singer", "Percussion", "Lead left", "Lead right"} <= {one["name"] for one in found["specials"]}
    assert all(not one["aim"]["unreached"] for one in found["specials"])
    assert named(client, "Singer's mark", "places")["used_by"] == ["Singer"]


def test_one_is_made_changed_and_deleted_and_a_name_is_found_for_it(client):
    made = client.post("/api/specials", json={"document": {"heads": HEADS, "aim": {"point": [1, 2, 0]}}})
    assert (made.status_code, made.json["done"]) == (201, "Made Special 1")
    assert named(client, "Special 1")["aimed_at"] == "1 m right, 2 m upstage"
    number = made.json["id"]
    changed = client.put(f"/api/specials/{number}", json={"name": "Guest", "document": {"heads": HEADS[:1], "level": 50}})
    assert changed.json["done"] == "Changed Guest"
    assert named(client, "Guest")["lights"] == "1 light"
    assert client.post("/api/specials", json={"name": "guest", "document": {"heads": HEADS}}).status_code == 409
    assert client.delete(f"/api/specials/{number}").status_code == 200
    client.post("/api/undo")
    assert named(client, "Guest")["document"]["level"] == 50
    client.delete(f"/api/specials/{number}")


def test_specials_follow_a_place_that_is_moved_and_stay_where_it_was_when_it_goes(client):
    place = named(client, "Lead left", "places")
    client.put(f"/api/specials/places/{place['id']}", json={"name": "Lead left", "point": [-4, 2, 1]})
    assert named(client, "Lead left")["point"] == [-4, 2, 1]
    client.delete(f"/api/specials/places/{place['id']}")
    assert named(client, "Lead left")["aimed_at"] == "4 m left, 2 m upstage, 1 m high"
    client.post("/api/undo")
    assert named(client, "Lead left")["aimed_at"] == "Lead left"


def test_an_aim_out_of_reach_is_told_with_where_it_will_point(client):
    told = client.post("/api/specials/aim", json={"document": {"heads": ["701"], "aim": {"point": [0, 0, 0]}}}).json
    assert told["text"].startswith("None of these lights turns")
    bars = client.post("/api/specials/aim", json={"document": {"heads": ["321.1"], "aim": {"point": [3, 8, 0]}}}).json
    assert bars["unreached"]["321"] > 0.5
    assert "as near as" in bars["text"]


@pytest.mark.parametrize(
    ("document", "words"),
    [
        ({"heads": []}, "Choose at least one"),
        ({"heads": ["9999"]}, "The rig has no head 9999"),
        ({"heads": HEADS, "aim": {}}, "one of both"),
        ({"heads": HEADS, "aim": {"place": 999}}, "does not exist any more"),
        ({"heads": HEADS, "beam": {"pan": 3}}, "there is no attribute"),
        ({"heads": HEADS, "colour": "red"}, "#"),
    ],
)
def test_what_cannot_be_is_said(client, document, words):
    answer = client.post("/api/specials", json={"name": "Odd", "document": document})
    assert answer.status_code >= 400
    assert words in answer.json["message"]
