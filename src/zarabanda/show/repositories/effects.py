"""Effects: the library, and those that belong to the draft alone."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import msgspec
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.errors import InUse
from zarabanda.formats.effect_document import MAX_NAME, EffectDocument

from ..references import Names, users_of
from ..tables import ControlRow, CueListRow, CueRow, DraftEffect, EffectRow, LookRow, Page, Reference
from . import busk, cues, looks
from .pages import look_of, user_of
from .rows import get


def kept(session: Session) -> Sequence[EffectRow]:
    """Kept effects by name."""
    return session.scalars(select(EffectRow).where(EffectRow.kept).order_by(func.lower(EffectRow.name))).all()


def document_of(session: Session, row: EffectRow) -> dict[str, Any]:
    """Its document as it is shown and exported: with names of palettes and tempos."""
    return Names.of(session).named(row.document)


def free_name(session: Session, wanted: str) -> str:
    """`wanted`, or with the lowest number behind it that no kept effect has."""
    names = {name.lower() for name in session.scalars(select(EffectRow.name).where(EffectRow.kept))}
    name, number = wanted, 2
    while name.lower() in names:
        ending = f" {number}"
        name, number = wanted[: MAX_NAME - len(ending)] + ending, number + 1
    return name


def store(session: Session, document: EffectDocument, *, kept: bool) -> EffectRow:
    """A new effect."""
    if kept:
        _name_is_free(session, document.name, 0)
    row = EffectRow(name=document.name, kept=kept, favourite=False, document=Names.of(session).numbered(document.plain()))
    session.add(row)
    session.flush()
    return row


def _name_is_free(session: Session, name: str, but: int) -> None:
    same = select(EffectRow).where(EffectRow.kept, func.lower(EffectRow.name) == name.lower(), EffectRow.id != but)
    if session.scalars(same).first() is not None:
        raise InUse(f"There is an effect named “{name}” already. Try “{free_name(session, name)}”.", "name")


def change(session: Session, effect_id: int, document: EffectDocument) -> EffectRow:
    """Another document for an effect, wherever it is used."""
    row = get(session, EffectRow, effect_id, "effect")
    if row.kept and document.name != row.name:
        _name_is_free(session, document.name, row.id)
    row.name, row.document = document.name, Names.of(session).numbered(document.plain())
    return row


def keep(session: Session, effect_id: int, name: str) -> EffectRow:
    """Put an effect of the draft into the library, under a name."""
    row = get(session, EffectRow, effect_id, "effect")
    _name_is_free(session, name, row.id)
    row.kept, row.name, row.document = True, name, {**row.document, "name": name}
    return row


def copy(session: Session, row: EffectRow, *, kept: bool) -> EffectRow:
    """Another effect of the same document, under a free name."""
    document = EffectDocument.model_validate(document_of(session, row))
    return store(session, document.model_copy(update={"name": free_name(session, document.name)}), kept=kept)


def remove(session: Session, effect_id: int) -> None:
    """Delete an effect, and with it the draft entries that run it. Cues and looks go on without it; controls keep their place and
    say that it is gone."""
    row = get(session, EffectRow, effect_id, "effect")
    for user in users_of(session, EffectRow.__tablename__, effect_id):
        if isinstance(user, CueRow):
            cues.without_effect(session, user, effect_id)
        elif isinstance(user, LookRow):
            user.document = {
                **user.document, "effects": [one for one in user.document["effects"] if one["effect"] != effect_id],
            }  # fmt: skip
    for draft in session.scalars(select(DraftEffect).where(DraftEffect.effect_id == effect_id)):
        session.delete(draft)
    session.flush()
    session.delete(row)


def all_uses(session: Session, only: int | None = None) -> dict[int, list[str]]:
    """Where each effect is used, in words, by its number. only: of one effect."""
    on_pages = (
        select(Reference.used_id, Page.name, ControlRow.place, ControlRow.row)
        .join(ControlRow, ControlRow.id == Reference.user_id)
        .join(Page, ControlRow.page_id == Page.id)
        .where(Reference.user_table == ControlRow.__tablename__, Reference.used_table == EffectRow.__tablename__)
        .order_by(Page.position, ControlRow.place)
    )
    in_cues = (
        select(Reference.used_id, CueListRow.name, CueRow.number)
        .join(CueRow, CueRow.id == Reference.user_id)
        .join(CueListRow, CueRow.list_id == CueListRow.id)
        .where(Reference.user_table == CueRow.__tablename__, Reference.used_table == EffectRow.__tablename__)
        .order_by(CueListRow.position, CueRow.number)
    )
    in_looks = (
        select(Reference.used_id, LookRow.name)
        .join(LookRow, LookRow.id == Reference.user_id)
        .where(Reference.user_table == LookRow.__tablename__, Reference.used_table == EffectRow.__tablename__)
        .order_by(LookRow.position)
    )
    in_draft = select(DraftEffect.effect_id).distinct()
    if only is not None:
        on_pages, in_draft = on_pages.where(Reference.used_id == only), in_draft.where(DraftEffect.effect_id == only)
        in_cues, in_looks = in_cues.where(Reference.used_id == only), in_looks.where(Reference.used_id == only)
    found: dict[int, list[str]] = {}
    for effect_id, page, place, row in session.execute(on_pages):
        found.setdefault(effect_id, []).append(f"{row.removesuffix('s')} {place} of {page}")
    for effect_id, name, number in session.execute(in_cues):
        found.setdefault(effect_id, []).append(f"{name}, cue {number:g}")
    for effect_id, name in session.execute(in_looks):
        found.setdefault(effect_id, []).append(f"the look {name}")
    for effect_id in session.scalars(in_draft):
        found.setdefault(effect_id, []).append("the draft")
    return found


def own_copy(session: Session, key: str) -> EffectRow:
    """Give one of the uses of an effect (`draft:3`, `control:5`, `list:2:7`, `row:4:2:4`) a copy of its own."""
    if key.startswith("list:"):
        cue, change = cues.thread_of(session, key)
        row = copy(session, get(session, EffectRow, change["effect"], "effect"), kept=True)
        others = [one for one in cue.document["effects"] if one != change]
        cue.document = {**cue.document, "effects": [*others, {**change, "effect": row.id}]}
        return row
    if key.startswith("row:"):
        on, effect, pad = busk.effect_pad(session, key)
        row = copy(session, get(session, EffectRow, effect, "effect"), kept=True)
        document = busk.document_of(on)
        pads = [one.model_copy(update={"effect": row.id}) if one.id == pad else one for one in document.effects]
        busk.put(on, document.model_copy(update={"effects": pads}))
        return row
    if (of_look := look_of(session, key)) is not None:
        own, content, effect = looks.effect_at(session, *of_look)
        row = copy(session, get(session, EffectRow, effect, "effect"), kept=True)
        effects = [one.model_copy(update={"effect": row.id}) if n == of_look[1] else one for n, one in enumerate(content.effects)]
        own.document = content.model_copy(update={"effects": effects}).model_dump(mode="json")
        return row
    user = user_of(session, key)
    row = copy(session, get(session, EffectRow, user.effect_id, "effect"), kept=isinstance(user, ControlRow))
    if isinstance(user, ControlRow):
        user.target = targets.plain(msgspec.structs.replace(targets.read(user.target), effect_id=row.id))
    else:
        user.effect_id = row.id
    return row
