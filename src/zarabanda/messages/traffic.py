"""Messages between browser, web process and engine, by who sends them."""

from __future__ import annotations

from typing import Annotated, Any

import msgspec

from .actions import AnyAction, BrowserAction
from .ids import ControlId, HeadKeys, HeldValues, Number, PartKey, PlayerId, Universe, Values
from .parts import AnyPart, PixelMapPart
from .told import (
    ActionsTold,
    BuskTold,
    CutOffTold,
    DeviceState,
    HeldSlot,
    LineTold,
    ListTold,
    LookTold,
    LoopHealth,
    OverlayTold,
    PageTold,
    PixelsTold,
    RecordedTold,
    RecorderTold,
    RouteState,
    RowTold,
    RunningState,
    ShownState,
    SongTold,
    SpecialTold,
    StandInTold,
    TempoState,
    TimecodeTold,
)

# from a browser to the web process, and on to the engine


class Act(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="action"):
    """A live action; ref comes back with a refusal."""

    action: BrowserAction
    ref: Any = None


class Watch(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="watch"):
    """Universes to see live."""

    universes: Annotated[list[Universe], msgspec.Meta(max_length=16)]


class PreviewEffect(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="preview-effect"):
    """An effect as it is being edited, until the next edit. revision: of the show that it was made from."""

    effect_id: Number
    document: Any
    revision: int = 0


class Audition(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="audition"):
    """An effect to be seen on heads beside what the show has; without a document: no more."""

    effect_id: Number = 0
    document: Any = None
    heads: HeadKeys = []


class PreviewPixels(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="preview-pixels"):
    """A pixel map as it is being edited, until the next update. revision: of the show that it was made from."""

    part: PixelMapPart
    revision: int = 0


FromBrowser = Act | Watch | PreviewEffect | Audition


class Do(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="do"):
    """A live action; ref comes back with a refusal."""

    action: AnyAction
    ref: int = 0


class WatchAll(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="watch-all"):
    """Universes that any browser wants to see."""

    universes: list[Universe]


class PreviewValues(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="preview-values"):
    """All values set by hand, as they are being changed, until the next edit."""

    values: HeldValues
    revision: int


class AskLook(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="look"):
    """What does a frozen effect show now?"""

    key: PlayerId
    ref: int


class AskStage(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="stage"):
    """What do these heads have on stage now, below the levels?"""

    heads: HeadKeys
    ref: int


class AskTrace(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="trace"):
    """Where does an attribute (`colour`, `position`: all its parts) of a head come from now?"""

    head: str
    attribute: str
    ref: int


class AskHeld(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="held"):
    """What is held on these heads now, below effects, and which effects run on them?"""

    heads: HeadKeys
    ref: int


class AskActing(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="acting"):
    """On which heads does an effect run now?"""

    effect_id: Number
    ref: int


class AskTaken(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="taken"):
    """What was recorded of a song? It is forgotten then."""

    timeline: Number
    ref: int


class AskCanvas(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="canvas"):
    """What do the layers of a pixel map, or of a picture on it, look like now, before they meet any light?"""

    map: Number
    picture: int
    ref: int


class ShowUpdate(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="show"):
    """Parts that are new or have changed, and keys of those that are gone.

    session: who counts the revisions, another web process begins anew; whole: these are all parts; let_go: what shall end
    without a fade, since the show holds its values now; written_back: whose depth and speed, changed live, it holds now; fade_s:
    in which values set by hand go where they go now; show: which one it is, of the library.
    """

    session: str
    revision: int
    parts: list[AnyPart]
    gone: list[PartKey] = []
    whole: bool = False
    let_go: list[PlayerId] = []
    fade_s: float = 0.0
    written_back: list[PlayerId] = []
    show: str = ""


Question = AskLook | AskStage | AskTrace | AskActing | AskHeld | AskTaken | AskCanvas


class RecordSent(msgspec.Struct, frozen=True, tag_field="type", tag="record-sent"):
    """Record what is sent under a name; empty: end the recording."""

    name: str


class DriveClock(msgspec.Struct, frozen=True, tag_field="type", tag="drive-clock"):
    """Let the stage's time run at so many times the machine's, after so many seconds at once; only where the engine allows it."""

    rate: float = 1.0
    ahead_s: float = 0.0


ToEngine = (
    Do | RecordSent | DriveClock | WatchAll | PreviewEffect | PreviewPixels | Audition | PreviewValues | Question | ShowUpdate
)

# from the engine


class EngineHello(msgspec.Struct, frozen=True, tag_field="type", tag="hello"):
    """The engine is there."""


class Frame(msgspec.Struct, frozen=True, tag_field="type", tag="frame"):
    """States of all heads, as the browser gets them: see `engine.frames`."""

    data: bytes


class UniverseFrame(msgspec.Struct, frozen=True, tag_field="type", tag="universe"):
    """The slots of a universe, as the browser gets them."""

    universe: int
    data: bytes


