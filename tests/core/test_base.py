"""The base of chosen heads: what is set by hand, else home; the range that all of them have."""

import copy

from tests.engine.shows import RIG, rig_parts
from zarabanda.core.explain.base import base_of
from zarabanda.core.rig.attributes import INDEX
from zarabanda.engine.decoding import rig_of

NARROW = copy.deepcopy(RIG)
NARROW["modes"].append(NARROW["modes"][0] | {"name": "narrow", "limits": {"zoom": (10, 20, 15)}})
NARROW["modes"].append(
    NARROW["modes"][0] | {"name": "apart", "emitters": "none", "channels": [], "limits": {"intensity": (0, 50, 5)}}
)
NARROW["fixtures"][1]["mode"], NARROW["fixtures"][2]["mode"] = 2, 3
RIG_ = rig_of(rig_parts(NARROW))


def of(heads, values=None):
    return {one.attribute.name: one for one in base_of(RIG_, values or {}, heads)}


def test_the_first_heads_value_counts_and_the_range_is_what_all_have():
    base = of(["3", "2", "1"], {"intensity": {"2": 40.0}, "zoom": {"4": 9.0}})
    level, zoom = base["intensity"], base["zoom"]
    assert (level.value, level.mixed, level.by_hand, level.low, level.high) == (5.0, True, 1, 0.0, 50.0)
    assert level.heads == ("3", "2", "1")
    assert (zoom.heads, zoom.value, zoom.low, zoom.high, zoom.by_hand) == (("2", "1"), 15.0, 10.0, 20.0, 0)
    assert zoom.mixed == (RIG_.home[INDEX["zoom"], 0] != 15.0)
    assert "gobo" not in base


def test_unknown_heads_and_none_at_all_have_no_base():
    assert of([]) == {}
    assert of(["no such head"]) == {}
    assert of(["no such head", "1"]) == of(["1"])
