"""Selections in plain words."""

import numpy as np
import pytest

from zarabanda.core.rig.heads import Heads
from zarabanda.core.selection.words import parse
from zarabanda.errors import ZarabandaError

KEYS = [str(n) for n in (101, 102, 103, 104, 105)] + ["201.1", "201.2", "201.3", "202.1", "301"]
WITH_CELLS = [*KEYS, "301.1", "301.2"]
HEADS = Heads(WITH_CELLS, np.array([[n, 0, 0] for n in range(len(WITH_CELLS))], float), np.ones((1, len(WITH_CELLS)), bool))
GROUPS = {"rear spots": KEYS[:5], "battens": KEYS[5:-1], "rear bar": KEYS[:2]}


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("101-103", ["101", "102", "103"]),
        ("103-101", ["103", "102", "101"]),
        ("105, 101", ["105", "101"]),
        ("spots", KEYS[:5]),
        ("Rear Spots, odd", ["101", "103", "105"]),
        ("101-105, every 3", ["101", "104"]),
        ("101-105, centre out", ["103", "102", "104", "101", "105"]),
        ("201", ["201.1", "201.2", "201.3"]),
        ("201.2-202.1", ["201.2", "201.3", "202.1"]),
        ("101, 101-102", ["101", "102"]),
        ("all", KEYS),
        ("301, 201", ["301", "201.1", "201.2", "201.3"]),
        ("301, cells", ["301.1", "301.2"]),
        ("301.2, 301.1, whole, 101", ["301", "101"]),
    ],
)
def test_words(text, expected):
    assert parse(text, HEADS, GROUPS) == expected


def test_words_alone_work_on_the_current_selection():
    assert parse("even", HEADS, GROUPS, ["105", "104", "103", "102"]) == ["104", "102"]


@pytest.mark.parametrize(
    ("text", "part"),
    [("", "Type a selection"), ("foo", "means nothing"), ("rear", "several groups"), ("900-910", "101 to 301"),
     ("odd", "needs heads"),
     ("every 0", "every 2")],
)  # fmt: skip
def test_what_means_nothing_is_said(text, part):
    with pytest.raises(ZarabandaError, match=part):
        parse(text, HEADS, GROUPS, ["101"] if text == "every 0" else [])
