"""The API, through the application without a network."""

import json
from pathlib import Path

import pytest

from zarabanda.messages import PreviewEffect, PreviewValues
from zarabanda.show import compile as compiling
from zarabanda.web import openapi
from zarabanda.web.app import create_app
from zarabanda.web.guard import is_same_origin

FRONTEND = Path(__file__).parents[2] / "frontend" / "src" / "api"


def new_effect(client, attribute="intensity", heads=("101", "102", "103")):
    answer = client.post("/api/effects", json={"attribute": attribute, "heads": list(heads)})
    assert answer.status_code == 201, answer.text
    return answer.json["effect"]["id"], answer.json["draft_id"]


def test_the_openapi_document_of_the_front_end_is_current():
    assert (FRONTEND / "openapi.json").read_text() == openapi.document(), "run `make api`"
    assert (FRONTEND / "frames.ts").read_text() == openapi.frames(), "run `make api`"


def test_the_frame_of_the_show(client):
    show = client.get("/api/show").json
    assert show["name"] == "Salt Light"
    assert [group["name"] for group in show["groups"]][:2] == ["Rear spots", "Mid washes"]
    rig = client.get("/api/rig").json
    assert len(rig["places"]) == 3 * 1199
    assert len(rig["fixtures"]) == 81
    modes = {mode["model"]: mode for mode in rig["modes"]}
    assert rig["fixtures"][0]["mode_id"] == modes["Gallarda 300"]["id"]
    assert "pan" in modes["Gallarda 300"]["parts"][0]["attributes"]
    bar = modes["Tarantela 10"]["parts"]
    assert [part["part"] for part in bar] == list(range(11)), "itself, and its cells"
    assert (bar[0]["attributes"], bar[1]["attributes"]) == (
        ["intensity", "tilt", "strobe"], ["intensity", "red", "green", "blue"],
    )  # fmt: skip


@pytest.mark.parametrize(
    ("attribute", "form"),
    [
        ("intensity", "waveform"),
        ("pan", "waveform"),
        ("position", "path"),
        ("colour", "stops"),
        ("saturation", "waveform"),
        ("zoom", "waveform"),
    ],
)
def test_a_new_effect_can_be_seen_and_reads_as_a_sentence(client, attribute, form):
    effect, draft = new_effect(client, attribute)
    view = client.get(f"/api/effects/{effect}").json
    assert view["document"]["layers"][0]["form"]["kind"] == form
    assert view["sentence"]["text"].endswith(".")
    assert draft in [one["id"] for one in client.get("/api/draft").json["effects"]]
    ask = {"heads": ["101", "102", "103"], "columns": 40}
    as_it_looks = client.post(f"/api/effects/{effect}/weave", json=ask).json
    assert as_it_looks["heads"] == ["101", "102", "103"]
    shown = as_it_looks
    if attribute in ("colour", "saturation"):  # the heads are dark: so is the look of them
        assert set(as_it_looks["pixels"]) == {"A"}
        shown = client.post(f"/api/effects/{effect}/weave", json=ask | {"attribute": "colour"}).json
    assert len(set(shown["pixels"])) > 4
    made_up = client.post(f"/api/effects/{effect}/weave", json=ask | {"heads": []}).json
    assert len(set(made_up["pixels"])) > 4, "a made-up row is lit"
    client.post("/api/undo")


def test_kept_positions_begin_with_two_that_differ(client):
    effect, _ = new_effect(client, "position")
    change = {"path": "layers.0.form", "value": "stops", "weave": {"heads": ["101", "102"], "notices": True}}
    answer = client.post(f"/api/effects/{effect}/change", json=change).json
    stops = answer["effect"]["document"]["layers"][0]["form"]["stops"]
    assert [stop["value"] for stop in stops] == [{"palette": "Stage"}, {"palette": "Crowd"}]
    assert "static" not in [one["kind"] for one in answer["weave"]["notices"]]
    client.post("/api/undo")


