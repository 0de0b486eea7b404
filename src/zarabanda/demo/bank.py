"""Looks, overlays, and the pages of faders and buttons of "Salt Light"."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.formats.action_document import ActionListDocument
from zarabanda.formats.look_document import LookDocument
from zarabanda.show import repositories
from zarabanda.show.tables import BuskRow, CueListRow, EffectRow, Group, Page, PaletteRow, SpecialRow, TempoRow

from .songs import BATTENS, BEAMS, FRONT, LADDERS, SPOTS, STROBES, WALL, WASHES, Lights

SONGS = ("Tide Clock", "Saltworks", "Lantern Fish")
_Values = dict[str, dict[str, Any]]


class _Desk:
    """Numbers of what there is by name, and what is put on pages."""

    def __init__(self, session: Session, lights: Mapping[str, Lights]) -> None:
        tables: tuple[Any, ...] = (BuskRow, CueListRow, EffectRow, Group, PaletteRow, SpecialRow, TempoRow)
        self._numbers: dict[Any, dict[str, int]] = {
            table: {row.name: row.id for row in session.scalars(select(table))} for table in tables
        }
        self._session, self._lights = session, lights

    def of(self, table: Any, name: str) -> int:
        """The number of a row."""
        return self._numbers[table][name]

    def values(self, level: Mapping[str, float], colour: Mapping[str, str], **beam: Mapping[str, float]) -> _Values:
        """Values of a look, by group: level in %, colour as a palette, beam in natural units."""
        found: _Values = {"intensity": {}, "colour": {}}
        for group, value in level.items():
            found["intensity"] |= dict.fromkeys(self._lights[group].whole, value)
        for group, palette in colour.items():
            found["colour"] |= {key: {"palette": self.of(PaletteRow, palette)} for key in self._lights[group].lit}
        for name, by_group in beam.items():
            found[name] = {head: value for group, value in by_group.items() for head in self._lights[group].whole}
        return {name: heads for name, heads in found.items() if heads}

    def effect(self, name: str, group: str, **more: Any) -> dict[str, Any]:
        """An effect of a look, on a group."""
        return {"effect": self.of(EffectRow, name), "heads": self._lights[group].lit, **more}

    def look(self, name: str, in_s: float, out_s: float, values: _Values, *effects: dict[str, Any], over: bool = False) -> int:
        """A kept look, or an overlay."""
        document = LookDocument.model_validate({"values": values, "effects": list(effects), "in_s": in_s, "out_s": out_s})
        return repositories.looks.add(self._session, name, document, over=over).id

    def pad_step(self, row: str, effect: str) -> dict[str, Any]:
        """A step that presses the pad of an effect on a row."""
        there = self._session.get(BuskRow, self.of(BuskRow, row))
        assert there is not None
        pads = repositories.busk.document_of(there).effects
        return {"kind": "pad", "row": there.id, "pad": next(one.id for one in pads if one.effect == self.of(EffectRow, effect))}

    def actions(self, name: str, key: str, *steps: dict[str, Any]) -> int:
        """An action list."""
        document = ActionListDocument.model_validate({"key": key, "steps": steps})
        return repositories.action_lists.add(self._session, name, document).id

    def put(self, page: int, mode: str, place: int, name: str, target: targets.Target, release_s: float = 0.4) -> None:
        """Something on a fader or button."""
        repositories.pages.add_control(self._session, page, place=place, name=name, mode=mode, target=target, release_s=release_s)


def add_bank(session: Session, lights: Mapping[str, Lights]) -> None:
    """Fill the page that is there, and add one for the songs."""
    desk, floor = _Desk(session, lights), session.scalars(select(Page)).first()
    assert floor is not None
    songs = repositories.pages.add(session, "Songs").id
    dark = dict.fromkeys((SPOTS, WASHES, BEAMS, LADDERS, BATTENS, WALL, STROBES), 0.0)
    walk_in = desk.look(
        "Walk-in", 4, 4,
        desk.values({WASHES: 35, BATTENS: 25, FRONT: 20}, {WASHES: "Lantern", BATTENS: "Deep tide"}),
        desk.effect("Bright tide", BATTENS, depth=0.5),
    )  # fmt: skip
    speech = desk.look("Speech", 1, 2, desk.values({**dark, FRONT: 75}, {}))
    swirl = desk.look(
        "Heather swirl", 0.8, 1.5,
        desk.values({SPOTS: 80}, {SPOTS: "Heather"}, gobo=dict.fromkeys((SPOTS,), 3), zoom=dict.fromkeys((SPOTS,), 28)),
        desk.effect("Wide circle", SPOTS), desk.effect("Pastel fade", SPOTS, depth=0.6),
    )  # fmt: skip
    move = desk.look("Ease in eights", 2, 2, {}, desk.effect("Crossing eights", SPOTS, families=["position"]), over=True)
    rose = desk.look("Rose over", 0.5, 2, desk.values({}, {SPOTS: "Rose", WASHES: "Rose"}), over=True)
    hit = desk.look(
        "Strobe over all", 0, 0.6,
        desk.values({STROBES: 100}, {}, strobe={STROBES: 9, SPOTS: 9, WASHES: 9}), over=True,
    )  # fmt: skip
    on = floor.id
    desk.put(on, "fader", 7, "Ease in eights", targets.UseLook(move))
    desk.put(on, "fader", 8, "Rose over", targets.UseLook(rose))
    for place, group in ((9, SPOTS), (10, WASHES), (11, BATTENS)):
        desk.put(on, "fader", place, group, targets.OnGroup(group_id=desk.of(Group, group)))
    desk.put(on, "fader", 12, "Effects of all rows", targets.OnRow(desk.of(BuskRow, "All")))
    desk.put(on, "fader", 13, "Movement", targets.OnTempo(desk.of(TempoRow, "Movement")))
    desk.put(on, "fader", 15, "Specials", targets.OnSpecials())
    desk.put(on, "fader", 16, "Master", targets.Master())
    for place, name, look in ((9, "Walk-in", walk_in), (10, "Speech", speech), (11, "Heather swirl", swirl)):
        desk.put(on, "latch", place, name, targets.UseLook(look))
    desk.put(on, "latch", 12, "Rose over", targets.UseLook(rose))
    desk.put(on, "flash", 13, "Strobe over all", targets.UseLook(hit))
    desk.put(on, "flash", 14, "Front alone", targets.Alone(group_id=desk.of(Group, FRONT)), 0.8)
    desk.put(on, "flash", 15, "Wall alone", targets.Alone(group_id=desk.of(Group, WALL)), 0.8)
    for place, special in enumerate(("Singer", "Percussion", "Lead left", "Lead right"), 17):
        desk.put(on, "latch", place, special, targets.OnSpecials(desk.of(SpecialRow, special)))
    desk.put(on, "flash", 21, "All specials home", targets.OnSpecials())
    desk.put(on, "flash", 25, "Tap movement", targets.OnTempo(desk.of(TempoRow, "Movement")))
    drop = desk.actions(
        "The drop", "Shift+1",
        {"kind": "master", "do": "blackout"},
        {"kind": "master", "do": "light", "wait": 0.6},
        {"kind": "overlay", "overlay": hit, "do": "in"},
        desk.pad_step("All", "Heartbeat"),
        {"kind": "overlay", "overlay": hit, "do": "out", "wait": 1.2},
    )  # fmt: skip
    bow = desk.actions(
        "The bow", "Shift+2",
        {"kind": "special", "special": None, "do": "home"},
        {"kind": "stop effects", "family": "position", "seconds": 2.0},
        {"kind": "special", "special": desk.of(SpecialRow, "Singer"), "do": "press", "wait": 1.5},
        {"kind": "special", "special": desk.of(SpecialRow, "Percussion"), "do": "press", "wait": 2.0},
        {"kind": "page", "page": songs},
    )  # fmt: skip
    desk.put(on, "latch", 26, "The drop", targets.RunActions(drop))
    desk.put(on, "latch", 27, "The bow", targets.RunActions(bow))
    desk.put(on, "flash", 29, "Stop movement", targets.StopEffects("position"))
    desk.put(on, "flash", 30, "Stop all effects", targets.StopEffects(), 1)
    desk.put(on, "flash", 31, "Release everything", targets.ReleaseEverything(3))
    desk.put(on, "flash", 32, "To the songs", targets.ShowPage(songs))
    for n, song in enumerate(SONGS):
        number = desk.of(CueListRow, song)
        desk.put(songs, "fader", n + 1, song, targets.OnList(number, "level"))
        for step, do in enumerate(("go", "back", "pause", "release")):
            words = {"go": song, "back": f"{song}, back", "pause": f"{song}, pause", "release": f"{song}, release"}[do]
            desk.put(songs, "flash", 8 * n + step + 1, words, targets.OnList(number, do))  # type: ignore[arg-type]  # these are all of them
    for n, name in enumerate(("Front light", "House light")):
        desk.put(songs, "fader", 8 + n, name, targets.OnList(desk.of(CueListRow, name), "level"))
    desk.put(songs, "fader", 16, "Master", targets.Master())
    desk.put(songs, "flash", 32, "To the dance floor", targets.ShowPage(on))
