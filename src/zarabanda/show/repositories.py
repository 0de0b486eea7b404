"""Questions and changes in the words of the show. Changes take the session of an edit (`Store.edit`)."""

from __future__ import annotations

import json
from collections.abc import Iterable, Sequence
from functools import lru_cache
from typing import Any, TypeVar

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.core.effects.palette import Palette
from zarabanda.core.rig import attributes
from zarabanda.errors import InUse, NotThere, ZarabandaError, shown
from zarabanda.formats.effect_document import MAX_NAME, EffectDocument, palettes_of
from zarabanda.formats.palette_document import PaletteDocument

from .tables import Base, ControlRow, DraftEffect, DraftValue, EffectRow, Group, Page, PaletteRow, Show, TempoRow
from .uses import palette_users

T = TypeVar("T", bound=Base)


def get(session: Session, table: type[T], key: Any, what: str) -> T:
    """A row, or a clear error that it is gone."""
    row = session.get(table, key)
    if row is None:
        raise NotThere(f"This {what} does not exist any more; somebody may have deleted it. Undo brings it back.", what)
    return row


def show(session: Session) -> Show:
    """The one show."""
    return get(session, Show, 1, "show")


def groups(session: Session) -> Sequence[Group]:
    """Groups in their order."""
    return session.scalars(select(Group).order_by(Group.position, Group.id)).all()


def tempos(session: Session) -> Sequence[TempoRow]:
    """Tempos in their order."""
    return session.scalars(select(TempoRow).order_by(TempoRow.position)).all()


def palettes(session: Session) -> Sequence[PaletteRow]:
    """Palettes in their order."""
    return session.scalars(select(PaletteRow).order_by(PaletteRow.position, PaletteRow.id)).all()


def palettes_by_name(session: Session) -> dict[str, Palette]:
    """Palettes as the core computes with them."""
    return {row.name: _palette(row.name, json.dumps(row.document)) for row in palettes(session)}


@lru_cache(maxsize=1024)
def _palette(name: str, document: str) -> Palette:
    return PaletteDocument.model_validate_json(document).to_core(name)


def store_palette(session: Session, name: str, document: PaletteDocument) -> PaletteRow:
    """A new palette, behind the others."""
    _palette_name_is_free(session, name, 0)
    last = session.scalar(select(func.max(PaletteRow.position)))
    plain = document.model_dump(mode="json", exclude_none=True)
    row = PaletteRow(name=name, position=0 if last is None else last + 1, document=plain)
    session.add(row)
    session.flush()
    return row


def change_palette(session: Session, palette_id: int, name: str, document: PaletteDocument) -> PaletteRow:
    """Another name or other values for a palette; effects that go to it follow both."""
    row = get(session, PaletteRow, palette_id, "palette")
    _palette_name_is_free(session, name, row.id)
    if name != row.name:
        for effect in session.scalars(select(EffectRow)):
            if row.name in palettes_of(effect.document):
                effect.document = _with_palette_named(effect.document, row.name, name)
    row.name, row.document = name, document.model_dump(mode="json", exclude_none=True)
    return row


def _with_palette_named(value: Any, old: str, new: str) -> Any:
    """A document in which every `{"palette": old}` says new."""
    if isinstance(value, dict):
        if value == {"palette": old}:
            return {"palette": new}
        return {key: _with_palette_named(one, old, new) for key, one in value.items()}
    return [_with_palette_named(one, old, new) for one in value] if isinstance(value, list) else value


def delete_palette(session: Session, palette_id: int) -> None:
    """Delete a palette that no effect goes to."""
    row = get(session, PaletteRow, palette_id, "palette")
    users = palette_users(session, row.name)
    if users:
        raise InUse(f"“{row.name}” is in use by {', '.join(users[:5])}. Take it out of there first.", "palette")
    session.delete(row)


