"""The frame loop with a clock of its own, and the journal."""

import numpy as np
import pytest

from tests.engine.shows import effect, program, show, two
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.frames import FrameWriter, universe_frame
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    DraftValuesPart,
    EffectPart,
    PalettePart,
    PixelMapPart,
    PreviewEffect,
    PreviewPixels,
    PreviewValues,
    ShowUpdate,
    TempoPart,
    action,
)
from zarabanda.outputs.base import MemoryOutput


class Clock:
    """Time that passes only when slept, or when work is said to take some."""

    def __init__(self):
        self.now = 100.0
        self.slept = []

    def __call__(self):
        return self.now

    def sleep(self, seconds):
        self.slept.append(seconds)
        self.now += seconds


def looped(frames, work=lambda number: 0.0, rate=44.0):
    clock, output = Clock(), MemoryOutput()
    loop = Loop(LiveState(), [output], clock=clock, sleep=clock.sleep, rate=rate)
    loop.swap(program(show(effect())))

    def on_frame(snapshot):
        clock.now += work(snapshot.number)
        if len(output.frames) == frames:
            loop.stop()

    loop.on_frame = on_frame
    loop.run()
    return loop, output


def test_deadlines_do_not_drift():
    _, output = looped(44 * 60, work=lambda n: 0.003 + 0.01 * (n % 2))
    times = np.array([t for t, _ in output.frames])
    np.testing.assert_allclose(times, 100 + np.arange(1, len(times) + 1) / 44, atol=1e-6)
    assert output.closed


def test_late_frames_are_counted_and_left_out_never_queued():
    loop, output = looped(50, work=lambda n: 0.1 if n == 10 else 0.0)
    assert loop.health.late == 4
    gaps = np.diff([t for t, _ in output.frames])
    assert gaps.min() > 1 / 44 - 1e-6
    grid = (np.array([t for t, _ in output.frames]) - 100) * 44
    np.testing.assert_allclose(grid, np.round(grid), atol=1e-5)


def test_a_fault_in_a_frame_is_told_and_the_next_frame_comes():
    clock, output = Clock(), MemoryOutput()
    beats = []
    loop = Loop(LiveState(), [output], clock=clock, sleep=clock.sleep)
    loop.on_beat = lambda t: beats.append(len(output.frames))
    loop.swap(program(show(effect())))
    loop.tick(1.0)
    loop.on_change = lambda: 1 / 0
    loop.post(action({"do": "blackout", "on": True}))
    loop.tick(1.1)
    loop.on_change = lambda: None
    loop.tick(1.2)
    assert loop.health.errors == 1
    assert "ZeroDivisionError" in loop.health.last_error
    assert len(output.frames) == 3
    assert beats == [1, 2, 3], "each after its frame: the first may have much to catch up with"
    np.testing.assert_array_equal(output.frames[1][1], output.frames[0][1])


@pytest.mark.parametrize("rate", [10, 60])
def test_rates_outside_the_range_are_refused(rate):
    with pytest.raises(ZarabandaError, match="20 to 44"):
        Loop(LiveState(), [], clock=Clock(), sleep=lambda s: None, rate=rate)


def test_actions_and_programs_act_on_the_next_frame():
    clock, output = Clock(), MemoryOutput()
    loop = Loop(LiveState(), [output], clock=clock, sleep=clock.sleep)
    refused = []
    loop.swap(program(show(effect())))
    loop.tick(100.0)
    loop.tick(100.5)
    assert output.frames[-1][1][0, 4] == 128
    loop.post(action({"do": "grand", "value": 0.5}))
    loop.post(action({"do": "stop", "key": "nonsense"}), refused.append)
    loop.tick(100.5)
    assert output.frames[-1][1][0, 4] == 64
    assert len(refused) == 1
    assert "does not run" in refused[0]