class State(msgspec.Struct, frozen=True, tag_field="type", tag="state"):
    """What is live, told twice a second and after every change. levels: of controls, 0…1; source: CID of what we send (hex);
    blind: the draft is prepared without output, and frames show it as it will be; looked_at: the cue that frames show as it will
    be, while the stage stays; stand_ins: lights that stand in for broken ones; recorder: what is recorded of
    what is sent; recorded: what plays of that."""

    t: float
    session: str
    revision: int
    tempos: list[TempoState]
    running: list[RunningState]
    stopped: list[PlayerId]
    levels: dict[ControlId, float]
    grand: float
    blackout: bool
    health: LoopHealth
    routes: list[RouteState]
    source: str
    blind: bool = False
    stand_ins: list[StandInTold] = []
    recorder: RecorderTold | None = None
    recorded: RecordedTold | None = None
    held: list[HeldSlot] = []
    shown: ShownState | None = None
    lists: list[ListTold] = []
    looked_at: int | None = None
    devices: list[DeviceState] = []
    rows: list[RowTold] = []
    busk: BuskTold | None = None
    cut_off: CutOffTold | None = None
    specials: list[SpecialTold] = []
    overlays: list[OverlayTold] = []
    pixels: list[PixelsTold] = []
    pixels_seen: list[int] | None = None
    looks: list[LookTold] = []
    page: PageTold | None = None
    actions: list[ActionsTold] = []
    specials_level: float = 1.0
    songs: list[SongTold] = []
    scrubbed: float | None = None
    timecode: TimecodeTold | None = None
    line: LineTold | None = None


class EffectNow(msgspec.Struct, frozen=True):
    """An effect that runs: on heads in pick order, families in which it acts (None: all of its own), depth 0…1 and speed."""

    effect_id: int
    name: str
    heads: list[str]
    families: list[str] | None
    depth: float
    speed: float


class HeldNow(msgspec.Struct, frozen=True, tag_field="type", tag="held-now"):
    """What is held, by attribute and head, and which effects run."""

    ref: int
    values: Values
    effects: list[EffectNow]


class CanvasNow(msgspec.Struct, frozen=True, tag_field="type", tag="canvas-now"):
    """The layers over black: red, green and blue (0…255) of points by rows from top left. No points: the map is not there."""

    ref: int
    columns: int
    rows: int
    points: bytes


class TakenTold(msgspec.Struct, frozen=True):
    """Something that a hand did on a track while it recorded: see `engine.live.recording.Taken`."""

    track: int
    at: float
    what: str
    value: float
    cue: int
    holder: str


class TakenNow(msgspec.Struct, frozen=True, tag_field="type", tag="taken-now"):
    """What was recorded, and from where to where."""

    ref: int
    taken: list[TakenTold]
    spans: list[tuple[float, float]]


class Look(msgspec.Struct, frozen=True, tag_field="type", tag="look"):
    """What a frozen effect shows, or heads have on stage; None where nothing frozen has that key."""

    ref: int
    values: Values | None


class TraceStep(msgspec.Struct, frozen=True):
    """One step on the way to a value: see `core.playback.trace.Step`; effect: the number of an effect; cue: that the
    list is on whose claim it is, 0: none."""

    what: str
    who: str
    value: list[float]
    target: list[float] | None = None
    share: float | None = None
    layer: int | None = None
    key: str = ""
    effect: int = 0
    cue: int = 0


class TracedSlot(msgspec.Struct, frozen=True):
    """A slot that a value comes out at, and what was sent there last."""

    universe: int
    slot: int
    value: int
    held: bool = False


class Traced(msgspec.Struct, frozen=True, tag_field="type", tag="traced"):
    """Where a value comes from, step by step, and the slots it comes out at; no steps: there is no such head.
    of: whose way it is: the same head, or the one that it stands in for."""

    ref: int
    steps: list[TraceStep]
    slots: list[TracedSlot]
    of: str = ""


class Acting(msgspec.Struct, frozen=True, tag_field="type", tag="acting-on"):
    """On which heads an effect runs now: by what plays it, where that comes from, and the keys of the heads in their order."""

    ref: int
    plays: list[tuple[str, list[str]]]


class Refused(msgspec.Struct, frozen=True, tag_field="type", tag="refused"):
    """An action that was not done, and why; ref as it came with the action."""

    message: str
    ref: Any = None


class ShowRefused(msgspec.Struct, frozen=True, tag_field="type", tag="refused-show"):
    """A show that cannot be played: the one before goes on."""

    message: str


Answer = Look | Traced | Acting | HeldNow | TakenNow | CanvasNow
FromEngine = EngineHello | Frame | UniverseFrame | State | Answer | Refused | ShowRefused

# to a browser, beside frames as they come


class ShowIs(msgspec.Struct, frozen=True, tag_field="type", tag="show-is"):
    """Which show of the library is open now."""

    show: str


class Hello(msgspec.Struct, frozen=True, tag_field="type", tag="hello"):
    """The live socket is open. engine: whether it is there; holder: who this page is to the engine; show: what is open."""

    version: int
    engine: bool
    holder: str = ""
    show: str = ""


class EngineIs(msgspec.Struct, frozen=True, tag_field="type", tag="engine"):
    """The engine came or went; message: what does not run, in words."""

    connected: bool
    message: str


ToBrowser = Hello | ShowIs | EngineIs | State | Refused
