"""Cue lists and their cues."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import JSON, func, select, type_coerce
from sqlalchemy.orm import Session

from zarabanda.errors import InUse, NotThere, ZarabandaError
from zarabanda.formats.cue_document import CueDocument, CueListSettings

from ..tables import CueListRow, CueRow, EffectRow
from .rows import get, own_name, place_in_order

MOST_CUES = 5000
_FINEST = 0.001


def with_heads(document: Mapping[str, Any], groups: Mapping[int, Sequence[str]]) -> dict[str, Any]:
    """The document of a cue with the heads of groups, as they are now, in its effects."""
    effects = [
        one if one.get("group_id") is None else {**one, "heads": list(groups.get(one["group_id"], ()))}
        for one in document.get("effects", ())
    ]
    return {**document, "effects": effects}


def lists(session: Session) -> Sequence[CueListRow]:
    """All lists in their order."""
    return session.scalars(select(CueListRow).order_by(CueListRow.position, CueListRow.id)).all()


def of_list(session: Session, list_id: int) -> Sequence[CueRow]:
    """The cues of a list in their order."""
    return session.scalars(select(CueRow).where(CueRow.list_id == list_id).order_by(CueRow.number, CueRow.id)).all()


@dataclass(frozen=True)
class Outline:
    """A cue without its values, which can be many: its number in the show, its own number, and the rest of its document."""

    id: int
    number: float
    document: dict[str, Any]


_LONG = ("$.values", "$.stops", "$.only_here")


def outlines(session: Session, list_id: int) -> list[Outline]:
    """The cues of a list in their order, without their values."""
    document = type_coerce(func.json_remove(CueRow.document, *_LONG), JSON)
    query = select(CueRow.id, CueRow.number, document).where(CueRow.list_id == list_id).order_by(CueRow.number, CueRow.id)
    return [Outline(*row) for row in session.execute(query)]


def _numbers(session: Session, list_id: int) -> dict[int, float]:
    """Numbers of the cues of a list, by their number in the show."""
    query = select(CueRow.id, CueRow.number).where(CueRow.list_id == list_id).order_by(CueRow.number)
    return {row.id: row.number for row in session.execute(query)}


def add_list(session: Session, name: str, settings: CueListSettings) -> CueListRow:
    """A new list, at the end."""
    last = session.scalar(select(func.max(CueListRow.position)))
    position = 0 if last is None else last + 1
    row = CueListRow(
        name=own_name(session, CueListRow, name, "a cue list"), position=position, settings=settings.model_dump(mode="json")
    )
    session.add(row)
    session.flush()
    return row


def change_list(
    session: Session, list_id: int, *, name: str | None = None, settings: CueListSettings | None = None
) -> CueListRow:
    """Another name, or played otherwise."""
    row = get(session, CueListRow, list_id, "cue list")
    if name is not None:
        row.name = own_name(session, CueListRow, name, "a cue list", but=list_id)
    if settings is not None:
        row.settings = settings.model_dump(mode="json")
    session.flush()
    return row


def arrange_lists(session: Session, order: Sequence[int]) -> None:
    """Put lists in this order; those that are not named come last, as they were."""
    place_in_order(lists(session), order)


def remove_list(session: Session, list_id: int) -> None:
    """Delete a list with all its cues."""
    row = get(session, CueListRow, list_id, "cue list")
    for cue in of_list(session, list_id):
        session.delete(cue)
    session.flush()
    session.delete(row)


def document(row: CueRow) -> CueDocument:
    """The document of a cue."""
    return CueDocument.model_validate(row.document)


def free_number(session: Session, list_id: int, after: float | None = None) -> float:
    """A number for a new cue: behind the last, or between this one and the next, as round as can be."""
    numbers = _numbers(session, list_id).values()
    if after is None or not any(number > after for number in numbers):
        last = max([after or 0.0, *numbers])
        return float(int(last) + 1)
    following = min(number for number in numbers if number > after)
    for step in (1.0, 0.5, 0.1, 0.05, 0.01, 0.005, _FINEST):
        number = round((after // step + 1) * step, 3)
        if after < number < following:
            return number
    raise ZarabandaError(f"There is no number left between {after:g} and {following:g}. Renumber the list first.", "number")


def add(session: Session, list_id: int, number: float, content: CueDocument) -> CueRow:
    """A new cue. Its number must be free."""
    get(session, CueListRow, list_id, "cue list")
    number = checked_number(session, list_id, number)
    if len(_numbers(session, list_id)) >= MOST_CUES:
        raise ZarabandaError(f"A list has room for {MOST_CUES} cues. Go on in another list.", "number")
    row = CueRow(list_id=list_id, number=number, document=content.model_dump(mode="json"))
    session.add(row)
    keep_effects(session, content)
    session.flush()
    return row


def keep_effects(session: Session, content: CueDocument) -> None:
    """Effects that a cue starts are in the library from then on."""
    for one in content.effects:
        if isinstance(one.effect, int):
            get(session, EffectRow, one.effect, "effect").kept = True


def checked_number(session: Session, list_id: int, number: float, but: int = 0) -> float:
    """A number that a cue of a list can have: three decimals, and free."""
    number = round(number, 3)
    if number <= 0:
        raise ZarabandaError("A cue has a number above 0, such as 1 or 2.5.", "number")
    taken = next((one for one, there in _numbers(session, list_id).items() if there == number and one != but), None)
    if taken is not None:
        row = get(session, CueRow, taken, "cue")
        raise InUse(f"{row.in_words().capitalize()} has this number already. Choose another, such as {number:g}5.", "number")
    return number


def change(session: Session, cue_id: int, content: CueDocument, number: float | None = None) -> CueRow:
    """Another content, or another number."""
    row = get(session, CueRow, cue_id, "cue")
    if number is not None:
        row.number = checked_number(session, row.list_id, number, but=cue_id)
    row.document = content.model_dump(mode="json")
    keep_effects(session, content)
    session.flush()
    return row


def renumber(session: Session, list_id: int, first: float, step: float, cues: Collection[int] | None = None) -> None:
    """Number cues anew in their order (None: all), from a number on by steps. They must stay among themselves."""
    every = of_list(session, list_id)
    chosen = [row for row in every if cues is None or row.id in cues]
    others = {row.number for row in every if row not in chosen}
    numbers = [round(first + n * step, 3) for n in range(len(chosen))]
    if step < _FINEST or first <= 0:
        raise ZarabandaError("Cues are numbered from a number above 0 on, by steps of at least 0.001.", "step")
    taken = sorted(others & set(numbers))
    if taken:
        raise InUse(f"Cue {taken[0]:g} is not among these, and has that number. Choose other numbers.", "first")
    for row, number in zip(chosen, numbers, strict=True):
        row.number = number
    session.flush()


def next_thread(session: Session, list_id: int) -> int:
    """A number for an effect that a cue of a list starts."""
    used = [one["thread"] for row in outlines(session, list_id) for one in row.document.get("effects", ())]
    return max(used, default=0) + 1


def thread_of(session: Session, key: str) -> tuple[CueRow, dict[str, Any]]:
    """The cue that starts what plays by a key (`list:2:7`, and what has been split off it), and how."""
    list_id, thread = (int(part) for part in key.partition("~")[0].split(":")[1:])
    for row in outlines(session, list_id):
        for one in row.document.get("effects", ()):
            if one["thread"] == thread and one["do"] == "start":
                return get(session, CueRow, row.id, "cue"), one
    raise NotThere("This effect is not in a cue any more.", "key")


def without_effect(session: Session, row: CueRow, effect_id: int) -> None:
    """Let cues go on without an effect that one of them starts."""
    threads = {one["thread"] for one in row.document["effects"] if one["do"] == "start" and one["effect"] == effect_id}
    for outline in outlines(session, row.list_id):
        kept = [one for one in outline.document.get("effects", ()) if one["thread"] not in threads]
        if len(kept) < len(outline.document.get("effects", ())):
            cue = get(session, CueRow, outline.id, "cue")
            cue.document = {**cue.document, "effects": kept}


def remove(session: Session, cue_id: int) -> None:
    """Delete a cue. What later cues do to an effect that only it started goes with it."""
    row = get(session, CueRow, cue_id, "cue")
    for one in row.document.get("effects", ()):
        if one["do"] == "start":
            without_effect(session, row, one["effect"])
    session.delete(row)
    session.flush()


def paste(session: Session, list_id: int, cues: Sequence[int], after: int | None) -> list[CueRow]:
    """Copies of cues behind one (None: at the end). Effects that they start are threads of their own; what they do to effects
    that none of them starts is left out, unless they stay in their list."""
    sources = sorted((get(session, CueRow, number, "cue") for number in cues), key=lambda row: (row.list_id, row.number))
    number = None if after is None else get(session, CueRow, after, "cue").number
    threads: dict[tuple[int, int], int] = {}
    made = []
    for source in sources:
        number = free_number(session, list_id, number)
        effects: list[dict[str, Any]] = []
        for one in source.document.get("effects", ()):
            key = (source.list_id, one["thread"])
            if one["do"] == "start":
                threads[key] = next_thread(session, list_id) + len([other for other in effects if other["do"] == "start"])
            if key in threads or source.list_id == list_id:
                effects.append({**one, "thread": threads.get(key, one["thread"])})
        made.append(add(session, list_id, number, CueDocument.model_validate({**source.document, "effects": effects})))
    return made


def set_thread(session: Session, list_id: int, thread: int, begins: int, ends: int | None) -> None:
    """Let an effect of a list start in one cue and stop in another (None: it runs on)."""
    rows = {row.id: row for row in outlines(session, list_id)}
    every = [(row, one) for row in rows.values() for one in row.document.get("effects", ()) if one["thread"] == thread]
    start = next((one for _, one in every if one["do"] == "start"), None)
    if start is None or begins not in rows or (ends is not None and ends not in rows):
        raise ZarabandaError("This effect or cue is not in the list any more.", "thread")
    if ends is not None and rows[ends].number <= rows[begins].number:
        raise ZarabandaError("An effect stops in a later cue than it starts in. Drag its end further down.", "ends")
    for row in rows.values():
        kept = [one for one in row.document.get("effects", ()) if one["thread"] != thread]
        within = rows[begins].number < row.number and (ends is None or row.number < rows[ends].number)
        changes = [one for one in row.document.get("effects", ()) if one["thread"] == thread and one["do"] == "change"]
        kept += changes if within else []
        kept += [start] if row.id == begins else []
        kept += [{"do": "stop", "thread": thread}] if row.id == ends else []
        if kept != row.document.get("effects", []):
            effects = CueDocument.model_validate({"effects": kept}).model_dump(mode="json")["effects"]
            cue = get(session, CueRow, row.id, "cue")
            cue.document = {**cue.document, "effects": effects}
    session.flush()
