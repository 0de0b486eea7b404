"""Taking over by HTTP: what is proposed, how it is matched, what it would change, and what is refused."""

import pytest

pytestmark = pytest.mark.slow

TOURING = "ready:touring"


@pytest.fixture
def client(fresh):
    return fresh.test_client()


def proposal(client, rig=TOURING):
    return client.post("/api/take-over/pairs", json={"rig": rig}).json


def matches(client, pairs, **more):
    return client.post("/api/take-over/matches", json={"rig": TOURING, "pairs": pairs, **more})


def test_the_rigs_are_the_own_one_the_touring_one_those_of_other_shows_and_ready_ones(client):
    made = client.post("/api/shows", json={"name": "Small", "begin": "pars"}).json["id"]
    rigs = client.get("/api/take-over/rigs").json["rigs"]
    assert [one["id"] for one in rigs][:3] == ["this", TOURING, f"show:{made}"]
    found = proposal(client, f"show:{made}")
    assert {one["name"] for one in found["after"]} == {"Par RGBW"}
    assert found["pairs"][0]["source"]["name"] == "Rear spots"


def test_a_preview_changes_nothing_and_taking_over_is_one_step_with_a_copy_before_it(client):
    pairs = proposal(client)["pairs"]
    before = client.get("/api/rig").json
    told = client.post("/api/take-over", json={"rig": TOURING, "pairs": pairs}).json
    assert {one["what"]: one["count"] for one in told["counts"]}["cues"] > 40
    assert client.get("/api/rig").json == before
    done = client.post("/api/take-over", json={"rig": TOURING, "pairs": pairs, "preview": False}).json
    assert (done["done"], done["changes"]) == ("Taken over to a rig of 42 lights", told["changes"])
    assert len(client.get("/api/rig").json["fixtures"]) == 42
    assert [one["why"] for one in client.get("/api/shows/copies").json["copies"]] == ["before it went to another rig"]
    palettes = {one["name"]: one["document"] for one in client.get("/api/palettes").json["palettes"]}
    assert not palettes["Up, Tilt bars"].get("own"), "what it was for is gone, and nothing takes over"
    assert client.post("/api/undo").status_code == 200
    assert client.get("/api/rig").json["fixtures"] == before["fixtures"]


@pytest.mark.parametrize(
    ("way", "match", "mirrored", "said", "seen"),
    [
        ("middle", [], True, "8 take over from the inner ones of 10. Still mirrored.", "Still mirrored: left and right"),
        ("order", [], False, "8 take over from the first ones of 10. Not mirrored any more.", "Still mirrored: left and right"),
        ("hand", [1, 2, 3, 4, 4, 3, 2, 1], True, "As drawn by hand. Still mirrored.", "Still mirrored: left and right"),
    ],
)
def test_a_pair_says_how_it_is_matched_and_shows_the_same_weave_on_both(client, way, match, mirrored, said, seen):
    pairs = proposal(client)["pairs"]
    pairs[0] |= {"way": way, "match": match}
    effects = {one["name"]: one["id"] for one in client.get("/api/effects").json["effects"]}
    found = matches(client, pairs, chosen=0, effect=effects["Tide fold"]).json
    own = found["pairs"][0]
    assert (own["mirrored"], own["sentence"]) == (mirrored, said)
    assert "Zoom goes 10 to 36°, not 6 to 48°: limited." in own["differences"]
    assert [len(found[side]["heads"]) for side in ("here", "there")] == [10, 8]
    assert found["sentence"].startswith(seen)
    across = matches(client, pairs, chosen=0, effect=effects["Slow lantern"]).json["sentence"]
    assert across == "Not mirrored on either: this effect runs across them."


@pytest.mark.parametrize(
    ("change", "status", "said"),
    [
        (lambda body: body.update(rig="ready:nothing"), 404, "There is no ready rig “nothing”"),
        (lambda body: body.update(rig="show:00000000"), 404, "There is no show '00000000'"),
        (lambda body: body.update(rig="elsewhere"), 422, "rig"),
        (lambda body: body["pairs"][0]["source"].update(numbers=[]), 422, "“Rear spots” has no lights|Rear spots has no lights"),
        (lambda body: body["pairs"][0]["target"].update(numbers=[9999]), 422, "there is no fixture 9999"),
        (lambda body: body["pairs"][10].update(target=body["pairs"][6]["target"]), 422, "can do nothing of what “Haze” does"),
        (lambda body: [one.update(target=None) for one in body["pairs"]], 422, "No lights take over"),
    ],
    ids=["no ready rig", "no show", "no rig", "no lights", "no fixture", "nothing in common", "no pair"],
)  # fmt: skip
def test_what_cannot_be_taken_over_is_told_and_nothing_is_done(client, change, status, said):
    import re

    body = {"rig": TOURING, "pairs": proposal(client)["pairs"], "preview": False}
    change(body)
    answer = client.post("/api/take-over", json=body)
    assert answer.status_code == status
    assert re.search(said, answer.json["message"]), answer.json
    assert client.get("/api/rig").json["fixtures"][0]["number"] == 101


def test_groups_of_the_own_rig_are_paired_by_hand(client):
    found = proposal(client, "this")
    assert found["pairs"] == []
    named = {one["name"]: {name: one[name] for name in ("name", "numbers", "group")} for one in found["before"]}
    pair = {"source": named["Rear spots"], "target": named["Deck beams"]}
    told = client.post("/api/take-over", json={"rig": "this", "pairs": [pair]}).json
    assert {"what": "rows", "count": 1} in told["counts"]
    assert not any(one["what"] == "groups" for one in told["changes"])
