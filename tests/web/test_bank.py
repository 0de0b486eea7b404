"""Looks, pages of faders and buttons, and action lists over the API."""

import pytest

from zarabanda.messages import EffectNow, HeldNow

pytestmark = pytest.mark.slow


def get(client, path, name, key):
    return next(one for one in client.get(path).json[key] if one["name"] == name)


def number_of(client, path, key, name):
    return get(client, path, name, key)["id"]


def look(client, name):
    return get(client, "/api/looks", name, "looks")


def effect(client, name="Wide circle"):
    return number_of(client, "/api/effects", "effects", name)


# looks


def test_a_look_is_made_of_the_draft_by_families_and_heads_with_its_effects(client):
    client.post("/api/draft/change", json={"heads": ["101", "102"], "attribute": "zoom", "to": 20})
    client.post("/api/draft/change", json={"heads": ["101"], "attribute": "intensity", "to": 60})
    client.post("/api/draft/effects", json={"effect_id": effect(client), "heads": ["101", "102", "103"]})
    made = client.post("/api/looks", json={"name": "Beam only", "families": ["beam"], "over": True, "in_s": 2})
    assert made.status_code == 201, made.text
    assert (look(client, "Beam only")["content"], look(client, "Beam only")["over"]) == ("beam of 2 lights", True)
    client.post("/api/looks", json={"name": "Movement", "families": ["position"], "heads": ["101", "103"]})
    assert look(client, "Movement")["content"] == "Wide circle on 2 lights"
    client.post("/api/looks", json={"name": "All of it"})
    assert look(client, "All of it")["families"] == ["intensity", "position", "beam"]
    nothing = client.post("/api/looks", json={"name": "Nothing", "families": ["colour"], "over": True})
    assert (nothing.status_code, nothing.json["place"]) == (422, "families")
    assert "nothing to keep" in nothing.json["message"]
    client.delete("/api/draft")


def test_a_look_is_made_of_what_is_on_stage(client, application, monkeypatch):
    link = application.extensions["zarabanda"].link
    held = HeldNow(
        0, {"intensity": {"101": 40.0, "102": 50.0}, "zoom": {"101": 12.0}},
        [EffectNow(effect(client), "Wide circle", ["102", "101"], None, 0.5, 2.0)],
    )  # fmt: skip
    monkeypatch.setattr(link.questions, "held_on", lambda heads: held)
    client.post("/api/looks", json={"name": "Seen", "source": "stage", "families": ["intensity", "position"]})
    assert look(client, "Seen")["content"] == "intensity of 2 lights, Wide circle on 2 lights"
    client.post("/api/looks", json={"name": "Still", "source": "stage", "effects": False})
    assert look(client, "Still")["content"] == "intensity of 2 lights, beam of 1 light"


def test_looks_are_renamed_recorded_anew_put_in_order_and_deleted_and_controls_keep_their_place(client):
    client.post("/api/draft/change", json={"heads": ["201"], "attribute": "intensity", "to": 60})
    number = client.post("/api/looks", json={"name": "Mine", "families": ["intensity"]}).json["id"]
    assert client.put(f"/api/looks/{number}", json={"name": "walk-IN"}).status_code == 409
    client.put(f"/api/looks/{number}", json={"name": "Ours", "over": True, "out_s": 3})
    assert (look(client, "Ours")["over"], look(client, "Ours")["out_s"]) == (True, 3)
    client.post("/api/draft/change", json={"heads": ["202"], "attribute": "intensity", "to": 60})
    client.post(f"/api/looks/{number}/record", json={"source": "draft"})
    assert look(client, "Ours")["content"] == "intensity of 2 lights"
    client.post("/api/looks/order", json={"ids": [number]})
    assert client.get("/api/looks").json["looks"][0]["name"] == "Ours"
    page = client.get("/api/pages").json["pages"][0]["id"]
    body = {"place": 14, "mode": "fader", "name": "Ours", "drives": {"kind": "look", "number": number}}
    control = client.post(f"/api/pages/{page}/controls", json=body).json
    assert (control["on"], control["does"]) == ("Ours", "mixes the overlay in")
    assert look(client, "Ours")["used_by"] == ["the control “Ours”"]
    client.delete(f"/api/looks/{number}")
    stays = next(one for one in client.get("/api/pages").json["pages"][0]["controls"] if one["id"] == control["id"])
    assert (stays["gone"], stays["place"]) == ("its look is gone", 14)
    client.post("/api/undo")
    assert look(client, "Ours")["used_by"] == ["the control “Ours”"]
    client.delete(f"/api/pages/controls/{control['id']}")
    client.delete("/api/draft")


