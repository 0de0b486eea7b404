"""The draft in the engine: palettes it refers to, preparing it without output, and going on after a restart."""

from dataclasses import replace

import msgspec
import numpy as np
import pytest

from tests.engine.shows import HEADS, Live, effect, program, show
from zarabanda.core.playback.ground import base_at
from zarabanda.core.rig import attributes
from zarabanda.engine import journal
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.blind import prepared
from zarabanda.messages import PaletteUse

PALETTES = {
    "Warm": {"values": {"intensity": 40.0}, "own": {}},
    "Bright": {"values": {"intensity": 80.0}, "own": {HEADS[1]: {"intensity": 90.0}}},
}


def level(state, head, t):
    rig = state.program.rig
    return base_at(rig, state.claims, t)[attributes.INTENSITY, rig.heads.index[head]]


def drafted(values, *, palettes=PALETTES, instances=(), **more):
    return show(effect(), draft={"intensity": values} if values else {}, palettes=palettes, instances=list(instances), **more)


def test_a_palette_that_is_edited_takes_the_draft_with_it_in_its_time():
    live, compiler = Live(), Compiler()
    uses = {HEADS[0]: PaletteUse(1), HEADS[1]: PaletteUse(2), HEADS[2]: 40.0}
    live.swap(program(drafted(uses), compiler), 1.0)
    assert [level(live.now, head, 1.0) for head in HEADS[:3]] == [40, 90, 40]
    edited = {**PALETTES, "Warm": {"values": {"intensity": 60.0}, "own": {}}}
    live.swap(program(drafted(uses, palettes=edited, revision=2), compiler), 2.0)
    assert [level(live.now, HEADS[0], t) for t in (2.0, 2.1, 2.3)] == pytest.approx([40, 50, 60])
    assert level(live.now, HEADS[2], 2.3) == 40
    gone = {name: one for name, one in PALETTES.items() if name == "Warm"}
    live.swap(program(drafted(uses, palettes=gone, revision=3), compiler), 3.0)
    assert level(live.now, HEADS[1], 3.0) == 0  # nothing is held by what is not there


def test_what_is_prepared_reaches_the_stage_when_it_is_sent():
    live, compiler = Live(), Compiler()
    live.swap(program(drafted({HEADS[0]: 20.0, HEADS[1]: 30.0}), compiler), 1.0)
    live.act({"do": "blind"}, 2.0)
    live.swap(program(drafted({HEADS[0]: 80.0, HEADS[2]: 50.0}, revision=2), compiler), 3.0)
    assert [level(live.now, head, 3.0) for head in HEADS[:3]] == [20, 30, 0]
    assert [level(prepared(live.now), head, 3.0) for head in HEADS[:3]] == [80, 0, 50]
    live.act({"do": "blind", "on": False, "send_s": 3.0}, 4.0)
    assert [level(live.now, head, 5.5) for head in HEADS[:3]] == pytest.approx([50, 15, 25])
    assert [level(live.now, head, 7.0) for head in HEADS[:3]] == pytest.approx([80, 0, 50])


def test_effects_of_the_draft_wait_as_well():
    live, compiler = Live(), Compiler()
    one = show(effect())["instances"]
    live.swap(program(drafted({}), compiler), 1.0)
    live.act({"do": "blind"}, 2.0)
    live.swap(program(drafted({}, instances=one, revision=2), compiler), 3.0)
    assert (list(live.now.playing), list(prepared(live.now).playing)) == ([], ["draft:1"])
    assert live.order_in(live.now.program) == []
    live.act({"do": "blind", "on": False, "send_s": 2.0}, 4.0)
    assert [live.now.playing["draft:1"].weight(t) for t in (4.0, 5.0, 6.0)] == pytest.approx([0, 0.5, 1])
    live.act({"do": "blind"}, 7.0)
    live.swap(program(drafted({}, revision=3), compiler), 8.0)
    assert list(live.now.playing) == ["draft:1"]
    live.act({"do": "blind", "on": False, "send_s": 2.0}, 9.0)
    assert live.now.playing["draft:1"].weight(10.0) == pytest.approx(0.5)


def test_sending_needs_a_time_that_makes_sense():
    live = Live()
    live.act({"do": "blind"}, 1.0)
    with pytest.raises(Exception, match="0 to 3600 s"):
        live.act({"do": "blind", "on": False, "send_s": -1.0}, 2.0)


@pytest.mark.parametrize("blind", [False, True])
def test_a_fade_by_hand_goes_on_after_a_restart_and_what_is_prepared_stays_hidden(blind):
    live, compiler = Live(), Compiler()
    live.swap(program(drafted({HEADS[0]: 0.0}), compiler), 0.0)
    live.swap(replace(program(drafted({HEADS[0]: 80.0}, revision=2), compiler), fade_s=4.0), 1.0)
    if blind:
        live.act({"do": "blind"}, 1.5)
        live.swap(program(drafted({HEADS[0]: 10.0}, revision=3), compiler), 1.6)
    entry = journal._decode_live(msgspec.msgpack.encode(journal.entry_of(live.now, 2.0, 100.0, "boot")))
    again = journal.restored(entry, live.now.program, 2.5, 7.0, "boot")
    assert [level(again, HEADS[0], t) for t in (3.0, 5.0)] == pytest.approx([40, 80])
    assert (again.blind is not None) == blind
    assert np.allclose(level(prepared(again), HEADS[0], 5.0), 10 if blind else 80)
