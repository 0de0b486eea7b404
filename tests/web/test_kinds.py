"""Kinds over the API: from files, seen whole, changed with all that are of them."""

import pytest

from tests.formats import gdtf_files as files
from tests.web.test_rig import client, fixtures, post

pytestmark = pytest.mark.slow

__all__ = ["client"]
FILE = files.packed(files.spot(), {"wheels/reeds.png": files.PNG})


def put(client, path, content, status=200):
    answer = client.put(path, data=content, content_type="application/octet-stream")
    assert answer.status_code == status, answer.json
    return answer.json


def names(client):
    return {one["name"] for one in client.get("/api/kinds").json["kinds"] if one["id"]}


def sheet(client, name):
    answer = client.get("/api/kinds/sheet", query_string={"name": name})
    assert answer.status_code == 200, answer.json
    return answer.json


def test_modes_of_a_file_are_seen_and_taken_in_as_one_step(client):
    seen = put(client, "/api/kinds/gdtf", FILE)
    assert [(one["name"], one["there"], one["kind"]["footprint"]) for one in seen["modes"]] == [
        ("Lantern 7, Full", False, 14),
        ("Lantern 7, Small", False, 2),
    ]
    assert "stays at 7" in " ".join(seen["modes"][0]["left_out"])
    assert names(client) == set(), "a preview changes nothing"
    done = put(client, "/api/kinds/gdtf?preview=false&modes=Lantern 7, Full&modes=Lantern 7, Small", FILE)
    assert done["done"] == "Take in Lantern 7: 2 modes"
    assert names(client) == {"Lantern 7, Full", "Lantern 7, Small"}
    assert [one["there"] for one in put(client, "/api/kinds/gdtf", FILE)["modes"]] == [True, True]
    picture = sheet(client, "Lantern 7, Full")["document"]["gobo_pictures"][1]
    assert client.get(f"/api/kinds/pictures/{picture}.png").data[:4] == b"\x89PNG"
    post(client, "/api/rig/add", 201, mode="Lantern 7, Full", count=3, number=1, name="Lantern")
    assert [one["address"] for one in fixtures(client).values()] == [1, 15, 29]
    for _ in range(2):
        assert client.post("/api/undo").status_code == 200
    assert names(client) == set(), "one step for both"


def test_another_mode_of_the_same_name_gets_a_name_of_its_own(client):
    put(client, "/api/kinds/gdtf?preview=false&modes=Lantern 7, Small", FILE)
    other = files.packed(files.spot().replace('BeamAngle="18"', 'BeamAngle="12"'))
    put(client, "/api/kinds/gdtf?preview=false&modes=Lantern 7, Small", other)
    assert names(client) == {"Lantern 7, Small", "Lantern 7, Small 2"}


@pytest.mark.parametrize(
    ("query", "content", "said"),
    [
        ("", b"nothing", "no whole GDTF file"),
        ("?preview=false", FILE, "No mode is chosen"),
        ("?preview=false&modes=Other", FILE, "no mode 'Other' in this file"),
    ],
    ids=lambda value: value if isinstance(value, str) else "file",
)
def test_what_cannot_be_taken_in_is_told(client, query, content, said):
    assert said in put(client, f"/api/kinds/gdtf{query}", content, 422 if "Other" not in query else 404)["message"]
    assert names(client) == set()


def changed(client, number, document, status=200, **more):
    answer = client.put(f"/api/kinds/{number}", json={"document": document} | more)
    assert answer.status_code == status, answer.json
    return answer.json


def test_a_kind_is_changed_with_all_fixtures_that_are_of_it(client):
    mode = "Batten 8 RGB, 8 cells, 24 channels"
    post(client, "/api/rig/add", 201, mode=mode, count=2, number=1, name="Bar")
    post(client, "/api/groups", 201, name="Bars", heads=[f"{n}.{cell}" for n in (1, 2) for cell in range(1, 9)])
    whole = sheet(client, mode)
    assert whole["numbers"] == [1, 2]
    assert whole["slots"][3] == "red of cell 2"
    document = whole["document"] | {"cells": whole["document"]["cells"][:4], "channels": whole["document"]["channels"][:12]}
    document |= {"footprint": 12, "name": "Half a batten"}
    seen = changed(client, whole["id"], document, preview=True)
    assert seen["lost"] == ["2 fixtures (1 to 2): 8 cells become 4."]
    assert sheet(client, mode)["document"] == whole["document"], "a preview changes nothing"
    changed(client, whole["id"], document)
    heads = {one["name"]: one["heads"] for one in client.get("/api/show").json["groups"]}
    assert heads["Bars"] == [f"{n}.{cell}" for n in (1, 2) for cell in range(1, 5)]
    client.post("/api/undo")
    assert sheet(client, mode)["document"] == whole["document"]


def test_what_a_kind_cannot_be_is_told_at_its_place(client):
    post(client, "/api/rig/add", 201, mode="Par RGBW, 5 channels", count=1, number=1, name="Par", universe=1, address=508,
         addresses="in order")  # fmt: skip
    whole = sheet(client, "Par RGBW, 5 channels")
    document, number = whole["document"], whole["id"]
    wrong = [
        ({"footprint": 6}, "Its last possible address is 507"),
        ({"name": "Strobe, 2 channels"}, "There is a kind “Strobe, 2 channels” already"),
        ({"footprint": 3}, "uses slot"),
        ({"rests": [[9, 1]]}, "is to rest at a level"),
        ({"channels": [document["channels"][0] | {"curve": [[0, 1], [0, 9]]}]}, "values rise"),
        ({"channels": [document["channels"][0] | {"curve": [[0, 1], [9, 256]]}]}, "above 255"),
    ]
    for change, said in wrong:
        assert said in str(changed(client, number, document | change, 409 if "already" in said else 422))
    assert sheet(client, "Par RGBW, 5 channels")["document"] == document


def test_a_plain_kind_is_made_ones_own(client):
    whole = sheet(client, "Strobe, 2 channels")
    assert whole["id"] is None
    made = post(client, "/api/kinds/copies", 201, name="Strobe, 2 channels", model="Flash 9")
    assert made["name"] == "Flash 9, 2 channels"
    assert sheet(client, "Flash 9, 2 channels")["document"]["channels"] == whole["document"]["channels"]
