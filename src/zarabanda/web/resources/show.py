"""The show's frame, undo and redo, live actions over HTTP."""

from __future__ import annotations

from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda.show import history, repositories

from ..context import browser_id, context
from ..models import Done, GroupView, Part, ShowView, TempoView

api = APIBlueprint("show", __name__, url_prefix="/api", abp_tags=[Tag(name="show")])


class Action(Part):
    """A live action: see docs/formats.md."""

    action: dict[str, Any]


@api.get("/show", responses={200: ShowView})
def get_show() -> ShowView:
    """The show's frame."""
    with context().store.reading() as session:
        undo, redo = history.waiting(session, browser_id())
        return ShowView(
            name=repositories.show(session).name,
            playing=context().link.playing,
            revision=context().link.revision,
            groups=[GroupView(id=g.id, name=g.name, heads=g.heads) for g in repositories.groups(session)],
            tempos=[TempoView(name=t.name, bpm=t.bpm) for t in repositories.tempos(session)],
            undo=undo,
            redo=redo,
        )


@api.post("/undo", responses={200: Done})
def undo() -> Done:
    """Take back this browser's last edit."""
    return Done(done=context().store.undo(browser_id()))


@api.post("/redo", responses={200: Done})
def redo() -> Done:
    """Do this browser's last undone edit again."""
    return Done(done=context().store.redo(browser_id()))


@api.post("/actions", responses={200: Done})
def act(body: Action) -> Done:
    """A live action, as on the live socket; it acts on the next frame."""
    context().link.act(body.action)
    return Done(done="sent")
