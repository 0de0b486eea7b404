"""What all bodies of the API are made of."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

HeadKey = Annotated[str, Field(pattern=r"^[0-9]{1,5}(\.[0-9]{1,4})?$")]
Id = Annotated[int, Field(ge=0, le=2**31 - 1)]
"""Number of a row."""
HeadKeys = Annotated[list[HeadKey], Field(max_length=30_000)]
Name = Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]


class Part(BaseModel):
    """All bodies: unknown keys are refused."""

    model_config = ConfigDict(extra="forbid")


class Fault(BaseModel):
    """What is wrong, where, and what to do."""

    message: str
    place: str = ""


class Done(BaseModel):
    """What was done, in words."""

    done: str


class Kept(BaseModel):
    """What was kept, by its number, in words."""

    id: int
    done: str
