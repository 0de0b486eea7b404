"""What the engine and the node have, to compare the screen with."""

from __future__ import annotations

import numpy as np

from tests.told_live import live_state
from tests.waiting import until
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads
from zarabanda.formats import effect_document

SPOT_SLOTS = 24
"""Slots of a rear spot: pan 1–2, tilt 3–4, intensity 5–6; 101 begins universe 1."""


def api(demo, path, body=None, method=None):
    return demo.ask(path, body, method)


def act(demo, **action):
    demo.act(**action)


_AT = {"pan": (0, -270, 270), "tilt": (2, -135, 135), "intensity": (4, 0, 100)}
"""Where a spot listens for an attribute, and what the ends of the range are."""


def spot_values(demo, attribute):
    """Values (10,) of 101–110 in natural units, as the node decoded them."""
    slots = demo.universe(1)["slots"]
    at, low, high = _AT[attribute]
    raw = np.array([slots[n * SPOT_SLOTS + at] * 256 + slots[n * SPOT_SLOTS + at + 1] for n in range(10)])
    return low + raw / 65535 * (high - low)


def spot_levels(demo):
    """Intensities (10,) in % of 101–110, as the node decoded them."""
    return spot_values(demo, "intensity")


def expected_levels(document, heads, theta, base):
    """What the core gives for intensities (n,) of spots at θ, with the rig's places, in the order of `heads`."""
    return expected(document, heads, theta, "intensity", base)


def expected(document, heads, theta, attribute, base=None):
    """What the core gives for an attribute (n,) of spots at θ, with the rig's places, in the order of `heads`."""
    count = len(heads)
    low, high, home = (
        np.repeat(np.array([getattr(a, name) for a in attributes.ATTRIBUTES], float)[:, None], count, axis=1)
        for name in ("low", "high", "home")
    )
    if base is not None:
        home[attributes.INDEX[attribute]] = base
    places = np.array([[(int(head) - 105.5) * 1.6, 6, 7.2] for head in heads])
    stand = weave.HeadSet(Heads(heads, places, np.ones((attributes.COUNT, count), bool)), low, high, home, np.ones(count, bool))
    effect = effect_document.read(document).to_core()
    return weave.over_time(effect, stand, np.array([theta])).values[0, attributes.INDEX[attribute]]


def hold_still(demo, key):
    """Run it anew, so that no edit has shifted its phase, and freeze it; θ."""
    act(demo, do="stop", key=key)
    live_state(demo, lambda state: all(one["key"] != key for one in state["running"]))
    act(demo, do="run", key=key)
    live_state(demo, lambda state: any(one["key"] == key for one in state["running"]))
    act(demo, do="freeze", key=key)
    _, running = live_state(demo, lambda state: any(one["key"] == key and one["frozen"] for one in state["running"]))
    return running[key][0]


def node_shows(demo, wanted, tolerance=0.02):
    """Wait until the node has these intensities for 101–110."""
    until(lambda: np.abs(spot_levels(demo) - wanted).max() < tolerance)