def test_palettes_and_lights_of_looks_follow_and_a_palette_in_use_stays(client):
    palette = next(one for one in client.get("/api/palettes").json["palettes"] if one["name"] == "Rose")
    assert "the overlay “Rose over”, 20 times" in palette["used_by"]
    assert client.delete(f"/api/palettes/{palette['id']}").status_code == 409
    client.delete(f"/api/effects/{effect(client, 'Crossing eights')}")
    assert look(client, "Ease in eights")["content"] == ""
    client.post("/api/undo")
    assert look(client, "Ease in eights")["content"] == "Crossing eights on 10 lights"


# pages


def test_pages_are_made_renamed_moved_and_deleted_but_not_the_last(client):
    made = client.post("/api/pages", json={"name": "Late"})
    assert made.status_code == 201
    number = made.json["id"]
    assert client.post("/api/pages", json={"name": "LATE"}).status_code == 409
    client.post(f"/api/pages/{number}/rename", json={"name": "Later"})
    client.post("/api/pages/order", json={"ids": [number]})
    assert [one["name"] for one in client.get("/api/pages").json["pages"]] == ["Later", "Dance floor", "Songs", "Pixels"]
    client.delete(f"/api/pages/{number}")
    client.post("/api/undo")
    client.delete(f"/api/pages/{number}")
    assert [one["name"] for one in client.get("/api/pages").json["pages"]] == ["Dance floor", "Songs", "Pixels"]
    sizes = client.get("/api/pages").json
    assert (sizes["faders"], sizes["buttons"]) == (16, 32)


def drives(client):
    """Something of each kind, for faders and for buttons, with the words for it."""
    tempo = client.get("/api/show").json["tempos"][0]["id"]
    group = client.get("/api/show").json["groups"][0]["id"]
    row = client.get("/api/busk").json["pages"][0]["rows"][0]["id"]
    device = client.get("/api/output/devices").json["devices"][0]["id"]
    song = client.get("/api/cue-lists").json["lists"][0]["id"]
    osc = {"kind": "osc", "device": device, "address": "/x"}
    return [
        ("fader", {"kind": "list", "number": song, "do": "level"}, "level of the list"),
        ("fader", {"kind": "group", "number": group}, "level of the group"),
        ("fader", {"kind": "tempo", "number": tempo}, "sets the tempo"),
        ("fader", {"kind": "special"}, "level of all specials"), ("fader", {"kind": "master"}, "grand master"),
        ("fader", {"kind": "row", "number": row}, "level of its effects"),
        ("fader", {"kind": "message", "message": osc}, "value of /x"),
        ("flash", {"kind": "list", "number": song, "do": "release", "seconds": 3}, "release in 3 s"),
        ("flash", {"kind": "tempo", "number": tempo}, "tap"), ("flash", {"kind": "alone", "group_id": group}, "alone while held"),
        ("flash", {"kind": "special"}, "all home"), ("latch", {"kind": "master"}, "blackout on and off"),
        ("flash", {"kind": "stop-effects", "family": "beam"}, "stops them"), ("flash", {"kind": "release"}, "released in 2 s"),
        ("flash", {"kind": "message", "message": osc}, "/x"),
        ("latch", {"kind": "effect", "number": effect(client), "group_id": group}, "effect on and off"),
        ("latch", {"kind": "actions", "number": number_of(client, "/api/action-lists", "action_lists", "The drop")}, "runs it"),
    ]  # fmt: skip


