"""What messages are made of: actions, ids, and values with their ranges."""

from __future__ import annotations

from typing import Annotated, NewType

import msgspec


class Action(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="do"):
    """Something done live: acts on the next frame, is never undone."""


ControlId = NewType("ControlId", str)
"""A fader or button: `control:5`."""
PlayerId = NewType("PlayerId", str)
"""What plays something: `draft:3` an effect of the draft, `control:5` what a control alone drives, `audition`."""
PartKey = tuple[str, int | str]
"""Subject and number (or name) of a part."""
Values = dict[str, dict[str, float]]
"""Natural values by attribute and head key."""


class PaletteUse(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """In place of a value: what a palette has there, by its number."""

    palette: int


HeldValues = dict[str, dict[str, float | PaletteUse]]
"""Values by attribute and head key: natural ones, or those of palettes."""

Universe = Annotated[int, msgspec.Meta(ge=1, le=63_999)]
Number = Annotated[int, msgspec.Meta(ge=0, le=2**31 - 1)]
HeadKeys = Annotated[list[str], msgspec.Meta(max_length=20_000)]


def control_id(number: int) -> ControlId:
    """Of the control in this row."""
    return ControlId(f"control:{number}")
