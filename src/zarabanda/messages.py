"""Every message between browser, web process and engine: one type each, checked where it comes in. See docs/formats.md.

The show reaches the engine in parts, by subject and number. Browsers speak JSON, the processes MessagePack (see `wire`).
"""

from __future__ import annotations

from typing import Annotated, Any, NewType, get_args

import msgspec

from zarabanda.core.rig.rig import ModeSpec, Place
from zarabanda.errors import ZarabandaError, brief, shown
from zarabanda.targets import Target

ControlId = NewType("ControlId", str)
"""A fader or button: `control:5`."""
PlayerId = NewType("PlayerId", str)
"""What plays something: `draft:3` an effect of the draft, `control:5` what a control alone drives, `audition`."""
PartKey = tuple[str, int | str]
"""Subject and number (or name) of a part."""
Values = dict[str, dict[str, float]]
"""Natural values by attribute and head key."""

Universe = Annotated[int, msgspec.Meta(ge=1, le=63_999)]
Number = Annotated[int, msgspec.Meta(ge=0, le=2**31 - 1)]
HeadKeys = Annotated[list[str], msgspec.Meta(max_length=20_000)]


def control_id(number: int) -> ControlId:
    """Of the control in this row."""
    return ControlId(f"control:{number}")


# parts of the show


class Part(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="part"):
    """A part of the show. Parts of one subject have numbers of their own."""

    @property
    def key(self) -> PartKey:
        """Subject and number."""
        return str(type(self).__struct_config__.tag), getattr(self, "id", 0)


