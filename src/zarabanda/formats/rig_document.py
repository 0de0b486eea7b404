"""Documents of the rig: modes and fixtures, checked here, given to the core as they are."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated

import msgspec
from pydantic import BaseModel, ConfigDict, Field, model_validator

from zarabanda.core.rig import attributes
from zarabanda.core.rig.cells import CELL_ORDERS
from zarabanda.core.rig.modes import EMITTERS, OF_MODES, VIRTUAL, ModeSpec
from zarabanda.errors import shown

from .effect_document import Number

MOST_SLOTS = 2048
"""Of a fixture: four universes."""


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class ChannelPart(_Part):
    """One channel: what it carries, its slots (coarse first), natural values at DMX 0 and full, its cell (0: the whole)."""

    source: str
    slots: Annotated[list[Annotated[int, Field(ge=0, le=MOST_SLOTS - 1)]], Field(min_length=1, max_length=3)]
    low: Number = 0.0
    high: Number = 1.0
    inverted: bool = False
    cell: Annotated[int, Field(ge=0)] = 0
    curve: Annotated[list[tuple[Number, Annotated[int, Field(ge=0)]]], Field(max_length=256)] = []

    @model_validator(mode="after")
    def _rises(self) -> ChannelPart:
        values = [value for value, _ in self.curve]
        if len(self.curve) == 1 or any(b <= a for a, b in pairwise(values)):
            raise ValueError(f"the curve of {self.source} needs two points or more, whose values rise")
        most = 256 ** len(self.slots) - 1
        if any(level > most for _, level in self.curve):
            raise ValueError(f"the curve of {self.source} has a level above {most:,}, which its channel does not have")
        return self


_ONLY_HERE = {"maker", "emitter_colours", "left_out", "gdtf", "gdtf_mode"}
"""What of a mode the core has no use for."""


class ModeDocument(_Part):
    """A fixture's set of channels, what makes its colour, and its cells' places in metres. gdtf: the SHA-256 of the file that it
    is from, in the media folder, gdtf_mode: its name there."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    maker: str = ""
    model: str = ""
    kind: str
    emitters: str = "none"
    channels: list[ChannelPart]
    footprint: Annotated[int, Field(ge=1, le=MOST_SLOTS)]
    limits: dict[str, tuple[Number, Number, Number]] = {}
    wheel: list[tuple[str, tuple[Number, Number, Number]]] = []
    light: tuple[Number, Number, Number] = (1.0, 1.0, 1.0)
    cells: list[tuple[Number, Number, Number]] = []
    beam_deg: Number = 20.0
    virtual: list[str] = []
    gobos: list[Annotated[str, Field(min_length=1, max_length=80)]] = []
    gobo_pictures: list[Annotated[str, Field(max_length=64)]] = []
    pan_speed: Annotated[float, Field(gt=0, le=3600)] = 180.0
    tilt_speed: Annotated[float, Field(gt=0, le=3600)] = 120.0
    rests: list[tuple[Annotated[int, Field(ge=0)], Annotated[int, Field(ge=0, le=255)]]] = []
    emitter_colours: dict[str, tuple[Number, Number, Number]] = {}
    left_out: list[str] = []
    gdtf: Annotated[str, Field(max_length=64)] = ""
    gdtf_mode: Annotated[str, Field(max_length=120)] = ""

    @model_validator(mode="after")
    def _known(self) -> ModeDocument:
        if self.emitters not in OF_MODES:
            raise ValueError(f"emitters {shown(self.emitters)} are not known; use one of {', '.join(OF_MODES)}")
        if len(set(self.gobos)) < len(self.gobos):
            raise ValueError("two slots of the gobo wheel have the same name")
        known = {*attributes.BY_NAME, *EMITTERS[self.emitters]}
        for channel in self.channels:
            if channel.source not in known:
                raise ValueError(f"channel source {shown(channel.source)} is not known; use one of {', '.join(sorted(known))}")
            if max(channel.slots) >= self.footprint:
                raise ValueError(f"channel {channel.source} uses slot {max(channel.slots) + 1} of {self.footprint}")
            if channel.cell > len(self.cells):
                raise ValueError(f"channel {channel.source} is of cell {channel.cell}, but there are {len(self.cells)}")
        unknown = [name for name in self.virtual if name not in VIRTUAL] + [n for n in self.limits if n not in attributes.BY_NAME]
        if unknown:
            raise ValueError(f"{shown(unknown[0])} is not known here")
        if beyond := [slot for slot, _ in self.rests if slot >= self.footprint]:
            raise ValueError(f"slot {beyond[0] + 1} of {self.footprint} is to rest at a level")
        self._slots_are_apart()
        return self

    def _slots_are_apart(self) -> None:
        taken: dict[int, str] = {}
        for channel in self.channels:
            words = channel.source.replace("_", " ") + (f" of cell {channel.cell}" if channel.cell else "")
            for slot in channel.slots:
                if slot in taken:
                    raise ValueError(f"channel {slot + 1} is both {taken[slot]} and {words}; give one of them another")
                taken[slot] = words

    @property
    def label(self) -> str:
        """The mode without the model: `24 channels`."""
        return self.name.removeprefix(self.model).removeprefix(", ") or self.name

    def spec(self) -> ModeSpec:
        """As the core takes it."""
        return msgspec.convert(
            self.model_dump(mode="json", exclude={"maker", "emitter_colours", "left_out", "gdtf", "gdtf_mode"}), ModeSpec
        )


class FixtureDocument(_Part):
    """A fixture of the rig."""

    number: Annotated[int, Field(ge=1, le=99_999)]
    name: str
    mode: str
    place: tuple[Number, Number, Number]
    rotation: tuple[Number, Number, Number] = (0.0, 0.0, 0.0)
    universe: Annotated[int, Field(ge=1, le=63_999)] | None = None
    address: Annotated[int, Field(ge=1, le=512)] | None = None
    cell_order: str = ""
    notes: Annotated[str, Field(max_length=400)] = ""
    layer: Annotated[str, Field(max_length=80)] = ""
    class_name: Annotated[str, Field(max_length=80)] = ""
    uuid: Annotated[str, Field(max_length=36)] = ""

    @model_validator(mode="after")
    def _known(self) -> FixtureDocument:
        if self.cell_order not in CELL_ORDERS:
            raise ValueError(f"order of cells {shown(self.cell_order)} is not known; use one of {', '.join(CELL_ORDERS)}")
        if (self.universe is None) != (self.address is None):
            raise ValueError("give both universe and address, or neither")
        return self
