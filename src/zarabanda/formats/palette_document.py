"""The values of a palette: for every head, by model or by head. One definition for the API, the database and requests."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, ValidationInfo, model_validator

from zarabanda.core.colour.spaces import SPACES, hex_to_rgb
from zarabanda.core.effects.palette import Palette
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, brief, shown

Values = dict[str, Annotated[float, Field(allow_inf_nan=False)]]
LONGEST_NAME = 80
MIXED = "mixed"
"""The family of a palette that has values of several."""


KEPT = {"kept": True}
"""Context of documents that are in a show: whose lights are all gone may be empty there."""


class PaletteDocument(BaseModel):
    """values: by attribute, natural units, for every head; models: by model of fixture, instead; own: by head, instead of both;
    colour: `#rrggbb`, in place of drives; set: what it was made with, in words; way: of colours to it, empty: the show's."""

    model_config = ConfigDict(extra="forbid")

    family: Literal["intensity", "position", "colour", "beam", "mixed"]
    colour: Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$")] | None = None
    values: Values = {}
    models: Annotated[dict[Annotated[str, Field(max_length=120)], Values], Field(max_length=500)] = {}
    own: Annotated[dict[str, Values], Field(max_length=20_000)] = {}
    set: Annotated[str, Field(max_length=80)] = ""
    way: str = ""

    @model_validator(mode="after")
    def _fits(self, info: ValidationInfo) -> PaletteDocument:
        if self.colour is not None and self.family not in ("colour", MIXED):
            raise ValueError(f"a colour belongs to a palette of the family colour, not {self.family}")
        if self.way and self.way not in SPACES:
            raise ValueError(f"there is no way of colours {shown(self.way)}; use one of {', '.join(SPACES)}")
        if self.colour is None and info.context != KEPT and not any(values for _, values in self._every()):
            raise ValueError("a palette needs at least one value")
        for place, values in self._every():
            for name, value in values.items():
                row = attributes.BY_NAME.get(name)
                if row is None or self.family not in (row.family, MIXED):
                    known = ", ".join(one.name for one in attributes.ATTRIBUTES if self.family in (one.family, MIXED))
                    raise ValueError(f"{place}: {shown(name)} is not of the family {self.family}; use one of {known}")
                if not row.low <= value <= row.high:
                    raise ValueError(f"{place}.{name}: {value:g} is out of range, {row.low:g} to {row.high:g} {row.unit}")
        return self

    def _every(self) -> Iterator[tuple[str, Values]]:
        yield "values", self.values
        yield from ((f"models.{model}", one) for model, one in self.models.items())
        yield from ((f"own.{key}", one) for key, one in self.own.items())

    def to_core(self, name: str) -> Palette:
        """The palette as the core computes with it."""
        drives = dict(zip(attributes.COMPOUND["colour"], hex_to_rgb(self.colour), strict=True)) if self.colour else {}
        return Palette(name, {**self.values, **drives}, self.own, self.models, self.way)

    def plain(self) -> dict[str, object]:
        """As it is kept: without what it does not say."""
        return self.model_dump(mode="json", exclude_defaults=True)


Scope = Literal["heads", "models", "any"]
"""For which heads a palette is made: these, all of the same models, or all that have the attribute."""


def document_of(by_head: dict[str, Values], model_of: dict[str, str], scope: Scope) -> PaletteDocument:
    """A palette of values by head and attribute. What heads share is kept once; others of the scope get what the first has.

    model_of: by head. ValueError where there is no value at all.
    """
    families = {attributes.BY_NAME[name].family for values in by_head.values() for name in values}
    if not families:
        raise ValueError("there is nothing to keep: set values by hand first, or take them from stage")
    family = families.pop() if len(families) == 1 else MIXED
    if scope == "heads":
        return PaletteDocument.model_validate({"family": family, "own": by_head})
    shared: dict[str, Values] = {}
    for head, values in by_head.items():
        known = shared.setdefault(model_of[head] if scope == "models" else "", {})
        for name, value in values.items():
            known.setdefault(name, value)
    own = {}
    for head, values in by_head.items():
        known = shared[model_of[head] if scope == "models" else ""]
        if differs := {name: value for name, value in values.items() if known[name] != value}:
            own[head] = differs
    given = {"models": shared} if scope == "models" else {"values": shared.get("", {})}
    return PaletteDocument.model_validate({"family": family, "own": own, **given})


def scope_of(document: PaletteDocument) -> Scope:
    """For which heads it was made."""
    return "models" if document.models else "any" if document.values or document.colour else "heads"


SET_FORMAT, MOST_IN_A_SET = "zarabanda.palettes/1", 2000


def read_set(data: object) -> tuple[list[tuple[str, PaletteDocument]], list[str]]:
    """Palettes of a file, `{"format": "zarabanda.palettes/1", "palettes": [{"name", …}]}`, each with its name, and what is wrong
    with each that cannot be read. Raises when it is no such file."""
    every = data.get("palettes") if isinstance(data, dict) and data.get("format") == SET_FORMAT else None
    if not isinstance(every, list) or len(every) > MOST_IN_A_SET:
        raise ZarabandaError(f'A set of palettes has "format": "{SET_FORMAT}" and up to {MOST_IN_A_SET} "palettes".', "format")
    good, bad = [], []
    for number, one in enumerate(every, 1):
        fields = dict(one) if isinstance(one, dict) else {}
        name = fields.pop("name", None)
        called = f"Palette {number}{f' “{brief(name, 60)}”' if isinstance(name, str) else ''}"
        if not isinstance(name, str) or not 1 <= len(name.strip()) <= LONGEST_NAME:
            bad.append(f"{called}: it needs a name of 1 to {LONGEST_NAME} letters")
            continue
        try:
            good.append((name.strip(), PaletteDocument.model_validate(fields)))
        except ValidationError as error:
            first = error.errors(include_url=False)[0]
            bad.append(f"{called}: {'.'.join(map(str, first['loc'])) or 'the palette'}: {brief(first['msg'])}")
    return good, bad
