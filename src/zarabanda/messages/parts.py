"""Parts of the show, as they reach the engine: by subject and number."""

from __future__ import annotations

from typing import Any

import msgspec

from zarabanda.core.rig.modes import ModeSpec, Place
from zarabanda.targets import Target

from .ids import HeldValues, PaletteUse, PartKey

E131, ARTNET = "E1.31", "Art-Net"
OSC, MIDI, MTC, LINE = "OSC", "MIDI", "MTC", "line"
SIMULATOR, MULTICAST, BROADCAST = "simulator", "multicast", "broadcast"
"""What a route can go to, beside an address."""


class Part(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="part"):
    """A part of the show. Parts of one subject have numbers of their own."""

    @property
    def key(self) -> PartKey:
        """Subject and number."""
        return str(type(self).__struct_config__.tag), getattr(self, "id", 0)


class ModePart(Part, frozen=True, tag="mode"):
    """A mode."""

    id: int
    mode: ModeSpec


class FixturePart(Part, frozen=True, tag="fixture"):
    """A fixture (id: its number), with the number of its mode: see `core.rig.rig.FixtureSpec`."""

    id: int
    name: str
    mode: int
    place: Place
    rotation: Place = (0.0, 0.0, 0.0)
    universe: int | None = 1
    address: int | None = 1
    cell_order: str = ""


class TempoPart(Part, frozen=True, tag="tempo"):
    """A tempo, with the BPM that it has when the show opens, and its place among them."""

    id: int
    name: str
    bpm: float
    position: int


class PalettePart(Part, frozen=True, tag="palette"):
    """A palette: see `core.effects.palette.Palette`."""

    id: int
    name: str
    values: dict[str, float]
    own: dict[str, dict[str, float]]
    models: dict[str, dict[str, float]] = {}
    way: str = ""


class EffectPart(Part, frozen=True, tag="effect"):
    """An effect document, with the numbers of palettes and tempos."""

    id: int
    document: dict[str, Any]


class DraftValuesPart(Part, frozen=True, tag="draft-values"):
    """What is set by hand of one attribute."""

    id: str
    heads: dict[str, float | PaletteUse]


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


class BuskRowPart(Part, frozen=True, tag="busk-row"):
    """A row of a busking page. kind: all, lights, messages or haze; heads: of its group, in their order; document: see
    `formats.busk_document.BuskRowDocument`, with the numbers of palettes, effects, devices and tempos."""

    id: int
    page_id: int
    position: int
    name: str
    kind: str
    heads: tuple[str, ...]
    document: dict[str, Any]


class LookPart(Part, frozen=True, tag="look"):
    """A kept look. over: an overlay, which lies over others by its position; document: see `formats.look_document.LookDocument`,
    with the numbers of palettes and effects."""

    id: int
    name: str
    position: int
    over: bool
    document: dict[str, Any]


class PixelMapPart(Part, frozen=True, tag="pixel-map"):
    """A pixel map: see `formats.pixel_document.PixelMapDocument`, with the numbers of palettes and tempos."""

    id: int
    name: str
    document: dict[str, Any]


class PicturePart(Part, frozen=True, tag="picture"):
    """A picture of the library: see `formats.pixel_document.StackDocument`."""

    id: int
    name: str
    document: dict[str, Any]


class ActionListPart(Part, frozen=True, tag="action-list"):
    """An action list; document: see `formats.action_document.ActionListDocument`, with the numbers of what its steps are on."""

    id: int
    name: str
    document: dict[str, Any]


class TimelinePart(Part, frozen=True, tag="timeline"):
    """A timeline: see `formats.timeline_document.TimelineDocument`."""

    id: int
    name: str
    position: int
    document: dict[str, Any]


class TrackPart(Part, frozen=True, tag="track"):
    """A track of a timeline: see `formats.timeline_document.TrackDocument`."""

    id: int
    timeline_id: int
    position: int
    document: dict[str, Any]


class EventPart(Part, frozen=True, tag="event"):
    """An event on a track. at, length: s; document: see `formats.timeline_document`."""

    id: int
    track_id: int
    at: float
    length: float
    document: dict[str, Any]


