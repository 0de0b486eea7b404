"""Messages to devices: what a simulated one gets of each kind, and one that is not there, which holds up nothing."""

import time

import pytest
from pydantic import TypeAdapter, ValidationError

from tests.waiting import until
from zarabanda.formats.cue_message import CueMessage
from zarabanda.messages import DevicePart
from zarabanda.network_settings import NetworkSettings
from zarabanda.outputs.devices import Devices
from zarabanda.simulators.message_sink import caption_screen, pixel_server
from zarabanda.workers import Troubles

READER = TypeAdapter(CueMessage)
GOT = [
    ({"kind": "osc", "device": 1, "address": "/clip/play", "arguments": 'tide 6.0 2 "two words" true'},
     '/clip/play "tide" 6.0 2 "two words" true'),
    ({"kind": "osc", "device": 1, "address": "/blackout"}, "/blackout"),
    ({"kind": "note", "device": 2, "note": 60}, "note 60 on channel 1 at 100"),
    ({"kind": "note off", "device": 2, "channel": 16, "note": 127}, "note 127 on channel 16 off"),
    ({"kind": "controller", "device": 2, "channel": 3, "controller": 7, "value": 0}, "controller 7 on channel 3 to 0"),
    ({"kind": "program", "device": 2, "program": 128}, "program 128 on channel 1"),
    ({"kind": "show control", "device": 2, "command": "go", "format": "video", "cue": "12.5", "list": "2"},
     "show control, video: go cue 12.5 of list 2"),
    ({"kind": "show control", "device": 2, "command": "fire", "to": 5, "macro": 9},
     "show control, all, device 5: fire macro 9"),
    ({"kind": "show control", "device": 2, "command": "all off"}, "show control, all: all off"),
]  # fmt: skip


@pytest.fixture
def sinks():
    made = {1: pixel_server(), 2: caption_screen()}
    yield made
    for sink in made.values():
        sink.vanish(True)


@pytest.fixture
def devices(sinks):
    troubles = Troubles()
    addresses = {sink.speaks: (sink.host, sink.port) for sink in sinks.values()}
    made = Devices(addresses, lambda: NetworkSettings(), troubles)
    made.set([DevicePart(1, "Pixel server", "OSC", "simulator"), DevicePart(2, "Caption screen", "MIDI", "simulator")])
    made.told = troubles
    yield made
    made.close()


def state(devices, number):
    return next(one for one in devices.report() if one.id == number)


@pytest.mark.parametrize(("message", "words"), GOT)
def test_a_device_gets_every_kind_of_message(devices, sinks, message, words):
    read = READER.validate_python(message).model_dump()
    devices.send(read["device"], read)
    assert sinks[read["device"]].wait_for(words)
    until(lambda: state(devices, read["device"]).last == words)


@pytest.mark.parametrize("number", [1, 2])
def test_one_that_is_not_there_is_told_and_comes_back(devices, sinks, number):
    message = {1: {"address": "/a", "arguments": ""}, 2: {"kind": "program", "channel": 1, "program": 3}}[number]
    devices.send(number, message)
    until(lambda: sinks[number].count == 1)
    sinks[number].vanish(True)
    begun = time.monotonic()
    for _ in range(50):
        devices.send(number, message)
    assert time.monotonic() - begun < 0.2, "nothing waits for it"
    until(lambda: state(devices, number).state == "failed")
    assert "did not reach it" in state(devices, number).text
    assert [one["who"] for one in devices.told.report()] == [devices._devices[number].part.name]
    sinks[number].vanish(False)
    until(lambda: devices.send(number, message) or state(devices, number).state == "ready")
    assert devices.told.report() == []


def test_nothing_leaves_this_machine_that_was_not_agreed_to(devices):
    devices.set([DevicePart(3, "Far", "OSC", "192.0.2.9", 8000), DevicePart(4, "Keys", "MIDI", "No such port")])
    devices.send(3, {"address": "/a", "arguments": ""})
    devices.send(4, {"kind": "program", "channel": 1, "program": 3})
    until(lambda: all(one.failed for one in devices.report()))
    assert "before you have agreed to it" in state(devices, 3).text
    assert "There is no MIDI port “No such port” now" in state(devices, 4).text


@pytest.mark.parametrize(
    ("message", "says"),
    [
        ({"kind": "osc", "device": 1, "address": "clip"}, "an OSC address begins with /"),
        ({"kind": "osc", "device": 1, "address": "/a", "arguments": '"open'}, "is not closed"),
        ({"kind": "osc", "device": 1, "address": "/a", "arguments": "3000000000"}, "out of range"),
        ({"kind": "program", "device": 2, "program": 0}, "greater than or equal to 1"),
        ({"kind": "note", "device": 2, "note": 128}, "less than or equal to 127"),
        ({"kind": "list", "list": 1, "do": "go to"}, "say which cue"),
        ({"kind": "show control", "device": 2, "cue": "one"}, "should match pattern"),
    ],
)
def test_a_message_that_cannot_be_sent_is_refused_with_what_is_wrong(message, says):
    with pytest.raises(ValidationError, match=says):
        READER.validate_python(message)
