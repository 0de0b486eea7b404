"""What is sent is recorded and played back: the same bytes; in bounded memory; until the disk is full."""

import errno
import io
import threading

import numpy as np
import pytest

from tests.engine.shows import effect, program, show
from tests.engine.test_loop import Clock
from tests.waiting import until
from zarabanda.core.rig.attributes import INTENSITY
from zarabanda.core.rig.read_back import ReadBack
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.engine.offline import Offline
from zarabanda.engine.played_back import PlayedBack
from zarabanda.engine.recorder import Recorder
from zarabanda.engine.tracing import traced
from zarabanda.formats.dmx_frames import FramesReader, FramesWriter
from zarabanda.messages import ShowUpdate, action
from zarabanda.outputs.base import MemoryOutput
from zarabanda.show import compile as compiling
from zarabanda.workers import Troubles

UNIVERSES = (1, 4)


def frames(count, seed=1):
    """Some of whose universes change, at 44 Hz."""
    random = np.random.default_rng(seed)
    data = np.zeros((len(UNIVERSES), 512), np.uint8)
    for n in range(count):
        if random.random() < 0.7:
            data[random.integers(len(UNIVERSES)), random.integers(512)] = random.integers(256)
        yield n / 44, data.copy()


def started(tmp_path, clock=None):
    clock, troubles, seen = clock or Clock(), Troubles(), MemoryOutput()
    recorder = Recorder(tmp_path, troubles)
    loop = Loop(LiveState(), [seen, recorder], clock=clock, sleep=clock.sleep, troubles=troubles)
    loop.played_back = PlayedBack(tmp_path, troubles)
    own = program(show(effect()), Compiler())
    loop.batching.prepare(
        own.rig, [one.placed for one in own.instances.values()]
    )  # so that frames write what effects touch alone
    loop.swap(own)
    return loop, recorder, seen


def test_what_is_sent_is_recorded_and_played_back_byte_for_byte_under_what_dims_it(tmp_path):
    clock = Clock()
    loop, recorder, seen = started(tmp_path, clock)
    recorder.start("night")
    for _ in range(60):
        clock.sleep(1 / 40)
        loop.tick(clock())
    recorder.stop()
    path = tmp_path / "recordings" / "night.frames"
    until(path.is_file)
    reader = FramesReader(path)
    assert [data.tobytes() for _, data in (reader.frame(n) for n in range(reader.frames))] == [
        one.tobytes() for _, one in seen.frames
    ]
    reader.close()

    loop.played_back.prepare("night")
    recorded = [one for _, one in seen.frames]
    times = [t for t, _ in seen.frames]
    loop.post(action({"do": "stop-all", "seconds": 0}))
    loop.post(action({"do": "play-recording", "name": "night", "seconds": 1.0, "loops": False}))
    since = clock()
    loop.tick(since)
    assert loop.state.recorded.since == since
    for t in (since + 0.2, since + 0.41, since + 0.9):
        loop.tick(t)
        at = np.searchsorted(np.array(times) - times[0], t - since + 1e-9, side="right") - 1
        np.testing.assert_array_equal(seen.frames[-1][1], recorded[at])
    found = traced(loop.state, loop.sent, "2", "intensity", since + 0.9, 1).steps[-1]
    assert (found.what, found.who) == ("recorded", "night")
    assert found.value == pytest.approx([seen.frames[-1][1][0, 14] / 2.55], abs=0.01)
    loop.post(action({"do": "grand", "value": 0.5}))
    loop.tick(since + 0.95)
    at = np.searchsorted(np.array(times) - times[0], since + 0.95 - since + 1e-9, side="right") - 1
    dimmed, plain = seen.frames[-1][1].astype(int), recorded[at].astype(int)
    assert np.abs(dimmed[0, 4] - plain[0, 4] / 2) <= 1
    loop.post(action({"do": "blackout", "on": True}))
    loop.tick(since + 0.97)
    assert not seen.frames[-1][1][0, [4, 14, 24, 34]].any(), "blackout is stronger"
    loop.tick(since + 1.5)
    assert loop.state.recorded is None, "it ends by itself"
    loop.played_back.close()


