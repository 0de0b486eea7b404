"""Songs over the API: their running order, markers, tracks, events, beat grid and sound."""

import io

import numpy as np
import pytest
import soundfile

from zarabanda.messages import TakenNow, TakenTold

pytestmark = pytest.mark.slow


def named(client, name="Saltworks"):
    return next(one["id"] for one in client.get("/api/timelines").json["songs"] if one["name"] == name)


def song(client, name="Saltworks"):
    return client.get(f"/api/timelines/{named(client, name)}").json


def track(client, name, of="Saltworks"):
    return next(one for one in song(client, of)["tracks"] if one["document"]["name"] == name)


def on(client, name, of="Saltworks"):
    number = track(client, name, of)["id"]
    return [one for one in song(client, of)["events"] if one["track_id"] == number]


def undo(client, times=1):
    for _ in range(times):
        assert client.post("/api/undo").status_code == 200


def test_the_demo_has_three_songs_in_their_order_and_one_that_plays_all(client):
    songs = client.get("/api/timelines").json["songs"]
    assert [(one["name"], one["bpm"], one["length_s"], one["begins"]) for one in songs] == [
        ("Tide Clock", 96, 160, "01:00:00:00"), ("Saltworks", 124, 185, "02:00:00:00"), ("Lantern Fish", 72, 140, "03:00:00:00"),
    ]  # fmt: skip
    assert songs[1]["ends"] == "02:03:05:00"
    whole = song(client)
    assert [one["name"] for one in whole["markers"]] == ["arrival", "figure", "turn", "stampede", "stillness", "return"]
    assert whole["bars"][1] == pytest.approx(240 / 124, abs=1e-6)
    assert not [one for one in whole["events"] if one["gone"]]
    assert [(one["what"], one["words"]) for one in on(client, "Saltworks")][:2] == [("1", "All else out"), ("3", "Drums")]
    assert {one["document"]["kind"] for one in whole["tracks"]} == {"cues", "presses", "levels", "messages"}


def test_a_song_is_made_put_in_order_and_deleted_with_all_that_is_on_it(client):
    made = client.post("/api/timelines", json={"name": "Encore", "document": {"length_s": 30}})
    assert made.status_code == 201
    number = made.json["id"]
    client.post("/api/timelines/order", json={"order": [number]})
    assert client.get("/api/timelines").json["songs"][0]["name"] == "Encore"
    assert client.post("/api/timelines", json={"name": "encore", "document": {}}).status_code == 409
    client.post(f"/api/timelines/{number}/markers", json={"at": 0, "length": 4, "name": "all"})
    assert client.delete(f"/api/timelines/{number}").status_code == 200
    assert client.get(f"/api/timelines/{number}").status_code == 404
    undo(client)
    assert [one["name"] for one in song(client, "Encore")["markers"]] == ["all"]
    undo(client, 3)


@pytest.mark.parametrize(
    ("document", "says"),
    [
        ({"starts_at": "01:00:00:30"}, "no label 01:00:00:30 at 25"),
        ({"rate": "29.97 drop", "starts_at": "00:01:00;00"}, "no label"),
        ({"grid": {"changes": [{"beat": 4, "bpm": 100}]}}, "begins at beat 0"),
        ({"length_s": 0}, "greater than or equal to 1"),
    ],
)
def test_what_no_song_can_be_is_refused(client, document, says):
    answer = client.post("/api/timelines", json={"name": "Odd", "document": document})
    assert (answer.status_code, says in answer.json["message"]) == (422, True), answer.json


def test_two_songs_cannot_have_the_same_timecode(client):
    whole = song(client)
    body = {"name": "Saltworks", "document": whole["document"] | {"clock": "MTC"}}
    assert client.put(f"/api/timelines/{whole['id']}", json=body).status_code == 200
    other = {"name": "Twin", "document": {"clock": "MTC", "starts_at": "02:03:00:00", "length_s": 60}}
    refused = client.post("/api/timelines", json=other)
    assert (refused.status_code, "overlaps with that of “Twin”" in refused.json["message"]) == (409, True)
    undo(client)


