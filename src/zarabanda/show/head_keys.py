"""Where a show keeps keys of heads, and what becomes of them when fixtures are renumbered, get another mode, or go."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.rig.modes import ModeSpec, head_key, head_keys, lit_keys

from .tables import (
    Base,
    ControlRow,
    CueRow,
    DraftEffect,
    DraftFan,
    DraftValue,
    EffectRow,
    Group,
    LookRow,
    PaletteRow,
    PixelMapRow,
    SpecialRow,
)


@dataclass(frozen=True)
class Change:
    """What a fixture's heads are called now. each: new keys of an old one, none where it is gone; lit and now_lit: all that
    give light of it, before and after, which stay all where all were meant."""

    each: Mapping[str, tuple[str, ...]]
    lit: tuple[str, ...]
    now_lit: tuple[str, ...]


def gone(number: int, mode: ModeSpec) -> Change:
    """The fixture is taken out."""
    return Change(dict.fromkeys(head_keys(number, mode), ()), (), ())


def changed(number: int, mode: ModeSpec, now: int, now_mode: ModeSpec) -> Change:
    """The fixture has another number, another mode, or both."""
    new_lit, each = tuple(lit_keys(now, now_mode)), dict[str, tuple[str, ...]]()
    for part in mode.parts:
        if part in now_mode.parts:
            each[head_key(number, part)] = (head_key(now, part),)
        elif part == 0 or not now_mode.cells:
            each[head_key(number, part)] = new_lit
        else:
            each[head_key(number, part)] = ()
    return Change(each, tuple(lit_keys(number, mode)), new_lit)


Values = Mapping[str, Mapping[str, Any]]
"""By attribute and head, or by head and attribute."""


class Renaming:
    """Changes of several fixtures at once, applied to lists and to values by head."""

    def __init__(self, changes: Sequence[Change]) -> None:
        self._each: Mapping[str, tuple[str, ...]] = {key: new for change in changes for key, new in change.each.items()}
        self._whole = {change.lit[0]: change for change in changes if len(change.lit) > 1 and change.lit != change.now_lit}

    def keys(self, heads: Sequence[str]) -> list[str]:
        """A list of heads as it is now, each once."""
        present, found = set(heads), list[str]()
        whole = {key: change for change in self._whole.values() if present.issuperset(change.lit) for key in change.lit}
        for key in heads:
            found += whole[key].now_lit if key in whole else self._each.get(key, (key,))
        return list(dict.fromkeys(found))

    def values(self, by_head: Mapping[str, Any]) -> dict[str, Any]:
        """Values by head as they are now; where several become one, the first counts."""
        found: dict[str, Any] = {}
        for key, value in by_head.items():
            for new in self._each.get(key, (key,)):
                found.setdefault(new, value)
        return found

    def look(self, values: Values) -> dict[str, dict[str, Any]]:
        """Values by attribute and head as they are now; an attribute without heads goes."""
        found = {name: self.values(heads) for name, heads in values.items()}
        return {name: heads for name, heads in found.items() if heads}

    def own(self, by_head: Values) -> dict[str, dict[str, Any]]:
        """Values by head and attribute as they are now."""
        return self.values(by_head)

    def touches(self, heads: Any) -> bool:
        """Whether any of these heads is called otherwise now."""
        return any(self._each.get(key, (key,)) != (key,) for key in heads)


def _own_of(document: Mapping[str, Any]) -> Mapping[str, Any]:
    own: Mapping[str, Any] = document.get("own") or {}
    return own


@dataclass(frozen=True)
class Place:
    """A column that keeps heads: those in a row, and the row with others."""

    table: type[Any]
    heads: Callable[[Any], Any]
    put: Callable[[Any, Renaming], None]


def _put_target(row: ControlRow, renaming: Renaming) -> None:
    row.target = row.target | {"heads": renaming.keys(row.target["heads"])}


def _heads_of_cue(row: CueRow) -> list[str]:
    """Heads that a cue writes, stops, marks, starts effects on, or does not move, each once."""
    document = row.document
    cells = [document[place][name] for place in ("values", "stops", "only_here") for name in document[place]]
    effects = [one.get("heads", ()) for one in document["effects"]]
    return list(dict.fromkeys(head for heads in (*cells, *effects, document["seen_moves"]) for head in heads))


def _put_cue(row: CueRow, renaming: Renaming) -> None:
    document = row.document
    lists = {place: {name: renaming.keys(heads) for name, heads in document[place].items()} for place in ("stops", "only_here")}
    row.document = {
        **document, **{place: {name: heads for name, heads in cells.items() if heads} for place, cells in lists.items()},
        "values": renaming.look(document["values"]),
        "effects": [{**one, "heads": renaming.keys(one.get("heads", ()))} for one in document["effects"]],
        "seen_moves": renaming.keys(document["seen_moves"]),
    }  # fmt: skip


def _heads_of_look(row: LookRow) -> list[str]:
    """Heads of a look's values and effects, each once."""
    document = row.document
    every = [*document["values"].values(), *(one.get("heads", ()) for one in document["effects"])]
    return list(dict.fromkeys(head for heads in every for head in heads))


