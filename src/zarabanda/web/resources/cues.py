"""Cues: recorded from the draft, what holds in each and where that comes from, changed by hand, updated on stage."""

from __future__ import annotations

from typing import Any

import numpy as np
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from numpy.typing import NDArray
from pydantic import ValidationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.explain import cues as explain
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.tracking import Tracked
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig
from zarabanda.errors import NotThere, OutOfStep, ZarabandaError, shown
from zarabanda.formats import cue_edit
from zarabanda.formats.cue_document import CueDocument, FromPalette
from zarabanda.formats.effect_document import faults
from zarabanda.show import repositories
from zarabanda.show.tables import CueListRow, CueRow, PaletteRow

from ..context import browser_id, context
from ..parts import Done
from ..recording import as_document, drafted, effects_of_draft, new_in
from .cue_lists import effects_in_words, moves_view, thread_effects
from .cue_messages import endless_in_words, messages_of
from .cue_models import (
    ContentGroup,
    ContentLine,
    CueChange,
    CueContentView,
    CueEdited,
    CueEffectView,
    CuePath,
    EffectInCue,
    ListPath,
    NewCue,
    RecordInto,
    Splitting,
    ThreadChange,
    ThreadPath,
    ValueChange,
    ValueMark,
)
from .cue_pixels import pixels_of

api = APIBlueprint("cues", __name__, url_prefix="/api/cues", abp_tags=[Tag(name="cues")])
lists_api = APIBlueprint("cues_of_lists", __name__, url_prefix="/api/cue-lists", abp_tags=[Tag(name="cues")])


def checked(document: dict[str, Any]) -> CueDocument:
    """A cue's document that can be kept."""
    try:
        return CueDocument.model_validate(document)
    except ValidationError as error:
        place, what = faults(error)[0]
        raise ZarabandaError(f"The cue cannot be kept. {place or 'The document'}: {what}.", place) from error


def _row(session: Session, cue_id: int) -> CueRow:
    return repositories.rows.get(session, CueRow, cue_id, "cue")


def compiled(cue_id: int) -> tuple[CueList, int]:
    """The list of a cue, and its place in it."""
    for whose in context().link.lists.values():
        if cue_id in whose.index:
            return whose, whose.index[cue_id]
    with context().store.reading() as session:
        if session.get(CueRow, cue_id) is not None:
            raise OutOfStep("This cue is being changed. Try again in a moment.", "cue")
    raise NotThere("This cue does not exist any more; somebody may have deleted it. Undo brings it back.", "cue")


def by_groups(session: Session, rig: Rig) -> list[tuple[str, NDArray[np.int64]]]:
    """Heads by group, each in the first of those made by hand that has it."""
    index = rig.heads.index
    groups = [
        (group.name, [index[key] for key in group.heads if key in index])
        for group in repositories.groups.every(session)
        if group.rule is None
    ]
    return explain.by_group(groups, rig)


# what holds in a cue


@api.get("/<int:cue_id>", responses={200: CueContentView})
def get_cue(path: CuePath) -> CueContentView:
    """A cue with all that holds in it, by group and family."""
    with context().store.reading() as session:
        row = _row(session, path.cue_id)
        whose, place = compiled(path.cue_id)
        rig, tracked = context().link.rig, whose.after(place)
        document = CueDocument.model_validate(row.document)
        names = {one.id: one.name for one in session.execute(select(PaletteRow.id, PaletteRow.name))}
        found = []
        for name, heads in by_groups(session, rig):
            lines = [_line(one, whose, names) for one in explain.lines(rig, whose, tracked, heads)]
            if lines:
                found.append(ContentGroup(name=name, heads=len(heads), lines=lines))
        return CueContentView(
            id=row.id, list_id=row.list_id, number=row.number, name=document.name, note=document.note,
            changes=whose.cues[place].writes, carried=explain.carried_count(tracked), times=document.times,
            ease=document.ease, space=document.space, trigger=document.trigger,
            everything_else_out=document.everything_else_out, states_everything=document.states_everything,
            takes_over=document.takes_over, dark_moves=document.dark_moves, seen_moves=document.seen_moves,
            moves=moves_view(whose, explain.moves(rig, whose)[place]), groups=found,
            effects=_effects(session, whose, place), pixels=pixels_of(session, whose, place),
            messages=messages_of(session, document), endless=endless_in_words(session, row.id),
        )  # fmt: skip


def _line(one: explain.Line, whose: CueList, names: dict[int, str]) -> ContentLine:
    return ContentLine(
        attribute=one.attribute, label=one.label, family=one.family,  # type: ignore[arg-type]  # one of the families
        words=one.words, colours=list(one.colours), palette=names.get(one.palette), heads=list(one.heads),
        written=one.written, origin=None if one.written else whose.cues[one.source].number, only_here=one.only_here,
    )  # fmt: skip


