"""The show as parts for the engine: one function a subject, by the table that it reads."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator
from typing import Any

import msgspec
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.core.effects.palette import Palette
from zarabanda.core.rig.modes import ModeSpec
from zarabanda.messages import (
    SIMULATOR,
    ActionListPart,
    AnyPart,
    BuskRowPart,
    ColourWayPart,
    ControlPart,
    CueListPart,
    CuePart,
    DraftEffectPart,
    DraftValuesPart,
    EffectPart,
    EventPart,
    FixturePart,
    LineInPart,
    LookPart,
    ModePart,
    OpeningPart,
    PalettePart,
    PartKey,
    PicturePart,
    PixelMapPart,
    TempoPart,
    TimecodeInPart,
    TimelinePart,
    TrackPart,
)

from .repositories import cues, devices, draft, palettes, routes, specials
from .tables import (
    ActionListRow,
    BuskRow,
    ControlRow,
    CueListRow,
    CueRow,
    DeviceRow,
    DraftEffect,
    DraftFan,
    DraftValue,
    Edit,
    EffectRow,
    EventRow,
    Fixture,
    Group,
    LookRow,
    Mode,
    Page,
    PaletteRow,
    PictureRow,
    PixelMapRow,
    PlaceRow,
    Reference,
    RouteRow,
    Show,
    SpecialRow,
    TempoRow,
    TimelineRow,
    TrackRow,
)

Keys = Collection[Any] | None
"""Of the rows that are asked for; None: all."""
_NOT_FOR_ENGINE = ("maker",)


def _asked(query: Any, column: Any, keys: Keys) -> Any:
    return query if keys is None else query.where(column.in_(keys))


def _modes(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(Mode), Mode.id, keys)):
        document = {key: value for key, value in row.document.items() if key not in _NOT_FOR_ENGINE}
        yield ModePart(row.id, msgspec.convert(document, ModeSpec))


def _fixtures(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for f in session.scalars(_asked(select(Fixture), Fixture.number, keys)):
        yield FixturePart(
            f.number, f.name, f.mode_id, (f.x, f.y, f.z), (f.turn_x, f.turn_y, f.turn_z), f.universe, f.address, f.cell_order
        )


def _tempos(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(TempoRow), TempoRow.id, keys)):
        yield TempoPart(row.id, row.name, row.bpm, row.position)


def _palettes(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(PaletteRow), PaletteRow.id, keys)):
        made = palettes.to_core(row)
        own, models = ({key: dict(values) for key, values in each.items()} for each in (made.own, made.models))
        yield PalettePart(row.id, row.name, dict(made.values), own, models, made.way)


def palettes_by_number(session: Session) -> dict[int, Palette]:
    """All palettes, as the core computes with them."""
    return {row.id: palettes.to_core(row) for row in session.scalars(select(PaletteRow))}


def _effects(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for number, document in session.execute(_asked(select(EffectRow.id, EffectRow.document), EffectRow.id, keys)):
        yield EffectPart(number, document)


def _draft_values(session: Session, keys: Keys) -> Iterator[AnyPart]:
    yield from (DraftValuesPart(name, heads) for name, heads in draft.held(session, keys).items())


def _draft_values_of_fans(session: Session, keys: Keys) -> Iterator[AnyPart]:
    if keys is not None:
        yield from _draft_values(session, draft.fanned(session))


def _draft_effects(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(DraftEffect), DraftEffect.id, keys)):
        yield DraftEffectPart(row.id, targets.EffectOnHeads(row.effect_id, tuple(row.heads)))


def _controls(session: Session, keys: Keys) -> Iterator[AnyPart]:
    groups = {row.id: row.heads for row in session.scalars(select(Group))}
    query = select(ControlRow, Page.name).join(Page, ControlRow.page_id == Page.id)
    for row, page in session.execute(_asked(query, ControlRow.id, keys)):
        source = f"{page}, {row.row.removesuffix('s')} {row.place}"
        yield ControlPart(row.id, row.name, source, row.mode, row.job, row.release_s, targets.read(row.target).on(groups))


def _controls_of_pages(session: Session, keys: Keys) -> Iterator[AnyPart]:
    if keys is not None:
        yield from _controls(session, session.scalars(select(ControlRow.id).where(ControlRow.page_id.in_(keys))).all())


def _controls_of_groups(session: Session, keys: Keys) -> Iterator[AnyPart]:
    if keys is not None:
        yield from _controls(session, _users(session, ControlRow.__tablename__, Group.__tablename__, keys))


def _busk_rows(session: Session, keys: Keys) -> Iterator[AnyPart]:
    query = select(BuskRow, Group.heads).outerjoin(Group, BuskRow.group_id == Group.id)
    for row, heads in session.execute(_asked(query, BuskRow.id, keys)):
        yield BuskRowPart(row.id, row.page_id, row.position, row.name, row.kind, tuple(heads or ()), row.document)


def _cue_lists(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(CueListRow), CueListRow.id, keys)):
        yield CueListPart(row.id, row.name, row.position, row.settings)


def _cues(session: Session, keys: Keys) -> Iterator[AnyPart]:
    groups = {row.id: row.heads for row in session.scalars(select(Group))}
    for row in session.scalars(_asked(select(CueRow), CueRow.id, keys)):
        yield CuePart(row.id, row.list_id, row.number, cues.with_heads(row.document, groups))


def _cues_of_groups(session: Session, keys: Keys) -> Iterator[AnyPart]:
    if keys is not None:
        yield from _cues(session, _users(session, CueRow.__tablename__, Group.__tablename__, keys))


def _users(session: Session, table: str, used_table: str, keys: Collection[Any]) -> Collection[Any]:
    """Rows of a table that refer to some rows of another."""
    used = select(Reference.user_id).where(
        Reference.user_table == table, Reference.used_table == used_table, Reference.used_id.in_(keys)
    )
    return session.scalars(used).all()


def _of_groups(session: Session, keys: Keys) -> Iterator[AnyPart]:
    yield from _controls_of_groups(session, keys)
    yield from _cues_of_groups(session, keys)
    if keys is not None:
        yield from _looks(session, _users(session, LookRow.__tablename__, Group.__tablename__, keys))
        yield from _busk_rows(session, session.scalars(select(BuskRow.id).where(BuskRow.group_id.in_(keys))).all())


def _looks(session: Session, keys: Keys) -> Iterator[AnyPart]:
    groups = {row.id: row.heads for row in session.scalars(select(Group))}
    for row in session.scalars(_asked(select(LookRow), LookRow.id, keys)):
        yield LookPart(row.id, row.name, row.position, row.over, cues.with_heads(row.document, groups))


def _pixel_maps(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(PixelMapRow), PixelMapRow.id, keys)):
        yield PixelMapPart(row.id, row.name, row.document)


def _pictures(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(PictureRow), PictureRow.id, keys)):
        yield PicturePart(row.id, row.name, row.document)


def _action_lists(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(ActionListRow), ActionListRow.id, keys)):
        yield ActionListPart(row.id, row.name, row.document)


def _timelines(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(TimelineRow), TimelineRow.id, keys)):
        yield TimelinePart(row.id, row.name, row.position, row.document)


def _tracks(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(TrackRow), TrackRow.id, keys)):
        yield TrackPart(row.id, row.timeline_id, row.position, row.document)


def _events(session: Session, keys: Keys) -> Iterator[AnyPart]:
    columns = select(EventRow.id, EventRow.track_id, EventRow.at, EventRow.length, EventRow.document)
    for row in session.execute(_asked(columns, EventRow.id, keys)):
        yield EventPart(*row)


def _specials(session: Session, keys: Keys) -> Iterator[AnyPart]:
    places = specials.places(session)
    for row in session.scalars(_asked(select(SpecialRow), SpecialRow.id, keys)):
        yield specials.part_of(row, places)


def _specials_of_places(session: Session, keys: Keys) -> Iterator[AnyPart]:
    if keys is not None:
        yield from _specials(session, _users(session, SpecialRow.__tablename__, PlaceRow.__tablename__, keys))


def _opening(session: Session, keys: Keys) -> Iterator[AnyPart]:
    row = session.get(Show, 1)
    yield OpeningPart(tuple(row.settings.get("opening", ())) if row else ())
    yield ColourWayPart(row.settings.get("way", "rgb") if row else "rgb")
    yield LineInPart(row.settings.get("line_in", SIMULATOR) if row else "")
    yield TimecodeInPart(row.settings.get("timecode_in", SIMULATOR) if row else "")


def _routes(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(RouteRow), RouteRow.id, keys)):
        yield routes.part_of(row)


def _devices(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(DeviceRow), DeviceRow.id, keys)):
        yield devices.document_of(row).part(row.id, row.name)


SUBJECTS: dict[str, tuple[str, Callable[[Session, Keys], Iterator[AnyPart]]]] = {
    Mode.__tablename__: ("mode", _modes),
    Fixture.__tablename__: ("fixture", _fixtures),
    TempoRow.__tablename__: ("tempo", _tempos),
    PaletteRow.__tablename__: ("palette", _palettes),
    EffectRow.__tablename__: ("effect", _effects),
    DraftValue.__tablename__: ("draft-values", _draft_values),
    DraftFan.__tablename__: ("", _draft_values_of_fans),
    DraftEffect.__tablename__: ("draft-effect", _draft_effects),
    ControlRow.__tablename__: ("control", _controls),
    Page.__tablename__: ("", _controls_of_pages),
    BuskRow.__tablename__: ("busk-row", _busk_rows),
    CueListRow.__tablename__: ("cue-list", _cue_lists),
    CueRow.__tablename__: ("cue", _cues),
    Group.__tablename__: ("", _of_groups),
    SpecialRow.__tablename__: ("special", _specials),
    LookRow.__tablename__: ("look", _looks),
    PixelMapRow.__tablename__: ("pixel-map", _pixel_maps),
    PictureRow.__tablename__: ("picture", _pictures),
    ActionListRow.__tablename__: ("action-list", _action_lists),
    PlaceRow.__tablename__: ("", _specials_of_places),
    TimelineRow.__tablename__: ("timeline", _timelines),
    TrackRow.__tablename__: ("track", _tracks),
    EventRow.__tablename__: ("event", _events),
    RouteRow.__tablename__: ("route", _routes),
    DeviceRow.__tablename__: ("device", _devices),
    Show.__tablename__: ("opening", _opening),
}
"""By table: the subject whose parts are its rows (empty: none), and which parts follow from some of its rows."""


def all_parts(session: Session) -> list[AnyPart]:
    """Everything."""
    return [part for _, parts in SUBJECTS.values() for part in parts(session, None)]


def changed_parts(session: Session, touched: dict[str, set[Any]]) -> tuple[list[AnyPart], list[PartKey]]:
    """What follows from rows that an edit touched, and what is gone."""
    changed: dict[PartKey, AnyPart] = {}
    gone: list[PartKey] = []
    for table, keys in touched.items():
        if table not in SUBJECTS:
            continue
        subject, parts = SUBJECTS[table]
        found = {part.key: part for part in parts(session, keys)}
        changed |= found
        if subject and table != Show.__tablename__:
            gone += [(subject, key) for key in sorted(keys, key=str) if (subject, key) not in found]
    return list(changed.values()), gone


def newest_edit(session: Session) -> int:
    """Number of the newest edit in the history."""
    return session.scalar(select(func.max(Edit.id))) or 0
