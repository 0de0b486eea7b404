"""Edits of a document by operation, path and value."""

import copy

import pytest

from zarabanda.errors import ZarabandaError
from zarabanda.formats import effect_document, effect_edit

WAVE = {"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "above", "depth": 50}}
DOCUMENT = effect_document.read(
    {"name": "x", "layers": [WAVE, WAVE | {"attribute": "zoom"}, WAVE | {"attribute": "iris"}]}
).plain()


def changed(operation, path="", value=None, document=DOCUMENT):
    before = copy.deepcopy(document)
    after = effect_edit.change(document, operation, path, value).plain()
    assert document == before, "an edit works on a copy"
    return after


def muted(document):
    return [layer["muted"] for layer in document["layers"]]


def test_a_layer_plays_alone_and_asked_again_all_play():
    alone = changed("solo-layer", value=1)
    assert muted(alone) == [True, False, True]
    assert muted(changed("solo-layer", value=2, document=alone)) == [True, True, False]
    assert muted(changed("solo-layer", value=1, document=alone)) == [False, False, False]


def test_layers_move_to_a_place_and_stay_whole():
    moved = changed("move-layer", path="2", value=0)
    assert [layer["attribute"] for layer in moved["layers"]] == ["iris", "intensity", "zoom"]
    assert changed("move-layer", path="0", value=99, document=moved)["layers"][2]["attribute"] == "iris"


def test_a_head_has_parts_of_its_own_until_they_are_as_usual_again():
    own = changed("set-own", "501.3", {"offset": 40})
    assert own["own"] == {"501.3": {"offset": 40, "depth": 1, "left_out": False}}
    both = changed("set-own", "501.3", {"depth": 0.5}, own)
    assert both["own"]["501.3"] == {"offset": 40, "depth": 0.5, "left_out": False}
    assert changed("set-own", "501.3", {"offset": 0, "depth": 1}, both)["own"] == {}
    assert changed("set-own", "501.3", None, both)["own"] == {}
    assert changed("reset-own", document=changed("set-own", "102", {"left_out": True}, both))["own"] == {}


def test_equal_layers_are_moved_one_at_a_time():
    three = effect_edit.new_effect("pan", "x").plain()
    for attribute in ("tilt", "pan"):
        three = changed("add-layer", value=attribute, document=three)
    moved = changed("move-layer", "2", 0, three)
    assert [layer["attribute"] for layer in moved["layers"]] == ["pan", "pan", "tilt"]


def test_a_document_takes_the_place_of_another_under_its_name():
    other = effect_edit.new_effect("position", "other").plain()
    after = changed("replace", value=other)
    assert after == other | {"name": "x"}


@pytest.mark.parametrize(
    ("operation", "path", "value", "part"),
    [
        ("set-own", "101", {"offset": "far"}, "own.101.offset"),
        ("set-own", "101", {"depth": 3}, "less than or equal to 2"),
        ("set-own", "101", 7, "offset (degrees)"),
        ("replace", "", [], "whole document"),
        ("replace", "", {"layers": []}, "layers"),
        ("solo-layer", "", 9, "no layer 9"),
        ("remove-layer", "", 3, "no layer 3"),
        ("move-layer", "0", None, "place to move the layer to"),
        ("move-layer", "²", 0, "no layer ²"),
        ("set", "layers.².ratio", 2, "no place"),
        ("set", "layers.7.ratio", 2, "no place"),
        ("set", "lanes.parts", 900, "less than or equal to 64"),
        ("add-layer", "", "warp", "no attribute"),
    ],
)
def test_an_edit_that_makes_no_sense_is_refused_with_why(operation, path, value, part):
    with pytest.raises(ZarabandaError) as told:
        changed(operation, path, value)
    assert part in f"{told.value.place} {told.value.message}"


SWING = {"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "centred", "depth": 60}}
PATH = {"attribute": "position", "form": {"kind": "path", "path": "circle", "width": 40, "height": 20}}
BETWEEN = {**SWING, "anchor": {"kind": "between", "low": 10, "high": 90}}
STEPS = {"attribute": "colour", "form": {"kind": "stops", "stops": [{"value": "#ff0000"}, {"value": "#0000ff"}]}}
BEATS = {"kind": "tempo", "tempo": "Movement", "cycles_per_beat": 0.5}


def scaled_by(depth, speed, *layers, clock=BEATS):
    document = effect_document.read({"name": "It", "layers": list(layers), "speed": clock}).plain()
    return effect_document.read(effect_edit.scaled(document, depth, speed)).plain()


@pytest.mark.parametrize(
    ("clock", "field", "value"),
    [(BEATS, "cycles_per_beat", 1.0), ({"kind": "time", "seconds_per_cycle": 3}, "seconds_per_cycle", 1.5)],
)
def test_depth_and_speed_are_written_into_an_effect(clock, field, value):
    made = scaled_by(0.25, 2.0, SWING, PATH, clock=clock)
    assert made["layers"][0]["anchor"]["depth"] == 15
    assert (made["layers"][1]["form"]["width"], made["layers"][1]["form"]["height"]) == (10, 5)
    assert made["speed"][field] == value


@pytest.mark.parametrize("layer", [BETWEEN, STEPS, {**PATH, "form": {**PATH["form"], "plane": "floor"}}])
def test_what_has_no_depth_of_its_own_takes_another_speed_alone(layer):
    assert scaled_by(1.0, 4.0, layer)["speed"]["cycles_per_beat"] == 2
    with pytest.raises(ZarabandaError, match="Layer 2 goes all the way"):
        scaled_by(0.5, 1.0, SWING, layer)
