"""What the API takes and gives of effects, beside their documents."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from ..parts import HeadKeys, Name, Part
from .weave_models import WeaveAsk, WeaveView


class SentenceOption(BaseModel):
    """One of the values that a choice takes."""

    value: Any
    text: str


class SentencePart(BaseModel):
    """Plain words, or a value slot: where its value is in the document, how it reads, how it is edited."""

    text: str
    slot: str | None = None
    kind: (
        Literal["choice", "number", "stops", "curve", "points", "order", "tempo", "colours", "text", "medium", "outline"] | None
    ) = None
    value: Any = None
    label: str | None = None
    unit: str | None = None
    low: float | None = None
    high: float | None = None
    step: float | None = None
    scale: float | None = None
    options: list[SentenceOption] | None = None
    swatches: list[str] | None = None
    of: str | None = None


class SentenceView(BaseModel):
    """Words and value slots: see core.explain.sentence."""

    layers: list[list[SentencePart]]
    shared: list[SentencePart]
    text: str


class EffectView(BaseModel):
    """An effect with its sentence and where it is used. broken: why it cannot be read, if so."""

    id: int
    name: str
    kept: bool
    favourite: bool
    families: list[str]
    document: dict[str, Any]
    sentence: SentenceView
    uses: list[str]
    broken: str | None = None


class EffectsView(BaseModel):
    """Effects of the library."""

    effects: list[EffectView]


class NewEffect(Part):
    """A new effect on one attribute, at once in the draft on these heads; or a document, into the library."""

    attribute: str | None = None
    spread: Literal["ripple", "relay"] = "ripple"
    heads: HeadKeys = Field(default_factory=list)
    document: dict[str, Any] | None = None


class EffectFile(Part):
    """What was in a file: an effect document, or a set of them."""

    content: Any


class Imported(BaseModel):
    """Effects that came in, what is wrong with the others, and what to know of those that came in."""

    effects: list[str]
    refused: list[str]
    remarks: list[str]


class NewEffectView(BaseModel):
    """The new effect, and its key in the draft when it runs there."""

    effect: EffectView
    draft_id: int | None


class EffectChange(Part):
    """One change of an effect. preview: shown on stage and in the answer, but not kept. step: counts the changes of a browser,
    so that a preview which comes in late does not overtake the change that was kept after it."""

    operation: Literal[
        "set",
        "add-layer",
        "add-layer-first",
        "remove-layer",
        "duplicate-layer",
        "move-layer",
        "solo-layer",
        "set-own",
        "reset-own",
        "replace",
    ] = "set"
    path: str = ""
    value: Any = None
    preview: bool = False
    step: Annotated[int, Field(ge=0, le=2**53)] = 0
    weave: WeaveAsk | None = None


class EffectChanged(BaseModel):
    """The effect after a change, its weave when asked for, and the revision of the show that has it (0: a preview)."""

    effect: EffectView
    weave: WeaveView | None
    revision: int = 0


class DocumentWeave(Part):
    """A document that need not be kept, and how to weave it."""

    document: dict[str, Any]
    weave: WeaveAsk


class OwnCopy(Part):
    """What runs the effect and shall get a copy of its own: `draft:3` or `control:5`."""

    key: Annotated[str, Field(pattern=r"^(draft|control|list:[0-9]{1,9}):[0-9]{1,9}$")]


class Keep(Part):
    """The name to keep an effect under."""

    name: Name


class Favourite(Part):
    """Whether it is a favourite."""

    favourite: bool
