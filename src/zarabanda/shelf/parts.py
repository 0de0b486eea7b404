"""Parts of another show, brought into the open one: what they refer to comes along, or is what has the same name here.

A plan says what would happen, before anything does. Numbers are given anew; references within documents follow.
"""

from __future__ import annotations

import contextlib
import re
import sqlite3
import tempfile
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from sqlalchemy import func, select, text
from sqlalchemy.orm import Session

from zarabanda.errors import NotThere
from zarabanda.show.rerig import pairs, rigs, taking_over
from zarabanda.show.rerig.rigs import RigRows
from zarabanda.show.store import Store
from zarabanda.show.tables import Base, Fixture

from .rows import Rows, rows_in

Key = tuple[str, int]
"""A row: name of its table, number."""

KINDS: dict[str, str] = {
    "effect": "effects", "palette": "palettes", "head_group": "groups", "cue_list": "cue lists", "page": "pages of faders",
    "busk_page": "busking pages", "pixel_map": "pixel maps", "picture": "pictures", "timeline": "songs", "look": "looks",
    "special": "specials", "action_list": "action lists",
}  # fmt: skip
"""Tables whose rows can be chosen, and what they are called."""
NEEDED = {"tempo": "tempos", "device": "devices", "place": "places"}
"""Tables whose rows come along only where something needs them."""
WITHIN: dict[str, tuple[str, str]] = {
    "control": ("page", "page_id"), "busk_row": ("busk_page", "page_id"), "cue": ("cue_list", "list_id"),
    "marker": ("timeline", "timeline_id"), "track": ("timeline", "timeline_id"), "event": ("track", "track_id"),
}  # fmt: skip
"""Tables whose rows come with those of another, and the column that says with which."""
BY_NAME = frozenset({*KINDS, *NEEDED} - {"cue_list", "page", "busk_page", "timeline"})
"""What is needed and has a namesake here is that one. What has parts of its own always comes along."""
FIELDS: dict[str, str] = {
    "palette": "palette", "tempo": "tempo", "round_tempo": "tempo", "colour_tempo": "tempo", "effect": "effect",
    "effect_id": "effect", "group_id": "head_group", "map": "pixel_map", "picture": "picture", "look": "look", "overlay": "look",
    "list": "cue_list", "go_list": "cue_list", "cue": "cue", "control": "control", "device": "device", "special": "special",
    "row": "busk_row", "page": "page", "actions": "action_list", "place": "place",
}  # fmt: skip
"""Fields of documents that hold the number of a row, and of which table."""
SUBJECTS: dict[str, tuple[str, ...]] = {
    "list": ("cue_list",), "list-level": ("cue_list",), "control": ("control",), "pad": ("busk_row",), "flash": ("busk_row",),
    "row-level": ("busk_row",), "row-depth": ("busk_row",), "overlay": ("look",), "device": ("device",),
    "pixels": ("pixel_map", "picture"),
}  # fmt: skip
"""What the words of tracks drive: tables of their numbers."""
NOWHERE = 2_000_000_000
"""Added to the number of what was gone in the other show already: nothing here will ever have it."""
_HEAD = re.compile(r"^\d+(\.\d+)?$")


@dataclass(frozen=True)
class Coming:
    """A row that would come in. name: it would have here; needed_by: what refers to it, empty: it was chosen."""

    kind: str
    name: str
    was: str
    needed_by: str = ""


@dataclass(frozen=True)
class Plan:
    """What would come in, what is matched by its name, and which fixtures it uses that are not in this rig."""

    coming: list[Coming]
    matched: list[Coming]
    fixtures: list[int]
    rows: list[tuple[Key, dict[str, Any]]] = field(default_factory=list)


@contextlib.contextmanager
def source_of(path: Path, rig: RigRows | None = None) -> Iterator[Rows]:
    """The rows of another show's file, as they are at the newest version; the file stays as it is. rig: lights that take over
    from those of that show, group for group."""
    with tempfile.TemporaryDirectory() as folder:
        copied = Path(folder) / "source.db"
        with (
            contextlib.closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=15)) as source,
            contextlib.closing(sqlite3.connect(copied)) as target,
        ):
            source.backup(target)
        store = Store(copied)
        try:
            if rig is not None:
                with store.edit("parts", "Take over") as session:
                    taking_over.to_other_rig(session, rig, pairs.proposed(rigs.of_session(session), rig))
        finally:
            store.close()
        with contextlib.closing(sqlite3.connect(copied)) as connection:
            yield rows_in(connection)[0]


