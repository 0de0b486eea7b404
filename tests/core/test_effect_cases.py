"""Worked effect values: the core reproduces them to 1e-6."""

import json
from pathlib import Path

import numpy as np
import pytest

from zarabanda.formats import render_request

CASES = json.loads((Path(__file__).parent / "effect_cases.json").read_text())


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["name"])
def test_worked_case(case):
    expected = case["expect"]
    rendered = render_request.render(render_request.read({k: v for k, v in case.items() if k != "expect"}))
    assert set(rendered) == set(expected)
    for attribute, rows in expected.items():
        np.testing.assert_allclose(rendered[attribute], rows, atol=1e-6, err_msg=attribute)
