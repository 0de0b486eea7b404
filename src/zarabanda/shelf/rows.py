"""The rows of a show's file as plain values, and back: all tables but the history, and what is made from the others."""

from __future__ import annotations

import json
import math
import re
import sqlite3
from typing import Any

from zarabanda.errors import ZarabandaError, shown

Rows = dict[str, list[dict[str, Any]]]
"""By table."""
LEFT_OUT = frozenset({"alembic_version", "edit", "reference", "sqlite_sequence"})
"""Version, history, and the index of references, which is made anew."""
MOST_ROWS = 500_000
_LENGTH = re.compile(r"\((\d+)\)")
_LARGEST = 2**53


def rows_in(connection: sqlite3.Connection) -> tuple[Rows, dict[str, int]]:
    """All rows by table, in the order of their keys; and the highest number that each table has ever given."""
    tables: Rows = {}
    for name in _tables(connection):
        types = _columns(connection, name)
        keys = ", ".join(_quoted(one) for one in _keys(connection, name))
        found = connection.execute(f"SELECT {', '.join(map(_quoted, types))} FROM {_quoted(name)} ORDER BY {keys}").fetchall()
        tables[name] = [{column: _plain(value, types[column]) for column, value in zip(types, row, strict=True)} for row in found]
    counters = {}
    if connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'sqlite_sequence'").fetchone():
        counters = dict(connection.execute("SELECT name, seq FROM sqlite_sequence ORDER BY name").fetchall())
    return tables, {name: number for name, number in counters.items() if name not in LEFT_OUT}


def write_rows(connection: sqlite3.Connection, tables: Rows, counters: dict[str, int]) -> None:
    """Put rows into an empty file. ZarabandaError says which table, row and column is wrong."""
    known = set(_tables(connection))
    if sum(map(len, tables.values())) > MOST_ROWS:
        raise ZarabandaError(f"This show has more than {MOST_ROWS:,} rows. It cannot be taken in.", "show.json")
    connection.execute("PRAGMA foreign_keys = OFF")
    for name in known:
        connection.execute(f"DELETE FROM {_quoted(name)}")
    for name, rows in tables.items():
        if name not in known:
            raise ZarabandaError(f"There is no table {shown(name)} in a show of this version. Save the show again.", "show.json")
        types = _columns(connection, name)
        for n, row in enumerate(rows):
            wrong = row.keys() - types.keys()
            if wrong:
                raise ZarabandaError(f"{name}, row {n + 1}: there is no column {shown(min(wrong))}.", f"{name}.{n}")
            values = [_kept(value, types[column], f"{name}, row {n + 1}, {column}") for column, value in row.items()]
            marks = ", ".join("?" * len(row))
            connection.execute(f"INSERT INTO {_quoted(name)} ({', '.join(map(_quoted, row))}) VALUES ({marks})", values)
    for name, number in counters.items():
        if name in known and 0 <= number < _LARGEST:
            connection.execute("DELETE FROM sqlite_sequence WHERE name = ?", (name,))
            connection.execute("INSERT INTO sqlite_sequence (name, seq) VALUES (?, ?)", (name, number))
    connection.commit()


def _tables(connection: sqlite3.Connection) -> list[str]:
    found = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name").fetchall()
    return [name for (name,) in found if name not in LEFT_OUT]


def _columns(connection: sqlite3.Connection, table: str) -> dict[str, str]:
    return {row[1]: row[2].upper() for row in connection.execute(f"PRAGMA table_info({_quoted(table)})")}


def _keys(connection: sqlite3.Connection, table: str) -> list[str]:
    return [row[1] for row in connection.execute(f"PRAGMA table_info({_quoted(table)})") if row[5]]


def _quoted(name: str) -> str:
    return '"' + name.replace('"', '""') + '"'


def _plain(value: Any, type_: str) -> Any:
    if value is None:
        return None
    if type_ == "JSON":
        return json.loads(value)
    return bool(value) if type_ == "BOOLEAN" else value


def _kept(value: Any, type_: str, where: str) -> Any:
    """A value as a column keeps it. SQLite would take anything."""
    if type_ == "JSON":
        return json.dumps(value) if value is not None else None
    if value is None:
        return None
    if type_ == "BOOLEAN" and isinstance(value, bool):
        return int(value)
    number = isinstance(value, int | float) and not isinstance(value, bool)
    if type_ == "INTEGER" and number and isinstance(value, int) and abs(value) < _LARGEST:
        return value
    if type_ in ("FLOAT", "REAL", "DOUBLE") and number and math.isfinite(value):
        return float(value)
    length = _LENGTH.search(type_)
    if "CHAR" in type_ and isinstance(value, str):
        if length and len(value) > int(length[1]):
            raise ZarabandaError(f"{where}: {shown(value)} is longer than {length[1]} letters.", where)
        return value
    raise ZarabandaError(f"{where}: {shown(value)} is no {type_.lower()}.", where)
