"""What was changed live is written back; buttons that stop effects; cues that follow what their lights are called."""

import pytest

from zarabanda.messages import ListTold, RunningState
from zarabanda.web.context import context

pytestmark = pytest.mark.slow

SPOTS = ["101", "102"]


@pytest.fixture
def cue(client):
    made = client.post("/api/cue-lists", json={"name": "Live"}).json["id"]
    cue = client.post(f"/api/cue-lists/{made}/cues", json={"name": "One"}).json["cue_id"]
    yield made, cue
    client.delete(f"/api/cue-lists/{made}")


def effect(client, name="Wide circle"):
    return next(one for one in client.get("/api/effects").json["effects"] if one["name"] == name)


@pytest.fixture
def runs(application, monkeypatch):
    """As if the engine told that something runs, with depth and speed changed live."""

    def told(key, effect_id, depth=0.5, speed=2.0, lists=()):
        with application.app_context():
            link = context().link
            running = RunningState(key, 1, effect_id, "It", "a list", 1.0, False, False, 0.0, [], depth, speed)
            state = type("State", (), {"running": [running], "lists": list(lists)})()
            monkeypatch.setattr(link, "state", state)
            return link

    return told


def test_into_the_effect(client, runs):
    before = effect(client)
    link = runs("draft:1", before["id"])
    assert client.post("/api/running/write-back", json={"key": "draft:1", "into": "effect"}).status_code == 200
    now = effect(client)["document"]
    was = before["document"]
    assert now["layers"][0]["form"]["width"] == pytest.approx(was["layers"][0]["form"]["width"] / 2)
    assert now["speed"]["cycles_per_beat"] == pytest.approx(was["speed"]["cycles_per_beat"] * 2)
    assert link.written_back == [], "it went with the edit"
    client.post("/api/undo")
    assert effect(client)["document"] == was


def test_into_the_cue_and_nowhere_else(client, runs, cue):
    list_id, number = cue
    circle = effect(client)["id"]
    start = {"do": "start", "thread": 1, "effect": circle, "heads": SPOTS, "depth": 0.8, "speed": 0.5}
    client.post(f"/api/cues/{number}/effects", json={"change": start})
    runs(f"list:{list_id}:1", circle)
    refused = client.post("/api/running/write-back", json={"key": f"list:{list_id}:1", "into": "control"})
    assert (refused.status_code, "does not come from a fader" in refused.json["message"]) == (422, True)
    on = ListTold(list_id, number, None, False, 0.0, 0.0, None, None, None, 1.0)
    runs(f"list:{list_id}:1", circle, lists=[on])
    assert client.post("/api/running/write-back", json={"key": f"list:{list_id}:1", "into": "cue"}).status_code == 200
    told = client.get(f"/api/cues/{number}").json["effects"][0]
    assert (told["depth"], told["speed"]) == (0.4, 1.0)


@pytest.mark.parametrize(
    ("depth", "speed", "name", "says"),
    [
        (1.0, 1.0, "Wide circle", "Neither depth nor speed"),
        (0.5, 1.0, "Brine", "goes all the way to its values"),
        (1.0, 16.0, "Wide circle", ""),
    ],
)
def test_what_cannot_be_written_back_is_refused(client, runs, depth, speed, name, says):
    one = effect(client, name)
    runs("draft:1", one["id"], depth, speed)
    answer = client.post("/api/running/write-back", json={"key": "draft:1", "into": "effect"})
    if says:
        assert says in answer.json["message"]
    assert client.post("/api/running/write-back", json={"key": "draft:9", "into": "effect"}).status_code == 404
    if answer.status_code == 200:
        client.post("/api/undo")


def test_a_button_stops_effects(client):
    page = client.get("/api/pages").json["pages"][0]["id"]
    body = {"place": 7, "mode": "flash", "name": "Stop movement"}
    body["drives"] = {"kind": "stop-effects", "family": "position"}
    made = client.post(f"/api/pages/{page}/controls", json=body)
    assert (made.status_code, made.json["on"], made.json["does"]) == (201, "Position effects", "stops them")
    assert client.post(f"/api/pages/{page}/controls", json={**body, "mode": "fader", "place": 14}).status_code == 422
    assert client.delete(f"/api/pages/controls/{made.json['id']}").status_code == 200


def test_cues_follow_what_their_lights_are_called(client, cue):
    list_id, number = cue
    client.post("/api/draft/change", json={"heads": ["105"], "attribute": "zoom", "to": 20})
    client.post(f"/api/cues/{number}/record", json={"how": "merge"})
    client.delete("/api/draft")
    start = {"do": "start", "thread": 1, "effect": effect(client)["id"], "heads": ["104", "105"]}
    client.post(f"/api/cues/{number}/effects", json={"change": start})
    client.put(f"/api/cues/{number}", json={"seen_moves": ["105"]})
    change = client.post("/api/rig/cells", json={"numbers": [105], "column": "number", "text": "195"})
    assert change.status_code == 200, change.json
    lines = [line for group in client.get(f"/api/cues/{number}").json["groups"] for line in group["lines"]]
    assert [line["heads"] for line in lines if line["attribute"] == "zoom"] == [["195"]]
    assert client.get(f"/api/cue-lists/{list_id}").json["threads"][0]["heads"] == ["104", "195"]
    assert client.get(f"/api/cues/{number}").json["seen_moves"] == ["195"]
    client.post("/api/undo")
    assert client.get(f"/api/cue-lists/{list_id}").json["threads"][0]["heads"] == ["104", "105"]
