"""What the API takes and gives of kinds of fixtures."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zarabanda.formats.rig_document import ModeDocument

from ..parts import Done, Part


class KindView(BaseModel):
    """A mode that fixtures can have. id: None for a plain kind that the show does not have yet; fit: how many one universe
    carries; bits: what is finer than 8 bit; limits: what effects cannot do in it, in words."""

    id: int | None
    name: str
    label: str
    maker: str
    model: str
    kind: str
    footprint: int
    fit: int
    cells: int
    leads: bool
    bits: str
    limits: list[str]
    attributes: list[str]


class KindsView(BaseModel):
    """All modes there are. sources: what a channel of a new kind can carry."""

    kinds: list[KindView]
    sources: list[str]


class MadeChannel(Part):
    """A channel of a kind that is made: what it carries (empty: nothing), how fine, natural values at DMX 0 and at full, and at
    home."""

    source: Annotated[str, Field(max_length=40)] = ""
    bits: Literal[8, 16, 24] = 8
    low: Annotated[float, Field(allow_inf_nan=False)] = 0.0
    high: Annotated[float, Field(allow_inf_nan=False)] = 1.0
    home: Annotated[float, Field(allow_inf_nan=False)] = 0.0


class MakeKind(Part):
    """A kind from its channel list, in the order of its slots."""

    model: Annotated[str, Field(min_length=1, max_length=60, pattern=r"\S")]
    maker: Annotated[str, Field(max_length=60)] = ""
    kind: Literal["spot", "wash", "beam", "par", "profile", "strobe", "blinder", "haze", "fan"] = "par"
    channels: Annotated[list[MadeChannel], Field(min_length=1, max_length=512)]
    beam_deg: Annotated[float, Field(ge=1, le=170)] = 20.0


class KindSheet(BaseModel):
    """Everything about a kind. id: None where it is a plain one, which is not changed; slots: what each does, "" where none does
    anything; numbers: of the fixtures that are of it; sources: what a channel can carry; emitters: names of how colour is made,
    with the channels that each needs; homes: the usual value at home of attributes that have one."""

    id: int | None
    document: ModeDocument
    slots: list[str]
    numbers: list[int]
    limits: list[str]
    fit: int
    sources: list[str]
    emitters: dict[str, list[str]]
    homes: dict[str, float]


class ChangeKind(Part):
    """A kind as it is to be. preview: only tell what it would cost."""

    document: ModeDocument
    preview: bool = False


class KindChanged(Done):
    """What is lost by it, in words."""

    lost: list[str]


class CopyKind(Part):
    """A kind of its own, made of another."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    model: Annotated[str, Field(min_length=1, max_length=60, pattern=r"\S")]


class WheelPictureKept(Done):
    """A picture that was taken in, by its hash."""

    picture: str


class GdtfModeView(BaseModel):
    """A mode in a GDTF file. left_out: what of it is not driven; there: whether the show has the same one already."""

    name: str
    kind: KindView
    left_out: list[str]
    there: bool


class GdtfView(Done):
    """What is in a GDTF file, or was taken in. faults: modes that cannot be used; left_out: what is not read of any mode."""

    maker: str
    model: str
    description: str
    modes: list[GdtfModeView]
    faults: list[str]
    left_out: list[str]
    pictures: int
