"""What cues send, made from their documents: each message with its time after the go, and as an action where it is one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from zarabanda.messages import (
    AnyAction,
    Back,
    CuePart,
    Go,
    GoTo,
    Level,
    ListLevel,
    Pause,
    Press,
    Release,
    ReleaseAll,
    Resume,
    StopAll,
    control_id,
)

CUE_HOLDS = "cue"
"""Who holds a button that a cue has pressed."""


@dataclass(frozen=True)
class CueMessage:
    """One message. at: s after the go; action: what it does to the show itself, None: it goes to a device."""

    at: float
    content: Mapping[str, Any]
    action: AnyAction | None = None

    @property
    def device(self) -> int:
        """Which it goes to, by its number."""
        return int(self.content.get("device", 0))

    @property
    def ends_something(self) -> bool:
        """Whether it ends what was begun, and is sent whatever happens to its list."""
        return bool(self.content["kind"] == "note off")


def messages_of(part: CuePart) -> tuple[CueMessage, ...]:
    """All messages of a cue, in the order in which they are sent."""
    timed = timed_messages(part.document.get("messages", ()))
    return tuple(CueMessage(at, content, action_of(content)) for at, content in timed)


def timed_messages(messages: Sequence[Mapping[str, Any]]) -> list[tuple[float, Mapping[str, Any]]]:
    """Messages with their times after the go; notes with a length end by messages of their own.

    >>> timed_messages([{"kind": "note", "wait": 1, "length": 0.5, "channel": 1, "note": 60, "device": 1}, {"kind": "list"}])[2]
    (1.5, {'kind': 'note off', 'channel': 1, 'note': 60, 'device': 1})
    """
    found, at = list[tuple[float, Mapping[str, Any]]](), 0.0
    for message in messages:
        at += message.get("wait", 0.0)
        found.append((at, message))
        if message["kind"] == "note" and message.get("length"):
            end = {"kind": "note off", **{name: message[name] for name in ("channel", "note", "device")}}
            found.append((at + message["length"], end))
    return sorted(found, key=lambda one: one[0])


def action_of(content: Mapping[str, Any]) -> AnyAction | None:
    """What a message does to the show itself; None: it goes to a device."""
    match content["kind"]:
        case "list":
            return _of_list(content)
        case "control":
            control = control_id(content["control"])
            if content["do"] == "level":
                return Level(control, content["value"])
            return Press(control, content["do"] == "press", CUE_HOLDS)
        case "stop effects":
            return StopAll(content["family"], content["seconds"])
        case "release everything":
            return ReleaseAll(content["seconds"])
    return None


def _of_list(content: Mapping[str, Any]) -> AnyAction:
    number = content["list"]
    match content["do"]:
        case "go to":
            return GoTo(number, content["cue"])
        case "level":
            return ListLevel(number, content["value"])
        case "release":
            return Release(number, content["seconds"])
    plain: dict[str, type[Go | Back | Pause | Resume]] = {"go": Go, "back": Back, "pause": Pause, "resume": Resume}
    return plain[content["do"]](number)
