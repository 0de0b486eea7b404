"""Worked requests of playback: cue lists, follow-ons, specials. Replay reproduces them to 1e-5."""

import json
from pathlib import Path

import numpy as np
import pytest

from zarabanda.formats import replay_request
from zarabanda.replay import replay

CASES = json.loads((Path(__file__).parent / "worked_cases.json").read_text())


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["name"])
def test_worked_case(case):
    values = replay(replay_request.read({key: one for key, one in case.items() if key not in ("expect", "name")}))["values"]
    for attribute, rows in case["expect"].items():
        np.testing.assert_allclose(values[attribute], rows, atol=1e-5, err_msg=attribute)
