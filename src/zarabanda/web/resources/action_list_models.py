"""What the API takes and gives of action lists."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import BaseModel, Field

from zarabanda.formats.action_document import ActionListDocument
from zarabanda.formats.cue_message import CueMessage

from ..parts import Name, Part


class KeepActions(Part):
    """An action list under a name."""

    name: Name
    document: ActionListDocument


class Hand(Part):
    """Something that a hand did: at in s, and the live action."""

    at: Annotated[float, Field(ge=0, le=86_400)]
    action: dict[str, Any]


class RecordedHands(Part):
    """What hands did, as a new action list."""

    name: Name
    hands: Annotated[list[Hand], Field(max_length=3000)]


class StepView(BaseModel):
    """A step: in words, and how many s after the press it is done."""

    step: CueMessage
    words: str
    at: float


class ActionListView(BaseModel):
    """An action list. used_by: buttons and cues that it is on."""

    id: int
    name: str
    document: ActionListDocument
    steps: list[StepView]
    used_by: list[str]


class ActionListsView(BaseModel):
    """All action lists, by name."""

    action_lists: list[ActionListView]
