"""Pages and their faders and buttons."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, cast, get_args

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.errors import ZarabandaError
from zarabanda.show import controls, repositories
from zarabanda.show.tables import (
    ActionListRow,
    BuskRow,
    ControlRow,
    CueListRow,
    EffectRow,
    Group,
    LookRow,
    Page,
    PictureRow,
    PixelMapRow,
    SpecialRow,
    TempoRow,
)

from ..context import browser_id, context
from ..parts import Done, Id, Kept
from .effects import families_of
from .page_models import (
    ControlChange,
    ControlView,
    Driven,
    Kind,
    NewControl,
    PageName,
    PageOrder,
    PagesView,
    PageView,
)
from .selection import known_heads

api = APIBlueprint("pages", __name__, url_prefix="/api/pages", abp_tags=[Tag(name="pages")])


class PagePath(BaseModel):
    """Which page."""

    page_id: Id


class ControlPath(BaseModel):
    """Which control."""

    control_id: Id


# what a control drives, from the API and for it


def _there(session: Session, table: Any, body: Driven, what: str) -> int:
    """The number of a row that there is."""
    if body.number is None:
        raise ZarabandaError(f"Say which {what} it drives.", "drives.number")
    return int(repositories.rows.get(session, table, body.number, what).id)


def _on_heads(session: Session, body: Driven) -> dict[str, Any]:
    if body.group_id is not None:
        repositories.rows.get(session, Group, body.group_id, "group")
        return {"heads": (), "group_id": body.group_id}
    if not body.heads:
        raise ZarabandaError("Choose some lights, or a group.", "drives.heads")
    return {"heads": tuple(known_heads(body.heads)), "group_id": None}


def _effect(session: Session, body: Driven) -> targets.Target:
    number = _there(session, EffectRow, body, "effect")
    effect = repositories.rows.get(session, EffectRow, number, "effect")
    there = families_of(effect.document)
    if body.families is not None and not set(body.families) & set(there):
        raise ZarabandaError(f"{effect.name} moves {', '.join(there)}; keep at least one of these.", "drives.families")
    families = tuple(body.families) if body.families else None
    return targets.EffectOnHeads(number, families=families, **_on_heads(session, body))


def _message(session: Session, body: Driven) -> targets.Target:
    if body.message is None:
        raise ZarabandaError("Say which message it sends.", "drives.message")
    repositories.messages.must_fit(session, [body.message])
    return targets.Send(body.message.model_dump())


def _pixels(session: Session, body: Driven) -> targets.Target:
    if body.picture:
        repositories.rows.get(session, PictureRow, body.picture, "picture")
    return targets.UsePixels(_there(session, PixelMapRow, body, "pixel map"), body.picture, body.over)


_MADE: dict[str, Callable[[Session, Driven], targets.Target]] = {
    "effect": _effect,
    "look": lambda session, body: targets.UseLook(_there(session, LookRow, body, "look")),
    "pixels": _pixels,
    "list": lambda session, body: targets.OnList(_there(session, CueListRow, body, "cue list"), body.do, body.seconds),
    "group": lambda session, body: targets.OnGroup(group_id=_there(session, Group, body, "group")),
    "alone": lambda session, body: targets.Alone(**_on_heads(session, body)),
    "tempo": lambda session, body: targets.OnTempo(_there(session, TempoRow, body, "tempo")),
    "special": lambda session, body: targets.OnSpecials(
        None if body.number is None else _there(session, SpecialRow, body, "special")
    ),
    "master": lambda session, body: targets.Master(),
    "row": lambda session, body: targets.OnRow(_there(session, BuskRow, body, "row")),
    "message": _message,
    "stop-effects": lambda session, body: targets.StopEffects(body.family),
    "actions": lambda session, body: targets.RunActions(_there(session, ActionListRow, body, "action list")),
    "page": lambda session, body: targets.ShowPage(_there(session, Page, body, "page")),
    "release": lambda session, body: targets.ReleaseEverything(body.seconds),
}
"""Targets of each kind, from what a body says."""
_NUMBERS = ("effect_id", "look", "list", "tempo", "special", "row", "page", "actions", "map")
"""Fields of targets that are the number of what they are on."""
_KINDS = get_args(Kind)


def _driven(target: targets.Target) -> Driven:
    plain = targets.plain(target)
    number = next((plain[name] for name in _NUMBERS if plain.get(name) is not None), None)
    on_group = isinstance(target, targets.OnGroup)
    return Driven.model_validate(
        {
            "kind": plain["kind"], "number": plain["group_id"] if on_group else number, "heads": plain.get("heads", []),
            "group_id": None if on_group else plain.get("group_id"), "families": plain.get("families"),
            "do": plain.get("do", "go"), "family": plain.get("family"), "message": plain.get("message"),
            "seconds": plain.get("seconds", 2.0), "picture": plain.get("picture", 0), "over": plain.get("over"),
        }
    )  # fmt: skip


def _target(session: Session, mode: str, body: Driven) -> targets.Target:
    """What a control is to drive, if it can."""
    able = controls.ON_FADERS if mode == "fader" else controls.ON_BUTTONS
    where = "a fader" if mode == "fader" else "a button"
    if body.kind not in able:
        raise ZarabandaError(f"{where.capitalize()} cannot do this; it can have {', '.join(sorted(able))}.", "drives.kind")
    if body.kind == "list" and (body.do == "level") != (mode == "fader"):
        raise ZarabandaError("A fader moves the level of a list; a button goes, goes back, pauses or releases it.", "drives.do")
    if body.kind == "special" and mode == "fader" and body.number is not None:
        raise ZarabandaError("A fader moves the level of all specials; put a single one on a button.", "drives.number")
    if body.kind == "message" and mode == "fader" and body.message is not None and body.message.kind not in ("controller", "osc"):
        raise ZarabandaError("A fader sends the value of a MIDI controller or of an OSC message.", "drives.message")
    return _MADE[body.kind](session, body)


def _view(row: ControlRow, names: controls.Names) -> ControlView:
    target = targets.read(row.target)
    found = controls.described(row, names)
    filled = target.on(names.groups)
    return ControlView(
        id=row.id, key=f"control:{row.id}", place=row.place, mode=cast(Any, row.mode), name=row.name, job=cast(Any, row.job),
        release_s=row.release_s, drives=_driven(target), on=found.on, does=found.does, gone=found.gone,
        waits=controls.waits(row, names), heads=list(getattr(filled, "heads", ())),
        group=names.of("head_group", getattr(target, "group_id", None)), low=found.low, high=found.high, unit=found.unit,
    )  # fmt: skip


# pages


@api.get("", responses={200: PagesView})
def get_pages() -> PagesView:
    """All pages with what is on them."""
    with context().store.reading() as session:
        names = controls.Names(session)
        rows = session.scalars(select(ControlRow).order_by(ControlRow.place)).all()
        pages = [
            PageView(id=page.id, name=page.name, controls=[_view(row, names) for row in rows if row.page_id == page.id])
            for page in repositories.pages.every(session)
        ]
    kinds = [cast(Kind, kind) for kind in _KINDS]
    return PagesView(
        pages=pages, faders=controls.FADERS, buttons=controls.BUTTONS,
        on_faders=[kind for kind in kinds if kind in controls.ON_FADERS],
        on_buttons=[kind for kind in kinds if kind in controls.ON_BUTTONS],
    )  # fmt: skip


@api.post("", responses={201: Kept})
def make_page(body: PageName) -> tuple[Kept, int]:
    """A new page that nothing is on."""
    with context().store.edit(browser_id(), f"Make the page {body.name}") as session:
        page = repositories.pages.add(session, body.name)
        return Kept(id=page.id, done=f"Made {page.name}"), 201


@api.post("/<int:page_id>/rename", responses={200: Done})
def rename_page(path: PagePath, body: PageName) -> Done:
    """Give a page another name."""
    with context().store.edit(browser_id(), f"Rename a page to {body.name}") as session:
        repositories.pages.rename(session, path.page_id, body.name)
    return Done(done=f"Renamed to {body.name}")


@api.delete("/<int:page_id>", responses={200: Done})
def delete_page(path: PagePath) -> Done:
    """Delete a page and all that is on it; undo brings it back."""
    with context().store.edit(browser_id(), "Delete a page") as session:
        return Done(done=f"Deleted {repositories.pages.remove(session, path.page_id)}")


@api.post("/order", responses={200: Done})
def put_pages_in_order(body: PageOrder) -> Done:
    """Put pages in another order."""
    with context().store.edit(browser_id(), "Move a page") as session:
        repositories.pages.arrange(session, body.ids)
    return Done(done="Moved")


# controls


@api.post("/<int:page_id>/controls", responses={201: ControlView})
def add_control(path: PagePath, body: NewControl) -> tuple[ControlView, int]:
    """Put something on a fader or button."""
    with context().store.edit(browser_id(), f"Put {body.name} on the page") as session:
        target = _target(session, body.mode, body.drives)
        row = repositories.pages.add_control(
            session, path.page_id, place=body.place, name=body.name, mode=body.mode, target=target, release_s=body.release_s,
            job=body.job,
        )  # fmt: skip
        repositories.action_lists.must_end(session)
        return _view(row, controls.Names(session)), 201


@api.put("/controls/<int:control_id>", responses={200: ControlView})
def change_control(path: ControlPath, body: ControlChange) -> ControlView:
    """Change what a control is called, drives or how it acts, or move it."""
    with context().store.edit(browser_id(), "Change a control") as session:
        row = repositories.rows.get(session, ControlRow, path.control_id, "control")
        for name in ("name", "mode", "job", "release_s"):
            if getattr(body, name) is not None:
                setattr(row, name, getattr(body, name))
        if body.drives is not None or body.mode is not None:
            drives = body.drives or _driven(targets.read(row.target))
            row.target = targets.plain(_target(session, row.mode, drives))
        if body.place is not None or body.page_id is not None or body.mode is not None:
            repositories.pages.move(session, row, body.page_id or row.page_id, body.place or row.place)
        session.flush()
        repositories.action_lists.must_end(session)
        return _view(row, controls.Names(session))


@api.delete("/controls/<int:control_id>", responses={200: Done})
def remove_control(path: ControlPath) -> Done:
    """Take a control off its page; undo brings it back."""
    with context().store.edit(browser_id(), "Take a control off the page") as session:
        session.delete(repositories.rows.get(session, ControlRow, path.control_id, "control"))
    return Done(done="Taken off the page")
