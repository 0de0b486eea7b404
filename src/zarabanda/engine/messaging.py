"""What cues send, made from their documents: each message with its time after the go, and as an action where it is one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    ActionListPart,
    AnyAction,
    AskPage,
    Back,
    Blackout,
    Bpm,
    CallOff,
    CuePart,
    DoActions,
    Go,
    GoTo,
    Grand,
    Level,
    ListLevel,
    OverlayLevel,
    Pause,
    PixelLevel,
    Press,
    PressOverlay,
    PressPad,
    PressPixels,
    PressSpecial,
    Release,
    ReleaseAll,
    Resume,
    RowDepth,
    RowLevel,
    SpecialsHome,
    SpecialsLevel,
    StopAll,
    Tap,
    TempoPart,
    TempoTimes,
    control_id,
)

CUE_HOLDS = "cue"
"""Who holds a button that a cue has pressed."""


@dataclass(frozen=True)
class CueMessage:
    """One message. at: s after the go, or of an action list after the press."""

    at: float
    content: Mapping[str, Any]

    @property
    def device(self) -> int:
        """Which it goes to, by its number."""
        return int(self.content.get("device", 0))

    @property
    def ends_something(self) -> bool:
        """Whether it ends what was begun, and is sent whatever happens to its list."""
        return bool(self.content["kind"] == "note off")


@dataclass(frozen=True)
class ActionList:
    """An action list: its steps by their times after the press; until_released: runs on until it is let go."""

    id: int
    name: str
    steps: tuple[CueMessage, ...]
    until_released: bool


def action_list_of(part: ActionListPart) -> ActionList:
    """An action list from its part."""
    steps = tuple(CueMessage(at, content) for at, content in timed_messages(part.document.get("steps", ())))
    return ActionList(part.id, part.name, steps, part.document.get("until") == "released")


def messages_of(part: CuePart) -> tuple[CueMessage, ...]:
    """All messages of a cue, in the order in which they are sent."""
    timed = timed_messages(part.document.get("messages", ()))
    return tuple(CueMessage(at, content) for at, content in timed)


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


def action_of(content: Mapping[str, Any], tempos: Mapping[int, TempoPart], holder: str = CUE_HOLDS) -> AnyAction | None:
    """What a message does to the show itself; None: it goes to a device. tempos: by number; holder: who holds what it presses.

    ZarabandaError where its tempo is gone.
    """
    match content["kind"]:
        case "list":
            return _of_list(content)
        case "control":
            control = control_id(content["control"])
            if content["do"] == "level":
                return Level(control, content["value"])
            return Press(control, content["do"] == "press", holder)
        case "stop effects":
            return StopAll(content["family"], content["seconds"])
        case "release everything":
            return ReleaseAll(content["seconds"])
        case "pad":
            return PressPad(content["row"], content["pad"], content["do"] == "press", holder)
        case "row":
            return (RowLevel if content["do"] == "level" else RowDepth)(content["row"], content["value"])
        case "tempo":
            return _of_tempo(content, tempos)
        case "special":
            if content["do"] == "level":
                return SpecialsLevel(content["value"])
            return SpecialsHome() if content["special"] is None else PressSpecial(content["special"], content["do"] == "press")
        case "overlay":
            if content["do"] == "level":
                return OverlayLevel(content["overlay"], content["value"])
            return PressOverlay(content["overlay"], content["do"] == "in")
        case "pixels":
            use = content["map"], content["picture"]
            if content["do"] == "level":
                return PixelLevel(use[0], content["value"], use[1])
            return PressPixels(use[0], content["do"] == "in", use[1])
        case "page":
            return AskPage(content["page"], holder)
        case "master":
            return Grand(content["value"]) if content["do"] == "level" else Blackout(content["do"] == "blackout")
        case "actions":
            return DoActions(content["actions"], True, holder) if content["do"] == "run" else CallOff(content["actions"])
    return None


def _of_tempo(content: Mapping[str, Any], tempos: Mapping[int, TempoPart]) -> AnyAction:
    part = tempos.get(content["tempo"])
    if part is None:
        raise ZarabandaError("Its tempo is gone. Choose another.", "tempo")
    match content["do"]:
        case "tap":
            return Tap(part.name)
        case "set":
            return Bpm(part.name, content["bpm"])
    return TempoTimes(part.name, 0.5 if content["do"] == "half" else 2.0)


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
