"""Palettes and fans over the API: kept from the draft, referred to, changed, replaced, made in sets."""

import pytest

pytestmark = pytest.mark.slow


@pytest.fixture(autouse=True)
def empty(client):
    client.delete("/api/draft")


def draft(client):
    return client.get("/api/draft").json


def palette(client, name):
    return next(one for one in client.get("/api/palettes").json["palettes"] if one["name"] == name)


def change(client, heads, attribute, to):
    client.post("/api/draft/change", json={"heads": heads, "attribute": attribute, "to": to})


def keep(client, name, **more):
    return client.post("/api/palettes/keep", json={"name": name, "families": ["beam"], **more})


@pytest.mark.parametrize(
    ("scope", "acts"),
    [
        ("heads", {"101": 20, "102": 30}), ("models", {"101": 20, "102": 30, "103": 20}),
        ("any", {"101": 20, "102": 30, "103": 20, "201": 20}),
    ],
)  # fmt: skip
def test_a_palette_acts_on_the_heads_it_was_made_for(client, scope, acts):
    change(client, ["101"], "zoom", 20)
    change(client, ["102"], "zoom", 30)
    kept = keep(client, f"Beams {scope}", scope=scope).json
    assert (kept["scope"], kept["picture"]["zoom"]) == (scope, 20)
    heads = ["101", "102", "103", "201", "701"]
    asked = client.post("/api/palettes/acting", json={"heads": heads}).json["acts"]
    assert asked[str(kept["id"])] == len(acts)
    client.delete("/api/draft")
    answer = client.post("/api/draft/palette", json={"palette": kept["id"], "heads": heads}).json
    assert (answer["acts"], answer["text"]) == (len(acts), f"Beams {scope} acts on {len(acts)} of 5 selected.")
    assert draft(client)["values"] == {"zoom": acts}


def test_what_uses_a_palette_follows_it_and_keeps_it_from_going(client):
    change(client, ["101", "102"], "zoom", 20)
    kept = keep(client, "Tight", scope="any").json
    assert [one["source"] for one in draft(client)["listed"]] == ["Tight"]
    client.put(f"/api/palettes/{kept['id']}", json={"name": "Tighter", "document": {"family": "beam", "values": {"zoom": 12}}})
    assert draft(client)["values"]["zoom"] == {"101": 12, "102": 12}
    base = client.post("/api/draft/base", json={"heads": ["101", "102", "103"]}).json["values"]
    assert next(one["source"] for one in base if one["attribute"] == "zoom") == "Tighter 2, home 1"
    assert palette(client, "Tighter")["used_by"] == ["the draft, 2 times"]
    refused = client.delete(f"/api/palettes/{kept['id']}")
    assert (refused.status_code, "the draft, 2 times" in refused.json["message"]) == (409, True)
    client.post(f"/api/palettes/{kept['id']}/replace", json={})
    assert draft(client)["values"]["zoom"] == {"101": 12, "102": 12}
    assert [one["source"] for one in draft(client)["listed"]] == ["draft"]
    client.post("/api/undo")
    assert draft(client)["listed"][0]["source"] == "Tighter"


def test_a_stop_of_an_effect_takes_the_value_or_another_palette(client):
    made = client.post("/api/palettes", json={"name": "Ruby", "document": {"family": "colour", "colour": "#aa0022"}}).json
    stops = [{"value": {"palette": "Ruby"}}, {"value": "#000000"}]
    layer = {
        "attribute": "colour",
        "form": {"kind": "stops", "stops": [{**one, "travel": 1, "hold": 0, "ease": "snap"} for one in stops]},
    }
    speed = {"kind": "time", "seconds_per_cycle": 2}
    document = {"format": "zarabanda.effect/1", "name": "Ruby beat", "tags": [], "speed": speed, "layers": [layer]}
    effect = client.post("/api/effects", json={"document": document}).json["effect"]["id"]
    assert palette(client, "Ruby")["used_by"] == ["the effect “Ruby beat”"]
    other = palette(client, "Coral")["id"]

    def first_stop():
        return client.get(f"/api/effects/{effect}").json["document"]["layers"][0]["form"]["stops"][0]["value"]

    client.post(f"/api/palettes/{made['id']}/replace", json={"by": other, "delete": False})
    assert first_stop() == {"palette": "Coral"}
    client.post("/api/undo")
    client.post(f"/api/palettes/{made['id']}/replace", json={})
    assert first_stop() == "#aa0022"