def test_events_are_made_moved_quantised_copied_and_deleted_each_in_one_step(client):
    number, cues = named(client), track(client, "Saltworks")["id"]
    first = on(client, "Saltworks")[1]
    moved = client.post("/api/timelines/events/change", json={"changes": [{"id": first["id"], "at": 8.3}], "words": "Move"}).json
    assert [(one["id"], one["at"]) for one in moved["events"]] == [(first["id"], 8.3)]
    nudged = client.post("/api/timelines/events/nudge", json={"events": [first["id"]], "seconds": -0.04}).json
    assert nudged["events"][0]["at"] == pytest.approx(8.26)
    half = client.post("/api/timelines/events/quantise", json={"events": [first["id"]], "strength": 0.5}).json
    beat = round(8.26 / (60 / 124)) * 60 / 124
    assert half["events"][0]["at"] == pytest.approx((8.26 + beat) / 2, abs=1e-5)
    made = client.post(
        "/api/timelines/events", json={"events": [{"track_id": cues, "at": 9, "document": first["document"]}]}
    ).json
    copied = client.post(f"/api/timelines/{number}/events/copy", json={"events": [made["events"][0]["id"]]}).json
    assert copied["events"][0]["at"] == pytest.approx(12 * 240 / 124, abs=1e-5), "at the next marker"
    other = named(client, "Tide Clock")
    pasted = client.post(f"/api/timelines/{other}/events/copy", json={"events": [copied["events"][0]["id"]], "at": 5}).json
    assert [(one["at"], one["words"]) for one in on(client, "Saltworks", "Tide Clock")] == [(5.0, first["words"])]
    gone = client.post("/api/timelines/events/delete", json={"events": [made["events"][0]["id"]]}).json
    assert (gone["gone"], pasted["done"]) == ([made["events"][0]["id"]], "Copied 1 event")
    undo(client, 7)
    assert on(client, "Saltworks")[1] == first
    assert not [one for one in song(client, "Tide Clock")["tracks"] if one["document"]["name"] == "Saltworks"]


@pytest.mark.parametrize(
    ("path", "body", "says"),
    [
        ("events/change", {"changes": [{"id": 1, "at": 999}]}, "not within the song"),
        ("events/change", {"changes": [{"id": 99_999, "at": 1}]}, "does not exist any more"),
        ("events/quantise", {"events": []}, "Choose some events first"),
    ],
)
def test_edits_that_cannot_be_are_refused_and_change_nothing(client, path, body, says):
    before = song(client)["events"]
    answer = client.post(f"/api/timelines/{path}", json=body)
    assert answer.status_code in (404, 422)
    assert says in answer.json["message"]
    assert song(client)["events"] == before


def test_a_locked_track_keeps_its_events_and_two_tracks_never_drive_one_thing(client):
    held, number = track(client, "Pixel server"), named(client)
    event = on(client, "Pixel server")[0]["id"]
    refused = client.post("/api/timelines/events/delete", json={"events": [event]})
    assert (refused.status_code, "is locked" in refused.json["message"]) == (422, True)
    again = {**track(client, "Saltworks")["document"], "name": "Once more"}
    assert "drives this already" in client.post(f"/api/timelines/{number}/tracks", json=again).json["message"]
    time = client.post(f"/api/timelines/{number}/time", json={"at": 10, "seconds": 4})
    assert "could not move along" in time.json["message"]
    client.put(f"/api/timelines/tracks/{held['id']}", json={**held["document"], "locked": False})
    later = [one["at"] for one in on(client, "Saltworks")]
    client.post(f"/api/timelines/{number}/time", json={"at": 10, "seconds": 4})
    assert [one["at"] for one in on(client, "Saltworks")] == pytest.approx([at + 4 * (at >= 10) for at in later])
    assert song(client)["document"]["length_s"] == 189
    client.post(f"/api/timelines/{number}/time", json={"at": 20, "seconds": -30})
    assert len(on(client, "Saltworks")) < len(later)
    undo(client, 3)
    assert [one["at"] for one in on(client, "Saltworks")] == later


