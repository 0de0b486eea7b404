"""Live actions: what is done with hands, acts on the next frame, and is never undone."""

from __future__ import annotations

from typing import Annotated, get_args

import msgspec

from zarabanda.errors import ZarabandaError, brief, shown

from .bank_actions import BankAction
from .ids import Action, ControlId, Number, PlayerId, Universe
from .pixel_actions import PixelAction
from .row_actions import RowAction
from .song_actions import Chased, SongAction
from .tempo_actions import TempoAction


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
    but: list[str] = msgspec.field(default_factory=list)


class Stop(Action, frozen=True, tag="stop"):
    """Bring one thing back to base."""

    key: PlayerId


class StopAll(Action, frozen=True, tag="stop-all"):
    """Bring all effects back to base, or what they do in one family, in a time; whatever started them."""

    family: str | None = None
    seconds: Annotated[float, msgspec.Meta(ge=0, le=3600)] = 0.4


class ReleaseAll(Action, frozen=True, tag="release-all"):
    """The last way home: let go of all lists and effects that are not protected, in a time."""

    seconds: Annotated[float, msgspec.Meta(ge=0, le=3600)] = 2.0


class Run(Action, frozen=True, tag="run"):
    """Let something play again that was stopped."""

    key: PlayerId


class Freeze(Action, frozen=True, tag="freeze"):
    """Hold the phase where it is, or let it go on from there."""

    key: PlayerId
    on: bool = True


class Adjust(Action, frozen=True, tag="adjust"):
    """Change depth (share of what it has, 0…1) and speed (times what it has) of what plays, live only."""

    key: PlayerId
    depth: Annotated[float, msgspec.Meta(ge=0, le=1)] | None = None
    speed: Annotated[float, msgspec.Meta(ge=0.01, le=16)] | None = None


class Grand(Action, frozen=True, tag="grand"):
    """Set the grand master, 0…1."""

    value: float


class Blackout(Action, frozen=True, tag="blackout"):
    """All light off, or not."""

    on: bool = False


class Blind(Action, frozen=True, tag="blind"):
    """Prepare the draft without output, or send what was prepared in a time, 0 to 3600 s."""

    on: bool = True
    send_s: float = 0.0


class Go(Action, frozen=True, tag="go"):
    """The next cue of a list; a list that is paused goes on."""

    list: Number


class Back(Action, frozen=True, tag="back"):
    """The cue before."""

    list: Number


class GoTo(Action, frozen=True, tag="go-to"):
    """Go to a cue, by its own number in the show."""

    list: Number
    cue: Number


class ChooseNext(Action, frozen=True, tag="choose-next"):
    """Choose the cue that the next go goes to; None: the one that follows."""

    list: Number
    cue: Number | None = None


class Pause(Action, frozen=True, tag="pause"):
    """Hold the clock of a list."""

    list: Number


class Resume(Action, frozen=True, tag="resume"):
    """Let the clock of a list go on."""

    list: Number


class Release(Action, frozen=True, tag="release"):
    """Let go of all that a list holds, in a time."""

    list: Number
    seconds: Annotated[float, msgspec.Meta(ge=0, le=3600)] = 2.0


class ListLevel(Action, frozen=True, tag="list-level"):
    """Move the fader of a list, 0…1."""

    list: Number
    value: float


class LookAt(Action, frozen=True, tag="look-at"):
    """See a cue on screens as it will be, without output; None: no more."""

    list: Number = 0
    cue: Number | None = None


class GoOn(Action, frozen=True, tag="go-on"):
    """After a cut: let what stands go on where it was, or leave it so and ask no more."""

    on: bool = True


class PressSpecial(Action, frozen=True, tag="special"):
    """Take the lights of a special out of the look, or give them back; one that is on and asked for again comes last."""

    special: Number
    on: bool = True


class SpecialsHome(Action, frozen=True, tag="specials-home"):
    """Give the lights of all specials back to the look, each in its own times."""


class SpecialsLevel(Action, frozen=True, tag="specials-level"):
    """Move the fader of all specials, 0…1."""

    value: float


class Highlight(Action, frozen=True, tag="highlight"):
    """Show heads on stage, bright, and lower the others; no steps: no more. steps: heads of each step; at: which is shown first,
    from 0 on; tempo: goes on with every beat of it; holder: who asks, known by the web process."""

    steps: list[list[str]] = msgspec.field(default_factory=list)
    at: int = 0
    tempo: str | None = None
    holder: str = ""


class HoldSlot(Action, frozen=True, tag="hold-slot"):
    """Hold a slot at a value, over everything, for testing; None: no more. It ends when the page that asked is gone.

    holder: who asks, known by the web process.
    """

    universe: Universe
    slot: Annotated[int, msgspec.Meta(ge=1, le=512)]
    value: Annotated[int, msgspec.Meta(ge=0, le=255)] | None = None
    holder: str = ""


class PlayRecording(Action, frozen=True, tag="play-recording"):
    """Let a recording of what was sent play over everything, from its beginning; no name: it is taken out. seconds: how long it
    is; loops: it goes round, else it ends by itself."""

    name: Annotated[str, msgspec.Meta(max_length=80, pattern=r"^[^/\\\\.]*$")] = ""
    seconds: Annotated[float, msgspec.Meta(ge=0, le=1e6)] = 0.0
    loops: bool = False


class StandIn(Action, frozen=True, tag="stand-in"):
    """Let a light stand in for a broken one: fixtures by their numbers; by: None: it is given back."""

    light: int
    by: int | None = None


BrowserAction = (
    Level
    | Press
    | Stop
    | StopAll
    | ReleaseAll
    | Run
    | Freeze
    | Adjust
    | Grand
    | Blackout
    | Blind
    | Go
    | Back
    | GoTo
    | ChooseNext
    | Pause
    | Resume
    | Release
    | ListLevel
    | LookAt
    | GoOn
    | PressSpecial
    | SpecialsLevel
    | SpecialsHome
    | Highlight
    | HoldSlot
    | StandIn
    | PlayRecording
    | TempoAction
    | RowAction
    | BankAction
    | PixelAction
    | SongAction
)
AnyAction = BrowserAction | LetGo | Chased


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
