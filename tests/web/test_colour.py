"""Colours over the API: picked and read in every picker, set on what makes them, ways between two."""

import pytest

RED, TEAL = "#ff2000", "#00a08c"


def read(client, status=200, **body):
    answer = client.post("/api/colour/read", json=body)
    assert answer.status_code == status, answer.json
    return answer.json


@pytest.mark.parametrize("colour", [RED, TEAL, "#ffffff", "#808000", "#3050ff"])
def test_what_a_picker_reads_it_picks_again(client, colour):
    pickers = client.get("/api/colour/pickers").json["pickers"]
    numbers = read(client, hex=colour)["numbers"]
    assert set(numbers) <= {one["name"] for one in pickers}
    for picker, told in numbers.items():
        again = read(client, picker=picker, numbers=told)
        near = [abs(int(again["hex"][n : n + 2], 16) - int(colour[n : n + 2], 16)) for n in (1, 3, 5)]
        if picker != "white":  # the nearest white alone
            assert max(near) <= 2, (picker, again["hex"])
        assert again["numbers"][picker] == told, "as they were picked"


@pytest.mark.parametrize(
    ("body", "place", "part"),
    [
        ({}, "hex", "one of hex and picker"),
        ({"hex": RED, "picker": "hsv", "numbers": [0, 0, 0]}, "hex", "one of hex and picker"),
        ({"hex": "#ff200"}, "hex", "six digits"),
        ({"picker": "nose", "numbers": [1]}, "picker", "no picker nose"),
    ],
)
def test_what_is_no_colour_is_told_at_its_place(client, body, place, part):
    told = read(client, 422, **body)
    assert told["place"] == place
    assert part in told["message"]


def test_a_colour_is_set_on_what_makes_it_and_comes_back(client):
    client.delete("/api/draft")
    body = {"hex": "#ff8000", "heads": ["101", "102"], "preview": False, "fade_s": 0}
    told = client.post("/api/colour/set", json=body)
    assert (told.status_code, told.json["hex"]) == (200, "#ff8000"), told.json
    values = client.get("/api/draft").json["values"]
    assert [values[name]["102"] for name in ("red", "green", "blue")] == pytest.approx([1, 128 / 255, 0], abs=1e-4)
    client.post("/api/undo")
    assert client.get("/api/draft").json["values"] == {}
    refused = client.post("/api/colour/set", json={**body, "heads": ["951"]})  # haze
    assert (refused.status_code, refused.json["place"]) == (422, "heads")


def test_ways_go_from_one_colour_to_the_other_whatever_mixes_them(client):
    told = client.post("/api/colour/ways", json={"start": RED, "end": TEAL}).json
    assert told["way"] in {one["name"] for one in told["ways"]}
    back = client.post("/api/colour/ways", json={"start": TEAL, "end": RED}).json
    for way, returning in zip(told["ways"], back["ways"], strict=True):
        strip, filtered = way["adds"]["strip"], way["filters"]["strip"]
        assert (len(strip), strip[0], strip[-1]) == (49, RED, TEAL), way["name"]
        assert filtered == returning["filters"]["strip"][::-1], way["name"]
        assert way["adds"]["middle"].endswith(strip[24])
    other = next(one["name"] for one in told["ways"] if one["name"] != told["way"])
    assert client.put("/api/colour/way", json={"way": other}).status_code == 200
    assert client.post("/api/colour/ways", json={"start": RED, "end": TEAL}).json["way"] == other
    client.post("/api/undo")
    assert client.post("/api/colour/ways", json={"start": RED, "end": TEAL}).json["way"] == told["way"]
    assert "no way of colours" in client.put("/api/colour/way", json={"way": "home"}).json["message"]
