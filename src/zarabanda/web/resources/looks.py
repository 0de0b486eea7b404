"""Kept looks and overlays: made of the draft or of what is on stage, changed, put in order, deleted."""

from __future__ import annotations

from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.rig import attributes
from zarabanda.formats.look_document import LookDocument, LookEffect
from zarabanda.messages import HeldValues
from zarabanda.show import references, repositories
from zarabanda.show.repositories.looks import document_of
from zarabanda.show.tables import DraftEffect, EffectRow, LookRow

from ..context import browser_id, context
from ..parts import Done, Id, Kept
from ..recording import as_document, drafted
from .busk import lights
from .effects import families_of
from .look_models import LookChange, LookOrder, LookSource, LooksView, LookView, NewLook
from .selection import known_heads

api = APIBlueprint("looks", __name__, url_prefix="/api/looks", abp_tags=[Tag(name="looks")])


class LookPath(BaseModel):
    """Which look."""

    look_id: Id


def _content(session: Session, asked: LookSource) -> tuple[HeldValues, list[dict[str, Any]]]:
    """Values and effects of the draft, or of what is on stage, on the chosen heads."""
    heads = None if asked.heads is None else known_heads(asked.heads)
    if asked.source == "draft":
        rows = session.scalars(select(DraftEffect).order_by(DraftEffect.id))
        effects = [
            {"effect": one.effect_id, "heads": [key for key in one.heads if heads is None or key in heads]} for one in rows
        ]
        return drafted(session, asked.families, heads), effects
    link = context().link
    held = link.questions.held_on(heads if heads is not None else list(link.rig.heads.keys))
    values: HeldValues = {
        name: dict(own)
        for name, own in held.values.items()
        if asked.families is None or attributes.BY_NAME[name].family in asked.families
    }
    return values, [
        {"effect": one.effect_id, "heads": one.heads, "families": one.families, "depth": one.depth, "speed": one.speed}
        for one in held.effects
    ]


def _document(session: Session, asked: LookSource, in_s: float, out_s: float) -> LookDocument:
    values, effects = _content(session, asked)
    kept = []
    for one in effects if asked.effects else ():
        row = session.get(EffectRow, one["effect"])
        there = one.get("families") or (families_of(row.document) if row is not None else [])
        acting = [family for family in there if asked.families is None or family in asked.families]
        if row is not None and one["heads"] and acting:
            kept.append(LookEffect(**{**one, "families": None if asked.families is None else acting}))
    return LookDocument.model_validate({"values": as_document(values), "effects": kept, "in_s": in_s, "out_s": out_s})


def _view(session: Session, row: LookRow) -> LookView:
    document = document_of(row)
    own: dict[str, dict[str, None]] = {}
    for name, heads in document.values.items():
        for attribute in attributes.touched(name):
            own.setdefault(attributes.BY_NAME[attribute].family, {}).update(dict.fromkeys(heads))
    names, families = list[str](), set[str](own)
    for one in document.effects:
        effect = session.get(EffectRow, one.effect)
        names.append(f"{effect.name if effect is not None else 'an effect that is gone'} on {lights(one.heads)}")
        families |= set(one.families or (families_of(effect.document) if effect is not None else ()))
    words = [f"{family} of {lights(list(own[family]))}" for family in attributes.FAMILIES if family in own]
    return LookView(
        id=row.id, name=row.name, over=row.over, in_s=document.in_s, out_s=document.out_s,
        content=", ".join([*words, *names]), families=[one for one in attributes.FAMILIES if one in families], effects=names,
        used_by=[user.in_words() for user in references.users_of(session, LookRow.__tablename__, row.id)],
    )  # fmt: skip


@api.get("", responses={200: LooksView})
def get_looks() -> LooksView:
    """All looks, overlays among them."""
    with context().store.reading() as session:
        return LooksView(looks=[_view(session, row) for row in repositories.looks.every(session)])


@api.post("", responses={201: Kept})
def make_look(body: NewLook) -> tuple[Kept, int]:
    """Keep a look of what is set by hand, or of what is on stage."""
    kind = "overlay" if body.over else "look"
    with context().store.edit(browser_id(), f"Keep the {kind} {body.name}") as session:
        document = _document(session, body, body.in_s, body.out_s)
        row = repositories.looks.add(session, body.name, document, over=body.over)
        return Kept(id=row.id, done=f"Kept {row.name}"), 201


@api.put("/<int:look_id>", responses={200: Kept})
def change_look(path: LookPath, body: LookChange) -> Kept:
    """Change the name, the times, or whether it is an overlay."""
    with context().store.edit(browser_id(), "Change a look") as session:
        row = repositories.rows.get(session, LookRow, path.look_id, "look")
        before = document_of(row)
        times = {name: one for name, one in (("in_s", body.in_s), ("out_s", body.out_s)) if one is not None}
        repositories.looks.change(session, row.id, body.name or row.name, before.model_copy(update=times))
        row.over = row.over if body.over is None else body.over
        return Kept(id=row.id, done=f"Changed {row.name}")


@api.post("/<int:look_id>/record", responses={200: Kept})
def record_look(path: LookPath, body: LookSource) -> Kept:
    """Make a look anew, of what is set by hand or on stage; where it is held, that is seen at once."""
    with context().store.edit(browser_id(), "Record a look anew") as session:
        row = repositories.rows.get(session, LookRow, path.look_id, "look")
        before = document_of(row)
        repositories.looks.change(session, row.id, row.name, _document(session, body, before.in_s, before.out_s))
        return Kept(id=row.id, done=f"Recorded {row.name}")


@api.delete("/<int:look_id>", responses={200: Done})
def delete_look(path: LookPath) -> Done:
    """Delete a look; controls that held it keep their place. Undo brings it back."""
    with context().store.edit(browser_id(), "Delete a look") as session:
        row = repositories.rows.get(session, LookRow, path.look_id, "look")
        session.delete(row)
        return Done(done=f"Deleted {row.name}")


@api.post("/order", responses={200: Done})
def put_looks_in_order(body: LookOrder) -> Done:
    """Put looks in another order: overlays lie over one another in it."""
    with context().store.edit(browser_id(), "Move a look") as session:
        repositories.looks.arrange(session, body.ids)
    return Done(done="Moved")
