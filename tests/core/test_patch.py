"""Addresses and places of many fixtures: overlaps, gaps, what is free, orders; lines, arcs, grids and circles."""

import re
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.thoroughness import thorough
from zarabanda.core.explain.modes import fit_in_a_universe, limits_of
from zarabanda.core.explain.rig_check import odd_of
from zarabanda.core.rig import arrange, patch
from zarabanda.core.rig.modes import ModeSpec
from zarabanda.core.rig.patch import Block
from zarabanda.core.rig.rig import FixtureSpec
from zarabanda.errors import ZarabandaError
from zarabanda.formats.rig_document import ModeDocument
from zarabanda.stock.kinds import plain_kinds

SIZES = st.one_of(st.integers(1, 60), st.sampled_from([192, 512, 770]))


@st.composite
def patches(draw):
    sizes = draw(st.lists(SIZES, max_size=12))
    found = []
    for n, size in enumerate(sizes):
        address = 1 if size > 512 else draw(st.integers(1, 513 - size))
        found.append(Block(n + 1, draw(st.integers(1, 4)), address, size))
    return found


def slots(block):
    return set(range(block.first, block.end))


@thorough(150)
@given(patches())
def test_overlaps_are_what_counting_slot_by_slot_finds(blocks):
    expected = {
        (a.number, b.number): len(slots(a) & slots(b))
        for a in blocks
        for b in blocks
        if a.number < b.number and slots(a) & slots(b)
    }
    assert {(one.first, one.second): one.slots for one in patch.overlaps(blocks)} == expected


@thorough(150)
@given(patches(), st.lists(SIZES, min_size=1, max_size=8), st.integers(1, 5), st.integers(1, 512))
def test_the_next_free_is_free_in_order_and_the_first_that_fits(blocks, sizes, universe, address):
    where = patch.next_free(blocks, sizes, (universe, address))
    found = [Block(100 + n, *at, size) for n, (at, size) in enumerate(zip(where, sizes, strict=True))]
    taken = set().union(*map(slots, blocks)) if blocks else set()
    assert not set().union(*map(slots, found)) & taken
    assert [one.first for one in found] == sorted(one.first for one in found)
    assert all(a.end <= b.first for a, b in pairwise(found))
    for one in found:
        patch.check(one.number, one.universe, one.address, one.size)
    first, begin = found[0], (universe - 1) * 512 + address - 1
    for earlier in range(begin, first.first):
        at = patch.address_of(earlier)
        fits = earlier % 512 + first.size <= 512 if first.size <= 512 else at[1] == 1
        assert not fits or set(range(earlier, earlier + first.size)) & taken, "nothing that fits was passed by"


@pytest.mark.parametrize(
    ("universe", "address", "size", "said"),
    [(1, 500, 24, "Its last possible address is 489"), (0, 1, 3, "no universe 0"), (1, 513, 1, "no address 513"),
     (1, 2, 770, "begins at address 1"), (64_000, 1, 3, "63999")],
)  # fmt: skip
def test_addresses_that_cannot_be_are_refused_with_what_can(universe, address, size, said):
    with pytest.raises(ZarabandaError, match=said):
        patch.check(7, universe, address, size)


@given(st.integers(1, 40), st.data())
def test_arrangements(count, data):
    numbers = st.floats(-20, 20)
    given_ = {
        name: data.draw(numbers) for name in ("from_x", "from_y", "from_z", "to_x", "to_y", "to_z", "x", "y", "z", "from_deg")
    }
    given_ |= {"to_deg": given_["from_deg"] + 90, "radius": 3.0, "columns": 4.0, "across": 0.5, "along": 0.7}
    places = data.draw(st.lists(st.tuples(numbers, numbers, numbers), min_size=count, max_size=count).map(np.array))
    for shape in arrange.SHAPES:
        assert arrange.arranged(shape, places, given_).shape == (count, 3)
    line = arrange.arranged("line", places, given_)
    if count > 1:
        assert line[0] == pytest.approx([given_["from_x"], given_["from_y"], given_["from_z"]])
        assert line[-1] == pytest.approx([given_["to_x"], given_["to_y"], given_["to_z"]])
    steps = np.diff(line, axis=0)
    assert steps == pytest.approx(np.broadcast_to(steps[:1], steps.shape)), "all steps are alike"
    for shape in ("arc", "circle"):
        at = arrange.arranged(shape, places, given_) - [given_["x"], given_["y"], given_["z"]]
        assert np.hypot(at[:, 0], at[:, 1]) == pytest.approx([3.0] * count)
    assert arrange.mirrored(arrange.mirrored(places)) == pytest.approx(places)
    even = arrange.spread(places, "x")
    assert np.argsort(even[:, 0], kind="stable").tolist() == np.argsort(places[:, 0], kind="stable").tolist() or count < 3
    assert (even[:, 1:] == places[:, 1:]).all()