class PatchedFixture(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A fixture with the name of its mode: see `core.rig.rig.FixtureSpec`."""

    number: int
    name: str
    mode: str
    place: Place
    rotation: Place = (0.0, 0.0, 0.0)
    universe: int = 1
    address: int = 1
    reversed_cells: bool = False


class RigPart(Part, frozen=True, tag="rig"):
    """The whole rig. revision: hash of its content, hexadecimal."""

    revision: str
    modes: tuple[ModeSpec, ...]
    fixtures: tuple[PatchedFixture, ...]


class TempoPart(Part, frozen=True, tag="tempo"):
    """A tempo, with the BPM that it has when the show opens, and its place among them."""

    id: int
    name: str
    bpm: float
    position: int


class PalettePart(Part, frozen=True, tag="palette"):
    """A palette: values for every head by attribute, and what holds on single heads instead."""

    id: int
    name: str
    values: dict[str, float]
    own: dict[str, dict[str, float]]


class EffectPart(Part, frozen=True, tag="effect"):
    """An effect document, with the numbers of palettes and tempos."""

    id: int
    document: dict[str, Any]


class DraftValuesPart(Part, frozen=True, tag="draft-values"):
    """What is set by hand of one attribute."""

    id: str
    heads: dict[str, float]


class DraftEffectPart(Part, frozen=True, tag="draft-effect"):
    """What plays in the draft."""

    id: int
    target: Target


class ControlPart(Part, frozen=True, tag="control"):
    """A fader or button: how it acts and what it drives. source: where it is, in words."""

    id: int
    name: str
    source: str
    mode: str
    job: str
    release_s: float
    target: Target


class OpeningPart(Part, frozen=True, tag="opening"):
    """Actions that are done once, when the show opens for the first time."""

    actions: tuple[Any, ...]


AnyPart = RigPart | TempoPart | PalettePart | EffectPart | DraftValuesPart | DraftEffectPart | ControlPart | OpeningPart

# live actions


class Action(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="do"):
    """Something done live: acts on the next frame, is never undone."""


class Level(Action, frozen=True, tag="level"):
    """Move a fader, 0…1."""

    control: ControlId
    value: float


class Press(Action, frozen=True, tag="press"):
    """Press a button, or let go of it. holder: who does, known by the web process."""

    control: ControlId
    down: bool = True
    holder: str = ""


class LetGo(Action, frozen=True, tag="let-go"):
    """Let go of what is held by some who are gone: `holders`, or all but those in `but`. For the web process."""

    holders: list[str] | None = None
    but: list[str] = []


class Stop(Action, frozen=True, tag="stop"):
    """Bring one thing back to base."""

    key: PlayerId


class StopAll(Action, frozen=True, tag="stop-all"):
    """Bring everything back to base."""


class Run(Action, frozen=True, tag="run"):
    """Let something play again that was stopped."""

    key: PlayerId


class Freeze(Action, frozen=True, tag="freeze"):
    """Hold the phase where it is, or let it go on from there."""

    key: PlayerId
    on: bool = True


class Tap(Action, frozen=True, tag="tap"):
    """Tap a tempo, by its name."""

    tempo: str


class Bpm(Action, frozen=True, tag="bpm"):
    """Set a tempo by a number, 10 to 400."""

    tempo: str
    value: float


class LineUp(Action, frozen=True, tag="line-up"):
    """Put all effects of a tempo on its beats."""

    tempo: str


class Grand(Action, frozen=True, tag="grand"):
    """Set the grand master, 0…1."""

    value: float


class Blackout(Action, frozen=True, tag="blackout"):
    """All light off, or not."""

    on: bool = False


BrowserAction = Level | Press | Stop | StopAll | Run | Freeze | Tap | Bpm | LineUp | Grand | Blackout
AnyAction = BrowserAction | LetGo


def action(document: object) -> AnyAction:
    """A live action from plain data; ZarabandaError says what is wrong with it."""
    try:
        read: AnyAction = msgspec.convert(document, AnyAction)
        return read
    except msgspec.ValidationError as error:
        raise ZarabandaError(what_is_wrong(document, error), "do") from error


def what_is_wrong(document: object, error: msgspec.ValidationError) -> str:
    """With an action that cannot be read, in words."""
    name = document.get("do") if isinstance(document, dict) else None
    known = [str(kind.__struct_config__.tag) for kind in get_args(BrowserAction)]
    if not isinstance(name, str) or name not in known:
        return f"There is no action {shown(name)}; use one of {', '.join(known)}."
    return f"The action {name} cannot be read: {brief(str(error))}."


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

    values: Values
    revision: int


class AskLook(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="look"):
    """What does a frozen effect show now?"""

    key: PlayerId
    ref: int


class ShowUpdate(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="type", tag="show"):
    """Parts that are new or have changed, and keys of those that are gone.

    session: who counts the revisions, another web process begins anew; whole: these are all parts; let_go: what shall end
    without a fade, since the show holds its values now; fade_s: in which values set by hand go where they go now.
    """

    session: str
    revision: int
    parts: list[AnyPart]
    gone: list[PartKey] = []
    whole: bool = False
    let_go: list[PlayerId] = []
    fade_s: float = 0.0


ToEngine = Do | WatchAll | PreviewEffect | Audition | PreviewValues | AskLook | ShowUpdate

# from the engine


class EngineHello(msgspec.Struct, frozen=True, tag_field="type", tag="hello"):
    """The engine is there. rig: revision of the rig that it has."""

    rig: str


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
    layer, in cycles of θ."""

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


class Trouble(msgspec.Struct, frozen=True):
    """What is wrong now, in words."""

    who: str
    text: str


class LoopHealth(msgspec.Struct, frozen=True):
    """How the frame loop is doing. late: deadlines that were missed and left out; errors: frames that failed."""

    rate: float
    frames: int
    late: int
    errors: int
    last_error: str
    median_ms: float
    p99_ms: float
    troubles: list[Trouble]


class OutputState(msgspec.Struct, frozen=True):
    """What an output has sent, and to where."""

    kind: str
    to: str
    packets: int
    errors: int
    last_error: str = ""
    priority: int | None = None
    cid: str | None = None


class State(msgspec.Struct, frozen=True, tag_field="type", tag="state"):
    """What is live, told twice a second and after every change. levels: of controls, 0…1."""

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
    outputs: list[OutputState]


class Look(msgspec.Struct, frozen=True, tag_field="type", tag="look"):
    """What a frozen effect shows; None where nothing frozen has that key."""

    ref: int
    values: Values | None


class Refused(msgspec.Struct, frozen=True, tag_field="type", tag="refused"):
    """An action that was not done, and why; ref as it came with the action."""

    message: str
    ref: Any = None


class ShowRefused(msgspec.Struct, frozen=True, tag_field="type", tag="refused-show"):
    """A show that cannot be played: the one before goes on."""

    message: str


FromEngine = EngineHello | Frame | UniverseFrame | State | Look | Refused | ShowRefused

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