def _effects(session: Session, whose: CueList, place: int) -> list[CueEffectView]:
    words = effects_in_words(session)
    started = thread_effects(repositories.cues.outlines(session, whose.id))
    found = []
    for one in explain.threads(whose):
        if not one.begins <= place or (0 <= one.ends < place) or one.thread not in started:
            continue
        running = whose.effects_after(place).get(one.thread)
        start, (name, text) = started[one.thread], words.get(started[one.thread]["effect"], ("An effect that is gone", ""))
        state = (
            "starts" if one.begins == place else "stops" if one.ends == place else "changes" if place in one.changes else "runs"
        )
        found.append(
            CueEffectView(
                thread=one.thread, effect_id=start["effect"], name=name, sentence=text, heads=len(start["heads"]),
                state=state,  # type: ignore[arg-type]  # one of the four
                depth=running.depth if running else 0.0, speed=running.speed if running else start["speed"],
                began=whose.cues[one.begins].number, ends=whose.cues[one.ends].number if one.ends >= 0 else None,
            )
        )  # fmt: skip
    return found


# recording


@lists_api.post("/<int:list_id>/cues", responses={201: CueEdited})
def record_cue(path: ListPath, body: NewCue) -> tuple[CueEdited, int]:
    """A new cue from the draft: of it what differs from what holds there already."""
    with context().store.edit(browser_id(), f"Record {body.name.strip() or 'a cue'}") as session:
        repositories.rows.get(session, CueListRow, path.list_id, "cue list")
        after = None if body.after is None else _row(session, body.after).number
        number = body.number if body.number is not None else repositories.cues.free_number(session, path.list_id, after)
        whose = context().link.lists.get(path.list_id)
        before = _place_before(whose, number)
        values = drafted(session, body.families, body.heads)
        tracked = None if whose is None or before is None else whose.after(before)
        written = as_document(new_in(session, values, tracked, context().link.rig))
        effects = effects_of_draft(session, path.list_id, whose, before) if body.effects else []
        document = checked(
            {"name": body.name.strip(), "values": written, "effects": effects, "everything_else_out": body.everything_else_out}
        )
        if body.times is not None:
            document.times = body.times
        made = repositories.cues.add(session, path.list_id, number, document).id
    return CueEdited(list_id=path.list_id, cue_id=made), 201


def _place_before(whose: CueList | None, number: float) -> int | None:
    """The place of the cue before a number."""
    earlier = [n for n, cue in enumerate(whose.cues) if cue.number < number] if whose is not None else []
    return earlier[-1] if earlier else None


def _changed(row: CueRow, document: dict[str, Any], session: Session) -> None:
    repositories.cues.change(session, row.id, checked(document))


@api.post("/<int:cue_id>/record", responses={200: CueEdited})
def record_into(path: CuePath, body: RecordInto) -> CueEdited:
    """The draft into a cue that is there: merged, in place of what it has, or taken away from it."""
    with context().store.edit(browser_id(), "Record into a cue") as session:
        row = _row(session, path.cue_id)
        values = as_document(drafted(session, body.families, body.heads))
        document = cue_edit.plain(row.document)
        if body.how == "take away":
            document = cue_edit.taken_away(document, values)
        else:
            document = cue_edit.merged(document, values) if body.how == "merge" else cue_edit.replaced(document, values)
            if body.effects:
                whose, place = compiled(path.cue_id)
                document["effects"] = [*document["effects"], *effects_of_draft(session, row.list_id, whose, place)]
        _changed(row, document, session)
        list_id = row.list_id
    return CueEdited(list_id=list_id)


@api.put("/<int:cue_id>", responses={200: CueEdited})
def change_cue(path: CuePath, body: CueChange) -> CueEdited:
    """Another number, name, time, trigger and the like."""
    with context().store.edit(browser_id(), "Change a cue") as session:
        row = _row(session, path.cue_id)
        changes = body.model_dump(mode="json", exclude={"number"}, exclude_none=True)
        repositories.cues.change(session, row.id, checked({**row.document, **changes}), body.number)
        list_id = row.list_id
    return CueEdited(list_id=list_id)


@api.post("/<int:cue_id>/values", responses={200: CueEdited})
def change_values(path: CuePath, body: ValueChange) -> CueEdited:
    """Other values in a cue: here, or in the cue that each came from."""
    if body.attribute not in [*attributes.BY_NAME, *attributes.COMPOUND]:
        raise ZarabandaError(f"There is no attribute {shown(body.attribute)}.", "attribute")
    value = body.value.model_dump() if isinstance(body.value, FromPalette) else body.value
    whose, place = compiled(path.cue_id)
    tracked = whose.after(place)
    with context().store.edit(browser_id(), "Change values of a cue") as session:
        for cue_id, heads in _targets(whose, place, tracked, body).items():
            row = _row(session, cue_id)
            values = cue_edit.plain_values({body.attribute: dict.fromkeys(heads, value)})
            repositories.draft.check(values)
            _changed(row, cue_edit.merged(cue_edit.plain(row.document), values), session)
    return CueEdited(list_id=whose.id)


