"""The rig over the API: from an empty show on, every change one edit, everything that uses a fixture follows."""

import shutil

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.thoroughness import thorough
from zarabanda.core.rig.modes import head_keys, lit_keys
from zarabanda.show.head_keys import Renaming, changed
from zarabanda.stock.kinds import plain_kinds

pytestmark = pytest.mark.slow


@pytest.fixture
def client(routes, tmp_path, new_show):
    shutil.copy(new_show, tmp_path)
    with routes(tmp_path) as app:
        yield app.test_client()


def post(client, path, status=200, **body):
    answer = client.post(path, json=body)
    assert answer.status_code == status, answer.json
    return answer.json


def fixtures(client):
    return {one["number"]: one for one in client.get("/api/rig").json["fixtures"]}


def pars(client, count=8, **more):
    body = {"mode": "Par RGBW, 5 channels", "count": count, "number": 1, "name": "Par", "place": [-3.5, 2, 4]} | more
    return post(client, "/api/rig/add", 201, **body)


def test_eight_pars_in_an_empty_show(client):
    assert fixtures(client) == {}
    assert pars(client)["numbers"] == list(range(1, 9))
    rig = fixtures(client)
    assert [(one["universe"], one["address"]) for one in rig.values()] == [(1, 1 + 5 * n) for n in range(8)]
    assert [one["place"] for one in rig.values()][::7] == [[-3.5, 2, 4], [3.5, 2, 4]]
    assert client.get("/api/rig/check").json["odd"] == []
    assert client.get("/api/kinds").json["kinds"][0]["id"] == 1
    assert client.post("/api/undo").status_code == 200
    assert (fixtures(client), client.get("/api/rig").json["modes"]) == ({}, []), "one step, the mode with it"


@pytest.mark.parametrize("rig", ["pars", "club", "stage"])
def test_a_ready_rig_is_whole_and_has_groups(client, rig):
    numbers = post(client, "/api/rig/ready", 201, rig=rig)["numbers"]
    assert len(numbers) == {"pars": 8, "club": 20, "stage": 38}[rig]
    assert client.get("/api/rig/check").json["odd"] == []
    groups = client.get("/api/show").json["groups"]
    assert sorted(int(key.partition(".")[0]) for key in {k for g in groups for k in g["heads"] if "." not in k}) == sorted(
        number for number in numbers if fixtures(client)[number]["mode_id"] not in cells_without_a_leader(client)
    )
    assert client.post("/api/rig/ready", json={"rig": rig}).status_code == 422


def cells_without_a_leader(client):
    return {mode["id"] for mode in client.get("/api/rig").json["modes"] if mode["parts"][0]["part"] == 1}


