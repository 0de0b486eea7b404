"""A busking page made from groups in one step: a row for each, with pads that its lights can do, and a row for all on top."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.rig import attributes
from zarabanda.core.rig.abilities import Abilities, abilities, numbers, on_heads_that_can, stage_place
from zarabanda.core.rig.rig import Rig
from zarabanda.errors import ZarabandaError
from zarabanda.formats.busk_document import BuskRowDocument, Section

from . import palette_sets, repositories
from .tables import BuskPage, BuskRow, EffectRow, Group, PaletteRow, TempoRow

COLOURS, EFFECTS, MOST_PROPOSED = 12, 8, 11
"""Colours and effects that a row begins with; groups that are proposed."""
_ENOUGH_COLOURS = 6
_MOVING = {"position": 3, "intensity": 3, "colour": 1, "beam": 1}
_STILL = {"intensity": 5, "colour": 2, "beam": 1}
_TOP = {"intensity": 4, "colour": 2, "position": 2}
"""How many effects of each family a row begins with."""


@dataclass(frozen=True)
class Proposed:
    """A group as a row: what it could carry, whether it is proposed, and what kind of row it is."""

    group: Group
    kind: str
    carries: tuple[Section, ...]
    on: bool


@dataclass(frozen=True)
class Wish:
    """A group that shall be a row. carries: sections beside its level, None: all that make sense for its lights."""

    group_id: int
    carries: Sequence[Section] | None = None


def carried(can: Abilities) -> tuple[Section, ...]:
    """Sections that make sense for lights."""
    able: dict[Section, bool] = {
        "colour": can.colour, "position": can.position, "beam": bool(can.beam - {"strobe"}), "effects": can.level,
    }  # fmt: skip
    return tuple(section for section, there in able.items() if there)


def proposed(session: Session, rig: Rig) -> list[Proposed]:
    """All groups in the order of the stage, haze last; those that were made by a rule are not proposed."""
    groups = sorted(repositories.groups.every(session), key=lambda one: (_hazes(rig, one), *stage_place(rig, one.heads)))
    found = list[Proposed]()
    for group in groups:
        can, count = abilities(rig, group.heads), sum(one.on for one in found)
        kind = "haze" if _hazes(rig, group) else "lights"
        on = group.rule is None and bool(len(numbers(rig, group.heads))) and count < MOST_PROPOSED and (can.level or can.haze)
        found.append(Proposed(group, kind, () if kind == "haze" else carried(can), on))
    return found


def _hazes(rig: Rig, group: Group) -> bool:
    """Whether a group makes haze and no light."""
    can = abilities(rig, group.heads)
    return can.haze and not can.level


def make(session: Session, rig: Rig, name: str, wishes: Sequence[Wish], colours: str = "all") -> BuskPage:
    """A page with a row for each group in this order, and a row for all of them on top.

    colours: `all`, one set that every row takes from, or `each`, a set for each group. Sets that are missing are made.
    """
    if not wishes:
        raise ZarabandaError("Choose at least one group: each is a row of the page.", "groups")
    page = repositories.busk.add_page(session, name)
    maker = _Maker(session, rig, colours)
    tempos = list(session.scalars(select(TempoRow.id).order_by(TempoRow.position)))
    colour_tempo = next(iter(session.scalars(select(TempoRow.id).where(TempoRow.name == "Colour"))), None)
    groups = [repositories.rows.get(session, Group, wish.group_id, "group") for wish in wishes]
    lights = [group for group in groups if not _hazes(rig, group)]
    every = list(dict.fromkeys(key for group in lights for key in group.heads))
    top = maker.document("all", every, None, {"tempo": next(iter(tempos), None), "colour_tempo": colour_tempo})
    repositories.busk.add_row(session, page.id, "all", "All", None, top)
    for group, wish in zip(groups, wishes, strict=True):
        if group not in lights:
            repositories.busk.add_row(session, page.id, "haze", group.name, group, BuskRowDocument())
            continue
        document = maker.document(group.name, group.heads, wish.carries, {}, group)
        repositories.busk.add_row(session, page.id, "lights", group.name, group, document)
    return page


def add_row(session: Session, rig: Rig, page_id: int, group: Group) -> BuskRow:
    """Another row for a page."""
    if _hazes(rig, group):
        return repositories.busk.add_row(session, page_id, "haze", group.name, group, BuskRowDocument())
    document = _Maker(session, rig, "all").document(group.name, group.heads, None, {}, group)
    return repositories.busk.add_row(session, page_id, "lights", group.name, group, document)


class _Maker:
    """Chooses pads, and makes the sets of palettes that are missing."""

    def __init__(self, session: Session, rig: Rig, colours: str) -> None:
        self._session, self._rig, self._colours = session, rig, colours
        self._effects = [row for row in repositories.effects.kept(session) if isinstance(row.document.get("layers"), list)]

    def document(
        self, called: str, heads: Sequence[str], carries: Sequence[Section] | None, more: dict[str, Any],
        group: Group | None = None,
    ) -> BuskRowDocument:  # fmt: skip
        """A row with pads in every section that it carries."""
        can, shown = abilities(self._rig, heads), carries
        if shown is None:
            shown = carried(can)
        document = BuskRowDocument(carries=[one for one in carried(can) if one in shown], **more)
        palettes: dict[Section, list[PaletteRow]] = {
            "colour": self._colours_of(heads, group) if "colour" in shown and can.colour else [],
            "position": self._positions_of(called, heads) if "position" in shown and can.position else [],
            "beam": self._beams_of(can) if "beam" in shown else [],
        }
        for section, chosen in palettes.items():
            pads = [{"name": one.name.split(",")[0][:40] if one.document.get("set") else "", "palette": one.id} for one in chosen]
            document = repositories.busk.with_pads(document, section, pads)
        if "effects" in shown and can.level:
            wanted = _TOP if group is None else _MOVING if can.position else _STILL
            effects = [{"effect": row.id} for row in self._effects_for(heads, wanted)]
            document = repositories.busk.with_pads(document, "effects", effects)
        return document

    def _acting(self, rows: Iterable[PaletteRow], heads: Sequence[str]) -> list[PaletteRow]:
        own = numbers(self._rig, heads).tolist()
        cores = [(row, repositories.palettes.to_core(row)) for row in rows]
        return [row for row, one in cores if own and one.acts(self._rig.heads, own, one.names).any()]

    def _of_family(self, family: str, set_: str | None = None) -> list[PaletteRow]:
        rows = [row for row in repositories.palettes.every(self._session) if row.document["family"] == family]
        return [row for row in rows if set_ is None or row.document.get("set", "") == set_]

    def _colours_of(self, heads: Sequence[str], group: Group | None) -> list[PaletteRow]:
        if self._colours == "each" and group is not None:
            mixing = [n for n in numbers(self._rig, heads).tolist() if self._rig.mixes[n]]
            if mixing:
                there = self._of_family("colour", f"{group.name}, colours")
                return (there or palette_sets.make_colours(self._session, self._rig, COLOURS, group))[:COLOURS]
        shared = [row for row in self._of_family("colour") if not row.document.get("own")]
        if len(shared) < _ENOUGH_COLOURS:
            shared += palette_sets.make_colours(self._session, self._rig, COLOURS)
        return self._acting(shared, heads)[:COLOURS]

    def _positions_of(self, called: str, heads: Sequence[str]) -> list[PaletteRow]:
        there = self._of_family("position", f"{called}, positions")
        return there or palette_sets.make_positions(self._session, self._rig, called, heads)

    def _beams_of(self, can: Abilities) -> list[PaletteRow]:
        there = self._of_family("beam", palette_sets.BEAM_SET) or palette_sets.make_beams(self._session, self._rig)
        return [row for row in there if row.document["values"].keys() & can.beam]

    def _effects_for(self, heads: Sequence[str], wanted: dict[str, int]) -> list[EffectRow]:
        """Effects that do something on heads, so many of each family, then others; of the wanted families first."""
        own = numbers(self._rig, heads)
        able = [(row, self._families(row, own)) for row in self._effects]
        able = [(row, families) for row, families in able if families]
        chosen: list[EffectRow] = []
        for family, count in wanted.items():
            of_family = [row for row, families in able if families == {family} and row not in chosen]
            chosen += sorted(of_family, key=lambda row: not row.favourite)[:count]
        rest = [row for row, families in able if row not in chosen and families & wanted.keys()]
        return (chosen + rest)[:EFFECTS]

    def _families(self, row: EffectRow, own: Any) -> set[str]:
        """Families in which all of an effect acts on heads; empty where some of it does nothing."""
        rig, found = self._rig, set[str]()
        names = [layer["attribute"] for layer in row.document["layers"] if not layer.get("muted")]
        on = on_heads_that_can(rig, own, names)
        for name in names:
            if not rig.heads.having(on, name).any():
                return set()
            found.add(attributes.BY_NAME[attributes.touched(name)[0]].family)
        return found
