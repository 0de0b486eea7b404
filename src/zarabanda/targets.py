"""What something drives, as a document: an effect on heads, and what else can be put on a control. One class a kind.

Kept in the database, sent to the engine, and read back by the same definition.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import msgspec

Used = tuple[str, int]
"""A row that a target refers to: name of its table, number."""


class EffectOnHeads(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="kind", tag="effect"):
    """An effect on heads, in pick order. families: whose layers act; None: all of them.

    group_id: the group whose heads they are, now and later; `heads` is then empty where it is kept, and filled in where it
    plays; depth: share of the effect's own, 0…1; speed: times its own.
    """

    effect_id: int
    heads: tuple[str, ...]
    families: tuple[str, ...] | None = None
    group_id: int | None = None
    depth: float = 1.0
    speed: float = 1.0

    def uses(self) -> set[Used]:
        """Rows that it refers to."""
        group = {("head_group", self.group_id)} if self.group_id is not None else set()
        return {("effect", self.effect_id), *group}

    def on(self, groups: Mapping[int, Sequence[str]]) -> EffectOnHeads:
        """With the heads of its group, where it has one."""
        return self if self.group_id is None else msgspec.structs.replace(self, heads=tuple(groups.get(self.group_id, ())))


class StopEffects(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="kind", tag="stop-effects"):
    """Stopping effects, whatever started them. family: what they do in it, None: all that they do."""

    family: str | None = None

    def uses(self) -> set[Used]:
        """It refers to nothing."""
        return set()

    def on(self, groups: Mapping[int, Sequence[str]]) -> StopEffects:
        """The same: it has no heads."""
        return self

    @property
    def words(self) -> str:
        """What it does."""
        return f"Stop {self.family or 'all'} effects"


Target = EffectOnHeads | StopEffects
"""All kinds. A new one is a class beside this one, named here, and what the engine makes of it (`engine.compiling`)."""


def read(document: dict[str, Any]) -> Target:
    """A target from plain data."""
    found: Target = msgspec.convert(document, Target)
    return found


def plain(target: Target) -> dict[str, Any]:
    """A target as plain data."""
    document: dict[str, Any] = msgspec.to_builtins(target)
    return document
