"""Action lists: several things done at one press."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.errors import InUse, ZarabandaError
from zarabanda.formats.action_document import ActionListDocument

from ..tables import ActionListRow, ControlRow
from . import messages
from .rows import get, own_name

MOST = 200


def every(session: Session) -> Sequence[ActionListRow]:
    """Action lists by name."""
    return session.scalars(select(ActionListRow).order_by(func.lower(ActionListRow.name))).all()


def document_of(row: ActionListRow) -> ActionListDocument:
    """Its document, read."""
    return ActionListDocument.model_validate(row.document)


def _fits(session: Session, document: ActionListDocument, but: int) -> None:
    messages.must_fit(session, document.steps)
    taken = next((one for one in every(session) if one.id != but and document.key and document_of(one).key == document.key), None)
    if taken is not None:
        raise InUse(f"{document.key} runs “{taken.name}” already. Choose another key.", "document.key")


def add(session: Session, name: str, document: ActionListDocument) -> ActionListRow:
    """A new action list."""
    if len(every(session)) >= MOST:
        raise ZarabandaError(f"{MOST} action lists are the most there can be. Delete one.", "action_lists")
    _fits(session, document, 0)
    row = ActionListRow(name=own_name(session, ActionListRow, name, "an action list"), document=document.model_dump(mode="json"))
    session.add(row)
    session.flush()
    must_end(session)
    return row


def change(session: Session, number: int, name: str, document: ActionListDocument) -> ActionListRow:
    """Another name or document."""
    row = get(session, ActionListRow, number, "action list")
    _fits(session, document, number)
    row.name, row.document = (
        own_name(session, ActionListRow, name, "an action list", but=number),
        document.model_dump(mode="json"),
    )
    session.flush()
    must_end(session)
    return row


def must_end(session: Session) -> None:
    """Refuse action lists that call themselves, by themselves or by way of others and of buttons that run them."""
    names = {row.id: row.name for row in every(session)}
    runs = {
        row.id: target.actions
        for row in session.scalars(select(ControlRow))
        if isinstance(target := targets.read(row.target), targets.RunActions)
    }
    calls: dict[int, set[int]] = {}
    for row in every(session):
        for step in document_of(row).steps:
            if step.kind == "actions" and step.do == "run":
                calls.setdefault(row.id, set()).add(step.actions)
            elif step.kind == "control" and step.do == "press" and step.control in runs:
                calls.setdefault(row.id, set()).add(runs[step.control])
    for start in names:
        way = _way_back(calls, start)
        if way:
            said = ", which runs ".join(f"“{names.get(one, 'one that is gone')}”" for one in [*way, start])
            raise ZarabandaError(f"This would never end: {said}. Take one of these steps out.", "document.steps")


def _way_back(calls: dict[int, set[int]], start: int) -> list[int]:
    """Lists by which one comes back to itself, itself first; none where it does not."""
    ways, seen = [[start]], {start}
    while ways:
        way = ways.pop(0)
        for following in sorted(calls.get(way[-1], ())):
            if following == start:
                return way
            if following not in seen:
                seen.add(following)
                ways.append([*way, following])
    return []
