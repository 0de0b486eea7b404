"""The replay request: a show, actions with their stamps, and the times at which values are wanted. See docs/formats.md."""

from __future__ import annotations

import re
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator

from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, shown

from .cue_document import CueDocument, CueListSettings, CueNumber, FromPalette
from .effect_document import EffectDocument, Number, faults
from .palette_document import PaletteDocument
from .timeline_document import Grid

Seconds = Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)]
Stamp = Annotated[float, Field(ge=-1e9, le=1e9, allow_inf_nan=False)]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class ReplayHead(_Part):
    """A head: its place in metres, and how quickly it moves, in degrees a second."""

    id: Annotated[str, Field(min_length=1, max_length=40)]
    x: Number = 0.0
    y: Number = 0.0
    z: Number = 0.0
    pan_speed: Number = 180.0
    tilt_speed: Number = 120.0


class ReplayControl(_Part):
    """A fader or button: its name, the effect that it drives, and on which heads."""

    name: str
    mode: Literal["fader", "latch", "flash"] = "fader"
    effect: str
    heads: list[str]
    job: Literal["depth", "speed", "both"] = "depth"
    release: Seconds = 0.4
    families: list[Literal["intensity", "position", "colour", "beam"]] | None = None


class ReplayCue(CueDocument):
    """A cue: its number in the list, and what it changes. Lights are prepared in the dark where that is asked for."""

    number: CueNumber
    dark_moves: bool = False


class ReplayCueList(CueListSettings):
    """A cue list: its name, how it is played, and its cues."""

    name: str
    cues: list[ReplayCue] = Field(default_factory=list)


class ReplaySpecial(_Part):
    """A special: on which heads, what it sets (one value for all of them), and its times in s."""

    name: str
    heads: list[str]
    values: dict[str, Number | str] = {}
    out: Seconds = 1.0
    move: Seconds = 0.0
    up: Seconds = 1.0


class ReplayPad(_Part):
    """A pad of a row: its name, and the palette or the effect on it."""

    name: str
    palette: str | None = None
    effect: str | None = None
    while_held: bool = False

    @model_validator(mode="after")
    def _has_one(self) -> ReplayPad:
        if (self.palette is None) == (self.effect is None):
            raise ValueError("a pad has a palette or an effect, by its name")
        return self


class ReplayRow(_Part):
    """A row of a busking page: its heads (none: the row for all, which acts on every other), its pads, and the tempo by whose
    beats presses wait."""

    name: str
    heads: list[str] = []
    pads: list[ReplayPad] = []
    tempo: str | None = None


class ReplayLookEffect(_Part):
    """An effect of a look: its name, and on which heads."""

    effect: str
    heads: list[str]
    families: list[Literal["intensity", "position", "colour", "beam"]] | None = None
    depth: Annotated[float, Field(ge=0, le=1)] = 1.0
    speed: Annotated[float, Field(ge=0.01, le=16)] = 1.0


class ReplayLook(_Part):
    """A kept look: values by attribute and head, effects, and the s in which it comes and goes. over: an overlay, above those
    before it."""

    name: str
    over: bool = True
    values: dict[str, dict[str, Number | str | FromPalette]] = {}
    effects: list[ReplayLookEffect] = []
    in_s: Seconds = 0.5
    out_s: Seconds = 1.0


class ReplayEvent(_Part):
    """An event of a song: at and length in s; a cue by its number, what a press does, or a level."""

    at: Annotated[float, Field(ge=0, le=14_400)]
    length: Seconds = 0.0
    cue: float | None = None
    does: Literal["hold", "on", "off"] = "hold"
    value: Annotated[float, Field(ge=0, le=1)] = 0.0


class ReplayTrack(_Part):
    """A track: the list whose cues it goes to, or whose level it moves, or the control that it presses or moves."""

    kind: Literal["cues", "presses", "levels"]
    cue_list: str | None = None
    control: str | None = None
    events: list[ReplayEvent] = []

    @model_validator(mode="after")
    def _drives(self) -> ReplayTrack:
        given = [name for name in ("cue_list", "control") if getattr(self, name) is not None]
        wanted = {"cues": [["cue_list"]], "presses": [["control"]], "levels": [["cue_list"], ["control"]]}[self.kind]
        if given not in wanted:
            raise ValueError(f"a track of {self.kind} has a {' or a '.join(one[0] for one in wanted)}, by its name, and no other")
        return self


class ReplayTimeline(_Part):
    """A song: its length in s, beat grid and tracks."""

    name: str
    length: Annotated[float, Field(ge=1, le=14_400)] = 180.0
    grid: Grid = Field(default_factory=Grid)
    begins_alone: bool = False
    keeps_moving: bool = True
    tracks: list[ReplayTrack] = []