def choosable(rows: Rows) -> dict[str, list[tuple[int, str]]]:
    """What can be chosen, by table: number and name, by their names. Effects of the draft cannot."""
    return {
        table: sorted(
            ((row["id"], row["name"]) for row in rows.get(table, ()) if row.get("kept", True)), key=lambda one: one[1].lower()
        )
        for table in KINDS
    }  # fmt: skip


# references


def with_numbers(value: Any, number: Callable[[Key], int]) -> Any:
    """A document in which every number of a row is another."""
    if isinstance(value, list):
        return [with_numbers(one, number) for one in value]
    if not isinstance(value, dict):
        return value
    found = dict[str, Any]()
    for name, one in value.items():
        table = FIELDS.get(name)
        if table is not None and isinstance(one, int) and not isinstance(one, bool):
            found[name] = number((table, one)) if one > 0 else one
        elif name == "drives" and isinstance(one, str):
            found[name] = _driven(one, number)
        else:
            found[name] = with_numbers(one, number)
    return found


def _driven(subject: str, number: Callable[[Key], int]) -> str:
    word, *rest = subject.split(":")
    tables = SUBJECTS.get(word, ())
    numbers = [
        str(number((tables[n], int(one)))) if n < len(tables) and one.isdigit() and int(one) else one
        for n, one in enumerate(rest)
    ]
    return ":".join([word, *numbers])


def references_of(table: str, row: Mapping[str, Any]) -> list[Key]:
    """Rows that a row refers to, within its documents and by columns; not that with which it comes."""
    found = list[Key]()

    def noted(key: Key) -> int:
        found.append(key)
        return key[1]

    with_numbers(_documents(table, row), noted)
    if table == "busk_row" and row.get("group_id"):
        found.append(("head_group", row["group_id"]))
    return found


def _documents(table: str, row: Mapping[str, Any]) -> dict[str, Any]:
    return {name: one for name, one in row.items() if isinstance(one, dict | list)}


# the plan


