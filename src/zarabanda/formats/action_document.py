"""An action list as it is kept: several things done at one press, with waits between."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from .cue_message import CueMessage

MOST_STEPS = 300


class ActionListDocument(BaseModel):
    """until: runs through to its end, or until it is released; key: that runs it, empty: none; steps: what is done, each so many
    s after the one before."""

    model_config = ConfigDict(extra="forbid")
    until: Literal["end", "released"] = "end"
    key: Annotated[str, Field(pattern=r"^(Shift\+[1-9])?$")] = ""
    steps: Annotated[list[CueMessage], Field(max_length=MOST_STEPS)] = Field(default_factory=list)
