"""The values of a palette: of one family, for every head or by head. One definition for the API, the database and requests."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from zarabanda.core.colour.spaces import hex_to_rgb
from zarabanda.core.effects.palette import Palette
from zarabanda.core.rig import attributes
from zarabanda.errors import shown

Values = dict[str, Annotated[float, Field(allow_inf_nan=False)]]


class PaletteDocument(BaseModel):
    """values: by attribute, natural units, for every head; own: by head, instead; colour: `#rrggbb`, in place of drives."""

    model_config = ConfigDict(extra="forbid")

    family: Literal["intensity", "position", "colour", "beam"]
    colour: Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$")] | None = None
    values: Values = {}
    own: Annotated[dict[str, Values], Field(max_length=20_000)] = {}

    @model_validator(mode="after")
    def _fits(self) -> PaletteDocument:
        if self.colour is not None and self.family != "colour":
            raise ValueError(f"a colour belongs to a palette of the family colour, not {self.family}")
        if not self.values and not self.own and self.colour is None:
            raise ValueError("a palette needs at least one value")
        for place, values in (("values", self.values), *((f"own.{key}", one) for key, one in self.own.items())):
            for name, value in values.items():
                row = attributes.BY_NAME.get(name)
                if row is None or row.family != self.family:
                    known = ", ".join(one.name for one in attributes.ATTRIBUTES if one.family == self.family)
                    raise ValueError(f"{place}: {shown(name)} is not of the family {self.family}; use one of {known}")
                if not row.low <= value <= row.high:
                    raise ValueError(f"{place}.{name}: {value:g} is out of range, {row.low:g} to {row.high:g} {row.unit}")
        return self

    def to_core(self, name: str) -> Palette:
        """The palette as the core computes with it."""
        drives = dict(zip(attributes.COMPOUND["colour"], hex_to_rgb(self.colour), strict=True)) if self.colour else {}
        return Palette(name, {**self.values, **drives}, self.own)
