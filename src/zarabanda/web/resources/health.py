"""How the processes do, and what has happened."""

from __future__ import annotations

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel

from zarabanda import event_log

from .. import processes
from ..context import context

api = APIBlueprint("health", __name__, url_prefix="/api/output", abp_tags=[Tag(name="output")])


class ProcessView(BaseModel):
    """A process. cpu: % of a core since it was asked for last; memory in MB; message: what is wrong with it, in words."""

    name: str
    running: bool
    restarts: int
    message: str
    cpu: float
    memory_mb: float


class ProcessesView(BaseModel):
    """Those that the supervisor watches; none where there is no supervisor."""

    processes: list[ProcessView]


class EventView(BaseModel):
    """at: s since 1970; who: the process that tells."""

    at: float
    who: str
    text: str


class EventsView(BaseModel):
    """What has happened, newest first."""

    events: list[EventView]


@api.get("/processes", responses={200: ProcessesView})
def get_processes() -> ProcessesView:
    """How the processes do."""
    views = []
    for one in processes.read(context().data):
        cpu, memory = context().meter.of(one.pid) if one.running and one.pid else (0.0, 0.0)
        views.append(
            ProcessView(
                name=one.name, running=one.running, restarts=one.restarts, message=one.message, cpu=round(cpu, 1),
                memory_mb=round(memory, 1),
            )
        )  # fmt: skip
    return ProcessesView(processes=views)


@api.get("/events", responses={200: EventsView})
def get_events() -> EventsView:
    """The newest events."""
    return EventsView(events=[EventView(at=one.at, who=one.who, text=one.text) for one in event_log.read(context().data)])


@api.get("/events.txt", responses={200: None})
def get_events_as_text() -> Response:
    """All events that are kept, as a file to be saved."""
    text = event_log.as_text(event_log.read(context().data, most=100_000))
    return Response(text, mimetype="text/plain", headers={"Content-Disposition": "attachment; filename=zarabanda-events.txt"})