def test_what_is_missing_or_unknown_in_an_arrangement_is_said():
    with pytest.raises(ZarabandaError, match="radius is needed"):
        arrange.arranged("circle", np.zeros((2, 3)), {"x": 0, "y": 0, "z": 0})
    with pytest.raises(ZarabandaError, match="There is no arrangement spiral"):
        arrange.arranged("spiral", np.zeros((2, 3)), {})


def test_plain_kinds_are_many_checked_and_say_what_they_cannot_do():
    kinds = {name: mode.spec() for name, mode in plain_kinds().items()}
    assert len({mode.model for mode in plain_kinds().values()}) >= 24
    tile = next(mode for mode in kinds.values() if len(mode.cells) == 256)
    assert (fit_in_a_universe(tile), limits_of(tile)[-1]) == (0, "Takes 2 universes, beginning at address 1.")
    assert all(
        {slot // 512 for one in tile.channels if one.cell == cell for slot in one.slots} in ({0}, {1}) for cell in range(1, 257)
    )
    wheel = next(mode for mode in kinds.values() if mode.emitters == "wheel")
    assert limits_of(wheel)[0] == "Colour wheel only: colour effects will step."
    assert {"leads" for mode in kinds.values() if mode.leads}
    able = {name for mode in kinds.values() for part in mode.parts for name in mode.attributes_of(part)}
    assert {"temperature", "tint", "white_mix", "pan", "zoom", "haze", "fan_speed", "strobe"} <= able


@pytest.mark.parametrize(
    ("wrong", "said"),
    [
        ({"channels": [{"source": "red", "slots": [0]}, {"source": "blue", "slots": [1, 0]}]}, "channel 1 is both red and blue"),
        ({"channels": [{"source": "wobble", "slots": [0]}]}, "source 'wobble' is not known"),
        ({"channels": [{"source": "red", "slots": [3]}]}, "uses slot 4 of 3"),
        ({"channels": [{"source": "red", "slots": [0], "cell": 2}]}, "is of cell 2, but there are 0"),
        ({"emitters": "level"}, "emitters 'level' are not known"),
        ({"virtual": ["zoom"]}, "'zoom' is not known here"),
    ],
)
def test_modes_that_cannot_be_are_refused_in_words(wrong, said):
    whole = {"name": "x", "kind": "par", "emitters": "rgb", "footprint": 3, "channels": [{"source": "red", "slots": [0]}]}
    ModeDocument.model_validate(whole)
    with pytest.raises(ValidationError, match=re.escape(said)):
        ModeDocument.model_validate(whole | wrong)


PAR = plain_kinds()["Par RGB, 3 channels"].spec()
NOTHING = ModeSpec("none", "par", "none", (), 1)


def test_what_is_odd_is_told_with_its_mend():
    def at(number, x, universe=1, address=1, mode=PAR):
        return FixtureSpec(number, "", mode, (x, 2, 3), universe=universe, address=address)

    fixtures = [at(1, -3), at(2, 3, address=3), at(3, -1, address=10), at(4, 1, None, None), at(5, -2, address=20),
                at(6, 2, address=30), at(7, 4, address=40), at(8, 0, address=50, mode=NOTHING), at(9, 0, address=60)]  # fmt: skip
    odd = {one.kind: one for one in odd_of(fixtures)}
    assert odd["overlap"].text == "2 overlaps 1 by 1 slot of universe 1; 1 has them."
    assert (odd["overlap"].mend, odd["overlap"].ask["numbers"]) == ("Move 2 to 1.4", [2])
    assert odd["no address"].numbers == (4,)
    assert odd["no partner"].numbers == (7,)
    assert odd["same place"].numbers == (8, 9)
    assert odd["no intensity"].numbers == (8,)
    assert odd_of(fixtures[2:3]) == odd_of(fixtures[2:3], [1, 2]) == []
    [lost] = odd_of([at(3, -1, 7), at(4, 0, 9)], [7])
    assert (lost.kind, lost.numbers, lost.text) == (
        "no output", (4,), "Universe 9 goes nowhere: no route carries it. See Output, Routes.",
    )  # fmt: skip
