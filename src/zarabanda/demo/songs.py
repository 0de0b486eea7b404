"""Cue lists of "Salt Light": three songs, and lists for front and house light that songs do not sweep out."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.formats.cue_document import CueDocument, CueListSettings
from zarabanda.formats.cue_edit import plain
from zarabanda.show import repositories
from zarabanda.show.tables import EffectRow, PaletteRow, TempoRow

from .song_messages import add_messages

SPOTS, WASHES, BEAMS, BARS = "Rear spots", "Mid washes", "Deck beams", "Tilt bars"
LADDERS, BATTENS, WALL, FRONT = "Side ladders", "Battens", "Salt wall", "Front"
STROBES, CROWD, HAZE = "Strobes", "Crowd", "Haze"


@dataclass(frozen=True)
class Lights:
    """Heads of a group: as whole lights (for level and position), and those that give light (for colour)."""

    whole: list[str]
    lit: list[str]


@dataclass(frozen=True)
class Look:
    """A cue in short. level: % by group; colour, position: palettes by group; beam: values by group; starts: effect by group;
    stops: effects by name; fade: s of all families, or by family (`level` up, `down`); groups keep what is not named."""

    name: str
    level: Mapping[str, float] = field(default_factory=dict)
    colour: Mapping[str, str] = field(default_factory=dict)
    position: Mapping[str, str] = field(default_factory=dict)
    beam: Mapping[str, Mapping[str, float]] = field(default_factory=dict)
    starts: tuple[tuple[str, str], ...] = ()
    stops: tuple[str, ...] = ()
    fade: float | Mapping[str, float] = 2.0
    delay: Mapping[str, float] = field(default_factory=dict)
    trigger: Mapping[str, Any] = field(default_factory=dict)
    out: bool = False
    note: str = ""


WITH, AFTER, BAR = {"kind": "with"}, {"kind": "after"}, {"kind": "bar", "tempo": "Movement"}


def wait(trigger: Mapping[str, Any], seconds: float) -> dict[str, Any]:
    """A trigger with a wait."""
    return {**trigger, "wait": seconds}


TIDE_CLOCK = (
    Look("All else out", out=True, fade=1.5, note="While the stage is still dark"),
    Look(
        "Arrival, tide from the back",
        {SPOTS: 30, BATTENS: 40},
        {SPOTS: "Deep tide", BATTENS: "Deep tide"},
        {SPOTS: "Stage"},
        {SPOTS: {"zoom": 30}},
        fade={"level": 6, "colour": 3, "position": 0, "down": 3},
        trigger=wait(WITH, 0.5),
    ),
    Look(
        "The clock begins",
        {WASHES: 35},
        {WASHES: "Lagoon"},
        {WASHES: "Stage"},
        starts=(("Undertow", BATTENS),),
        fade={"level": 4, "colour": 4, "position": 0},
    ),
    Look("Verse 1", {WASHES: 55, FRONT: 40}, {}, {}, {}, fade=3),
    Look(
        "Verse 1, spots open",
        {SPOTS: 70},
        {SPOTS: "Lagoon"},
        {},
        {SPOTS: {"zoom": 14}},
        fade={"level": 2, "colour": 4, "beam": 5},
    ),
    Look("Figure", {SPOTS: 85, LADDERS: 60}, {LADDERS: "Coral"}, {SPOTS: "Crowd"}, starts=(("Fan breath", SPOTS),), fade=1.2),
    Look("Hit 1", {STROBES: 80}, fade=0),
    Look("Hit 1, away", {STROBES: 0}, fade={"down": 0.6}, trigger=wait(WITH, 0.25)),
    Look(
        "Turn",
        {WASHES: 80, LADDERS: 40},
        {WASHES: "Coral", SPOTS: "Rose"},
        fade={"level": 1, "colour": 2.5},
        starts=(("Two moons", LADDERS),),
    ),
    Look(
        "Verse 2",
        {WASHES: 50, SPOTS: 40},
        {WASHES: "Lagoon", SPOTS: "Lagoon"},
        {SPOTS: "Stage"},
        stops=("Two moons",),
        fade={"level": 3, "colour": 4, "position": 3, "down": 3},
    ),
    Look(
        "Stampede",
        {SPOTS: 100, WASHES: 90, BEAMS: 100, LADDERS: 100},
        {SPOTS: "Lantern", WASHES: "Coral", LADDERS: "Lantern"},
        {SPOTS: "Crowd", BEAMS: "Sky"},
        starts=(("Searchlights", BEAMS),),
        fade={"level": 0.4, "colour": 0.4, "position": 1},
        trigger=BAR,
    ),
    Look("Stampede, wall", {WALL: 70}, {WALL: "Lantern"}, starts=(("Brine", WALL),), fade=2, trigger=wait(AFTER, 4)),
    Look(
        "Stillness",
        {SPOTS: 0, BEAMS: 0, LADDERS: 0, WALL: 20, WASHES: 30},
        {WASHES: "Deep tide"},
        stops=("Searchlights", "Fan breath"),
        fade={"level": 3, "down": 5, "colour": 7},
        delay={"colour": 1},
    ),
    Look(
        "Return",
        {SPOTS: 60, WASHES: 60},
        {SPOTS: "Salt white", WASHES: "Lagoon"},
        {SPOTS: "Stage"},
        fade={"level": 4, "colour": 4},
    ),
    Look("Last tick", {BATTENS: 0, WALL: 0}, {}, stops=("Undertow", "Brine"), fade={"down": 2.5}),
    Look("Dark", {SPOTS: 0, WASHES: 0, FRONT: 0}, fade={"down": 6}, trigger=wait(AFTER, 2)),
)

SALTWORKS = (
    Look("All else out", out=True, fade=1, note="On the count-in"),
    Look(
        "Arrival, blue from the floor",
        {LADDERS: 50, BATTENS: 60},
        {LADDERS: "Deep tide", BATTENS: "Lagoon"},
        fade={"level": 3, "colour": 3},
        trigger=wait(WITH, 0.5),
    ),
    Look(
        "Drums",
        {WASHES: 60},
        {WASHES: "Coral"},
        {WASHES: "Stage"},
        starts=(("Saltstep", WASHES),),
        fade={"level": 2, "colour": 2},
    ),
    Look(
        "Verse 1",
        {SPOTS: 60, FRONT: 35},
        {SPOTS: "Lagoon"},
        {SPOTS: "Stage"},
        {SPOTS: {"zoom": 18}},
        fade={"level": 2, "colour": 2, "position": 5, "beam": 1},
        delay={"position": 1},
    ),
    Look("Verse 1, spots open", {SPOTS: 85}, {}, {}, {SPOTS: {"zoom": 32}}, fade={"level": 1.5, "beam": 3}),
    Look(
        "Figure",
        {BEAMS: 90},
        {},
        {BEAMS: "Crowd"},
        starts=(("Crossing eights", SPOTS), ("Tilt swell", BEAMS)),
        fade={"level": 0.5, "position": 2},
    ),
    Look("Hit 1", {STROBES: 100, CROWD: 70}, fade=0),
    Look("Hit 2", {STROBES: 0, CROWD: 0}, fade={"down": 0.4}, trigger=wait(WITH, 0.4)),
    Look(
        "Stampede",
        {SPOTS: 100, WASHES: 100, BARS: 80},
        {SPOTS: "Lantern", WASHES: "Lantern", BARS: "Coral"},
        {BARS: "Crowd"},
        starts=(("Runaway pairs", BARS),),
        fade={"level": 1, "colour": 2, "position": 2},
        trigger=BAR,
    ),
    Look("Stampede, red", {LADDERS: 90}, {LADDERS: "Coral", SPOTS: "Coral"}, fade={"level": 0.5, "colour": 0.5}),
    Look(
        "Stillness",
        {SPOTS: 30, WASHES: 40, BEAMS: 0, BARS: 0, LADDERS: 15},
        {SPOTS: "Heather", WASHES: "Deep tide"},
        {SPOTS: "Sky"},
        stops=("Saltstep", "Crossing eights", "Runaway pairs"),
        fade={"level": 6, "down": 6, "position": 9, "colour": 5},
        delay={"position": 1},
    ),
    Look("Voice alone", {FRONT: 60, WASHES: 20}, fade=4),
    Look(
        "Return",
        {SPOTS: 90, WASHES: 80, LADDERS: 70},
        {SPOTS: "Lagoon", WASHES: "Coral"},
        {SPOTS: "Stage"},
        starts=(("Wide circle", SPOTS),),
        fade={"level": 2, "colour": 4, "position": 2},
    ),
    Look(
        "Last figure",
        {BEAMS: 100, WALL: 60},
        {WALL: "Lagoon"},
        {BEAMS: "Sky"},
        starts=(("Salt pans", WALL),),
        fade={"level": 1, "colour": 1},
        trigger=wait(AFTER, 6),
    ),
    Look(
        "Blackout",
        {SPOTS: 0, WASHES: 0, BEAMS: 0, LADDERS: 0, WALL: 0, BATTENS: 0, FRONT: 0},
        stops=("Tilt swell", "Wide circle", "Salt pans"),
        fade=0,
    ),
)

LANTERN_FISH = (
    Look("All else out", out=True, fade=4),
    Look("Arrival, one lantern", {WASHES: 18}, {WASHES: "Lantern"}, {WASHES: "Stage"}, fade={"level": 8}, trigger=wait(WITH, 1)),
    Look(
        "Deep water", {WALL: 35, BATTENS: 25}, {WALL: "Deep tide", BATTENS: "Deep tide"}, starts=(("Bright tide", WALL),), fade=7
    ),
    Look("Verse 1", {WASHES: 40, FRONT: 35}, fade=5),
    Look(
        "The fish come",
        {SPOTS: 45},
        {SPOTS: "Lantern"},
        {SPOTS: "Stage"},
        {SPOTS: {"zoom": 10}},
        starts=(("Lantern relay", SPOTS), ("Driftwood", SPOTS)),
        fade={"level": 4, "colour": 2, "beam": 2},
    ),
    Look("Figure", {LADDERS: 45}, {LADDERS: "Heather"}, fade=4),
    Look("Turn", {SPOTS: 60}, {WASHES: "Rose", LADDERS: "Rose"}, fade={"level": 4, "colour": 8}),
    Look("Turn, further", {}, {BATTENS: "Heather"}, fade={"colour": 8}, trigger=wait(AFTER, 1)),
    Look(
        "Stillness",
        {SPOTS: 0, LADDERS: 0, WASHES: 25},
        {WASHES: "Deep tide"},
        stops=("Lantern relay", "Driftwood"),
        fade={"level": 6, "down": 6, "colour": 8},
    ),
    Look("A single beam", {BEAMS: 55}, {}, {BEAMS: "Stage"}, fade={"level": 5}),
    Look(
        "Return",
        {SPOTS: 70, WASHES: 60, LADDERS: 40},
        {SPOTS: "Brine green", WASHES: "Lantern"},
        {SPOTS: "Sky"},
        starts=(("Tilt swell", SPOTS),),
        fade={"level": 5, "colour": 5},
    ),
    Look("Lights on the water", {WALL: 60}, {WALL: "Lantern"}, fade=6),
    Look(
        "Last lantern",
        {SPOTS: 0, BEAMS: 0, LADDERS: 0, WALL: 0, BATTENS: 0, FRONT: 0},
        stops=("Tilt swell", "Bright tide"),
        fade={"down": 7},
    ),
    Look("Dark", {WASHES: 0}, fade={"down": 5}, trigger=wait(AFTER, 3)),
)

FRONT_LIGHT = (
    Look("Faces", {FRONT: 80}, fade=3), Look("Faces, low", {FRONT: 45}, fade=3), Look("Off", {FRONT: 0}, fade=4),
)  # fmt: skip
HOUSE_LIGHT = (
    Look("Doors", {CROWD: 60}, fade=5), Look("Glow", {CROWD: 10}, fade=5), Look("Off", {CROWD: 0}, fade=6),
    Look("Bright", {CROWD: 100}, fade=2, note="When the show is over, or must be stopped"),
)  # fmt: skip
HAZE_CUES = (
    Look("Thin", beam={HAZE: {"haze": 15, "fan_speed": 40}}, fade=0),
    Look("Thick", beam={HAZE: {"haze": 45, "fan_speed": 60}}, fade=0),
    Look("Off", beam={HAZE: {"haze": 0, "fan_speed": 20}}, fade=0),
)

LISTS: tuple[tuple[str, tuple[Look, ...], dict[str, Any]], ...] = (
    ("Tide Clock", TIDE_CLOCK, {}),
    ("Saltworks", SALTWORKS, {}),
    ("Lantern Fish", LANTERN_FISH, {"ends": "releases", "ends_in": 4}),
    ("Front light", FRONT_LIGHT, {"protected": True, "highest_wins": True, "for_what": "faces"}),
    ("House light", HOUSE_LIGHT, {"protected": True, "for_what": "house"}),
    ("Haze", HAZE_CUES, {"protected": True, "for_what": "haze"}),
)
OPENS_ON = (("Front light", 2), ("House light", 2))
"""Cues that are on when the show opens for the first time: list, and which of its cues."""


def times(fade: float | Mapping[str, float], delay: Mapping[str, float]) -> dict[str, Any]:
    """Times of a cue: `level` is the way up, `down` the way down (where it is not given: as up)."""
    given = dict.fromkeys(("level", "position", "colour", "beam"), fade) if isinstance(fade, int | float) else dict(fade)
    up = given.get("level", 0.0)
    plain_families = {
        family: {"fade": given.get(family, 0.0), "delay": delay.get(family, 0.0)} for family in ("position", "colour", "beam")
    }
    return {"intensity": {"up": up, "down": given.get("down", up), "delay": delay.get("level", 0.0)}, **plain_families}


class _Book:
    """Numbers of what cues refer to."""

    def __init__(self, session: Session, lights: Mapping[str, Lights]) -> None:
        self.lights = lights
        self.palettes = {row.name: row.id for row in session.scalars(select(PaletteRow))}
        self.effects = {row.name: row.id for row in session.scalars(select(EffectRow))}
        self.tempos = {row.name: row.id for row in session.scalars(select(TempoRow))}

    def values(self, look: Look) -> dict[str, dict[str, Any]]:
        """What a cue writes."""
        found: dict[str, dict[str, Any]] = {}

        def put(attribute: str, heads: Iterable[str], value: Any) -> None:
            found.setdefault(attribute, {}).update(dict.fromkeys(heads, value))

        for group, level in look.level.items():
            put("intensity", self.lights[group].whole, level)
        for group, palette in look.colour.items():
            put("colour", self.lights[group].lit, {"palette": self.palettes[palette]})
        for group, palette in look.position.items():
            put("position", self.lights[group].whole, {"palette": self.palettes[palette]})
        for group, values in look.beam.items():
            for attribute, value in values.items():
                put(attribute, self.lights[group].whole, value)
        return found


def add_songs(session: Session, lights: Mapping[str, Lights]) -> list[dict[str, Any]]:
    """The cue lists; what is done when the show opens, as actions."""
    book, opening = _Book(session, lights), []
    cues: dict[tuple[str, int], int] = {}
    for name, looks, settings in LISTS:
        row = repositories.cues.add_list(session, name, CueListSettings.model_validate(settings))
        threads: dict[str, int] = {}
        for n, look in enumerate(looks):
            effects: list[dict[str, Any]] = [{"do": "stop", "thread": threads.pop(effect)} for effect in look.stops]
            for effect, group in look.starts:
                threads[effect] = repositories.cues.next_thread(session, row.id) + len(effects)
                own = {"thread": threads[effect], "effect": book.effects[effect], "heads": lights[group].lit}
                effects.append({"do": "start", **own})
            trigger = {**look.trigger, **({"tempo": book.tempos[look.trigger["tempo"]]} if "tempo" in look.trigger else {})}
            document = {
                "name": look.name, "note": look.note, "values": book.values(look), "effects": effects, "trigger": trigger,
                "times": times(look.fade, look.delay), "everything_else_out": look.out,
            }  # fmt: skip
            made = repositories.cues.add(session, row.id, n + 1, CueDocument.model_validate(plain(document)))
            cues[name, n + 1] = made.id
            if (name, n + 1) in OPENS_ON:
                opening.append({"do": "go-to", "list": row.id, "cue": made.id})
    add_messages(session, cues)
    return opening
