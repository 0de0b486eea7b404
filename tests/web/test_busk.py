"""Busking pages over the API: made, edited, undone; what cannot be is said at its place."""

import pytest

pytestmark = pytest.mark.slow


def pages(client):
    return client.get("/api/busk").json["pages"]


def row(client, name, page=0):
    return next(one for one in pages(client)[page]["rows"] if one["name"] == name)


def pads(client, name, section):
    return row(client, name)[section]


def put(client, name, section, now):
    return client.put(f"/api/busk/rows/{row(client, name)['id']}/pads", json={"section": section, "pads": now})


def content(pad, **more):
    plain = {"id": pad["id"], "name": pad["own_name"], "palette": pad["palette"], "effect": pad["effect"],
             "while_held": pad["while_held"], "message": pad["sends"]}  # fmt: skip
    return {**plain, **more}


def test_the_demo_has_a_page_with_rows_and_the_row_for_all_on_top(client):
    (page,) = pages(client)
    assert (page["name"], page["rows"][0]["kind"], page["rows"][-1]["kind"]) == ("Salt night", "all", "haze")
    assert row(client, "Salt wall")["lights"] == "16 lights, 1,024 cells"
    assert row(client, "Side ladders")["can"] == ["colour", "effects"]
    clashes = client.get("/api/busk").json["clashes"]
    by_name = {pad["name"]: pad["palette"] for pad in pads(client, "Rear spots", "colour")}
    assert by_name["Rose"] in clashes[str(by_name["Coral"])]


def test_a_page_is_made_from_groups_in_one_step_and_undone_in_one(client):
    groups = [one for one in client.get("/api/busk/proposal").json["groups"] if one["on"]]
    assert [one["name"] for one in groups][-2:] == ["Front", "Haze"], "from the back of the stage to the front"
    made = client.post("/api/busk/pages", json={"name": "Mine", "rows": [{"group_id": one["id"]} for one in groups[:3]]})
    assert made.status_code == 201
    mine = pages(client)[1]
    assert [one["name"] for one in mine["rows"]] == ["All", *(one["name"] for one in groups[:3])]
    assert client.post("/api/busk/pages", json={"name": "mine", "rows": [{"group_id": groups[0]["id"]}]}).status_code == 409
    client.post("/api/undo")
    assert len(pages(client)) == 1
    client.post("/api/redo")
    assert client.delete(f"/api/busk/pages/{mine['id']}").status_code == 200
    assert len(pages(client)) == 1


def test_pads_are_moved_added_named_and_taken_out_and_keep_their_numbers(client):
    before = pads(client, "Rear spots", "colour")
    turned = [content(one) for one in reversed(before)]
    turned[0]["name"] = "Water"
    fresh = {"name": "", "palette": before[0]["palette"]}
    assert put(client, "Rear spots", "colour", [*turned[:3], fresh]).status_code == 200
    now = pads(client, "Rear spots", "colour")
    assert [one["id"] for one in now[:3]] == [one["id"] for one in reversed(before)][:3]
    assert now[0]["name"] == "Water"
    assert now[3]["id"] not in {one["id"] for one in before}
    client.post("/api/undo")
    assert pads(client, "Rear spots", "colour") == before


def test_rows_are_added_changed_moved_and_taken_out(client):
    page = pages(client)[0]
    groups = {one["name"]: one["id"] for one in client.get("/api/show").json["groups"]}
    assert client.post(f"/api/busk/pages/{page['id']}/rows", json={"group_id": groups["Strobes"]}).status_code == 201
    strobes = row(client, "Strobes")
    tempos = client.get("/api/show").json["tempos"]
    body = {"name": "Flashes", "carries": [], "tempo": tempos[2]["id"]}
    assert client.post(f"/api/busk/rows/{strobes['id']}", json=body).status_code == 200
    changed = row(client, "Flashes")
    assert (changed["carries"], changed["tempo"]) == ([], tempos[2]["id"])
    order = [one["id"] for one in pages(client)[0]["rows"]]
    client.post(f"/api/busk/pages/{page['id']}/order", json={"ids": [strobes["id"], *order]})
    assert [one["kind"] for one in pages(client)[0]["rows"]][:2] == ["all", "lights"]
    assert pages(client)[0]["rows"][1]["id"] == strobes["id"]
    refused = client.delete(f"/api/groups/{groups['Strobes']}")
    assert (refused.status_code, "the row “Flashes”" in refused.json["message"]) == (409, True)
    assert client.delete(f"/api/busk/rows/{strobes['id']}").status_code == 200
    assert client.delete(f"/api/busk/rows/{page['rows'][0]['id']}").status_code == 422


