"""Pixel maps and their picture layers as documents: one definition for the API, the database and files. See docs/formats.md."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, model_validator

from zarabanda.core.colour.spaces import SPACES
from zarabanda.core.pixels.canvas import VIEWS
from zarabanda.core.pixels.colouring import OVER
from zarabanda.core.pixels.layers import EVERY_FIGURE, FINISHES, JOINS
from zarabanda.core.pixels.light import ACTS
from zarabanda.core.pixels.places import MOTIONS
from zarabanda.core.pixels.settings import Setting, filled
from zarabanda.core.rig.cells import CELL_ORDERS
from zarabanda.errors import shown

from .cue_document import Heads
from .effect_document import Colour, PaletteValue, Share, TempoSpeed, TimeSpeed

MOST_LAYERS, MOST_STOPS, MOST_TEXT, MOST_POINTS = 32, 16, 200, 64
MOST_GRID = 1024
ORDERS = tuple(one for one in CELL_ORDERS if " from " in one)
"""Orders of cells on a drawn grid."""
RUNS: Mapping[str, str] = {"forward": "forward", "backward": "backward", "back-and-forth": "back and forth"}
Gap = Annotated[float, Field(ge=0, le=0.95, allow_inf_nan=False)]
Side = Annotated[int, Field(ge=1, le=MOST_GRID)]
Place = Annotated[float, Field(ge=-8, le=8, allow_inf_nan=False)]
Length = Annotated[float, Field(ge=0.005, le=16, allow_inf_nan=False)]
Degrees = Annotated[float, Field(ge=-3600, le=3600, allow_inf_nan=False)]
Seconds = Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class CanvasDocument(_Part):
    """Where cells are. kind: where they stand on stage, seen from the front or from above (view), or a drawn grid; heads: in
    their order; everything: all heads that lie under it, without a choice."""

    kind: Literal["stage", "grid"] = "stage"
    view: Literal["front", "plan"] = "front"
    heads: Heads = Field(default_factory=list)
    everything: bool = False
    columns: Side = 16
    rows: Side = 16
    order: str = "rows from top left"
    gap_across: Gap = 0.0
    gap_down: Gap = 0.0

    @model_validator(mode="after")
    def _fits(self) -> CanvasDocument:
        if self.order not in ORDERS:
            raise ValueError(f"order: there is no {shown(self.order)}; use one of {', '.join(ORDERS)}")
        if self.kind == "grid" and not self.everything and len(self.heads) > self.columns * self.rows:
            raise ValueError(
                f"heads: {len(self.heads)} cells do not fit on {self.columns} × {self.rows} boxes; give it more columns or rows"
            )
        return self


class ColourDocument(_Part):
    """Colours of a layer: see `core.pixels.colouring.Colouring`."""

    over: str = "value"
    stops: Annotated[list[Colour | PaletteValue], Field(min_length=1, max_length=MOST_STOPS)] = ["#000000", "#ffffff"]
    space: str = "rgb"
    direction: Degrees = 0.0
    hue_cycles: Annotated[float, Field(ge=-16, le=16, allow_inf_nan=False)] = 0.0
    tint: Share = 0.0

    @model_validator(mode="after")
    def _known(self) -> ColourDocument:
        for name, value, there in (("over", self.over, OVER), ("space", self.space, SPACES)):
            if value not in there:
                raise ValueError(f"{name}: there is no {shown(value)}; use one of {', '.join(there)}")
        return self


class RectDocument(_Part):
    """Where a layer lies: shares of the canvas's width and height; turn in degrees, clockwise."""

    left: Place = 0.0
    top: Place = 0.0
    width: Length = 1.0
    height: Length = 1.0
    turn: Degrees = 0.0


def _number(setting: Setting, value: Any) -> float | int:
    if isinstance(value, bool) or not isinstance(value, int | float) or not setting.low <= value <= setting.high:
        ends = f"{setting.low * setting.shown:g} to {setting.high * setting.shown:g}{setting.unit and ' ' + setting.unit}"
        raise ValueError(
            f"{setting.name}: {shown(value)} is not in its range; give {ends}, as {setting.low:g} to {setting.high:g}"
        )
    return round(value) if setting.kind == "whole" else float(value)


def _checked(setting: Setting, value: Any) -> Any:
    """A value of a setting. ValueError says what is wrong with it."""
    match setting.kind:
        case "number" | "whole":
            return _number(setting, value)
        case "choice":
            if value not in (setting.words or {}):
                raise ValueError(f"{setting.name}: there is no {shown(value)}; use one of {', '.join(setting.words or ())}")
        case "text":
            if not isinstance(value, str) or not 1 <= len(value) <= MOST_TEXT:
                raise ValueError(
                    f"{setting.name}: give 1 to {MOST_TEXT} letters, not {len(str(value))}; longer text is cut into layers"
                )
        case "medium":
            if not isinstance(value, str) or len(value) > 64:
                raise ValueError(f"{setting.name}: {shown(value)} is no file of the media folder; choose one")
        case "outline":
            return _outline(setting, value)
    return value


