"""MIDI messages of cues as bytes, and what received ones say (MIDI 1.0; MIDI Show Control, RP-002)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import mido

COMMANDS = {
    "go": 0x01, "stop": 0x02, "resume": 0x03, "load": 0x05, "fire": 0x07, "all off": 0x08, "restore": 0x09, "reset": 0x0A,
    "go off": 0x0B,
}  # fmt: skip
"""Commands of MIDI Show Control, by their codes."""
WITH_CUE = ("go", "stop", "resume", "load", "go off")
"""Those that name a cue; `fire` names a macro by a number, the others nothing."""
FORMATS = {"lighting": 0x01, "sound": 0x10, "machinery": 0x20, "video": 0x30, "projection": 0x40, "all": 0x7F}
"""Kinds of devices that a command is for."""
ALL_DEVICES = 127
_REAL_TIME, _SHOW_CONTROL = 0x7F, 0x02


def encode(content: Mapping[str, Any]) -> bytes:
    """The bytes of a message of a cue: see `formats.cue_message`. Channels and programs count from 1 there, from 0 here.

    >>> encode({"kind": "program", "channel": 1, "program": 5}).hex(" ")
    'c0 04'
    >>> encode({"kind": "show control", "command": "go", "format": "sound", "to": 127, "cue": "12.5", "list": ""}).hex(" ")
    'f0 7f 7f 02 10 01 31 32 2e 35 f7'
    """
    channel = content.get("channel", 1) - 1
    match content["kind"]:
        case "note":
            message = mido.Message("note_on", channel=channel, note=content["note"], velocity=content["velocity"])
        case "note off":
            message = mido.Message("note_off", channel=channel, note=content["note"], velocity=0)
        case "controller":
            message = mido.Message("control_change", channel=channel, control=content["controller"], value=content["value"])
        case "program":
            message = mido.Message("program_change", channel=channel, program=content["program"] - 1)
        case _:
            message = mido.Message("sysex", data=_show_control(content))
    return bytes(message.bytes())


def _show_control(content: Mapping[str, Any]) -> list[int]:
    command = content["command"]
    data: list[int] = []
    if command in WITH_CUE and content.get("cue"):
        data = [*content["cue"].encode("ascii")]
        if content.get("list"):
            data += [0, *content["list"].encode("ascii")]
    elif command == "fire":
        data = [content.get("macro", 0)]
    return [_REAL_TIME, content["to"], _SHOW_CONTROL, FORMATS[content["format"]], COMMANDS[command], *data]


def in_words(data: bytes) -> list[str]:
    """What received bytes say, one line a message; bytes that say nothing are left out.

    >>> in_words(bytes.fromhex("90 3c 64 80 3c 00 f0 7f 7f 02 10 01 31 f7"))
    ['note 60 on channel 1 at 100', 'note 60 on channel 1 off', 'show control, sound: go cue 1']
    """
    return Reader().in_words(data)


class Reader:
    """Reads a stream of bytes, in which a message may come in pieces."""

    def __init__(self) -> None:
        self._parser = mido.Parser()

    def in_words(self, data: bytes) -> list[str]:
        """What has come whole, one line a message."""
        self._parser.feed(data)
        return [_words(message) for message in self._parser]


def _words(message: Any) -> str:
    where = f"on channel {message.channel + 1}" if hasattr(message, "channel") else ""
    match message.type:
        case "note_on" if message.velocity:
            return f"note {message.note} {where} at {message.velocity}"
        case "note_on" | "note_off":
            return f"note {message.note} {where} off"
        case "control_change":
            return f"controller {message.control} {where} to {message.value}"
        case "program_change":
            return f"program {message.program + 1} {where}"
        case "sysex":
            return _sysex_words(message.data)
    return str(message)


def _sysex_words(data: tuple[int, ...]) -> str:
    if len(data) < 5 or data[0] != _REAL_TIME or data[2] != _SHOW_CONTROL:
        return f"system exclusive, {len(data)} bytes"
    _, to, _, kind, code, *rest = data
    formats, commands = ({number: name for name, number in names.items()} for names in (FORMATS, COMMANDS))
    command = commands.get(code, f"command {code}")
    words = f"show control, {formats.get(kind, f'format {kind}')}"
    words += f": {command}" if to == ALL_DEVICES else f", device {to}: {command}"
    if command == "fire":
        return f"{words} macro {rest[0]}" if rest else words
    cue, _, in_list = bytes(rest).decode("ascii", "replace").partition("\0")
    return words + (f" cue {cue}" if cue else "") + (f" of list {in_list}" if in_list else "")