def test_tracks_drive_what_there_is_but_not_what_stays_with_hands(client):
    number = named(client)
    for kind in ("cues", "presses", "levels", "messages"):
        able = client.get("/api/timelines/drivable", query_string={"kind": kind}).json["drivables"]
        assert able
        assert not [one for one in able if one["what"] in ("Singer", "Master", "Movement")]
    pages = client.get("/api/pages").json["pages"]
    singer = next(one for page in pages for one in page["controls"] if one["name"] == "Singer")
    body = {"name": "Singer", "kind": "presses", "drives": singer["key"]}
    assert "stays with the hands" in client.post(f"/api/timelines/{number}/tracks", json=body).json["message"]
    wrong = client.post(f"/api/timelines/{number}/tracks", json={"name": "x", "kind": "cues", "drives": "control:1"})
    assert "cannot drive" in wrong.json["message"]


def test_an_event_whose_cue_is_gone_stays_and_says_so(client):
    first = on(client, "Saltworks")[1]
    client.delete(f"/api/cues/{first['document']['cue']}")
    assert [(one["gone"], one["words"]) for one in on(client, "Saltworks")][1] == (True, "a cue that is gone")
    undo(client)
    assert on(client, "Saltworks")[1] == first


def test_markers_go_out_as_csv_and_come_back(client):
    number = named(client)
    text = client.get(f"/api/timelines/{number}/markers.csv").json["text"]
    assert text.splitlines()[:2] == ["position,length,name,colour", "0.000,23.226,arrival,#b09a74"]
    before = song(client)["markers"]
    assert client.post(f"/api/timelines/{number}/markers.csv", json={"text": text}).json["done"] == "Read 6 markers"
    assert [one["name"] for one in song(client)["markers"]] == [one["name"] for one in before]
    client.post(f"/api/timelines/{number}/markers.csv", json={"text": "name;position;length\nBridge;1:02.5;4\n"})
    assert [(one["name"], one["at"], one["length"]) for one in song(client)["markers"]] == [("Bridge", 62.5, 4)]
    for wrong, says in (
        ("a,b\n", "must name the columns"),
        ("position,name\nx,y\n", "Line 2"),
        ("position,name\n999,y\n", "behind"),
    ):
        assert says in client.post(f"/api/timelines/{number}/markers.csv", json={"text": wrong}).json["message"]
    undo(client, 2)


def test_the_beat_grid_is_tapped_dragged_and_changed(client):
    number = named(client)
    taps = [2.0 + n * 0.5 for n in range(16)]
    assert client.post(f"/api/timelines/{number}/grid", json={"do": "tapped", "taps": taps}).json["done"].startswith("120.00 BPM")
    assert song(client)["bars"][:3] == pytest.approx([0.0, 2.0, 4.0], abs=1e-3)
    client.post(f"/api/timelines/{number}/grid", json={"do": "drag", "beat": 8, "at": 6.4})
    assert song(client)["document"]["grid"]["changes"][0]["bpm"] == pytest.approx(109.09, abs=0.01)
    client.post(f"/api/timelines/{number}/grid", json={"do": "tempo", "beat": 16, "bpm": 90})
    assert [one["beat"] for one in song(client)["document"]["grid"]["changes"]] == [0, 16]
    few = client.post(f"/api/timelines/{number}/grid", json={"do": "tapped", "taps": taps[:2]})
    assert "at least four" in few.json["message"]
    undo(client, 3)


def test_how_late_hands_are_is_measured_and_changes_nothing(client):
    number, before = named(client), song(client)
    beats = [before["bars"][2] + n * 60 / before["document"]["grid"]["changes"][0]["bpm"] for n in range(12)]
    answer = client.post(f"/api/timelines/{number}/lateness", json={"taps": [one + 0.042 for one in beats]})
    assert answer.json["late_s"] == pytest.approx(0.042, abs=1e-3)
    assert "at least 8" in client.post(f"/api/timelines/{number}/lateness", json={"taps": beats[:7]}).json["message"]
    assert song(client) == before


