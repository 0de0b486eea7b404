"""Messages between browser, web process and engine, by who sends them."""

from __future__ import annotations

from typing import Annotated, Any

import msgspec

from .actions import AnyAction, BrowserAction
from .ids import ControlId, HeadKeys, HeldValues, Number, PartKey, PlayerId, Universe, Values
from .parts import AnyPart

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


class AskActing(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="acting"):
    """On which heads does an effect run now?"""

    effect_id: Number
    ref: int


class ShowUpdate(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="show"):
    """Parts that are new or have changed, and keys of those that are gone.

    session: who counts the revisions, another web process begins anew; whole: these are all parts; let_go: what shall end
    without a fade, since the show holds its values now; written_back: whose depth and speed, changed live, it holds now; fade_s:
    in which values set by hand go where they go now.
    """

    session: str
    revision: int
    parts: list[AnyPart]
    gone: list[PartKey] = []
    whole: bool = False
    let_go: list[PlayerId] = []
    fade_s: float = 0.0
    written_back: list[PlayerId] = []


ToEngine = Do | WatchAll | PreviewEffect | Audition | PreviewValues | AskLook | AskStage | AskTrace | AskActing | ShowUpdate

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


class TempoState(msgspec.Struct, frozen=True):
    """How fast a tempo is, and its beat at the state's time."""

    name: str
    bpm: float
    beat: float


class RunningState(msgspec.Struct, frozen=True):
    """Something that plays. number: its name in live frames; theta_shifts: what edits have left, so that nothing jumps: of each
    layer, in cycles of θ; depth, speed: as hands have changed them live, 1 and 1: they have not."""

    key: PlayerId
    number: int
    effect_id: int
    name: str
    source: str
    level: float
    stopping: bool
    frozen: bool
    theta: float
    theta_shifts: list[float]
    depth: float = 1.0
    speed: float = 1.0


class ListTold(msgspec.Struct, frozen=True):
    """Where a cue list is. cue: the number in the show of the cue that it is on; next: of the one that the next go goes to;
    chosen: whether that was chosen by hand; went_at, arrives_at: stamps of its last go and of the end of its last fade;
    follows_at: when `follows` comes by itself (0: the list releases itself); paused_at: since when its clock stands; level: of
    its fader."""

    id: int
    cue: int | None
    next: int | None
    chosen: bool
    went_at: float
    arrives_at: float
    follows: int | None
    follows_at: float | None
    paused_at: float | None
    level: float


class Trouble(msgspec.Struct, frozen=True):
    """What is wrong now, in words."""

    who: str
    text: str


class LoopHealth(msgspec.Struct, frozen=True):
    """How the frame loop is doing. late: deadlines that were missed and left out; errors: frames that failed; parts_ms: what
    the time of a frame goes to, on average over the last second; minute: the last sixty seconds, oldest first."""

    rate: float
    frames: int
    late: int
    errors: int
    last_error: str
    median_ms: float
    p99_ms: float
    parts_ms: dict[str, float]
    minute: list[Second]
    troubles: list[Trouble]


class Second(msgspec.Struct, frozen=True):
    """A second of the frame loop: middle and longest time of a frame in ms, deadlines that were missed."""

    middle_ms: float
    worst_ms: float
    late: int


class RouteState(msgspec.Struct, frozen=True):
    """How a route does. state: off, sending, failed, not allowed; text: what is wrong, in words; drops: packets that did
    not go out in their frame; since_last_s: since the last packet; longest_gap_s: between two frames sent, in the last minute."""

    id: int
    protocol: str
    to: str
    state: str
    text: str = ""
    universes: int = 0
    packets: int = 0
    per_second: float = 0.0
    errors: int = 0
    drops: int = 0
    since_last_s: float | None = None
    longest_gap_s: float = 0.0
    priority: int | None = None


class DeviceState(msgspec.Struct, frozen=True):
    """How a device does. state: ready, failed, not allowed; text: what is wrong, in words; sent, failed: how many messages; last:
    what it was sent last, in words, and since_last_s: how long ago."""

    id: int
    state: str
    text: str = ""
    sent: int = 0
    failed: int = 0
    last: str = ""
    since_last_s: float | None = None


class CutOffTold(msgspec.Struct, frozen=True):
    """When everything was cut off, in s since 1970; cues: what was on then, in words; standing: how many lists wait to go on."""

    at: float
    cues: list[str]
    standing: int


class HeldSlot(msgspec.Struct, frozen=True):
    """A slot that is held by hand, for testing."""

    universe: int
    slot: int
    value: int


class ShownState(msgspec.Struct, frozen=True):
    """What is shown on stage: heads of this step, which it is of how many (from 0 on), whether it goes on by itself."""

    heads: tuple[str, ...]
    at: int
    count: int
    plays: bool


class State(msgspec.Struct, frozen=True, tag_field="type", tag="state"):
    """What is live, told twice a second and after every change. levels: of controls, 0…1; source: CID of what we send (hex);
    blind: the draft is prepared without output, and frames show it as it will be; looked_at: the cue that frames show as it will
    be, while the stage stays."""

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
    held: list[HeldSlot] = []
    shown: ShownState | None = None
    lists: list[ListTold] = []
    looked_at: int | None = None
    devices: list[DeviceState] = []
    cut_off: CutOffTold | None = None


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
    """Where a value comes from, step by step, and the slots it comes out at; no steps: there is no such head."""

    ref: int
    steps: list[TraceStep]
    slots: list[TracedSlot]


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


FromEngine = EngineHello | Frame | UniverseFrame | State | Look | Traced | Acting | Refused | ShowRefused

# to a browser, beside frames as they come


class Hello(msgspec.Struct, frozen=True, tag_field="type", tag="hello"):
    """The live socket is open. engine: whether the engine is there."""

    version: int
    engine: bool


class EngineIs(msgspec.Struct, frozen=True, tag_field="type", tag="engine"):
    """The engine came or went; message: what does not run, in words."""

    connected: bool
    message: str


ToBrowser = Hello | EngineIs | State | Refused
