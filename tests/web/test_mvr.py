"""Scenes over the API: compared first, taken in as one step, by number or by place; what is not known gets a kind by hand."""

import threading

import pytest

from tests.formats import mvr_files as files
from tests.web.test_kinds import put
from tests.web.test_rig import client, fixtures, post

pytestmark = pytest.mark.slow

__all__ = ["client"]
FILE = "application/octet-stream"


def scene(*lights, types=None):
    return files.packed(files.scene(files.layer("Rear", *lights)), types)


def three(shift=0.0, numbers=(0, 0, 0)):
    return [
        files.light(
            n, at=(1000 * n + shift, 2000, 5000), number=own or 100 + n, address=1 + 14 * n, name=f"Lamp {n}", class_=files.CLASS
        )
        for n, own in enumerate(numbers, 1)
    ]


def test_a_scene_is_seen_taken_in_seen_again_as_the_same_and_undone(client):
    seen = put(client, "/api/rig/mvr", scene(*three()))
    assert seen["new"][0] == "101 Lamp 1: Lantern 7, Full, 1.15, at 1 / 2 / 5 m"
    assert (seen["kinds"], seen["changed"], seen["gone"]) == (["Lantern 7, Full"], [], [])
    assert any("Control1" in line for line in seen["left_out"])
    assert fixtures(client) == {}, "a preview changes nothing"
    assert put(client, "/api/rig/mvr?preview=false", scene(*three()))["numbers"] == [101, 102, 103]
    first = fixtures(client)[101]
    assert (first["place"], first["rotation"], first["universe"], first["address"]) == ([1, 2, 5], [0, 180, 0], 1, 15)
    assert (first["layer"], first["class_name"]) == ("Rear", "Floor package")
    again = put(client, "/api/rig/mvr", scene(*three()))
    assert (again["same"], again["new"], again["changed"], again["kinds"]) == (3, [], [], [])
    moved = put(client, "/api/rig/mvr?preview=false", scene(*three(250)[:2], files.light(9, at=(9000, 0, 0), number=101)))
    assert moved["changed"] == ["101: x 1 → 1.25 m", "102: x 2 → 2.25 m"]
    assert moved["gone"] == ["103 Lamp 3"]
    assert "101 is taken, so it is 104" in " ".join(moved["notes"])
    assert set(fixtures(client)) == {101, 102, 103, 104}, "what is gone stays unless it is to go"
    for left in ({101, 102, 103}, set()):
        assert client.post("/api/undo").status_code == 200
        assert set(fixtures(client)) == left
    assert client.get("/api/rig").json["modes"] == []


def test_what_is_gone_goes_when_it_is_to_and_what_uses_it_is_told(client):
    put(client, "/api/rig/mvr?preview=false", scene(*three()))
    post(client, "/api/groups", 201, name="All", heads=["101", "102", "103"])
    seen = put(client, "/api/rig/mvr?gone=go", scene(three()[0]))
    assert (seen["gone"], seen["lost"]) == (["102 Lamp 2", "103 Lamp 3"], ["the group “All”: 2 of its heads"])
    put(client, "/api/rig/mvr?gone=go&preview=false", scene(three()[0]))
    assert set(fixtures(client)) == {101}
    client.post("/api/undo")
    assert set(fixtures(client)) == {101, 102, 103}


def test_by_place_a_light_keeps_what_uses_it_and_gets_its_new_number(client):
    put(client, "/api/rig/mvr?preview=false", scene(*three()))
    post(client, "/api/groups", 201, name="First", heads=["101"])
    renumbered = [
        files.light(n, at=(1000 * n, 2000, 5000), number=200 - n, address=1 + 14 * n, name=f"Lamp {n}") for n in (1, 2, 3)
    ]
    seen = put(client, "/api/rig/mvr?by=place&preview=false", scene(*renumbered))
    assert seen["changed"][0].startswith("101: number 101 → 199")
    (group,) = client.get("/api/show").json["groups"]
    assert group["heads"] == ["199"]


