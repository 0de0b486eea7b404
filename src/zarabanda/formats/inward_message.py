"""What cues and action lists do on the show itself, beside lists and controls: pads, rows, tempos, specials, overlays, pages."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from zarabanda.core.explain.amounts import amount

Seconds = Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
Names = Mapping[tuple[str, int], str]


class Inward(BaseModel):
    """wait: s after the message before it."""

    model_config = ConfigDict(extra="forbid")
    wait: Seconds = 0.0


class ToPad(Inward):
    """A pad of a row of a busking page."""

    kind: Literal["pad"]
    row: int
    pad: int
    do: Literal["press", "let go"] = "press"


class ToRow(Inward):
    """The level of a row, or that of its effects, 0…1."""

    kind: Literal["row"]
    row: int
    do: Literal["level", "effects"] = "level"
    value: Share = 1.0


class ToTempo(Inward):
    """A tempo: set, tapped, or half or twice what it has."""

    kind: Literal["tempo"]
    tempo: int
    do: Literal["set", "tap", "half", "double"] = "set"
    bpm: Annotated[float, Field(ge=10, le=400, allow_inf_nan=False)] = 120.0


class ToSpecial(Inward):
    """A special; without one: all of them home, or their level."""

    kind: Literal["special"]
    special: int | None = None
    do: Literal["press", "home", "level"] = "press"
    value: Share = 1.0

    @model_validator(mode="after")
    def _fits(self) -> ToSpecial:
        if self.do == "press" and self.special is None:
            raise ValueError("say which special is pressed")
        return self


class ToOverlay(Inward):
    """An overlay: in or out in its own time, or to a level."""

    kind: Literal["overlay"]
    overlay: int
    do: Literal["in", "out", "level"] = "in"
    value: Share = 1.0


class ToPixels(Inward):
    """A pixel map, with its own layers or a picture of the library: in or out in its own time, or to a share."""

    kind: Literal["pixels"]
    map: int
    picture: int = 0
    do: Literal["in", "out", "level"] = "in"
    value: Share = 1.0


class ToPage(Inward):
    """A page of faders and buttons, shown to who pressed, or from a cue to all."""

    kind: Literal["page"]
    page: int


class ToMaster(Inward):
    """The grand master, or blackout."""

    kind: Literal["master"]
    do: Literal["level", "blackout", "light"] = "level"
    value: Share = 1.0


class ToActions(Inward):
    """An action list: run, or called off."""

    kind: Literal["actions"]
    actions: int
    do: Literal["run", "call off"] = "run"


InwardMessage = ToPad | ToRow | ToTempo | ToSpecial | ToOverlay | ToPixels | ToPage | ToMaster | ToActions
KINDS = ("pad", "row", "tempo", "special", "overlay", "pixels", "page", "master", "actions")
TABLES: dict[str, tuple[str, str]] = {
    "pad": ("busk_row", "row"), "row": ("busk_row", "row"), "tempo": ("tempo", "tempo"), "special": ("special", "special"),
    "overlay": ("look", "overlay"), "pixels": ("pixel_map", "map"), "page": ("page", "page"),
    "actions": ("action_list", "actions"),
}  # fmt: skip
"""By kind: the table of what it goes to, and the field that says which."""


def _percent(message: Mapping[str, Any]) -> str:
    return f"{amount(100 * message['value'])} %"


def _pad(message: Mapping[str, Any], name: str, names: Names) -> str:
    pad = names.get((f"pad of {message['row']}", message["pad"]), "a pad that is gone")
    return f"{name}: {pad}" + ("" if message["do"] == "press" else " let go")


def _tempo(message: Mapping[str, Any], name: str, names: Names) -> str:
    does = {"set": f"{amount(message['bpm'])} BPM", "tap": "tapped", "half": "half as fast", "double": "twice as fast"}
    return f"{name}: {does[message['do']]}"


def _special(message: Mapping[str, Any], name: str, names: Names) -> str:
    if message["do"] == "level":
        return f"all specials: level {_percent(message)}"
    if message["special"] is None:
        return "all specials home"
    return f"{name}: {'special pressed' if message['do'] == 'press' else 'home'}"


def _overlay(message: Mapping[str, Any], name: str, names: Names) -> str:
    return f"{name}: {_percent(message) if message['do'] == 'level' else message['do']}"


def _pixels(message: Mapping[str, Any], name: str, names: Names) -> str:
    picture = names.get(("picture", message["picture"]), "a picture that is gone") if message["picture"] else ""
    return f"{picture + ' on ' if picture else ''}{name}: {_percent(message) if message['do'] == 'level' else message['do']}"


_WORDS: dict[str, Callable[[Mapping[str, Any], str, Names], str]] = {
    "pad": _pad,
    "row": lambda message, name, names: f"{name}: {'level' if message['do'] == 'level' else 'effects'} {_percent(message)}",
    "tempo": _tempo,
    "special": _special,
    "overlay": _overlay,
    "pixels": _pixels,
    "page": lambda message, name, names: f"show the page {name}",
    "master": lambda message, name, names: {
        "level": f"grand master {_percent(message)}", "blackout": "blackout", "light": "no blackout"
    }[message["do"]],
    "actions": lambda message, name, names: f"{'run' if message['do'] == 'run' else 'call off'} {name}",
}  # fmt: skip


def in_words(message: Mapping[str, Any], names: Names) -> str:
    """A message as it is read. names: by table and number; of pads by `pad of 4` and their number."""
    table, field = TABLES.get(message["kind"], ("", ""))
    number = message.get(field)
    gone = f"{'an' if field[:1] in 'aeo' else 'a'} {field.rstrip('s') if field == 'actions' else field} that is gone"
    name = names.get((table, number), gone) if number is not None else ""
    return _WORDS[message["kind"]](message, name, names)
