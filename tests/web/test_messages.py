"""Messages of cues and devices over the API: checked where they come in, told in words, undoable."""

import pytest

pytestmark = pytest.mark.slow

OSC = {"kind": "osc", "device": 1, "address": "/clip", "arguments": "3"}


@pytest.fixture
def cue(client):
    made = client.post("/api/cue-lists", json={"name": "Sending"}).json["id"]
    yield client.post(f"/api/cue-lists/{made}/cues", json={"name": "One"}).json["cue_id"]
    client.delete(f"/api/cue-lists/{made}")


def put(client, cue, *messages):
    return client.put(f"/api/cues/{cue}/messages", json={"messages": messages})


def test_messages_are_told_in_words_with_their_times(client, cue):
    lists = {one["name"]: one for one in client.get("/api/cue-lists").json["lists"]}
    haze = lists["Haze"]["id"]
    thin = client.get(f"/api/cue-lists/{haze}").json["rows"][0]["id"]
    messages = [
        OSC | {"wait": 1}, {"kind": "note", "device": 2, "note": 60, "wait": 0.5},
        {"kind": "list", "list": haze, "do": "go to", "cue": thin}, {"kind": "stop effects", "family": "position", "seconds": 1},
    ]  # fmt: skip
    answer = put(client, cue, *messages)
    assert answer.status_code == 200, answer.json
    assert client.get(f"/api/cue-lists/{answer.json['list_id']}").json["rows"][0]["sends"] == 4
    told = client.get(f"/api/cues/{cue}").json["messages"]
    assert [(one["sent"], one["words"]) for one in told] == [
        (1, "Pixel server: /clip 3"), (1.5, "Caption screen: note 60 on channel 1 at 100 for 0.2 s"),
        (1.5, "Haze: go to cue 1 “Thin”"), (1.5, "stop position effects in 1 s"),
    ]  # fmt: skip
    client.post("/api/undo")
    assert client.get(f"/api/cues/{cue}").json["messages"] == []


@pytest.mark.parametrize(
    ("message", "says"),
    [
        (OSC | {"device": 99}, "There is no device 99. Those that speak OSC: Pixel server."),
        (OSC | {"device": 2}, "“Caption screen” speaks MIDI: choose a device that speaks OSC."),
        ({"kind": "list", "list": 999}, "There is no such list any more."),
        ({"kind": "control", "control": 999}, "There is no such control any more."),
        (OSC | {"address": "no"}, "an OSC address begins with /"),
    ],
)
def test_a_message_that_goes_nowhere_is_refused(client, cue, message, says):
    answer = put(client, cue, message)
    assert answer.status_code in (400, 422)
    assert says in str(answer.json)
    assert client.get(f"/api/cues/{cue}").json["messages"] == []


def test_messages_that_would_go_on_without_end_are_told_before(client, cue):
    own = client.get(f"/api/cues/{cue}").json["list_id"]
    other = client.post("/api/cue-lists", json={"name": "Answering"}).json["id"]
    back = client.post(f"/api/cue-lists/{other}/cues", json={"name": "Back"}).json["cue_id"]
    put(client, cue, {"kind": "list", "list": other, "do": "go"})
    assert client.get(f"/api/cues/{cue}").json["endless"] == ""
    put(client, back, {"kind": "list", "list": own, "do": "go to", "cue": cue})
    told = client.get(f"/api/cues/{cue}").json["endless"]
    assert told.startswith("Its messages can go on without end: cue 1 “One” of Sending, then cue 1 “Back” of Answering.")
    put(client, back, {"kind": "list", "list": own, "do": "go to", "cue": cue, "wait": 1})
    assert client.get(f"/api/cues/{cue}").json["endless"] == ""
    client.delete(f"/api/cue-lists/{other}")


@pytest.mark.parametrize(
    ("document", "says"),
    [
        ({"speaks": "OSC", "to": "somewhere"}, "is no address"),
        ({"speaks": "MIDI", "to": "192.0.2.300"}, "is no address"),
        ({"speaks": "OSC", "to": "192.0.2.9"}, "say on which port"),
        ({"speaks": "OSC", "to": "239.1.1.1", "port": 8000}, "is not the address of a device"),
        ({"speaks": "OSC", "to": "192.0.2.9", "port": 8000}, "agree to it first"),
    ],
)
def test_a_device_is_checked_and_nothing_goes_elsewhere_unasked(client, document, says):
    answer = client.post("/api/output/devices", json={"name": "Far", "document": document})
    assert answer.status_code >= 400
    assert says in str(answer.json)


def test_devices_are_made_changed_and_kept_while_cues_send_to_them(client, cue):
    made = client.post(
        "/api/output/devices", json={"name": "Screen", "document": {"speaks": "OSC", "to": "127.0.0.9", "port": 8000}}
    )
    device = made.json["devices"][-1]
    assert device["words"] == "OSC to 127.0.0.9, UDP port 8000"
    put(client, cue, OSC | {"device": device["id"]})
    refused = client.delete(f"/api/output/devices/{device['id']}")
    assert (refused.status_code, "is sent messages by cue 1 “One”" in refused.json["message"]) == (409, True)
    again = client.put(f"/api/output/devices/{device['id']}", json={"name": "Pixel server", "document": device["document"]})
    assert "There is a device “Pixel server” already" in again.json["message"]
    other = {"speaks": "MIDI", "to": "simulator"}
    assert client.put(f"/api/output/devices/{device['id']}", json={"name": "Screen", "document": other}).status_code == 409
    put(client, cue)
    assert client.delete(f"/api/output/devices/{device['id']}").status_code == 200
