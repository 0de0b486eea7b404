"""MIDI and OSC messages against what the standards say, byte by byte, and read back from a stream in pieces."""

import struct

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zarabanda.protocols import midi, osc

CHANNEL, SEVEN = st.integers(1, 16), st.integers(0, 127)


@given(CHANNEL, SEVEN, st.integers(1, 127), st.integers(1, 128))
def test_channel_messages_are_their_status_and_seven_bits_each(channel, first, second, program):
    number = channel - 1
    for content, data in (
        ({"kind": "note", "note": first, "velocity": second}, [0x90 + number, first, second]),
        ({"kind": "note off", "note": first}, [0x80 + number, first, 0]),
        ({"kind": "controller", "controller": first, "value": second}, [0xB0 + number, first, second]),
        ({"kind": "program", "program": program}, [0xC0 + number, program - 1]),
    ):
        assert list(midi.encode({**content, "channel": channel})) == data


@given(
    st.sampled_from(list(midi.COMMANDS)),
    st.sampled_from(list(midi.FORMATS)),
    SEVEN,
    st.from_regex(r"[0-9]{1,3}(\.[0-9])?", fullmatch=True),
)
def test_show_control_names_device_format_command_and_cue(command, kind, to, cue):
    content = {"kind": "show control", "command": command, "format": kind, "to": to, "cue": cue, "list": "7", "macro": 3}
    tail = [*cue.encode(), 0, ord("7")] if command in midi.WITH_CUE else [3] if command == "fire" else []
    assert list(midi.encode(content)) == [0xF0, 0x7F, to, 2, midi.FORMATS[kind], midi.COMMANDS[command], *tail, 0xF7]


@given(st.lists(st.tuples(CHANNEL, SEVEN), min_size=1, max_size=6), st.data())
def test_a_stream_is_read_however_it_is_cut(notes, data):
    whole = b"".join(midi.encode({"kind": "note", "channel": channel, "note": note, "velocity": 9}) for channel, note in notes)
    reader, found, at = midi.Reader(), [], 0
    while at < len(whole):
        size = data.draw(st.integers(1, 5))
        found += reader.in_words(whole[at : at + size])
        at += size
    assert found == [f"note {note} on channel {channel} at 9" for channel, note in notes]


def padded(text):
    raw = text.encode() + b"\0"
    return raw + b"\0" * (-len(raw) % 4)


@given(
    st.integers(-(2**31), 2**31 - 1), st.floats(-1000, 1000, width=32), st.text("abc é", min_size=1, max_size=9), st.booleans()
)
def test_osc_has_its_types_and_is_padded_to_four_bytes(whole, number, text, yes):
    typed = f'{whole} {number!r} "{text}" {"true" if yes else "false"}'
    expected = padded("/a/b") + padded(",ifs" + ("T" if yes else "F"))
    expected += struct.pack(">if", whole, number) + padded(text)
    if "e" not in repr(number):
        assert osc.encode({"address": "/a/b", "arguments": typed}) == expected


@pytest.mark.parametrize(
    ("typed", "read"),
    [
        ("", []), ("  ", []), ("1 1.0 -2", [1, 1.0, -2]), ("true false TRUE", [True, False, "TRUE"]), ("nan inf", ["nan", "inf"]),
        ('"a \\"b\\" c" d', ['a "b" c', "d"]), ('"" x', ["", "x"]),
    ],
)  # fmt: skip
def test_arguments_are_read_as_they_are_typed(typed, read):
    found = osc.read_arguments(typed)
    assert found == read
    assert [type(one) for one in found] == [type(one) for one in read]


@pytest.mark.parametrize("data", [b"", b"/", b"no address", b"/a\0\0\0,i\0\0", b"#bundle\0"])
def test_a_packet_that_cannot_be_read_says_so(data):
    with pytest.raises(ValueError, match="no OSC packet"):
        osc.in_words(data)
