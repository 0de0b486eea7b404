"""Action lists: made line by line or of what hands did, changed, deleted."""

from __future__ import annotations

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, ValidationError
from sqlalchemy.orm import Session

from zarabanda.errors import ZarabandaError
from zarabanda.formats.action_document import ActionListDocument
from zarabanda.formats.cue_message import in_words
from zarabanda.formats.effect_document import faults
from zarabanda.show import recorded_hands, references, repositories
from zarabanda.show.repositories.action_lists import document_of
from zarabanda.show.tables import ActionListRow

from ..context import browser_id, context
from ..parts import Done, Id, Kept
from .action_list_models import ActionListsView, ActionListView, KeepActions, RecordedHands, StepView

api = APIBlueprint("action_lists", __name__, url_prefix="/api/action-lists", abp_tags=[Tag(name="action lists")])


class ActionListPath(BaseModel):
    """Which action list."""

    action_list_id: Id


def _view(session: Session, row: ActionListRow) -> ActionListView:
    document, at, steps = document_of(row), 0.0, list[StepView]()
    names = repositories.messages.names(session, [getattr(one, "cue", None) for one in document.steps])
    for step in document.steps:
        at += step.wait
        steps.append(StepView(step=step, words=in_words(step.model_dump(), names), at=round(at, 3)))
    used_by = [user.in_words() for user in references.users_of(session, ActionListRow.__tablename__, row.id)]
    return ActionListView(id=row.id, name=row.name, document=document, steps=steps, used_by=used_by)


@api.get("", responses={200: ActionListsView})
def get_action_lists() -> ActionListsView:
    """All action lists with their steps."""
    with context().store.reading() as session:
        return ActionListsView(action_lists=[_view(session, row) for row in repositories.action_lists.every(session)])


@api.post("", responses={201: Kept})
def make_action_list(body: KeepActions) -> tuple[Kept, int]:
    """Make an action list."""
    with context().store.edit(browser_id(), f"Make the action list {body.name}") as session:
        row = repositories.action_lists.add(session, body.name, body.document)
        return Kept(id=row.id, done=f"Made {row.name}"), 201


@api.post("/recorded", responses={201: Kept})
def keep_recorded(body: RecordedHands) -> tuple[Kept, int]:
    """Make an action list of what hands did."""
    with context().store.edit(browser_id(), f"Record the action list {body.name}") as session:
        found = recorded_hands.recorded(session, [(one.at, one.action) for one in body.hands])
        if not found.steps:
            text = "Nothing was done that an action list can do. Press pads, buttons or go while it records."
            raise ZarabandaError(text, "hands")
        try:
            document = ActionListDocument.model_validate({"steps": found.steps})
        except ValidationError as error:
            place, what = faults(error)[0]
            raise ZarabandaError(f"{place}: {what}.", "hands") from error
        row = repositories.action_lists.add(session, body.name, document)
        out = "1 thing that it cannot do was" if found.left_out == 1 else f"{found.left_out} things that it cannot do were"
        more = f"; {out} left out" if found.left_out else ""
        steps = "1 step" if len(found.steps) == 1 else f"{len(found.steps)} steps"
        return Kept(id=row.id, done=f"Recorded {row.name}, {steps}{more}"), 201


@api.put("/<int:action_list_id>", responses={200: Kept})
def change_action_list(path: ActionListPath, body: KeepActions) -> Kept:
    """Change an action list as a whole."""
    with context().store.edit(browser_id(), "Change an action list") as session:
        row = repositories.action_lists.change(session, path.action_list_id, body.name, body.document)
        return Kept(id=row.id, done=f"Changed {row.name}")


@api.delete("/<int:action_list_id>", responses={200: Done})
def delete_action_list(path: ActionListPath) -> Done:
    """Delete an action list; buttons that ran it keep their place. Undo brings it back."""
    with context().store.edit(browser_id(), "Delete an action list") as session:
        row = repositories.rows.get(session, ActionListRow, path.action_list_id, "action list")
        session.delete(row)
        return Done(done=f"Deleted {row.name}")
