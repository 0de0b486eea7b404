"""What messages of cues and steps of action lists go to: names, and whether all of it is there."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.errors import ZarabandaError
from zarabanda.formats import inward_message
from zarabanda.formats.busk_document import SECTIONS
from zarabanda.formats.cue_message import INWARD, CueMessage, speaks

from ..references import SENT_TO
from ..tables import (
    ActionListRow,
    BuskRow,
    ControlRow,
    CueListRow,
    CueRow,
    DeviceRow,
    EffectRow,
    LookRow,
    Page,
    PaletteRow,
    PictureRow,
    PixelMapRow,
    SpecialRow,
    TempoRow,
)
from . import busk, devices


def names(session: Session, cues: Collection[int | None] = ()) -> dict[tuple[str, int], str]:
    """What messages can go to, as users name it, by table and number: devices, lists, controls, and of the cues these."""
    found = {(DeviceRow.__tablename__, row.id): row.name for row in devices.every(session)}
    for table in (CueListRow, ControlRow, TempoRow, SpecialRow, LookRow, Page, ActionListRow, PixelMapRow, PictureRow):
        found |= {(table.__tablename__, row.id): row.name for row in session.execute(select(table.id, table.name))}
    effects = {row.id: row.name for row in session.execute(select(EffectRow.id, EffectRow.name))}
    kept = {row.id: row.name for row in session.execute(select(PaletteRow.id, PaletteRow.name))}
    for row in busk.rows(session):
        found[BuskRow.__tablename__, row.id] = row.name
        for section in SECTIONS:
            for pad in row.document.get(section, ()):
                if pad.get("pixels"):
                    use = pad["pixels"]
                    of_map = found.get(("picture", use["picture"])) or found.get(("pixel_map", use["map"]), "a pixel map")
                    found[f"pad of {row.id}", pad["id"]] = pad.get("name") or of_map
                    continue
                name = pad.get("name") or effects.get(pad.get("effect", 0)) or kept.get(pad.get("palette", 0)) or "a pad"
                found[f"pad of {row.id}", pad["id"]] = name
    name = CueRow.document["name"].as_string()
    for number, place, called in session.execute(select(CueRow.id, CueRow.number, name).where(CueRow.id.in_(cues))):
        found[CueRow.__tablename__, number] = f"cue {place:g}" + (f" “{called}”" if called else "")
    return found


def must_fit(session: Session, messages: Sequence[CueMessage]) -> None:
    """Refuse messages to what is not there, or to devices that speak otherwise."""
    there = {row.id: row for row in devices.every(session)}
    known = names(session, [getattr(message, "cue", None) for message in messages if message.kind in INWARD])
    for n, message in enumerate(messages):
        for table, field in SENT_TO[1:]:
            number = getattr(message, field, None)
            if isinstance(number, int) and message.kind in INWARD and (table, number) not in known:
                raise ZarabandaError(f"There is no such {field} any more. Choose another.", f"messages.{n}.{field}")
        if message.kind in inward_message.TABLES:
            table, field = inward_message.TABLES[message.kind]
            number = getattr(message, field)
            pad = getattr(message, "pad", None)
            gone = number is not None and (table, number) not in known
            if gone or (pad is not None and (f"pad of {number}", pad) not in known):
                what = field if gone else "pad"
                raise ZarabandaError(f"There is no such {what} any more. Choose another.", f"messages.{n}.{field}")
        wanted, number = speaks(message.kind), getattr(message, "device", None)
        if not wanted or number is None:
            continue
        if number not in there:
            able = ", ".join(row.name for row in there.values() if row.document["speaks"] == wanted) or "none"
            raise ZarabandaError(f"There is no device {number}. Those that speak {wanted}: {able}.", f"messages.{n}.device")
        if there[number].document["speaks"] != wanted:
            raise ZarabandaError(
                f"“{there[number].name}” speaks {there[number].document['speaks']}: choose a device that speaks {wanted}.",
                f"messages.{n}.device",
            )
