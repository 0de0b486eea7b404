"""Presses as Standard MIDI Files: there and back within half a tick, files that others wrote byte by byte, and broken ones."""

import struct
import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.thoroughness import scaled, thorough
from zarabanda.core.timecode.beat_grid import BeatGrid
from zarabanda.errors import ZarabandaError
from zarabanda.formats.midi_file import Press, presses_of, read, written

presses = st.lists(
    st.tuples(st.floats(0, 600), st.floats(0.01, 20), st.sampled_from(["hold", "on", "off"])), min_size=1, max_size=30
)
grids = st.builds(
    lambda first, bpms, in_bar: BeatGrid(first, tuple((n * 16.0, bpm) for n, bpm in enumerate(bpms)), in_bar),
    st.floats(-3, 20), st.lists(st.floats(30, 300), min_size=1, max_size=4), st.integers(2, 7),
)  # fmt: skip


def apart(rows):
    """Presses of one kind that do not touch: what is pressed again while it is held has no place in notes."""
    found, ends = [], {}
    for at, length, does in sorted(rows):
        length = length if does == "hold" else 0.0
        if at > ends.get(does, -1):
            found.append(Press(at, length, does))
            ends[does] = at + length + 0.2
    return found


@given(presses, grids)
@thorough(60)
def test_presses_come_back_within_half_a_millisecond(rows, grid):
    given_ = apart(rows)
    lines = read(written([("Flash", given_), ("None", [])], grid))
    back = sorted((one for line in lines for one in presses_of(line, "Flash")), key=lambda one: (one.does, one.at))
    assert len(back) == len(given_)
    for one, other in zip(sorted(given_, key=lambda one: (one.does, one.at)), back, strict=True):
        assert one.does == other.does
        assert abs(one.at - other.at) < 6e-4
        assert abs(one.length - other.length) < 1.2e-3


def chunk(kind, content):
    return kind + struct.pack(">I", len(content)) + content


def midi(division, *tracks):
    return chunk(b"MThd", struct.pack(">HHh", 1, len(tracks), division)) + b"".join(
        chunk(b"MTrk", one + b"\x00\xff\x2f\x00") for one in tracks
    )


TEMPO = b"\x00\xff\x51\x03\x07\xa1\x20" + b"\x83\x60\xff\x51\x03\x0f\x42\x40"  # 120 BPM, after 480 ticks 60 BPM
KICK = b"\x00\xff\x03\x04Kick" + b"\x00\x99\x24\x64" + b"\x81\x70\x24\x00" + b"\x83\x60\x24\x50" + b"\x81\x70\x89\x24\x00"


def test_a_file_that_others_wrote_is_read_by_its_tempos():
    (line,) = read(midi(480, TEMPO, KICK))
    assert (line.called, line.channel, line.key) == ("Kick, C2", 10, "1/10/36")
    assert line.presses == [Press(0.0, 0.25), Press(1.0, 0.5)]  # 240 ticks at 120; then 240 at 120 and 240 at 60 BPM
    assert presses_of(line, "Kick")[0].does == "hold"


def test_time_by_frames_is_read():
    (line,) = read(midi(-(25 << 8) + 40, b"\x00\x90\x3c\x40\x87\x68\x80\x3c\x00"))  # 25 frames of 40 ticks; 1,000 ticks
    assert line.presses == [Press(0.0, 1.0)]


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "does not begin with MThd"),
        (b"RIFF" + bytes(40), "does not begin with MThd"),
        (midi(480, TEMPO)[:-9], "cannot be read"),
        (midi(480, TEMPO), "no note"),
        (midi(0, TEMPO, KICK), "no ticks"),
        (b"MThd" + bytes(2 << 20), "2,048 kB"),
        (midi(480, *[b""] * 600, KICK), "512 tracks"),
    ],
    ids=lambda value: value if isinstance(value, str) else "file",
)
def test_what_is_no_midi_file_is_told(content, words):
    with pytest.raises(ZarabandaError) as caught:
        read(content)
    assert words in caught.value.message
    assert caught.value.message.endswith(".")


def test_mutated_files_are_read_or_refused(mutated):
    whole = written([("Flash", [Press(n * 0.5, 0.2) for n in range(40)])], BeatGrid())
    used = 0
    for content in mutated(whole, whole, lambda content: content, 1000):
        begun = time.process_time()
        try:
            used += bool(read(content))
        except ZarabandaError:
            continue
        finally:
            assert time.process_time() - begun < 5
    assert used >= scaled(50)