def taken(*each):
    return [TakenTold(number, at, what, value, cue, holder) for number, at, what, value, cue, holder in each]


def test_what_was_recorded_becomes_events_and_another_pass_adds_or_replaces(client, application, monkeypatch):
    number, cues = named(client), track(client, "Saltworks")
    flash, fader = track(client, "Rear spots, white"), track(client, "Spots: tide fold")
    for one in (cues, flash, fader):
        client.put(f"/api/timelines/tracks/{one['id']}", json={**one["document"], "armed": True})
    cue = on(client, "Saltworks")[0]["document"]["cue"]
    moves = [(fader["id"], 3 + n / 40, "level", n / 40, 0, "") for n in range(41)]
    told = TakenNow(0, taken(
        (cues["id"], 2.0, "cue", 0.0, cue, ""), (flash["id"], 2.5, "down", 0.0, 0, "a"), (flash["id"], 2.9, "up", 0.0, 0, "a"),
        (flash["id"], 3.5, "down", 0.0, 0, "a"), *moves,
    ), [(1.0, 5.0)])  # fmt: skip
    link = application.extensions["zarabanda"].link
    monkeypatch.setattr(link.questions, "taken_of", lambda one: told)
    before = len(on(client, "Saltworks"))
    added = client.post(f"/api/timelines/{number}/recording", json={"replaces": False}).json
    kinds = [(one["at"], round(one["length"], 6), one["document"]) for one in added["events"]]
    assert kinds == [
        (2.0, 0.0, {"cue": cue}), (2.5, 0.4, {"does": "hold"}), (3.5, 1.5, {"does": "hold"}),
        (3.0, 0.0, {"value": 0.0}), (4.0, 0.0, {"value": 1.0}),
    ], "presses keep their lengths, and a straight move is two points"  # fmt: skip
    assert (added["gone"], len(on(client, "Saltworks"))) == ([], before + 1)
    again = client.post(f"/api/timelines/{number}/recording", json={"replaces": True}).json
    assert len(again["gone"]) == 5
    assert len(on(client, "Saltworks")) == before + 1
    monkeypatch.setattr(link.questions, "taken_of", lambda one: TakenNow(0, [], []))
    assert "Nothing was recorded" in client.post(f"/api/timelines/{number}/recording", json={}).json["message"]
    undo(client, 5)


# sound


def wav(seconds=2.0, rate=8000, gain=0.5, kind="WAV"):
    t = np.arange(int(seconds * rate)) / rate
    out = io.BytesIO()
    soundfile.write(out, np.column_stack([gain * np.sin(2 * np.pi * 220 * t)] * 2), rate, format=kind)
    return out.getvalue()


def put(client, data, name="take 1.wav", of="Lantern Fish"):
    return client.put(f"/api/timelines/{named(client, of)}/sound", data=data, headers={"X-Name": name})


@pytest.mark.parametrize("kind", ["WAV", "FLAC", "OGG", "MP3"])
def test_a_sound_is_kept_by_what_it_holds_played_in_parts_and_drawn(client, kind):
    answer = put(client, wav(rate=44_100, kind=kind))
    assert (answer.status_code, answer.json["notices"]) == (
        200,
        ["Events lie behind its end: the song is longer than its sound."][:0],
    )
    whole = song(client, "Lantern Fish")
    sound = whole["document"]["sound"]
    assert (whole["sound_is_there"], sound["name"], sound["silent"]) == (True, "take 1.wav", False)
    assert sound["seconds"] == pytest.approx(2.0, abs=0.06)
    part = client.get(f"/api/sounds/{sound['hash']}", headers={"Range": "bytes=0-99"}, buffered=True)
    assert (part.status_code, len(part.data)) == (206, 100)
    told = client.get(f"/api/sounds/{sound['hash']}/outline").json
    finest = np.frombuffer(client.get(f"/api/sounds/{sound['hash']}/outline.bin?level=0").data, np.int8).reshape(-1, 2)
    assert len(finest) == told["blocks"][0] == pytest.approx(sound["seconds"] / told["block_s"][0], abs=1)
    assert finest[5:-8].max() == pytest.approx(64, abs=10)
    assert finest[5:-8].min() == pytest.approx(-64, abs=10)
    assert client.get(f"/api/sounds/{sound['hash']}/outline.bin?level=19").status_code == 422
    undo(client)


