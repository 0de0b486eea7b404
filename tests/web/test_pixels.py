"""Pixel maps, pictures and media over the API: made, changed, kept, and what is refused."""

import io
import re
import struct
import zlib

import av
import numpy as np
import pytest
from PIL import Image

pytestmark = pytest.mark.slow

WALL_CELLS = [f"{tile}.{cell}" for tile in range(601, 617) for cell in range(1, 65)]


def map_of(client, name="Salt wall"):
    number = next(one["id"] for one in client.get("/api/pixels").json["maps"] if one["name"] == name)
    return client.get(f"/api/pixels/{number}").json


def png(size=(4, 2), mode="RGB"):
    out = io.BytesIO()
    Image.new(mode, size, (255, 0, 0, 0) if mode == "RGBA" else (255, 0, 0)).save(out, "PNG")
    return out.getvalue()


def film(seconds=0.5):
    out = io.BytesIO()
    with av.open(out, "w", format="mp4") as file:
        stream = file.add_stream("mpeg4", rate=30)
        stream.width, stream.height = 32, 16
        for n in range(int(30 * seconds)):
            picture = np.full((16, 32, 3), n * 8 % 256, np.uint8)
            file.mux(stream.encode(av.VideoFrame.from_ndarray(picture, format="rgb24")))
        file.mux(stream.encode())
    return out.getvalue()


def put(client, content, name="a picture.png"):
    return client.put("/api/media", data=content, headers={"X-Name": name})


def test_the_demo_has_a_map_of_the_wall_and_one_of_the_battens_and_a_library(client):
    told = client.get("/api/pixels").json
    assert [(one["name"], one["cells"]) for one in told["maps"]] == [("Salt wall", 1024), ("Battens", 72)]
    assert len(told["pictures"]) >= 20
    for picture in told["pictures"]:
        strip = client.get(f"/api/pixels/pictures/{picture['id']}/strip.png")
        frames = np.asarray(Image.open(io.BytesIO(strip.data)).convert("RGB")).reshape(24, 24, 60, 3)
        assert frames.max() > 60, f"{picture['name']} is seen"
    cells = client.get(f"/api/pixels/{map_of(client)['id']}/cells").json
    assert (len(cells["keys"]), cells["rows"], cells["width"], len(cells["areas"])) == (1024, 16, 1, 4096)


def test_a_map_is_made_of_a_selection_and_its_layers_are_changed_one_by_one(client):
    made = client.post("/api/pixels", json={"name": "Grid", "canvas": {"kind": "grid", "columns": 64, "rows": 16,
                       "order": "columns from top left, back and forth", "heads": WALL_CELLS}, "figure": "rings"})  # fmt: skip
    assert made.status_code == 201
    number = made.json["map"]["id"]
    layer = made.json["map"]["layers"][0]
    assert layer["sentence"][0]["text"] == "Rings,"
    path = f"/api/pixels/{number}/layers/{layer['id']}"
    rect = {"left": 0.5, "top": 0, "width": 0.5, "height": 1, "turn": 45}
    colours = ["base", {"palette": "Lagoon"}]
    changes = {
        "settings.number": 7,
        "motion": "turn",
        "colour.stops": colours,
        "rect": rect,
        "join": "add",
        "finish.fold": "both",
    }
    for where, value in changes.items():
        assert client.post(f"{path}/change", json={"path": where, "value": value}).status_code == 200
    after = client.get(f"/api/pixels/{number}").json["layers"][0]["document"]
    assert (after["settings"]["number"], after["motion"], after["rect"]["turn"], after["join"]) == (7, "turn", 45, "add")
    assert after["colour"]["stops"][1] == {"palette": "Lagoon"}
    turned = client.post(f"{path}/change", json={"path": "figure", "value": "bars"}).json["map"]["layers"][0]["document"]
    assert turned["settings"]["number"] == 7, "what both are set by is kept"
    client.post(f"/api/pixels/{number}/layers", json={"figure": "letters"})
    second = client.post(f"{path}/copy").json["map"]["layers"]
    assert len({one["id"] for one in second}) == 3
    order = [one["id"] for one in reversed(second)]
    assert [one["id"] for one in client.post(f"/api/pixels/{number}/order", json={"ids": order}).json["map"]["layers"]] == order
    kept = client.post("/api/pixels/pictures", json={"name": "Mine", "map": number, "layers": order[:2]})
    assert kept.status_code == 201
    added = client.post(f"/api/pixels/{number}/layers", json={"picture": kept.json["id"]}).json["map"]["layers"]
    assert len(added) == 5
    for _ in range(4):
        client.post("/api/undo")
    assert len(client.get(f"/api/pixels/{number}").json["layers"]) == 2, "each was one step: before the copy"


