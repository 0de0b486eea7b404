"""What the engine and the node have, to compare the screen with."""

from __future__ import annotations

import json
import struct
import urllib.request

import numpy as np
from simple_websocket import Client

from tests.waiting import until
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads
from zarabanda.formats import effect_document

SPOT_SLOTS = 24
"""Slots of a rear spot: pan 1–2, tilt 3–4, intensity 5–6; 101 begins universe 1."""


def api(demo, path, body=None, method=None):
    request = urllib.request.Request(
        demo.address + path,
        json.dumps(body).encode() if body is not None else None,
        {"Content-Type": "application/json"},
        method=method,
    )
    with urllib.request.urlopen(request, timeout=10) as answer:
        return json.loads(answer.read())


def act(demo, **action):
    api(demo, "/api/actions", {"action": action})


def live_state(demo, accept=lambda state: True):
    """The next state that `accept` takes, and θ of each running key in a frame after it."""
    client = Client(demo.address.replace("http", "ws") + "/live")
    try:
        state = None
        for _ in range(2000):
            message = client.receive(timeout=5)
            if isinstance(message, str):
                state = json.loads(message) if json.loads(message)["type"] == "state" else state
            elif state and message[3] == 1 and accept(state):
                count, runs = struct.unpack_from("<HH", message, 20)
                found = {}
                for n in range(runs):
                    number, theta, weight = struct.unpack_from("<Idf", message, 24 + 12 * count + 20 * n)
                    found[number] = (theta, weight)
                return state, {one["key"]: found[one["number"]] for one in state["running"] if one["number"] in found}
        raise AssertionError("no such state came")
    finally:
        client.close()


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
    until(lambda: np.abs(spot_levels(demo) - wanted).max() < tolerance, 5)
