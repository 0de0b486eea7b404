"""Routes in one line: read, written again, refused with what is wrong, and told in words."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from zarabanda.errors import ZarabandaError
from zarabanda.formats.route_document import RouteDocument, as_text, ranges, read, read_line
from zarabanda.formats.route_words import sentence, what_goes_out

LINES = [
    ("1–8 to 192.0.2.20 as E1.31", {"universes": "1–8", "to": "192.0.2.20"}),
    ("1-8, 12 to 192.0.2.20", {"universes": "1–8, 12", "to": "192.0.2.20"}),
    ("universes 3 to the simulator as art-net", {"universes": "3", "to": "simulator", "protocol": "Art-Net"}),
    ("ALL to Multicast as sACN, over eth0, priority 120, sync 7000", {
        "to": "multicast", "over": "eth0", "priority": 120, "sync": 7000,
    }),
    ("all to broadcast over eth0 from 0 sync 30 Hz", {
        "to": "broadcast", "protocol": "Art-Net", "over": "eth0", "first": 0, "sync": 1, "rate": 30,
    }),
    ("9 to 192.0.2.20:6000 at 12.5 Hz always from 1", {
        "universes": "9", "to": "192.0.2.20", "port": 6000, "rate": 12.5, "always": True, "first": 1,
    }),
]  # fmt: skip


@pytest.mark.parametrize(("line", "fields"), LINES)
def test_a_line_is_read_and_written_again(line, fields):
    document = read_line(line)
    assert document == read(fields)
    assert read_line(document.line) == document


@given(
    st.lists(st.integers(1, 63_000), min_size=1, max_size=8, unique=True),
    st.builds(dict, rate=st.sampled_from([1, 12.5, 44]), priority=st.integers(0, 200), always=st.booleans(),
              over=st.sampled_from(["", "eth0"]), port=st.sampled_from([0, 7000])),
    st.sampled_from(["192.0.2.20", "multicast"]),
)  # fmt: skip
def test_every_route_is_read_from_its_own_line(numbers, more, to):
    document = RouteDocument(universes=", ".join(map(str, numbers)), to=to, **more)
    assert read_line(document.line) == document
    assert ranges(as_text(ranges(document.universes))) == ranges(document.universes)
    part = document.part(1, on=True)
    near = {n + step for n in numbers for step in (-1, 0, 1)}
    assert {n for n in near if part.carries(n)} == set(numbers)


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("", "is no route"), ("1–8", "is no route"), ("1–8 to node.example", "is no address"),
        ("1–8 to 300.1.1.1", "is no address"),
        ("1–8 to 239.255.0.1", "write multicast"), ("1–8 to 255.255.255.255", "write broadcast"),
        ("1–8 to 0.0.0.0", "not the address"),
        ("1–8, 5 to 192.0.2.20", "universe 5 stands twice"), ("8–1 to 192.0.2.20", "lower one first"),
        ("0 to 192.0.2.20", "1 to 63999"),
        ("eight to 192.0.2.20", "no universe"), ("1 to broadcast as E1.31", "not sent by broadcast"),
        ("1 to multicast as Art-Net", "not sent by multicast"), ("1 to 192.0.2.20 loudly", "'loudly' is not understood"),
        ("1 to 192.0.2.20 priority 300", "200"), ("1 to 192.0.2.20 90 Hz", "44"),
        ("40000 to 192.0.2.20 as Art-Net", "out of range"),
        ("1–9 to 192.0.2.20 from 63999", "out of range"), ("1 to 192.0.2.20 from 0", "out of range"),
        ("1–8 to 192.0.2.20 sync 5", "cannot synchronise"), ("1 to simulator:99", "its own address"),
        ("1 to 192.0.2.20:99999", "65535"),
        (f"{', '.join(str(2 * n + 1) for n in range(65))} to 192.0.2.20", "too many"),
    ],
)  # fmt: skip
def test_what_is_no_route_is_refused_with_what_to_do(line, said):
    with pytest.raises(ZarabandaError) as error:
        read_line(line)
    assert said.lower() in error.value.message.lower()


@pytest.mark.parametrize(
    ("line", "words", "agreed"),
    [
        ("1–8 to 192.0.2.20", "Universes 1–8 go to 192.0.2.20 as E1.31, priority 100, up to 44 frames a second.",
         "Universes 1–8 will be sent as E1.31 to 192.0.2.20, UDP port 5568"),
        ("3 to multicast over eth0, always", "Universe 3 goes by multicast to all that listen for them as E1.31, over eth0",
         "to every device on the network that listens for it (multicast, from 239.255.0.1 on) over eth0"),
        ("all to broadcast, sync", "go by broadcast to everything on the network as Art-Net, shown together by ArtSync",
         "whether it wants it or not (broadcast)"),
        ("all to 192.0.2.20:7000 from 9 sync 7000", "port 7000, as E1.31, numbered from 9 there, priority 100, shown together by "
         "universe 7000", "UDP port 7000"),
    ],
)  # fmt: skip
def test_a_route_is_told_in_words(line, words, agreed):
    document = read_line(line)
    assert words in sentence(document)
    assert agreed in what_goes_out(document.part(1, on=True))