def test_every_job_is_put_on_a_control_and_says_what_it_does(client):
    page = client.post("/api/pages", json={"name": "Jobs"}).json["id"]
    places = {"fader": 0, "button": 0}
    for mode, what, words in drives(client):
        kind = "fader" if mode == "fader" else "button"
        places[kind] += 1
        body = {"place": places[kind], "mode": mode, "name": "x", "drives": what}
        made = client.post(f"/api/pages/{page}/controls", json=body)
        assert made.status_code == 201, (what, made.text)
        assert made.json["does"] == words
        assert {name: made.json["drives"][name] for name in what if name != "message"} == {
            name: one for name, one in what.items() if name != "message"
        }
    client.delete(f"/api/pages/{page}")


def test_a_control_is_changed_and_changes_places_with_another(client):
    page = client.get("/api/pages").json["pages"][1]
    first, second = (next(one for one in page["controls"] if one["mode"] == "fader" and one["place"] == n) for n in (1, 2))
    moved = client.put(f"/api/pages/controls/{first['id']}", json={"place": 2, "name": "Tide"})
    assert (moved.json["place"], moved.json["name"]) == (2, "Tide")
    now = {one["id"]: one["place"] for one in client.get("/api/pages").json["pages"][1]["controls"]}
    assert now[second["id"]] == 1
    client.post("/api/undo")
    assert client.get("/api/pages").json["pages"][1] == page


@pytest.mark.parametrize(
    ("mode", "what", "words"),
    [
        ("fader", {"kind": "alone", "heads": ["101"]}, "A fader cannot do this"),
        ("latch", {"kind": "row", "number": 1}, "A button cannot do this"),
        ("fader", {"kind": "list", "number": 1, "do": "go"}, "moves the level of a list"),
        ("fader", {"kind": "special", "number": 1}, "level of all specials"),
        ("latch", {"kind": "look", "number": 999}, "does not exist any more"),
        ("latch", {"kind": "look"}, "Say which look"),
        ("flash", {"kind": "alone"}, "Choose some lights"),
        ("flash", {"kind": "message"}, "Say which message"),
    ],
)
def test_what_a_control_cannot_be_is_said(client, mode, what, words):
    page = client.get("/api/pages").json["pages"][0]["id"]
    answer = client.post(f"/api/pages/{page}/controls", json={"place": 16, "mode": mode, "name": "x", "drives": what})
    assert answer.status_code >= 400
    assert words in answer.json["message"]
    too_far = {"place": 17, "mode": "fader", "name": "x", "drives": {"kind": "master"}}
    assert "16 faders" in client.post(f"/api/pages/{page}/controls", json=too_far).json["message"]


# action lists


def actions(client, name):
    return get(client, "/api/action-lists", name, "action_lists")


def make(client, name, *steps, **more):
    return client.post("/api/action-lists", json={"name": name, "document": {"steps": list(steps), **more}})


def test_an_action_list_reads_in_words_and_is_edited_as_a_list(client):
    drop = actions(client, "The drop")
    assert [(one["at"], one["words"]) for one in drop["steps"]] == [
        (0, "blackout"), (0.6, "no blackout"), (0.6, "Strobe over all: in"), (0.6, "All: Heartbeat"),
        (1.8, "Strobe over all: out"),
    ]  # fmt: skip
    assert drop["used_by"] == ["the control “The drop”"]
    document = {**drop["document"], "steps": drop["document"]["steps"][1:], "until": "released"}
    changed = client.put(f"/api/action-lists/{drop['id']}", json={"name": "Drop", "document": document})
    assert changed.status_code == 200, changed.text
    assert [one["words"] for one in actions(client, "Drop")["steps"]][:1] == ["no blackout"]
    client.post("/api/undo")
    assert actions(client, "The drop")["document"] == drop["document"]
    taken = make(client, "Other", key="Shift+1")
    assert "runs “The drop” already" in taken.json["message"]


