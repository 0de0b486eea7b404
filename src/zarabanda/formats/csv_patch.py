"""The patch as CSV: read whoever wrote it, with columns matched by their titles or by hand, and written."""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from zarabanda.errors import ZarabandaError, brief

from .rig_table import COLUMNS, Pasted, by_number

MOST_BYTES, MOST_ROWS, MOST_COLUMNS, LONGEST_CELL = 5 << 20, 20_000, 60, 2_000
APART: dict[str, str] = {"universe": "Universe", "slot": "Address, 1 to 512", "turn_x": "Turn about x, °",
                         "turn_y": "Turn about y, °", "turn_z": "Turn about z, °"}  # fmt: skip
"""Columns that files have beside those of the table: parts of an address and of a rotation, each for itself."""
TITLES: dict[str, str] = {name: of.title for name, of in COLUMNS.items()} | APART
"""Every column that can be matched, and what it is called."""
WRITTEN = ("number", "name", "mode", "universe", "slot", "x", "y", "z", "turn_x", "turn_y", "turn_z", "cell_order", "notes",
           "layer", "class_name")  # fmt: skip
_SYNONYMS: dict[str, tuple[str, ...]] = {
    "number": ("number", "no", "nr", "id", "fixtureid", "fixturenumber", "fixtureno", "unit", "unitnumber", "channel", "chan"),
    "name": ("name", "fixturename", "label", "purpose", "position"),
    "mode": ("mode", "type", "fixturetype", "fixture", "instrument", "instrumenttype", "kind", "profile", "model"),
    "universe": ("universe", "univ", "uni"),
    "slot": ("slot", "address", "dmx", "dmxaddress", "startaddress", "dmxstart", "addr"),
    "address": ("patch", "universeaddress", "fulladdress", "dmxpatch"),
    "x": ("x", "xm", "posx", "positionx", "xposition"), "y": ("y", "ym", "posy", "positiony", "yposition"),
    "z": ("z", "zm", "posz", "positionz", "zposition", "height", "trim"),
    "turn_x": ("turnx", "rotx", "rotationx", "xrotation", "turnaboutx"),
    "turn_y": ("turny", "roty", "rotationy", "yrotation", "turnabouty"),
    "turn_z": ("turnz", "rotz", "rotationz", "zrotation", "turnaboutz"),
    "rotation": ("rotation", "mounting"), "cell_order": ("cells", "cellorder"), "notes": ("notes", "note", "remark", "comment"),
    "layer": ("layer",), "class_name": ("class", "classname"),
}  # fmt: skip
"""Words of the trade in titles, without spaces and signs."""


@dataclass(frozen=True)
class Sheet:
    """A file: its titles, and its rows."""

    titles: list[str]
    rows: list[list[str]]


def read(data: bytes) -> Sheet:
    """A CSV file: commas, semicolons or tabs; UTF-8, UTF-16 or Windows-1252. ZarabandaError says what is wrong with it."""
    if len(data) > MOST_BYTES:
        raise ZarabandaError(f"This file has {len(data) >> 20} MB; a patch has at most {MOST_BYTES >> 20}.", "file")
    text = _text(data)
    if "\0" in text:
        raise ZarabandaError("This is no CSV file: it has zero bytes in it. Save it as CSV.", "file")
    first = next((line for line in text.splitlines() if line.strip()), "")
    apart = max(",;\t", key=first.count)
    try:
        rows = [row for row in csv.reader(io.StringIO(text, newline=""), delimiter=apart) if any(cell.strip() for cell in row)]
    except csv.Error as error:
        raise ZarabandaError(f"This is no CSV file that can be read: {brief(str(error))}.", "file") from error
    if len(rows) < 2:
        raise ZarabandaError("There are no rows in this file: the first has the titles, each other one a fixture.", "file")
    if len(rows) - 1 > MOST_ROWS or max(map(len, rows)) > MOST_COLUMNS:
        raise ZarabandaError(f"At most {MOST_ROWS:,} rows of {MOST_COLUMNS} columns can be taken in.", "file")
    longest = max((len(cell), n) for n, row in enumerate(rows) for cell in row)
    if longest[0] > LONGEST_CELL:
        raise ZarabandaError(f"Row {longest[1] + 1} has a cell of {longest[0]:,} letters.", "file")
    return Sheet([brief(one.strip(), 60) for one in rows[0]], [[cell.strip() for cell in row] for row in rows[1:]])


def _text(data: bytes) -> str:
    for encoding in ("utf-16",) if data[:2] in (b"\xff\xfe", b"\xfe\xff") else ("utf-8-sig", "cp1252"):
        try:
            return data.decode(encoding)
        except UnicodeDecodeError:
            continue
    raise ZarabandaError("The letters of this file cannot be read. Save it as CSV in UTF-8.", "file")


def matched(titles: Sequence[str]) -> list[str]:
    """Which column each title means, by the words of the trade; empty: none. Each column at most once.

    >>> matched(["Fixture ID", "Fixture Type", "Universe", "DMX Address", "Pos X", "Colour"])
    ['number', 'mode', 'universe', 'slot', 'x', '']
    """
    found = list[str]()
    for title in titles:
        word = re.sub(r"[^a-z0-9]", "", title.lower())
        whole = next((name for name, of in TITLES.items() if re.sub(r"[^a-z0-9]", "", of.lower()) == word), None)
        name = whole or next((name for name, words in _SYNONYMS.items() if word in words), "")
        found.append(name if name not in found else "")
    return found


def sorted_in(sheet: Sheet, columns: Sequence[str], known: Mapping[int, str]) -> Pasted:
    """What the rows change and add, by the numbers of fixtures. columns: which each is, empty: left out; known: names of modes by
    fixture. ZarabandaError where the columns do not do."""
    if unknown := [one for one in columns if one and one not in TITLES]:
        raise ZarabandaError(f"There is no column “{brief(unknown[0], 40)}”.", "columns")
    if "number" not in columns:
        raise ZarabandaError("No column has the numbers of the fixtures. Say which one it is.", "columns")
    twice = next((one for n, one in enumerate(columns) if one and one in columns[:n]), None)
    if twice is not None:
        raise ZarabandaError(f"Two columns are {TITLES[twice]}. Leave one of them out.", "columns")
    whole = [one for one in columns if one and one not in APART]
    names = [*whole, *(["address"] if "slot" in columns else []), *(["rotation"] if _turns(columns) else [])]
    rows = [_row(dict(zip(columns, row, strict=False)), whole, names) for row in sheet.rows]
    found = by_number(rows, names, known)
    times = Counter(fields["number"] for fields in found.added)
    found.faults.extend(f"There are {count} rows of a new fixture {one}." for one, count in times.items() if count > 1)
    return found


def _turns(columns: Sequence[str]) -> bool:
    return any(one.startswith("turn_") for one in columns)


def _row(cells: Mapping[str, str], whole: Sequence[str], names: Sequence[str]) -> list[str]:
    found = [cells.get(name, "") for name in whole]
    if "address" in names[len(whole) :]:
        slot = cells.get("slot", "")
        found.append(slot if not slot or "." in slot else f"{cells.get('universe') or 1}.{slot}")
    if "rotation" in names[len(whole) :]:
        found.append(" ".join(cells.get(f"turn_{axis}", "") or "0" for axis in "xyz"))
    return found


def write(rows: Iterable[Mapping[str, Any]]) -> str:
    """Fixtures as CSV: the columns of `WRITTEN`."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow([TITLES[name] for name in WRITTEN])
    for row in rows:
        writer.writerow(["" if row[name] is None else row[name] for name in WRITTEN])
    return out.getvalue()
