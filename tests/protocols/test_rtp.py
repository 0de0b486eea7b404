"""Sound over RTP: what is packed comes out again, however the stream is cut; what is no sound is left out."""

import struct

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from zarabanda.protocols.rtp import Unframer, packet, samples_of

SOUND = st.lists(st.floats(-1, 1, width=32), max_size=50).map(np.array)


@given(st.lists(SOUND, min_size=1, max_size=5), st.lists(st.integers(1, 40), min_size=1))
def test_packets_come_out_as_they_went_in_however_the_stream_is_cut(sounds, cuts):
    stream = b"".join(packet(one, n, n * 441, 7) for n, one in enumerate(sounds))
    unframer, found, at = Unframer(), [], 0
    while at < len(stream):
        size = cuts[len(found) % len(cuts)]
        found += unframer.read(stream[at : at + size])
        at += size
    assert [len(one) for one in found] == [len(one) for one in sounds]
    assert unframer.broken == 0
    for got, sent in zip(found, sounds, strict=True):
        assert got == pytest.approx(sent, abs=1e-4)


def raw(first=0x80, kind=11, body=b"\x7f\xff\x80\x00", more=b""):
    return struct.pack("!BBHII", first, kind, 1, 2, 3) + more + body


@pytest.mark.parametrize(
    ("data", "wanted"),
    [
        (raw(), [1.0, -1.0]),
        (raw(kind=0x80 | 11), [1.0, -1.0]),  # marked
        (raw(kind=10), [0.0]),  # two channels: their mean
        (raw(first=0x82, more=bytes(8)), [1.0, -1.0]),  # two contributing sources
        (raw(first=0x90, more=struct.pack("!HHI", 1, 1, 9)), [1.0, -1.0]),  # an extension of one word
        (raw(first=0xA0, body=b"\x7f\xff\x00\x02"), [1.0]),  # padded by two bytes
    ],
)  # fmt: skip
def test_headers_are_read_as_rfc_3550_has_them(data, wanted):
    assert samples_of(data) == pytest.approx(wanted, abs=1e-4)


@pytest.mark.parametrize("data", [b"", raw()[:11], raw(first=0x40), raw(kind=0), raw(body=b"\x00"), raw(first=0xA0, body=b"\xff"),
                                  raw(first=0x9F)])  # fmt: skip
def test_what_is_no_sound_that_can_be_read_is_counted(data):
    assert samples_of(data) is None
    unframer = Unframer()
    assert list(unframer.read(struct.pack("!H", len(data)) + data)) == []
    assert unframer.broken == 1
