"""The rig as rows and columns of text: what is typed into a cell, over several rows, and what is pasted from a spreadsheet."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from zarabanda.core.rig import patch
from zarabanda.core.rig.cells import CELL_ORDERS
from zarabanda.core.rig.stage import MOUNTINGS
from zarabanda.errors import ZarabandaError, brief

Fields = dict[str, Any]
"""Of a fixture, by the names of its columns in the database, `mode` by the name of the mode."""
_ADDRESS = re.compile(r"^\s*([0-9]{1,5})\s*[./:]\s*([0-9]{1,3})\s*$")
_FAN = re.compile(r"^\s*(.+?)\s+(?:to|…|\.\.\.)\s+(.+?)\s*$")
_NONE = ("", "none", "-", "–")


def _whole(text: str, what: str) -> int:
    if not re.fullmatch(r"\s*[0-9]{1,6}\s*", text):
        raise ZarabandaError(f"“{brief(text, 40)}” is no {what}: type a whole number.")
    return int(text)


def _metres(text: str) -> float:
    return _number(text, "place", "metres, such as -3.5", 1000)


def _number(text: str, what: str, how: str, most: float) -> float:
    try:
        value = float(text.replace(",", ".").replace("−", "-").replace("m", "").replace("°", "").strip())
    except ValueError:
        value = float("nan")
    if not abs(value) <= most:
        raise ZarabandaError(f"“{brief(text, 40)}” is no {what}: type {how}, between −{most:g} and {most:g}.")
    return value


def _address(text: str) -> Fields:
    if text.strip().lower() in _NONE:
        return {"universe": None, "address": None}
    match = _ADDRESS.match(text)
    if not match:
        raise ZarabandaError(f"“{brief(text, 40)}” is no address: type universe and address, such as 1.241, or none.")
    return {"universe": int(match.group(1)), "address": int(match.group(2))}


def _rotation(text: str) -> Fields:
    word = text.strip().lower()
    if word in MOUNTINGS:
        turns = MOUNTINGS[word]
    else:
        parts = text.replace(",", " ").split() if text.count(",") != text.count(".") or " " not in text else text.split()
        if len(parts) != 3:
            raise ZarabandaError(
                f"“{brief(text, 40)}” is no rotation: type {', '.join(MOUNTINGS)}, or turns about x, y and z in degrees, such as "
                "0 180 0."
            )
        x, y, z = (_number(part, "rotation", "degrees", 360) for part in parts)
        turns = (x, y, z)
    return dict(zip(("turn_x", "turn_y", "turn_z"), turns, strict=True))


def _cell_order(text: str) -> Fields:
    word = text.strip().lower()
    for name, label in CELL_ORDERS.items():
        if word in (name, label):
            return {"cell_order": name}
    raise ZarabandaError(f"“{brief(text, 40)}” is no order of cells: type one of {', '.join(CELL_ORDERS.values())}.")


def _text(name: str, most: int) -> Callable[[str], Fields]:
    def parse(text: str) -> Fields:
        if len(text) > most:
            raise ZarabandaError(f"This is longer than {most} letters: “{brief(text, 60)}”.")
        return {name: text.strip()}

    return parse


@dataclass(frozen=True)
class Column:
    """A column that can be typed into. title: at its head; parse: from text to fields; fans: whether several rows can go evenly
    from one number to another."""

    title: str
    parse: Callable[[str], Fields]
    fans: bool = False


COLUMNS: dict[str, Column] = {
    "number": Column("Number", lambda text: {"number": _whole(text, "number of a fixture")}),
    "name": Column("Name", _text("name", 120)),
    "mode": Column("Mode", _text("mode", 120)),
    "address": Column("Address", _address),
    "x": Column("x, m", lambda text: {"x": _metres(text)}, fans=True),
    "y": Column("y, m", lambda text: {"y": _metres(text)}, fans=True),
    "z": Column("z, m", lambda text: {"z": _metres(text)}, fans=True),
    "rotation": Column("Rotation", _rotation),
    "cell_order": Column("Cells", _cell_order),
    "notes": Column("Notes", _text("notes", 400)),
    "layer": Column("Layer", _text("layer", 80)),
    "class_name": Column("Class", _text("class_name", 80)),
}
"""Every column by its name, in the order in which rows are copied out."""


def column(name: str) -> Column:
    """A column by its name."""
    if name not in COLUMNS:
        raise ZarabandaError(f"There is no column {brief(name, 40)} to type into; use one of {', '.join(COLUMNS)}.", "column")
    return COLUMNS[name]


def typed(name: str, text: str, sizes: Sequence[int]) -> list[Fields]:
    """What a text means in a column of so many rows; sizes: slots that each fixture takes.

    Numbers count on, addresses go on one after another, `−6 to 6` goes evenly from the first row to the last; everything else
    is the same in all rows.

    >>> typed("x", "-1 to 1", [1, 1, 1])
    [{'x': -1.0}, {'x': 0.0}, {'x': 1.0}]
    """
    of = column(name)
    count = len(sizes)
    fan = _FAN.match(text)
    if fan and of.fans:
        first, last = (next(iter(of.parse(part).values())) for part in fan.groups())
        shares = np.linspace(0, 1, count) if count > 1 else [0.0]
        return [{name: round(first + share * (last - first), 4)} for share in shares]
    fields = of.parse(text)
    if name == "number":
        return [{"number": fields["number"] + n} for n in range(count)]
    if name == "address" and fields["universe"] is not None and count > 1:
        start = (fields["universe"], fields["address"])
        patch.check(0, *start, 1)
        return [{"universe": u, "address": a} for u, a in patch.in_order(sizes, start)]
    return [dict(fields) for _ in range(count)]


@dataclass(frozen=True)
class Pasted:
    """Pasted rows. changes: fields by fixture; added: those of new fixtures; faults: what is wrong, by row and column."""

    changes: dict[int, Fields]
    added: list[Fields]
    faults: list[str]


def pasted(text: str, there: Sequence[int], begin: str, known: Mapping[int, str]) -> Pasted:
    """Rows as a spreadsheet gives them: columns apart by tabs.

    With a first row of titles and a column of numbers, rows belong to the fixtures of these numbers, and new numbers are new
    fixtures. Without, they go into the fixtures `there`, one after another, from the column `begin` on. known: names of modes by
    fixture.
    """
    rows = [line.split("\t") for line in text.replace("\r\n", "\n").replace("\r", "\n").split("\n") if line.strip()]
    if not rows:
        raise ZarabandaError("There is nothing to paste: copy some rows first.", "text")
    titles = {of.title.lower(): name for name, of in COLUMNS.items()} | {name: name for name in COLUMNS}
    head = [titles.get(cell.strip().lower()) for cell in rows[0]]
    has_head = sum(name is not None for name in head) * 2 > len(head)
    names: list[str | None]
    if has_head:
        names, rows = head, rows[1:]
        unknown = [cell for cell, name in zip(head, names, strict=True) if name is None and cell]
        if unknown:
            raise ZarabandaError(f"There is no column “{brief(str(unknown[0]), 40)}”.", "text")
    else:
        from_here = list(COLUMNS)[list(COLUMNS).index(begin) :] if begin in COLUMNS else []
        widest = max(map(len, rows))
        if widest > len(from_here):
            raise ZarabandaError(
                f"{widest} columns are pasted, but from {column(begin).title} on there are {len(from_here)}. Begin further left, "
                "or paste with a row of titles.",
                "text",
            )
        names = [*from_here]
    by_number = has_head and "number" in names
    if not by_number and len(rows) > len(there):
        raise ZarabandaError(
            f"{len(rows)} rows are pasted, but from here on there are {len(there)}. Paste with a row of titles and a column of "
            "numbers to add fixtures.",
            "text",
        )
    return _sorted_in(rows, names, there, known, by_number=by_number)


def by_number(rows: Sequence[Sequence[str]], names: Sequence[str], known: Mapping[int, str]) -> Pasted:
    """Rows that have the numbers of their fixtures, one of the columns `names`. An empty cell says nothing, but for an address:
    it is none then. known: names of modes by fixture."""
    found = Pasted({}, [], [])
    for n, row in enumerate(rows):
        said = [(name, cell) for name, cell in zip(names, row, strict=True) if cell or name == "address"]
        one = _sorted_in([[cell for _, cell in said]], [name for name, _ in said], (), known, by_number=True)
        found.changes.update(one.changes)
        found.added.extend(one.added)
        found.faults.extend(fault.replace("Row 1", f"Row {n + 1}", 1) for fault in one.faults)
    return found


def _sorted_in(
    rows: Sequence[Sequence[str]], names: Sequence[str | None], there: Sequence[int], known: Mapping[int, str], *, by_number: bool
) -> Pasted:
    found = Pasted({}, [], [])
    for n, row in enumerate(rows):
        fields: Fields = {}
        faulty = False
        for name, cell in zip(names, row, strict=False):
            if name is None:
                continue
            try:
                fields |= COLUMNS[name].parse(cell)
            except ZarabandaError as error:
                found.faults.append(f"Row {n + 1}, {COLUMNS[name].title}: {error.message}")
                faulty = True
        if faulty or not fields:
            continue
        number = fields["number"] if by_number and "number" in fields else there[n] if n < len(there) else None
        if number is None:
            found.faults.append(f"Row {n + 1}: the number is missing.")
        elif number in known:
            found.changes.setdefault(number, {}).update(
                {key: one for key, one in fields.items() if key != "number" or not by_number}
            )
        elif "mode" not in fields:
            found.faults.append(f"Row {n + 1}: there is no fixture {number}; to add it, a column Mode is needed.")
        else:
            found.added.append(fields)
    return found