def palettes_exist(session: Session, document: EffectDocument, before: EffectDocument | None = None) -> None:
    """Refuse an effect that goes to a palette which is not there; one that it had before is let pass."""
    kept = before.palettes() if before else {}
    asked = {name: place for name, place in document.palettes().items() if name not in kept}
    names = {row.name for row in palettes(session)} if asked else set()
    for name, place in asked.items():
        if name not in names:
            raise NotThere(
                f"There is no palette “{name}”; use one of {', '.join(sorted(names)) or 'your own, once kept'}.", place
            )


def _palette_name_is_free(session: Session, name: str, but: int) -> None:
    same = select(PaletteRow).where(func.lower(PaletteRow.name) == name.lower(), PaletteRow.id != but)
    if session.scalars(same).first() is not None:
        raise InUse(f"There is a palette named “{name}” already. Choose another name.", "name")


def library(session: Session) -> Sequence[EffectRow]:
    """Kept effects by name."""
    return session.scalars(select(EffectRow).where(EffectRow.kept).order_by(func.lower(EffectRow.name))).all()


def free_name(session: Session, wanted: str) -> str:
    """`wanted`, or with the lowest number behind it that no kept effect has."""
    names = {name.lower() for name in session.scalars(select(EffectRow.name).where(EffectRow.kept))}
    name, number = wanted, 2
    while name.lower() in names:
        ending = f" {number}"
        name, number = wanted[: MAX_NAME - len(ending)] + ending, number + 1
    return name


def store_effect(session: Session, document: EffectDocument, *, kept: bool) -> EffectRow:
    """A new effect."""
    if kept:
        _name_is_free(session, document.name, 0)
    row = EffectRow(name=document.name, kept=kept, favourite=False, document=document.plain())
    session.add(row)
    session.flush()
    return row


def _name_is_free(session: Session, name: str, but: int) -> None:
    same = select(EffectRow).where(EffectRow.kept, func.lower(EffectRow.name) == name.lower(), EffectRow.id != but)
    if session.scalars(same).first() is not None:
        raise InUse(f"There is an effect named “{name}” already. Try “{free_name(session, name)}”.", "name")


def change_effect(session: Session, effect_id: int, document: EffectDocument) -> EffectRow:
    """Another document for an effect, wherever it is used."""
    row = get(session, EffectRow, effect_id, "effect")
    if row.kept and document.name != row.name:
        _name_is_free(session, document.name, row.id)
    row.name, row.document = document.name, document.plain()
    return row


def keep_effect(session: Session, effect_id: int, name: str) -> EffectRow:
    """Put an effect of the draft into the library, under a name."""
    row = get(session, EffectRow, effect_id, "effect")
    _name_is_free(session, name, row.id)
    row.kept, row.name, row.document = True, name, {**row.document, "name": name}
    return row


def delete_effect(session: Session, effect_id: int) -> None:
    """Delete an effect, and with it the controls and draft entries that run it."""
    row = get(session, EffectRow, effect_id, "effect")
    for table in (ControlRow, DraftEffect):
        for user in session.scalars(select(table).where(table.effect_id == effect_id)):
            session.delete(user)
    session.flush()
    session.delete(row)


def all_uses(session: Session, only: int | None = None) -> dict[int, list[str]]:
    """Where each effect is used, in words, by its number. only: of one effect."""
    on_pages = (
        select(ControlRow.effect_id, Page.name, ControlRow.place, ControlRow.mode)
        .join(ControlRow, ControlRow.page_id == Page.id)
        .order_by(Page.position, ControlRow.place)
    )
    in_draft = select(DraftEffect.effect_id).distinct()
    if only is not None:
        on_pages, in_draft = on_pages.where(ControlRow.effect_id == only), in_draft.where(DraftEffect.effect_id == only)
    found: dict[int, list[str]] = {}
    for effect_id, page, place, mode in session.execute(on_pages):
        found.setdefault(effect_id, []).append(f"{'fader' if mode == 'fader' else 'button'} {place} of {page}")
    for effect_id in session.scalars(in_draft):
        found.setdefault(effect_id, []).append("the draft")
    return found


def uses(session: Session, effect_id: int) -> list[str]:
    """Where an effect is used, in words."""
    return all_uses(session, effect_id).get(effect_id, [])


