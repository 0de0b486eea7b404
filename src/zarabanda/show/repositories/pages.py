"""Pages, and the faders and buttons on them."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.errors import InUse, ZarabandaError

from .. import controls
from ..tables import ControlRow, DraftEffect, EffectRow, Page
from . import looks
from .busk import effect_pad
from .cues import thread_of
from .rows import get, own_name, place_in_order

MOST_PAGES = 200


def effect_of(session: Session, key: str) -> int:
    """The effect that is played by a key: `draft:3`, `control:5`, `list:2:7`, `row:4:2:4` of a pad of a busking row,
    `overlay:1:0` of an overlay or `control:5:0` of the look on a control."""
    if key.startswith("row:"):
        return effect_pad(session, key)[1]
    if (of_look := look_of(session, key)) is not None:
        return looks.effect_at(session, *of_look)[2]
    return int(thread_of(session, key)[1]["effect"]) if key.startswith("list:") else user_of(session, key).effect_id


def look_of(session: Session, key: str) -> tuple[int, int] | None:
    """The look of whose effect a key is, by number, and its place; None: it is of none."""
    kind, *numbers = key.partition("~")[0].split(":")
    if kind == "overlay":
        return int(numbers[0]), int(numbers[1])
    if kind != "control" or len(numbers) < 2:
        return None
    target = targets.read(get(session, ControlRow, int(numbers[0]), "control").target)
    return (target.look, int(numbers[1])) if isinstance(target, targets.UseLook) else None


def user_of(session: Session, key: str) -> DraftEffect | ControlRow:
    """What runs an effect, by the key of what plays it: `draft:3` or `control:5`."""
    kind, number = key.split(":")
    if kind == "draft":
        return get(session, DraftEffect, int(number), "draft effect")
    return get(session, ControlRow, int(number), "control")


def every(session: Session) -> Sequence[Page]:
    """Pages in their order."""
    return session.scalars(select(Page).order_by(Page.position, Page.id)).all()


def add(session: Session, name: str) -> Page:
    """A new page, behind the others."""
    there = every(session)
    if len(there) >= MOST_PAGES:
        raise ZarabandaError(f"{MOST_PAGES} pages are the most there can be. Delete one.", "pages")
    page = Page(name=own_name(session, Page, name, "a page"), position=max((one.position for one in there), default=-1) + 1)
    session.add(page)
    session.flush()
    return page


def rename(session: Session, page_id: int, name: str) -> None:
    """Another name."""
    get(session, Page, page_id, "page").name = own_name(session, Page, name, "a page", but=page_id)


def remove(session: Session, page_id: int) -> str:
    """A page with all that is on it, gone; its name. The last one stays."""
    page = get(session, Page, page_id, "page")
    if len(every(session)) == 1:
        raise ZarabandaError("This is the only page: a show has at least one. Make another first.", "page")
    for row in session.scalars(select(ControlRow).where(ControlRow.page_id == page_id)):
        session.delete(row)
    session.flush()
    session.delete(page)
    return page.name


def arrange(session: Session, order: Sequence[int]) -> None:
    """Pages in this order; those that are not named come last."""
    place_in_order(every(session), order)


def _row_of(mode: str) -> str:
    return "faders" if mode == "fader" else "buttons"


def _at(session: Session, page_id: int, row: str, place: int, but: int = 0) -> ControlRow | None:
    same = ControlRow.page_id == page_id, ControlRow.row == row, ControlRow.place == place, ControlRow.id != but
    return session.scalars(select(ControlRow).where(*same)).first()


def _there(row: str, place: int) -> None:
    most = controls.FADERS if row == "faders" else controls.BUTTONS
    if place > most:
        raise ZarabandaError(f"A page has {most} {row}; {place} is no place on it.", "place")


def move(session: Session, control: ControlRow, page_id: int, place: int) -> None:
    """A control somewhere else; what is there changes places with it, if it is of the same kind."""
    page, row = get(session, Page, page_id, "page"), _row_of(control.mode)
    _there(row, place)
    other = _at(session, page_id, row, place, control.id)
    if other is not None:
        if control.row != row:
            raise InUse(
                f"{row.removesuffix('s').capitalize()} {place} of {page.name} has “{other.name}”. Choose a free place.", "place"
            )
        other.page_id, other.place = control.page_id, control.place
    control.page_id, control.row, control.place = page_id, row, place


def add_control(
    session: Session,
    page_id: int,
    *,
    place: int,
    name: str,
    mode: str,
    target: targets.Target,
    release_s: float,
    job: str = "depth",
) -> ControlRow:
    """Put something on a fader or button of a page. place: 1…; it must be free."""
    page = get(session, Page, page_id, "page")
    if isinstance(target, targets.EffectOnHeads):
        get(session, EffectRow, target.effect_id, "effect").kept = True
    row = _row_of(mode)
    _there(row, place)
    other = _at(session, page_id, row, place)
    if other is not None:
        kind = row.removesuffix("s").capitalize()
        raise InUse(
            f"{kind} {place} of {page.name} has “{other.name}” already. Choose a free place, or remove it first.", "place"
        )
    control = ControlRow(
        page_id=page_id, row=row, place=place, name=name, mode=mode, job=job, release_s=release_s, target=targets.plain(target)
    )
    session.add(control)
    session.flush()
    return control