def test_a_preview_lasts_until_the_next_show_part():
    compiler = Compiler()
    first = program(show(effect()), compiler).instances["draft:1"]
    again = program(show(effect(), revision=2), compiler).instances["draft:1"]
    assert again is first, "what did not change is not placed again"
    assert compiler.preview_effect(1, effect(name="other")).instances["draft:1"].name == "other"
    assert program(show(effect(), revision=3), compiler).instances["draft:1"].name == "rise"
    assert (compiler.arrived("effect", 1), compiler.arrived("opening")) == (1, 1), "of what did not change"


WALL = {"canvas": {"kind": "grid", "columns": 4, "rows": 1, "heads": ["1", "2", "3", "4"]}, "layers": []}


@pytest.mark.parametrize(
    ("edit", "preview"),
    [
        (EffectPart(1, effect(name="kept")), lambda revision: PreviewEffect(1, effect(name="seen"), revision)),
        (PixelMapPart(7, "Wall", WALL), lambda revision: PreviewPixels(PixelMapPart(7, "Seen", WALL), revision)),
        (DraftValuesPart("intensity", {"1": 5.0}), lambda revision: PreviewValues({"intensity": {"1": 9.0}}, revision)),
    ],
    ids=["effect", "pixels", "values"],
)
def test_a_preview_that_an_edit_has_overtaken_is_not_shown(edit, preview):
    compiler = Compiler()
    program(show(effect()), compiler)
    before = compiler.take(ShowUpdate("test", 5, [edit]))
    assert compiler.preview(preview(4)) is None, "the edit is newer"
    assert compiler.preview(preview(5)) is not before, "made from the show with the edit"


def test_an_edit_makes_again_what_it_touches_and_nothing_else():
    compiler = Compiler()
    goes = {"attribute": "intensity", "form": {"kind": "stops", "stops": [{"value": {"palette": "Low"}, "travel": 0, "hold": 1}]}}
    palettes = {"Low": {"values": {"intensity": 20.0}, "own": {}}}
    both = two(effect(), effect(layers=[goes]), palettes=palettes)
    before = program(both, compiler)
    changes = {
        "an effect": ([EffectPart(1, effect(name="other"))], {"control:1"}),
        "a palette": ([PalettePart(1, "Low", {"intensity": 60.0}, {})], {"control:2"}),
        "a tempo": ([TempoPart(1, "Renamed", 90.0, 1)], set()),
        "a value": ([DraftValuesPart("intensity", {"1": 5.0})], set()),
    }
    for revision, (what, (parts, touched)) in enumerate(changes.items(), 2):
        now = compiler.take(ShowUpdate("test", revision, parts))
        assert {key for key in now.instances if now.instances[key] is not before.instances[key]} == touched, what
        before = now
    gone = compiler.take(ShowUpdate("test", 9, [], gone=[("control", 1)]))
    assert list(gone.instances) == ["control:2"]
    assert compiler.arrived("control", 1) == 9
    both_gone = [("effect", 2), ("control", 2)]
    dark = compiler.take(ShowUpdate("test", 10, [PalettePart(1, "Low", {"intensity": 5.0}, {})], gone=both_gone))
    assert not dark.instances, "a palette changes as the effect that went to it goes"


def test_live_frames_say_what_is_seen():
    clock, output = Clock(), MemoryOutput()
    loop = Loop(LiveState(), [output], clock=clock, sleep=clock.sleep)
    loop.swap(program(show(effect())))
    snapshots = []
    loop.on_frame = snapshots.append
    loop.tick(100.0)
    loop.tick(100.5)
    data = FrameWriter(snapshots[-1].program.rig).heads(snapshots[-1], {"draft:1": 5})
    assert data[:4] == b"ZB\x02\x01"
    assert int.from_bytes(data[16:20], "little") == loop.state.program.rig.heads.number
    assert len(data) == 24 + 4 * 12 + 20
    assert list(data[24:28]) == [128, 128, 128, 128]
    assert int.from_bytes(data[24 + 48 : 24 + 52], "little") == 5
    sent = universe_frame(snapshots[-1], 1)
    assert (sent[:4], int.from_bytes(sent[16:20], "little")) == (b"ZB\x02\x02", 1)
    assert sent[24:] == output.frames[-1][1][0].tobytes()
    assert universe_frame(snapshots[-1], 2) is None, "nothing is there"