def test_a_recording_that_goes_round_or_cannot_be_read(tmp_path):
    loop, _, seen = started(tmp_path)
    loop.post(action({"do": "play-recording", "name": "nothing", "seconds": 1.0, "loops": True}))
    loop.tick(200.0)
    until(lambda: any("nothing" in one["text"] for one in loop.troubles.report()))
    loop.tick(200.1)
    assert seen.frames[-1][1].any(), "the lights go on without it"
    assert loop.state.recorded.position(loop.state.recorded.since + 3.25) == pytest.approx(0.25)


def test_what_played_while_levels_dimmed_leaves_nothing_behind(tmp_path):
    content = tmp_path / "recordings" / "full.frames"
    content.parent.mkdir()
    with content.open("wb") as file:
        writer = FramesWriter(file, [1])
        for t in (0.0, 5.0):
            writer.write(t, np.full((1, 512), 255, np.uint8))
    clock = Clock()
    loops = [started(tmp_path, clock) for _ in range(2)]
    loops[0][0].played_back.prepare("full")
    for n in range(40):
        for played, (loop, _, _) in enumerate(loops):
            if n == 1:
                loop.post(action({"do": "grand", "value": 0.5}))
            if not played and n in (10, 20):
                loop.post(action({"do": "play-recording", "name": "full" if n == 10 else "", "seconds": 5.0}))
            loop.tick(clock())
        clock.sleep(1 / 40)
    (_, _, with_it), (_, _, without) = loops
    for n, ((_, one), (_, other)) in enumerate(zip(with_it.frames, without.frames, strict=True)):
        assert (one != other).any() == (10 <= n < 20), n
    loops[0][0].played_back.close()


def test_a_recording_that_is_damaged_within_goes_out_and_one_made_anew_plays(tmp_path):
    clock = Clock()
    loop, _, seen = started(tmp_path, clock)
    content = tmp_path / "recordings" / "odd.frames"
    content.parent.mkdir()
    with content.open("wb") as file:
        writer = FramesWriter(file, [1])
        writer.write(0.0, np.full((1, 512), 7, np.uint8))
        file.write(b"\0" * 6 + b"\xf0\x3f" + b"\x01\x00" + b"\x09\x00" + bytes(512))  # at 1 s, a tenth universe of one
    for damaged in (True, False):
        if not damaged:
            with content.open("wb") as file:
                FramesWriter(file, [1]).write(0.0, np.full((1, 512), 9, np.uint8))
        loop.played_back.prepare("odd")
        loop.post(action({"do": "play-recording", "name": "odd", "seconds": 5.0}))
        loop.tick(clock())
        assert (seen.frames[-1][1] == (7 if damaged else 9)).all()
        clock.sleep(2.0)
        loop.tick(clock())
        assert (loop.health.errors, (seen.frames[-1][1] == 9).all()) == (0, not damaged)
    loop.played_back.close()


class FullDisk(io.BytesIO):
    """A file on a disk with room for so many bytes."""

    room = 20_000

    def write(self, content):
        if self.tell() + len(content) > self.room:
            raise OSError(errno.ENOSPC, "No space left on device")
        return super().write(content)


def test_a_full_disk_ends_a_recording_and_what_was_written_is_kept(tmp_path):
    troubles = Troubles()
    written = []

    class Kept(FullDisk):
        def close(self):
            written.append(self.getvalue())
            super().close()

    recorder = Recorder(tmp_path, troubles, lambda path: Kept())
    recorder.start("night")
    for t, data in frames(400):
        recorder.send(UNIVERSES, data, t)
    until(lambda: troubles.report())
    assert "No space left on device. What was written is kept. Make room on the disk." in troubles.report()[0]["text"]
    assert "No space left" in recorder.told().ended
    (tmp_path / "half.frames").write_bytes(written[0] + b"\x00" * 7)
    reader = FramesReader(tmp_path / "half.frames")
    plain = list(frames(reader.frames))
    assert reader.frames > 20
    np.testing.assert_array_equal(reader.frame(reader.frames - 1)[1], plain[-1][1])
    reader.close()


