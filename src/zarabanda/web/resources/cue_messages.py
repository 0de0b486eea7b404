"""What a cue sends: its messages in words, changed as a whole, and those that would call each other without end."""

from __future__ import annotations

from collections.abc import Mapping

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.formats.cue_document import CueDocument
from zarabanda.formats.cue_message import in_words
from zarabanda.show import repositories
from zarabanda.show.tables import CueRow, Reference

from ..context import browser_id, context
from .cue_models import CueEdited, CueMessages, CuePath, MessageView

api = APIBlueprint("cue_messages", __name__, url_prefix="/api/cues", abp_tags=[Tag(name="cues")])


@api.put("/<int:cue_id>/messages", responses={200: CueEdited})
def change_messages(path: CuePath, body: CueMessages) -> CueEdited:
    """All messages of a cue, in their order."""
    with context().store.edit(browser_id(), "Change the messages of a cue") as session:
        row = repositories.rows.get(session, CueRow, path.cue_id, "cue")
        repositories.messages.must_fit(session, body.messages)
        document = CueDocument.model_validate(row.document).model_copy(update={"messages": body.messages})
        repositories.cues.change(session, row.id, document)
        list_id = row.list_id
    return CueEdited(list_id=list_id)


def messages_of(session: Session, document: CueDocument) -> list[MessageView]:
    """The messages of a cue, in words."""
    if not document.messages:
        return []
    names = repositories.messages.names(session, [getattr(one, "cue", None) for one in document.messages])
    found, at = [], 0.0
    for message in document.messages:
        at += message.wait
        found.append(MessageView(message=message, words=in_words(message.model_dump(), names), sent=at))
    return found


def endless_in_words(session: Session, cue_id: int) -> str:
    """Whether the messages of a cue come back to it with no time between, and by which cues; empty: they do not.

    A go is taken to reach any cue of its list: which one it will be is not known before.
    """
    way = _way_back(_calls(session), cue_id)
    if not way:
        return ""
    names = repositories.messages.names(session, way)
    lists = {row.id: row.list_id for row in session.execute(select(CueRow.id, CueRow.list_id))}
    by = ", then ".join(f"{names['cue', one]} of {names['cue_list', lists[one]]}" for one in way)
    return f"Its messages can go on without end: {by}. Give one of them a wait; after 200 at once the rest is left out."


def _calls(session: Session) -> dict[int, set[int]]:
    """Cues that each cue goes to by messages without a wait."""
    sending = select(Reference.user_id).where(Reference.user_table == CueRow.__tablename__, Reference.used_table == "cue_list")
    rows = session.scalars(select(CueRow).where(CueRow.id.in_(sending))).all()
    by_list: dict[int, set[int]] = {}
    for row in rows:
        by_list.setdefault(row.list_id, set()).add(row.id)
    found: dict[int, set[int]] = {}
    for row in rows:
        waited = 0.0
        for one in row.document.get("messages", ()):
            waited += one["wait"]
            if one["kind"] == "list" and one["do"] in ("go", "go to") and waited == 0:
                found.setdefault(row.id, set()).update({one["cue"]} if one["do"] == "go to" else by_list.get(one["list"], ()))
    return found


def _way_back(calls: Mapping[int, set[int]], start: int) -> list[int]:
    """Cues by which calls come back to one, itself first; none where they do not."""
    ways, seen_cues = [[start]], {start}
    while ways:
        way = ways.pop(0)
        for following in sorted(calls.get(way[-1], ())):
            if following == start:
                return way
            if following not in seen_cues:
                seen_cues.add(following)
                ways.append([*way, following])
    return []
