"""The show "Salt Light" of the invented company Las Mareas: rig, groups, tempos, library, a page, and how it opens."""

from __future__ import annotations

from collections.abc import Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.rig.modes import lit_keys, whole_keys
from zarabanda.formats.effect_document import EffectDocument
from zarabanda.formats.palette_document import PaletteDocument
from zarabanda.formats.rig_document import FixtureDocument, ModeDocument
from zarabanda.formats.route_document import RouteDocument
from zarabanda.formats.timeline_document import Sound
from zarabanda.messages import SIMULATOR
from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.show.tables import Group, Page, Show, TempoRow
from zarabanda.targets import EffectOnHeads

from . import bank, pixels, salt_night, specials, timelines
from .library import LIBRARY
from .rig import MAKER, MODES, fixtures
from .songs import Lights, add_songs

TEMPOS = (("Movement", 96.0), ("Colour", 96.0), ("Level", 96.0), ("Zoom", 96.0))
GROUPS = (("Rear spots", 101, 110), ("Mid washes", 201, 210), ("Deck beams", 301, 308), ("Tilt bars", 321, 324),
          ("Side ladders", 401, 412), ("Battens", 501, 506), ("Salt wall", 601, 616), ("Front", 701, 706),
          ("Strobes", 801, 804), ("Crowd", 901, 904), ("Haze", 951, 951))  # fmt: skip
PAGE: tuple[tuple[str, int, str, str, str], ...] = (
    ("fader", 1, "Tide fold", "Rear spots", "Spots: tide fold"),
    ("fader", 2, "Slow lantern", "Mid washes", "Washes: slow lantern"),
    ("fader", 3, "Brine", "Salt wall", "Wall: brine"),
    ("fader", 4, "Undertow", "Side ladders", "Ladders: undertow"),
    ("fader", 5, "Rainbow walk", "Battens", "Battens: rainbow"),
    ("fader", 6, "Ember drift", "Battens", "Battens: ember"),
    ("latch", 1, "Crossing eights", "Rear spots", "Spots: eights"),
    ("latch", 2, "Fan breath", "Mid washes", "Washes: fan"),
    ("latch", 3, "Searchlights", "Deck beams", "Beams: search"),
    ("latch", 4, "Two moons", "Side ladders", "Ladders: moons"),
    ("flash", 5, "Spark field", "Deck beams", "Beams: sparks"),
    ("flash", 6, "Heartbeat", "Crowd", "Crowd: heartbeat"),
)
COLOURS = (("Brine green", "#1fd1a5"), ("Salt white", "#f4f1e8"), ("Lantern", "#ffb02e"), ("Coral", "#ff4f3a"),
           ("Deep tide", "#1846ff"), ("Heather", "#a04bff"), ("Rose", "#ff3c9b"), ("Lagoon", "#18b8ff"))  # fmt: skip
POSITIONS: tuple[tuple[str, float, float], ...] = (("Stage", 0.0, 25.0), ("Crowd", 0.0, -50.0), ("Sky", 0.0, -95.0))
OPENING = {1: 1.0, 2: 0.8, 3: 0.7, 5: 1.0, 6: 0.5}
"""Faders that are up when the show opens for the first time, by place."""


def new_show(session: Session, name: str, page: str = "First page") -> None:
    """What every new show has: its tempos, the library, a page that nothing is on, and a route to the simulated node."""
    session.add(Show(id=1, name=name, settings={}))
    session.add(Page(name=page, position=0))
    repositories.routes.add(session, RouteDocument(to=SIMULATOR), on=True)
    session.add_all(TempoRow(name=tempo, bpm=bpm, position=n) for n, (tempo, bpm) in enumerate(TEMPOS))
    for palette, colour in COLOURS:
        repositories.palettes.store(session, palette, PaletteDocument(family="colour", colour=colour))
    for palette, pan, tilt in POSITIONS:
        repositories.palettes.store(session, palette, PaletteDocument(family="position", values={"pan": pan, "tilt": tilt}))
    for document in LIBRARY:
        repositories.effects.store(session, EffectDocument.model_validate(document), kept=True)


def build(store: Store, sounds: Mapping[str, Sound] | None = None) -> None:
    """Make the demo show in an empty store. sounds: of its songs, by their name."""
    with store.edit("demo", "Make the demo show") as session:
        new_show(session, "Salt Light", "Dance floor")
        modes = {mode["name"]: ModeDocument.model_validate({"maker": MAKER, **mode}) for mode in MODES}
        patched = [FixtureDocument.model_validate(fixture) for fixture in fixtures()]
        repositories.rig.add(session, patched, modes)
        heads_of: dict[str, list[str]] = {}
        lights: dict[str, Lights] = {}
        for position, (name, first, last) in enumerate(GROUPS):
            within = [one for one in patched if first <= one.number <= last]
            keys = [key for one in within for key in lit_keys(one.number, modes[one.mode].spec())]
            heads_of[name] = keys
            whole = [key for one in within for key in whole_keys(one.number, modes[one.mode].spec())]
            lights[name] = Lights(whole, keys)
            session.add(Group(name=name, heads=keys, position=position))
        session.flush()
        page = session.scalars(select(Page)).one()
        effects = {row.name: row.id for row in repositories.effects.kept(session)}
        for mode, place, effect, group, label in PAGE:
            control = repositories.pages.add_control(
                session, page.id, place=place, name=label, mode=mode, release_s=0.6,
                target=EffectOnHeads(effects[effect], tuple(heads_of[group])),
            )  # fmt: skip
            if mode == "fader" and place in OPENING:
                show = session.get(Show, 1)
                assert show is not None
                action = {"do": "level", "control": f"control:{control.id}", "value": OPENING[place]}
                show.settings = {**show.settings, "opening": [*show.settings.get("opening", []), action]}
        show = repositories.rows.show(session)
        show.settings = {**show.settings, "opening": [*show.settings.get("opening", []), *add_songs(session, lights)]}
        session.flush()
        specials.add_specials(session)
        salt_night.add_page(session)
        bank.add_bank(session, lights)
        pixels.add_pixels(session, lights)
        timelines.add_timelines(session, sounds)