@pytest.mark.parametrize(
    ("path", "body", "said"),
    [
        ("/api/rig/add", {"mode": "Strobe, 2 channels", "number": 8}, "There is a fixture 8 already. The next free number is 9"),
        ("/api/rig/add", {"mode": "Wobble"}, "There is no mode “Wobble”"),
        ("/api/rig/add", {"mode": "Tile 16 × 16 RGB, 256 cells, 770 channels", "count": 79, "number": 100}, "20,000"),
        ("/api/rig/cells", {"numbers": [2], "column": "address", "text": "1.510"}, "Its last possible address is 508"),
        ("/api/rig/cells", {"numbers": [2], "column": "number", "text": "3"}, "There is a fixture 3 already"),
        ("/api/rig/cells", {"numbers": [2], "column": "x", "text": "far"}, "is no place"),
        ("/api/rig/cells", {"numbers": [2], "column": "rotation", "text": "sideways"}, "standing, hanging"),
        ("/api/rig/cells", {"numbers": [77], "column": "x", "text": "1"}, "There is no fixture 77 any more"),
        ("/api/rig/change", {"changes": [{"fixture": 2, "set": {"cell_order": "spiral"}}]}, "there is no order of cells"),
        ("/api/rig/universe", {"universe": 9, "to": 2}, "nothing in universe 9"),
        ("/api/rig/arrange", {"numbers": [1, 2], "shape": "circle", "given": {"x": 0, "y": 0, "z": 0}}, "radius is needed"),
        ("/api/rig/paste", {"text": "1\t2", "numbers": [1], "column": "class_name"}, "2 columns are pasted"),
        ("/api/rig/paste", {"text": "Number\tx, m\n1\tfar\n2\t3", "numbers": []}, "Row 1, x, m"),
        ("/api/rig/paste", {"text": "Number\tx, m\n44\t3", "numbers": []}, "a column Mode is needed"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_place_and_nothing_is_half_done(client, path, body, said):
    pars(client)
    before = fixtures(client)
    answer = client.post(path, json=body)
    assert answer.status_code in (404, 409, 422)
    assert said in answer.json["message"]
    assert fixtures(client) == before


def test_cells_are_typed_for_one_or_many_with_fans(client):
    pars(client)
    every = list(range(1, 9))
    post(client, "/api/rig/cells", numbers=every, column="x", text="-7 to 7")
    assert [one["place"][0] for one in fixtures(client).values()] == [-7, -5, -3, -1, 1, 3, 5, 7]
    post(client, "/api/rig/cells", numbers=every, column="address", text="2.501")
    assert [(one["universe"], one["address"]) for one in fixtures(client).values()][1:4] == [(2, 506), (3, 1), (3, 6)]
    post(client, "/api/rig/cells", numbers=every[::-1], column="number", text="101")
    assert list(fixtures(client)) == list(range(101, 109))
    assert fixtures(client)[101]["place"][0] == 7
    post(client, "/api/rig/cells", numbers=[101], column="address", text="none")
    assert fixtures(client)[101]["universe"] is None
    for _ in range(4):
        assert client.post("/api/undo").status_code == 200
    assert fixtures(client)[1]["address"] == 1


def test_addresses_next_free_in_order_and_by_universe(client):
    pars(client)
    post(client, "/api/rig/cells", numbers=[2], column="address", text="1.3")
    [odd] = client.get("/api/rig/check").json["odd"]
    assert odd["text"] == "2 overlaps 1 by 3 slots of universe 1; 1 has them."
    post(client, "/api/rig/address", **odd["ask"])
    assert fixtures(client)[2]["address"] == 6
    post(client, "/api/rig/universe", universe=1, to=4)
    post(client, "/api/rig/address", numbers=[8, 7], how="in order", universe=1, address=100)
    assert [(one["universe"], one["address"]) for one in fixtures(client).values()][5:] == [(4, 26), (1, 105), (1, 100)]
    twice = post(client, "/api/rig/duplicate", numbers=[1, 2], first=1, mirrored=True)
    assert twice["done"] == "Duplicate 2 fixtures"
    assert [fixtures(client)[number]["place"] for number in (9, 10)] == [[3.5, 2, 4], [2.5, 2, 4]]
    assert client.get("/api/rig/check").json["odd"][0]["kind"] == "same place"


def test_a_spreadsheet_is_pasted_after_a_preview(client):
    pars(client)
    text = "Number\tName\tx, m\tMode\n1\tLeft\t-4,5\tPar RGB, 3 channels\n20\tNew\t0\tStrobe, 2 channels\n"
    told = post(client, "/api/rig/paste", text=text, preview=True)
    assert told["changes"] == ["1: name Left, x -4.5, mode Par RGB, 3 channels", "20: new, Strobe, 2 channels"]
    assert 20 not in fixtures(client)
    post(client, "/api/rig/paste", text=text)
    rig = fixtures(client)
    assert (rig[1]["name"], rig[1]["place"][0], rig[20]["address"]) == ("Left", -4.5, None)
    post(client, "/api/rig/paste", text="A\n B \n", numbers=[2, 3], column="name")
    assert [fixtures(client)[number]["name"] for number in (2, 3)] == ["A", "B"]
    for _ in range(2):
        client.post("/api/undo")
    assert fixtures(client)[1]["name"] == "Par"


def test_everything_follows_a_number_and_what_another_mode_takes_is_told_before(client):
    post(client, "/api/rig/add", 201, mode="Batten 8 RGB, 8 cells, 24 channels", count=2, number=501)
    cells = [f"501.{n}" for n in range(1, 9)]
    post(client, "/api/draft/values", values={"red": dict.fromkeys(cells, 0.5), "intensity": {"501.8": 40.0}})
    effect = client.get("/api/effects").json["effects"][0]["id"]
    post(client, "/api/draft/effects", 201, effect_id=effect, heads=[*cells, "502.1"])
    post(client, "/api/rig/cells", numbers=[501], column="number", text="7")
    draft = client.get("/api/draft").json
    assert draft["effects"][0]["heads"] == [*(f"7.{n}" for n in range(1, 9)), "502.1"]
    assert draft["values"]["intensity"] == {"7.8": 40.0}
    change = {"changes": [{"fixture": 7, "set": {"mode": "Dimmer, 1 channel"}}]}
    lost = post(client, "/api/rig/change", **change, preview=True)["lost"]
    assert "Fixture 7: no red any more, and 8 values set by hand." in lost
    assert "Fixture 7: 8 cells become one light." in lost
    assert client.get("/api/draft").json == draft, "told, not done"
    post(client, "/api/rig/change", **change)
    assert client.get("/api/draft").json["effects"][0]["heads"] == ["7", "502.1"]
    uses = post(client, "/api/rig/delete", numbers=[7], preview=True)["lost"]
    assert uses == ["1 value of intensity set by hand", "1 value of red set by hand", "an effect in the draft: 1 of its heads"]
    post(client, "/api/rig/delete", numbers=[7])
    assert client.get("/api/draft").json["values"] == {}
    for _ in range(3):
        assert client.post("/api/undo").status_code == 200
    now = client.get("/api/draft").json
    assert now["values"]["intensity"] == {"501.8": 40.0}
    assert now["effects"][0]["heads"] == [*cells, "502.1"]


def test_a_mode_in_use_stays(client):
    pars(client, 1)
    [mode] = client.get("/api/rig").json["modes"]
    answer = client.delete(f"/api/kinds/{mode['id']}")
    assert (answer.status_code, answer.json["message"]) == (
        409, "“Par RGBW, 5 channels” is the mode of fixture 1. Give it another mode first.",
    )  # fmt: skip
    post(client, "/api/rig/delete", numbers=[1])
    assert client.delete(f"/api/kinds/{mode['id']}").status_code == 200


KINDS = st.sampled_from([mode.spec() for mode in plain_kinds().values() if len(mode.cells) < 40])


@thorough(200)
@given(KINDS, KINDS, st.integers(1, 9), st.integers(1, 9), st.data())
def test_heads_follow_a_change_of_number_and_mode(before, after, number, now, data):
    others = ["77", "78.1"]
    chosen = data.draw(st.lists(st.sampled_from([*head_keys(number, before), *others]), unique=True))
    renaming = Renaming([changed(number, before, now, after)])
    found = renaming.keys(chosen)
    known = {*head_keys(now, after), *others}
    assert set(found) <= known
    assert len(found) == len(set(found))
    assert [key for key in found if key in others] == [key for key in chosen if key in others]
    if set(lit_keys(number, before)) <= set(chosen) and len(lit_keys(number, before)) > 1:
        assert set(lit_keys(now, after)) <= set(found), "all stays all"
    kept = {key: n for n, key in enumerate(chosen)}
    values = renaming.values(kept)
    assert set(values) <= known
    assert all(kept[key] == values[key] for key in others if key in kept)
    if before.parts == after.parts:
        assert len(found) == len(chosen)
        assert list(values.values()) == list(kept.values())


def test_a_patch_comes_in_from_a_file_with_its_columns_matched_and_goes_out_again(client):
    client.post("/api/rig/ready", json={"rig": "pars"})
    text = client.get("/api/rig/patch.csv").data
    looked = client.put("/api/rig/csv", data=text).json
    assert (looked["changes"], looked["added"], looked["same"], looked["absent"], looked["faults"]) == ([], [], 8, [], [])
    lines = text.decode("utf-8-sig").splitlines()
    head, first = lines[0], lines[1]
    changed = "\n".join([head, first.replace(",Par,", ",Left end,"), *lines[2:7], lines[1].replace("1,Par", "9,Par", 1)])
    looked = client.put("/api/rig/csv?preview=true", data=changed.encode()).json
    assert looked["changes"] == ["1: name Left end"]
    assert [one.partition(":")[0] for one in looked["added"]] == ["9"]
    assert (looked["same"], looked["absent"]) == (5, [7, 8])
    assert client.put("/api/rig/csv?preview=false", data=changed.encode()).status_code == 200
    assert [one["number"] for one in client.get("/api/rig").json["fixtures"]] == [1, 2, 3, 4, 5, 6, 7, 8, 9]
    client.post("/api/undo")
    assert client.put("/api/rig/csv", data=text).json["same"] == 8, "one undo step"
    refused = client.put("/api/rig/csv?preview=false", data=changed.replace("Par RGBW", "Unheard of").encode())
    assert (refused.status_code, "There is no mode “Unheard of" in refused.json["message"]) == (422, True)
    high = client.put("/api/rig/csv", data=b"Number,Universe,Slot\n1,1,510\n").json
    assert "510" in high["faults"][0], "what the rig refuses is told before it is done"
    wrong = client.put("/api/rig/csv?columns=name&columns=x", data=b"a;b\n1;2\n").json
    assert "numbers of the fixtures" in wrong["faults"][0]


@pytest.mark.parametrize(("kind", "left"), [("grid", ["601.1", "601.2", "602.1", "602.2"]), ("stage", ["602.1", "602.2"])])
def test_pixel_maps_follow_numbers_and_a_grid_keeps_the_boxes_of_what_is_gone(client, kind, left):
    post(client, "/api/rig/add", 201, mode="Blinder 2, 2 cells, 2 channels", count=2, number=501)
    cells = [f"{n}.{cell}" for n in (501, 502) for cell in (1, 2)]
    canvas = {"kind": kind, "heads": cells, "columns": 4, "rows": 1}
    number = post(client, "/api/pixels", 201, name="Wall", canvas=canvas)["map"]["id"]

    def heads():
        return client.get(f"/api/pixels/{number}").json["document"]["canvas"]["heads"]

    assert heads() == cells
    post(client, "/api/rig/cells", numbers=[501, 502], column="number", text="601")
    assert heads() == ["601.1", "601.2", "602.1", "602.2"]
    assert "the pixel map “Wall”: 2 of its heads" in post(client, "/api/rig/delete", numbers=[601], preview=True)["lost"]
    post(client, "/api/rig/delete", numbers=[601])
    assert heads() == left