REFUSED = [
    ({"path": "settings.number", "value": 999}, "settings.number.*not in its range; give 1 to 32"),
    ({"path": "settings.size", "value": 1}, "no.*settings.size"),
    ({"path": "motion", "value": "wobble"}, "no 'wobble'; use one of still, travel"),
    ({"path": "colour.stops", "value": []}, "at least 1"),
    ({"path": "opacity", "value": float("nan")}, ""),
    ({"path": "speed.seconds_per_cycle", "value": 1}, "no.*seconds_per_cycle"),
]  # fmt: skip


@pytest.mark.parametrize(("body", "words"), REFUSED)
def test_odd_values_of_a_layer_are_refused_in_words(client, body, words):
    whole = map_of(client)
    layer = next(one for one in whole["layers"] if one["document"]["figure"] == "rings")
    answer = client.post(f"/api/pixels/{whole['id']}/layers/{layer['id']}/change", json=body)
    assert answer.status_code in (400, 422)
    assert re.search(words, answer.json["message"])
    assert map_of(client)["layers"] == whole["layers"], "nothing is lost"


def test_limits_are_told_with_their_reason(client):
    whole = client.post("/api/pixels", json={"name": "Full", "canvas": {"everything": True}, "figure": "letters"}).json["map"]
    path = f"/api/pixels/{whole['id']}/layers/{whole['layers'][-1]['id']}/change"
    assert "200 letters, not 10000" in client.post(path, json={"path": "settings.text", "value": "A" * 10_000}).json["message"]
    for _ in range(31):
        client.post(f"/api/pixels/{whole['id']}/layers", json={"figure": "even"})
    full = client.post(f"/api/pixels/{whole['id']}/layers", json={"figure": "even"})
    assert "32 layers are the most" in full.json["message"]
    empty = client.post("/api/pixels", json={"name": "Nothing", "canvas": {"heads": []}})
    assert "needs cells" in empty.json["message"]
    small = client.post(
        "/api/pixels", json={"name": "S", "canvas": {"kind": "grid", "columns": 2, "rows": 2, "heads": WALL_CELLS}}
    )
    assert "1024 cells do not fit on 2 × 2" in small.json["message"]
    twice = client.post("/api/pixels", json={"name": "salt WALL", "canvas": {"everything": True}})
    assert "has this name already" in twice.json["message"]


def test_pictures_and_films_are_taken_in_used_and_deleted_only_when_nothing_uses_them(client):
    whole = map_of(client)
    for content, name, kind in (
        (png((1, 1)), "dot.png", "picture"),
        (png(mode="RGBA"), "clear.png", "picture"),
        (film(), "tide.mp4", "film"),
    ):
        medium = put(client, content, name).json["medium"]
        assert (medium["kind"], medium["name"]) == (kind, name)
        added = client.post(f"/api/pixels/{whole['id']}/layers", json={"medium": medium["hash"]})
        assert added.status_code == 201, added.json
        assert added.json["map"]["layers"][-1]["document"]["settings"]["medium"] == medium["hash"]
        assert client.get(f"/api/media/{medium['hash']}/small.png").status_code == 200
        refused = client.delete(f"/api/media/{medium['hash']}")
        assert refused.status_code == 409
        assert "Salt wall" in refused.json["message"]
        client.delete(f"/api/pixels/{whole['id']}/layers/{added.json['map']['layers'][-1]['id']}")
        assert client.delete(f"/api/media/{medium['hash']}").status_code == 200
    assert client.get("/api/media").json["media"] == []


HOSTILE = {
    "empty": (b"", "is empty"), "text": (b"hello there", "cannot be read as a picture or a film"),
    "cut off": (png((64, 64))[:80], "is damaged|cannot be read"), "a film cut off": (film()[:300], "cannot be read|no picture"),
    "an odd format": (b"BM" + bytes(60), "damaged|cannot be read|is BMP"),
}  # fmt: skip