@pytest.mark.parametrize(
    ("data", "says"),
    [(b"", "is empty"), (b"RIFF no sound at all" * 40, "cannot be read as sound"), (wav()[:44], "no sound in it")],
)
def test_what_is_no_sound_is_refused_and_leaves_the_song_as_it_is(client, data, says):
    before = song(client, "Lantern Fish")["document"]
    answer = put(client, data, "song.mp3")
    assert answer.status_code == 422
    assert says in answer.json["message"]
    assert song(client, "Lantern Fish")["document"] == before


def test_a_silent_sound_and_one_that_is_wrongly_named_are_taken_and_the_first_is_told(client):
    assert "silent from its beginning" in put(client, wav(gain=0.0), "right.mp3").json["notices"][0]
    undo(client)
    assert client.get("/api/sounds/" + "0" * 64).status_code == 404


def test_the_outline_of_a_long_sound_is_that_of_its_parts():
    from zarabanda.sound.outline import BLOCK, FACTOR, outline_of

    samples = np.random.default_rng(1).uniform(-1, 1, (300_000, 2)).astype(np.float32)
    cut = [samples[at : at + 7777] for at in range(0, len(samples), 7777)]
    whole = outline_of(iter(cut), 44_100)
    plain = [samples[at : at + BLOCK] for at in range(0, len(samples), BLOCK)]
    expected = [(np.floor(127 * one.min()), np.ceil(127 * one.max())) for one in plain]
    assert np.array_equal(whole.levels[0], np.array(expected))
    second = whole.levels[0][: len(whole.levels[0]) // FACTOR * FACTOR].reshape(-1, FACTOR, 2)
    assert np.array_equal(whole.levels[1][: len(second)], np.column_stack([second[:, :, 0].min(1), second[:, :, 1].max(1)]))
    assert whole.frames == 300_000


def test_presses_go_out_as_midi_and_come_back_where_they_were(client):
    number = named(client)
    written = client.get(f"/api/timelines/{number}/presses.mid")
    assert (written.data[:4], written.headers["Content-Disposition"]) == (b"MThd", "attachment; filename=Saltworks.mid")

    def put(query="", content=written.data, status=200):
        answer = client.put(f"/api/timelines/{number}/presses.mid{query}", data=content, content_type="audio/midi")
        assert answer.status_code == status, answer.json
        return answer.json

    lines = put()["lines"]
    tracks = {one["id"]: one["document"]["name"] for one in song(client)["tracks"] if one["document"]["kind"] == "presses"}
    assert {one["track"] for one in lines} <= tracks.keys()
    before = {name: on(client, name) for name in tracks.values()}
    wanted = "&".join(f"lines={one['key']}:{one['track']}" for one in lines)
    count = sum(one["count"] for one in lines)
    assert put(f"?preview=false&replaces=true&{wanted}")["done"] == f"Took in {count} events, in the place of {count} events"
    for name, rows in before.items():
        after = on(client, name)
        assert [one["document"] for one in after] == [one["document"] for one in rows]
        for moment in ("at", "length"):
            assert [one[moment] for one in after] == pytest.approx([one[moment] for one in rows], abs=0.001)
    undo(client)
    assert {name: on(client, name) for name in tracks.values()} == before
    assert "No line has a track" in put("?preview=false", status=422)["message"]
    assert "no line 9/1/1" in put("?preview=false&lines=9/1/1:1", status=404)["message"]
    assert "no track of presses" in put(f"?preview=false&lines={lines[0]['key']}:99999", status=404)["message"]
    assert "does not begin with MThd" in put(content=b"no", status=422)["message"]
