"""What a page is told live: the state, and in frames where each effect is in its cycle."""

import json
import struct
import time
from contextlib import contextmanager

from simple_websocket import Client

from tests.waiting import PATIENCE_S

_HEAD = struct.Struct("<HH")
_RUN = struct.Struct("<Idf")
_FRAME_HEAD, _RUN_BYTES, _VALUE_BYTES = 24, 20, 12


@contextmanager
def joined(demo):
    """A live socket of the demo, closed at the end."""
    client = Client(demo.address.replace("http", "ws") + "/live")
    try:
        yield client
    finally:
        client.close()


def live_state(demo, accept=lambda state: True):
    """The next state that `accept` takes, and (θ, weight) of each running key in a frame after it."""
    with joined(demo) as client:
        state, end = None, time.monotonic() + PATIENCE_S
        while time.monotonic() < end:
            message = client.receive(timeout=1)
            if message is None:
                continue
            if isinstance(message, str):
                told = json.loads(message)
                state = told if told["type"] == "state" else state
            elif state and message[3] == 1 and accept(state):
                found = _phases(message)
                return state, {one["key"]: found[one["number"]] for one in state["running"] if one["number"] in found}
    raise AssertionError(f"no such state came; the last was {state}")


def _phases(message):
    """(θ, weight) by number of what runs in a frame."""
    count, runs = _HEAD.unpack_from(message, 20)
    begin = _FRAME_HEAD + _VALUE_BYTES * count
    rows = (_RUN.unpack_from(message, begin + _RUN_BYTES * n) for n in range(runs))
    return {number: (theta, weight) for number, theta, weight in rows}
