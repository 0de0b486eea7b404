"""Documents of the rig: modes and fixtures, checked here, given to the core as they are."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, model_validator

from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import EMITTERS
from zarabanda.errors import ZarabandaError, shown

from .effect_document import Number


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class ChannelPart(_Part):
    """One channel: what it carries, its slots (coarse first), natural values at DMX 0 and full, its cell (0: all)."""

    source: str
    slots: Annotated[list[Annotated[int, Field(ge=0, le=511)]], Field(min_length=1, max_length=3)]
    low: Number = 0.0
    high: Number = 1.0
    inverted: bool = False
    cell: Annotated[int, Field(ge=0)] = 0


class ModeDocument(_Part):
    """A fixture's set of channels, what makes its colour, and its cells' places in metres."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    maker: str = ""
    model: str = ""
    kind: str
    emitters: str = "none"
    channels: list[ChannelPart]
    footprint: Annotated[int, Field(ge=1, le=512)]
    limits: dict[str, tuple[Number, Number, Number]] = {}
    wheel: list[tuple[str, tuple[Number, Number, Number]]] = []
    light: tuple[Number, Number, Number] = (1.0, 1.0, 1.0)
    cells: list[tuple[Number, Number, Number]] = []
    beam_deg: Number = 20.0

    @model_validator(mode="after")
    def _known(self) -> ModeDocument:
        if self.emitters not in EMITTERS:
            raise ValueError(f"emitters {shown(self.emitters)} are not known; use one of {', '.join(EMITTERS)}")
        known = {*attributes.BY_NAME, *EMITTERS[self.emitters]}
        for channel in self.channels:
            if channel.source not in known:
                raise ValueError(f"channel source {shown(channel.source)} is not known; use one of {', '.join(sorted(known))}")
            if max(channel.slots) >= self.footprint:
                raise ValueError(f"channel {channel.source} uses slot {max(channel.slots) + 1} of {self.footprint}")
            if channel.cell > len(self.cells):
                raise ValueError(f"channel {channel.source} is of cell {channel.cell}, but there are {len(self.cells)}")
        return self


class FixtureDocument(_Part):
    """A fixture of the rig."""

    number: Annotated[int, Field(ge=1, le=99_999)]
    name: str
    mode: str
    place: tuple[Number, Number, Number]
    rotation: tuple[Number, Number, Number] = (0.0, 0.0, 0.0)
    universe: Annotated[int, Field(ge=1, le=63_999)]
    address: Annotated[int, Field(ge=1, le=512)]
    reversed_cells: bool = False


def check_patch(fixtures: Sequence[FixtureDocument], modes: dict[str, ModeDocument]) -> None:
    """Refuse fixtures that share slots or reach beyond their universe, naming both and the free address after."""
    taken: dict[tuple[int, int], int] = {}
    for fixture in fixtures:
        size = modes[fixture.mode].footprint
        if fixture.address + size - 1 > 512:
            raise ZarabandaError(
                f"Fixture {fixture.number} needs {size} slots from address {fixture.address}, which is beyond 512. Its last "
                f"possible address is {513 - size}.",
                str(fixture.number),
            )
        for slot in range(fixture.address, fixture.address + size):
            other = taken.setdefault((fixture.universe, slot), fixture.number)
            if other != fixture.number:
                raise ZarabandaError(
                    f"Fixtures {other} and {fixture.number} both use slot {slot} of universe {fixture.universe}. Give one of "
                    "them another address.",
                    str(fixture.number),
                )
