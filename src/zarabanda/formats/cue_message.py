"""What a cue sends when it is gone to: to outside devices by MIDI, MIDI Show Control and OSC, and to other lists and controls."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, field_validator, model_validator

from zarabanda.core.explain.amounts import amount
from zarabanda.protocols import midi, osc

from . import inward_message

Seconds = Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)]
Channel = Annotated[int, Field(ge=1, le=16)]
SevenBits = Annotated[int, Field(ge=0, le=127)]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
CueText = Annotated[str, Field(max_length=40, pattern=r"^[0-9.]*$")]
FAMILIES = Literal["intensity", "position", "colour", "beam"]
_ADDRESS = re.compile(r"^(/[^\s#*,?\[\]{}/\x00-\x1f\x7f-\uffff]+)+$")


class _Message(BaseModel):
    """wait: s after the message before it, of the first: after the go."""

    model_config = ConfigDict(extra="forbid")
    wait: Seconds = 0.0


class _ToDevice(_Message):
    """device: which, by its number; is_state: it says how things are, and is told again after a jump in a song."""

    device: int
    is_state: bool = False


class Note(_ToDevice):
    """A MIDI note. length: s after which it ends, 0: it goes on."""

    kind: Literal["note"]
    channel: Channel = 1
    note: SevenBits
    velocity: Annotated[int, Field(ge=1, le=127)] = 100
    length: Seconds = 0.2


class NoteOff(_ToDevice):
    """The end of a MIDI note."""

    kind: Literal["note off"]
    channel: Channel = 1
    note: SevenBits


class Controller(_ToDevice):
    """A MIDI controller's value."""

    kind: Literal["controller"]
    channel: Channel = 1
    controller: SevenBits
    value: SevenBits


class ProgramChange(_ToDevice):
    """A MIDI program, counted from 1."""

    kind: Literal["program"]
    channel: Channel = 1
    program: Annotated[int, Field(ge=1, le=128)]


class ShowControl(_ToDevice):
    """A command of MIDI Show Control. to: number of the device, 112 to 126 groups of them, 127 all; cue, list: figures and
    points; macro: of fire."""

    kind: Literal["show control"]
    command: Literal["go", "stop", "resume", "load", "fire", "all off", "restore", "reset", "go off"] = "go"
    format: Literal["lighting", "sound", "machinery", "video", "projection", "all"] = "all"
    to: SevenBits = midi.ALL_DEVICES
    cue: CueText = ""
    list: CueText = ""
    macro: SevenBits = 0


class Osc(_ToDevice):
    """An OSC message. arguments: as they are typed, see `protocols.osc.read_arguments`."""

    kind: Literal["osc"]
    address: Annotated[str, Field(max_length=200)]
    arguments: Annotated[str, Field(max_length=1000)] = ""

    @field_validator("arguments")
    @classmethod
    def _typed(cls, text: str) -> str:
        osc.read_arguments(text)
        return text.strip()

    @field_validator("address")
    @classmethod
    def _reads(cls, text: str) -> str:
        if not _ADDRESS.match(text):
            raise ValueError("an OSC address begins with / and has no spaces nor any of # * , ? [ ] { }, such as /clip/play")
        return text


class ToList(_Message):
    """An action on another list. cue: by its number in the show, of go to; value: 0…1, of level; seconds: of release."""

    kind: Literal["list"]
    list: int
    do: Literal["go", "go to", "back", "pause", "resume", "release", "level"] = "go"
    cue: int | None = None
    value: Share = 1.0
    seconds: Seconds = 2.0

    @model_validator(mode="after")
    def _fits(self) -> ToList:
        if self.do == "go to" and self.cue is None:
            raise ValueError("say which cue it goes to")
        return self


class ToControl(_Message):
    """An action on a fader or button of a page. value: 0…1, of level."""

    kind: Literal["control"]
    control: int
    do: Literal["press", "let go", "level"] = "press"
    value: Share = 1.0


class StopEffects(_Message):
    """Stop all effects, or what they do in one family, in a time."""

    kind: Literal["stop effects"]
    family: FAMILIES | None = None
    seconds: Seconds = 0.4


class ReleaseEverything(_Message):
    """Let go of all that is not protected, in a time."""

    kind: Literal["release everything"]
    seconds: Seconds = 2.0


CueMessage = Annotated[
    Note | NoteOff | Controller | ProgramChange | ShowControl | Osc | ToList | ToControl | StopEffects | ReleaseEverything
    | inward_message.InwardMessage,
    Field(discriminator="kind"),
]  # fmt: skip
INWARD = ("list", "control", "stop effects", "release everything", *inward_message.KINDS)
"""Kinds that act on the show itself."""


def speaks(kind: str) -> str:
    """What a device must speak to be sent a message of this kind; empty: it goes to no device."""
    return "" if kind in INWARD else "OSC" if kind == "osc" else "MIDI"


def in_words(message: Mapping[str, Any], names: Mapping[tuple[str, int], str]) -> str:
    """A message as it is read, without its wait. names: of devices, lists, cues and controls, by table and number."""
    kind = message["kind"]
    if kind in inward_message.KINDS:
        return inward_message.in_words(message, names)
    if kind == "stop effects":
        return f"stop {message['family'] or 'all'} effects in {amount(message['seconds'])} s"
    if kind == "release everything":
        return f"release everything that is not protected in {amount(message['seconds'])} s"
    if kind == "list":
        return f"{names.get(('cue_list', message['list']), 'a list that is gone')}: {_of_list(message, names)}"
    if kind == "control":
        level = f"level {amount(100 * message['value'])} %"
        what = {"press": "pressed", "let go": "let go", "level": level}[message["do"]]
        return f"{names.get(('control', message['control']), 'a control that is gone')}: {what}"
    return f"{names.get(('device', message['device']), 'a device that is gone')}: {content_words(message)}"


def _of_list(message: Mapping[str, Any], names: Mapping[tuple[str, int], str]) -> str:
    match message["do"]:
        case "go to":
            return f"go to {names.get(('cue', message['cue']), 'a cue that is gone')}"
        case "level":
            return f"level {amount(100 * message['value'])} %"
        case "release":
            return f"release in {amount(message['seconds'])} s"
    return str(message["do"])


def content_words(message: Mapping[str, Any]) -> str:
    """What goes to a device.

    >>> content_words({"kind": "osc", "address": "/clip", "arguments": "3 on"})
    '/clip 3 "on"'
    """
    if message["kind"] == "osc":
        return osc.in_words(osc.encode(message))[0]
    words = midi.in_words(midi.encode(message))[0]
    return f"{words} for {amount(message['length'])} s" if message.get("length") else words
