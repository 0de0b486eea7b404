"""The scope: the form over a cycle, and where every head is in it."""

import numpy as np
import pytest

from tests.core.head_sets import row_of_heads
from zarabanda.core.effects.placement import place
from zarabanda.core.explain import scope, weave
from zarabanda.core.rig.heads import Heads
from zarabanda.demo.library import LIBRARY
from zarabanda.formats import effect_document


def layer(**more):
    wave = {"kind": "waveform", "shape": "rise"}
    return {"attribute": "intensity", "form": wave, "anchor": {"kind": "above", "depth": 80}} | more


def scopes(document, heads, theta):
    return scope.scopes(
        weave.over_time(effect_document.read(document).to_core(), row_of_heads(heads, {"intensity": 50.0}), np.asarray(theta))
    )


def test_the_form_is_shown_whole_with_what_is_cut_off():
    (one,) = scopes({"name": "x", "layers": [layer(ratio=3, start=90)]}, 4, [0.0])
    np.testing.assert_allclose(one.values[:, 0], 50 + 80 * np.linspace(0, 1, 97), atol=1e-6)
    assert (one.low[0], one.high[0], one.base[0]) == (0, 100, 50)


def test_phases_are_those_of_the_ripple():
    (one,) = scopes({"name": "x", "layers": [layer()], "spread": {"kind": "ripple", "degrees": 360}}, 4, [0.0, 0.6])
    np.testing.assert_allclose(one.phases, [[0, 0.75, 0.5, 0.25], [0.6, 0.35, 0.1, 0.85]], atol=1e-9)


@pytest.mark.parametrize(("plane", "at", "pan", "tilt"), [("floor", 0.0, 0.0, 20.0), ("upright", 8.0, 0.0, -60.0)])
def test_a_path_on_stage_is_shown_in_metres_on_its_plane(plane, at, pan, tilt):
    form = {"kind": "path", "path": "circle", "width": 3, "height": 2, "plane": plane, "plane_at": at}
    document = {"name": "x", "layers": [{"attribute": "position", "form": form}]}
    head_set = row_of_heads(3, {"pan": pan, "tilt": tilt})
    (one,) = scope.scopes(weave.over_time(effect_document.read(document).to_core(), head_set, np.zeros(1)))
    assert one.metres
    np.testing.assert_allclose(np.ptp(one.values, axis=0), [3, 2], atol=0.01)
    np.testing.assert_allclose((one.values.max(axis=0) + one.values.min(axis=0)) / 2, one.base, atol=0.01)


def test_heads_at_rest_have_no_phase():
    (one,) = scopes({"name": "x", "layers": [layer()], "spread": {"kind": "relay"}}, 3, [0.5, 1.5])
    np.testing.assert_allclose(one.phases, [[0.5, np.nan, np.nan], [np.nan, 0.5, np.nan]])


@pytest.mark.parametrize("document", LIBRARY, ids=lambda document: document["name"])
def test_every_layer_of_the_library_has_one(document):
    every = scopes(document, 5, [0.0, 0.3, 2.2])
    assert [one.number for one in every] == list(range(len(document["layers"])))
    for one in every:
        assert np.isfinite(one.values).all()
        inside = one.phases[~np.isnan(one.phases)]
        assert ((inside >= 0) & (inside < 1)).all()
        assert len(one.values) == 97


@pytest.mark.parametrize(
    ("kind", "shape", "duty", "per_unit"),
    [("above", "sine", 1.0, 1.0), ("below", "square", 0.5, -1.0), ("centred", "swell", 1.0, 2.0), ("between", "sine", 1.0, None)],
)
def test_it_says_what_a_drag_of_the_crest_changes(kind, shape, duty, per_unit):
    anchor = {"kind": kind, "low": 10, "high": 90} if kind == "between" else {"kind": kind, "depth": 20}
    form = {"kind": "waveform", "shape": shape}
    (one,) = scopes({"name": "x", "layers": [{"attribute": "intensity", "form": form, "anchor": anchor}]}, 4, [0.0])
    assert (one.duty, one.depth_per_unit) == (duty, per_unit)


@pytest.mark.parametrize(("spread", "turning"), [
    ({"kind": "ripple"}, 2.0), ({"kind": "relay", "handover": 0.5}, 2.0),
    ({"kind": "relay", "handover": 0.5, "speed_counts": "circuits"}, 2.0 * 5 * 0.5),
])  # fmt: skip
def test_layers_turn_by_ratio_and_by_circuits_where_speed_counts_these(spread, turning):
    document = effect_document.read({"name": "x", "spread": spread, "layers": [layer(ratio=2)]})
    heads = Heads([str(n) for n in range(5)], np.zeros((5, 3)), np.ones((17, 5), bool))
    assert place(document.to_core(), np.arange(5), heads).blocks[0].turning == turning
