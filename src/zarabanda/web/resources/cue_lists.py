"""Cue lists: which there are, how they are played, their cues with times and effects."""

from __future__ import annotations

from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.explain import cues as explain
from zarabanda.core.explain import sentence
from zarabanda.core.explain.amounts import amount
from zarabanda.core.playback.cue_list import CueList
from zarabanda.errors import OutOfStep
from zarabanda.formats.cue_document import CueListSettings, CueTimes, CueTrigger
from zarabanda.show import repositories
from zarabanda.show.references import Names
from zarabanda.show.repositories.cues import Outline
from zarabanda.show.tables import CueListRow, CueRow, EffectRow

from ..context import browser_id, context
from ..parts import Done
from .cue_models import (
    BarView,
    CueEdited,
    CueRowView,
    ListContent,
    ListOrder,
    ListPath,
    ListSummary,
    ListsView,
    ListView,
    MovesView,
    Pasting,
    Renumbering,
    ThreadView,
)

api = APIBlueprint("cue_lists", __name__, url_prefix="/api/cue-lists", abp_tags=[Tag(name="cue lists")])


def _words(settings: CueListSettings) -> str:
    """How a list is played, in a few words."""
    found = ["protected"] if settings.protected else []
    if settings.goes_round:
        by = {
            "hand": "by go",
            "time": f"every {amount(settings.round_every)} s",
            "tempo": f"every {amount(settings.round_every)} beats",
        }
        found.append(f"goes round {by[settings.round_by]}")
    found.append("highest wins" if settings.highest_wins else "latest wins")
    found.append("fader dims" if settings.fader == "dims" else "fader uncovers")
    if settings.ends == "releases":
        found.append(f"releases itself in {amount(settings.ends_in)} s")
    return " · ".join(found)


def _summary(row: CueListRow, count: int) -> dict[str, Any]:
    settings = CueListSettings.model_validate(row.settings)
    whose = context().link.lists.get(row.id)
    return {
        "id": row.id, "name": row.name, "cues": count, "settings": settings, "words": _words(settings),
        "never_rests": whose is not None and whose.never_rests,
    }  # fmt: skip


def starts(trigger: CueTrigger, tempos: dict[int, str]) -> str:
    """What starts a cue, in words."""
    wait = f", {amount(trigger.wait)} s" if trigger.wait else ""
    tempo = tempos.get(trigger.tempo, "") if isinstance(trigger.tempo, int) else ""
    return {
        "go": "go", "with": f"with{wait}", "after": f"after{wait}", "beat": f"next beat {tempo}".strip(),
        "bar": f"next bar {tempo}".strip(), "timecode": f"at {trigger.timecode}",
    }[trigger.kind]  # fmt: skip


def moves_view(whose: CueList, one: explain.Moves) -> MovesView:
    """Lights that move for a cue."""
    hidden = whose.cues[one.hidden_by].number if one.hidden_by >= 0 else None
    return MovesView(dark=one.dark, seconds=one.seconds, seen=len(one.seen), hidden_by=hidden)


def _row_view(row: Outline, whose: CueList, place: int, moves: explain.Moves, tempos: dict[int, str]) -> CueRowView:
    document = row.document
    trigger = CueTrigger.model_validate(document["trigger"])
    return CueRowView(
        id=row.id, number=row.number, name=document["name"], note=document["note"], starts=starts(trigger, tempos),
        trigger=trigger, times=CueTimes.model_validate(document["times"]),
        bars=[
            BarView(family=one.family, begin=one.begin, end=one.end, up=one.up, down=one.down)  # type: ignore[arg-type]
            for one in explain.bars(whose, place)
        ],
        everything_else_out=document["everything_else_out"], states_everything=document["states_everything"],
        changes=whose.cues[place].writes, stops=len(whose.cues[place].stops), sends=len(document.get("messages", ())),
        moves=moves_view(whose, moves),
    )  # fmt: skip


def effects_in_words(session: Session) -> dict[int, tuple[str, str]]:
    """Name and sentence of each effect, by number."""
    names = Names.of(session)
    found = {}
    for row in session.scalars(select(EffectRow)):
        parts = sentence.effect_sentence(names.named(row.document))
        found[row.id] = row.name, " ".join(sentence.as_text(part) for part in [*parts["layers"], parts["shared"]])
    return found


