"""The effect document at its boundary."""

import json

import pytest
from hypothesis import given

from tests.documents import effects
from tests.thoroughness import thorough
from zarabanda.errors import ZarabandaError
from zarabanda.formats import effect_document

WAVE = {"attribute": "intensity", "form": {"kind": "waveform", "shape": "sine"}, "anchor": {"kind": "above", "depth": 50}}


def with_layer(**change):
    return {"name": "x", "layers": [WAVE | change]}


def with_form(**form):
    return with_layer(form=form)


STOP = {"value": 10, "travel": 1, "hold": 1, "ease": "linear"}
BAD = [
    (with_form(kind="wobble"), "layers.0.form", "wobble"),
    (with_form(kind="waveform", shape="saw"), "layers.0.form.waveform.shape", "saw"),
    (with_form(kind="waveform", shape="sine", duty=0), "layers.0.form.waveform.duty", "greater than 0"),
    (with_form(kind="waveform", shape="sine", duty=float("nan")), "layers.0.form.waveform.duty", "finite"),
    (with_form(kind="waveform", shape="curve"), "layers.0.form.waveform", "1 to 64 points"),
    (with_form(kind="waveform", shape="curve", points=[[0.5, 0], [0.2, 1]]), "layers.0.form.waveform", "must rise"),
    (with_form(kind="stops", stops=[]), "layers.0.form.stops.stops", "at least 1"),
    (with_form(kind="stops", stops=[STOP] * 10_000), "layers.0.form.stops.stops", "at most 64"),
    (with_form(kind="stops", stops=[STOP | {"travel": 0, "hold": 0}]), "layers.0.form.stops", "above 0"),
    (with_form(kind="stops", stops=[STOP | {"value": "#ff0000"}]), "layers.0", "takes numbers"),
    (with_form(kind="stops", stops=[STOP | {"value": 500}]), "layers.0", "0 to 100"),
    (with_form(kind="path", path="circle"), "layers.0", "goes with the attribute position"),
    (with_layer(attribute="colour"), "layers.0", "colour follows stops"),
    (with_layer(attribute="wobble"), "layers.0", "no attribute 'wobble'"),
    (with_layer(anchor=None), "layers.0", "needs an anchor"),
    (with_layer(anchor={"kind": "above", "depth": float("inf")}), "layers.0.anchor.above.depth", "finite"),
    (with_layer(anchor={"kind": "above", "depth": 201}), "layers.0", "0 to 200 %"),
    (with_layer(anchor={"kind": "between", "low": -5, "high": 50}), "layers.0", "0 to 100 %"),
    (with_layer(ratio=0), "layers.0.ratio", "greater than or equal to 0.001"),
    (with_layer(more=1), "layers.0.more", "not permitted"),
    ({"name": "x", "layers": [WAVE], "lanes": {"travel": "back-and-forth"}}, "", "belongs to a relay"),
    ({"name": "x", "layers": [WAVE], "drift": [150, 50]}, "", "swap them"),
    ({"name": "x", "layers": [WAVE], "lanes": {"order": ["sideways"]}}, "lanes.order.0", "sideways"),
    ({"name": "", "layers": [WAVE]}, "name", "at least 1"),
    ({"name": "x", "layers": [WAVE] * 17}, "layers", "at most 16"),
    ({"name": "x", "layers": [WAVE], "format": "zarabanda.effect/2"}, "format", "zarabanda.effect/1"),
    ([], "", "dictionary"),
    ("{", "", "not JSON"),
    ("[" * 100_000, "", "not JSON"),
]


@pytest.mark.parametrize(("document", "place", "part"), BAD, ids=range(len(BAD)))
def test_faults_are_told_with_their_place(document, place, part):
    with pytest.raises(ZarabandaError) as told:
        effect_document.read(document)
    assert told.value.place == place
    assert part in told.value.message


@thorough(80)
@given(effects())
def test_documents_go_round(document):
    once = effect_document.read(document)
    again = effect_document.read(json.dumps(once.plain()))
    assert again == once
    assert again.to_core() == once.to_core()


def test_the_schema_knows_every_part():
    schema = effect_document.EffectDocument.model_json_schema()
    assert {"WaveformForm", "StopsForm", "PathForm", "RippleSpread", "RelaySpread"} <= set(schema["$defs"])
    assert schema["additionalProperties"] is False