CHANGES = [
    ("layers.0.anchor.depth", 45, "45 %"),
    ("layers.0.form", "square", "square"),
    ("layers.0.form", "stops", "goes through"),
    ("layers.0.attribute", "position", "circle"),
    ("layers.0.anchor.kind", "between", "between"),
    ("spread.kind", "relay", "a relay"),
    ("lanes.parts", 2, "2 mirrored parts"),
    ("lanes.order", ["left-to-right", "centre-out"], "left to right, then centre out"),
    ("speed.kind", "time", "2 s"),
    ("speed.cycles_per_beat", 0.25, "¼ cycle per beat"),
    ("run", "back-and-forth", "runs back and forth"),
]


@pytest.mark.parametrize(("path", "value", "words"), CHANGES)
def test_every_change_is_read_in_the_sentence_and_taken_back(client, path, value, words):
    effect, _ = new_effect(client)
    before = client.get(f"/api/effects/{effect}").json["document"]
    changed = client.post(f"/api/effects/{effect}/change", json={"path": path, "value": value})
    assert changed.status_code == 200, changed.text
    assert words in changed.json["effect"]["sentence"]["text"]
    client.post("/api/undo")
    assert client.get(f"/api/effects/{effect}").json["document"] == before


def test_layers_are_added_moved_muted_and_removed(client):
    effect, _ = new_effect(client)

    def change(operation, path="", value=None):
        answer = client.post(f"/api/effects/{effect}/change", json={"operation": operation, "path": path, "value": value})
        assert answer.status_code == 200, answer.text
        return [layer["attribute"] for layer in answer.json["effect"]["document"]["layers"]]

    assert change("add-layer", value="position") == ["intensity", "position"]
    assert change("move-layer", "1", 0) == ["position", "intensity"]
    assert change("duplicate-layer", value=0) == ["position", "position", "intensity"]
    assert change("remove-layer", value=1) == ["position", "intensity"]
    assert change("set", "layers.0.muted", True) == ["position", "intensity"]


def test_keep_apply_put_on_and_delete(client):
    effect, _ = new_effect(client)
    assert client.post(f"/api/effects/{effect}/keep", json={"name": "Kelp"}).json["kept"]
    assert "Kelp" in [one["name"] for one in client.get("/api/effects").json["effects"]]
    other, _ = new_effect(client)
    taken = client.post(f"/api/effects/{other}/keep", json={"name": "kelp"})
    assert taken.status_code == 409
    assert "Kelp" in taken.json["message"].title()
    assert client.post("/api/draft/effects", json={"effect_id": effect, "heads": ["201", "202"]}).status_code == 201
    page = client.get("/api/pages").json["pages"][0]["id"]
    control = {"place": 14, "mode": "fader", "name": "Kelp", "drives": {"kind": "effect", "number": effect, "heads": ["101"]}}
    assert client.post(f"/api/pages/{page}/controls", json=control).status_code == 201
    again = client.post(f"/api/pages/{page}/controls", json=control)
    assert again.status_code == 409
    assert "Fader 14" in again.json["message"]
    uses = client.get(f"/api/effects/{effect}").json["uses"]
    assert uses == ["fader 14 of Dance floor", "the draft"]
    client.delete(f"/api/effects/{effect}")
    assert client.get(f"/api/effects/{effect}").status_code == 404
    stays = next(one for one in client.get("/api/pages").json["pages"][0]["controls"] if one["name"] == "Kelp")
    assert (stays["place"], stays["gone"], stays["on"]) == (14, "its effect is gone", "an effect that is gone, 1 light")
    client.post("/api/undo")
    assert client.get(f"/api/effects/{effect}").json["uses"] == uses
    client.delete(f"/api/effects/{effect}")
    client.delete(f"/api/pages/controls/{stays['id']}")


