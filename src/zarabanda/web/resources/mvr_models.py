"""What the API takes and gives of MVR files."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from .rig_models import RigDone

Pair = Annotated[str, Field(max_length=500)]


class MvrQuery(BaseModel):
    """by: what is looked at first to find which fixture is which; gone: what becomes of those that the file does not have.

    kinds: for types that cannot be used, `TYPE|MODE|mode of the show`; preview: tell what would be done.
    """

    by: Literal["number", "place"] = "number"
    gone: Literal["stay", "go"] = "stay"
    kinds: Annotated[list[Pair], Field(max_length=500)] = []
    preview: bool = True


class UnknownType(BaseModel):
    """A type and mode that no kind is known for. why: in words; count: of its fixtures; kind: which is taken, or ""."""

    type: str
    mode: str
    why: str
    count: int
    kind: str


class MvrView(RigDone):
    """What a scene would change, or has changed, each as a line. new, changed, gone: fixtures; same: how many are as they are;
    kinds: that come with it; notes: what is not read, and numbers that had to be others."""

    new: list[str]
    changed: list[str]
    gone: list[str]
    same: int
    kinds: list[str]
    unknown: list[UnknownType]
    left_out: list[str]
    notes: list[str]
