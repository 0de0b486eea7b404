"""What the state is told in: one record for each kind of thing that is live."""

from __future__ import annotations

import msgspec

from .ids import ControlId, PlayerId


class TempoState(msgspec.Struct, frozen=True):
    """How fast a tempo is, and its beat at the state's time; rate: beats a second now; kept: the BPM that the show keeps; held:
    whether it stands; follows: the name of another that it follows at a ratio."""

    name: str
    bpm: float
    beat: float
    rate: float = 0.0
    kept: float = 0.0
    held: bool = False
    follows: str | None = None
    ratio: float = 1.0


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


class SpecialTold(msgspec.Struct, frozen=True):
    """A special. phase: of the light of it that is farthest behind: off, to dark, moving, opening, on, home to dark, home moving,
    home opening; until: the stamp at which that phase is over; lights: how many of its lights show it or are on their way to or
    from it, of so many that it has."""

    id: int
    name: str
    on: bool
    phase: str
    until: float | None
    lights: int
    of: int


class OverlayTold(msgspec.Struct, frozen=True):
    """An overlay. level: of its fader; share: how far it lies over what runs below now; on: whether it is in, or held; until: the
    stamp at which a way in or out is over."""

    id: int
    name: str
    level: float
    share: float
    on: bool
    until: float | None


class PixelsTold(msgspec.Struct, frozen=True):
    """A pixel map on stage. picture: of the library, 0: its own layers; by: what brought it, in words; level: of its fader;
    share: how far it acts now; on: whether it is in, or held; over: over the effects on its heads; heard: what layers that listen
    read now, 0…1, by layer."""

    map: int
    picture: int
    name: str
    by: str
    level: float
    share: float
    on: bool
    over: bool
    heard: dict[int, float] = {}


class LookTold(msgspec.Struct, frozen=True):
    """A look that a control holds on stage: control, its name, and where that is, in words."""

    control: ControlId
    name: str
    source: str


class ActionsTold(msgspec.Struct, frozen=True):
    """An action list that runs. place: how many of its steps are done, of so many; due: stamp of the next, None: it waits to be
    released."""

    id: int
    name: str
    place: int
    of: int
    due: float | None


class PageTold(msgspec.Struct, frozen=True):
    """The page of faders and buttons that was asked for last: number: counts how often; holder: by whom, empty: by all."""

    page: int
    number: int
    holder: str


class HandTold(msgspec.Struct, frozen=True):
    """Something of a song that hands have: its subject, in words, since when (stamp), on which tracks of the song it is, and
    which controls drive it."""

    subject: str
    name: str
    since: float
    tracks: list[int] = []
    controls: list[ControlId] = []


class SongTold(msgspec.Struct, frozen=True):
    """A song on stage. position: s, at the state's time; speed: of its position now, 0: it stands; chosen: speed that hands have
    chosen; bpm, beat: of its grid there; follows: incoming timecode; records: what hands do on armed
    tracks; taken: how much by now; label: of its own timecode, at a rate; chases: it would follow incoming timecode."""

    timeline: int
    name: str
    position: float
    speed: float
    chosen: float
    bpm: float
    beat: float
    leaving: bool
    follows: bool
    loop: tuple[float, float] | None
    hands: list[HandTold]
    records: bool = False
    taken: int = 0
    label: str = ""
    rate: str = "25"
    chases: bool = False


class TimecodeTold(msgspec.Struct, frozen=True):
    """Incoming timecode. state: none, locking, chasing, free, lost; label: as it is read; rate: frames a second that it has;
    since: of the state, s; text: what is wrong, in words."""

    state: str
    label: str
    rate: str
    since: float
    timeline: int | None = None
    text: str = ""


class LineTold(msgspec.Struct, frozen=True):
    """The line input. open: whether there is a line; sounds: whether something comes; bands: 32, 0…1, from low to high."""

    open: bool
    sounds: bool
    bands: list[float] = []


class CutOffTold(msgspec.Struct, frozen=True):
    """When everything was cut off, in s since 1970; cues: what was on then, in words; standing: how many lists wait to go on."""

    at: float
    cues: list[str]
    standing: int


class RecorderTold(msgspec.Struct, frozen=True):
    """What is recorded of what is sent: name, s and frames so far, bytes on the disk, frames that were lost; without a name: how
    the last recording ended, in words."""

    name: str
    seconds: float
    frames: int
    size: int
    lost: int
    ended: str


class RecordedTold(msgspec.Struct, frozen=True):
    """A recording that plays: where it is, and how long, in s."""

    name: str
    position: float
    seconds: float
    loops: bool


class StandInTold(msgspec.Struct, frozen=True):
    """A light that stands in for a broken one, both by number."""

    light: int
    by: int


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


class PadHeld(msgspec.Struct, frozen=True):
    """A pad that holds something. covered: share of what it holds that later actions have covered, 0…1."""

    pad: int
    covered: float


class RowTold(msgspec.Struct, frozen=True):
    """A row of a busking page. level, depth: of its faders; held: pads of colour, position and beam; on: effect pads; waiting:
    pads that wait, and when each will go (None: while its tempo stands); dark: whether its lights give none; sent: the
    message pad that was sent last; values: of haze and fan; moves: families that its effects move."""

    id: int
    level: float
    depth: float
    pairs: bool
    held: list[PadHeld]
    on: list[int]
    waiting: list[tuple[int, float | None]]
    dark: bool
    sent: int | None
    values: dict[str, float]
    moves: list[str]


class TwoColoursTold(msgspec.Struct, frozen=True):
    """The two colours, as `#rrggbb`, the rows that they go over, and their mix, 0…1."""

    a: str
    b: str
    rows: list[int]
    mix: float


class FlashTold(msgspec.Struct, frozen=True):
    """A flash that is held."""

    row: int
    kind: str


class BuskTold(msgspec.Struct, frozen=True):
    """What goes over all rows: see the actions `next-change`, `all-waves`, `flash-times`. bring_back: what the last way home did,
    empty: there is nothing to bring back; bring_back_until: its stamp."""

    seconds: float
    position_s: float
    waits: str
    shape: str
    spread: str
    travel: str
    release_s: float
    rate_hz: float
    two: TwoColoursTold
    flashes: list[FlashTold]
    bring_back: str
    bring_back_until: float
