"""The patch as a CSV file: taken in with its columns matched, seen before it is done, and written."""

from __future__ import annotations

from typing import Any

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from zarabanda.errors import ZarabandaError
from zarabanda.formats import csv_patch
from zarabanda.formats.rig_table import Pasted
from zarabanda.show import repositories
from zarabanda.show.tables import Fixture
from zarabanda.stock.kinds import plain_kinds

from ..bodies import whole_body
from ..context import context
from .rig import put_rows, rows_in_words
from .rig_models import CsvColumn, CsvView, RigDone

api = APIBlueprint("rig csv", __name__, url_prefix="/api/rig", abp_tags=[Tag(name="rig")])
_SAMPLE = 4
_NOT_YET = "nothing yet"


class CsvQuery(BaseModel):
    """columns: which each is, in their order; none: matched by their titles. preview: tell what would be done."""

    columns: list[str] = Field(default_factory=list, max_length=csv_patch.MOST_COLUMNS)
    preview: bool = True


def _fields(row: Fixture, modes: dict[int, str]) -> dict[str, Any]:
    own = {column.key: getattr(row, column.key) for column in Fixture.__table__.columns}
    return own | {"mode": modes[row.mode_id], "slot": row.address}


def rig_by_number(session: Session) -> dict[int, dict[str, Any]]:
    """All fixtures as the columns of a table, `mode` by its name."""
    modes = {number: mode.name for number, mode in repositories.rig.modes(session).items()}
    return {row.number: _fields(row, modes) for row in repositories.rig.every(session)}


@api.put("/csv", responses={200: CsvView})
def take_in(query: CsvQuery) -> CsvView:
    """Take in a patch: the file as the body. With preview: what would change, and what is wrong. All of it is one undo step."""
    sheet = csv_patch.read(whole_body(csv_patch.MOST_BYTES))
    columns = query.columns or csv_patch.matched(sheet.titles)
    if len(columns) != len(sheet.titles):
        raise ZarabandaError(f"The file has {len(sheet.titles)} columns, and {len(columns)} were matched.", "columns")
    with context().store.reading() as session:
        rig = rig_by_number(session)
        modes = {mode.name for mode in repositories.rig.modes(session).values()} | plain_kinds().keys()
    try:
        found = csv_patch.sorted_in(sheet, columns, {number: row["mode"] for number, row in rig.items()})
    except ZarabandaError as error:
        if not query.preview:
            raise
        found = Pasted({}, [], [error.message])
    named = sum(len(fields) > 0 for fields in found.changes.values())
    found = _differing(found, rig, modes)
    if found.faults and not query.preview:
        raise ZarabandaError(f"{found.faults[0]} Nothing was taken in.", "file")
    changes, added = rows_in_words(found)
    label = f"Take in a patch of {len(sheet.rows)} rows"
    done = RigDone(done=_NOT_YET)
    try:
        if not found.faults and (changes or added):
            done = put_rows(label, query.preview, found)
    except ZarabandaError as error:
        if not query.preview:
            raise
        found.faults.append(error.message)
    return CsvView(
        titles=sheet.titles, columns=columns, known=[CsvColumn(id=name, title=title) for name, title in csv_patch.TITLES.items()],
        sample=sheet.rows[:_SAMPLE], changes=changes, added=added, same=named - len(changes), faults=found.faults[:20],
        absent=sorted(set(rig) - _numbers(sheet, columns)), **done.model_dump(),
    )  # fmt: skip


def _differing(found: Pasted, rig: dict[int, dict[str, Any]], modes: set[str]) -> Pasted:
    """Without what is so already; and what names a mode that there is none of."""
    changes = {
        number: own
        for number, fields in found.changes.items()
        if (own := {name: one for name, one in fields.items() if rig[number][name] != one})
    }
    every = [*found.added, *changes.values()]
    unknown = sorted({one["mode"] for one in every if "mode" in one} - modes)
    remedy = "Choose a mode of the show by its full name, or make the kind first"
    faults = [*found.faults, *(f"There is no mode “{one}”. {remedy}." for one in unknown)]
    return Pasted(changes, found.added, faults)


def _numbers(sheet: csv_patch.Sheet, columns: list[str]) -> set[int]:
    at = columns.index("number") if "number" in columns else None
    cells = [row[at] for row in sheet.rows if at is not None and at < len(row)]
    return {int(cell) for cell in cells if cell.isdecimal()}


@api.get("/patch.csv")
def save() -> Response:
    """All fixtures as CSV."""
    with context().store.reading() as session:
        text = csv_patch.write(rig_by_number(session).values())
    response = Response("\ufeff" + text, mimetype="text/csv")
    response.headers.set("Content-Disposition", "attachment", filename="patch.csv")
    return response
