"""Markers of a song as a table of text: position, length, name, colour, with a heading."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable

from pydantic import ValidationError

from zarabanda.errors import ZarabandaError, shown

from .effect_document import faults
from .timeline_document import MarkerDocument

COLUMNS = ("position", "length", "name", "colour")


def written(markers: Iterable[MarkerDocument]) -> str:
    """As text. Positions and lengths in s."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for one in markers:
        writer.writerow([f"{one.at:.3f}", f"{one.length:.3f}", one.name, one.colour])
    return out.getvalue()


def seconds_of(text: str) -> float:
    """A time as it is typed, in s: `83.5`, `1:23.5` or `0:01:23.5`. ZarabandaError where it is none.

    >>> seconds_of("1:23.5"), seconds_of("1:00:00"), seconds_of(" 7 ")
    (83.5, 3600.0, 7.0)
    """
    parts = text.strip().split(":")
    try:
        if not 1 <= len(parts) <= 3 or any(not part.strip() for part in parts):
            raise ValueError
        numbers = [float(part) for part in parts]
        if any(one < 0 for one in numbers) or any(one >= 60 for one in numbers[1:]):
            raise ValueError
    except ValueError:
        raise ZarabandaError(f"{shown(text)} is no time; type it as 83.5 or 1:23.5.", "text") from None
    total = 0.0
    for one in numbers:
        total = 60 * total + one
    return total


def read(text: str) -> list[MarkerDocument]:
    """Markers from text; `;` and tabs part columns as well. ZarabandaError says which line is wrong, and how."""
    first = text.lstrip("\ufeff").splitlines()[0] if text.strip() else ""
    delimiter = max((",", ";", "\t"), key=first.count)
    rows = list(csv.reader(io.StringIO(text.lstrip("\ufeff")), delimiter=delimiter))
    heading = [one.strip().lower() for one in rows[0]] if rows else []
    if "name" not in heading or "position" not in heading:
        raise ZarabandaError(f"The first line must name the columns: {', '.join(COLUMNS)}.", "text")
    found = []
    for n, row in enumerate(rows[1:], 2):
        if not any(one.strip() for one in row):
            continue
        given = dict(zip(heading, (one.strip() for one in row), strict=False))
        try:
            length = seconds_of(given.get("length") or "0")
            document = {"at": seconds_of(given["position"]), "length": length, "name": given["name"]}
            found.append(MarkerDocument.model_validate({**document, "colour": given.get("colour", "").lower()}))
        except ZarabandaError as error:
            raise ZarabandaError(f"Line {n}: {error.message}", "text") from error
        except (KeyError, ValidationError) as error:
            what = faults(error)[0][1] if isinstance(error, ValidationError) else "it has too few columns"
            raise ZarabandaError(f"Line {n}: {what}.", "text") from error
    return found
