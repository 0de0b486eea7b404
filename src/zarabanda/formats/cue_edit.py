"""Changes of a cue's document: values merged, replaced and taken away, marks, effects. Documents are plain data."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from zarabanda.core.rig import attributes

Document = dict[str, Any]
Values = dict[str, dict[str, Any]]
"""By plain attribute and head: a number, or `{"palette": n}`."""
MARKS = ("stops here", "only here", "from here on", "taken out")


def plain_values(values: Mapping[str, Mapping[str, Any]]) -> Values:
    """Values by plain attributes: a colour by its drives, 0…1, a palette for each part.

    >>> plain_values({"colour": {"1": "#ff0080"}})["blue"]
    {'1': 0.502}
    """
    found: Values = {}
    for name, heads in values.items():
        for part, attribute in enumerate(attributes.touched(name)):
            own = found.setdefault(attribute, {})
            for head, value in heads.items():
                colour = isinstance(value, str)
                own[head] = round(int(value[1 + 2 * part : 3 + 2 * part], 16) / 255, 4) if colour else value
    return found


def plain(document: Document) -> Document:
    """A document by plain attributes alone."""
    cells = {place: _plain_cells(document.get(place, {})) for place in ("stops", "only_here")}
    return {**document, "values": plain_values(document.get("values", {})), **cells}


def _plain_cells(cells: Mapping[str, Iterable[str]]) -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for name, heads in cells.items():
        for attribute in attributes.touched(name):
            found[attribute] = list(dict.fromkeys([*found.get(attribute, []), *heads]))
    return found


def merged(document: Document, values: Values) -> Document:
    """With these values written; what stopped there holds again."""
    own = {name: {**document["values"].get(name, {}), **values.get(name, {})} for name in {**document["values"], **values}}
    return {**document, "values": _tidy(own), "stops": _without(document["stops"], values)}


def replaced(document: Document, values: Values) -> Document:
    """With these values alone."""
    return {**document, "values": values, "stops": _without(document["stops"], values), "only_here": _within(document, values)}


def taken_away(document: Document, cells: Mapping[str, Iterable[str]]) -> Document:
    """Without what it says of these cells."""
    gone = {name: set(heads) for name, heads in cells.items()}
    values = {
        name: {head: value for head, value in heads.items() if head not in gone.get(name, ())}
        for name, heads in document["values"].items()
    }
    return {
        **document, "values": _tidy(values), "stops": _without(document["stops"], gone),
        "only_here": _without(document["only_here"], gone),
    }  # fmt: skip


def marked(document: Document, cells: Mapping[str, Iterable[str]], mark: str) -> Document:
    """With a mark on cells: see MARKS. What holds only here must be written here."""
    if mark == "taken out":
        return taken_away(document, cells)
    if mark == "from here on":
        return {**document, "only_here": _without(document["only_here"], cells)}
    if mark == "only here":
        written = {name: [head for head in heads if head in document["values"].get(name, {})] for name, heads in cells.items()}
        return {**document, "only_here": _with(document["only_here"], written)}
    without = taken_away(document, cells)
    return {**without, "stops": _with(without["stops"], cells)}


def _tidy(values: Values) -> Values:
    return {name: heads for name, heads in values.items() if heads}


def _with(cells: Mapping[str, list[str]], more: Mapping[str, Iterable[str]]) -> dict[str, list[str]]:
    found = {name: list(dict.fromkeys([*cells.get(name, []), *more.get(name, ())])) for name in {**cells, **more}}
    return {name: heads for name, heads in found.items() if heads}


def _without(cells: Mapping[str, list[str]], less: Mapping[str, Iterable[str]]) -> dict[str, list[str]]:
    found = {name: [head for head in heads if head not in set(less.get(name, ()))] for name, heads in cells.items()}
    return {name: heads for name, heads in found.items() if heads}


def _within(document: Document, values: Values) -> dict[str, list[str]]:
    found = {name: [head for head in heads if head in values.get(name, {})] for name, heads in document["only_here"].items()}
    return {name: heads for name, heads in found.items() if heads}


def split(document: Document, families: Iterable[str]) -> tuple[Document, Document]:
    """Into what stays, and what of some families goes into another cue; its times go with it."""
    chosen = set(families)

    def of(name: str) -> bool:
        return attributes.BY_NAME[name].family in chosen

    def part(wanted: Callable[[str], bool]) -> Document:
        return {
            place: {name: heads for name, heads in document[place].items() if wanted(name)}
            for place in ("values", "stops", "only_here")
        }

    stays = {**document, **part(lambda name: not of(name))}
    goes = {**document, **part(of), "effects": [], "name": "", "note": "", "everything_else_out": False}
    return stays, goes