def test_frames_that_the_disk_cannot_take_are_counted_and_do_not_grow_in_memory(tmp_path):
    goes_on = threading.Event()

    class Slow(io.BytesIO):
        def write(self, content):
            goes_on.wait(30)
            return super().write(content)

    recorder = Recorder(tmp_path, Troubles(), lambda path: Slow())
    recorder.start("night")
    for t, data in frames(400):
        recorder.send(UNIVERSES, data, t)
    assert recorder.told().lost >= 400 - 256 - 2
    assert recorder._job.waiting.qsize() <= 256
    goes_on.set()
    recorder.stop()


def test_another_rig_ends_a_recording(tmp_path):
    recorder = Recorder(tmp_path, Troubles())
    recorder.start("night")
    recorder.send(UNIVERSES, np.zeros((2, 512), np.uint8), 0.0)
    recorder.send((1, 2, 3), np.zeros((3, 512), np.uint8), 0.1)
    assert "universes of the rig have changed" in recorder.told().ended


@pytest.fixture(scope="module")
def demo_program(opened_demo):
    with opened_demo.reading() as session:
        parts = compiling.all_parts(session)
    return Compiler().take(ShowUpdate("t", 1, parts, whole=True))


def test_bytes_read_back_give_the_same_bytes_again_on_the_demo(demo_program):
    stage, back = Offline(demo_program), ReadBack(demo_program.rig)
    for n, document in enumerate(one for one in demo_program.opening):
        stage.act(action(document) if isinstance(document, dict) else document, 0.001 * n)
    for t in (1.0, 2.3, 7.9):
        values = stage.at(t).copy()
        sent = stage.bytes(values).copy()
        again = back.values(sent)
        np.testing.assert_array_equal(stage.bytes(again), sent)
        lit = demo_program.rig.heads.has[INTENSITY] & ~demo_program.rig.dims
        np.testing.assert_allclose(again[INTENSITY, lit], values[INTENSITY, lit], atol=0.5)
        assert np.isfinite(again).all()


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"", "does not begin with ZBFRAMES"),
        (b"RIFF" + b"\0" * 40, "does not begin with ZBFRAMES"),
        (b"ZBFRAMES\x02\x00\x01\x00\x01\x00", "of version 2"),
        (b"ZBFRAMES\x01\x00\x00\x00", "0 universes"),
        (b"ZBFRAMES\x01\x00\x02\x00\x01\x00", "2 universes"),
        (b"ZBFRAMES\x01\x00\x01\x00\x01\x00", "no whole frame"),
        (b"ZBFRAMES\x01\x00\x01\x00\x01\x00" + b"\0" * 8 + b"\x05\x00" + b"\0" * 9000, "Frame 1 is damaged"),
        (b"ZBFRAMES\x01\x00\x01\x00\x01\x00" + b"\0" * 10 + b"\0" * 10, "Frame 2 is damaged"),
    ],
    ids=range(8),
)
def test_files_that_are_no_frames_are_told(tmp_path, content, said):
    path = tmp_path / "odd.frames"
    path.write_bytes(content)
    with pytest.raises(Exception, match=said):
        FramesReader(path)


def test_frames_read_in_any_order_are_those_that_were_written(tmp_path):
    plain = list(frames(1200, 7))
    with (tmp_path / "a.frames").open("wb") as file:
        writer = FramesWriter(file, UNIVERSES)
        for t, data in plain:
            writer.write(t + 3.0, data)
    assert (tmp_path / "a.frames").stat().st_size < 0.6 * 1200 * 2 * 512, "only what changes is written"
    reader = FramesReader(tmp_path / "a.frames")
    for number in np.random.default_rng(3).integers(0, 1200, 60).tolist():
        t, data = reader.frame(number)
        assert t == pytest.approx(plain[number][0])
        np.testing.assert_array_equal(data, plain[number][1])
    np.testing.assert_array_equal(reader.at(10.01), plain[440][1])
    np.testing.assert_array_equal(reader.at(999.0), plain[-1][1])
    reader.close()
