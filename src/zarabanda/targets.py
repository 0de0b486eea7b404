"""What something drives, as a document: an effect on heads, and what else can be put on a control. One class a kind.

Kept in the database, sent to the engine, and read back by the same definition.
"""

from __future__ import annotations

from typing import Any

import msgspec

Used = tuple[str, int]
"""A row that a target refers to: name of its table, number."""


class EffectOnHeads(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="kind", tag="effect"):
    """An effect on heads, in pick order. families: whose layers act; None: all of them."""

    effect_id: int
    heads: tuple[str, ...]
    families: tuple[str, ...] | None = None

    def uses(self) -> set[Used]:
        """Rows that it refers to."""
        return {("effect", self.effect_id)}


Target = EffectOnHeads
"""All kinds. A new one is a class beside this one, named here, and what the engine makes of it (`engine.compiling`)."""


def read(document: dict[str, Any]) -> Target:
    """A target from plain data."""
    return msgspec.convert(document, Target)


def plain(target: Target) -> dict[str, Any]:
    """A target as plain data."""
    document: dict[str, Any] = msgspec.to_builtins(target)
    return document
