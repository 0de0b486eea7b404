"""What the API takes and gives of the rig and selections."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, Field, WithJsonSchema, model_validator

from zarabanda.core.rig.cells import CELL_ORDERS
from zarabanda.errors import shown

from ..parts import Done, HeadKeys, Part


class PartView(BaseModel):
    """A head of every fixture in a mode. part: the number of the cell, 0 the fixture itself; what it can do."""

    part: int
    attributes: list[str]


class ModeView(BaseModel):
    """A mode. label: what tells it from other modes of its model; footprint: slots; cells: how many; parts: its heads."""

    id: int
    name: str
    label: str
    maker: str
    model: str
    kind: str
    footprint: int
    cells: int
    parts: list[PartView]


class FixtureView(BaseModel):
    """A fixture of the patch. groups: names of those that have some of its heads."""

    number: int
    name: str
    mode_id: int
    universe: int | None
    address: int | None
    place: tuple[float, float, float]
    rotation: tuple[float, float, float]
    cell_order: str
    notes: str
    layer: str
    class_name: str
    groups: list[str]


class RigView(BaseModel):
    """The rig. number: as in the header of live frames. places: x, y, z of each head in m, one after another; heads are in
    the order of fixture numbers, within each in that of the parts of its mode."""

    number: int
    fixtures: list[FixtureView]
    modes: list[ModeView]
    places: list[float]


class OddOne(BaseModel):
    """Something odd: see `core.explain.rig_check.Odd`. ask: what mends it, as the body of `POST /api/rig/address`."""

    kind: str
    numbers: list[int]
    text: str
    mend: str
    ask: dict[str, Any]


class OddView(BaseModel):
    """All that is odd about the rig."""

    odd: list[OddOne]


class RigDone(Done):
    """What was done. numbers: of fixtures that are new; lost: what it cost, in words."""

    numbers: list[int] = Field(default_factory=list)
    lost: list[str] = Field(default_factory=list)
    revision: int = 0


Number = Annotated[int, Field(ge=1, le=99_999)]
Numbers = Annotated[list[Number], Field(min_length=1, max_length=30_000)]
Metres = Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)]
Degrees = Annotated[float, Field(ge=-360, le=360, allow_inf_nan=False)]
Universe = Annotated[int, Field(ge=1, le=63_999)]
Address = Annotated[int, Field(ge=1, le=512)]


def _known_cell_order(name: str) -> str:
    if name not in CELL_ORDERS:
        raise ValueError(f"there is no order of cells {shown(name)}; use one of {', '.join(filter(None, CELL_ORDERS))}")
    return name


CellOrder = Annotated[str, AfterValidator(_known_cell_order), WithJsonSchema({"type": "string", "enum": list(CELL_ORDERS)})]


class AddFixtures(Part):
    """Fixtures of a mode, by its name. place: of the first, in m; spacing: from each to the next."""

    mode: Annotated[str, Field(min_length=1, max_length=120)]
    count: Annotated[int, Field(ge=1, le=5_000)] = 1
    number: Number = 1
    name: Annotated[str, Field(max_length=120)] = ""
    addresses: Literal["next free", "in order", "none"] = "next free"
    universe: Universe = 1
    address: Address = 1
    place: tuple[Metres, Metres, Metres] = (0.0, 0.0, 0.0)
    spacing: tuple[Metres, Metres, Metres] = (1.0, 0.0, 0.0)
    mounting: Literal["standing", "hanging", "on the left", "on the right"] = "hanging"


class ReadyRig(Part):
    """Which small rig to begin with."""

    rig: Literal["pars", "club", "stage"]


class FixtureFields(Part):
    """What can be changed of a fixture; what is not given stays. Universe or address null: it has no address."""

    number: Number | None = None
    name: Annotated[str, Field(max_length=120)] | None = None
    mode: Annotated[str, Field(min_length=1, max_length=120)] | None = None
    universe: Universe | None = None
    address: Address | None = None
    x: Metres | None = None
    y: Metres | None = None
    z: Metres | None = None
    turn_x: Degrees | None = None
    turn_y: Degrees | None = None
    turn_z: Degrees | None = None
    cell_order: CellOrder | None = None
    notes: Annotated[str, Field(max_length=400)] | None = None
    layer: Annotated[str, Field(max_length=80)] | None = None
    class_name: Annotated[str, Field(max_length=80)] | None = None

    @model_validator(mode="after")
    def _given(self) -> FixtureFields:
        empty = [name for name in self.model_fields_set - {"universe", "address"} if getattr(self, name) is None]
        if empty:
            raise ValueError(f"{sorted(empty)[0]} cannot be empty; leave it out to keep it as it is")
        return self


class FixtureChange(Part):
    """A change of one fixture."""

    fixture: Number
    set: FixtureFields


class ChangeFixtures(Part):
    """Changes of fixtures, done all together or not at all."""

    changes: Annotated[list[FixtureChange], Field(min_length=1, max_length=30_000)]
    label: Annotated[str, Field(min_length=1, max_length=120)] = "Change the rig"
    preview: bool = False


class TypedCells(Part):
    """What was typed into a column of fixtures, in their order."""

    numbers: Numbers
    column: Annotated[str, Field(max_length=40)]
    text: Annotated[str, Field(max_length=500)]
    preview: bool = False


class PasteRows(Part):
    """Rows to paste: columns apart by tabs. numbers: fixtures from the chosen row on; column: the chosen one."""

    text: Annotated[str, Field(max_length=4_000_000)]
    numbers: Annotated[list[Number], Field(max_length=30_000)] = Field(default_factory=list)
    column: Annotated[str, Field(max_length=40)] = "number"
    preview: bool = False


class PasteView(RigDone):
    """What is pasted, in words, and what is wrong with it."""

    changes: list[str]
    faults: list[str]


class CsvColumn(BaseModel):
    """A column that can be matched."""

    id: str
    title: str


class CsvView(RigDone):
    """A patch from a file. titles: of its columns; columns: which each is, empty: none; known: what they can be; sample: its
    first rows; changes, added: in words; same: how many are as they are; absent: fixtures of the show that it does not have."""

    titles: list[str]
    columns: list[str]
    known: list[CsvColumn]
    sample: list[list[str]]
    changes: list[str]
    added: list[str]
    same: int
    absent: list[int]
    faults: list[str]


class SomeFixtures(Part):
    """Fixtures by number."""

    numbers: Numbers
    preview: bool = False


class DuplicateFixtures(Part):
    """Fixtures to have once more, called by free numbers from the first on."""

    numbers: Numbers
    first: Number
    mirrored: bool = False


class GiveAddresses(Part):
    """How fixtures get addresses, in their order."""

    numbers: Numbers
    how: Literal["next free", "in order", "none"]
    universe: Universe = 1
    address: Address = 1


class MoveUniverse(Part):
    """A universe, and where it goes."""

    universe: Universe
    to: Universe


class ArrangeFixtures(Part):
    """How fixtures stand, in their order. given: numbers that the shape asks for, in m and degrees."""

    numbers: Numbers
    shape: Annotated[str, Field(max_length=40)]
    given: dict[str, Metres] = Field(default_factory=dict)


class SelectionText(Part):
    """A selection in words, on top of a current one. cells: fixtures are taken as their cells."""

    text: Annotated[str, Field(max_length=500)]
    current: HeadKeys = Field(default_factory=list)
    cells: bool = False


class SelectionOrder(Part):
    """Heads to put in order."""

    heads: HeadKeys
    order: Annotated[list[str], Field(min_length=1, max_length=8)]


class SelectionView(BaseModel):
    """Heads in their order."""

    heads: list[str]