def _targets(whose: CueList, place: int, tracked: Tracked, body: ValueChange) -> dict[int, list[str]]:
    """Into which cue the values of each head go."""
    index, row = context().link.rig.heads.index, attributes.INDEX[attributes.touched(body.attribute)[0]]
    found: dict[int, list[str]] = {}
    for head in body.heads:
        if head not in index:
            raise ZarabandaError(f"There is no head {shown(head)} in the rig.", "heads")
        source = int(tracked.source[row, index[head]]) if body.where == "origin" else place
        found.setdefault(whose.cues[source if source >= 0 else place].id, []).append(head)
    return found


@api.post("/<int:cue_id>/mark", responses={200: CueEdited})
def mark_values(path: CuePath, body: ValueMark) -> CueEdited:
    """Let values stop here, hold only here, hold from here on, or take them out of the cue."""
    if body.attribute not in [*attributes.BY_NAME, *attributes.COMPOUND]:
        raise ZarabandaError(f"There is no attribute {shown(body.attribute)}.", "attribute")
    with context().store.edit(browser_id(), f"Values: {body.mark}") as session:
        row = _row(session, path.cue_id)
        cells = dict.fromkeys(attributes.touched(body.attribute), body.heads)
        document = cue_edit.plain(row.document)
        if body.mark == "only here":  # what was carried on must be written here to hold only here
            document = cue_edit.merged(document, _carried(path.cue_id, cells, document))
        _changed(row, cue_edit.marked(document, cells, body.mark), session)
        list_id = row.list_id
    return CueEdited(list_id=list_id)


def _carried(cue_id: int, cells: dict[str, list[str]], document: dict[str, Any]) -> cue_edit.Values:
    """Values of cells that a cue does not write itself, as it carries them on."""
    whose, place = compiled(cue_id)
    tracked, index, found = whose.after(place), context().link.rig.heads.index, dict[str, dict[str, Any]]()
    for name, heads in cells.items():
        row = attributes.INDEX[name]
        for head in heads:
            if head in document["values"].get(name, {}) or head not in index or np.isnan(tracked.values[row, index[head]]):
                continue
            palette = int(tracked.palettes[row, index[head]])
            value = round(float(tracked.values[row, index[head]]), 4)
            found.setdefault(name, {})[head] = {"palette": palette} if palette >= 0 else value
    return found


@api.post("/<int:cue_id>/effects", responses={200: CueEdited})
def change_effect(path: CuePath, body: EffectInCue) -> CueEdited:
    """Start, change or stop an effect in a cue; what the cue did to it before goes."""
    with context().store.edit(browser_id(), f"An effect: {body.change.do}") as session:
        row = _row(session, path.cue_id)
        kept = [one for one in row.document.get("effects", ()) if one["thread"] != body.change.thread or one["do"] == "start"]
        if body.change.do == "start":
            kept = [one for one in kept if one["thread"] != body.change.thread]
        _changed(row, {**row.document, "effects": [*kept, body.change.model_dump(mode="json")]}, session)
        list_id = row.list_id
    return CueEdited(list_id=list_id)


@lists_api.put("/<int:list_id>/threads/<int:thread>", responses={200: CueEdited})
def change_thread(path: ThreadPath, body: ThreadChange) -> CueEdited:
    """Let an effect start and stop in other cues."""
    with context().store.edit(browser_id(), "Move an effect") as session:
        repositories.cues.set_thread(session, path.list_id, path.thread, body.begins, body.ends)
    return CueEdited(list_id=path.list_id)


@api.post("/<int:cue_id>/split", responses={200: CueEdited})
def split_cue(path: CuePath, body: Splitting) -> CueEdited:
    """Move some families of a cue into one of its own behind it, that goes with it."""
    with context().store.edit(browser_id(), "Split a cue") as session:
        row = _row(session, path.cue_id)
        stays, goes = cue_edit.split(cue_edit.plain(row.document), body.families)
        if not goes["values"] and not goes["stops"]:
            raise ZarabandaError(f"This cue says nothing of {' and '.join(body.families)}.", "families")
        number = repositories.cues.free_number(session, row.list_id, row.number)
        _changed(row, stays, session)
        name = f"{row.document.get('name', '')}, {' and '.join(body.families)}".strip(", ")
        trigger = {"kind": "with", "wait": 0.0}
        repositories.cues.add(session, row.list_id, number, checked({**goes, "name": name, "trigger": trigger}))
        list_id = row.list_id
    return CueEdited(list_id=list_id)


@api.delete("/<int:cue_id>", responses={200: Done})
def delete_cue(path: CuePath) -> Done:
    """Delete a cue; undo brings it back."""
    with context().store.edit(browser_id(), "Delete a cue") as session:
        repositories.cues.remove(session, path.cue_id)
    return Done(done="Deleted the cue")