def test_a_pad_whose_palette_is_gone_says_so_and_keeps_its_place(client):
    kept = client.post("/api/palettes", json={"name": "Sulphur", "document": {"family": "colour", "colour": "#e0ff00"}}).json
    before = pads(client, "Mid washes", "colour")
    put(client, "Mid washes", "colour", [{"name": "", "palette": kept["id"]}, *map(content, before)])
    assert client.delete(f"/api/palettes/{kept['id']}").status_code == 200
    first = pads(client, "Mid washes", "colour")[0]
    assert (first["gone"], first["palette"]) == ("its palette is gone", kept["id"])
    assert put(client, "Mid washes", "colour", [content(first, name="Gone"), *map(content, before)]).status_code == 200
    client.post("/api/undo")
    client.post("/api/undo")
    assert pads(client, "Mid washes", "colour")[0]["gone"] == ""


def test_a_row_whose_group_is_empty_says_so(client):
    made = client.post("/api/groups", json={"name": "Nobody", "heads": []}).json
    page = pages(client)[0]["id"]
    client.post(f"/api/busk/pages/{page}/rows", json={"group_id": made["id"]})
    assert row(client, "Nobody")["waits"] == "the group “Nobody” is empty"


def device(client, speaks):
    devices = client.get("/api/output/devices").json["devices"]
    return next(one["id"] for one in devices if one["document"]["speaks"] == speaks)


def wrong(client):
    colour, osc, midi = pads(client, "Rear spots", "colour")[0]["palette"], device(client, "OSC"), device(client, "MIDI")
    note = {"kind": "osc", "device": midi, "address": "/clip", "arguments": ""}
    return {
        "a palette of another family": ("Rear spots", "position", [{"palette": colour}], "one of colour"),
        "nothing on it": ("Rear spots", "colour", [{"name": "x"}], "has a palette"),
        "an effect among colours": ("Rear spots", "colour", [{"effect": 1}], "has a palette"),
        "an effect that is not there": ("Rear spots", "effects", [{"effect": 99999}], "does not exist"),
        "a pad that is not there": ("Rear spots", "colour", [{"id": 999, "palette": colour}], "not there any more"),
        "a device that speaks otherwise": ("Clips", "messages", [{"name": "x", "message": note}], "speaks MIDI"),
        "no name": ("Clips", "messages", [{"message": {**note, "device": osc}}], "name"),
    }


WRONG = ["a palette of another family", "nothing on it", "an effect among colours", "no name", "an effect that is not there",
         "a pad that is not there", "a device that speaks otherwise"]  # fmt: skip


@pytest.mark.parametrize("name", WRONG)
def test_odd_pads_are_refused_and_nothing_is_lost(client, name):
    where, section, now, says = wrong(client)[name]
    before = pages(client)
    refused = put(client, where, section, now)
    assert refused.status_code >= 400
    assert says in refused.json["message"]
    assert pages(client) == before


def test_the_bpm_of_a_tempo_is_kept_in_the_show(client):
    assert client.put("/api/busk/tempo", json={"tempo": "Zoom", "bpm": 70.5}).status_code == 200
    assert {one["name"]: one["bpm"] for one in client.get("/api/show").json["tempos"]}["Zoom"] == 70.5
    assert client.put("/api/busk/tempo", json={"tempo": "Zoom", "bpm": 0}).status_code == 422
    assert client.put("/api/busk/tempo", json={"tempo": "Nobody", "bpm": 70}).status_code == 422