class _Planner:
    def __init__(self, session: Session, rows: Rows) -> None:
        self._session = session
        self._rows = {table: {row["id"]: row for row in found} for table, found in rows.items() if found and "id" in found[0]}
        self._classes = {mapper.class_.__tablename__: mapper.class_ for mapper in Base.registry.mappers}
        self._order: list[Key] = []
        self._matched: dict[Key, int] = {}
        self._needed_by: dict[Key, str] = {}

    def plan(self, chosen: Collection[Key]) -> Plan:
        for key in chosen:
            if key[0] not in KINDS or key[1] not in self._rows.get(key[0], {}):
                raise NotThere("What was chosen is not in that show any more. Choose anew.", "chosen")
        waiting = [(key, "") for key in chosen]
        while waiting:
            key, by = waiting.pop(0)
            key = self._root(key)
            if key in self._needed_by or key in self._matched or key[1] not in self._rows.get(key[0], {}):
                continue
            here = self._namesake(key) if by else None
            if here is not None:
                self._matched[key], self._needed_by[key] = here, by
                continue
            self._needed_by[key] = by
            for one in (key, *self._parts_of(key)):
                self._order.append(one)
                row = self._rows[one[0]][one[1]]
                waiting += [(used, self._name(key)) for used in references_of(one[0], row)]
        return self._made()

    def _root(self, key: Key) -> Key:
        """What a row comes with: itself, as a rule."""
        while key[0] in WITHIN and key[1] in self._rows.get(key[0], {}):
            parent, column = WITHIN[key[0]]
            key = (parent, self._rows[key[0]][key[1]][column])
        return key

    def _parts_of(self, key: Key) -> Iterable[Key]:
        for table, (parent, column) in WITHIN.items():
            if parent == key[0]:
                for number, row in self._rows.get(table, {}).items():
                    if row[column] == key[1]:
                        yield (table, number)
                        yield from self._parts_of((table, number))

    def _name(self, key: Key) -> str:
        return str(self._rows[key[0]][key[1]].get("name", ""))

    def _namesake(self, key: Key) -> int | None:
        if key[0] not in BY_NAME:
            return None
        of = self._classes[key[0]]
        query = select(of.id).where(of.name == self._name(key))
        if key[0] == "effect":
            query = query.where(of.kept)
        return self._session.scalar(query.limit(1))

    def _made(self) -> Plan:
        numbers = dict(self._matched)
        next_numbers: dict[str, int] = {}
        for table, number in self._order:
            if table not in next_numbers:
                next_numbers[table] = self._highest(table)
            next_numbers[table] += 1
            numbers[table, number] = next_numbers[table]
        rows, coming, taken, places = list[tuple[Key, dict[str, Any]]](), list[Coming](), dict[str, set[str]](), dict[str, int]()
        heads: set[str] = set()
        for key in self._order:
            table, row = key[0], self._rows[key[0]][key[1]]
            made = self._row(table, row, numbers)
            if table in KINDS or table in NEEDED:
                made["name"] = _free(made["name"], taken.setdefault(table, self._names(table)))
                what = (KINDS | NEEDED)[table]
                coming.append(Coming(what, made["name"], self._name(key), self._needed_by.get(key, "")))
                if "position" in row:
                    places.setdefault(table, self._places(table))
                    made["position"] = places[table] = places[table] + 1
            rows.append((key, made))
            heads |= heads_in(row)
        matched = [
            Coming((KINDS | NEEDED)[key[0]], self._name(key), self._name(key), self._needed_by[key]) for key in self._matched
        ]
        gone = {int(one.partition(".")[0]) for one in heads} - set(self._session.scalars(select(Fixture.number)))
        return Plan(coming, matched, sorted(gone), rows)

    def _row(self, table: str, row: Mapping[str, Any], numbers: Mapping[Key, int]) -> dict[str, Any]:
        def number(key: Key) -> int:
            return numbers.get(key, NOWHERE + key[1] if key[1] < NOWHERE else key[1])

        made = {**row, **with_numbers(_documents(table, row), number), "id": numbers[table, row["id"]]}
        if table in WITHIN:
            parent, column = WITHIN[table]
            made[column] = numbers[parent, row[column]]
        if table == "busk_row" and row.get("group_id"):
            made["group_id"] = numbers.get(("head_group", row["group_id"]))
        return made

    def _highest(self, table: str) -> int:
        """The highest number that a table has given, ever."""
        there = self._session.scalar(select(func.max(self._classes[table].id))) or 0
        ever = self._session.execute(text("SELECT seq FROM sqlite_sequence WHERE name = :name"), {"name": table}).scalar() or 0
        return int(max(there, ever))

    def _names(self, table: str) -> set[str]:
        return set(self._session.scalars(select(self._classes[table].name)))

    def _places(self, table: str) -> int:
        highest = self._session.scalar(select(func.max(self._classes[table].position)))
        return -1 if highest is None else int(highest)


def planned(session: Session, rows: Rows, chosen: Collection[Key]) -> Plan:
    """What bringing in chosen rows of another show would do. NotThere where one is not there."""
    return _Planner(session, rows).plan(chosen)


def bring_in(session: Session, plan: Plan) -> None:
    """Do what was planned, in the session of an edit."""
    classes = {mapper.class_.__tablename__: mapper.class_ for mapper in Base.registry.mappers}
    order = {table.name: n for n, table in enumerate(Base.metadata.sorted_tables)}  # what others hang on comes first
    for (table, _), row in sorted(plan.rows, key=lambda one: order[one[0][0]]):
        session.add(classes[table](**row))
        session.flush()


def heads_in(value: Any) -> set[str]:
    """Keys of heads within a document: of values, selections and canvases."""
    if isinstance(value, dict):
        keys = {one for one in value if isinstance(one, str) and _HEAD.match(one)}
        return keys.union(*(heads_in(one) for one in value.values())) if value else keys
    if isinstance(value, list):
        keys = {one for one in value if isinstance(one, str) and _HEAD.match(one)}
        return keys.union(*(heads_in(one) for one in value)) if value else keys
    return set()


def _free(name: str, taken: set[str]) -> str:
    """A name that nothing has here: the same, or with a number."""
    found, n = name, 1
    while found in taken:
        n += 1
        found = f"{name[: 79 - len(str(n))]} {n}"
    taken.add(found)
    return found