def _put_look(row: LookRow, renaming: Renaming) -> None:
    row.document = {
        **row.document, "values": renaming.look(row.document["values"]),
        "effects": [{**one, "heads": renaming.keys(one.get("heads", ()))} for one in row.document["effects"]],
    }  # fmt: skip


def _put_own(row: EffectRow, renaming: Renaming) -> None:
    row.document = row.document | {"own": renaming.values(_own_of(row.document))}


def _put_palette(row: PaletteRow, renaming: Renaming) -> None:
    row.document = row.document | {"own": renaming.own(_own_of(row.document))}


def _put_list(row: Group | DraftEffect, renaming: Renaming) -> None:
    row.heads = renaming.keys(row.heads)


def _put_values(row: DraftValue, renaming: Renaming) -> None:
    row.heads = renaming.values(row.heads)


def _put_document(row: DraftFan | SpecialRow, renaming: Renaming) -> None:
    row.document = row.document | {"heads": renaming.keys(row.document["heads"])}


def _put_canvas(row: PixelMapRow, renaming: Renaming) -> None:
    """On a drawn grid a cell that is gone leaves its box empty: the others stay where they are."""
    canvas = row.document["canvas"]
    grid = canvas["kind"] == "grid"
    heads = [now for key in canvas["heads"] for now in renaming.keys([key]) or [key] * grid]
    heads = list(dict.fromkeys(heads))
    rows = max(canvas["rows"], -(-len(heads) // canvas["columns"])) if grid else canvas["rows"]
    row.document = row.document | {"canvas": canvas | {"heads": heads, "rows": rows}}


PLACES: tuple[Place, ...] = (
    Place(Group, lambda row: row.heads, _put_list),
    Place(DraftValue, lambda row: row.heads, _put_values),
    Place(DraftFan, lambda row: row.document["heads"], _put_document),
    Place(DraftEffect, lambda row: row.heads, _put_list),
    Place(ControlRow, lambda row: row.target.get("heads", ()), _put_target),
    Place(CueRow, _heads_of_cue, _put_cue),
    Place(LookRow, _heads_of_look, _put_look),
    Place(SpecialRow, lambda row: row.document["heads"], _put_document),
    Place(PixelMapRow, lambda row: row.document["canvas"]["heads"], _put_canvas),
    Place(PaletteRow, lambda row: _own_of(row.document), _put_palette),
    Place(EffectRow, lambda row: _own_of(row.document), _put_own),
)
"""Every column that keeps heads: one row each."""


def users_of(session: Session, keys: set[str]) -> Iterator[tuple[Base, int]]:
    """Rows that keep some of these heads, and how many of them."""
    for place in PLACES:
        for row in session.scalars(select(place.table)):
            count = sum(key in keys for key in place.heads(row))
            if count:
                yield row, count


def rename(session: Session, changes: Sequence[Change]) -> None:
    """Let everything that keeps heads follow."""
    renaming = Renaming(changes)
    for place in PLACES:
        for row in session.scalars(select(place.table)):
            if renaming.touches(place.heads(row)):
                place.put(row, renaming)
                if isinstance(row, DraftValue | DraftFan) and not place.heads(row):
                    session.delete(row)
    session.flush()
