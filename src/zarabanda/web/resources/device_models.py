"""Bodies of the API on outside devices."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from zarabanda.formats.device_document import DeviceDocument

from ..parts import Id, Name, Part


class DeviceView(BaseModel):
    """A device of the show. words: where it is; used: how many cues send to it."""

    id: int
    name: str
    document: DeviceDocument
    words: str
    used: int


class ReceivedView(BaseModel):
    """A message that a simulated device got. at: s since 1970."""

    at: float
    words: str


class SimulatedDevice(BaseModel):
    """A simulated device, and what it got, newest first. vanished: it is unplugged; bad: what it could not read."""

    name: str
    speaks: Literal["OSC", "MIDI"]
    host: str
    port: int
    vanished: bool
    count: int
    bad: int
    last_bad: str
    received: list[ReceivedView]


class DevicesView(BaseModel):
    """All devices; the MIDI ports of this machine; the simulated devices, none where they do not run."""

    devices: list[DeviceView]
    midi_ports: list[str]
    simulated: list[SimulatedDevice]


class DeviceContent(Part):
    """A device. agreed: the user knows that messages will go there."""

    name: Name
    document: DeviceDocument
    agreed: bool = False


class DevicePath(BaseModel):
    """Which device."""

    device_id: Id


class Unplug(Part):
    """Unplug a simulated device, or plug it in again."""

    speaks: Literal["OSC", "MIDI"]
    gone: bool = True
