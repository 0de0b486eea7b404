"""The busking page of "Salt Light": made in one step like a user's, then refined for a dance night."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.engine.decoding import RigMaker
from zarabanda.formats.busk_document import BuskRowDocument
from zarabanda.show import busk_maker, compile, repositories
from zarabanda.show.tables import BuskRow, CueListRow, DeviceRow, Group

NAME = "Salt night"
ROWS = ("Rear spots", "Mid washes", "Deck beams", "Tilt bars", "Side ladders", "Battens", "Salt wall", "Front", "Crowd", "Haze")
EFFECTS: dict[str, tuple[str, ...]] = {
    "All": ("Undertow", "Bright tide", "Heartbeat", "Spark field", "Brine", "Two moons", "Wide circle", "Zoom pulse"),
    "Rear spots": ("Tide fold", "Crossing eights", "Fan breath", "Searchlights", "Undertow", "Shuffle step", "Slow lantern",
                   "Zoom pulse"),
    "Mid washes": ("Wide circle", "Tilt swell", "Square dance", "Driftwood", "Bright tide", "Flare pairs", "Pastel fade",
                   "Zoom tide"),
    "Deck beams": ("Spinning top", "Star walk", "Searchlights", "Tilt steps", "Runaway pairs", "Spark field", "Heartbeat",
                   "Frost breath"),
    "Salt wall": ("Brine", "Ember drift", "Spark field", "Rainbow walk", "Salt pans", "Undertow", "Lamplighter", "Heartbeat"),
    "Crowd": ("Heartbeat", "Flare pairs", "Lamplighter"),
}  # fmt: skip
"""Effects of rows by name, where they are not those that the maker chose."""
CLIPS: tuple[tuple[str, str, str], ...] = (
    ("Foam", "/clip/play", "foam"), ("Gulls", "/clip/play", "gulls"), ("Salt grain", "/clip/play", "grain"),
    ("Slow water", "/clip/play", "water"), ("No clip", "/clip/stop", ""),
)  # fmt: skip
CAPTIONS = (("Title", 1), ("Names", 2), ("Thanks", 3), ("No caption", 4))


def add_page(session: Session) -> None:
    """The page "Salt night"."""
    rig = RigMaker().made(compile.all_parts(session))
    groups = {row.name: row.id for row in session.scalars(select(Group))}
    page = busk_maker.make(session, rig, NAME, [busk_maker.Wish(groups[name]) for name in ROWS])
    effects = {row.name: row.id for row in repositories.effects.kept(session)}
    rows = {row.name: row for row in repositories.busk.rows(session, page.id)}
    for name, wanted in EFFECTS.items():
        _refined(rows[name], "effects", [{"effect": effects[one]} for one in wanted if one in effects])
    front = next(iter(session.scalars(select(CueListRow.id).where(CueListRow.name == "Tide Clock"))), None)
    top = repositories.busk.document_of(rows["All"])
    repositories.busk.put(rows["All"], top.model_copy(update={"go_list": front}))
    clips = repositories.busk.add_row(session, page.id, "messages", "Clips", None, BuskRowDocument(carries=["messages"]))
    _refined(clips, "messages", _messages(session))
    order = [row.id for row in repositories.busk.rows(session, page.id) if row.kind != "haze"]
    repositories.busk.arrange(session, page.id, [*order, rows["Haze"].id])


def _refined(row: BuskRow, section: str, pads: list[dict[str, Any]]) -> None:
    repositories.busk.put(row, repositories.busk.with_pads(repositories.busk.document_of(row), section, pads))


def _messages(session: Session) -> list[dict[str, Any]]:
    devices = {row.name: row.id for row in session.scalars(select(DeviceRow))}
    sent: list[tuple[str, dict[str, Any]]] = [
        (name, {"kind": "osc", "device": devices["Pixel server"], "address": address, "arguments": arguments})
        for name, address, arguments in CLIPS
    ]
    sent += [(name, {"kind": "program", "device": devices["Caption screen"], "program": one}) for name, one in CAPTIONS]
    return [{"name": name, "message": message} for name, message in sent]