def test_palettes_are_named_once_followed_by_effects_and_kept_while_in_use(client):
    known = {one["name"]: one for one in client.get("/api/palettes").json["palettes"]}
    assert sum(known["Crowd"]["acts_on"].values()) == 32, "spots, washes, beams and bars move"
    coral = {"family": "colour", "colour": "#ff4f3a"}
    assert client.post("/api/palettes", json={"name": "coral", "document": coral}).status_code == 409
    made = client.post("/api/palettes", json={"name": "Sunset", "document": coral}).json
    effect, draft = new_effect(client, "colour")
    goal = {"path": "layers.0.form.stops.0.value", "value": {"palette": "Sunset"}}
    assert client.post(f"/api/effects/{effect}/change", json=goal).status_code == 200
    lost = client.post(f"/api/effects/{effect}/change", json=goal | {"value": {"palette": "Sunrise"}})
    assert lost.status_code == 404
    assert lost.json["place"] == "layers.0.form.stops.0.value"
    assert "“Sunrise”" in lost.json["message"]
    refused = client.delete(f"/api/palettes/{made['id']}")
    assert refused.status_code == 409
    assert "in use by" in refused.json["message"]
    client.put(f"/api/palettes/{made['id']}", json={"name": "Dusk", "document": coral})
    document = client.get(f"/api/effects/{effect}").json["document"]
    assert document["layers"][0]["form"]["stops"][0]["value"] == {"palette": "Dusk"}
    client.delete(f"/api/draft/effects/{draft}")
    assert client.delete(f"/api/palettes/{made['id']}").status_code == 200
    imported = client.post("/api/effects/import", json={"content": document})
    assert "“Dusk”" in imported.json["remarks"][0]
    [copy] = [one for one in client.get("/api/effects").json["effects"] if one["name"] == imported.json["effects"][0]]
    notices = client.post(f"/api/effects/{copy['id']}/weave", json={"notices": True}).json["notices"]
    [fix] = [one["fix"] for one in notices if one["kind"] == "palette"]
    mended = client.post(f"/api/effects/{copy['id']}/change", json={k: fix[k] for k in ("operation", "path", "value")})
    assert mended.json["effect"]["document"]["layers"][0]["form"]["stops"][0]["value"] == "base"
    client.delete(f"/api/effects/{copy['id']}")


@pytest.mark.parametrize(
    ("document", "part"),
    [
        ({"family": "colour", "values": {"pan": 3}}, "not of the family colour"),
        ({"family": "position", "values": {"pan": 900}}, "out of range"),
        ({"family": "beam", "colour": "#ff0000"}, "belongs to a palette of the family colour"),
        ({"family": "beam"}, "at least one value"),
        ({"family": "taste", "values": {}}, "taste"),
        ({"family": "position", "own": {"101": {"pan": float("inf")}}}, "finite"),
    ],
)
def test_a_palette_with_odd_values_is_refused(client, document, part):
    answer = client.post("/api/palettes", data=json.dumps({"name": "Odd", "document": document}), content_type="application/json")
    assert answer.status_code == 422
    assert part in answer.json["message"]


def test_files_come_in_with_free_names_and_what_is_wrong_is_told(client):
    effect = client.get("/api/effects").json["effects"][0]
    again = client.post("/api/effects/import", json={"content": effect["document"]})
    assert again.json == {"effects": [effect["name"] + " 2"], "refused": [], "remarks": []}
    broken = effect["document"] | {"name": "Broken", "layers": []}
    newer = effect["document"] | {"name": "Newer", "format": "zarabanda.effect/7"}
    lost = effect["document"] | {"name": "Lost", "speed": {"kind": "tempo", "tempo": "Nowhere"}}
    content = {"format": "zarabanda.effects/1", "effects": [broken, effect["document"] | {"name": "Good"}, newer, lost, 7]}
    taken = client.post("/api/effects/import", json={"content": content}).json
    assert taken["effects"] == ["Good"]
    assert [text.split(":")[0] for text in taken["refused"]] == ["Effect 1 “Broken”", "Effect 3 “Newer”", "Effect 5", "“Lost”"]
    names = [one["name"] for one in client.get("/api/effects").json["effects"]]
    client.post("/api/undo")
    client.post("/api/undo")
    assert len(client.get("/api/effects").json["effects"]) == len(names) - 2
    refused = client.post("/api/effects/import", json={"content": {"effects": 3}})
    assert refused.status_code == 422
    assert "zarabanda.effects/1" in refused.json["message"]


def test_draft_values_are_set_taken_back_and_cleared(client):
    client.delete("/api/draft")
    client.post("/api/draft/values", json={"values": {"intensity": {"101": 50, "102": 60}, "pan": {"101": -20}}})
    assert client.get("/api/draft").json["values"] == {"intensity": {"101": 50, "102": 60}, "pan": {"101": -20}}
    client.post("/api/draft/values", json={"values": {"intensity": {"101": None}}})
    assert client.get("/api/draft").json["values"]["intensity"] == {"102": 60}
    client.delete("/api/draft")
    assert client.get("/api/draft").json == {"values": {}, "listed": [], "fans": [], "effects": []}
    client.post("/api/undo")
    assert client.get("/api/draft").json["values"]["pan"] == {"101": -20}
    client.delete("/api/draft")