def _outline(setting: Setting, value: Any) -> list[list[float]]:
    points = list(value) if isinstance(value, list | tuple) else []
    for point in points:
        if not (
            isinstance(point, list | tuple)
            and len(point) == 2
            and all(isinstance(n, int | float) and -2 <= n <= 2 for n in point)
        ):
            raise ValueError(f"{setting.name}: {shown(point)} is no point; give two numbers of −2 to 2")
    if not 3 <= len(points) <= MOST_POINTS:
        raise ValueError(f"{setting.name}: give 3 to {MOST_POINTS} points, not {len(points)}")
    return [[float(x), float(y)] for x, y in points]


def _values(settings: tuple[Setting, ...], given: Mapping[str, Any], where: str) -> dict[str, Any]:
    """Values of settings, with defaults. What no setting has this name is refused."""
    names = {one.name for one in settings}
    for name in given:
        if name not in names:
            raise ValueError(f"{where}: it has no {shown(name)}; it is set by {', '.join(names) or 'nothing'}")
    try:
        return {one.name: _checked(one, value) for one, value in zip(settings, filled(settings, given).values(), strict=True)}
    except ValueError as error:
        raise ValueError(f"{where}.{error}") from error


class LayerDocument(_Part):
    """A picture layer. id: tells it from others of its stack, through edits; figure, motion: by name, with values of their
    settings; finish: values of `core.pixels.layers.FINISHES`; on: whether it is seen; alone: only those that are alone are."""

    id: Annotated[int, Field(ge=0)] = 0
    name: Annotated[str, Field(max_length=80)] = ""
    figure: str = "even"
    settings: dict[str, Any] = Field(default_factory=dict)
    motion: str = "still"
    motion_settings: dict[str, Any] = Field(default_factory=dict)
    colour: ColourDocument = Field(default_factory=ColourDocument)
    finish: dict[str, Any] = Field(default_factory=dict)
    rect: RectDocument = Field(default_factory=RectDocument)
    opacity: Share = 1.0
    join: str = "over"
    on: bool = True
    alone: bool = False
    speed: Annotated[TempoSpeed | TimeSpeed, Field(discriminator="kind")] = TempoSpeed(kind="tempo", cycles_per_beat=0.25)
    run: Literal["forward", "backward", "back-and-forth"] = "forward"
    seed: Annotated[int, Field(ge=0, le=1_000_000)] = 0

    @model_validator(mode="after")
    def _fits(self) -> LayerDocument:
        for name, value, there in (
            ("figure", self.figure, EVERY_FIGURE),
            ("motion", self.motion, MOTIONS),
            ("join", self.join, JOINS),
        ):
            if value not in there:
                raise ValueError(f"{name}: there is no {shown(value)}; use one of {', '.join(there)}")
        self.settings = _values(tuple(EVERY_FIGURE[self.figure].settings), self.settings, "settings")
        self.motion_settings = _values(MOTIONS[self.motion].settings, self.motion_settings, "motion_settings")
        self.finish = _values(FINISHES, self.finish, "finish")
        return self


def _few_layers(value: Any) -> Any:
    if isinstance(value, list) and len(value) > MOST_LAYERS:
        raise ValueError(
            f"{len(value)} layers are too many: {MOST_LAYERS} are the most, so that a frame stays in its time; join some"
        )
    return value


Layers = Annotated[list[LayerDocument], BeforeValidator(_few_layers)]


class StackDocument(_Part):
    """A picture of the library: layers that fit any canvas, the lowest first."""

    layers: Layers = Field(default_factory=list)

    @model_validator(mode="after")
    def _numbered(self) -> StackDocument:
        self.layers = numbered(self.layers)
        return self


class PixelMapDocument(StackDocument):
    """A pixel map. acts: see `core.pixels.light.ACTS`; over_effects: whether it acts over the effects on its heads, or under
    them; in_s, out_s: in which it comes and goes where a button presses it."""

    canvas: CanvasDocument = Field(default_factory=CanvasDocument)
    acts: str = "light"
    over_effects: bool = True
    in_s: Seconds = 0.5
    out_s: Seconds = 1.0

    @model_validator(mode="after")
    def _known(self) -> PixelMapDocument:
        if self.acts not in ACTS:
            raise ValueError(f"acts: there is no {shown(self.acts)}; use one of {', '.join(ACTS)}")
        return self


def numbered(layers: list[LayerDocument]) -> list[LayerDocument]:
    """Layers, each with a number of its own."""
    taken, found = set[int](), list[LayerDocument]()
    for one in layers:
        if one.id == 0 or one.id in taken:
            one = one.model_copy(update={"id": max([*taken, *(other.id for other in layers)], default=0) + 1})
        taken.add(one.id)
        found.append(one)
    return found


def media_of(document: Mapping[str, Any]) -> Iterator[str]:
    """Hashes of the media that layers of a document use."""
    for layer in document.get("layers", ()):
        medium = layer.get("settings", {}).get("medium")
        if medium:
            yield medium


assert set(VIEWS) == {"front", "plan"}
