"""Sentences: what an effect reads like, and that every slot is a place in its document."""

import pytest
from hypothesis import given

from tests.documents import effects
from tests.thoroughness import thorough
from zarabanda.core.explain import sentence
from zarabanda.demo.library import LIBRARY
from zarabanda.formats import effect_document


def full(document):
    return effect_document.read(document).model_dump(mode="json")


def text(document):
    parts = sentence.effect_sentence(full(document))
    return [sentence.as_text(part) for part in [*parts["layers"], parts["shared"]]]


def layer(attribute="intensity", form=None, **more):
    return {
        "attribute": attribute,
        "form": form or {"kind": "waveform", "shape": "swell"},
        "anchor": {"kind": "above", "depth": 60},
    } | more


TEXTS = [
    ({}, layer(), "Intensity follows swell, 60 % above its base."),
    ({}, layer(anchor={"kind": "between", "low": 10, "high": 80}), "Intensity follows swell, between 10 % and 80 %."),
    ({}, layer(form={"kind": "waveform", "shape": "square", "duty": 0.25, "softness": 0.5}),
     "Intensity follows square on for 25 % of the cycle with 50 % softness, 60 % above its base."),
    ({}, {"attribute": "position", "form": {"kind": "path", "path": "circle", "width": 36, "height": 18}},
     "Position follows a circle, 36° wide and 18° high in pan and tilt."),
    ({"lanes": {"parts": 2, "mirror": True}}, {"attribute": "position", "form": {"kind": "path", "path": "line", "width": 36}},
     "Position follows a line, 36° wide in pan and tilt, turned by 0°, pairs crossing."),
    ({}, layer(ratio=0.5, start=90), "Intensity follows swell, 60 % above its base, ½× as fast, starting at 90°."),
]  # fmt: skip


@pytest.mark.parametrize(("more", "one", "words"), TEXTS)
def test_layers_read_as_sentences(more, one, words):
    assert text({"name": "x", "layers": [one], **more})[0] == words


def test_what_layers_share_reads_as_a_sentence():
    relay = {"kind": "relay", "handover": 0.1}
    lanes = {"order": ["left-to-right", "centre-out"], "parts": 2, "mirror": True, "pack": 2, "travel": "back-and-forth"}
    shared = text({"name": "x", "layers": [layer()], "spread": relay, "lanes": lanes, "ends_after": 4, "drift": [50, 150]})[1]
    assert shared == (
        "Spread as a relay with 10 % handover in turn over 2 mirrored parts of the heads left to right, then centre out, in "
        "packs of 2, there and back. It runs forward, ½ cycle per beat of Movement on the beat (by tempo), drifting from 50 % to "
        "150 %, and ends after 4 cycles."
    )


def value_at(document, path):
    for part in path.split("."):
        document = document[int(part)] if isinstance(document, list) else document[part]
    return document


@thorough(60)
@given(effects())
def test_every_slot_says_what_is_at_its_place(document):
    whole = full(document)
    parts = sentence.effect_sentence(whole)
    for part in [part for every in [*parts["layers"], parts["shared"]] for part in every if "slot" in part]:
        assert part["text"]
        assert part["label"]
        at = value_at(whole, part["slot"])
        if part["slot"].endswith(".form"):
            assert part["value"] == at.get("shape", at.get("path", at["kind"]))
        elif part["slot"].split(".")[-1] not in ("duty", "softness"):  # these show what holds when nothing is said
            assert part["value"] == pytest.approx(at) if isinstance(at, float) else part["value"] == at
        if part["kind"] == "number" and part["slot"] != "spread.degrees":
            assert part["low"] <= part["high"]
        if part["kind"] == "choice":
            assert part["value"] in [option["value"] for option in part["options"]]


def test_no_two_effects_of_the_library_read_the_same():
    texts = [" ".join(text(document)) for document in LIBRARY]
    assert len(set(texts)) == len(texts)
