"""The draft: values set by hand, and effects that run on them."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel
from sqlalchemy import select

from zarabanda.core.explain.base import base_of
from zarabanda.errors import ZarabandaError
from zarabanda.messages import PlayerId, PreviewValues
from zarabanda.show import repositories
from zarabanda.show.tables import DraftEffect, EffectRow

from ..context import browser_id, context
from ..parts import Done, Id
from .draft_models import BaseAsk, BaseValueView, BaseView, DraftEffectView, DraftValues, DraftView, FrozenLook, OnDraft
from .selection import known_heads

api = APIBlueprint("draft", __name__, url_prefix="/api/draft", abp_tags=[Tag(name="draft")])


class DraftPath(BaseModel):
    """Which effect of the draft."""

    draft_id: Id


@api.get("", responses={200: DraftView})
def get_draft() -> DraftView:
    """All of the draft."""
    with context().store.reading() as session:
        rows = session.execute(
            select(DraftEffect, EffectRow).join(EffectRow, EffectRow.id == DraftEffect.effect_id).order_by(DraftEffect.id)
        )
        return DraftView(
            values=repositories.draft.values(session),
            effects=[DraftEffectView(id=d.id, effect_id=e.id, name=e.name, kept=e.kept, heads=d.heads) for d, e in rows],
        )


@api.post("/base", responses={200: BaseView})
def get_base(body: BaseAsk) -> BaseView:
    """What chosen heads have below all effects: values set by hand, else home, with the range they share."""
    with context().store.reading() as session:
        values = repositories.draft.values(session)
    return BaseView(
        values=[
            BaseValueView(
                attribute=one.attribute.name, label=one.attribute.label, unit=one.attribute.unit, family=one.attribute.family,
                heads=list(one.heads), low=one.low, high=one.high, value=one.value, mixed=one.mixed, by_hand=one.by_hand,
            )
            for one in base_of(context().link.rig, values, body.heads)
        ]
    )  # fmt: skip


@api.post("/values", responses={200: Done})
def set_values(body: DraftValues) -> Done:
    """Set or take back values. A preview is on stage at once, and gone with the next edit."""
    store, link = context().store, context().link
    known_heads([key for heads in body.values.values() for key in heads])
    if body.preview:
        revision = link.revision  # as it is before anything is read: the engine leaves out what an edit has overtaken
        with store.reading() as session:
            for attribute, values in body.values.items():
                repositories.draft.set_values(session, attribute, dict(values))
            session.flush()
            shown = repositories.draft.values(session)
            session.rollback()
        link.send(PreviewValues(shown, revision))
        return Done(done="shown")
    with store.edit(browser_id(), body.label) as session:
        for attribute, values in body.values.items():
            repositories.draft.set_values(session, attribute, dict(values))
        link.fade_s = body.fade_s
    link.fade_s = 0.0  # where nothing changed, nothing was sent: the next edit has its own time
    return Done(done=body.label)


@api.delete("", responses={200: Done})
def clear() -> Done:
    """Clear the draft; undo brings it back."""
    with context().store.edit(browser_id(), "Clear the draft") as session:
        repositories.draft.clear(session)
    return Done(done="Cleared the draft")


@api.post("/effects", responses={201: DraftEffectView})
def put_on(body: OnDraft) -> tuple[DraftEffectView, int]:
    """Run an effect on heads."""
    with context().store.edit(browser_id(), "Apply an effect") as session:
        effect = repositories.rows.get(session, EffectRow, body.effect_id, "effect")
        row = repositories.draft.put_on(session, effect.id, known_heads(body.heads))
        return DraftEffectView(id=row.id, effect_id=effect.id, name=effect.name, kept=effect.kept, heads=row.heads), 201


@api.post("/keep-frozen", responses={200: Done})
def keep_frozen(body: FrozenLook) -> Done:
    """Keep what an effect shows on stage while it is frozen as values of the draft, and let the effect go."""
    link = context().link
    look = link.look_of(PlayerId(body.key))
    if look is None:
        raise ZarabandaError("Only what is frozen can be kept as a look. Freeze the effect first.", "key")
    with context().store.reading() as session:
        user = repositories.pages.user_of(session, body.key)
        name = repositories.rows.get(session, EffectRow, user.effect_id, "effect").name
    with context().store.edit(browser_id(), f"Keep {name} as a look") as session:
        user = repositories.pages.user_of(session, body.key)
        for attribute, values in look.items():
            repositories.draft.set_values(session, attribute, {head: round(value, 4) for head, value in values.items()})
        if isinstance(user, DraftEffect):
            repositories.draft.remove(session, user.id)
        link.let_go.append(PlayerId(body.key))
    return Done(done=f"Kept {name} as a look")


@api.delete("/effects/<int:draft_id>", responses={200: Done})
def take_off(path: DraftPath) -> Done:
    """Take an effect out of the draft."""
    with context().store.edit(browser_id(), "Take an effect out of the draft") as session:
        repositories.draft.remove(session, path.draft_id)
    return Done(done="Taken out of the draft")
