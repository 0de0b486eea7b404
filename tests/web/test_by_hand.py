"""Values set by hand over the API: typed, by a difference, aimed, taken back, refused."""

import pytest

pytestmark = pytest.mark.slow


def draft(client, attribute):
    return client.get("/api/draft").json["values"].get(attribute, {})


@pytest.fixture(autouse=True)
def empty(client):
    client.delete("/api/draft")


def change(client, heads, attribute="intensity", **more):
    return client.post("/api/draft/change", json={"heads": heads, "attribute": attribute, **more})


def test_values_are_set_typed_and_changed(client):
    assert change(client, ["101", "102", "951"], to=60).json["done"] == "Set intensity"
    assert change(client, ["101"], text="+10 %").json["done"] == "Change intensity"
    change(client, ["102"], by=-20)
    assert {key: draft(client, "intensity")[key] for key in ("101", "102")} == {"101": 70, "102": 40}
    said = change(client, ["101"], "pan", to=9999).json["limited"]
    assert said == "Pan goes from −270 to 270 ° only: it stops there."
    assert draft(client, "pan") == {"101": 270}
    client.post("/api/draft/take-back", json={"attributes": ["intensity"], "heads": ["101"]})
    assert "101" not in draft(client, "intensity")
    client.post("/api/draft/take-back", json={"attributes": ["intensity", "pan"]})
    assert client.get("/api/draft").json["values"] == {}
    client.post("/api/undo")
    assert draft(client, "pan") == {"101": 270}


@pytest.mark.parametrize(
    ("more", "place"),
    [
        ({"text": "loud"}, "text"), ({}, "text"), ({"to": 1, "by": 1}, "text"), ({"attribute": "wobble", "to": 1}, "attribute"),
        ({"attribute": "pan", "text": "10 %"}, "text"), ({"heads": ["4711"], "to": 1}, "heads"),
    ],
)  # fmt: skip
def test_what_cannot_be_set_is_refused(client, more, place):
    answer = client.post("/api/draft/change", json={"heads": ["101"], "attribute": "intensity", **more})
    assert (answer.status_code, answer.json["place"].split(".")[0]) == (422, place)
    assert client.get("/api/draft").json["values"] == {}


def test_lights_are_aimed_and_those_that_cannot_reach_are_named(client):
    body = {"heads": ["101", "102", "601.1"], "point": [0, -3, 1.7]}
    answer = client.post("/api/draft/aim", json=body).json
    assert (answer["done"], answer["moved"], answer["text"]) == ("Aim 2 lights", 2, "2 of 2 reach it.")
    base = client.post("/api/draft/base", json={"heads": ["101"]}).json
    assert base["pointed_at"][1] < -3  # beyond the point, on the floor
    up = client.post("/api/draft/aim", json={**body, "point": [0, 0, 60], "heads": ["101", "102"]}).json
    assert up["unreached"] == ["101", "102"]
    assert up["text"].startswith("0 of 2 reach it; 101, 102 cannot")
    assert len(draft(client, "tilt")) == 2


@pytest.mark.parametrize(
    ("more", "place"),
    [
        ({"heads": ["601.1"]}, "heads"), ({"way": "sideways"}, "way"), ({"point": [0, 0, 900]}, "point"),
        ({"heads": ["4711"]}, "heads"),
    ],
)  # fmt: skip
def test_what_cannot_be_aimed_is_refused(client, more, place):
    answer = client.post("/api/draft/aim", json={"heads": ["101"], "point": [0, 0, 0], **more})
    assert (answer.status_code, answer.json["place"].split(".")[0]) == (422, place)