def test_lists_that_call_themselves_are_found_when_they_are_made(client):
    first = make(client, "First").json["id"]
    second = make(client, "Second", {"kind": "actions", "actions": first}).json["id"]
    page = client.get("/api/pages").json["pages"][1]["id"]
    body = {"place": 31, "mode": "latch", "name": "Second", "drives": {"kind": "actions", "number": second}}
    control = client.post(f"/api/pages/{page}/controls", json=body).json["id"]
    for step in ({"kind": "actions", "actions": second}, {"kind": "control", "control": control}):
        answer = client.put(f"/api/action-lists/{first}", json={"name": "First", "document": {"steps": [step]}})
        assert answer.status_code == 422
        assert answer.json["message"].startswith("This would never end: “First”, which runs “Second”, which runs “First”")
    assert make(client, "Gone", {"kind": "pad", "row": 1, "pad": 999}).json["message"] == (
        "There is no such pad any more. Choose another."
    )
    for path in (f"pages/controls/{control}", f"action-lists/{second}", f"action-lists/{first}"):
        client.delete(f"/api/{path}")


def test_what_hands_did_becomes_a_list_moves_of_a_fader_one_step(client):
    page = client.get("/api/pages").json["pages"][0]
    walk_in = next(one for one in page["controls"] if one["name"] == "Walk-in")
    row = client.get("/api/busk").json["pages"][0]["rows"][1]
    hands = [
        {"at": 0.0, "action": {"do": "press", "control": walk_in["key"], "down": True}},
        {"at": 1.0, "action": {"do": "row-level", "row": row["id"], "value": 0.2}},
        {"at": 1.1, "action": {"do": "row-level", "row": row["id"], "value": 0.5}},
        {"at": 1.3, "action": {"do": "row-level", "row": row["id"], "value": 0.7}},
        {"at": 1.5, "action": {"do": "highlight", "steps": []}},
        {"at": 3.0, "action": {"do": "bpm", "tempo": "Movement", "value": 120}},
        {"at": 3.5, "action": {"do": "pad", "row": row["id"], "pad": row["colour"][0]["id"], "down": True}},
    ]
    made = client.post("/api/action-lists/recorded", json={"name": "My hands", "hands": hands})
    assert made.json["done"] == "Recorded My hands, 4 steps; 1 thing that it cannot do was left out"
    steps = [(one["at"], one["words"]) for one in actions(client, "My hands")["steps"]]
    name = row["colour"][0]["name"]
    assert steps == [
        (0, "Walk-in: pressed"), (1.3, f"{row['name']}: level 70 %"), (3.0, "Movement: 120 BPM"), (3.5, f"{row['name']}: {name}"),
    ]  # fmt: skip
    nothing = client.post("/api/action-lists/recorded", json={"name": "None", "hands": hands[4:5]})
    assert "Nothing was done" in nothing.json["message"]


def test_a_cue_runs_an_action_list_and_presses_a_pad(client):
    song = client.get("/api/cue-lists").json["lists"][0]["id"]
    cue = client.get(f"/api/cue-lists/{song}").json["rows"][0]["id"]
    row = client.get("/api/busk").json["pages"][0]["rows"][1]
    messages = [
        {"kind": "actions", "actions": actions(client, "The drop")["id"]},
        {"kind": "pad", "row": row["id"], "pad": row["colour"][0]["id"], "wait": 1},
    ]
    assert client.put(f"/api/cues/{cue}/messages", json={"messages": messages}).status_code == 200
    words = [one["words"] for one in client.get(f"/api/cues/{cue}").json["messages"]]
    assert words == ["run The drop", f"{row['name']}: {row['colour'][0]['name']}"]
    client.post("/api/undo")
