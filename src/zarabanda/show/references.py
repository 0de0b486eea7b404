"""References from within documents: kept by number, shown and exported by name, and indexed in the table `reference`."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from sqlalchemy import delete, insert, select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.formats import inward_message
from zarabanda.targets import Used

from .tables import (
    ActionListRow,
    Base,
    BuskRow,
    ControlRow,
    CueListRow,
    CueRow,
    DeviceRow,
    DraftValue,
    EffectRow,
    EventRow,
    Group,
    LookRow,
    PaletteRow,
    PictureRow,
    PixelMapRow,
    PlaceRow,
    Reference,
    SpecialRow,
    TempoRow,
)

Document = dict[str, Any]
SENT_TO = (
    (DeviceRow.__tablename__, "device"), (CueListRow.__tablename__, "list"), (CueRow.__tablename__, "cue"),
    (ControlRow.__tablename__, "control"),
)  # fmt: skip
"""Tables of what a message of a cue goes to, and the field of the message that names it."""


def _with(document: Any, palette: Callable[[Any], Any], tempo: Callable[[Any], Any]) -> Any:
    """A document of an effect in which every reference is another."""
    if isinstance(document, dict):
        if set(document) == {"palette"}:
            return {"palette": palette(document["palette"])}
        if document.get("kind") == "tempo" and "tempo" in document:
            return document | {"tempo": tempo(document["tempo"])}
        return {key: _with(one, palette, tempo) for key, one in document.items()}
    return [_with(one, palette, tempo) for one in document] if isinstance(document, list) else document


def with_numbers(document: Document, palettes: Mapping[str, int], tempos: Mapping[str, int]) -> Document:
    """A document with numbers instead of names. A name that nothing has stays: nothing is lost, and it can be made later."""
    changed: Document = _with(document, lambda name: palettes.get(name, name), lambda name: tempos.get(name, name))
    return changed


@dataclass(frozen=True)
class Names:
    """Numbers of palettes and tempos by name, and names by number, as a session sees them."""

    palettes: Mapping[str, int]
    tempos: Mapping[str, int]
    palette_names: Mapping[int, str]
    tempo_names: Mapping[int, str]

    @classmethod
    def of(cls, session: Session) -> Names:
        """All of them."""
        palettes = {row.id: row.name for row in session.execute(select(PaletteRow.id, PaletteRow.name))}
        tempos = {row.id: row.name for row in session.execute(select(TempoRow.id, TempoRow.name))}
        return cls({name: n for n, name in palettes.items()}, {name: n for n, name in tempos.items()}, palettes, tempos)

    def numbered(self, document: Document) -> Document:
        """As it is kept."""
        return with_numbers(document, self.palettes, self.tempos)

    def named(self, document: Document) -> Document:
        """As it is shown and exported."""
        changed: Document = _with(document, self._name_in(self.palette_names), self._name_in(self.tempo_names))
        return changed

    @staticmethod
    def _name_in(names: Mapping[int, str]) -> Callable[[Any], Any]:
        return lambda number: names.get(number, f"Number {number}") if isinstance(number, int) else number


def _used_in(document: Document) -> set[Used]:
    used: set[Used] = set()

    def noted(table: str) -> Callable[[Any], Any]:
        return lambda number: used.add((table, number)) if isinstance(number, int) else None

    _with(document, noted(PaletteRow.__tablename__), noted(TempoRow.__tablename__))
    return used


def _tempos_of(settings: Document) -> set[Used]:
    tempo = settings.get("round_tempo")
    return {(TempoRow.__tablename__, tempo)} if isinstance(tempo, int) else set()


def _used_by_messages(messages: Iterable[Document]) -> set[Used]:
    """What messages of a cue, or steps of an action list, go to."""
    used: set[Used] = set()
    for one in messages:
        found = {(table, one.get(field)) for table, field in SENT_TO}
        if one["kind"] in inward_message.TABLES:
            table, field = inward_message.TABLES[one["kind"]]
            found.add((table, one.get(field)))
        used |= {(table, number) for table, number in found if isinstance(number, int)}
    return used


def _used_by_cue(document: Document) -> set[Used]:
    """Effects, groups and tempos that a cue refers to, and what it sends messages to."""
    used: set[Used] = set()
    for one in document.get("effects", ()):
        found = {(EffectRow.__tablename__, one.get("effect")), (Group.__tablename__, one.get("group_id"))}
        used |= {(table, number) for table, number in found if isinstance(number, int)}
    for one in document.get("pixels", ()):
        found = {(PixelMapRow.__tablename__, one.get("map")), (PictureRow.__tablename__, one.get("picture") or None)}
        used |= {(table, number) for table, number in found if isinstance(number, int)}
    used |= _used_by_messages(document.get("messages", ()))
    tempo = document.get("trigger", {}).get("tempo")
    return used | ({(TempoRow.__tablename__, tempo)} if isinstance(tempo, int) else set())


def _used_by_row(document: Document) -> set[Used]:
    """Tempos, the list that Space plays, and devices of a row. Not what is on its pads: that may go, and they say so."""
    found = {(TempoRow.__tablename__, document.get(name)) for name in ("tempo", "colour_tempo")}
    found |= {(CueListRow.__tablename__, document.get("go_list"))}
    found |= {(DeviceRow.__tablename__, pad["message"].get("device")) for pad in document.get("messages", ())}
    return {(table, number) for table, number in found if isinstance(number, int)}


def _used_by_look(document: Document) -> set[Used]:
    """Effects and groups that a look refers to."""
    found = {(EffectRow.__tablename__, one.get("effect")) for one in document.get("effects", ())}
    found |= {(Group.__tablename__, one.get("group_id")) for one in document.get("effects", ())}
    return {(table, number) for table, number in found if isinstance(number, int)}


def _used_by_special(document: Document) -> set[Used]:
    """The place that a special is aimed at."""
    place = (document.get("aim") or {}).get("place")
    return {(PlaceRow.__tablename__, place)} if isinstance(place, int) else set()


DOCUMENTS: dict[str, Callable[[Mapping[str, Any]], set[Used]]] = {
    EffectRow.__tablename__: lambda row: _used_in(row["document"]),
    DraftValue.__tablename__: lambda row: _used_in(row["heads"]),
    CueListRow.__tablename__: lambda row: _used_in(row["settings"]) | _tempos_of(row["settings"]),
    CueRow.__tablename__: lambda row: _used_in(row["document"]) | _used_by_cue(row["document"]),
    BuskRow.__tablename__: lambda row: _used_by_row(row["document"]),
    LookRow.__tablename__: lambda row: _used_in(row["document"]) | _used_by_look(row["document"]),
    PixelMapRow.__tablename__: lambda row: _used_in(row["document"]),
    PictureRow.__tablename__: lambda row: _used_in(row["document"]),
    ActionListRow.__tablename__: lambda row: _used_by_messages(row["document"]["steps"]),
    EventRow.__tablename__: lambda row: _used_by_messages([row["document"]["message"]] if "message" in row["document"] else ()),
    SpecialRow.__tablename__: lambda row: _used_by_special(row["document"]),
    ControlRow.__tablename__: lambda row: targets.read(row["target"]).uses(),
}
"""Rows that the documents of a table's rows refer to."""