def user_of(session: Session, key: str) -> DraftEffect | ControlRow:
    """What runs an effect, by its key among what runs: `draft:3` or `control:5`."""
    kind, number = key.split(":")
    if kind == "draft":
        return get(session, DraftEffect, int(number), "draft effect")
    return get(session, ControlRow, int(number), "control")


def own_copy(session: Session, key: str) -> EffectRow:
    """Give one of the uses of an effect (`draft:3`, `control:5`) a copy of its own."""
    user = user_of(session, key)
    document = EffectDocument.model_validate(get(session, EffectRow, user.effect_id, "effect").document)
    document = document.model_copy(update={"name": free_name(session, document.name)})
    row = store_effect(session, document, kept=isinstance(user, ControlRow))
    user.effect_id = row.id
    return row


def put_on_draft(session: Session, effect_id: int, heads: Iterable[str]) -> DraftEffect:
    """Run an effect in the draft."""
    get(session, EffectRow, effect_id, "effect")
    row = DraftEffect(effect_id=effect_id, heads=list(heads))
    session.add(row)
    session.flush()
    return row


def remove_from_draft(session: Session, draft_effect_id: int) -> None:
    """Take an effect out of the draft; one that was not kept goes with it."""
    row = get(session, DraftEffect, draft_effect_id, "draft effect")
    effect = get(session, EffectRow, row.effect_id, "effect")
    session.delete(row)
    session.flush()
    if not effect.kept and not uses(session, effect.id):
        session.delete(effect)


def clear_draft(session: Session) -> None:
    """Take back all values set by hand, and all effects of the draft."""
    for value in session.scalars(select(DraftValue)):
        session.delete(value)
    for effect in session.scalars(select(DraftEffect)).all():
        remove_from_draft(session, effect.id)


def set_draft_values(session: Session, attribute: str, values: dict[str, float | None]) -> None:
    """Set values of one attribute by head key, in natural units; None takes a value back."""
    row_of = attributes.BY_NAME.get(attribute)
    if row_of is None:
        raise ZarabandaError(
            f"There is no attribute {shown(attribute)}; use one of {', '.join(attributes.BY_NAME)}.", "attribute"
        )
    for head, value in values.items():
        if value is not None and not row_of.low <= value <= row_of.high:
            raise ZarabandaError(
                f"{attribute} {value:g} of head {head} is out of range; it goes from {row_of.low:g} to {row_of.high:g} "
                f"{row_of.unit}.",
                f"values.{head}",
            )
    row = session.get(DraftValue, attribute)
    merged = {**(row.heads if row else {}), **values}
    kept = {head: float(value) for head, value in merged.items() if value is not None}
    if row is None and kept:
        session.add(DraftValue(attribute=attribute, heads=kept))
    elif row is not None and kept:
        row.heads = kept
    elif row is not None:
        session.delete(row)


def add_control(
    session: Session,
    page_id: int,
    *,
    place: int,
    name: str,
    mode: str,
    effect_id: int,
    heads: list[str],
    release_s: float,
    job: str = "depth",
    families: Sequence[str] | None = None,
) -> ControlRow:
    """Put an effect on a fader or button of a page. place: 1…; it must be free."""
    page = get(session, Page, page_id, "page")
    get(session, EffectRow, effect_id, "effect").kept = True
    taken = select(ControlRow).where(
        ControlRow.page_id == page_id, ControlRow.place == place, (ControlRow.mode == "fader") == (mode == "fader")
    )
    other = session.scalars(taken).first()
    if other is not None:
        kind = "Fader" if mode == "fader" else "Button"
        raise InUse(
            f"{kind} {place} of {page.name} has “{other.name}” already. Choose a free place, or remove it first.", "place"
        )
    row = ControlRow(
        page_id=page_id,
        place=place,
        name=name,
        mode=mode,
        effect_id=effect_id,
        heads=heads,
        release_s=release_s,
        job=job,
        families=list(families) if families else None,
    )
    session.add(row)
    session.flush()
    return row