BAD = [
    ("POST", "/api/selection", {"text": "nonsense"}, 422, "means nothing"),
    ("POST", "/api/selection", {"txt": "101"}, 422, "text"),
    ("POST", "/api/selection/order", {"heads": ["101"], "order": ["sideways"]}, 422, "no order 'sideways'"),
    ("POST", "/api/selection/order", {"heads": ["999"], "order": ["reversed"]}, 422, "no head 999"),
    ("POST", "/api/effects", {"attribute": "wobble", "heads": ["101"]}, 422, "no attribute 'wobble'"),
    ("POST", "/api/effects", {"attribute": "pan", "document": {}}, 422, "either an attribute"),
    ("POST", "/api/effects", {"document": {"name": "x", "layers": []}}, 422, "layers"),
    ("POST", "/api/effects", {"document": {"format": "zarabanda.effect/9", "name": "x"}}, 422, "format"),
    ("POST", "/api/effects/1/change", {"path": "layers.0.form.width", "value": 9999}, 422, "layers.0.form"),
    ("POST", "/api/effects/1/change", {"path": "layers.9.form", "value": "sine"}, 422, "no layer 9"),
    ("POST", "/api/effects/1/change", {"path": "a.b.c", "value": 1}, 422, "a"),
    ("POST", "/api/effects/1/change", {"path": "speed.tempo", "value": "Nothing"}, 422, "no tempo"),
    ("POST", "/api/effects/9999/change", {"path": "seed", "value": 1}, 404, "does not exist"),
    ("GET", "/api/effects/9999", None, 404, "does not exist"),
    ("POST", "/api/draft/values", {"values": {"intensity": {"101": 500}}}, 422, "0 to 100"),
    ("POST", "/api/draft/values", {"values": {"wobble": {"101": 5}}}, 422, "no attribute"),
    ("POST", "/api/pages/1/controls", {"place": 0, "mode": "fader", "name": "x", "drives": {"kind": "master"}}, 422, "place"),
    ("POST", "/api/actions", {"action": {"do": "blackout", "on": True}}, 422, "engine"),
    ("GET", "/api/nothing", None, 404, ""),
    ("PUT", "/api/show", {}, 405, ""),
]


@pytest.mark.parametrize(("method", "path", "body", "status", "part"), BAD)
def test_bad_requests_say_what_is_wrong(client, method, path, body, status, part):
    answer = client.open(path, method=method, json=body)
    assert answer.status_code == status, answer.text
    assert part in answer.json["message"] + answer.json["place"]


def test_text_that_is_no_json_is_refused(client):
    answer = client.post("/api/selection", data="{", content_type="application/json")
    assert answer.status_code in (400, 422)
    assert answer.json["message"]


