"""The effect document `zarabanda.effect/1`: one definition for the API, the database, files and the schema.

Ranges are said here once; inside, what has passed is trusted. See docs/formats.md.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from itertools import pairwise
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError, WithJsonSchema, model_validator

from zarabanda.core.effects.effect import Effect, from_document
from zarabanda.core.effects.palette import Palette
from zarabanda.core.rig import attributes
from zarabanda.core.selection.orders import ORDERS
from zarabanda.errors import ZarabandaError, shown

FORMAT = "zarabanda.effect/1"
MAX_STOPS, MAX_LAYERS, MAX_POINTS = 64, 16, 64
MAX_NAME = 80

Number = Annotated[float, Field(allow_inf_nan=False)]
Degrees = Annotated[float, Field(allow_inf_nan=False, ge=-3600, le=3600)]
Share = Annotated[float, Field(allow_inf_nan=False, ge=0, le=1)]
Colour = Annotated[str, Field(pattern=r"^(#[0-9a-fA-F]{6}|base)$")]
Coordinate = Annotated[float, Field(allow_inf_nan=False, ge=-1e6, le=1e6)]
Point = tuple[Coordinate, Coordinate]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class TimeSpeed(_Part):
    """Seconds per cycle."""

    kind: Literal["time"]
    seconds_per_cycle: Annotated[float, Field(ge=0.02, le=3600, allow_inf_nan=False)] = 2.0


class TempoSpeed(_Part):
    """Cycles per beat of a tempo, on the beat or from its start."""

    kind: Literal["tempo"]
    tempo: Annotated[str, Field(min_length=1, max_length=80)] = "Movement"
    cycles_per_beat: Annotated[float, Field(ge=1 / 256, le=16, allow_inf_nan=False)] = 0.5
    sync: Literal["start", "beat"] = "beat"


class RippleSpread(_Part):
    """Phase offset from lane to lane."""

    kind: Literal["ripple"]
    degrees: Degrees = 360.0
    fit: Literal["closed", "end-to-end"] = "closed"


class RelaySpread(_Part):
    """One lane after another."""

    kind: Literal["relay"]
    handover: Annotated[float, Field(ge=0.01, le=1, allow_inf_nan=False)] = 1.0
    order: Literal["in-turn", "shuffled"] = "in-turn"
    speed_counts: Literal["turns", "circuits"] = "turns"


Spread = Annotated[RippleSpread | RelaySpread, Field(discriminator="kind")]
Speed = Annotated[TimeSpeed | TempoSpeed, Field(discriminator="kind")]


def _known_order(name: str) -> str:
    if name not in ORDERS:
        raise ValueError(f"there is no order {shown(name)}; use one of {', '.join(ORDERS)}")
    return name


OrderName = Annotated[str, AfterValidator(_known_order), WithJsonSchema({"type": "string", "enum": list(ORDERS)})]


class LanesPart(_Part):
    """How the selection becomes lanes."""

    order: Annotated[list[OrderName], Field(min_length=1, max_length=8)] = ["as-picked"]
    parts: Annotated[int, Field(ge=1, le=64)] = 1
    mirror: bool = False
    pack: Annotated[int, Field(ge=1, le=512)] = 1
    repeat: Annotated[int, Field(ge=0, le=1024)] = 0
    travel: Literal["forward", "reverse", "back-and-forth"] = "forward"


class DepthAnchor(_Part):
    """Depth, peak to peak, around, above or below the base."""

    kind: Literal["centred", "above", "below"]
    depth: Annotated[float, Field(ge=0, allow_inf_nan=False)]


class BetweenAnchor(_Part):
    """From low to high, whatever the base."""

    kind: Literal["between"]
    low: Number
    high: Number


class WaveformForm(_Part):
    """A waveform over one cycle. Points: (phase 0…1, level 0…1), phases rising, for a curve."""

    kind: Literal["waveform"]
    shape: Literal["sine", "swell", "triangle", "rise", "fall", "square", "strike", "steps", "noise", "curve"]
    duty: Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)] | None = None
    softness: Share | None = None
    points: Annotated[list[tuple[Share, Share]], Field(max_length=MAX_POINTS)] | None = None
    interpolation: Literal["linear", "smooth"] | None = None

    @model_validator(mode="after")
    def _curve(self) -> WaveformForm:
        if self.shape != "curve":
            return self
        if not self.points:
            raise ValueError("a curve needs 1 to 64 points of [phase, level], each 0 to 1")
        phases = [x for x, _ in self.points]
        if any(b <= a for a, b in pairwise(phases)):
            raise ValueError("the phases of a curve's points must rise from point to point; reorder them")
        return self


class PaletteValue(_Part):
    """A kept palette, by its name."""

    palette: Annotated[str, Field(min_length=1, max_length=80)]


class StopPart(_Part):
    """A value (number, `#rrggbb`, a palette, or `base`), with travel to it and hold there, in any common unit."""

    value: Number | Colour | PaletteValue
    travel: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 1.0
    hold: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 0.0
    ease: Literal["linear", "smooth", "snap"] = "linear"
    relative: bool = False


class StopsForm(_Part):
    """A list of values that a cycle goes through."""

    kind: Literal["stops"]
    stops: Annotated[list[StopPart], Field(min_length=1, max_length=MAX_STOPS)]
    long_way: bool = False

    @model_validator(mode="after")
    def _some_time(self) -> StopsForm:
        if sum(stop.travel + stop.hold for stop in self.stops) <= 0:
            raise ValueError("all travels and holds are 0; give at least one stop a travel or a hold above 0")
        return self


class PathForm(_Part):
    """A closed figure; width and height in degrees, peak to peak.

    On a plane of the stage in metres: the floor at height `plane_at`, or an upright plane `plane_at` upstage.
    """

    kind: Literal["path"]
    path: Literal["circle", "line", "eight", "polygon", "free"]
    width: Annotated[float, Field(ge=0, le=1080, allow_inf_nan=False)] = 40.0
    height: Annotated[float, Field(ge=0, le=540, allow_inf_nan=False)] = 20.0
    rotation: Degrees = 0.0
    corners: Annotated[int, Field(ge=3, le=64)] = 4
    points: Annotated[list[Point], Field(max_length=MAX_POINTS)] | None = None
    dwell: Annotated[float, Field(ge=0, le=0.9, allow_inf_nan=False)] = 0.0
    plane: Literal["yoke", "floor", "upright"] = "yoke"
    plane_at: Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)] = 0.0

    @model_validator(mode="after")
    def _free_points(self) -> PathForm:
        if self.path == "free" and len(self.points or ()) < 3:
            raise ValueError("a free path needs 3 to 64 points of [x, y]")
        return self


Form = Annotated[WaveformForm | StopsForm | PathForm, Field(discriminator="kind")]
Anchor = Annotated[DepthAnchor | BetweenAnchor, Field(discriminator="kind")]


class LayerPart(_Part):
    """What the effect does to one attribute, or to pan and tilt (`position`), or to a colour (`colour`)."""

    attribute: str
    form: Form
    anchor: Anchor | None = None
    ratio: Annotated[float, Field(ge=0.001, le=64, allow_inf_nan=False)] = 1.0
    start: Degrees = 0.0
    mirror_pan: bool = True
    spread: Spread | None = None
    muted: bool = False

    @model_validator(mode="after")
    def _fits(self) -> LayerPart:
        names = [*attributes.BY_NAME, *attributes.COMPOUND]
        if self.attribute not in names:
            raise ValueError(f"there is no attribute {shown(self.attribute)}; use one of {', '.join(names)}")
        if self.form.kind == "path" and self.attribute != "position":
            raise ValueError("a path goes with the attribute position")
        if self.attribute == "position" and self.form.kind == "waveform":
            raise ValueError("position follows a path, or stops with kept positions; for a waveform take pan or tilt")
        if self.attribute == "colour" and self.form.kind != "stops":
            raise ValueError("colour follows stops; for a waveform take hue, saturation or a single colour")
        if isinstance(self.form, StopsForm):
            self._stops_fit(self.form)
        if isinstance(self.form, WaveformForm):
            self._anchor_fits()
        return self

    def _stops_fit(self, form: StopsForm) -> None:
        for number, stop in enumerate(form.stops):
            is_colour = isinstance(stop.value, str)
            if isinstance(stop.value, PaletteValue):
                continue
            if self.attribute == "position" and stop.value != "base":
                raise ValueError(f"stop {number + 1}: position goes to a palette, or to base")
            if is_colour and self.attribute != "colour" and stop.value != "base":
                raise ValueError(f"stop {number + 1} has a colour, but {self.attribute} takes numbers")
            if not is_colour and self.attribute == "colour":
                raise ValueError(f"stop {number + 1} has a number, but colour takes #rrggbb or base")
            if is_colour:
                continue
            row = attributes.BY_NAME[self.attribute]
            low, high = (-row.span, row.span) if stop.relative else (row.low, row.high)
            if not low <= float(stop.value) <= high:
                raise ValueError(
                    f"stop {number + 1}: {stop.value:g} is out of range; {self.attribute} goes from {low:g} to "
                    f"{high:g} {row.unit}"
                )

    def _anchor_fits(self) -> None:
        row = attributes.BY_NAME[self.attribute]
        if self.anchor is None:
            raise ValueError("a waveform needs an anchor: centred, above or below with a depth, or between low and high")
        if isinstance(self.anchor, DepthAnchor):
            if self.anchor.depth > 2 * row.span:
                raise ValueError(
                    f"depth {self.anchor.depth:g} is out of range; for {self.attribute} it goes from 0 to "
                    f"{2 * row.span:g} {row.unit}"
                )
            return
        for name, value in (("low", self.anchor.low), ("high", self.anchor.high)):
            if not row.low <= value <= row.high:
                raise ValueError(
                    f"{name} {value:g} is out of range; {self.attribute} goes from {row.low:g} to {row.high:g} {row.unit}"
                )


class OwnPart(_Part):
    """What one head does apart: offset in degrees, factor on depth (0–2), left out."""

    offset: Degrees = 0.0
    depth: Annotated[float, Field(ge=0, le=2, allow_inf_nan=False)] = 1.0
    left_out: bool = False


Percent = Annotated[float, Field(ge=1, le=1000, allow_inf_nan=False)]


class EffectDocument(_Part):
    """A parametric effect that fits any ordered selection."""

    format: Literal["zarabanda.effect/1"] = "zarabanda.effect/1"
    name: Annotated[str, Field(min_length=1, max_length=MAX_NAME)]
    tags: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=20)] = []
    seed: Annotated[int, Field(ge=0, le=2**31 - 1)] = 0
    colour_space: Literal["rgb", "cmy", "hsv-short", "hsv-long", "oklch"] = "hsv-short"
    run: Literal["forward", "backward", "back-and-forth"] = "forward"
    drift: tuple[Percent, Percent] = (100.0, 100.0)
    ends_after: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 0.0
    speed: Speed = TempoSpeed(kind="tempo")
    lanes: LanesPart = LanesPart()
    spread: Spread = RippleSpread(kind="ripple")
    layers: Annotated[list[LayerPart], Field(min_length=1, max_length=MAX_LAYERS)]
    own: dict[str, OwnPart] = {}

    @model_validator(mode="after")
    def _whole(self) -> EffectDocument:
        if self.drift[0] > self.drift[1]:
            raise ValueError(f"drift goes from low to high, but {self.drift[0]:g} is above {self.drift[1]:g}; swap them")
        ripples = any((layer.spread or self.spread).kind == "ripple" for layer in self.layers)
        if self.lanes.travel == "back-and-forth" and ripples:
            raise ValueError("travel back and forth belongs to a relay; in a ripple let the run go back and forth instead")
        return self

    def to_core(self, palettes: Mapping[str, Palette] | None = None) -> Effect:
        """The effect as the core computes with it. palettes: by name."""
        return from_document(self.model_dump(), palettes)

    def palettes(self) -> dict[str, str]:
        """Names of the palettes it goes to, each with the path of the first stop that does."""
        found: dict[str, str] = {}
        for number, layer in enumerate(self.layers):
            for n, stop in enumerate(layer.form.stops if isinstance(layer.form, StopsForm) else ()):
                if isinstance(stop.value, PaletteValue):
                    found.setdefault(stop.value.palette, f"layers.{number}.form.stops.{n}.value")
        return found

    def plain(self) -> dict[str, Any]:
        """The document as plain data, without what was left unsaid."""
        return self.model_dump(mode="json", exclude_none=True)


def faults(error: ValidationError) -> list[tuple[str, str]]:
    """(path, what is wrong) of each fault, with the value that was given."""
    found = []
    for fault in error.errors(include_url=False):
        place = ".".join(str(part) for part in fault["loc"])
        text = fault["msg"].removeprefix("Value error, ")
        given = fault.get("input")
        if not isinstance(given, dict | list) and given is not None and fault["type"] != "value_error":
            text = f"{text}; got {shown(given)}"
        found.append((place, text))
    return found


SET_FORMAT = "zarabanda.effects/1"


def read_set(data: object) -> tuple[list[EffectDocument], list[str]]:
    """Effects of a file with one document or a set (`{"format": "zarabanda.effects/1", "effects": […]}`), and what is wrong
    with each that cannot be read. Raises when nothing of it is an effect at all."""
    if not isinstance(data, dict) or "effects" not in data:
        return [read(data)], []
    if data.get("format") != SET_FORMAT or not isinstance(data["effects"], list) or len(data["effects"]) > 1000:
        raise ZarabandaError(f'A set of effects has "format": "{SET_FORMAT}" and up to 1000 "effects".', "format")
    good, bad = [], []
    for number, one in enumerate(data["effects"]):
        try:
            good.append(read(one))
        except ZarabandaError as error:
            name = one.get("name") if isinstance(one, dict) else None
            bad.append(f"Effect {number + 1}{f' “{name}”' if isinstance(name, str) else ''}: {error.message}")
    return good, bad


def read(data: object) -> EffectDocument:
    """An effect document from plain data or JSON text; a clear error with the path of every fault."""
    if isinstance(data, str | bytes):
        try:
            data = json.loads(data)
        except (ValueError, RecursionError) as error:
            raise ZarabandaError(f"This is not JSON: {error}. Choose a file that Zarabanda exported.") from error
    try:
        return EffectDocument.model_validate(data)
    except ValidationError as error:
        listed = faults(error)
        text = "; ".join(f"{place or 'the document'}: {what}" for place, what in listed[:5])
        more = f" (and {len(listed) - 5} more)" if len(listed) > 5 else ""
        raise ZarabandaError(f"The effect cannot be read. {text}{more}.", listed[0][0]) from error
