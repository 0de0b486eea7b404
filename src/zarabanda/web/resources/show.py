"""The show's frame, undo and redo, live actions over HTTP."""

from __future__ import annotations

from typing import Any

import msgspec
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from zarabanda import messages
from zarabanda.core.rig.aims import WAYS
from zarabanda.core.selection.derive import RULES
from zarabanda.core.selection.orders import ORDERS
from zarabanda.show import history, repositories

from .. import processes
from ..context import browser_id, context
from ..parts import Done, Part
from .groups import around
from .groups import view as group_view
from .show_models import AimWayView, HealthView, OrderView, ProcessView, RuleView, ShowView, TempoView, TroubleView

api = APIBlueprint("show", __name__, url_prefix="/api", abp_tags=[Tag(name="show")])


class Action(Part):
    """A live action: see docs/formats.md."""

    action: dict[str, Any]


@api.get("/show", responses={200: ShowView})
def get_show() -> ShowView:
    """The show's frame."""
    with context().store.reading() as session:
        outdated = repositories.groups.outdated(session, around(session))
        undo, redo = history.waiting(session, browser_id())
        return ShowView(
            name=repositories.rows.show(session).name,
            playing=context().link.playing,
            session=context().link.session,
            revision=context().link.revision,
            rig=context().link.rig_edition,
            routes=context().link.route_edition,
            groups=[group_view(row, row.id in outdated) for row in repositories.groups.every(session)],
            tempos=[TempoView(id=t.id, name=t.name, bpm=t.bpm) for t in repositories.tempos.every(session)],
            rules=[RuleView(id=name, text=rule.label) for name, rule in RULES.items()],
            orders=[OrderView(id=name, text=order.label) for name, order in ORDERS.items()],
            aims=[AimWayView(id=name, unit=way.unit) for name, way in WAYS.items()],
            undo=undo,
            redo=redo,
        )


@api.get("/health", responses={200: HealthView})
def get_health() -> HealthView:
    """What is wrong, also while the engine or its frames fail; the database is not asked."""
    link = context().link
    told = link.state.health.troubles if link.connected and link.state else []
    troubles = [(one.who, one.text) for one in told]
    if not link.connected:
        troubles = [(one["who"], one["text"]) for one in link.troubles.report()]
    return HealthView(
        engine=link.connected,
        troubles=[TroubleView(who=who, text=text) for who, text in troubles],
        processes=[ProcessView(**msgspec.structs.asdict(one)) for one in processes.read(context().data)],
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
    context().link.act(messages.action(body.action))
    return Done(done="sent")