class CueListPart(Part, frozen=True, tag="cue-list"):
    """A cue list; settings: see `formats.cue_document.CueListSettings`."""

    id: int
    name: str
    position: int
    settings: dict[str, Any]


class CuePart(Part, frozen=True, tag="cue"):
    """A cue of a list; document: see `formats.cue_document.CueDocument`, with the numbers of palettes, effects and tempos."""

    id: int
    list_id: int
    number: float
    document: dict[str, Any]


class SpecialPart(Part, frozen=True, tag="special"):
    """A special: heads by key, values by attribute and head, times in s, the point that it is aimed at. See
    `core.playback.specials.Special`."""

    id: int
    name: str
    heads: tuple[str, ...]
    values: HeldValues
    out: float = 1.0
    move: float = 0.0
    up: float = 1.0
    aim: Place | None = None
    position: int = 0


class ColourWayPart(Part, frozen=True, tag="colour-way"):
    """The way that colours go to where they are set, a name from `core.colour.spaces.SPACES`, where nothing says otherwise."""

    way: str = "rgb"


class LineInPart(Part, frozen=True, tag="line-in"):
    """Where sound comes in: the simulator, an input of this machine, or nowhere."""

    source: str = SIMULATOR


class TimecodeInPart(Part, frozen=True, tag="timecode-in"):
    """Where timecode comes from: the simulator, a MIDI port of this machine, or nowhere."""

    source: str = SIMULATOR


class OpeningPart(Part, frozen=True, tag="opening"):
    """Actions that are done once, when the show opens for the first time."""

    actions: tuple[Any, ...]


class RoutePart(Part, frozen=True, tag="route"):
    """Which universes go where.

    ranges: first and last of each, none: all; protocol: E1.31 or Art-Net; to: an address, or simulator, multicast, broadcast;
    port: 0 for the standard's; over: the interface, empty: the system chooses; first: the number there of the lowest
    universe, None: the same as here; sync: E1.31 universe that synchronises, 1 for ArtSync, 0: none; rate in Hz; always:
    sent in every frame, changed or not.
    """

    id: int
    ranges: tuple[tuple[int, int], ...]
    protocol: str
    to: str
    port: int = 0
    over: str = ""
    first: int | None = None
    priority: int = 100
    sync: int = 0
    rate: float = 44.0
    always: bool = False
    on: bool = False

    def carries(self, universe: int) -> bool:
        """Whether this universe goes there."""
        return not self.ranges or any(first <= universe <= last for first, last in self.ranges)

    def number_there(self, universe: int) -> int:
        """The number that a universe has there."""
        lowest = min((first for first, _ in self.ranges), default=1)
        return universe if self.first is None else universe - lowest + self.first

    @property
    def kind(self) -> str:
        """How packets go: unicast, multicast or broadcast."""
        return self.to if self.to in (MULTICAST, BROADCAST) else "unicast"

    @property
    def destination(self) -> str:
        """What a user must agree to before packets go there: an address, or all of a network."""
        return f"{self.to} over {self.over or 'any interface'}" if self.kind != "unicast" else self.to


class DevicePart(Part, frozen=True, tag="device"):
    """An outside device that cues send messages to. speaks: OSC or MIDI; to: simulator, an address, or a MIDI port of this
    machine by its name; port: of the address."""

    id: int
    name: str
    speaks: str
    to: str
    port: int = 0


AnyPart = (
    ModePart
    | FixturePart
    | TempoPart
    | PalettePart
    | EffectPart
    | DraftValuesPart
    | DraftEffectPart
    | ControlPart
    | BuskRowPart
    | CueListPart
    | CuePart
    | TimelinePart
    | LineInPart
    | TimecodeInPart
    | TrackPart
    | EventPart
    | SpecialPart
    | LookPart
    | PixelMapPart
    | PicturePart
    | ActionListPart
    | ColourWayPart
    | OpeningPart
    | RoutePart
    | DevicePart
)
