"""What the API gives of the show's frame and its health."""

from __future__ import annotations

from pydantic import BaseModel


class GroupView(BaseModel):
    """A kept selection. by_rule: made from another by a rule; outdated: the rule would give other heads now."""

    id: int
    name: str
    heads: list[str]
    by_rule: bool
    outdated: bool


class TempoView(BaseModel):
    """A shared speed."""

    id: int
    name: str
    bpm: float


class OrderView(BaseModel):
    """An order that a selection can be put in, and what it is called."""

    id: str
    text: str


class RuleView(BaseModel):
    """A rule by which groups are made from one, and what it is called."""

    id: str
    text: str


class AimWayView(BaseModel):
    """A way to aim lights; unit: of how far they are fanned, empty where they are not."""

    id: str
    unit: str


class ShowView(BaseModel):
    """The show's frame: name, groups, tempos, what undo and redo would take. playing: whether the engine has it;
    session: who counts the revisions; rig, routes: count edits that touch fixtures,
    modes or groups, and routes."""

    name: str
    playing: bool
    session: str
    revision: int
    rig: int
    routes: int
    aims: list[AimWayView]
    groups: list[GroupView]
    tempos: list[TempoView]
    orders: list[OrderView]
    rules: list[RuleView]
    undo: str | None
    redo: str | None


class TroubleView(BaseModel):
    """Something that is wrong now, in words."""

    who: str
    text: str


class ProcessView(BaseModel):
    """A process as the supervisor sees it."""

    name: str
    running: bool
    restarts: int
    message: str


class HealthView(BaseModel):
    """How Zarabanda is doing."""

    engine: bool
    troubles: list[TroubleView]
    processes: list[ProcessView]