@pytest.mark.parametrize("what", HOSTILE)
def test_files_that_are_no_pictures_are_refused_with_the_reason(client, what):
    content, words = HOSTILE[what]
    answer = put(client, content, "odd.bin")
    assert answer.status_code == 422
    assert re.search(words, answer.json["message"])
    assert client.get("/api/media").json["media"] == []


def test_a_picture_of_too_many_points_is_refused_before_it_is_decoded(client):
    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = chunk(b"IHDR", struct.pack(">IIBBBBB", 50_000, 50_000, 8, 2, 0, 0, 0))
    huge = b"\x89PNG\r\n\x1a\n" + head + chunk(b"IDAT", zlib.compress(b"")) + chunk(b"IEND", b"")
    assert "2500 megapixels; 32 are the most" in put(client, huge).json["message"]


def test_a_map_is_put_on_controls_and_into_cues(client):
    whole = map_of(client)
    page = client.get("/api/pages").json["pages"][-1]
    body = {"place": 16, "mode": "fader", "name": "Wall", "drives": {"kind": "pixels", "number": whole["id"]}}
    made = client.post(f"/api/pages/{page['id']}/controls", json=body)
    assert made.status_code == 201
    number = client.get("/api/cue-lists").json["lists"][0]["id"]
    put_in = client.post(f"/api/pixels/{whole['id']}/cue", json={"list": number})
    assert "comes in with cue" in put_in.json["done"]
    cues = client.get(f"/api/cue-lists/{number}").json["rows"]
    last = client.get(f"/api/cues/{cues[-1]['id']}").json["pixels"]
    assert [(one["words"], one["state"], one["share"]) for one in last] == [("Salt wall", "comes in", 1)]
    changed = [{"do": "stop", "map": whole["id"], "picture": 0}]
    assert client.put(f"/api/cues/{cues[-1]['id']}/pixels", json={"pixels": changed}).status_code == 200
    assert client.get(f"/api/cues/{cues[-1]['id']}").json["pixels"][0]["state"] == "stops"
    used = client.get(f"/api/pixels/{whole['id']}").json["used_by"]
    assert len(used) >= 2
    assert client.delete(f"/api/pixels/{whole['id']}").status_code == 200
    controls = client.get("/api/pages").json["pages"][-1]["controls"]
    assert "gone" in next(one for one in controls if one["name"] == "Wall")["gone"], "what it was on keeps its place, and says so"
    assert client.post("/api/undo").status_code == 200
    assert map_of(client)["used_by"] == used


def test_a_map_is_put_on_a_pad_of_a_row(client):
    whole, picture = map_of(client), client.get("/api/pixels").json["pictures"][0]
    told = client.get("/api/busk").json["pages"][0]["rows"]
    row = next(one for one in told if one["kind"] == "lights" and one["effects"])
    pads = [{"id": one["id"], "name": one["own_name"], "effect": one["effect"]} for one in row["effects"]]
    on_map = {"map": whole["id"], "picture": picture["id"]}
    path = f"/api/busk/rows/{row['id']}/pads"
    assert client.put(path, json={"section": "effects", "pads": [*pads, {"pixels": on_map}]}).status_code == 200
    rows = client.get("/api/busk").json["pages"][0]["rows"]
    pad = next(one for one in rows if one["id"] == row["id"])["effects"][-1]
    assert (pad["name"], pad["pixels"], pad["effect"], pad["gone"]) == (picture["name"], on_map, None, "")
    both = client.put(path, json={"section": "effects", "pads": [{"pixels": on_map, "effect": 1}]})
    assert "and nothing else" in both.json["message"]


def test_the_line_input_is_chosen_from_what_is_there_and_undone(client):
    assert client.get("/api/output/line").json["source"] == "simulator"
    refused = client.put("/api/output/line", json={"source": "Nowhere"})
    assert refused.status_code == 422
    assert "Choose the simulated line" in refused.json["message"]
    assert client.put("/api/output/line", json={"source": ""}).json["source"] == ""
    client.post("/api/undo")
    assert client.get("/api/output/line").json["source"] == "simulator"
    gone = client.post("/api/output/line/player", json={"on": True})
    assert (gone.status_code, "without --no-node" in gone.json["message"]) == (404, True)
