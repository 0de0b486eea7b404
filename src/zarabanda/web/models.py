"""What the API takes and gives, beside the documents of `formats`."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

HeadKey = Annotated[str, Field(pattern=r"^[0-9]{1,5}(\.[0-9]{1,4})?$")]
Id = Annotated[int, Field(ge=0, le=2**31 - 1)]
"""Number of a row."""
HeadKeys = Annotated[list[HeadKey], Field(max_length=20_000)]
Name = Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]


class Part(BaseModel):
    """All bodies: unknown keys are refused."""

    model_config = ConfigDict(extra="forbid")


class Fault(BaseModel):
    """What is wrong, where, and what to do."""

    message: str
    place: str = ""


class GroupView(BaseModel):
    """A kept selection."""

    id: int
    name: str
    heads: list[str]


class TempoView(BaseModel):
    """A shared speed."""

    name: str
    bpm: float


class ShowView(BaseModel):
    """The show's frame: name, groups, tempos, what undo and redo would take. playing: whether the engine has it;
    session: who counts the revisions."""

    name: str
    playing: bool
    session: str
    revision: int
    groups: list[GroupView]
    tempos: list[TempoView]
    undo: str | None
    redo: str | None


class TroubleView(BaseModel):
    """Something that is wrong now, in words."""

    who: str
    text: str


class ProcessView(BaseModel):
    """A process as the supervisor sees it."""

    name: str
    running: bool
    restarts: int
    message: str


class HealthView(BaseModel):
    """How Zarabanda is doing."""

    engine: bool
    troubles: list[TroubleView]
    processes: list[ProcessView]


class HeadView(BaseModel):
    """A head: its fixture, place in metres, what it is and what it can do."""

    key: str
    fixture: int
    cell: int
    kind: str
    place: tuple[float, float, float]
    attributes: list[str]


class FixtureView(BaseModel):
    """A fixture of the patch."""

    number: int
    name: str
    maker: str
    model: str
    mode: str
    kind: str
    heads: int
    universe: int
    address: int
    footprint: int
    place: tuple[float, float, float]


class RigView(BaseModel):
    """The rig. number: as in the header of live frames, whose heads come in this order. limits: low, high and home of
    each attribute, by mode."""

    number: int
    limits: dict[str, dict[str, tuple[float, float, float]]]
    fixtures: list[FixtureView]
    heads: list[HeadView]


class SelectionText(Part):
    """A selection in words, on top of a current one."""

    text: Annotated[str, Field(max_length=500)]
    current: HeadKeys = []


class SelectionOrder(Part):
    """Heads to put in order."""

    heads: HeadKeys
    order: Annotated[list[str], Field(min_length=1, max_length=8)]


class SelectionView(BaseModel):
    """Heads in their order."""

    heads: list[str]


class SentenceOption(BaseModel):
    """One of the values that a choice takes."""

    value: Any
    text: str


class SentencePart(BaseModel):
    """Plain words, or a value slot: where its value is in the document, how it reads, how it is edited."""

    text: str
    slot: str | None = None
    kind: Literal["choice", "number", "stops", "curve", "points", "order", "tempo"] | None = None
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


class PaletteView(BaseModel):
    """A palette: its document, and the kinds of head it acts on, with how many of them there are."""

    id: int
    name: str
    document: dict[str, Any]
    acts_on: dict[str, int]


class PalettesView(BaseModel):
    """All palettes."""

    palettes: list[PaletteView]


class PaletteContent(Part):
    """A palette's name and document."""

    name: Name
    document: dict[str, Any]


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
    heads: HeadKeys = []
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


class WeaveAsk(Part):
    """Which heads (none: a made-up row), columns, attribute (`look`: as it will look; `colour`: the colour alone, as if the
    heads were at full), from which θ, how many cycles."""

    heads: HeadKeys = []
    columns: Annotated[int, Field(ge=2, le=1024)] = 240
    attribute: str = "look"
    phantom: Annotated[int, Field(ge=1, le=100)] = 10
    cycles: Annotated[float, Field(gt=0, le=128)] | None = None
    start: Annotated[float, Field(ge=-1e7, le=1e7)] = 0.0
    notices: bool = False


class FixView(BaseModel):
    """A change of the effect that mends what a notice says."""

    operation: str
    path: str
    value: Any
    words: str


