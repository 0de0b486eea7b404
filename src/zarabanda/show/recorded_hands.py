"""What hands did live, as the steps of an action list."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.errors import ZarabandaError

from .tables import TempoRow

SOON_S = 0.3
"""Moves of one fader that follow each other so soon are one step: where it ends up."""
Message = dict[str, Any]


@dataclass(frozen=True)
class Recorded:
    """Steps with their waits, and how many things that hands did are not kept, since no step can do them."""

    steps: list[Message]
    left_out: int


def _tempo(names: Mapping[str, int], action: Mapping[str, Any], **more: Any) -> Message | None:
    number = names.get(str(action.get("tempo")))
    return None if number is None else {"kind": "tempo", "tempo": number, **more}


def _control(action: Mapping[str, Any]) -> int:
    return int(str(action["control"]).partition(":")[2])


def _down(action: Mapping[str, Any]) -> str:
    return "press" if action.get("down", True) else "let go"


def _of_list(action: Mapping[str, Any]) -> Message:
    does = {"list-level": "level", "go-to": "go to"}.get(action["do"], action["do"])
    more = {name: action[name] for name in ("cue", "value", "seconds") if action.get(name) is not None}
    return {"kind": "list", "list": action["list"], "do": does, **more}


Reader = Callable[[Mapping[str, Any], Mapping[str, int]], Message | None]
READERS: dict[str, Reader] = {
    "press": lambda one, names: {"kind": "control", "control": _control(one), "do": _down(one)},
    "level": lambda one, names: {"kind": "control", "control": _control(one), "do": "level", "value": one["value"]},
    "pad": lambda one, names: {"kind": "pad", "row": one["row"], "pad": one["pad"], "do": _down(one)},
    "row-level": lambda one, names: {"kind": "row", "row": one["row"], "do": "level", "value": one["value"]},
    "row-depth": lambda one, names: {"kind": "row", "row": one["row"], "do": "effects", "value": one["value"]},
    "tap": lambda one, names: _tempo(names, one, do="tap"),
    "bpm": lambda one, names: _tempo(names, one, do="set", bpm=one["value"]),
    "tempo-times": lambda one, names: _tempo(names, one, do="half" if one["factor"] < 1 else "double"),
    "special": lambda one, names: {
        "kind": "special", "special": one["special"], "do": "press" if one.get("on", True) else "home"
    },
    "specials-home": lambda one, names: {"kind": "special", "special": None, "do": "home"},
    "specials-level": lambda one, names: {"kind": "special", "special": None, "do": "level", "value": one["value"]},
    "overlay": lambda one, names: {"kind": "overlay", "overlay": one["overlay"], "do": "in" if one.get("on", True) else "out"},
    "overlay-level": lambda one, names: {"kind": "overlay", "overlay": one["overlay"], "do": "level", "value": one["value"]},
    "show-page": lambda one, names: {"kind": "page", "page": one["page"]},
    "run-actions": lambda one, names: {
        "kind": "actions", "actions": one["actions"], "do": "run" if one.get("down", True) else "call off"
    },
    "grand": lambda one, names: {"kind": "master", "do": "level", "value": one["value"]},
    "blackout": lambda one, names: {"kind": "master", "do": "blackout" if one.get("on") else "light"},
    "stop-all": lambda one, names: {
        "kind": "stop effects", "family": one.get("family"), "seconds": one.get("seconds", 0.4)
    },
    "release-all": lambda one, names: {"kind": "release everything", "seconds": one.get("seconds", 2.0)},
    **dict.fromkeys(("go", "back", "go-to", "pause", "resume", "release", "list-level"), lambda one, names: _of_list(one)),
}  # fmt: skip
"""How each live action is read as a step."""


def recorded(session: Session, hands: Iterable[tuple[float, Mapping[str, Any]]]) -> Recorded:
    """Steps of what hands did at these times in s."""
    names = {row.name: row.id for row in session.execute(select(TempoRow.id, TempoRow.name))}
    timed, left_out = list[tuple[float, Message]](), 0
    for at, action in sorted(hands, key=lambda one: one[0]):
        try:
            reader = READERS.get(str(action.get("do")))
            message = reader(action, names) if reader is not None else None
        except (KeyError, TypeError, ValueError) as error:
            raise ZarabandaError(f"What was done at {at:g} s cannot be read: {error}.", "hands") from error
        if message is None:
            left_out += 1
        elif timed and _same_fader(timed[-1][1], message) and at - timed[-1][0] < SOON_S:
            timed[-1] = at, message
        else:
            timed.append((at, message))
    begun = [timed[0][0], *(at for at, _ in timed)] if timed else []
    return Recorded([{**one, "wait": round(at - begun[n], 3)} for n, (at, one) in enumerate(timed)], left_out)


_MOVED = ("value", "bpm")


def _same_fader(one: Message, other: Message) -> bool:
    """Whether both move the same fader."""
    moved = [name for name in _MOVED if name in one and name in other]
    return bool(moved) and {**one, moved[0]: 0} == {**other, moved[0]: 0}