def test_an_access_code_guards_everything(tmp_path):
    app = create_app(tmp_path, access_code="sal marina", connect=False)
    client = app.test_client()
    assert client.get("/api/show").status_code == 401
    assert b"Access code" in client.get("/").data
    assert client.post("/access", data={"code": "wrong"}).status_code == 401
    entered = client.post("/access", data={"code": "sal marina"})
    assert entered.status_code == 303
    cookie = entered.headers["Set-Cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=Strict" in cookie
    assert client.get("/api/rig").status_code == 200
    app.extensions["zarabanda"].store.close()


@pytest.mark.parametrize(
    ("origin", "fits"),
    [(None, True), ("http://127.0.0.1:8765", True), ("http://127.0.0.1:9999", False), ("https://elsewhere.example", False)],
)
def test_the_live_socket_checks_its_origin(origin, fits):
    assert is_same_origin(origin, None, "127.0.0.1:8765") == fits


def test_unknown_keys_and_odd_types_never_break_the_server(client):
    for body in (None, [], "text", {"values": 3}, {"heads": {"a": 1}}, {"action": []}, {"attribute": False}):
        for path in ("/api/effects", "/api/draft/values", "/api/actions", "/api/selection", "/api/pages/1/controls"):
            answer = client.post(path, data=json.dumps(body), content_type="application/json")
            assert 400 <= answer.status_code < 500, (path, body, answer.text)
            assert answer.json["message"]


def test_a_use_gets_a_copy_of_its_own_and_the_others_keep_theirs(client):
    page = client.get("/api/pages").json["pages"][0]
    control = next(one for one in page["controls"] if one["name"] == "Ladders: undertow")
    number = control["drives"]["number"]
    copy = client.post(f"/api/effects/{number}/own-copy", json={"key": control["key"]})
    assert copy.status_code == 201
    assert copy.json["name"] == "Undertow 2"
    assert copy.json["uses"] == ["fader 4 of Dance floor"]
    assert client.get(f"/api/effects/{number}").json["uses"] == ["Tide Clock, cue 3"]
    client.post("/api/undo")
    uses = client.get(f"/api/effects/{number}").json["uses"]
    assert uses == ["fader 4 of Dance floor", "Tide Clock, cue 3"]


def test_a_control_keeps_families_that_the_effect_has(client):
    page = client.get("/api/pages").json["pages"][0]
    effect = next(one for one in client.get("/api/effects").json["effects"] if one["families"] == ["intensity", "position"])
    control = {"place": 14, "mode": "fader", "name": "x", "job": "both"}
    drives = {"kind": "effect", "number": effect["id"], "heads": ["101"]}
    refused = client.post(f"/api/pages/{page['id']}/controls", json=control | {"drives": drives | {"families": ["colour"]}})
    assert refused.status_code == 422
    assert "moves intensity, position" in refused.json["message"]
    control["drives"] = drives | {"families": ["position"]}
    made = client.post(f"/api/pages/{page['id']}/controls", json=control).json
    assert (made["job"], made["drives"]["families"]) == ("both", ["position"])
    assert client.post(f"/api/pages/{page['id']}/controls", json=control | {"job": "mood"}).status_code == 422
    client.delete(f"/api/pages/controls/{made['id']}")


def test_a_document_is_woven_without_being_kept(client):
    document = client.get("/api/effects").json["effects"][0]["document"]
    spread = {"kind": "ripple", "degrees": 360, "fit": "closed"}
    body = {"document": document | {"spread": spread, "lanes": {}, "own": {"102": {"offset": 90}}}}
    woven = client.post("/api/effects/weave", json=body | {"weave": {"heads": ["101", "102", "103", "104"]}}).json
    assert woven["offsets"] == pytest.approx([0, 0.5, 0.5, 0.75])
    assert woven["shares"] == pytest.approx([0, 0.25, 0.5, 0.75])
    bad = client.post("/api/effects/weave", json={"document": {}, "weave": {}})
    assert bad.status_code == 422


def test_only_what_is_frozen_is_kept_as_a_look(client, application, monkeypatch):
    monkeypatch.setattr(application.extensions["zarabanda"].link.questions, "look_of", lambda key: None)
    answer = client.post("/api/draft/keep-frozen", json={"key": "draft:1"})
    assert answer.status_code == 422
    assert "Freeze the effect first" in answer.json["message"]


def test_the_engine_gets_after_every_edit_what_the_whole_show_says(client, application, monkeypatch):
    link, store = application.extensions["zarabanda"].link, application.extensions["zarabanda"].store
    sent = []
    monkeypatch.setattr(link, "send", sent.append)
    link.push()
    parts = {part.key: part for part in sent[0].parts}
    number, draft = new_effect(client)
    parts |= {part.key: part for update in sent[1:] for part in update.parts}
    change = {"operation": "set", "path": "layers.0.anchor.depth", "value": 33, "preview": False}
    palette = client.get("/api/palettes").json["palettes"][0]
    edits = [
        lambda: client.post(f"/api/effects/{number}/change", json=change),
        lambda: client.post(f"/api/effects/{number}/change", json=change | {"value": 44}),
        lambda: client.post("/api/undo"),
        lambda: client.post("/api/draft/values", json={"values": {"intensity": {"101": 20}}}),
        lambda: client.put(f"/api/palettes/{palette['id']}", json={"name": "Another", "document": palette["document"]}),
        lambda: client.post("/api/undo"),
        lambda: client.post(f"/api/effects/{number}/change", json=change | {"value": 55}),
        lambda: client.delete(f"/api/draft/effects/{draft}"),
    ]
    for edit in edits:
        del sent[1:]
        answer = edit()
        assert answer.status_code < 300, answer.text
        [_, update] = sent
        assert (update.revision, update.session, update.whole) == (link.revision, link.session, False)
        assert len(update.parts) + len(update.gone) <= 2
        parts |= {part.key: part for part in update.parts}
        parts = {key: part for key, part in parts.items() if key not in update.gone and key[0] != "rig"}
        with store.reading() as session:
            assert parts == {part.key: part for part in compiling.all_parts(session)}


@pytest.mark.parametrize("wrong", [{"heads": ["101", "7.77"]}, {"attribute": "warmth"}])
def test_an_edit_whose_weave_cannot_be_made_changes_nothing(client, wrong):
    number, _ = new_effect(client)
    before = client.get(f"/api/effects/{number}").json["document"]
    change = {"operation": "set", "path": "layers.0.anchor.depth", "value": 12.5, "preview": False, "weave": {"heads": ["101"]}}
    answer = client.post(f"/api/effects/{number}/change", json=change | {"weave": change["weave"] | wrong})
    assert answer.status_code == 422
    assert answer.json["place"] == next(iter(wrong))
    assert client.get(f"/api/effects/{number}").json["document"] == before


def test_previews_are_sent_and_keep_nothing(client, application, monkeypatch):
    sent = []
    monkeypatch.setattr(application.extensions["zarabanda"].link, "send", sent.append)
    number, _ = new_effect(client)
    client.post("/api/draft/values", json={"values": {"pan": {"101": 5.0}}})
    kept, draft = client.get(f"/api/effects/{number}").json["document"], client.get("/api/draft").json["values"]
    del sent[:]
    change = {"operation": "set", "path": "layers.0.anchor.depth", "value": 33, "preview": True}
    shown = client.post(f"/api/effects/{number}/change", json=change).json
    client.post("/api/draft/values", json={"values": {"pan": {"101": -20.0, "102": 7.0}}, "preview": True})
    assert [type(one) for one in sent] == [PreviewEffect, PreviewValues]
    assert sent[0].effect_id == number
    assert sent[0].document["layers"][0]["anchor"]["depth"] == 33 == shown["effect"]["document"]["layers"][0]["anchor"]["depth"]
    assert sent[1].values["pan"] == {"101": -20.0, "102": 7.0}
    assert client.get(f"/api/effects/{number}").json["document"] == kept
    assert client.get("/api/draft").json["values"] == draft
    client.delete("/api/draft")


def test_a_preview_that_comes_in_late_does_not_overtake_what_was_kept(client, application, monkeypatch):
    sent = []
    monkeypatch.setattr(application.extensions["zarabanda"].link, "send", sent.append)
    number, _ = new_effect(client)
    depth = {"operation": "set", "path": "layers.0.anchor.depth"}
    client.post(f"/api/effects/{number}/change", json=depth | {"value": 20, "step": 8})
    del sent[:]
    late = client.post(f"/api/effects/{number}/change", json=depth | {"value": 2, "step": 7, "preview": True})
    assert late.status_code == 200
    assert sent == []
    client.post(f"/api/effects/{number}/change", json=depth | {"value": 30, "step": 9, "preview": True})
    assert [one.document["layers"][0]["anchor"]["depth"] for one in sent] == [30]
    assert sent[0].revision == application.extensions["zarabanda"].link.revision


def test_values_set_by_hand_go_there_in_their_own_time(client, application, monkeypatch):
    sent = []
    monkeypatch.setattr(application.extensions["zarabanda"].link, "send", sent.append)
    for body in ({"values": {"pan": {"101": 5}}, "fade_s": 2.5}, {"values": {"pan": {"101": 6}}}):
        assert client.post("/api/draft/values", json=body).status_code == 200
    assert [update.fade_s for update in sent] == [2.5, 0.0]
    client.post("/api/draft/values", json={"values": {"pan": {"101": 6}}, "fade_s": 3})  # as it is already
    client.post("/api/undo")
    assert [update.fade_s for update in sent] == [2.5, 0.0, 0.0], "a time is not left for another edit"
    assert client.post("/api/draft/values", json={"values": {}, "fade_s": -1}).status_code == 422
    client.delete("/api/draft")