def test_palettes_are_merged_updated_duplicated_named_and_put_in_order(client):
    a = client.post("/api/palettes", json={"name": "A", "document": {"family": "beam", "values": {"zoom": 12}}}).json["id"]
    b = client.post("/api/palettes", json={"name": "B", "document": {"family": "position", "own": {"101": {"pan": 30}}}}).json[
        "id"
    ]
    client.post("/api/draft/palette", json={"palette": b})  # with nothing selected: on its own heads
    assert draft(client)["values"] == {"pan": {"101": 30}}
    merged = client.post(f"/api/palettes/{a}/merge", json={"other": b}).json
    assert (merged["family"], merged["used_by"]) == ("mixed", ["the draft"])
    change(client, ["101"], "zoom", 40)
    client.post(f"/api/palettes/{a}/update", json={"heads": ["101"]})
    assert draft(client)["values"] == {"pan": {"101": 30}, "zoom": {"101": 40}}
    twin = client.post(f"/api/palettes/{a}/duplicate").json
    assert (twin["name"], twin["document"]) == ("A 2", palette(client, "A")["document"])
    client.post(f"/api/palettes/{a}/rename", json={"name": "Alpha"})
    client.post("/api/palettes/order", json={"ids": [twin["id"], a]})
    names = [one["name"] for one in client.get("/api/palettes").json["palettes"]]
    assert names[:2] == ["A 2", "Alpha"]


@pytest.mark.parametrize("count", [12, 15, 20])
def test_a_set_of_colours_is_made_for_all_and_for_groups(client, count):
    groups = {one["name"]: one["id"] for one in client.get("/api/show").json["groups"]}
    made = client.post("/api/palettes/sets/colours", json={"count": count, "groups": [groups["Mid washes"]]}).json
    assert len(made["ids"]) == 2 * count
    sets = [one["set"] for one in client.get("/api/palettes").json["palettes"] if one["id"] in made["ids"]]
    assert set(sets) == {f"{count} colours", "Mid washes, colours"}
    refused = client.post("/api/palettes/sets/colours", json={"count": count, "groups": [groups["Front"]]})
    assert (refused.status_code, refused.json["place"]) == (422, "groups")
    client.post("/api/undo")


def test_a_set_of_positions_comes_from_where_lights_stand(client):
    groups = {one["name"]: one["id"] for one in client.get("/api/show").json["groups"]}
    made = client.post("/api/palettes/sets/positions", json={"group": groups["Rear spots"]}).json["ids"]
    found = {one["name"].split(",")[0]: one for one in client.get("/api/palettes").json["palettes"] if one["id"] in made}
    assert list(found) == ["Stage", "Crowd", "Up", "Cross", "Fan out", "Fan in", "Centre"]
    client.post("/api/draft/palette", json={"palette": found["Centre"]["id"]})
    where = client.post("/api/draft/base", json={"heads": ["101", "110"]}).json["pointed_at"]
    assert where == pytest.approx([0, 2.4, 0], abs=0.05)
    lean = found["Cross"]["picture"]["beams"]
    assert lean[0]["end"] > lean[0]["start"]
    assert lean[-1]["end"] < lean[-1]["start"]


def test_a_fan_is_kept_as_a_rule(client):
    heads = ["101", "102", "103", "104", "105"]
    fan = client.post("/api/draft/fans", json={"attribute": "pan", "heads": heads, "fixed": "middle", "amount": 40}).json
    assert fan["values"] == [-20, -10, 0, 10, 20]
    seen = client.put(f"/api/draft/fans/{fan['id']}", json={"drag": ["105", 40]}).json
    assert seen["values"] == [-40, -20, 0, 20, 40]
    client.post("/api/undo")
    assert list(draft(client)["values"]["pan"].values()) == [-20, -10, 0, 10, 20]
    client.put(f"/api/draft/fans/{fan['id']}", json={"heads": heads[::-1]})
    assert draft(client)["values"]["pan"]["101"] == 20
    change(client, ["103"], "pan", 5)
    assert [one["source"] for one in draft(client)["listed"]] == ["fan", "draft"]
    client.put(f"/api/draft/fans/{fan['id']}", json={"fixed": "first", "amount": 80})
    assert draft(client)["values"]["pan"] == {"101": 60, "102": 40, "103": 5, "104": 0, "105": -20}
    client.post("/api/draft/take-back", json={"attributes": ["pan"]})
    assert draft(client)["fans"] == []
    client.post("/api/undo")
    assert len(draft(client)["fans"]) == 1