class ReplayShow(_Part):
    """The small form of a show. home: values by attribute, of all heads (`colour` as `#rrggbb`); tempos: BPM by name."""

    heads: Annotated[list[ReplayHead], Field(min_length=1, max_length=10_000)]
    home: dict[str, Number | str] = {}
    palettes: dict[str, PaletteDocument] = {}
    tempos: dict[str, Annotated[float, Field(ge=10, le=400)]] = {}
    effects: list[EffectDocument] = []
    controls: list[ReplayControl] = []
    cue_lists: list[ReplayCueList] = []
    specials: list[ReplaySpecial] = []
    rows: list[ReplayRow] = []
    looks: list[ReplayLook] = []
    timelines: list[ReplayTimeline] = []

    @model_validator(mode="after")
    def _fits_together(self) -> ReplayShow:
        known = [*attributes.BY_NAME, *attributes.COMPOUND]
        for name in self.home:
            if name not in known:
                raise ValueError(f"home: there is no attribute {shown(name)}; use one of {', '.join(known)}")
        for what, named in (("heads", self.heads), ("effects", self.effects), ("controls", self.controls),
                            ("cue_lists", self.cue_lists), ("specials", self.specials), ("rows", self.rows),
                            ("looks", self.looks), ("timelines", self.timelines)):  # fmt: skip
            names = [str(getattr(one, "id", None) or getattr(one, "name", "")) for one in named]
            twice = next((name for name in names if names.count(name) > 1), None) if len(names) < 500 else None
            if twice is not None:
                raise ValueError(f"{what}: {shown(twice)} is there twice; give each its own name")
        effects = {one.name for one in self.effects}
        for row in self.rows:
            for pad in row.pads:
                known_to = self.palettes if pad.effect is None else effects
                if (pad.effect or pad.palette) not in known_to:
                    raise ValueError(
                        f"rows: {shown(pad.name)} of {shown(row.name)} has {shown(pad.effect or pad.palette)}, which "
                        "is not under palettes or effects"
                    )
        for look in self.looks:
            for one in look.effects:
                if one.effect not in effects:
                    raise ValueError(f"looks: {shown(look.name)} has {shown(one.effect)}, which is not under effects")
        for control in self.controls:
            if control.effect not in effects:
                raise ValueError(f"controls: {shown(control.name)} drives {shown(control.effect)}, which is not under effects")
        return self


class ReplayRequest(_Part):
    """show: the small form, or `demo`; actions: by their stamps in s; heads, attributes: whose values are told (none: all)."""

    show: ReplayShow | Literal["demo"]
    actions: list[dict[str, Any]] = []
    times: Annotated[list[Stamp], Field(min_length=1, max_length=100_000)]
    heads: list[str] = []
    attributes: list[str] = []
    trace: bool = False

    @model_validator(mode="after")
    def _can_be_done(self) -> ReplayRequest:
        for number, action in enumerate(self.actions):
            at = action.get("at")
            if isinstance(at, bool) or not isinstance(at, int | float) or not -1e9 <= at <= 1e9:
                raise ValueError(f"actions.{number}: at is {shown(at)}; give its stamp in seconds")
            if not isinstance(action.get("do"), str):
                raise ValueError(f"actions.{number}: do is {shown(action.get('do'))}; say what is done")
        known = [*attributes.BY_NAME, *attributes.COMPOUND]
        for name in self.attributes:
            if name not in known:
                raise ValueError(f"there is no attribute {shown(name)}; use one of {', '.join(known)}")
        return self


def read(data: object) -> ReplayRequest:
    """A replay request from plain data, or a clear error with the paths of its faults."""
    try:
        return ReplayRequest.model_validate(data)
    except ValidationError as error:
        listed = [(place, _what(what)) for place, what in faults(error) if not place.endswith("literal['demo']")]
        listed = [(re.sub(_WRAPPER, "", place), what) for place, what in listed] or [("show", "give a show, or demo")]
        text = "; ".join(f"{place or 'the request'}: {what}" for place, what in listed[:5])
        raise ZarabandaError(f"The replay request cannot be read. {text}.", listed[0][0]) from error


_WRAPPER = r"function-after\[[^\]]*\]\.?|ReplayShow\.?"
"""How pydantic names the small form among the choices for a show."""


def _what(text: str) -> str:
    return text.replace("Extra inputs are not permitted", "unknown key; take it out")


class DraftAction(_Part):
    """What can be done in the draft. Values: a number in natural units, `#rrggbb`, or `{"palette": name}`."""

    do: Literal["set", "take-back", "clear", "put-on", "take-off"]
    attribute: str | None = None
    heads: list[str] = []
    value: Number | str | dict[str, str] | None = None
    effect: str | None = None
    fade: Seconds = 0.0


DRAFT_ACTIONS = ("set", "take-back", "clear", "put-on", "take-off")
