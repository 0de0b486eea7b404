"""What holds for every effect."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.head_sets import row_of_heads
from tests.documents import effects, waveform_layers
from tests.thoroughness import thorough
from zarabanda.core import randomness
from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.effect import from_document
from zarabanda.core.effects.phase import Drift
from zarabanda.core.effects.placement import place
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes
from zarabanda.formats import effect_document

BASE = {"intensity": 50.0, "pan": 10.0, "tilt": 20.0, "red": 1.0, "green": 0.4, "blue": 0.1}


def values(document, heads, theta, base=BASE):
    effect = effect_document.read(document).to_core()
    woven = weave.over_time(effect, row_of_heads(heads, base), np.asarray(theta, float))
    return woven.values, woven.raw


@thorough(150)
@given(effects(), st.integers(1, 9), st.lists(st.floats(-40, 400), min_size=1, max_size=5))
def test_values_are_finite_and_within_the_ranges(document, heads, theta):
    clamped, raw = values(document, heads, theta)
    assert np.isfinite(raw).all()
    head_set = row_of_heads(heads)
    assert (clamped >= head_set.low).all()
    assert (clamped <= head_set.high).all()


@thorough(80)
@given(effects(), st.integers(1, 6), st.lists(st.floats(0, 30), min_size=2, max_size=6))
def test_times_side_by_side_are_as_each_alone(document, heads, theta):
    together, _ = values(document, heads, theta)
    alone = np.concatenate([values(document, heads, [t])[0] for t in theta])
    np.testing.assert_allclose(together, alone, atol=1e-9)


@thorough(60)
@given(st.lists(effects(), min_size=2, max_size=3), st.lists(st.floats(0, 30), min_size=3, max_size=3), st.booleans())
def test_effects_computed_together_are_as_each_alone(documents, theta, same_spread):
    """On heads of their own, two each, at three times running: phases are shared, and what was drawn is kept."""
    if same_spread:
        documents = [one | {"spread": documents[0]["spread"], "lanes": documents[0]["lanes"]} for one in documents]
    chosen = [effect_document.read(one).to_core() for one in documents]
    head_set = row_of_heads(2 * len(chosen), BASE)
    placed = [place(effect, np.array([2 * n, 2 * n + 1]), head_set.heads) for n, effect in enumerate(chosen)]

    def after(which):
        batches = Batches(which, len(head_set.heads), head_set.mixes)
        for at in theta:
            flat = head_set.base.ravel().copy()
            batches.apply(flat, Running(np.full(len(which), at), np.ones(len(which))))
        return flat.reshape(head_set.base.shape)

    together = after(placed)
    for n, one in enumerate(placed):
        np.testing.assert_allclose(together[:, 2 * n : 2 * n + 2], after([one])[:, 2 * n : 2 * n + 2], atol=1e-9)


@thorough(80)
@given(effects(), st.integers(1, 8), st.floats(0, 20), st.randoms())
def test_a_reordered_selection_gives_reordered_values(document, heads, theta, random):
    document["lanes"]["order"] = ["as-picked"]
    effect = from_document(effect_document.read(document).model_dump())
    head_set = row_of_heads(heads, BASE)
    order = list(range(heads))
    random.shuffle(order)

    def result(picked):
        flat = head_set.base.ravel().copy()
        batches = Batches([place(effect, np.array(picked), head_set.heads)], heads, head_set.mixes)
        batches.apply(flat, Running(np.array([theta]), np.ones(1)))
        return flat.reshape(attributes.COUNT, heads)[:, picked]

    np.testing.assert_allclose(result(order), result(list(range(heads))), atol=1e-9)


@thorough(80)
@given(effects(waveform_layers()), st.floats(0, 10))
def test_heads_of_a_pack_are_equal(document, theta):
    document["lanes"] |= {"pack": 3, "parts": 1, "order": ["as-picked"]}
    clamped, _ = values(document, 9, [theta])
    for first in (0, 3, 6):
        np.testing.assert_allclose(clamped[0, :, first], clamped[0, :, first + 2], atol=1e-9)


@thorough(80)
@given(effects(), st.floats(0, 10), st.integers(1, 5))
def test_mirrored_halves_are_symmetrical_at_every_time(document, theta, pairs):
    document["lanes"] |= {"parts": 2, "mirror": True, "order": ["as-picked"], "pack": 1}
    clamped, _ = values(document, 2 * pairs, [theta], base={**BASE, "pan": 0.0})
    seen = clamped[0]
    mirrored = seen[:, ::-1].copy()
    if all(layer["attribute"] not in ("pan", "position") for layer in document["layers"]):
        np.testing.assert_allclose(seen, mirrored, atol=1e-7)
    else:
        rows = [n for n in range(attributes.COUNT) if n != attributes.PAN]
        np.testing.assert_allclose(seen[rows], mirrored[rows], atol=1e-7)


@thorough(60)
@given(effects(waveform_layers(shapes=("sine", "swell", "triangle", "noise"))), st.floats(0, 20))
def test_smooth_forms_have_no_jumps_in_a_ripple(document, theta):
    document["spread"] = {"kind": "ripple", "degrees": 250}
    document["lanes"]["travel"] = "forward"
    for layer in document["layers"]:
        layer["form"] |= {"duty": 1.0, "softness": 0.0}
        layer["attribute"] = "intensity"
        layer["anchor"] = {"kind": "centred", "depth": 50}
    _, raw = values(document, 4, [theta, theta + 1e-6])
    assert np.abs(raw[1] - raw[0]).max() < 0.02


@thorough(60)
@given(effects(), st.integers(1, 6), st.floats(0, 10))
def test_an_effect_that_repeats_is_where_it_was_after_its_closing_cycles(document, heads, theta):
    effect = effect_document.read(document).to_core()
    if not weave.repeats(effect):
        return
    head_set = row_of_heads(heads, BASE)
    placed = place(effect, np.arange(len(head_set.heads)), head_set.heads)
    closing = weave.closing_cycles(effect, placed, most=1e9)
    document_times = [theta, theta + closing]
    _, raw = values(document, heads, document_times)
    jumps = {"square", "rise", "fall", "strike"}
    if closing > 500 or any(
        layer["form"].get("shape") in jumps or layer["form"].get("duty", 1) < 1 for layer in document["layers"]
    ):
        return
    if document["spread"]["kind"] == "relay" or any(layer["form"]["kind"] != "waveform" for layer in document["layers"]):
        return
    difference = np.abs(raw[1] - raw[0])
    difference[[attributes.HUE]] = 0
    assert difference.max() < 1e-4


@thorough(40)
@given(effects(), st.integers(1, 6), st.floats(0, 1000))
def test_single_precision_stays_far_below_a_16_bit_step(document, heads, theta):
    for layer in document["layers"]:
        layer["form"] |= {"softness": 1.0, "duty": 1.0} if layer["form"]["kind"] == "waveform" else {}
    if any(layer["form"].get("shape") in ("rise", "fall", "strike", "steps") for layer in document["layers"]):
        return  # at a jump, a hair of phase decides
    effect, head_set = effect_document.read(document).to_core(), row_of_heads(heads, BASE)
    placed = place(effect, np.arange(heads), head_set.heads)
    results = []
    for precision in (np.float64, np.float32):
        flat = head_set.base.ravel().astype(precision)
        Batches([placed], heads, head_set.mixes, precision).apply(flat, Running(np.array([theta]), np.ones(1)))
        results.append(np.clip(flat.reshape(head_set.low.shape), head_set.low, head_set.high))
    off = np.abs(results[0] - results[1]) / (head_set.high - head_set.low)
    smooth = [attributes.INTENSITY, attributes.PAN, attributes.TILT, attributes.INDEX["zoom"]]
    paths_or_waves = all(layer["form"]["kind"] != "stops" for layer in document["layers"])
    if paths_or_waves and document["spread"]["kind"] == "ripple":
        assert off[smooth].max() < 2e-5


def test_random_levels_are_within_their_promised_range_and_the_same_every_time():
    layer = {
        "attribute": "intensity",
        "form": {"kind": "waveform", "shape": "steps"},
        "anchor": {"kind": "between", "low": 20, "high": 70},
    }
    document = {"name": "random", "seed": 4, "layers": [layer], "spread": {"kind": "ripple", "degrees": 0}}
    theta = np.arange(500) + 0.5
    first, second = (values(document, 5, theta)[0][:, attributes.INTENSITY] for _ in range(2))
    np.testing.assert_array_equal(first, second)
    assert first.min() >= 20
    assert first.max() <= 70
    assert first.min() < 25
    assert first.max() > 65
    assert len(np.unique(first)) == first.size


def test_drift_keeps_its_promise_and_is_a_running_sum():
    drift = Drift(0.5, 2.0, seed=3, keys=np.arange(4))
    theta = np.linspace(-20, 60, 2001)
    run = np.array([drift(np.full(4, t)) for t in theta])
    pace = np.diff(run, axis=0) / np.diff(theta)[:, None]
    assert pace.min() > 0.5 - 1e-6
    assert pace.max() < 2.0 + 1e-6
    assert run[:, 0].tolist() != run[:, 1].tolist()


@thorough(30)
@given(st.lists(st.floats(-3000, 90_000), min_size=1, max_size=6))
def test_drift_after_hours_is_the_running_sum_from_the_start_wherever_it_was_asked_before(theta):
    drift = Drift(0.6, 1.5, seed=8, keys=np.array([0, 7]))
    for t in theta:
        found = drift(np.full(2, t))
        again = Drift(0.6, 1.5, seed=8, keys=np.array([0, 7]))(np.full(2, t))
        np.testing.assert_array_equal(found, again)
        cycles = np.arange(int(abs(t) * 1.5) + 2)
        for n, key in enumerate((0, 7)):
            drawn = randomness.unit(8, key, cycles if t >= 0 else -1 - cycles)
            starts = np.concatenate([[0.0], np.cumsum(1 / (0.6 + 0.9 * drawn))])
            passed = np.interp(abs(t), starts, np.arange(len(starts)))
            assert abs(found[n]) == pytest.approx(passed, abs=1e-6)


def test_what_drift_keeps_does_not_grow_with_every_cycle():
    drift = Drift(0.5, 1.5, seed=1, keys=np.arange(20))
    drift(np.full(20, 72_000.0))  # ten hours at two cycles a second
    kept = sum(
        array.nbytes for way in (drift._ahead, drift._behind) for array in vars(way).values() if isinstance(array, np.ndarray)
    )
    assert kept < 400_000


def test_weight_scales_depth_and_mixes_between():
    def at(weight, anchor):
        layer = {"attribute": "intensity", "form": {"kind": "waveform", "shape": "square", "duty": 1.0}, "anchor": anchor}
        effect = from_document({"name": "w", "layers": [layer]})
        from zarabanda.core.effects.batch.batches import Batches, Running
        from zarabanda.core.effects.placement import place

        head_set = row_of_heads(1, {"intensity": 20})
        flat = head_set.base.ravel().copy()
        Batches([place(effect, np.array([0]), head_set.heads)], 1, head_set.mixes).apply(
            flat, Running(np.zeros(1), np.array([weight]))
        )
        return flat[0]

    assert at(0.5, {"kind": "above", "depth": 60}) == 50
    assert at(0.25, {"kind": "between", "low": 0, "high": 100}) == 40


def test_own_offsets_depths_and_left_out_heads():
    layer = {"attribute": "intensity", "form": {"kind": "waveform", "shape": "rise"}, "anchor": {"kind": "above", "depth": 40}}
    own = {"1": {"offset": -90}, "2": {"depth": 2}, "3": {"left_out": True}}
    document = {"name": "own", "layers": [layer], "spread": {"kind": "ripple", "degrees": 0}, "own": own}
    clamped, _ = values(document, 4, [0.5], base={"intensity": 0})
    np.testing.assert_allclose(clamped[0, attributes.INTENSITY], [30, 40, 0, 20])


def test_an_effect_that_ends_adds_nothing_after():
    layer = {"attribute": "intensity", "form": {"kind": "waveform", "shape": "fall"}, "anchor": {"kind": "above", "depth": 40}}
    document = {"name": "hit", "layers": [layer], "ends_after": 1, "spread": {"kind": "ripple", "degrees": 0}}
    clamped, _ = values(document, 1, [0.0, 0.99, 1.0, 5.0], base={"intensity": 10})
    np.testing.assert_allclose(clamped[:, attributes.INTENSITY, 0], [50, 10.4, 10, 10])