def thread_effects(rows: list[Outline]) -> dict[int, dict[str, Any]]:
    """What each thread of a list starts, by its number."""
    return {one["thread"]: one for row in rows for one in row.document.get("effects", ()) if one["do"] == "start"}


def view(session: Session, list_id: int) -> ListView:
    """A list with its cues."""
    row = repositories.rows.get(session, CueListRow, list_id, "cue list")
    rows = repositories.cues.outlines(session, list_id)
    link = context().link
    whose = link.lists.get(list_id)
    if whose is None or [cue.id for cue in whose.cues] != [one.id for one in rows]:
        raise OutOfStep("This list is being changed. Try again in a moment.", "list")
    every, words, started = explain.moves(link.rig, whose), effects_in_words(session), thread_effects(rows)
    tempos = dict(Names.of(session).tempo_names)
    views = [_row_view(one, whose, n, every[n], tempos) for n, one in enumerate(rows)]
    threads = []
    for one in explain.threads(whose):
        effect_id = started[one.thread]["effect"]
        name, text = words.get(effect_id, ("An effect that is gone", ""))
        threads.append(
            ThreadView(
                thread=one.thread, effect_id=effect_id, name=name, sentence=text, begins=one.begins, ends=one.ends,
                changes=list(one.changes), heads=list(started[one.thread]["heads"]),
            )
        )  # fmt: skip
    longest = max((bar.end for one in views for bar in one.bars), default=0.0)
    return ListView(**_summary(row, len(rows)), rows=views, threads=threads, longest_s=longest)


@api.get("", responses={200: ListsView})
def get_lists() -> ListsView:
    """All lists in their order."""
    with context().store.reading() as session:
        counts: dict[int, int] = {}
        for list_id in session.scalars(select(CueRow.list_id)):
            counts[list_id] = counts.get(list_id, 0) + 1
        return ListsView(lists=[ListSummary(**_summary(row, counts.get(row.id, 0))) for row in repositories.cues.lists(session)])


@api.post("", responses={201: ListView})
def make_list(body: ListContent) -> tuple[ListView, int]:
    """A new list."""
    name = (body.name or "New list").strip()
    with context().store.edit(browser_id(), f"New list {name}") as session:
        made = repositories.cues.add_list(session, name, body.settings or CueListSettings()).id
    with context().store.reading() as session:
        return view(session, made), 201


@api.get("/<int:list_id>", responses={200: ListView})
def get_list(path: ListPath) -> ListView:
    """A list with its cues, their times and effects."""
    with context().store.reading() as session:
        return view(session, path.list_id)


@api.put("/<int:list_id>", responses={200: CueEdited})
def change_list(path: ListPath, body: ListContent) -> CueEdited:
    """Another name, or played otherwise."""
    with context().store.edit(browser_id(), "Change a cue list") as session:
        name = body.name.strip() if body.name is not None else None
        repositories.cues.change_list(session, path.list_id, name=name, settings=body.settings)
    return CueEdited(list_id=path.list_id)


@api.delete("/<int:list_id>", responses={200: Done})
def delete_list(path: ListPath) -> Done:
    """Delete a list with its cues; undo brings it back."""
    with context().store.edit(browser_id(), "Delete a cue list") as session:
        repositories.cues.remove_list(session, path.list_id)
    return Done(done="Deleted the list")


@api.post("/order", responses={200: Done})
def order_lists(body: ListOrder) -> Done:
    """Put lists in another order."""
    with context().store.edit(browser_id(), "Move a cue list") as session:
        repositories.cues.arrange_lists(session, body.ids)
    return Done(done="Moved")


@api.post("/<int:list_id>/renumber", responses={200: CueEdited})
def renumber(path: ListPath, body: Renumbering) -> CueEdited:
    """Number cues anew, in their order."""
    with context().store.edit(browser_id(), "Renumber cues") as session:
        repositories.cues.renumber(session, path.list_id, body.first, body.step, body.cues)
    return CueEdited(list_id=path.list_id)


@api.post("/<int:list_id>/paste", responses={200: CueEdited})
def paste(path: ListPath, body: Pasting) -> CueEdited:
    """Copies of cues, of this list or another, behind a cue."""
    with context().store.edit(browser_id(), "Paste cues") as session:
        repositories.cues.paste(session, path.list_id, body.cues, body.after)
    return CueEdited(list_id=path.list_id)
