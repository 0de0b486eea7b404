"""What faders and buttons drive, in words: on what, what they do there, and what is wrong with it. One entry a kind."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.core.explain.amounts import amount
from zarabanda.formats import cue_message

from .tables import (
    ActionListRow,
    BuskRow,
    ControlRow,
    CueListRow,
    DeviceRow,
    EffectRow,
    Group,
    LookRow,
    Page,
    PictureRow,
    PixelMapRow,
    SpecialRow,
    TempoRow,
)

FADERS, BUTTONS = 16, 32
"""Places on a page."""
MODES = ("fader", "latch", "flash")


@dataclass(frozen=True)
class Described:
    """on: what it acts on; does: what it does there; gone: what is not there any more, empty: all is; low, high, unit: what a
    fader goes from and to."""

    on: str
    does: str
    gone: str = ""
    low: float = 0.0
    high: float = 100.0
    unit: str = "%"


class Names:
    """Names of what controls can drive, by table and number, and the heads of groups."""

    def __init__(self, session: Session) -> None:
        tables: tuple[Any, ...] = (
            ActionListRow, BuskRow, CueListRow, DeviceRow, EffectRow, Group, LookRow, Page, PictureRow, PixelMapRow, SpecialRow,
            TempoRow,
        )  # fmt: skip
        self._names: dict[str, dict[int, str]] = {
            table.__tablename__: {row.id: row.name for row in session.execute(select(table.id, table.name))} for table in tables
        }
        self.groups: Mapping[int, Sequence[str]] = {row.id: row.heads for row in session.execute(select(Group.id, Group.heads))}
        self.overlays = set(session.scalars(select(LookRow.id).where(LookRow.over)))

    def of(self, table: str, number: int | None) -> str | None:
        """The name of a row; None: it is not there."""
        return self._names.get(table, {}).get(number) if number is not None else None


def _where(names: Names, table: str, number: int | None, does: str, what: str, **more: Any) -> Described:
    name = names.of(table, number)
    if name is None:
        return Described(f"{'an' if what[0] in 'aeo' else 'a'} {what} that is gone", does, f"its {what} is gone", **more)
    return Described(name, does, **more)


def _heads(names: Names, target: targets.EffectOnHeads | targets.Alone | targets.OnGroup) -> str:
    if target.group_id is not None:
        return names.of("head_group", target.group_id) or "a group that is gone"
    count = len({head.partition(".")[0] for head in target.heads})
    return f"{count} light{'' if count == 1 else 's'}"


_ACTS = {"latch": "on and off", "flash": "while held"}
_JOBS = {"depth": "depth of the effect", "speed": "speed of the effect", "both": "depth and speed of the effect"}


def _effect(target: targets.EffectOnHeads, mode: str, job: str, names: Names) -> Described:
    found = _where(names, "effect", target.effect_id, _JOBS[job] if mode == "fader" else f"effect {_ACTS[mode]}", "effect")
    return Described(f"{found.on}, {_heads(names, target)}", found.does, found.gone)


def _look(target: targets.UseLook, mode: str, job: str, names: Names) -> Described:
    what = "overlay" if target.look in names.overlays else "look"
    return _where(names, "look", target.look, f"mixes the {what} in" if mode == "fader" else f"{what} {_ACTS[mode]}", what)


def _pixels(target: targets.UsePixels, mode: str, job: str, names: Names) -> Described:
    found = _where(names, "pixel_map", target.map, "share of it" if mode == "fader" else f"pixels {_ACTS[mode]}", "pixel map")
    if not target.picture or found.gone:
        return found
    picture = names.of("picture", target.picture)
    if picture is None:
        return Described(found.on, found.does, "its picture is gone")
    return Described(f"{picture} on {found.on}", found.does)


_OF_LIST = {"go": "next cue", "back": "cue before", "pause": "pause, and on", "level": "level of the list"}


def _list(target: targets.OnList, mode: str, job: str, names: Names) -> Described:
    does = f"release in {amount(target.seconds)} s" if target.do == "release" else _OF_LIST[target.do]
    return _where(names, "cue_list", target.list, does, "cue list")


def _tempo(target: targets.OnTempo, mode: str, job: str, names: Names) -> Described:
    scale = {"low": targets.BPM_LOW, "high": targets.BPM_HIGH, "unit": "BPM"}
    return _where(names, "tempo", target.tempo, "sets the tempo" if mode == "fader" else "tap", "tempo", **scale)


def _special(target: targets.OnSpecials, mode: str, job: str, names: Names) -> Described:
    if target.special is None:
        return Described("All specials", "level of all specials" if mode == "fader" else "all home")
    return _where(names, "special", target.special, f"special {_ACTS.get(mode, '')}", "special")


def _message(target: targets.Send, mode: str, job: str, names: Names) -> Described:
    words = cue_message.content_words(target.message)
    return _where(names, "device", int(target.message["device"]), f"value of {words}" if mode == "fader" else words, "device")


_Words = Callable[[Any, str, str, Names], Described]
WORDS: dict[type, _Words] = {
    targets.EffectOnHeads: _effect,
    targets.StopEffects: lambda target, mode, job, names: Described(
        f"{target.family or 'all'} effects".capitalize(), "stops them"
    ),
    targets.UseLook: _look,
    targets.UsePixels: _pixels,
    targets.OnList: _list,
    targets.OnGroup: lambda target, mode, job, names: _where(names, "head_group", target.group_id, "level of the group", "group"),
    targets.Alone: lambda target, mode, job, names: Described(_heads(names, target), "alone while held"),
    targets.OnTempo: _tempo,
    targets.OnSpecials: _special,
    targets.Master: lambda target, mode, job, names: Described(
        "All light", "grand master" if mode == "fader" else f"blackout {_ACTS[mode]}"
    ),
    targets.OnRow: lambda target, mode, job, names: _where(names, "busk_row", target.row, "level of its effects", "row"),
    targets.Send: _message,
    targets.ShowPage: lambda target, mode, job, names: _where(
        names, "page", target.page, f"shows {names.of('page', target.page)}", "page"
    ),
    targets.RunActions: lambda target, mode, job, names: _where(names, "action_list", target.actions, "runs it", "action list"),
    targets.ReleaseEverything: lambda target, mode, job, names: Described(
        "Everything", f"released in {amount(target.seconds)} s"
    ),
}
"""What each kind is called."""
ON_FADERS = frozenset({"effect", "look", "pixels", "list", "group", "tempo", "special", "master", "row", "message"})
"""Kinds that a fader can have."""
ON_BUTTONS = frozenset(
    {
        "effect",
        "look",
        "pixels",
        "list",
        "alone",
        "tempo",
        "special",
        "master",
        "message",
        "stop-effects",
        "page",
        "actions",
        "release",
    }
)
"""Kinds that a button can have."""


def described(row: ControlRow, names: Names) -> Described:
    """A control, in words."""
    target = targets.read(row.target)
    return WORDS[type(target)](target, row.mode, row.job, names)


def waits(row: ControlRow, names: Names) -> str:
    """For what a control waits, in words; empty: for nothing."""
    target = targets.read(row.target)
    number = getattr(target, "group_id", None)
    if number is None or names.groups.get(number):
        return ""
    return f"Waits for lights: the group “{names.of('head_group', number) or 'that it was on'}” is empty."
