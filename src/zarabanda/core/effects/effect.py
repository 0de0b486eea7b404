"""The parts of an effect, as the core computes with them. Units: docs/computation.md; documents: `formats`."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from zarabanda.core.effects.palette import Palette

RGB = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Waveform:
    """A shape over one cycle. duty: share of the cycle in which it is active; softness 0…1; points of a curve."""

    shape: str
    duty: float
    softness: float = 0.0
    points: tuple[tuple[float, float], ...] = ()
    smooth: bool = False


@dataclass(frozen=True, slots=True)
class Stop:
    """One value of a list: a number, a colour or a palette; None is the base itself. relative: added to the base (numbers)."""

    value: float | RGB | Palette | None
    travel: float
    hold: float
    ease: str
    relative: bool = False


@dataclass(frozen=True, slots=True)
class Stops:
    """A list of values that a cycle goes through. long_way: the long way round where the attribute is a circle."""

    stops: tuple[Stop, ...]
    long_way: bool = False


@dataclass(frozen=True, slots=True)
class Path:
    """A closed figure. plane: "yoke" (degrees of pan and tilt), or metres on "floor" or "upright" on stage."""

    path: str
    width: float
    height: float
    rotation: float = 0.0
    corners: int = 4
    points: tuple[tuple[float, float], ...] = ()
    dwell: float = 0.0
    plane: str = "yoke"
    plane_at: float = 0.0


Form = Waveform | Stops | Path


@dataclass(frozen=True, slots=True)
class Anchor:
    """Relation to the base: centred, above, below (by depth), or between low and high. In the attribute's unit."""

    kind: str = "centred"
    depth: float = 0.0
    low: float = 0.0
    high: float = 0.0


@dataclass(frozen=True, slots=True)
class Spread:
    """How a cycle is laid over the lanes: "ripple" (degrees, fit) or "relay" (handover 0.01…1, order, speed_counts)."""

    kind: str = "ripple"
    degrees: float = 360.0
    fit: str = "closed"
    handover: float = 1.0
    order: str = "in-turn"
    speed_counts: str = "turns"


@dataclass(frozen=True, slots=True)
class Layer:
    """What an effect does to one attribute, or to pan and tilt, or to a colour, together."""

    attribute: str
    form: Form
    anchor: Anchor = Anchor()
    ratio: float = 1.0
    start: float = 0.0
    mirror_pan: bool = True
    spread: Spread | None = None
    muted: bool = False


@dataclass(frozen=True, slots=True)
class Lanes:
    """How the selection becomes lanes."""

    order: tuple[str, ...] = ("as-picked",)
    parts: int = 1
    mirror: bool = False
    pack: int = 1
    repeat: int = 0
    travel: str = "forward"


@dataclass(frozen=True, slots=True)
class Speed:
    """Seconds per cycle, or cycles per beat of a tempo; sync "beat" (on the beat) or "start" (from its start).

    tempo: its name, or its number in a show.
    """

    kind: str = "time"
    seconds_per_cycle: float = 2.0
    tempo: str | int = ""
    cycles_per_beat: float = 1.0
    sync: str = "start"


@dataclass(frozen=True, slots=True)
class OwnHead:
    """What one head does apart from the others: offset in degrees of phase, factor on depth (1 = as it is), left out."""

    offset: float = 0.0
    depth: float = 1.0
    left_out: bool = False


@dataclass(frozen=True, slots=True)
class Effect:
    """A parametric effect that fits any ordered selection."""

    name: str
    layers: tuple[Layer, ...]
    seed: int = 0
    colour_space: str = "hsv-short"
    run: str = "forward"
    drift: tuple[float, float] = (100.0, 100.0)
    ends_after: float = 0.0
    speed: Speed = Speed()
    lanes: Lanes = Lanes()
    spread: Spread = Spread()
    own: dict[str, OwnHead] = field(default_factory=dict)

    @property
    def drifts(self) -> bool:
        """Whether cycles differ in pace."""
        return self.drift != (100.0, 100.0)


def _stop_value(value: Any, palettes: Mapping[Any, Palette]) -> float | RGB | Palette | None:
    """A palette that is not there leaves the base as it is."""
    from zarabanda.core.colour import spaces as colour

    if isinstance(value, dict):
        return palettes.get(value["palette"])
    if isinstance(value, str):
        return None if value == "base" else colour.hex_to_rgb(value)
    return float(value)


def _form(data: dict[str, Any], palettes: Mapping[Any, Palette]) -> Form:
    from zarabanda.core.effects import waveforms

    kind = data["kind"]
    if kind == "waveform":
        duty = data.get("duty")
        return Waveform(
            shape=data["shape"],
            duty=waveforms.default_duty(data["shape"]) if duty is None else duty,
            softness=data.get("softness") or 0.0,
            points=tuple((float(x), float(y)) for x, y in data.get("points") or ()),
            smooth=data.get("interpolation") == "smooth",
        )
    if kind == "stops":
        stops = (
            Stop(
                _stop_value(stop["value"], palettes),
                stop["travel"],
                stop["hold"],
                stop.get("ease", "linear"),
                stop.get("relative", False),
            )
            for stop in data["stops"]
        )
        return Stops(tuple(stops), data.get("long_way", False))
    keys = ("path", "width", "height", "rotation", "corners", "dwell", "plane", "plane_at")
    points = tuple((float(x), float(y)) for x, y in data.get("points") or ())
    return Path(points=points, **{key: data[key] for key in keys if data.get(key) is not None})


def _layer(data: dict[str, Any], palettes: Mapping[Any, Palette]) -> Layer:
    return Layer(
        attribute=data["attribute"],
        form=_form(data["form"], palettes),
        anchor=Anchor(**(data.get("anchor") or {})),
        ratio=data.get("ratio", 1.0),
        start=data.get("start", 0.0),
        mirror_pan=data.get("mirror_pan", True),
        spread=Spread(**data["spread"]) if data.get("spread") else None,
        muted=data.get("muted", False),
    )


def from_document(data: dict[str, Any], palettes: Mapping[Any, Palette] | None = None) -> Effect:
    """An effect from a document that was checked at the boundary (`formats.effect_document`), as plain data.

    palettes: by name or number, as the document has them: those that its stops may go to.
    """
    lanes = dict(data.get("lanes") or {})
    if "order" in lanes:
        lanes["order"] = tuple(lanes["order"])
    return Effect(
        name=data["name"],
        layers=tuple(_layer(layer, palettes or {}) for layer in data["layers"]),
        seed=data.get("seed", 0),
        colour_space=data.get("colour_space", "hsv-short"),
        run=data.get("run", "forward"),
        drift=tuple(data.get("drift", (100.0, 100.0))),
        ends_after=data.get("ends_after", 0.0),
        speed=Speed(**(data.get("speed") or {})),
        lanes=Lanes(**lanes),
        spread=Spread(**(data.get("spread") or {})),
        own={key: OwnHead(**own) for key, own in (data.get("own") or {}).items()},
    )
