"""Stops that go to palettes: the values of each head, the base where a palette does not act."""

import numpy as np
import pytest

from tests.core.head_sets import row_of_heads
from zarabanda.core.effects.palette import Palette
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes
from zarabanda.formats import effect_document

PALETTES = {
    "Coral": Palette("Coral", {"red": 1.0, "green": 0.25, "blue": 0.2}),
    "Half": Palette("Half", own={"1": {"red": 0.0, "green": 0.0, "blue": 1.0}}),
    "Crowd": Palette("Crowd", {"tilt": -50.0}, {"2": {"pan": 30.0, "tilt": -40.0}}),
    "Low": Palette("Low", {"intensity": 10.0}),
}


def held(attribute, *values, heads=3, base=None, **layer):
    """Values (plain attribute, heads) in the middle of the hold of each of the stops, which snap."""
    stops = [{"value": value, "travel": 0, "hold": 1, "ease": "snap"} for value in values]
    document = {
        "name": "x", "colour_space": "rgb", "spread": {"kind": "ripple", "degrees": 0},
        "layers": [{"attribute": attribute, "form": {"kind": "stops", "stops": stops}} | layer],
    }  # fmt: skip
    effect = effect_document.read(document).to_core(PALETTES)
    theta = (np.arange(len(values)) + 0.5) / len(values)
    found = weave.over_time(effect, row_of_heads(heads, base), theta).values
    return found[:, [attributes.INDEX[name] for name in attributes.touched(attribute)]]


BASE = {"red": 0.1, "green": 0.2, "blue": 0.3, "pan": 5.0, "tilt": 7.0, "intensity": 60.0}


def goes_to(name):
    return {"palette": name}


@pytest.mark.parametrize(
    ("attribute", "value", "expected"),
    [
        ("colour", goes_to("Coral"), [[1, 1, 1], [0.25, 0.25, 0.25], [0.2, 0.2, 0.2]]),
        ("colour", goes_to("Half"), [[0, 0.1, 0.1], [0, 0.2, 0.2], [1, 0.3, 0.3]]),
        ("position", goes_to("Crowd"), [[5, 30, 5], [-50, -40, -50]]),
        ("intensity", goes_to("Low"), [[10, 10, 10]]),
        ("tilt", goes_to("Crowd"), [[-50, -40, -50]]),
        ("colour", goes_to("deleted"), [[0.1] * 3, [0.2] * 3, [0.3] * 3]),
        ("position", goes_to("deleted"), [[5] * 3, [7] * 3]),
        ("position", "base", [[5] * 3, [7] * 3]),
    ],
)
def test_heads_go_where_the_palette_says_or_stay_at_their_base(attribute, value, expected):
    np.testing.assert_allclose(
        held(attribute, value, "base" if attribute in ("colour", "position") else value, base=BASE)[0], expected
    )


def test_palettes_and_numbers_take_turns():
    np.testing.assert_allclose(held("intensity", goes_to("Low"), 90.0, base=BASE)[:, 0], [[10] * 3, [90] * 3])


def test_a_way_between_positions_is_straight():
    stops = [{"value": goes_to("Crowd"), "travel": 1, "hold": 0}, {"value": "base", "travel": 1, "hold": 0}]
    layer = {"attribute": "position", "form": {"kind": "stops", "stops": stops}}
    document = {"name": "x", "spread": {"kind": "ripple", "degrees": 0}, "layers": [layer]}
    effect = effect_document.read(document).to_core(PALETTES)
    found = weave.over_time(effect, row_of_heads(2, BASE), np.array([0.0, 0.25, 0.4999999])).values
    np.testing.assert_allclose(found[:, attributes.PAN, 1], [5, 17.5, 30], atol=1e-4)
    np.testing.assert_allclose(found[:, attributes.TILT, 0], [7, -21.5, -50], atol=1e-4)
