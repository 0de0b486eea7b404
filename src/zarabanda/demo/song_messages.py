"""What the cues of the songs send: clips for the pixel server, lines for the caption screen, haze in its list."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import TypeAdapter
from sqlalchemy.orm import Session

from zarabanda.formats.cue_message import CueMessage
from zarabanda.show import repositories
from zarabanda.show.tables import CueRow

Message = dict[str, Any]
_READER: TypeAdapter[CueMessage] = TypeAdapter(CueMessage)


def _osc(address: str, arguments: str = "", wait: float = 0.0) -> Message:
    return {"kind": "osc", "device": "Pixel server", "address": address, "arguments": arguments, "wait": wait}


def _page(program: int, wait: float = 0.0) -> Message:
    return {"kind": "program", "device": "Caption screen", "program": program, "wait": wait}


def _line(note: int, seconds: float, wait: float = 0.0) -> Message:
    return {"kind": "note", "device": "Caption screen", "note": note, "length": seconds, "wait": wait}


def _cue(number: str) -> Message:
    return {"kind": "show control", "device": "Caption screen", "command": "go", "format": "video", "cue": number}


def _goes(name: str, cue: int, wait: float = 0.0) -> Message:
    return {"kind": "list", "list": name, "do": "go to", "cue": cue, "wait": wait}


MESSAGES: dict[tuple[str, int], Sequence[Message]] = {
    ("Tide Clock", 1): (_osc("/clip/stop"), _page(1)),
    ("Tide Clock", 2): (_osc("/clip/play", "tide 6.0"), _line(60, 4, wait=2), _goes("Haze", 1)),
    ("Tide Clock", 5): (_osc("/brightness", "0.8"), _line(61, 3)),
    ("Tide Clock", 16): (_osc("/clip/fade", "6.0"),),
    ("Saltworks", 1): (_osc("/clip/stop"), _page(2)),
    ("Saltworks", 2): (_osc("/clip/play", "salt 0.5"), _cue("1")),
    ("Saltworks", 5): (_goes("Haze", 2), _osc("/brightness", "1.0", wait=0.5)),
    ("Saltworks", 6): (_osc("/strobe", "true"), _osc("/strobe", "false", wait=0.4)),
    ("Saltworks", 15): (_osc("/clip/fade", "4.0"), _goes("Haze", 1, wait=1)),
    ("Lantern Fish", 1): (_osc("/clip/stop"), _page(3), _goes("Haze", 1)),
    ("Lantern Fish", 2): (_osc("/clip/play", '"one lantern" 8.0'), _line(64, 6, wait=1)),
    ("Lantern Fish", 11): (_osc("/brightness", "0.35"), _cue("2.5")),
}
"""By list and number of the cue; what they go to by its name, cues of lists by their number."""


def add_messages(session: Session, cues: Mapping[tuple[str, int], int]) -> None:
    """Let cues send them. cues: their numbers in the show, by list and number."""
    devices = {row.name: row.id for row in repositories.devices.every(session)}
    lists = {row.name: row.id for row in repositories.cues.lists(session)}
    for place, messages in MESSAGES.items():
        row = repositories.rows.get(session, CueRow, cues[place], "cue")
        document = repositories.cues.document(row)
        document.messages = [_numbered(one, devices, lists, cues) for one in messages]
        repositories.cues.change(session, row.id, document)


def _numbered(
    message: Message, devices: Mapping[str, int], lists: Mapping[str, int], cues: Mapping[tuple[str, int], int]
) -> CueMessage:
    if "device" in message:
        return _READER.validate_python({**message, "device": devices[message["device"]]})
    number = cues[message["list"], message["cue"]]
    return _READER.validate_python({**message, "list": lists[message["list"]], "cue": number})