class NoticeView(BaseModel):
    """What is wrong or odd about an effect on these heads. note: sometimes wanted."""

    kind: str
    path: str
    text: str
    note: bool
    fix: FixView | None


class ScopeView(BaseModel):
    """The form of a layer over one cycle: `values` of each attribute in its unit, not clamped, `low`, `high` and `base`.

    mirrored: heads whose pan is mirrored. phases: base64 of rows × columns bytes, as in the weave: where each head is in the
    cycle (0–254), 255 at rest.
    """

    layer: int
    kind: Literal["wave", "path", "colour"]
    names: list[str]
    unit: str
    values: list[list[float]]
    low: list[float]
    high: list[float]
    base: list[float]
    mirrored: list[bool]
    phases: str


class WeaveView(BaseModel):
    """A weave: rows of heads in lane order; pixels base64 of rows × columns × 3 bytes. repeats: cycle after cycle.

    offsets: of each row, in cycles (in a relay: turns) behind lane 0; shares: of each lane, of the whole spread (in a relay:
    of the handover); circuit: turns. black, white: what such pixels stand for, in `unit`.
    """

    heads: list[str]
    lanes: list[int]
    parts: list[int]
    count: int
    offsets: list[float]
    shares: list[float]
    circuit: float
    columns: int
    start: float
    cycles: float
    repeats: bool
    beats: float | None
    seconds: float
    attribute: str
    unit: str
    black: float
    white: float
    attributes: list[str]
    cut_off: dict[str, float]
    notices: list[NoticeView]
    scopes: list[ScopeView]
    pixels: str


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

    key: Annotated[str, Field(pattern=r"^(draft|control):[0-9]{1,9}$")]


class FrozenLook(Part):
    """What is frozen and shall be kept as values of the draft: `draft:3` or `control:5`."""

    key: Annotated[str, Field(pattern=r"^(draft|control):[0-9]{1,9}$")]


class Keep(Part):
    """The name to keep an effect under."""

    name: Name


class Favourite(Part):
    """Whether it is a favourite."""

    favourite: bool


class DraftEffectView(BaseModel):
    """An effect that runs in the draft."""

    id: int
    effect_id: int
    name: str
    kept: bool
    heads: list[str]


class DraftView(BaseModel):
    """Values set by hand, and effects."""

    values: dict[str, dict[str, float]]
    effects: list[DraftEffectView]


class DraftValues(Part):
    """Values of attributes by head, natural units; null takes one back. preview: shown, not kept."""

    values: dict[str, dict[HeadKey, float | None]]
    preview: bool = False
    label: Annotated[str, Field(max_length=120)] = "Set values"


class OnDraft(Part):
    """An effect on heads."""

    effect_id: Id
    heads: HeadKeys


class NewControl(Part):
    """An effect on a fader or button."""

    place: Annotated[int, Field(ge=1, le=24)]
    mode: Literal["fader", "latch", "flash"]
    name: Name
    effect_id: Id
    heads: HeadKeys
    job: Literal["depth", "speed", "both"] = "depth"
    families: Annotated[list[Literal["intensity", "position", "colour", "beam"]], Field(min_length=1)] | None = None
    release_s: Annotated[float, Field(ge=0, le=30)] = 0.4


class ControlView(BaseModel):
    """A fader or button."""

    id: int
    key: str
    place: int
    mode: str
    name: str
    effect_id: int
    effect: str
    heads: list[str]
    job: str
    families: list[str] | None


class PageView(BaseModel):
    """A page of faders and buttons."""

    id: int
    name: str
    controls: list[ControlView]


class PagesView(BaseModel):
    """All pages."""

    pages: list[PageView]


class Done(BaseModel):
    """What was done, in words."""

    done: str


class UniverseView(BaseModel):
    """A universe of the show, with the fixtures in it."""

    universe: int
    used: int
    fixtures: list[dict[str, Any]]


class UniversesView(BaseModel):
    """All universes."""

    universes: list[UniverseView]


class NodeUniverse(BaseModel):
    """What the simulated node saw of a universe."""

    universe: int
    packets: int
    per_second: float
    sequence_errors: int
    source: str
    priority: int
    terminated: bool
    lost: bool
    gap_ms: float
    jitter_ms: float
    longest_gap_ms: float
    slots: list[int]


class NodeView(BaseModel):
    """The simulated node; running is false where it was not started."""

    running: bool
    port: int = 0
    bad: int = 0
    last_bad: str = ""
    universes: list[NodeUniverse] = []
