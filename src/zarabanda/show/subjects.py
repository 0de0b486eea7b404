"""What tracks of timelines drive, in words, and whether it is there (see `engine.live.hands`)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda import targets

from .repositories import messages
from .tables import ControlRow, Page

_TABLES = {
    "list": "cue_list", "list-level": "cue_list", "pad": "busk_row", "flash": "busk_row", "row-level": "busk_row",
    "row-depth": "busk_row", "overlay": "look", "device": "device", "pixels": "pixel_map",
}  # fmt: skip
HANDS_ALONE = (
    targets.OnSpecials, targets.Master, targets.OnTempo, targets.ShowPage, targets.ReleaseEverything, targets.StopEffects,
)  # fmt: skip
"""What songs leave to hands: people in specials, master and tempo."""


@dataclass(frozen=True)
class Drivable:
    """Something that a track can drive. what: in words; of: where it is."""

    subject: str
    what: str
    of: str


class Subjects:
    """All of a show."""

    def __init__(self, session: Session) -> None:
        self._names: Mapping[tuple[str, int], str] = messages.names(session)
        query = select(ControlRow, Page.name).join(Page, ControlRow.page_id == Page.id)
        rows = session.execute(query.order_by(Page.position, ControlRow.row, ControlRow.place)).all()
        self._controls = {row.id: (row, page) for row, page in rows}

    def name(self, subject: str) -> str:
        """In words; empty: it is gone."""
        kind, *numbers = subject.split(":")
        number = int(numbers[0])
        if kind == "control":
            return self._controls[number][0].name if number in self._controls else ""
        name = self._names.get((_TABLES[kind], number), "")
        if kind == "pixels" and name and int(numbers[1]):
            picture = self._names.get(("picture", int(numbers[1])), "")
            return f"{picture} on {name}" if picture else ""
        if kind == "pad" and name:
            pad = self._names.get((f"pad of {number}", int(numbers[1])), "")
            return f"{name}: {pad}" if pad else ""
        more = {"list-level": ", level", "row-level": ", level", "row-depth": ", effects", "flash": f", {numbers[-1]}"}
        return f"{name}{more.get(kind, '')}" if name else ""

    def for_kind(self, kind: str) -> list[Drivable]:
        """What a track of a kind can drive."""
        found = []
        for (table, number), name in self._names.items():
            if kind == "cues" and table == "cue_list":
                found.append(Drivable(f"list:{number}", name, "cue list"))
            if kind == "messages" and table == "device":
                found.append(Drivable(f"device:{number}", name, "device"))
            if kind == "levels" and table == "cue_list":
                found.append(Drivable(f"list-level:{number}", f"{name}, level", "cue list"))
            if kind == "levels" and table == "busk_row":
                found.append(Drivable(f"row-level:{number}", f"{name}, level", "busking page"))
                found.append(Drivable(f"row-depth:{number}", f"{name}, effects", "busking page"))
            if kind in ("presses", "levels") and table == "pixel_map":
                found.append(Drivable(f"pixels:{number}:0", name, "pixel map"))
            if kind == "presses" and table == "busk_row":
                kinds = ("white", "odd", "even", "strobe", "dark")
                found += [Drivable(f"flash:{number}:{one}", f"{name}, {one}", "busking page") for one in kinds]
            if kind == "presses" and table.startswith("pad of "):
                of = int(table.removeprefix("pad of "))
                found.append(Drivable(f"pad:{of}:{number}", f"{self._names['busk_row', of]}: {name}", "busking page"))
        for number, (row, page) in self._controls.items():
            fits = kind == ("levels" if row.mode == "fader" else "presses")
            if fits and not isinstance(targets.read(row.target), HANDS_ALONE):
                found.append(Drivable(f"control:{number}", row.name, f"{page}, {row.row.removesuffix('s')} {row.place}"))
        return found

    def why_not(self, subject: str) -> str:
        """Why a song cannot drive it; empty: it can."""
        kind, *numbers = subject.split(":")
        if not self.name(subject):
            return "What it would drive is not there any more. Choose something else."
        control = self._controls.get(int(numbers[0])) if kind == "control" else None
        if control is not None and isinstance(targets.read(control[0].target), HANDS_ALONE):
            return f"“{control[0].name}” stays with the hands: specials, master, tempos and ways home are not driven by songs."
        return ""
