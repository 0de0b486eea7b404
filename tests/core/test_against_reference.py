"""The core against the plain reference: random documents, heads and times, every kind, ease, anchor, spread and run."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import HealthCheck, given
from hypothesis import strategies as st

from tests.core import reference
from tests.documents import PALETTES, effects
from tests.thoroughness import thorough
from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.palette import Palette
from zarabanda.core.effects.placement import place
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads
from zarabanda.formats import effect_document

BASE = {"intensity": 50.0, "pan": 10.0, "tilt": -20.0, "red": 0.9, "green": 0.4, "blue": 0.1, "hue": 33.0, "saturation": 60.0}
KEPT = {name: Palette(name, one.get("values", {}), one.get("own", {})) for name, one in PALETTES.items()}
THETAS = st.lists(st.floats(-40, 300), min_size=1, max_size=3)
HAIR = 1e-9
"""Of a cycle: at a jump, rounding decides which side is meant."""


def mixed_row(count):
    """Heads that differ in what they can do: the third of five has hue and saturation of its own, the fifth no level."""
    low, high, base = (np.repeat(np.array([[getattr(a, n)] for a in attributes.ATTRIBUTES], float), count, 1)
                       for n in ("low", "high", "home"))  # fmt: skip
    for name, value in BASE.items():
        base[attributes.INDEX[name]] = value + (np.arange(count) if name in ("pan", "hue") else 0)
    has = np.ones((attributes.COUNT, count), bool)
    own_hue = np.arange(count) % 5 == 2
    has[[attributes.HUE, attributes.SATURATION]] = own_hue
    has[[attributes.RED, attributes.GREEN, attributes.BLUE]] = ~own_hue
    has[attributes.INTENSITY] = np.arange(count) % 5 != 4
    places = np.stack([(np.arange(count) * 7 % 5) * 1.0, (np.arange(count) * 3 % 4) * 1.0, 5.0 - np.arange(count) % 3], axis=1)
    return weave.HeadSet(Heads([str(n + 1) for n in range(count)], places, has), low, high, base, ~own_hue)


def plainly(document, head_set, theta, weight):
    """(A, N) by the reference."""
    names = [row.name for row in attributes.ATTRIBUTES]
    rig = {
        "count": len(head_set.heads), "places": head_set.heads.places.tolist(), "keys": head_set.heads.keys,
        "mixes": head_set.mixes.tolist(), "base": {name: head_set.base[n].tolist() for n, name in enumerate(names)},
        "has": {name: head_set.heads.has[n].tolist() for n, name in enumerate(names)},
    }  # fmt: skip
    columns = [
        reference.head_values(document, head, rig, theta, weight, PALETTES) for head in range(len(head_set.heads))
    ]  # fmt: skip
    return np.array([[column[name] for column in columns] for name in names])


def differing(document, head_set, theta, weight, found, off):
    """Which values (A, N) are not what the reference gives, at θ or a hair beside it."""
    wrong = head_set.heads.has.copy()
    for at in (theta, theta + HAIR, theta - HAIR):
        if not wrong.any():
            break
        apart = np.abs(found - plainly(document, head_set, at, weight))
        for row, one in enumerate(attributes.ATTRIBUTES):
            if one.circle:
                apart[row] = np.abs((apart[row] + 180) % 360 - 180)
        wrong &= apart > off
    return wrong


def off_by(document):
    """How far the reference may be off, which goes along free paths in short straight steps: most where points repeat."""
    sizes = [
        layer["form"]["width"] + layer["form"]["height"] for layer in document["layers"] if layer["form"].get("path") == "free"
    ]
    return 0.05 + 0.015 * sum(sizes) if sizes else 1e-5


@thorough(250, suppress_health_check=[HealthCheck.too_slow])
@given(
    effects(apart=True),
    st.integers(1, 7),
    st.lists(st.floats(-40, 300), min_size=1, max_size=3),
    st.sampled_from([0.0, 0.37, 1.0]),
)
def test_the_core_gives_what_the_reference_gives(document, count, thetas, weight):
    head_set = mixed_row(count)
    effect = effect_document.read(document).to_core(KEPT)
    batches = Batches([place(effect, np.arange(count), head_set.heads)], count, head_set.mixes)
    off = off_by(document)
    for theta in thetas:  # one after another: what is remembered from time to time must not be seen
        flat = head_set.base.ravel().copy()
        batches.apply(flat, Running(np.array([theta]), np.array([weight])))
        found = flat.reshape(head_set.base.shape)
        wrong = differing(document, head_set, theta, weight, found, off)
        assert not wrong.any(), (theta, np.argwhere(wrong), found[wrong], plainly(document, head_set, theta, weight)[wrong])


def colour_stops(ease, count, travel=1.0, hold=0.0):
    values = ["#ff0000", "#00ff00", "#0000ff", "#ffffff", "#000000", "#ff8000", "#123456"]
    stops = [{"value": values[n % 7], "travel": travel, "hold": hold, "ease": ease} for n in range(count)]
    return {"name": "x", "layers": [{"attribute": "colour", "form": {"kind": "stops", "stops": stops}}]}


@pytest.mark.parametrize("ease", ["snap", "linear", "smooth"])
@pytest.mark.parametrize("count", [1, 2, 6, 7, 12, 13])
@pytest.mark.parametrize("space", ["rgb", "hsv-short", "oklch"])
def test_stops_of_one_ease_show_every_colour(ease, count, space):
    document = colour_stops(ease, count) | {"colour_space": space}
    head_set = mixed_row(2)
    woven = weave.over_time(effect_document.read(document).to_core(), head_set, (np.arange(4 * count) + 0.37) / (4 * count))
    for theta, found in zip(woven.theta, woven.raw, strict=True):
        assert not differing(document, head_set, theta, 1.0, found, 1e-6).any()
    if ease == "snap" and count <= 7:
        assert len(np.unique(woven.values[:, attributes.RED : attributes.BLUE + 1, 0].round(9), axis=0)) == count
