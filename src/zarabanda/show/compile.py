"""The show as parts for the engine: one function a subject, by the table that it reads."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Collection, Iterator
from typing import Any

import msgspec
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.messages import (
    AnyPart,
    ControlPart,
    DraftEffectPart,
    DraftValuesPart,
    EffectPart,
    OpeningPart,
    PalettePart,
    PartKey,
    RigPart,
    TempoPart,
)

from .repositories import palettes
from .tables import ControlRow, DraftEffect, DraftValue, Edit, EffectRow, Fixture, Mode, Page, PaletteRow, Show, TempoRow

Keys = Collection[Any] | None
"""Of the rows that are asked for; None: all."""
OF_RIG = frozenset({Fixture.__tablename__, Mode.__tablename__})
"""Tables that the rig is made of."""

_NOT_FOR_ENGINE = ("maker", "model")


def rig(session: Session) -> RigPart:
    """The rig; its revision is a hash of its content (hexadecimal)."""
    modes = [
        {key: value for key, value in mode.document.items() if key not in _NOT_FOR_ENGINE}
        for mode in session.scalars(select(Mode).order_by(Mode.name))
    ]
    fixtures = [
        {
            "number": f.number, "name": f.name, "mode": f.mode, "place": [f.x, f.y, f.z],
            "rotation": [f.turn_x, f.turn_y, f.turn_z], "universe": f.universe, "address": f.address,
            "reversed_cells": f.reversed_cells,
        }
        for f in session.scalars(select(Fixture).order_by(Fixture.number))
    ]  # fmt: skip
    content = {"modes": modes, "fixtures": fixtures}
    digest = hashlib.sha256(json.dumps(content, sort_keys=True).encode()).hexdigest()[:16]
    return msgspec.convert({**content, "revision": digest}, RigPart)


def _asked(query: Any, column: Any, keys: Keys) -> Any:
    return query if keys is None else query.where(column.in_(keys))


def _tempos(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(TempoRow), TempoRow.id, keys)):
        yield TempoPart(row.id, row.name, row.bpm, row.position)


def _palettes(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(PaletteRow), PaletteRow.id, keys)):
        made = palettes.to_core(row)
        yield PalettePart(row.id, row.name, dict(made.values), {head: dict(values) for head, values in made.own.items()})


def _effects(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for number, document in session.execute(_asked(select(EffectRow.id, EffectRow.document), EffectRow.id, keys)):
        yield EffectPart(number, document)


def _draft_values(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(DraftValue), DraftValue.attribute, keys)):
        yield DraftValuesPart(row.attribute, row.heads)


def _draft_effects(session: Session, keys: Keys) -> Iterator[AnyPart]:
    for row in session.scalars(_asked(select(DraftEffect), DraftEffect.id, keys)):
        yield DraftEffectPart(row.id, targets.EffectOnHeads(row.effect_id, tuple(row.heads)))


def _controls(session: Session, keys: Keys) -> Iterator[AnyPart]:
    query = select(ControlRow, Page.name).join(Page, ControlRow.page_id == Page.id)
    for row, page in session.execute(_asked(query, ControlRow.id, keys)):
        source = f"{page}, {row.row.removesuffix('s')} {row.place}"
        yield ControlPart(row.id, row.name, source, row.mode, row.job, row.release_s, targets.read(row.target))


def _controls_of_pages(session: Session, keys: Keys) -> Iterator[AnyPart]:
    if keys is not None:
        yield from _controls(session, session.scalars(select(ControlRow.id).where(ControlRow.page_id.in_(keys))).all())


def _opening(session: Session, keys: Keys) -> Iterator[AnyPart]:
    row = session.get(Show, 1)
    yield OpeningPart(tuple(row.settings.get("opening", ())) if row else ())


SUBJECTS: dict[str, tuple[str, Callable[[Session, Keys], Iterator[AnyPart]]]] = {
    TempoRow.__tablename__: ("tempo", _tempos),
    PaletteRow.__tablename__: ("palette", _palettes),
    EffectRow.__tablename__: ("effect", _effects),
    DraftValue.__tablename__: ("draft-values", _draft_values),
    DraftEffect.__tablename__: ("draft-effect", _draft_effects),
    ControlRow.__tablename__: ("control", _controls),
    Page.__tablename__: ("", _controls_of_pages),
    Show.__tablename__: ("opening", _opening),
}
"""By table: the subject whose parts are its rows (empty: none), and which parts follow from some of its rows."""


def all_parts(session: Session) -> list[AnyPart]:
    """Everything but the rig."""
    return [part for _, parts in SUBJECTS.values() for part in parts(session, None)]


def changed_parts(session: Session, touched: dict[str, set[Any]]) -> tuple[list[AnyPart], list[PartKey]]:
    """What follows from rows that an edit touched, and what is gone; without the rig."""
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
