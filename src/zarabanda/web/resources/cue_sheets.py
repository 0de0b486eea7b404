"""Cue sheets: a list on paper, as a page made for printing and as CSV."""

from __future__ import annotations

import csv
import io
import re
from dataclasses import astuple, dataclass

import numpy as np
from flask import Response, render_template
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy.orm import Session

from zarabanda.core.explain.amounts import amount
from zarabanda.show import repositories

from ..context import context
from .cue_lists import view
from .cue_models import BarView, CueRowView, ListPath, ListView
from .cues import by_groups

api = APIBlueprint("cue_sheets", __name__, url_prefix="/api/cue-lists", abp_tags=[Tag(name="cue lists")])
TITLES = ("Cue", "Name", "Starts", "Times", "Changes", "Effects", "Remarks")
_FAMILIES = {"intensity": "level", "position": "position", "colour": "colour", "beam": "beam"}


@dataclass(frozen=True)
class SheetRow:
    """A cue on paper, all in words."""

    number: str
    name: str
    note: str
    starts: str
    times: str
    changes: str
    effects: str
    remarks: str


def _bar(bar: BarView) -> str:
    """`level 3 s, down 5 s, after 1 s`."""
    took = f"{amount(bar.up - bar.begin)} s" if bar.family == "intensity" else f"{amount(bar.end - bar.begin)} s"
    if bar.family == "intensity" and bar.up != bar.down:
        took += f", down {amount(bar.down - bar.begin)} s"
    return f"{_FAMILIES[bar.family]} {took}" + (f", after {amount(bar.begin)} s" if bar.begin else "")


def _remarks(row: CueRowView) -> str:
    found = ["everything else goes out"] if row.everything_else_out else []
    found += ["states everything"] if row.states_everything else []
    found += [f"{row.moves.dark} heads move in the dark"] if row.moves.dark else []
    found += [f"{row.moves.seen} heads move in view"] if row.moves.seen else []
    return "; ".join(found)


def rows(session: Session, seen: ListView) -> list[SheetRow]:
    """The cues of a list on paper."""
    link = context().link
    whose, groups, found = link.lists[seen.id], by_groups(session, link.rig), []
    count = max(len(link.rig), 1)
    for place, row in enumerate(seen.rows):
        heads = np.unique(whose.cues[place].places % count)
        changed = [name for name, own in groups if np.isin(own, heads).any()]
        effects = [f"{one.name} starts" for one in seen.threads if one.begins == place]
        effects += [f"{one.name} stops" for one in seen.threads if one.ends == place]
        found.append(
            SheetRow(
                f"{row.number:g}", row.name, row.note, row.starts, "; ".join(map(_bar, row.bars)), ", ".join(changed),
                "; ".join(effects), _remarks(row),
            )
        )  # fmt: skip
    return found


@api.get("/<int:list_id>/sheet")
def get_sheet(path: ListPath) -> Response:
    """The cue sheet as a page made for printing."""
    with context().store.reading() as session:
        seen = view(session, path.list_id)
        show = repositories.rows.show(session).name
        page = render_template("cue_sheet.html", list=seen, rows=rows(session, seen), titles=TITLES, show=show)
    return Response(page, mimetype="text/html")


@api.get("/<int:list_id>/sheet.csv")
def get_csv(path: ListPath) -> Response:
    """The cue sheet as CSV."""
    with context().store.reading() as session:
        seen = view(session, path.list_id)
        every = rows(session, seen)
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(("Cue", "Name", "Note", *TITLES[2:]))
    writer.writerows(map(astuple, every))
    name = re.sub(r"[^A-Za-z0-9]+", "-", seen.name).strip("-") or "list"
    headers = {"Content-Disposition": f'attachment; filename="{name}.csv"'}
    return Response(text.getvalue(), mimetype="text/csv", headers=headers)