def test_by_place_a_light_may_get_the_number_of_one_that_goes(client):
    put(client, "/api/rig/mvr?preview=false", scene(*three()))
    put(client, "/api/rig/mvr?by=place&gone=go&preview=false", scene(three(numbers=(102, 0, 0))[0]))
    assert {number: one["place"][0] for number, one in fixtures(client).items()} == {102: 1}


def test_types_that_are_not_known_get_a_kind_by_hand(client):
    lights = [*three(), files.light(8, number=8, spec="Gone.gdtf", mode="Any")]
    seen = put(client, "/api/rig/mvr", scene(*lights))
    assert seen["unknown"] == [{"type": "Gone.gdtf", "mode": "Any", "why": "it is not in the file", "count": 1, "kind": ""}]
    assert len(seen["new"]) == 3
    done = put(client, "/api/rig/mvr?preview=false&kinds=Gone.gdtf|Any|Par RGBW, 5 channels", scene(*lights))
    assert done["numbers"] == [101, 102, 103, 8]
    assert done["unknown"][0]["kind"] == "Par RGBW, 5 channels"


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"nothing", "no whole MVR file"),
        (scene(files.light(1, number=1, address="1.510")), "would go beyond 512"),
        (scene(files.light(1, number=1, address="99999.1")), "universe"),
    ],
    ids=lambda value: value if isinstance(value, str) else "file",
)
def test_what_cannot_be_is_told_and_nothing_is_half_done(client, content, said):
    before = client.get("/api/rig").json
    answer = client.put("/api/rig/mvr?preview=false", data=content, content_type=FILE)
    assert answer.status_code == 422
    assert said in str(answer.json)
    after = client.get("/api/rig").json
    assert (after["fixtures"], after["modes"]) == (before["fixtures"], before["modes"])


def test_a_job_tells_how_far_it_is_and_stops_when_it_is_to(client):
    jobs = client.application.extensions["zarabanda"].jobs
    content, seen = scene(*[files.light(n, number=n) for n in range(1, 400)]), []

    def look():
        while (share := jobs.share("job-12345")) is None:
            pass
        seen.append(share)
        seen.append(client.application.test_client().delete("/api/jobs/job-12345").json["done"])

    looking = threading.Thread(target=look)
    looking.start()
    answer = client.put(
        "/api/rig/mvr?preview=false", data=content, content_type="application/octet-stream", headers={"X-Job": "job-12345"}
    )
    looking.join()
    assert answer.json["message"] == "Stopped. Nothing was changed."
    assert seen[1] == "It stops"
    assert fixtures(client) == {}
    assert client.get("/api/jobs/job-12345").json == {"share": None}


def test_a_rig_that_is_written_is_the_same_when_it_is_read(client):
    put(client, "/api/rig/mvr?preview=false", scene(*three()))
    bars = {"mode": "Batten 8 RGB, 8 cells, 24 channels", "count": 3, "number": 1, "name": "Bar", "mounting": "on the left"}
    post(client, "/api/rig/add", 201, **bars)
    post(client, "/api/rig/add", 201, mode="Spot CMY, 18 channels, 16 bit", count=2, number=21, name="Spot", addresses="none")
    rig = client.get("/api/rig").json
    written = client.get("/api/rig/scene.mvr").data
    assert client.get("/api/rig/scene.mvr").data == written
    seen = put(client, "/api/rig/mvr", written)
    assert (seen["same"], seen["new"], seen["changed"], seen["gone"], seen["kinds"]) == (8, [], [], [], [])
    post(client, "/api/rig/delete", numbers=[one["number"] for one in rig["fixtures"]])
    put(client, "/api/rig/mvr?preview=false", written)
    assert [one | {"mode_id": 0} for one in client.get("/api/rig").json["fixtures"]] == [
        one | {"mode_id": 0} for one in rig["fixtures"]
    ]