def test_a_fan_of_hue_goes_round_the_circle(client):
    heads = ["201", "202", "203", "204"]
    client.post("/api/draft/fans", json={"attribute": "hue", "heads": [*heads, "701"], "fixed": "first", "amount": 360})
    values = draft(client)["values"]
    reds = [tuple(round(values[name][head], 3) for name in ("red", "green", "blue")) for head in heads]
    assert reds == [(1, 0, 0), (0, 1, 0), (0, 0, 1), (1, 0, 0)]


@pytest.mark.parametrize(
    ("path", "body", "place"),
    [
        ("fans", {"attribute": "wobble", "heads": ["101"]}, "attribute"),
        ("fans", {"attribute": "pan", "heads": ["701"]}, "heads"),
        ("fans", {"attribute": "pan", "heads": ["101"], "fixed": "third"}, "fixed"),
        ("palette", {"palette": 1, "heads": []}, "heads"), ("palette", {"palette": 1, "heads": ["701"]}, "heads"),
    ],
)  # fmt: skip
def test_what_cannot_be_fanned_or_set_is_refused(client, path, body, place):
    answer = client.post(f"/api/draft/{path}", json=body)
    assert (answer.status_code, answer.json["place"]) == (422, place)
    assert draft(client)["values"] == {}


def test_a_fan_refuses_other_heads_and_a_palette_without_values(client):
    fan = client.post("/api/draft/fans", json={"attribute": "pan", "heads": ["101", "102"]}).json["id"]
    assert client.put(f"/api/draft/fans/{fan}", json={"heads": ["101", "103"]}).json["place"] == "heads"
    assert client.put(f"/api/draft/fans/{fan}", json={"drag": ["103", 1]}).json["place"] == "drag"
    client.delete("/api/draft")
    assert "set values by hand first" in keep(client, "Nothing").json["message"]


def test_a_palette_whose_heads_are_gone_says_so(client):
    document = {"family": "beam", "own": {"9999": {"zoom": 20}}}
    lost = client.post("/api/palettes", json={"name": "Lost", "document": document}).json["id"]
    answer = client.post("/api/draft/palette", json={"palette": lost})
    assert (answer.status_code, answer.json["place"]) == (422, "heads")
    assert "No head that “Lost” was made with is in the rig any more." in answer.json["message"]


def test_palettes_go_into_a_file_and_come_back_under_free_names(client):
    every = client.get("/api/palettes").json["palettes"]
    content = {"format": "zarabanda.palettes/1", "palettes": [{"name": one["name"], **one["document"]} for one in every]}
    content["palettes"] += [
        {"name": "Odd", "family": "beam"},
        {"family": "beam"},
        7,
        {"name": "Far", "family": "beam", "values": {"zoom": 900}},
    ]
    answer = client.post("/api/palettes/import", json={"content": content})
    assert answer.status_code == 201
    assert answer.json["palettes"][0] == f"{every[0]['name']} 2"
    assert [one.split(":")[0] for one in answer.json["refused"]] == [
        f"Palette {len(every) + n}{name}" for n, name in ((1, " “Odd”"), (2, ""), (3, ""), (4, " “Far”"))
    ]
    after = client.get("/api/palettes").json["palettes"]
    assert [one["document"] for one in after] == [one["document"] for one in every] * 2
    client.post("/api/undo")
    assert client.get("/api/palettes").json["palettes"] == every
    for wrong in (
        {},
        [],
        {"format": "zarabanda.palettes/2", "palettes": []},
        {"format": "zarabanda.palettes/1", "palettes": [{}] * 2001},
    ):
        refused = client.post("/api/palettes/import", json={"content": wrong})
        assert (refused.status_code, "zarabanda.palettes/1" in refused.json["message"]) == (422, True)
