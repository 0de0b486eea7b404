"""Pages and their faders and buttons."""

from __future__ import annotations

from collections.abc import Mapping

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.errors import ZarabandaError
from zarabanda.show import repositories
from zarabanda.show.tables import ControlRow, EffectRow, Group, Page

from ..context import browser_id, context
from ..parts import Done, Id
from .effects import families_of
from .page_models import ControlView, NewControl, PagesView, PageView
from .selection import known_heads

api = APIBlueprint("pages", __name__, url_prefix="/api/pages", abp_tags=[Tag(name="pages")])


class PagePath(BaseModel):
    """Which page."""

    page_id: Id


class ControlPath(BaseModel):
    """Which control."""

    control_id: Id


def _view(row: ControlRow, effects: Mapping[int, EffectRow], groups: Mapping[int, Group]) -> ControlView:
    target = targets.read(row.target).on({number: group.heads for number, group in groups.items()})
    if isinstance(target, targets.StopEffects):
        return ControlView(
            id=row.id, key=f"control:{row.id}", place=row.place, mode=row.mode, name=row.name, effect_id=None,
            effect=target.words, stops=target.family or "all", heads=[], group=None, waits="", job=row.job, families=None,
        )  # fmt: skip
    effect = effects[target.effect_id]
    group = groups.get(target.group_id) if target.group_id is not None else None
    waits = f"Waits for lights: the group “{group.name}” is empty." if group is not None and not target.heads else ""
    return ControlView(
        id=row.id, key=f"control:{row.id}", place=row.place, mode=row.mode, name=row.name, effect_id=effect.id,
        effect=effect.name, stops=None, heads=list(target.heads), group=group.name if group else None, waits=waits, job=row.job,
        families=None if target.families is None else list(target.families),
    )  # fmt: skip


@api.get("", responses={200: PagesView})
def get_pages() -> PagesView:
    """All pages with what is on them."""
    with context().store.reading() as session:
        effects = {row.id: row for row in session.scalars(select(EffectRow))}
        groups = {row.id: row for row in repositories.groups.every(session)}
        controls = session.scalars(select(ControlRow).order_by(ControlRow.place)).all()
        return PagesView(
            pages=[
                PageView(
                    id=page.id,
                    name=page.name,
                    controls=[_view(row, effects, groups) for row in controls if row.page_id == page.id],
                )
                for page in session.scalars(select(Page).order_by(Page.position))
            ]
        )


def _something_acts(session: Session, body: NewControl) -> None:
    """Refuse a choice of families that leaves nothing of the effect."""
    effect = repositories.rows.get(session, EffectRow, body.effect_id or 0, "effect")
    there = families_of(effect.document)
    if body.families is not None and not set(body.families) & set(there):
        raise ZarabandaError(f"{effect.name} moves {', '.join(there)}; keep at least one of these.", "families")


@api.post("/<int:page_id>/controls", responses={201: ControlView})
def add_control(path: PagePath, body: NewControl) -> tuple[ControlView, int]:
    """Put an effect on a fader or button, or stopping effects on a button."""
    if (body.effect_id is None) == (body.stops is None):
        raise ZarabandaError("Say which effect it drives, or which effects it stops.", "effect_id")
    if body.stops is not None and body.mode == "fader":
        raise ZarabandaError("A fader stops nothing: put it on a button.", "mode")
    with context().store.edit(browser_id(), f"Put {body.name} on the page") as session:
        if body.stops is not None:
            stopping = targets.StopEffects(None if body.stops == "all" else body.stops)
            row = repositories.pages.add_control(
                session, path.page_id, place=body.place, name=body.name, mode=body.mode, target=stopping, release_s=body.release_s
            )
            return _view(row, {}, {}), 201
        _something_acts(session, body)
        families = tuple(body.families) if body.families else None
        groups = {row.id: row for row in repositories.groups.every(session)}
        if body.group_id is not None:
            repositories.rows.get(session, Group, body.group_id, "group")
        heads = () if body.group_id is not None else tuple(known_heads(body.heads))
        target = targets.EffectOnHeads(body.effect_id or 0, heads, families, body.group_id)
        row = repositories.pages.add_control(
            session, path.page_id, place=body.place, name=body.name, mode=body.mode, target=target,
            release_s=body.release_s, job=body.job,
        )  # fmt: skip
        return _view(row, {row.effect_id: repositories.rows.get(session, EffectRow, row.effect_id, "effect")}, groups), 201


@api.delete("/controls/<int:control_id>", responses={200: Done})
def remove_control(path: ControlPath) -> Done:
    """Take a control off its page; undo brings it back."""
    with context().store.edit(browser_id(), "Take a control off the page") as session:
        session.delete(repositories.rows.get(session, ControlRow, path.control_id, "control"))
    return Done(done="Taken off the page")
