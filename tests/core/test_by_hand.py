"""Values set by hand: what was typed, to a value or by a difference, within what each head can do."""

import pytest

from tests.core.test_aims import rig_of, spot
from zarabanda.core.explain.base import base_of, pointed_at
from zarabanda.core.playback.by_hand import Change, changed, read_change
from zarabanda.core.rig.attributes import BY_NAME

LEVEL, PAN = BY_NAME["intensity"], BY_NAME["pan"]


@pytest.mark.parametrize(
    ("text", "attribute", "wanted"),
    [
        ("60", LEVEL, Change(60)), (" 60 % ", LEVEL, Change(60)), ("60,5", LEVEL, Change(60.5)), ("+10", LEVEL, Change(10, True)),
        ("+10 %", LEVEL, Change(10, True)), ("-10", LEVEL, Change(-10, True)), ("−10 %", LEVEL, Change(-10, True)),
        ("-5", PAN, Change(-5)), ("−5 °", PAN, Change(-5)), ("+5°", PAN, Change(5, True)), ("+-5", PAN, Change(-5, True)),
        (".5", PAN, Change(0.5)),
    ],
)  # fmt: skip
def test_what_is_typed(text, attribute, wanted):
    assert read_change(text, attribute) == wanted


@pytest.mark.parametrize(
    ("text", "said"), [("", "is no value"), ("full", "is no value"), ("10 °", "is in %"), ("1e9", "is no value")]
)
def test_what_is_no_value_is_refused(text, said):
    with pytest.raises(ValueError, match=said):
        read_change(text, LEVEL)


def test_a_difference_is_kept_and_limited_head_by_head():
    rig = rig_of([(0, 0, 6), (1, 0, 6), (2, 0, 6)], mode=spot(pan=90))
    heads = ["1", "2", "3", "99"]
    assert changed(rig, {"1": 95.0, "2": 40.0}, heads, LEVEL, Change(10, True)).values == {"1": 100, "2": 50, "3": 10}
    assert changed(rig, {}, heads, PAN, Change(-400)).values == {"1": -90, "2": -90, "3": -90}
    assert changed(rig, {}, heads, BY_NAME["zoom"], Change(5)).values == {}
    beyond = changed(rig, {"1": 95.0, "2": 40.0}, heads, LEVEL, Change(10, True))
    assert (beyond.limited, beyond.low, beyond.high) == (1, 0, 100)


def test_the_base_says_from_where_to_where_values_go_and_where_beams_point():
    rig = rig_of([(-2, 0, 6), (2, 0, 6)])
    values = {"intensity": {"1": 20.0, "2": 60.0}, "tilt": {"1": 0.0, "2": 0.0}}
    level = next(one for one in base_of(rig, values, ["2", "1", "77"]) if one.attribute is LEVEL)
    assert (level.least, level.most, level.value, level.mixed, level.by_hand) == (20, 60, 60, True, 2)
    assert pointed_at(rig, values, ["1", "2"]) == pytest.approx((0, 0, 0), abs=1e-9)
    assert pointed_at(rig, {"tilt": {"1": 120.0}}, ["1"]) is None  # above the horizon
    assert pointed_at(rig, values, []) is None
