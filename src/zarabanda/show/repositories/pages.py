"""Pages, and the faders and buttons on them."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.errors import InUse

from ..tables import ControlRow, DraftEffect, EffectRow, Page
from .busk import effect_pad
from .cues import thread_of
from .rows import get


def effect_of(session: Session, key: str) -> int:
    """The effect that is played by a key: `draft:3`, `control:5`, `list:2:7`, or `row:4:2:4` of a pad of a busking row."""
    if key.startswith("row:"):
        return effect_pad(session, key)[1]
    return int(thread_of(session, key)[1]["effect"]) if key.startswith("list:") else user_of(session, key).effect_id


def user_of(session: Session, key: str) -> DraftEffect | ControlRow:
    """What runs an effect, by the key of what plays it: `draft:3` or `control:5`."""
    kind, number = key.split(":")
    if kind == "draft":
        return get(session, DraftEffect, int(number), "draft effect")
    return get(session, ControlRow, int(number), "control")


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
    row = "faders" if mode == "fader" else "buttons"
    taken = select(ControlRow).where(ControlRow.page_id == page_id, ControlRow.row == row, ControlRow.place == place)
    other = session.scalars(taken).first()
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
