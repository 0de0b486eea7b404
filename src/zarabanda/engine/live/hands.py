"""What a control is to a song: its subject, and where it is played (docs/computation.md, "Timelines").

A subject names what a track drives and what a hand can take from it: `list:5` (its cues), `list-level:5`, `control:7`,
`pad:4:12`, `row-level:4`, `row-depth:4`, `flash:4:all`, `overlay:3`, `group-level:2`, `actions:3`, `tempo:1`. Controls that drive
one of these are that.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from zarabanda.messages import (
    AnyAction,
    Back,
    CallOff,
    ChooseNext,
    DoActions,
    Go,
    GoTo,
    Level,
    ListLevel,
    NoPad,
    OverlayLevel,
    Pause,
    PixelLevel,
    Press,
    PressFlash,
    PressOverlay,
    PressPad,
    PressPixels,
    Release,
    ReleaseControl,
    ReleaseRow,
    Resume,
    RowDepth,
    RowLevel,
    RowPairs,
    RowValue,
)
from zarabanda.targets import OnGroup, OnList, OnRow, RunActions, UseLook, UsePixels

from ..program import Program


@dataclass(frozen=True)
class Hand:
    """A hand that has something of a song. since: its stamp; action: what it did last, None: it has let go."""

    since: float
    action: AnyAction | None = None


def _list(action: Any) -> str:
    return f"list:{action.list}"


def _row(action: Any) -> str:
    return f"row:{action.row}"


def _overlay(action: Any) -> str:
    return f"overlay:{action.overlay}"


def _pixels(action: Any) -> str:
    return f"pixels:{action.map}:{action.picture}"


def _actions(action: Any) -> str:
    return f"actions:{action.actions}"


_SUBJECTS: dict[Any, Callable[[Any], str]] = {
    **dict.fromkeys((Go, Back, GoTo, ChooseNext, Pause, Resume, Release), _list),
    ListLevel: lambda action: f"list-level:{action.list}",
    **dict.fromkeys((Level, Press, ReleaseControl), lambda action: str(action.control)),
    PressPad: lambda action: f"pad:{action.row}:{action.pad}",
    **dict.fromkeys((NoPad, RowPairs, ReleaseRow, RowValue), _row),
    RowLevel: lambda action: f"row-level:{action.row}",
    RowDepth: lambda action: f"row-depth:{action.row}",
    PressFlash: lambda action: f"flash:{action.row}:{action.kind}",
    **dict.fromkeys((PressOverlay, OverlayLevel), _overlay),
    **dict.fromkeys((PressPixels, PixelLevel), _pixels),
    **dict.fromkeys((DoActions, CallOff), _actions),
}


def subject_of(action: AnyAction, program: Program) -> str:
    """What an action is on; empty: on nothing that a song can drive."""
    found = _SUBJECTS.get(type(action))
    return plain(found(action), program) if found is not None else ""


def plain(subject: str, program: Program) -> str:
    """The subject itself that a control drives."""
    control = program.controls.get(subject)  # type: ignore[call-overload]  # a subject that is no control finds none
    target = control.target if control is not None else None
    match target:
        case OnList():
            return f"list-level:{target.list}" if target.do == "level" else f"list:{target.list}"
        case UseLook() if control is not None and control.look is not None and control.look.over:
            return f"overlay:{target.look}"
        case UsePixels():
            return f"pixels:{target.map}:{target.picture}"
        case OnGroup():
            return f"group-level:{target.group_id}"
        case OnRow():
            return f"row-depth:{target.row}"
        case RunActions():
            return f"actions:{target.actions}"
    return subject


def object_of(subject: str) -> str:
    """The thing of the show that a plain subject is of: all that is done to one is played in one place."""
    kind, _, rest = subject.partition(":")
    number = rest.partition(":")[0]
    named: Mapping[str, str] = {"list-level": "list", "pad": "row", "row-level": "row", "row-depth": "row"}
    return f"{named[kind]}:{number}" if kind in named else subject