def note(session: Session, table: str, key: Any, row: Mapping[str, Any] | None) -> None:
    """Index what a row refers to, as it is now; None: it is gone."""
    if table not in DOCUMENTS:
        return
    session.execute(delete(Reference).where(Reference.user_table == table, Reference.user_id == key))
    if row is not None and (rows := _rows(table, key, row)):
        session.execute(insert(Reference), rows)


def _rows(table: str, key: Any, row: Mapping[str, Any]) -> list[dict[str, Any]]:
    """Of the index: what a row refers to."""
    used = sorted(DOCUMENTS[table](row))
    return [{"user_table": table, "user_id": key, "used_table": other, "used_id": number} for other, number in used]


def note_all(session: Session) -> None:
    """Index what every row refers to, anew."""
    session.execute(delete(Reference))
    classes = {mapper.class_.__tablename__: mapper.class_ for mapper in Base.registry.mappers}
    rows = []
    for table in DOCUMENTS:
        of = classes[table]
        (key,) = of.__table__.primary_key.columns
        for row in session.scalars(select(of)):
            own = {one.name: getattr(row, one.name) for one in of.__table__.columns}
            rows += _rows(table, getattr(row, key.name), own)
    if rows:
        session.execute(insert(Reference), rows)


def users_of(session: Session, table: str, key: Any) -> list[Base]:
    """Rows whose documents refer to this one."""
    found = session.execute(
        select(Reference.user_table, Reference.user_id)
        .where(Reference.used_table == table, Reference.used_id == key)
        .order_by(Reference.user_table, Reference.user_id)
    )
    return list(rows_of(session, [(table, number) for table, number in found]))


def rows_of(session: Session, keys: Iterable[tuple[str, int]]) -> Iterable[Base]:
    """The rows by table and number."""
    classes = {mapper.class_.__tablename__: mapper.class_ for mapper in Base.registry.mappers}
    for table, number in keys:
        row = session.get(classes[table], number)
        if row is not None:
            yield row
